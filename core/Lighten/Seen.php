<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

use VineShelf\Facts\Facts;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Packed;

/** What is seen of each row in one picture; areas in its pixels, 0 for rows that are not in it. All lists by row. */
final class Seen
{
    /** Pixels that a picture is tall for which versions are coarse enough or not. */
    public const TALL = 800;

    /** Part of its box that a thing covers, when nobody has looked. */
    public const FILLS = 0.6;

    /**
     * How much of it is to be seen.
     *
     * @var array<int, float>
     */
    public array $seen;

    /**
     * How much it would cover if nothing stood in front.
     *
     * @var array<int, float>
     */
    public array $covered;

    /**
     * How much the box around it would cover.
     *
     * @var array<int, float>
     */
    public array $boxed;

    /**
     * Pixels that a metre is seen in where it stands.
     *
     * @var array<int, float>
     */
    public array $perMetre;

    /** Pixels of the picture. */
    public float $pixels;

    /** @param int $tall pixels that the picture is high */
    public function __construct(int $count, public readonly int $tall, public readonly ?Raster $raster = null)
    {
        $this->pixels = $raster === null ? 0.0 : (float) ($raster->width * $raster->height);
        $this->seen = $this->covered = $this->boxed = $this->perMetre = array_fill(0, $count + 1, 0.0);
    }

    /**
     * As if everything were looked at by itself, from all around and so far away that the whole model would fit: nothing is behind
     * anything.
     * A box is seen in a quarter of its surface on the average (Cauchy).
     */
    public static function fromEverywhere(Facts $facts, Levels $rungs): self
    {
        $count = $facts->scene->count();
        $seen = new self($count, self::TALL);
        $shown = $rungs->atLeast(Rung::Box->value)->mask();
        $boxes = $facts->scene->column('box');
        $recordAt = Packed::uint32($facts->scene->column('recordAt'), 0, $count + 2);
        [$least, $most] = [[INF, INF, INF], [-INF, -INF, -INF]];
        for ($row = 1; $row <= $count; $row++) {
            if ($shown[$row] === "\0" || $recordAt[$row] === $recordAt[$row + 1]) {
                continue;
            }
            /** @var array{1: float, 2: float, 3: float, 4: float, 5: float, 6: float} $b */
            $b = unpack('g6', $boxes, $row * 24);
            if ($b[1] > $b[4]) {
                continue;
            }
            [$x, $y, $z] = [$b[4] - $b[1], $b[5] - $b[2], $b[6] - $b[3]];
            $seen->boxed[$row] = ($x * $y + $y * $z + $z * $x) / 2;
            foreach ([0, 1, 2] as $axis) {
                $least[$axis] = min($least[$axis], $b[$axis + 1]);
                $most[$axis] = max($most[$axis], $b[$axis + 4]);
            }
        }
        $reach = hypot($most[0] - $least[0], hypot($most[1] - $least[1], $most[2] - $least[2]));
        $perMetre = $reach > 0 && is_finite($reach) ? self::TALL / $reach : 1.0;
        foreach ($seen->boxed as $row => $square) {
            if ($square > 0) {
                $seen->boxed[$row] = $square * $perMetre ** 2;
                $seen->covered[$row] = $seen->seen[$row] = $seen->boxed[$row] * self::FILLS;
                $seen->perMetre[$row] = $perMetre;
            }
        }
        $seen->pixels = max(1.0, array_sum($seen->seen));

        return $seen;
    }
}
