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
 * | Coarse | along an edge as wide as the version is off, beyond what an eye sees ({@see UNSEEN}), on both sides: at most all of it |
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

    /**
     * The rows that the options are of.
     *
     * @var list<int>
     */
    public array $rows = [];

    /** What is drawn and stays as it is. */
    public readonly Bits $fixedRows;

    /** Triangles of it. */
    public int $fixed = 0;

    /** @var array<int, array{triangles: int, vertices: int, bytes: int, error: float}> */
    private readonly array $versions;

    /**
     * @param Levels     $rungs in effect
     * @param Bits       $free  rows that may be lowered
     * @param list<Seen> $seen  the pictures
     * @param bool       $hides whether things may be hidden; else boxes are the least
     */
    public function __construct(private readonly Facts $facts, Levels $rungs, Bits $free, array $seen, bool $hides = true)
    {
        $scene = $facts->scene;
        $this->versions = MeshVersions::coarse($scene);
        $fine = PlaneColumns::numbers($scene, 'triangles');
        $coarse = PlaneColumns::numbers($scene, 'coarsetriangles');
        $times = PlaneColumns::numbers($scene, 'placements');
        $steps = $rungs->translated(range(0, Rung::Full->value));
        $may = $free->mask();
        $rows = $costs = $boxes = $coarses = $fixedRows = [];
        $fixed = 0;
        for ($row = 1, $count = $scene->count(); $row <= $count; $row++) {
            $rung = ord($steps[$row]);
            $placed = $times[$row - 1];
            if ($placed === 0 || $rung === 0) {
                continue;
            }
            $cost = $rung >= 4 ? $fine[$row - 1] : ($rung >= 2 ? $coarse[$row - 1] : 12 * $placed);
            if ($may[$row] === "\0") {
                $fixed += $cost;
                $fixedRows[] = $row;

                continue;
            }
            $rows[] = $row;
            $costs[] = $cost;
            $boxes[] = 12 * $placed;
            $coarses[] = $coarse[$row - 1];
        }
        $this->rows = $rows;
        $this->fixed = $fixed;
        $this->fixedRows = Bits::ofRows($scene->count(), $fixedRows);
        $options = new Options;
        $options->costs = $costs;
        $options->costsAt = [3 => $coarses, 1 => $boxes, 0 => array_fill(0, count($rows), 0)];
        $options->lossesAt = $this->lost($steps, $seen, $hides);
        $this->options = $options;
    }

    /** The choice among them. */
    public function nested(): Nested
    {
        return new Nested($this->options, $this->rows, $this->facts->scene->column('end'), $this->fixedRows);
    }

    /**
     * @param string     $steps rung by row
     * @param list<Seen> $seen
     *
     * @return array<int, array<int, float>> by rung, then by place among the rows
     */
    private function lost(string $steps, array $seen, bool $hides): array
    {
        $rows = $this->rows;
        $textures = Values::numbers($this->facts->scene, 'texture');
        $hidden = $boxed = $coarse = $pictures = array_fill(0, count($rows), 0.0);
        $pixels = 0.0;
        foreach ($seen as $one) {
            $pixels += $one->pixels;
            $times = Seen::TALL / $one->tall;
            [$visibles, $covers, $boxes, $perMetres] = [$one->seen, $one->covered, $one->boxed, $one->perMetre];
            foreach ($rows as $at => $row) {
                $visible = $visibles[$row];
                if ($visible <= 0) {
                    continue;
                }
                $covered = $covers[$row] > $visible ? $covers[$row] : $visible;
                $box = $boxes[$row] > $covered ? $boxes[$row] : $covered;
                $hidden[$at] += $visible;
                $boxed[$at] += ($box - $covered) * ($visible / $covered) + $visible * self::SHADE;
                if ($steps[$row] > "\3") {
                    $wide = $this->off($row) * $perMetres[$row] * $times - self::UNSEEN;
                    if ($wide > 0) {
                        $share = (2 * $wide) / (sqrt($box) * $times);
                        $coarse[$at] += $visible * ($share < 1.0 ? $share : 1.0);
                    }
                    if ($steps[$row] === "\5" && ($textures[$row] ?? 0) > 0) {
                        $pictures[$at] += $visible * self::PICTURE;
                    }
                }
            }
        }
        $part = 1 / max(1.0, $pixels);
        foreach ($rows as $at => $row) {
            $rung = $steps[$row];
            $hidden[$at] = $hides ? $hidden[$at] * $part : Options::NEVER;
            $boxed[$at] = $rung > "\1" ? min(1.0, ($boxed[$at] + $pictures[$at]) * $part) : Options::NEVER;
            $coarse[$at] = $rung > "\3" ? ($coarse[$at] + $pictures[$at]) * $part : Options::NEVER;
        }

        return [3 => $coarse, 1 => $boxed, 0 => $hidden];
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
