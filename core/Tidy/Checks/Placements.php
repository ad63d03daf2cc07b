<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Scene\Packed;
use VineShelf\Tidy\Model;

/** Goes through how parts are placed. */
final class Placements
{
    /**
     * @param \Closure(array<int, float>): bool $is given the twelve numbers of a transform, from 1 on, row by row
     *
     * @return list<int> rows with a placement of that kind
     */
    public static function where(Model $model, \Closure $is): array
    {
        $count = $model->scene->count();
        $at = Packed::uint32($model->scene->column('recordAt'), 0, $count + 2);
        $placements = $model->scene->column('placements');
        // Most parts stand as others do: turns and scales are looked at once.
        $known = $rows = [];
        for ($row = 1; $row <= $count; $row++) {
            for ($record = $at[$row]; $record < $at[$row + 1]; $record++) {
                $form =
                    substr($placements, 96 * $record, 24).
                    substr($placements, 96 * $record + 32, 24).
                    substr($placements, 96 * $record + 64, 24);
                if (! isset($known[$form])) {
                    /** @var array<int, float> $m */
                    $m = unpack('e12', $placements, 96 * $record);
                    $known[$form] = $is($m);
                }
                if ($known[$form]) {
                    $rows[] = $row;
                    break;
                }
            }
        }

        return $rows;
    }
}
