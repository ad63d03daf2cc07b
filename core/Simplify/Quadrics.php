<?php

declare(strict_types=1);

namespace VineShelf\Simplify;

/**
 * For each place of a surface the sum of squared distances from the planes of the triangles around it, and from planes that stand upright
 * on borders, as eleven numbers: those of the sum over xx, yy, zz, xy, xz, yz, x, y, z and 1, then the area that they stand for.
 */
final class Quadrics
{
    public const NUMBERS = 11;

    /** Of what an area along a border weighs, compared with the surface. */
    private const BORDER = 2.0;

    /** @var array<int, float> */
    private array $sums;

    private function __construct(private readonly Surface $surface)
    {
        $this->sums = $surface->x === [] ? [] : array_fill(0, self::NUMBERS * count($surface->x), 0.0);
    }

    /** @return array<int, float> {@see NUMBERS} for each place */
    public static function of(Surface $surface): array
    {
        $quadrics = new self($surface);
        $quadrics->weigh();

        return $quadrics->sums;
    }

    private function weigh(): void
    {
        [$x, $y, $z, $corners, $pieces] = [
            $this->surface->x,
            $this->surface->y,
            $this->surface->z,
            $this->surface->corners,
            $this->surface->pieces,
        ];
        $edges = [];
        $count = count($x);
        foreach ($pieces as $triangle => $piece) {
            [$a, $b, $c] = [$corners[3 * $triangle], $corners[3 * $triangle + 1], $corners[3 * $triangle + 2]];
            [$nx, $ny, $nz] = $this->normal($triangle);
            $length = sqrt($nx * $nx + $ny * $ny + $nz * $nz);
            foreach ([[$a, $b], [$b, $c], [$c, $a]] as [$from, $to]) {
                $key = $from < $to ? $from * $count + $to : $to * $count + $from;
                // How many triangles there are at the edge, one of them, and whether they are of different pieces.
                $edges[$key] = isset($edges[$key])
                    ? [$edges[$key][0] + 1, $triangle, $edges[$key][2] || $pieces[$edges[$key][1]] !== $piece]
                    : [1, $triangle, false];
            }
            if ($length < 1e-20) {
                continue;
            }
            [$nx, $ny, $nz] = [$nx / $length, $ny / $length, $nz / $length];
            $distance = -($nx * $x[$a] + $ny * $y[$a] + $nz * $z[$a]);
            foreach ([$a, $b, $c] as $place) {
                $this->add($place, $nx, $ny, $nz, $distance, $length / 6);
                $this->sums[self::NUMBERS * $place + 10] += $length / 6;
            }
        }
        foreach ($edges as $key => [$triangles, $triangle, $mixed]) {
            if ($triangles !== 2 || $mixed) {
                $this->addBorder(intdiv($key, $count), $key % $count, $triangle);
            }
        }
    }

    private function addBorder(int $from, int $to, int $triangle): void
    {
        [$x, $y, $z] = [$this->surface->x, $this->surface->y, $this->surface->z];
        [$nx, $ny, $nz] = $this->normal($triangle);
        [$ex, $ey, $ez] = [$x[$to] - $x[$from], $y[$to] - $y[$from], $z[$to] - $z[$from]];
        [$px, $py, $pz] = [$ey * $nz - $ez * $ny, $ez * $nx - $ex * $nz, $ex * $ny - $ey * $nx];
        $length = sqrt($px * $px + $py * $py + $pz * $pz);
        if ($length < 1e-20) {
            return;
        }
        [$px, $py, $pz] = [$px / $length, $py / $length, $pz / $length];
        $distance = -($px * $x[$from] + $py * $y[$from] + $pz * $z[$from]);
        $weight = self::BORDER * ($ex * $ex + $ey * $ey + $ez * $ez);
        $this->add($from, $px, $py, $pz, $distance, $weight);
        $this->add($to, $px, $py, $pz, $distance, $weight);
    }

    /** @return array{float, float, float} as long as twice the triangle's area */
    private function normal(int $triangle): array
    {
        [$x, $y, $z] = [$this->surface->x, $this->surface->y, $this->surface->z];
        $a = $this->surface->corners[3 * $triangle];
        $b = $this->surface->corners[3 * $triangle + 1];
        $c = $this->surface->corners[3 * $triangle + 2];
        [$bx, $by, $bz] = [$x[$b] - $x[$a], $y[$b] - $y[$a], $z[$b] - $z[$a]];
        [$cx, $cy, $cz] = [$x[$c] - $x[$a], $y[$c] - $y[$a], $z[$c] - $z[$a]];

        return [$by * $cz - $bz * $cy, $bz * $cx - $bx * $cz, $bx * $cy - $by * $cx];
    }

    private function add(int $place, float $a, float $b, float $c, float $d, float $weight): void
    {
        $at = self::NUMBERS * $place;
        $this->sums[$at] += $weight * $a * $a;
        $this->sums[$at + 1] += $weight * $b * $b;
        $this->sums[$at + 2] += $weight * $c * $c;
        $this->sums[$at + 3] += $weight * $a * $b;
        $this->sums[$at + 4] += $weight * $a * $c;
        $this->sums[$at + 5] += $weight * $b * $c;
        $this->sums[$at + 6] += $weight * $a * $d;
        $this->sums[$at + 7] += $weight * $b * $d;
        $this->sums[$at + 8] += $weight * $c * $d;
        $this->sums[$at + 9] += $weight * $d * $d;
    }
}
