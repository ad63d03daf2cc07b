<?php

declare(strict_types=1);

namespace VineShelf\Simplify;

/**
 * The careful kind: places are moved onto neighbours, one after the other, the one first that changes the surface least (M. Garland and
 * P. Heckbert, "Surface simplification using quadric error metrics", 1997, with places that stay where some place was).
 *
 * Borders, and lines along which pieces with other materials meet, go along themselves only and end where they ended. No triangle turns by
 * more than about 75 degrees at once, none comes to lie on another, and nothing that was closed opens.
 */
final class Collapsing
{
    /** The cosine of the angle by which a triangle may turn at once. */
    private const TURN = 0.25;

    /** Steps that the search for the nearest triangle walks at most. */
    private const STEPS = 24;

    /** @var list<float> */
    private array $x;

    /** @var list<float> */
    private array $y;

    /** @var list<float> */
    private array $z;

    /** @var array<int, int> */
    private array $corners;

    /** @var list<int> */
    private array $pieces;

    /** @var array<int, bool> by triangle */
    private array $gone;

    /** @var array<int, array<int, int>> the triangles at each place, by themselves */
    private array $around = [];

    /** @var array<int, float> ten numbers of a quadric for each place, and its weight */
    private array $quadrics;

    /** @var array<int, int> where each place would go */
    private array $goal = [];

    /** @var array<int, int> how often each place was looked at */
    private array $stamps;

    /** @var array<int, array<int, true>> where each place cannot go */
    private array $barred = [];

    /** @var array<int, int> where each place has gone */
    private array $into;

    private int $left;

    /** @var \SplPriorityQueue<float, int> */
    private \SplPriorityQueue $queue;

    public function __construct(private readonly Surface $surface)
    {
        [$this->x, $this->y, $this->z] = [$surface->x, $surface->y, $surface->z];
        $this->corners = $surface->corners;
        $this->pieces = $surface->pieces;
        $this->left = count($this->pieces);
        $count = count($this->x);
        $this->gone = $this->left === 0 ? [] : array_fill(0, $this->left, false);
        $this->stamps = $count === 0 ? [] : array_fill(0, $count, 0);
        $this->into = $count === 0 ? [] : range(0, $count - 1);
        $this->around = $count === 0 ? [] : array_fill(0, $count, []);
        foreach ($this->corners as $at => $place) {
            $triangle = intdiv($at, 3);
            $this->around[$place][$triangle] = $triangle;
        }
        $this->quadrics = Quadrics::of($surface);
        $this->queue = new \SplPriorityQueue;
        $this->queue->setExtractFlags(\SplPriorityQueue::EXTR_BOTH);
        for ($place = 0; $place < $count; $place++) {
            $this->look($place);
        }
    }

    /**
     * Goes on until there are at most so many triangles.
     *
     * @param float $most metres that a single step may change the surface by at most
     *
     * @return Simplified what is left then, which may be more where nothing more can go
     */
    public function until(int $triangles, float $most = INF): Simplified
    {
        $most = $most === INF ? INF : $most * $most;
        while ($this->left > $triangles && ! $this->queue->isEmpty()) {
            /** @var array{data: int, priority: float} $next */
            $next = $this->queue->extract();
            $place = $next['data'] & 0xfffffff;
            if ($next['data'] >> 28 !== $this->stamps[$place] || ! isset($this->goal[$place])) {
                continue;
            }
            if (-$next['priority'] > $most) {
                $this->queue->insert($next['data'], $next['priority']);
                break;
            }
            $goal = $this->goal[$place];
            if ($this->may($place, $goal)) {
                $this->move($place, $goal);
            } else {
                $this->barred[$place][$goal] = true;
                $this->look($place);
            }
        }

        return $this->version();
    }

    /** Finds where a place would go at the least cost, and queues it. */
    private function look(int $place): void
    {
        $stamp = ++$this->stamps[$place];
        unset($this->goal[$place]);
        $corners = $this->corners;
        $seen = $piece = $special = [];
        foreach ($this->around[$place] as $triangle) {
            for ($at = 3 * $triangle, $end = $at + 3; $at < $end; $at++) {
                $other = $corners[$at];
                if ($other === $place) {
                    continue;
                }
                if (isset($seen[$other])) {
                    $seen[$other]++;
                    if ($piece[$other] !== $this->pieces[$triangle]) {
                        $special[$other] = true;
                    }
                } else {
                    $seen[$other] = 1;
                    $piece[$other] = $this->pieces[$triangle];
                }
            }
        }
        foreach ($seen as $other => $triangles) {
            if ($triangles !== 2) {
                $special[$other] = true;
            }
        }
        $ends = count($special);
        if ($ends !== 0 && $ends !== 2) {
            return;
        }
        $barred = $this->barred[$place] ?? [];
        $q = $this->quadrics;
        $p = 11 * $place;
        $least = INF;
        $best = -1;
        foreach ($ends === 0 ? $seen : $special as $other => $_) {
            if (isset($barred[$other])) {
                continue;
            }
            $o = 11 * $other;
            $x = $this->x[$other];
            $y = $this->y[$other];
            $z = $this->z[$other];
            $error =
                ($q[$p] + $q[$o]) * $x * $x +
                ($q[$p + 1] + $q[$o + 1]) * $y * $y +
                ($q[$p + 2] + $q[$o + 2]) * $z * $z +
                2 *
                    (($q[$p + 3] + $q[$o + 3]) * $x * $y +
                        ($q[$p + 4] + $q[$o + 4]) * $x * $z +
                        ($q[$p + 5] + $q[$o + 5]) * $y * $z +
                        ($q[$p + 6] + $q[$o + 6]) * $x +
                        ($q[$p + 7] + $q[$o + 7]) * $y +
                        ($q[$p + 8] + $q[$o + 8]) * $z) +
                $q[$p + 9] +
                $q[$o + 9];
            if ($error < $least) {
                $least = $error;
                $best = $other;
            }
        }
        if ($best < 0) {
            return;
        }
        $this->goal[$place] = $best;
        $weight = $q[$p + 10] + $q[11 * $best + 10];
        $this->queue->insert(($stamp << 28) | $place, -max(0.0, $least) / max(1e-30, $weight));
    }

    /** @return array{float, float, float} as long as twice the triangle's area */
    private function normal(int $a, int $b, int $c): array
    {
        [$x, $y, $z] = [$this->x, $this->y, $this->z];
        [$bx, $by, $bz] = [$x[$b] - $x[$a], $y[$b] - $y[$a], $z[$b] - $z[$a]];
        [$cx, $cy, $cz] = [$x[$c] - $x[$a], $y[$c] - $y[$a], $z[$c] - $z[$a]];

        return [$by * $cz - $bz * $cy, $bz * $cx - $bx * $cz, $bx * $cy - $by * $cx];
    }

    /** Whether a place may go: no triangle turns over, none comes to lie on another. */
    private function may(int $place, int $goal): bool
    {
        $corners = $this->corners;
        $beside = [];
        $shared = 0;
        foreach ($this->around[$place] as $triangle) {
            $at = 3 * $triangle;
            [$a, $b, $c] = [$corners[$at], $corners[$at + 1], $corners[$at + 2]];
            $beside[$a] = $beside[$b] = $beside[$c] = true;
            if ($a === $goal || $b === $goal || $c === $goal) {
                $shared++;

                continue;
            }
            [$ox, $oy, $oz] = $this->normal($a, $b, $c);
            [$nx, $ny, $nz] = $this->normal($a === $place ? $goal : $a, $b === $place ? $goal : $b, $c === $place ? $goal : $c);
            $along = $ox * $nx + $oy * $ny + $oz * $nz;
            if (
                $along <= 0 ||
                $along * $along < self::TURN * self::TURN * ($ox * $ox + $oy * $oy + $oz * $oz) * ($nx * $nx + $ny * $ny + $nz * $nz)
            ) {
                return false;
            }
        }
        // What both have beside them is what lies across the triangles that they share; more would fold the surface onto itself.
        $common = [];
        foreach ($this->around[$goal] as $triangle) {
            for ($at = 3 * $triangle, $end = $at + 3; $at < $end; $at++) {
                $other = $corners[$at];
                if ($other !== $place && $other !== $goal && isset($beside[$other])) {
                    $common[$other] = true;
                }
            }
        }

        return (count($common) === $shared && count($beside) > 3) || ($shared === 1 && count($common) === 1);
    }

    private function move(int $place, int $goal): void
    {
        $again = [];
        foreach ($this->around[$place] as $triangle) {
            $at = 3 * $triangle;
            $isShared = false;
            for ($corner = $at; $corner < $at + 3; $corner++) {
                $isShared = $isShared || $this->corners[$corner] === $goal;
            }
            for ($corner = $at; $corner < $at + 3; $corner++) {
                $other = $this->corners[$corner];
                if ($isShared) {
                    unset($this->around[$other][$triangle]);
                } elseif ($other === $place) {
                    $this->corners[$corner] = $goal;
                    $this->around[$goal][$triangle] = $triangle;
                }
                $again[$other] = true;
            }
            if ($isShared) {
                $this->gone[$triangle] = true;
                $this->left--;
            }
        }
        [$p, $g] = [11 * $place, 11 * $goal];
        for ($at = 0; $at < 11; $at++) {
            $this->quadrics[$g + $at] += $this->quadrics[$p + $at];
        }
        $this->around[$place] = [];
        $this->into[$place] = $goal;
        $this->stamps[$place]++;
        unset($this->goal[$place], $again[$place]);
        $again[$goal] = true;
        foreach ($again as $other => $_) {
            // What could not go before may go now.
            unset($this->barred[$other]);
            $this->look($other);
        }
    }

    private function version(): Simplified
    {
        $corners = $kept = [];
        foreach ($this->gone as $triangle => $isGone) {
            if (! $isGone) {
                $kept[] = $triangle;
                $corners[] = $this->corners[3 * $triangle];
                $corners[] = $this->corners[3 * $triangle + 1];
                $corners[] = $this->corners[3 * $triangle + 2];
            }
        }

        return Simplified::of($this->surface, $corners, $kept, $this->error());
    }

    /**
     * The greatest distance of a place of the mesh from what is left. From the place that it has gone to, the search walks over the surface
     * as long as it comes nearer.
     */
    private function error(): float
    {
        $most = 0.0;
        foreach ($this->into as $place => $goal) {
            if ($goal === $place) {
                continue;
            }
            while ($this->into[$goal] !== $goal) {
                $goal = $this->into[$goal] = $this->into[$this->into[$goal]];
            }
            $point = $this->place($place);
            $at = $this->place($goal);
            $least = ($point[0] - $at[0]) ** 2 + ($point[1] - $at[1]) ** 2 + ($point[2] - $at[2]) ** 2;
            [$least, $nearest] = $this->nearer($point, $goal, $least);
            for ($step = 0; $nearest >= 0 && $step < self::STEPS && $least > $most; $step++) {
                $before = $least;
                for ($corner = 3 * $nearest, $end = $corner + 3; $corner < $end; $corner++) {
                    $other = $this->corners[$corner];
                    if ($other !== $goal) {
                        [$nearer, $triangle] = $this->nearer($point, $other, $least);
                        if ($nearer < $least) {
                            [$least, $nearest, $goal] = [$nearer, $triangle, $other];
                        }
                    }
                }
                if ($least >= $before) {
                    break;
                }
            }
            // The search for the next version begins where this one ended.
            $this->into[$place] = $goal;
            $most = $least > $most ? $least : $most;
        }

        return sqrt($most);
    }

    /**
     * The nearest of the triangles around a place.
     *
     * @param array{float, float, float} $point
     *
     * @return array{float, int} square of the distance, at most $least, and the triangle; -1 for none
     */
    private function nearer(array $point, int $place, float $least): array
    {
        $nearest = -1;
        foreach ($this->around[$place] as $triangle) {
            $at = 3 * $triangle;
            $distance = Distance::square(
                $point,
                $this->place($this->corners[$at]),
                $this->place($this->corners[$at + 1]),
                $this->place($this->corners[$at + 2]),
            );
            if ($distance < $least) {
                [$least, $nearest] = [$distance, $triangle];
            }
        }

        return [$least, $nearest];
    }

    /** @return array{float, float, float} */
    private function place(int $place): array
    {
        return [$this->x[$place], $this->y[$place], $this->z[$place]];
    }
}
