<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Scene\Kind;
use VineShelf\Scene\Packed;
use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Parts of the same mesh at the same place, which hold the same: what only one of them holds must not go with it. */
final readonly class Twins extends Plain
{
    /** Metres that places may differ by, and the same share of turns and scales. */
    private const STEP = 1e-4;

    public function id(): string
    {
        return 'twins';
    }

    public function title(int $many): string
    {
        return self::many($many, 'part stands where its like stands', 'parts stand where their like stands');
    }

    public function why(): string
    {
        return 'Two surfaces in one place flicker, and everything is counted and drawn twice.';
    }

    public function mends(): array
    {
        return ['delete-twins' => 'Keep one of each'];
    }

    public function find(Model $model): array
    {
        $scene = $model->scene;
        $count = $scene->count();
        $at = Packed::uint32($scene->column('recordAt'), 0, $count + 2);
        // Two that hardly differ may be on both sides of a step; then half a step further they are not.
        $of = [];
        foreach ([0.0, 0.5] as $shift) {
            $first = [];
            foreach (self::wholes($model, $at, $shift) as $row => $key) {
                $like = $first[$key] ??= $row;
                if ($like !== $row) {
                    $of[$row] = min($of[$row] ?? $row, $of[$like] ?? $like);
                }
            }
        }
        ksort($of);
        $places = [];
        foreach ($of as $row => $like) {
            $places[$like][] = $row;
        }
        $items = [];
        foreach ($places as $like => $rows) {
            $items[] = new Item((string) $model->scene->number($like), $model->names[$like], $model->rows([$like, ...$rows]));
        }
        usort($items, static fn (Item $a, Item $b): int => $b->rows->count() <=> $a->rows->count());

        return $items;
    }

    /**
     * What parts draw and where, with all that they hold: the same text for those that cannot be told apart.
     *
     * @param list<int> $at first draw record by row
     *
     * @return array<int, string> by row, ascending
     */
    private static function wholes(Model $model, array $at, float $shift): array
    {
        $scene = $model->scene;
        $held = $wholes = [];
        for ($row = $scene->count(); $row > 0; $row--) {
            $inside = $held[$row] ?? [];
            unset($held[$row]);
            $isDrawn = $at[$row + 1] > $at[$row];
            $kind = $scene->kind($row);
            $own = match (true) {
                $isDrawn => self::key($model, $row, $at[$row], $at[$row + 1], $shift),
                $kind === Kind::Group => $model->names[$row],
                // What is neither drawn nor a group is never taken for another: only it may say where a lamp hangs.
                default => "#$row",
            };
            sort($inside);
            $whole = md5("$kind->value|$own|".implode('|', $inside));
            if ($scene->parent($row) !== 0) {
                $held[$scene->parent($row)][] = $whole;
            }
            if ($isDrawn) {
                $wholes[$row] = $whole;
            }
        }

        return array_reverse($wholes, true);
    }

    /** What a row draws and where: the same for those that cannot be told apart. */
    private static function key(Model $model, int $row, int $first, int $end, float $shift): string
    {
        $mesh = $model->facts->mesh($row);
        $drawn = [];
        for ($record = $first; $record < $end; $record++) {
            $m = Packed::float64($model->scene->column('placements'), 96 * $record, 12);
            $drawn[] = implode(' ', array_map(static fn (float $value): int => (int) round($value / self::STEP + $shift), $m));
        }
        sort($drawn);

        return ($model->meshes[$mesh][0] ?? $mesh).'|'.implode('|', $drawn);
    }
}
