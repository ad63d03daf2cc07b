<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Bench\Column;
use Illuminate\Support\Facades\DB;
use VineShelf\Facts\Measure;
use VineShelf\Locks\Lock;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Rung;

/** Makes ledger rows of objects, a window at a time. */
final class ObjectRows
{
    private readonly Costs $costs;

    private readonly Forecast $forecast;

    public function __construct(private readonly Bench $bench)
    {
        $this->costs = new Costs($bench);
        $this->forecast = new Forecast($bench);
    }

    /**
     * @param list<array{int, int, bool, bool}> $wanted scene row, level, foldable, unfolded
     *
     * @return list<Row>
     */
    public function make(array $wanted): array
    {
        if ($wanted === []) {
            return [];
        }
        $scene = $this->bench->scene();
        $numbers = array_map(static fn (array $entry): int => $scene->number($entry[0]), $wanted);
        $names = DB::table('objects')->where('project_id', $this->bench->project->id)->whereIn('no', $numbers)->pluck('name', 'no');
        $rungs = $this->bench->inEffect()->rungs();
        $locks = $this->bench->inEffect()->locks();
        $columns = array_filter(
            $this->bench->arrangement()->columns,
            static fn (Column $column): bool => ! in_array($column->id, Column::DEFAULT, true),
        );
        $output = $this->bench->arrangement()->has('output') ? $this->bench->outputs()->side()->inEffect->rungs() : null;
        $rows = [];
        foreach ($wanted as $index => [$row, $level, $foldable, $unfolded]) {
            $number = $numbers[$index];
            $end = $scene->end($row);
            $name = $names[$number] ?? '';
            $isPicked = $this->bench->pick()->has($number);
            $cells = [];
            foreach ($columns as $column) {
                $cells[$column->id] = $this->cell($column->id, $row);
            }
            $rows[] = new Row(
                "O$number",
                $level,
                is_string($name) ? $name : '',
                $this->own($row, OwnValue::COLOUR) ?: $this->bench->layers()->get($scene->layers()->at($row))->colour,
                $end > $row ? $end - $row : null,
                $scene->triangles($row, $end),
                $this->bench->settings()->object($number) ?? Rung::Full,
                Rung::from($rungs->at($row)),
                false,
                Lock::from($scene->locks()->at($row)),
                Lock::from($locks->at($row)),
                0,
                $isPicked,
                $foldable,
                $unfolded,
                $scene->kind($row)->label(),
                false,
                $cells,
                pictures: $output === null ? null : $this->pictures($row, Rung::from($output->at($row))),
            );
        }

        return $rows;
    }

    private function pictures(int $row, Rung $inEffect): InPictures
    {
        $set = $this->bench->organizers()->own->at($this->bench->scene(), $row, OwnValue::OUTPUT);

        return new InPictures(
            $set === null ? null : OutputSettings::read($set),
            $inEffect,
            false,
            $set === null ? '' : OutputSettings::note($set),
        );
    }

    private function own(int $row, string $property): string
    {
        return (string) $this->bench->organizers()->own->at($this->bench->scene(), $row, $property);
    }

    private function cell(string $column, int $row): string
    {
        $facts = $this->bench->facts();
        $measure = Measure::tryFrom($column);
        if ($measure !== null) {
            $value = $facts->measure($measure, $row);

            return $value === null ? '' : $measure->shown($value);
        }

        return match (true) {
            $column === Forecast::COLUMN => $this->forecast->ofObject($row),
            Costs::isDrawn($column) => $this->costs->ofObject($column, $row),
            default => $this->word($column, $row),
        };
    }

    private function word(string $column, int $row): string
    {
        $facts = $this->bench->facts();

        return match ($column) {
            'kind' => $this->bench->scene()->kind($row)->label(),
            'class' => $facts->className($row),
            'layer' => $this->bench->layers()->get($this->bench->scene()->layers()->at($row))->name,
            'material' => implode(
                ', ',
                array_map(static fn (int $material): string => $facts->materials()[$material][0] ?? '', $facts->materialsOf($row)),
            ),
            'source' => $facts->sourceNames()[$facts->sources()->at($row)] ?? '',
            default => (string) ($facts->property($row, substr($column, 2)) ?? $this->own($row, substr($column, 2))),
        };
    }
}
