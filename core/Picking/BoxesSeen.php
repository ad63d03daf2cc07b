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
     * Many at once, in runs of some that follow each other: a number costs little to unpack among others, and what the camera says is
     * looked up once for all.
     *
     * @param string    $boxes   least and greatest x, y, z in 32-bit floats each, metres; the least above the greatest for no box
     * @param list<int> $runs    run 0 is the first boxes, run 1 the next ones
     * @param int       $length  boxes of a run; the last one may have fewer
     * @param bool      $exactly whether the outlines themselves are asked where the grid cannot tell
     *
     * @return array<int, int> IN or MIXED by box, of those that are not OUT; MIXED may also be said of one that is not quite
     */
    public function are(string $boxes, array $runs, int $length, bool $exactly): array
    {
        [$m0, $m1, $m2, $m3, $m4, $m5, $m6, $m7, $m8, $m9, $m10, $m11] = $this->camera->rows;
        [$ox, $oy, $oz] = $this->origin;
        [$a8, $a9, $a10] = [abs($m8), abs($m9), abs($m10)];
        $near = $this->camera->near;
        $region = $this->region;
        $grid = $region->grid;
        $found = [];
        foreach ($runs as $run) {
            $box = $run * $length;
            $sides = 6 * min($length, intdiv(strlen($boxes), 24) - $box);
            if ($sides <= 0) {
                continue;
            }
            /** @var array<int, float> $b */
            $b = unpack("g$sides", $boxes, $box * 24);
            for ($at = 1; $at < $sides; $at += 6, $box++) {
                $x1 = $b[$at];
                $x2 = $b[$at + 3];
                if ($x1 > $x2) {
                    continue;
                }
                $y1 = $b[$at + 1];
                $y2 = $b[$at + 4];
                $z1 = $b[$at + 2];
                $z2 = $b[$at + 5];
                $cx = ($x1 + $x2) * 0.5 + $ox;
                $cy = ($y1 + $y2) * 0.5 + $oy;
                $cz = ($z1 + $z2) * 0.5 + $oz;
                // Boxes are kept as 32-bit floats: a little larger, so that rounding hides nothing.
                $hx = ($x2 - $x1) * 0.500005 + 1e-4;
                $hy = ($y2 - $y1) * 0.500005 + 1e-4;
                $hz = ($z2 - $z1) * 0.500005 + 1e-4;
                $w = $m8 * $cx + $m9 * $cy + $m10 * $cz + $m11;
                $reach = $a8 * $hx + $a9 * $hy + $a10 * $hz;
                $least = $w - $reach;
                if ($least < $near) {
                    if ($w + $reach >= $near && $this->mayShow([$cx - $hx, $cy - $hy, $cz - $hz, $cx + $hx, $cy + $hy, $cz + $hz])) {
                        $found[$box] = Region::MIXED;
                    }

                    continue;
                }
                $x = $m0 * $cx + $m1 * $cy + $m2 * $cz + $m3;
                $y = $m4 * $cx + $m5 * $cy + $m6 * $cz + $m7;
                // How far a corner can be from the middle in the picture: (x + dx) / (w + dw) - u = (dx - u dw) / (w + dw). Comparing is
                // quicker than calling abs().
                $u = $x / $w;
                $v = $y / $w;
                $ux = $m0 - $u * $m8;
                $uy = $m1 - $u * $m9;
                $uz = $m2 - $u * $m10;
                $vx = $m4 - $v * $m8;
                $vy = $m5 - $v * $m9;
                $vz = $m6 - $v * $m10;
                $across = (($ux < 0 ? -$ux : $ux) * $hx + ($uy < 0 ? -$uy : $uy) * $hy + ($uz < 0 ? -$uz : $uz) * $hz) / $least;
                $along = (($vx < 0 ? -$vx : $vx) * $hx + ($vy < 0 ? -$vy : $vy) * $hy + ($vz < 0 ? -$vz : $vz) * $hz) / $least;
                $is = $grid->rectangleIs($u - $across, $v - $along, $u + $across, $v + $along);
                // Of what is far away, that is as good as its corners.
                if ($is === Region::MIXED && $reach >= self::FAR * $w) {
                    $around = self::around($x, $y, $w, [
                        [$m0 * $hx, $m4 * $hx, $m8 * $hx],
                        [$m1 * $hy, $m5 * $hy, $m9 * $hy],
                        [$m2 * $hz, $m6 * $hz, $m10 * $hz],
                    ]);
                    $is = $exactly ? $region->rectangleIsExactly(...$around) : $region->rectangleIs(...$around);
                } elseif ($is === Region::MIXED && $exactly) {
                    $is = $region->mixedIs($u - $across, $v - $along, $u + $across, $v + $along);
                }
                if ($is !== Region::OUT) {
                    $found[$box] = $is;
                }
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
