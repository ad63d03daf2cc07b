<?php

declare(strict_types=1);

namespace MarlpitBaths;

/** Triangles with normals and texture coordinates, metres, z up. Every method adds to the shape and returns it. */
final class Shape
{
    /** @var list<float> */
    public array $positions = [];

    /** @var list<float> */
    public array $normals = [];

    /** @var list<float> */
    public array $uvs = [];

    /** @var list<int> */
    public array $indices = [];

    public function box(float $x, float $y, float $z, float $w, float $d, float $h): self
    {
        foreach ([[0, 1, 2], [1, 2, 0], [2, 0, 1]] as [$across, $up, $out]) {
            $half = [$w / 2, $d / 2, $h / 2];
            foreach ([-1, 1] as $side) {
                $corners = [];
                foreach ([[-1, -1], [1, -1], [1, 1], [-1, 1]] as [$a, $b]) {
                    $corner = [$x, $y, $z];
                    $corner[$across] += $a * $half[$across] * $side;
                    $corner[$up] += $b * $half[$up];
                    $corner[$out] += $side * $half[$out];
                    $corners[] = $corner;
                }
                $normal = [0.0, 0.0, 0.0];
                $normal[$out] = (float) $side;
                $this->quad($corners, $normal, 2 * $half[$across], 2 * $half[$up]);
            }
        }

        return $this;
    }

    /** A flat rectangle, facing up, with texture coordinates in metres. */
    public function sheet(float $x, float $y, float $z, float $w, float $d): self
    {
        $this->quad(
            [
                [$x - $w / 2, $y - $d / 2, $z],
                [$x + $w / 2, $y - $d / 2, $z],
                [$x + $w / 2, $y + $d / 2, $z],
                [$x - $w / 2, $y + $d / 2, $z],
            ],
            [0.0, 0.0, 1.0],
            $w,
            $d,
        );

        return $this;
    }

    /**
     * A profile turned around the vertical axis.
     *
     * @param list<array{float, float}> $profile radius and height, from below to above
     */
    public function lathe(array $profile, int $sides, float $x = 0, float $y = 0, float $z = 0): self
    {
        $length = 0.0;
        for ($at = 1; $at < count($profile); $at++) {
            [$r0, $h0] = $profile[$at - 1];
            [$r1, $h1] = $profile[$at];
            $run = hypot($r1 - $r0, $h1 - $h0);
            if ($run < 1e-6) {
                continue;
            }
            $outward = ($h1 - $h0) / $run;
            $upward = -($r1 - $r0) / $run;
            $first = intdiv(count($this->positions), 3);
            for ($side = 0; $side <= $sides; $side++) {
                $angle = (2 * M_PI * $side) / $sides;
                foreach ([[$r0, $h0, $length], [$r1, $h1, $length + $run]] as [$r, $h, $v]) {
                    array_push($this->positions, $x + $r * cos($angle), $y + $r * sin($angle), $z + $h);
                    array_push($this->normals, cos($angle) * $outward, sin($angle) * $outward, $upward);
                    array_push($this->uvs, $angle * max($r0, $r1), $v);
                }
                if ($side > 0) {
                    $a = $first + 2 * $side;
                    if ($r0 > 1e-6) {
                        array_push($this->indices, $a - 2, $a, $a + 1);
                    }
                    if ($r1 > 1e-6) {
                        array_push($this->indices, $a - 2, $a + 1, $a - 1);
                    }
                }
            }
            $length += $run;
        }

        return $this;
    }

    public function cylinder(float $x, float $y, float $z, float $radius, float $height, int $sides): self
    {
        return $this->lathe([[0.0, 0.0], [$radius, 0.0], [$radius, $height], [0.0, $height]], $sides, $x, $y, $z);
    }

    public function ball(float $x, float $y, float $z, float $radius, int $sides, float $flat = 1.0): self
    {
        $rings = max(3, intdiv($sides, 2));
        $first = intdiv(count($this->positions), 3);
        for ($ring = 0; $ring <= $rings; $ring++) {
            $up = (M_PI * $ring) / $rings - M_PI / 2;
            for ($side = 0; $side <= $sides; $side++) {
                $angle = (2 * M_PI * $side) / $sides;
                $normal = [cos($up) * cos($angle), cos($up) * sin($angle), sin($up)];
                array_push($this->positions, $x + $radius * $normal[0], $y + $radius * $normal[1], $z + $radius * $flat * $normal[2]);
                array_push($this->normals, ...$normal);
                array_push($this->uvs, $side / $sides, $ring / $rings);
                if ($ring > 0 && $side > 0) {
                    $a = $first + $ring * ($sides + 1) + $side;
                    $b = $a - $sides - 1;
                    if ($ring > 1) {
                        array_push($this->indices, $b - 1, $b, $a);
                    }
                    if ($ring < $rings) {
                        array_push($this->indices, $b - 1, $a, $a - 1);
                    }
                }
            }
        }

        return $this;
    }

    /**
     * A round tube along a path, with closed ends.
     *
     * @param list<array{float, float, float}> $path
     */
    public function tube(array $path, float $radius, int $sides): self
    {
        $ring = [];
        for ($side = 0; $side < $sides; $side++) {
            $angle = (2 * M_PI * $side) / $sides;
            $ring[] = [$radius * cos($angle), $radius * sin($angle)];
        }

        return $this->sweep($path, $ring, true);
    }

    /**
     * A closed outline moved along a path; the outline's first axis lies level, its second one points away from the ground.
     *
     * @param list<array{float, float, float}> $path
     * @param list<array{float, float}>        $outline anticlockwise, seen against the path
     */
    public function sweep(array $path, array $outline, bool $smooth): self
    {
        $points = count($outline);
        $last = count($path) - 1;
        $rings = [];
        $along = [0.0];
        $level = [1.0, 0.0, 0.0];
        for ($at = 0; $at < $last; $at++) {
            [$fx, $fy] = self::minus($path[$at + 1], $path[$at]);
            if (hypot($fx, $fy) > 1e-6) {
                $level = self::unit([-$fy, $fx, 0.0]);
                break;
            }
        }
        foreach ($path as $at => $point) {
            $forward = self::unit(self::minus($path[min($last, $at + 1)], $path[max(0, $at - 1)]));
            // Carried along from point to point, so that the outline never twists, not even where the path turns upright or back.
            $lean = $level[0] * $forward[0] + $level[1] * $forward[1] + $level[2] * $forward[2];
            $level = self::unit([$level[0] - $lean * $forward[0], $level[1] - $lean * $forward[1], $level[2] - $lean * $forward[2]]);
            $up = self::cross($forward, $level);
            $ring = [];
            foreach ($outline as [$a, $b]) {
                $ring[] = [
                    $point[0] + $a * $level[0] + $b * $up[0],
                    $point[1] + $a * $level[1] + $b * $up[1],
                    $point[2] + $a * $level[2] + $b * $up[2],
                ];
            }
            $rings[] = [$ring, $point];
            if ($at > 0) {
                $along[] = $along[$at - 1] + self::length(self::minus($point, $path[$at - 1]));
            }
        }
        for ($side = 0; $side < $points; $side++) {
            $next = ($side + 1) % $points;
            $first = intdiv(count($this->positions), 3);
            foreach ($rings as $at => [$ring, $centre]) {
                $edge = self::unit(self::minus($ring[$next], $ring[$side]));
                $forward = self::unit(self::minus($rings[min($last, $at + 1)][1], $rings[max(0, $at - 1)][1]));
                $flat = self::unit(self::cross($edge, $forward));
                foreach ([[$ring[$side], 0.0], [$ring[$next], self::length(self::minus($ring[$next], $ring[$side]))]] as [$corner, $v]) {
                    array_push($this->positions, ...$corner);
                    array_push($this->normals, ...$smooth ? self::unit(self::minus($corner, $centre)) : $flat);
                    array_push($this->uvs, $along[$at], $v);
                }
                if ($at > 0) {
                    $a = $first + 2 * $at;
                    array_push($this->indices, $a - 2, $a - 1, $a + 1, $a - 2, $a + 1, $a);
                }
            }
        }
        foreach ([[0, -1], [$last, 1]] as [$at, $sign]) {
            [$ring, $centre] = $rings[$at];
            $normal = self::unit(self::minus($path[$at], $path[$at === 0 ? 1 : $last - 1]));
            $first = intdiv(count($this->positions), 3);
            foreach ($ring as $index => $corner) {
                array_push($this->positions, ...$corner);
                array_push($this->normals, ...$normal);
                array_push($this->uvs, $outline[$index][0], $outline[$index][1]);
                if ($index > 1) {
                    array_push(
                        $this->indices,
                        $first,
                        ...$sign > 0 ? [$first + $index - 1, $first + $index] : [$first + $index, $first + $index - 1],
                    );
                }
            }
        }

        return $this;
    }

    /** The same shape, moved, then turned about the vertical axis through its new origin. */
    public function add(self $other, float $x, float $y, float $z, float $turn = 0.0): self
    {
        $first = intdiv(count($this->positions), 3);
        $cos = cos($turn);
        $sin = sin($turn);
        for ($at = 0, $end = count($other->positions); $at < $end; $at += 3) {
            foreach ([['positions', $x, $y, $z], ['normals', 0.0, 0.0, 0.0]] as [$column, $dx, $dy, $dz]) {
                [$a, $b, $c] = [$other->$column[$at], $other->$column[$at + 1], $other->$column[$at + 2]];
                array_push($this->$column, $cos * $a - $sin * $b + $dx, $sin * $a + $cos * $b + $dy, $c + $dz);
            }
        }
        array_push($this->uvs, ...$other->uvs);
        foreach ($other->indices as $index) {
            $this->indices[] = $first + $index;
        }

        return $this;
    }

    /**
     * @param list<list<float>> $corners four, anticlockwise seen from outside
     * @param list<float>       $normal
     */
    public function quad(array $corners, array $normal, float $width, float $height): self
    {
        $first = intdiv(count($this->positions), 3);
        foreach ([[0.0, 0.0], [1.0, 0.0], [1.0, 1.0], [0.0, 1.0]] as $index => [$u, $v]) {
            array_push($this->positions, ...$corners[$index]);
            array_push($this->normals, ...$normal);
            array_push($this->uvs, $u * $width, $v * $height);
        }
        array_push($this->indices, $first, $first + 1, $first + 2, $first, $first + 2, $first + 3);

        return $this;
    }

    /**
     * @param array<int, float> $a
     * @param array<int, float> $b
     *
     * @return array{float, float, float}
     */
    private static function minus(array $a, array $b): array
    {
        return [$a[0] - $b[0], $a[1] - $b[1], $a[2] - $b[2]];
    }

    /** @param array{float, float, float} $a */
    private static function length(array $a): float
    {
        return sqrt($a[0] ** 2 + $a[1] ** 2 + $a[2] ** 2);
    }

    /**
     * @param array{float, float, float} $a
     *
     * @return array{float, float, float}
     */
    private static function unit(array $a): array
    {
        $length = self::length($a) ?: 1.0;

        return [$a[0] / $length, $a[1] / $length, $a[2] / $length];
    }

    /**
     * @param array{float, float, float} $a
     * @param array{float, float, float} $b
     *
     * @return array{float, float, float}
     */
    private static function cross(array $a, array $b): array
    {
        return [$a[1] * $b[2] - $a[2] * $b[1], $a[2] * $b[0] - $a[0] * $b[2], $a[0] * $b[1] - $a[1] * $b[0]];
    }
}
