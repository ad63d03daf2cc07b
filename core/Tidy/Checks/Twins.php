<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Scene\Packed;
use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Parts of the same mesh at the same place. */
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
        $first = $of = [];
        for ($row = 1; $row <= $count; $row++) {
            foreach ($at[$row + 1] > $at[$row] ? [0.0, 0.5] : [] as $shift) {
                $key = $shift.self::key($model, $row, $at[$row], $at[$row + 1], $shift);
                $like = $first[$key] ??= $row;
                if ($like !== $row) {
                    $of[$row] = min($of[$row] ?? $row, $of[$like] ?? $like);
                }
            }
        }
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
