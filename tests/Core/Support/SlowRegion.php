<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VineShelf\Geometry\Shape;
use VineShelf\Picking\Camera;
use VineShelf\Section\Plane;

/**
 * A region without a grid and without boxes: every triangle of every object, each against every outline. Coverage by several outlines
 * is told by their own cuts along each side, piece by piece.
 */
final readonly class SlowRegion
{
    /** @param list<list<array{float, float}>> $outlines */
    private function __construct(private array $outlines, public string $kind) {}

    /** @param list<array{float, float}> $corners */
    public static function polygon(array $corners, string $kind): self
    {
        return new self([$corners], $kind);
    }

    /** @param list<array{float, float}> $path */
    public static function round(array $path, float $radius, int $corners): self
    {
        $outlines = [];
        foreach (
            count($path) === 1 ? [[$path[0], $path[0]]] : array_map(null, array_slice($path, 0, -1), array_slice($path, 1)) as [$from, $to]
        ) {
            $turn = atan2($to[1] - $from[1], $to[0] - $from[0]) - M_PI / 2;
            $outline = [];
            for ($corner = 0; $corner < $corners; $corner++) {
                [$x, $y] = $corner < $corners / 2 ? $to : $from;
                $outline[] = [
                    $x + $radius * cos($turn + (2 * M_PI * $corner) / $corners),
                    $y + $radius * sin($turn + (2 * M_PI * $corner) / $corners),
                ];
            }
            $outlines[] = $outline;
        }

        return new self($outlines, count($path) === 1 ? 'circle' : 'brush');
    }

    public function has(float $x, float $y): bool
    {
        foreach ($this->outlines as $outline) {
            if (self::holds($outline, $x, $y)) {
                return true;
            }
        }

        return false;
    }

    /** @param list<Plane> $planes what is beyond them is not there @return list<int> object numbers, ascending */
    public function find(ShapedModel $model, Camera $camera, bool $inside, array $planes = []): array
    {
        $found = [];
        foreach ($model->forest->parents as $number => $_) {
            $rung = $model->forest->slowRung($number);
            if ($model->meshes[$number] === 0 || $rung === 0 || $model->forest->slowLock($number) > 0) {
                continue;
            }
            $shape = $rung === 1 ? $model->boxOf($number) : $model->shape($model->meshes[$number]);
            $primitives = [];
            foreach ($model->placements[$number] as $placement) {
                array_push($primitives, ...self::primitives($shape, $model->aroundMiddle($number, $placement), $camera, $planes));
            }
            $fits = $inside
                ? array_filter($primitives, fn (array $p): bool => ! $p['whole'] || ! $this->covers($p['points'])) === []
                : array_filter($primitives, fn (array $p): bool => $p['points'] !== [] && $this->touches($p['points'])) !== [];
            if ($primitives !== [] && $fits) {
                $found[] = $number;
            }
        }
        sort($found);

        return $found;
    }

    /**
     * @param list<float> $placement
     * @param list<Plane> $planes
     *
     * @return list<array{whole: bool, points: list<array{float, float}>}> what of each triangle, line and point is in front, in pixels
     */
    private static function primitives(?Shape $shape, array $placement, Camera $camera, array $planes): array
    {
        $primitives = [];
        foreach ($shape->pieces ?? [] as $piece) {
            $places = array_values((array) unpack('s*', $piece['positions']));
            $size = [0 => 1, 1 => 2, 4 => 3][$piece['kind']->value];
            foreach (array_chunk(array_values((array) unpack($piece['wide'] ? 'V*' : 'v*', $piece['indices'])), $size) as $corners) {
                $world = array_map(static function (int $corner) use ($places, $shape, $placement): array {
                    $local = array_map(static fn (int $axis): float => ($places[$corner * 4 + $axis] * $shape->scale[$axis]) / 32767, [
                        0,
                        1,
                        2,
                    ]);

                    return array_map(
                        static fn (int $row): float => $placement[$row] * $local[0] +
                            $placement[$row + 1] * $local[1] +
                            $placement[$row + 2] * $local[2] +
                            $placement[$row + 3],
                        [0, 4, 8],
                    );
                }, $corners);
                $world = self::kept($world, $planes);
                if ($world === []) {
                    continue;
                }
                $clip = array_map(
                    static fn (array $place): array => array_map(
                        static fn (int $row): float => $camera->rows[$row] * $place[0] +
                            $camera->rows[$row + 1] * $place[1] +
                            $camera->rows[$row + 2] * $place[2] +
                            $camera->rows[$row + 3],
                        [0, 4, 8],
                    ),
                    $world,
                );
                $points = [];
                foreach ($clip as $index => $here) {
                    $before = $clip[($index + count($clip) - 1) % count($clip)];
                    if ($here[2] < $camera->near !== $before[2] < $camera->near) {
                        $t = ($camera->near - $before[2]) / ($here[2] - $before[2]);
                        $points[] = [
                            ($before[0] + $t * ($here[0] - $before[0])) / $camera->near,
                            ($before[1] + $t * ($here[1] - $before[1])) / $camera->near,
                        ];
                    }
                    if ($here[2] >= $camera->near) {
                        $points[] = [$here[0] / $here[2], $here[1] / $here[2]];
                    }
                }
                $primitives[] = ['whole' => min(array_column($clip, 2)) >= $camera->near, 'points' => $points];
            }
        }

        return $primitives;
    }

    /**
     * What planes leave of a triangle, a line or a point.
     *
     * @param list<list<float>> $corners
     * @param list<Plane>       $planes
     *
     * @return list<list<float>>
     */
    private static function kept(array $corners, array $planes): array
    {
        foreach ($planes as $plane) {
            $kept = [];
            foreach ($corners as $index => $here) {
                $before = $corners[($index + count($corners) - 1) % count($corners)];
                [$is, $was] = [$plane->beyond(...$here), $plane->beyond(...$before)];
                if ($is > 0 !== $was > 0) {
                    $kept[] = array_map(
                        static fn (int $axis): float => $before[$axis] + ($was / ($was - $is)) * ($here[$axis] - $before[$axis]),
                        [0, 1, 2],
                    );
                }
                if ($is <= 0) {
                    $kept[] = $here;
                }
            }
            $corners = $kept;
        }

        return $corners;
    }

    /** @param list<array{float, float}> $points */
    public function touches(array $points): bool
    {
        foreach ($this->outlines as $outline) {
            foreach ($points as [$x, $y]) {
                if (self::holds($outline, $x, $y)) {
                    return true;
                }
            }
            foreach ($outline as $index => $corner) {
                if (count($points) > 2 && self::holds($points, ...$corner)) {
                    return true;
                }
                foreach ($points as $at => $point) {
                    if (self::cross($corner, $outline[($index + 1) % count($outline)], $point, $points[($at + 1) % count($points)])) {
                        return true;
                    }
                }
            }
        }

        return false;
    }

    /** @param list<array{float, float}> $points */
    public function covers(array $points): bool
    {
        if (count($this->outlines) === 1) {
            foreach ($points as [$x, $y]) {
                if (! self::holds($this->outlines[0], $x, $y)) {
                    return false;
                }
            }
            foreach ($this->outlines[0] as $index => $corner) {
                if (count($points) > 2 && self::holds($points, ...$corner)) {
                    return false;
                }
                foreach ($points as $at => $point) {
                    if (
                        self::cross(
                            $corner,
                            $this->outlines[0][($index + 1) % count($this->outlines[0])],
                            $point,
                            $points[($at + 1) % count($points)],
                        )
                    ) {
                        return false;
                    }
                }
            }

            return true;
        }
        // Several convex outlines: along every line of a fine fan over the polygon, the stretches inside them must leave no gap.
        $n = 60;
        [$a, $b, $c] = [$points[0], $points[1] ?? $points[0], $points[2] ?? ($points[1] ?? $points[0])];
        for ($ray = 0; $ray <= $n; $ray++) {
            $end = [$b[0] + (($c[0] - $b[0]) * $ray) / $n, $b[1] + (($c[1] - $b[1]) * $ray) / $n];
            $stretches = [];
            foreach ($this->outlines as $outline) {
                [$from, $to] = [0.0, 1.0];
                foreach ($outline as $index => [$x, $y]) {
                    [$nx, $ny] = $outline[($index + 1) % count($outline)];
                    $side = static fn (array $p): float => ($nx - $x) * ($p[1] - $y) - ($ny - $y) * ($p[0] - $x);
                    [$s, $e] = [$side($a), $side($end)];
                    if ($s < 0 && $e < 0) {
                        $to = -1.0;
                    } elseif ($s < 0) {
                        $from = max($from, $s / ($s - $e));
                    } elseif ($e < 0) {
                        $to = min($to, $s / ($s - $e));
                    }
                }
                if ($from <= $to) {
                    $stretches[] = [$from, $to];
                }
            }
            sort($stretches);
            $reached = 0.0;
            foreach ($stretches as [$from, $to]) {
                if ($from > $reached + 1e-9) {
                    break;
                }
                $reached = max($reached, $to);
            }
            if ($reached < 1 - 1e-9) {
                return false;
            }
        }

        return true;
    }

    /** @param list<array{float, float}> $outline */
    private static function holds(array $outline, float $x, float $y): bool
    {
        // The angles under which the sides are seen, counted by crossings of a ray to the right.
        $crossings = 0;
        foreach ($outline as $index => [$ax, $ay]) {
            [$bx, $by] = $outline[($index + 1) % count($outline)];
            if (($ay <= $y && $by > $y) || ($by <= $y && $ay > $y)) {
                $crossings += $ax + (($y - $ay) / ($by - $ay)) * ($bx - $ax) > $x ? 1 : 0;
            }
        }

        return $crossings % 2 === 1;
    }

    /**
     * @param array{float, float} $a
     * @param array{float, float} $b
     * @param array{float, float} $c
     * @param array{float, float} $d
     */
    private static function cross(array $a, array $b, array $c, array $d): bool
    {
        $side = static fn (array $p, array $q, array $r): int => ($q[0] - $p[0]) * ($r[1] - $p[1]) <=> ($q[1] - $p[1]) * ($r[0] - $p[0]);

        return $side($a, $b, $c) !== $side($a, $b, $d) && $side($c, $d, $a) !== $side($c, $d, $b);
    }
}
