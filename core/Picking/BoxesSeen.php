<?php

declare(strict_types=1);

namespace VineShelf\Picking;

/** How upright boxes lie to a region when they are seen through a camera. */
final readonly class BoxesSeen
{
    /** A box is far away when it reaches less than this part of its distance towards the camera. */
    private const FAR = 0.05;

    /** @param array{float, float, float} $origin what the boxes leave off all places, metres */
    public function __construct(private Camera $camera, private Region $region, private array $origin) {}

    /**
     * Many at once: what the camera says is looked up once for all of them.
     *
     * @param string    $boxes   least and greatest x, y, z in 32-bit floats each, metres; the least above the greatest for no box
     * @param list<int> $rows    which of them
     * @param bool      $exactly whether the outlines themselves are asked where the grid cannot tell
     *
     * @return array<int, int> IN or MIXED by row, of those that are not OUT; MIXED may also be said of one that is not quite
     */
    public function are(string $boxes, array $rows, bool $exactly): array
    {
        [$m0, $m1, $m2, $m3, $m4, $m5, $m6, $m7, $m8, $m9, $m10, $m11] = $this->camera->rows;
        [$ox, $oy, $oz] = $this->origin;
        [$a8, $a9, $a10] = [abs($m8), abs($m9), abs($m10)];
        $near = $this->camera->near;
        $region = $this->region;
        $found = [];
        foreach ($rows as $row) {
            if (($row + 1) * 24 > strlen($boxes)) {
                break;
            }
            /** @var array{1: float, 2: float, 3: float, 4: float, 5: float, 6: float} $b */
            $b = unpack('g6', $boxes, $row * 24);
            if ($b[1] > $b[4]) {
                continue;
            }
            $cx = ($b[1] + $b[4]) / 2 + $ox;
            $cy = ($b[2] + $b[5]) / 2 + $oy;
            $cz = ($b[3] + $b[6]) / 2 + $oz;
            // Boxes are kept as 32-bit floats: a little larger, so that rounding hides nothing.
            $hx = ($b[4] - $b[1]) * 0.500005 + 1e-4;
            $hy = ($b[5] - $b[2]) * 0.500005 + 1e-4;
            $hz = ($b[6] - $b[3]) * 0.500005 + 1e-4;
            $w = $m8 * $cx + $m9 * $cy + $m10 * $cz + $m11;
            $reach = $a8 * $hx + $a9 * $hy + $a10 * $hz;
            $least = $w - $reach;
            if ($least < $near) {
                if ($w + $reach >= $near && $this->mayShow([$cx - $hx, $cy - $hy, $cz - $hz, $cx + $hx, $cy + $hy, $cz + $hz])) {
                    $found[$row] = Region::MIXED;
                }

                continue;
            }
            $x = $m0 * $cx + $m1 * $cy + $m2 * $cz + $m3;
            $y = $m4 * $cx + $m5 * $cy + $m6 * $cz + $m7;
            // How far a corner can be from the middle in the picture: (x + dx) / (w + dw) - u = (dx - u dw) / (w + dw).
            $u = $x / $w;
            $v = $y / $w;
            $across = (abs($m0 - $u * $m8) * $hx + abs($m1 - $u * $m9) * $hy + abs($m2 - $u * $m10) * $hz) / $least;
            $along = (abs($m4 - $v * $m8) * $hx + abs($m5 - $v * $m9) * $hy + abs($m6 - $v * $m10) * $hz) / $least;
            $is = $region->rectangleIs($u - $across, $v - $along, $u + $across, $v + $along);
            // Of what is far away, that is as good as its corners.
            if ($is === Region::MIXED && $reach >= self::FAR * $w) {
                $around = self::around($x, $y, $w, [
                    [$m0 * $hx, $m4 * $hx, $m8 * $hx],
                    [$m1 * $hy, $m5 * $hy, $m9 * $hy],
                    [$m2 * $hz, $m6 * $hz, $m10 * $hz],
                ]);
                $is = $exactly ? $region->rectangleIsExactly(...$around) : $region->rectangleIs(...$around);
            } elseif ($is === Region::MIXED && $exactly) {
                $is = $region->rectangleIsExactly($u - $across, $v - $along, $u + $across, $v + $along);
            }
            if ($is !== Region::OUT) {
                $found[$row] = $is;
            }
        }

        return $found;
    }

    /**
     * The rectangle around the corners of a box that is wholly in front of the camera.
     *
     * @param non-empty-list<array{float, float, float}> $sides half of each side, through the camera, before the division
     *
     * @return array{float, float, float, float} left, top, right, bottom in pixels
     */
    private static function around(float $x, float $y, float $w, array $sides): array
    {
        $left = $top = INF;
        $right = $bottom = -INF;
        for ($corner = 0; $corner < 8; $corner++) {
            [$px, $py, $pw] = [$x, $y, $w];
            foreach ($sides as $axis => [$dx, $dy, $dw]) {
                $way = (($corner >> $axis) & 1) === 1 ? 1 : -1;
                $px += $way * $dx;
                $py += $way * $dy;
                $pw += $way * $dw;
            }
            $left = min($left, $px / $pw);
            $right = max($right, $px / $pw);
            $top = min($top, $py / $pw);
            $bottom = max($bottom, $py / $pw);
        }

        return [$left, $top, $right, $bottom];
    }

    /**
     * Whether what is in front of the camera of a box that is partly behind it may lie in the region.
     *
     * @param array{float, float, float, float, float, float} $box least and greatest x, y, z in metres
     */
    private function mayShow(array $box): bool
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

        return $left <= $right && $this->region->rectangleIs($left, $top, $right, $bottom) !== Region::OUT;
    }
}
