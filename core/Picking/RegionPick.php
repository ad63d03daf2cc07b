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
use VineShelf\Section\CutRows;
use VineShelf\Section\CutShape;
use VineShelf\Section\Plane;
use VineShelf\Section\Section;

/**
 * The objects that a region in the picture catches, exact to the triangle: what is drawn as a box is caught by its box, what is
 * hidden, guarded or locked is not caught at all. What stands behind something else is caught as well.
 *
 * Bounding boxes decide most: first those around 64 objects that stand close together, then around 8, then those of single ones. Only
 * where a box straddles the region's edge are its triangles looked at.
 */
final class RegionPick
{
    private readonly Scene $scene;

    private readonly Projection $projection;

    /** @var array{float, float, float} */
    private readonly array $origin;

    private ?CutRows $cut = null;

    /** @var list<Plane> */
    private array $planes = [];

    /** @var array<int, Shape> by mesh number */
    private array $boxShapes = [];

    /**
     * @param bool         $inside     whether an object must lie wholly in the region, or only touch it
     * @param bool         $everything whether what is hidden, guarded, locked or cut away is caught as well
     * @param Section|null $section    what is beyond it is not caught
     */
    public function __construct(
        Facts $facts,
        private readonly InEffect $inEffect,
        private readonly Shapes $shapes,
        private readonly Camera $camera,
        private readonly Region $region,
        private readonly bool $inside,
        private readonly bool $everything = false,
        ?Section $section = null,
    ) {
        $this->scene = $facts->scene;
        $this->projection = new Projection($camera, $region);
        $this->origin = $facts->origin();
        if ($section !== null && ! $everything && $section->cuts()) {
            $this->cut = CutRows::of($section, $facts);
            $this->planes = $section->planes();
        }
    }

    /** @return Bits rows */
    public function find(): Bits
    {
        [$sure, $doubtful] = $this->byBoxes($this->catchable());
        if ($this->cut !== null) {
            // What is left of those that a plane goes through may lie elsewhere than their boxes, or be nothing.
            $doubtful = [...$doubtful, ...$sure->and($this->cut->across)->rows()];
            $sure = $sure->without($this->cut->across);
        }
        $asBox = $this->inEffect->rungs()->being(Rung::Box->value);
        $found = [];
        foreach ($doubtful as $row) {
            if ($this->catches($row, $asBox->has($row))) {
                $found[] = $row;
            }
        }

        return $sure->or(Bits::ofRows($this->scene->count(), $found));
    }

    /** Rows that are drawn and open, or simply those that draw something. */
    private function catchable(): Bits
    {
        $drawing = (new Facts($this->scene))->ranked('instances')->between(1, INF);
        if ($this->everything) {
            return $drawing;
        }

        return $drawing
            ->without($this->inEffect->rungs()->being(Rung::Hidden->value))
            ->without($this->cut->gone ?? Bits::none($this->scene->count()))
            ->and($this->inEffect->locks()->being(Lock::Open->value));
    }

    /** @return array{Bits, list<int>} rows that are caught for sure, and those whose boxes cannot tell */
    private function byBoxes(Bits $catchable): array
    {
        $near = $this->scene->column('near');
        $open = $catchable->bytes;
        // One byte a row until all are known: setting bits would take longer.
        $sure = str_repeat("\0", $this->scene->count() + 1);
        $doubtful = [];
        $seen = new BoxesSeen($this->camera, $this->region, $this->origin);
        $runs = range(0, intdiv(strlen($near), 4 * Blocks::SIZES[0] * Blocks::STEP));
        foreach (array_slice(Blocks::SIZES, 0, -1) as $size) {
            $straddling = [];
            foreach ($seen->are($this->scene->column("blocks.$size"), $runs, Blocks::STEP, false) as $block => $is) {
                if ($is === Region::IN) {
                    foreach (Blocks::rows($near, $size, $block) as $row) {
                        $sure[$row] = "\1";
                    }
                } else {
                    $straddling[] = $block;
                }
            }
            $runs = $straddling;
        }
        $run = -1;
        $rows = [];
        foreach ($seen->are($this->scene->column('blocks.1'), $runs, Blocks::STEP, true) as $at => $is) {
            if (intdiv($at, Blocks::STEP) !== $run) {
                $run = intdiv($at, Blocks::STEP);
                $rows = Blocks::rows($near, Blocks::STEP, $run);
            }
            $row = $rows[($at % Blocks::STEP) + 1];
            if ($is === Region::IN) {
                $sure[$row] = "\1";
            } elseif (((ord($open[$row >> 3]) >> ($row & 7)) & 1) === 1) {
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
        [$ox, $oy, $oz] = $this->origin;
        [$first, $last] = [Packed::uint32At($recordAt, $row), Packed::uint32At($recordAt, $row + 1)];
        $any = false;
        for ($record = $first; $record < $last; $record++) {
            /** @var array{mesh: int, 1: float, 2: float, 3: float, 4: float, 5: float, 6: float, 7: float, 8: float, 9: float, 10: float,
             *     11: float, 12: float} $m */
            $m = unpack('Vmesh/g12', $records, $record * DrawRecords::RECORD + 4);
            $shape = $asBox ? $this->boxShape($m['mesh']) : $this->shapes->shape($m['mesh']);
            if ($shape === null) {
                continue;
            }
            $placement = [$m[1], $m[2], $m[3], $m[4] + $ox, $m[5], $m[6], $m[7], $m[8] + $oy, $m[9], $m[10], $m[11], $m[12] + $oz];
            if ($this->cut?->across->has($row) === true) {
                $shape = CutShape::of($shape, $placement, $this->planes);
                if ($shape->pieces === []) {
                    continue;
                }
            }
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
