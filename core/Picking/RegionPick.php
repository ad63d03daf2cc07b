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
    /** A box is far away when it reaches less than this part of its distance towards the camera. */
    private const FAR = 0.05;

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
        for ($block = 0, $count = intdiv(strlen($blocks), 24); $block < $count; $block++) {
            $is = $this->boxIs($blocks, $block, false);
            if ($is === Region::OUT) {
                continue;
            }
            $rows = Blocks::of($near, $block);
            if ($is === Region::IN) {
                foreach ($rows as $row) {
                    $sure[$row] = "\1";
                }

                continue;
            }
            foreach ($rows as $row) {
                if (((ord($open[$row >> 3]) >> ($row & 7)) & 1) === 0) {
                    continue;
                }
                $is = $this->boxIs($boxes, $row, true);
                if ($is === Region::IN) {
                    $sure[$row] = "\1";
                } elseif ($is === Region::MIXED) {
                    $doubtful[] = $row;
                }
            }
        }
        sort($doubtful);

        return [Bits::ofMask($this->scene->count(), $sure)->and($catchable), $doubtful];
    }

    /** How a box lies to the region. @param string $boxes six 32-bit floats each */
    private function boxIs(string $boxes, int $row, bool $exactly): int
    {
        /** @var array{1: float, 2: float, 3: float, 4: float, 5: float, 6: float} $b */
        $b = unpack('g6', $boxes, $row * 24);
        [1 => $x1, 2 => $y1, 3 => $z1, 4 => $x2, 5 => $y2, 6 => $z2] = $b;
        if ($x1 > $x2) {
            return Region::OUT;
        }
        $m = $this->camera->rows;
        [$ox, $oy, $oz] = $this->origin;
        $near = $this->camera->near;
        $cx = ($x1 + $x2) / 2 + $ox;
        $cy = ($y1 + $y2) / 2 + $oy;
        $cz = ($z1 + $z2) / 2 + $oz;
        // Boxes are kept as 32-bit floats: a little larger, so that rounding hides nothing.
        $hx = (($x2 - $x1) / 2) * 1.00001 + 1e-4;
        $hy = (($y2 - $y1) / 2) * 1.00001 + 1e-4;
        $hz = (($z2 - $z1) / 2) * 1.00001 + 1e-4;
        $w = $m[8] * $cx + $m[9] * $cy + $m[10] * $cz + $m[11];
        $reach = abs($m[8]) * $hx + abs($m[9]) * $hy + abs($m[10]) * $hz;
        if ($w + $reach < $near) {
            return Region::OUT;
        }
        if ($w - $reach < $near) {
            return $this->cutBoxIs([$cx - $hx, $cy - $hy, $cz - $hz, $cx + $hx, $cy + $hy, $cz + $hz]);
        }
        $x = $m[0] * $cx + $m[1] * $cy + $m[2] * $cz + $m[3];
        $y = $m[4] * $cx + $m[5] * $cy + $m[6] * $cz + $m[7];
        // How far a corner can be from the middle in the picture: (x + dx) / (w + dw) - u = (dx - u dw) / (w + dw).
        $u = $x / $w;
        $v = $y / $w;
        $least = $w - $reach;
        $reachU = (abs($m[0] - $u * $m[8]) * $hx + abs($m[1] - $u * $m[9]) * $hy + abs($m[2] - $u * $m[10]) * $hz) / $least;
        $reachV = (abs($m[4] - $v * $m[8]) * $hx + abs($m[5] - $v * $m[9]) * $hy + abs($m[6] - $v * $m[10]) * $hz) / $least;
        $left = $u - $reachU;
        $right = $u + $reachU;
        $top = $v - $reachV;
        $bottom = $v + $reachV;
        $is = $this->region->rectangleIs($left, $top, $right, $bottom);
        if ($is !== Region::MIXED) {
            return $is;
        }
        // Of what is far away, that is as good as its corners.
        if ($reach < self::FAR * $w) {
            return $exactly ? $this->region->rectangleIsExactly($left, $top, $right, $bottom) : $is;
        }
        $xx = $m[0] * $hx;
        $xy = $m[1] * $hy;
        $xz = $m[2] * $hz;
        $yx = $m[4] * $hx;
        $yy = $m[5] * $hy;
        $yz = $m[6] * $hz;
        $wx = $m[8] * $hx;
        $wy = $m[9] * $hy;
        $wz = $m[10] * $hz;
        $left = $top = INF;
        $right = $bottom = -INF;
        for ($corner = 0; $corner < 8; $corner++) {
            $sx = ($corner & 1) === 1 ? 1 : -1;
            $sy = ($corner & 2) === 2 ? 1 : -1;
            $sz = ($corner & 4) === 4 ? 1 : -1;
            $v = 1 / ($w + $sx * $wx + $sy * $wy + $sz * $wz);
            $px = ($x + $sx * $xx + $sy * $xy + $sz * $xz) * $v;
            $py = ($y + $sx * $yx + $sy * $yy + $sz * $yz) * $v;
            $left = $px < $left ? $px : $left;
            $right = $px > $right ? $px : $right;
            $top = $py < $top ? $py : $top;
            $bottom = $py > $bottom ? $py : $bottom;
        }

        return $exactly
            ? $this->region->rectangleIsExactly($left, $top, $right, $bottom)
            : $this->region->rectangleIs($left, $top, $right, $bottom);
    }

    /**
     * How a box that is partly behind the camera lies to the region: OUT, or MIXED.
     *
     * @param array{float, float, float, float, float, float} $box least and greatest x, y, z in metres
     */
    private function cutBoxIs(array $box): int
    {
        $m = $this->camera->rows;
        $near = $this->camera->near;
        $corners = [];
        for ($corner = 0; $corner < 8; $corner++) {
            $x = $box[($corner & 1) === 1 ? 3 : 0];
            $y = $box[($corner & 2) === 2 ? 4 : 1];
            $z = $box[($corner & 4) === 4 ? 5 : 2];
            $corners[] = [
                $m[0] * $x + $m[1] * $y + $m[2] * $z + $m[3],
                $m[4] * $x + $m[5] * $y + $m[6] * $z + $m[7],
                $m[8] * $x + $m[9] * $y + $m[10] * $z + $m[11],
            ];
        }
        $left = $top = INF;
        $right = $bottom = -INF;
        foreach ($corners as $from => [$x, $y, $w]) {
            // Its three edges: where they leave the near plane is seen as well.
            foreach ([$from ^ 1, $from ^ 2, $from ^ 4] as $to) {
                [$toX, $toY, $toW] = $corners[$to];
                if ($w < $near && $toW < $near) {
                    continue;
                }
                $t = $w < $near ? ($near - $w) / ($toW - $w) : 0.0;
                $v = max($near, $w + ($toW - $w) * $t);
                $px = ($x + ($toX - $x) * $t) / $v;
                $py = ($y + ($toY - $y) * $t) / $v;
                $left = min($left, $px);
                $right = max($right, $px);
                $top = min($top, $py);
                $bottom = max($bottom, $py);
            }
        }

        return $left > $right || $this->region->rectangleIs($left, $top, $right, $bottom) === Region::OUT ? Region::OUT : Region::MIXED;
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
