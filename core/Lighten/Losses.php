<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

use VineShelf\Facts\Derived\PlaneColumns;
use VineShelf\Facts\Derived\Values;
use VineShelf\Facts\Facts;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Levels;
use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\Packed;

/**
 * What each object could be drawn as, what that costs, and how much of some pictures is lost by it, as part of their pixels:
 *
 * | rung | what is lost |
 * |---|---|
 * | Hidden | all that is seen of it |
 * | Box | what the box covers beyond the object, as far as the object is seen at all; and {@see SHADE} of what is seen, its shading |
 * | Coarse | along an edge as wide as the version is off, beyond what an eye can see ({@see UNSEEN}), on both sides: at most all that is seen |
 *
 * Whoever has pictures of materials loses {@see PICTURE} of what is seen on any of them.
 */
final class Losses
{
    private const SHADE = 0.15;

    private const PICTURE = 0.15;

    /** Pixels of a picture {@see Seen::TALL} high that nobody sees something to be off. */
    private const UNSEEN = 0.3;

    public readonly Options $options;

    /** The rows that the options are of. @var list<int> */
    public array $rows = [];

    /** Triangles of what cannot be lowered. */
    public int $fixed = 0;

    /** @var array<int, int|float> bytes of pictures by row */
    private array $pictures;

    /** @var array<int, array{triangles: int, vertices: int, bytes: int, error: float}> */
    private array $versions;

    /**
     * @param Levels     $rungs in effect
     * @param Bits       $free  rows that may be lowered
     * @param list<Seen> $seen  the pictures
     */
    public function __construct(private readonly Facts $facts, Levels $rungs, Bits $free, private readonly array $seen)
    {
        $scene = $facts->scene;
        $this->options = new Options;
        $this->pictures = Values::numbers($scene, 'texture');
        $this->versions = MeshVersions::coarse($scene);
        $fine = PlaneColumns::numbers($scene, 'triangles');
        $coarse = PlaneColumns::numbers($scene, 'coarsetriangles');
        $times = PlaneColumns::numbers($scene, 'placements');
        $steps = $rungs->translated(range(0, Rung::Full->value));
        $may = $free->mask();
        for ($row = 1, $count = $scene->count(); $row <= $count; $row++) {
            $rung = ord($steps[$row]);
            if ($times[$row - 1] === 0 || $rung === Rung::Hidden->value) {
                continue;
            }
            $box = 12 * $times[$row - 1];
            $cost = $rung >= Rung::Plain->value ? $fine[$row - 1] : ($rung >= Rung::Ghost->value ? $coarse[$row - 1] : $box);
            if ($may[$row] === "\0") {
                $this->fixed += $cost;

                continue;
            }
            $this->rows[] = $row;
            $this->options->add($cost, $this->lower($row, $rung, $coarse[$row - 1], $box));
        }
    }

    /** @return array<int, array{int, float}> cost and loss by rung */
    private function lower(int $row, int $rung, int $coarse, int $box): array
    {
        $lower = [Rung::Hidden->value => [0, 0.0]];
        if ($rung > Rung::Box->value) {
            $lower[Rung::Box->value] = [$box, 0.0];
        }
        if ($rung > Rung::Coarse->value) {
            $lower[Rung::Coarse->value] = [$coarse, 0.0];
        }
        $pixels = 0.0;
        $off = null;
        $picture = $rung === Rung::Full->value && ($this->pictures[$row] ?? 0) > 0 ? self::PICTURE : 0.0;
        foreach ($this->seen as $seen) {
            $pixels += $seen->pixels;
            $visible = $seen->seen[$row];
            if ($visible <= 0) {
                continue;
            }
            $covered = max($visible, $seen->covered[$row]);
            $boxed = max($covered, $seen->boxed[$row]);
            $lower[0][1] += $visible;
            if (isset($lower[1])) {
                $lower[1][1] += ($boxed - $covered) * ($visible / $covered) + $visible * (self::SHADE + $picture);
            }
            if (isset($lower[3])) {
                $off ??= $this->off($row);
                $times = Seen::TALL / $seen->tall;
                $wide = max(0.0, $off * $seen->perMetre[$row] * $times - self::UNSEEN);
                $lower[3][1] += $visible * (min(1.0, (2 * $wide) / (sqrt($boxed) * $times)) + $picture);
            }
        }
        foreach ($lower as $rung => [$cost, $loss]) {
            $lower[$rung] = [$cost, $pixels > 0 ? min(1.0, $loss / $pixels) : 0.0];
        }

        return $lower;
    }

    /** Metres that the coarse version of a row's mesh is off where it is placed. */
    private function off(int $row): float
    {
        $scene = $this->facts->scene;
        $version = $this->versions[Packed::uint32At($scene->column('mesh'), $row)] ?? null;
        if ($version === null) {
            return 0.0;
        }
        $record = Packed::uint32At($scene->column('recordAt'), $row);
        /** @var array{1: float, 2: float, 3: float, 4: float, 5: float, 6: float, 7: float, 8: float, 9: float, 10: float, 11: float} $m */
        $m = unpack('g11', $scene->column('records'), $record * DrawRecords::RECORD + 8);

        return $version['error'] *
            sqrt(max($m[1] ** 2 + $m[5] ** 2 + $m[9] ** 2, $m[2] ** 2 + $m[6] ** 2 + $m[10] ** 2, $m[3] ** 2 + $m[7] ** 2 + $m[11] ** 2));
    }
}
