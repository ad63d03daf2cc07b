<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

/**
 * A small picture: of each pixel which row is in front at its middle, how near, and in which colour. Triangles are filled line by line;
 * both of their sides count.
 *
 * Nearness is what is linear across a picture: one divided by the metres ahead of the eye, or of a parallel camera those metres below zero.
 */
final class Raster
{
    /** Where nothing is. */
    public const NOTHING = 0xe9e4d8;

    /** @var array<int, int> 0 for none */
    public array $rows;

    /** @var array<int, float> */
    private array $near;

    /** @var array<int, int> 0xRRGGBB */
    public array $colours;

    /** @var array<int, int> by pixel the last thing that covered it */
    private array $stamps;

    private int $stamp = 0;

    /** @param float $scale pixels that a metre is high, a metre ahead */
    public function __construct(
        public readonly int $width,
        public readonly int $height,
        private readonly float $scale,
        private readonly bool $isParallel,
    ) {
        $this->rows = array_fill(0, $width * $height, 0);
        $this->near = array_fill(0, $width * $height, $isParallel ? -INF : 0.0);
        $this->colours = array_fill(0, $width * $height, self::NOTHING);
        $this->stamps = $this->rows;
    }

    /** What follows is another thing, until this is called again. */
    public function next(): void
    {
        $this->stamp++;
    }

    /**
     * @param list<float>     $xs      pixels, by vertex
     * @param list<float>     $ys
     * @param list<float>     $qs      nearness
     * @param array<int, int> $corners three vertices for each triangle, from 1 on
     * @param int             $colour  0xRRGGBB
     * @param float           $opaque  1 hides what is behind, less does not
     *
     * @return array{int, int} pixels that this covers, whatever is in front; and those where it is in front, if it is see-through
     */
    public function triangles(int $row, array $xs, array $ys, array $qs, array $corners, int $colour, float $opaque): array
    {
        [$width, $height, $stamp, $scale] = [$this->width, $this->height, $this->stamp, $this->scale];
        [$near, $rows, $colours, $stamps] = [$this->near, $this->rows, $this->colours, $this->stamps];
        $this->near = $this->rows = $this->colours = $this->stamps = [];
        $solid = $opaque >= 1.0;
        $middleX = $width / 2;
        $middleY = $height / 2;
        $covered = $front = 0;
        $parallel = $this->isParallel;
        [$red, $green, $blue] = [$colour >> 16, ($colour >> 8) & 255, $colour & 255];
        for ($at = 1, $end = count($corners) - 2; $at <= $end; $at += 3) {
            $a = $corners[$at];
            $b = $corners[$at + 1];
            $c = $corners[$at + 2];
            $ya = $ys[$a];
            $yb = $ys[$b];
            $yc = $ys[$c];
            // From top to bottom.
            if ($ya > $yb) {
                [$a, $b, $ya, $yb] = [$b, $a, $yb, $ya];
            }
            if ($yb > $yc) {
                [$b, $c, $yb, $yc] = [$c, $b, $yc, $yb];
                if ($ya > $yb) {
                    [$a, $b, $ya, $yb] = [$b, $a, $yb, $ya];
                }
            }
            $first = $ya <= 0.5 ? 0 : (int) ceil($ya - 0.5);
            $last = $yc >= $height ? $height - 1 : (int) floor($yc - 0.5);
            if ($first > $last) {
                continue;
            }
            $xa = $xs[$a];
            $xb = $xs[$b];
            $xc = $xs[$c];
            $det = ($xb - $xa) * ($yc - $ya) - ($xc - $xa) * ($yb - $ya);
            if ($det > -1e-12 && $det < 1e-12) {
                continue;
            }
            $qa = $qs[$a];
            $dx = (($qs[$b] - $qa) * ($yc - $ya) - ($qs[$c] - $qa) * ($yb - $ya)) / $det;
            $dy = (($qs[$c] - $qa) * ($xb - $xa) - ($qs[$b] - $qa) * ($xc - $xa)) / $det;
            $shaded = -1;
            $long = ($xc - $xa) / ($yc - $ya);
            for ($y = $first; $y <= $last; $y++) {
                $line = $y + 0.5;
                $left = $xa + ($line - $ya) * $long;
                $right =
                    $line < $yb
                        ? $xa + (($line - $ya) * ($xb - $xa)) / ($yb - $ya)
                        : ($yc > $yb
                            ? $xb + (($line - $yb) * ($xc - $xb)) / ($yc - $yb)
                            : $xb);
                if ($left > $right) {
                    $x = $right;
                    $right = $left;
                    $left = $x;
                }
                $x = $left <= 0.5 ? 0 : (int) ceil($left - 0.5);
                $until = $right >= $width ? $width - 1 : (int) floor($right - 0.5);
                $q = $qa + ($x + 0.5 - $xa) * $dx + ($line - $ya) * $dy;
                for ($pixel = $y * $width + $x; $x <= $until; $x++, $pixel++, $q += $dx) {
                    $isNew = $stamps[$pixel] !== $stamp;
                    if ($isNew) {
                        $stamps[$pixel] = $stamp;
                        $covered++;
                    }
                    if ($q <= $near[$pixel] || (! $solid && ! $isNew)) {
                        continue;
                    }
                    if ($shaded < 0) {
                        // The plane of the triangle, as the camera has it.
                        $u = $dx * $scale;
                        $v = $dy * $scale;
                        $w = $parallel ? 1.0 : $qa + ($middleX - $xa) * $dx + ($middleY - $ya) * $dy;
                        $light = abs(0.45 * $u + 0.65 * $v + 0.61 * $w) / sqrt($u * $u + $v * $v + $w * $w);
                        $share = 0.5 + 0.5 * ($light > 1.0 ? 1.0 : $light);
                        $shaded = ((int) ($red * $share) << 16) | ((int) ($green * $share) << 8) | (int) ($blue * $share);
                    }
                    if ($solid) {
                        $near[$pixel] = $q;
                        $rows[$pixel] = $row;
                        $colours[$pixel] = $shaded;
                    } else {
                        $front++;
                        $colours[$pixel] = self::mixed($colours[$pixel], $shaded, $opaque);
                    }
                }
            }
        }
        [$this->near, $this->rows, $this->colours, $this->stamps] = [$near, $rows, $colours, $stamps];

        return [$covered, $front];
    }

    /**
     * Something smaller than a pixel, or the middle of what nobody looked at more closely.
     *
     * @param float $reach metres that it may be behind what is in front there and still be seen
     * @param bool  $paints whether it stays in the picture
     */
    public function dot(int $row, float $x, float $y, float $q, float $reach, int $colour, bool $paints): bool
    {
        if ($x < 0 || $y < 0 || $x >= $this->width || $y >= $this->height) {
            return false;
        }
        $pixel = (int) $y * $this->width + (int) $x;
        $near = $this->near[$pixel];
        $nearer = $this->isParallel ? $q + $reach : $q / max(1e-9, 1 - $reach * $q);
        if ($nearer < $near) {
            return false;
        }
        if ($paints && $q > $near) {
            $this->near[$pixel] = $q;
            $this->rows[$pixel] = $row;
            $this->colours[$pixel] = self::mixed(0, $colour, 0.8);
        }

        return true;
    }

    /** @return array<int, int> pixels where each row is in front, 0 for where nothing is */
    public function counts(): array
    {
        return array_count_values($this->rows);
    }

    private static function mixed(int $under, int $over, float $share): int
    {
        $mixed = 0;
        foreach ([16, 8, 0] as $shift) {
            $mixed |= (int) ((($under >> $shift) & 255) * (1 - $share) + (($over >> $shift) & 255) * $share) << $shift;
        }

        return $mixed;
    }
}
