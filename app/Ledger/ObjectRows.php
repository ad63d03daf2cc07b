<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Workbench\Bench;
use Illuminate\Support\Facades\DB;
use VineShelf\Locks\Lock;

/** Makes ledger rows of objects, a window at a time. */
final class ObjectRows
{
    public function __construct(private readonly Bench $bench) {}

    /**
     * @param list<array{int, int, bool, bool}> $wanted scene row, level, foldable, unfolded
     *
     * @return list<Row>
     */
    public function make(array $wanted): array
    {
        $scene = $this->bench->scene();
        $numbers = array_map(static fn (array $entry): int => $scene->number($entry[0]), $wanted);
        $names = DB::table('objects')->where('project_id', $this->bench->project->id)->whereIn('no', $numbers)->pluck('name', 'no');
        $rungs = $this->bench->inEffect()->rungs();
        $locks = $this->bench->inEffect()->locks();
        $rows = [];
        foreach ($wanted as $index => [$row, $level, $foldable, $unfolded]) {
            $number = $numbers[$index];
            $end = $scene->end($row);
            $name = $names[$number] ?? '';
            $isPicked = $this->bench->pick()->has($number);
            $rows[] = new Row(
                "O$number",
                $level,
                is_string($name) ? $name : '',
                $this->bench->layers()->get($scene->layers()->at($row))->colour,
                $end > $row ? $end - $row : null,
                $scene->triangles($row, $end),
                $this->bench->settings()->object($number),
                \VineShelf\Rungs\Rung::from($rungs->at($row)),
                false,
                Lock::from($scene->locks()->at($row)),
                Lock::from($locks->at($row)),
                0,
                $isPicked,
                $foldable,
                $unfolded,
                $scene->kind($row)->label(),
            );
        }

        return $rows;
    }
}
