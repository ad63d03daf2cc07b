<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Facts\Derived\Blocks;
use VineShelf\Facts\Facts;
use VineShelf\Geometry\Box;
use VineShelf\Geometry\Shape;
use VineShelf\Geometry\Shapes;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/**
 * The objects that a region in the picture catches, exact to the triangle: what is drawn as a box is caught by its box, what is
 * hidden, guarded or locked is not caught at all. What stands behind something else is caught as well.
 *
 * Bounding boxes decide most: first those around 32 objects that stand close together, then those of single ones. Only where a box
 * straddles the region's edge are its triangles looked at.
 */
final class RegionPick
{
    private readonly Scene $scene;

    private readonly Projection $projection;

    /** @var array{float, float, float} */
    private readonly array $origin;

    /** @var array<int, Shape> by mesh number */
    private array $boxShapes = [];

    /** @param bool $inside whether an object must lie wholly in the region, or only touch it */
    public function __construct(
        Facts $facts,
        private readonly InEffect $inEffect,
        private readonly Shapes $shapes,
        private readonly Camera $camera,
        private readonly Region $region,
        private readonly bool $inside,
    ) {
        $this->scene = $facts->scene;
        $this->projection = new Projection($camera, $region);
        $this->origin = $facts->origin();
    }

    /** @return Bits rows */
    public function find(): Bits
    {
        [$sure, $doubtful] = $this->byBoxes($this->catchable());
        $rungs = $this->inEffect->rungs();
        $found = [];
        foreach ($doubtful as $row) {
            if ($this->catches($row, $rungs->at($row) === Rung::Box->value)) {
                $found[] = $row;
            }
        }

        return $sure->or(Bits::ofRows($this->scene->count(), $found));
    }

    /** Rows that are drawn and open. */
    private function catchable(): Bits
    {
        return (new Facts($this->scene))
            ->ranked('instances')
            ->between(1, INF)
            ->without($this->inEffect->rungs()->being(Rung::Hidden->value))
            ->and($this->inEffect->locks()->being(Lock::Open->value));
    }

    /** @return array{Bits, list<int>} rows that are caught for sure, and those whose boxes cannot tell */
    private function byBoxes(Bits $catchable): array
    {
        $boxes = $this->scene->column('box');
        $blocks = $this->scene->column('blocks');
        $near = $this->scene->column('near');
        $open = $catchable->bytes;
        // One byte a row until all are known: setting bits would take longer.
        $sure = str_repeat("\0", $this->scene->count() + 1);
        $doubtful = [];
        $seen = new BoxesSeen($this->camera, $this->region, $this->origin);
        $straddling = [];
        foreach ($seen->are($blocks, range(0, max(0, intdiv(strlen($blocks), 24) - 1)), false) as $block => $is) {
            if ($is === Region::IN) {
                foreach (Blocks::of($near, $block) as $row) {
                    $sure[$row] = "\1";
                }
            } elseif ($is === Region::MIXED) {
                foreach (Blocks::of($near, $block) as $row) {
                    if (((ord($open[$row >> 3]) >> ($row & 7)) & 1) === 1) {
                        $straddling[] = $row;
                    }
                }
            }
        }
        foreach ($seen->are($boxes, $straddling, true) as $row => $is) {
            if ($is === Region::IN) {
                $sure[$row] = "\1";
            } else {
                $doubtful[] = $row;
            }
        }
        sort($doubtful);

        return [Bits::ofMask($this->scene->count(), $sure)->and($catchable), $doubtful];
    }

    private function catches(int $row, bool $asBox): bool
    {
        $records = $this->scene->column('records');
        $recordAt = $this->scene->column('recordAt');
        [$first, $last] = Packed::uint32($recordAt, $row * 4, 2);
        $any = false;
        for ($record = $first; $record < $last; $record++) {
            $at = $record * DrawRecords::RECORD;
            $mesh = Packed::uint32At(substr($records, $at + 4, 4), 0);
            $shape = $asBox ? $this->boxShape($mesh) : $this->shapes->shape($mesh);
            if ($shape === null) {
                continue;
            }
            $m = Packed::float32($records, $at + 8, 12);
            $placement = [
                $m[0],
                $m[1],
                $m[2],
                $m[3] + $this->origin[0],
                $m[4],
                $m[5],
                $m[6],
                $m[7] + $this->origin[1],
                $m[8],
                $m[9],
                $m[10],
                $m[11] + $this->origin[2],
            ];
            if ($this->inside) {
                if (! $this->projection->isInside($shape, $placement)) {
                    return false;
                }
                $any = true;
            } elseif ($this->projection->touches($shape, $placement)) {
                return true;
            }
        }

        return $any;
    }

    private function boxShape(int $mesh): Shape
    {
        return $this->boxShapes[$mesh] ??= Shape::ofBox(DrawRecords::halves($this->scene, $mesh));
    }
}
