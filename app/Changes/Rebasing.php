<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use App\Models\Casts\Bytes;
use App\Models\Change;
use App\Models\Project;

/**
 * A change is taken back from between others, and what views kept because of it goes with it: those that came later go by what views keep
 * then, so that they can be taken back as well.
 */
final readonly class Rebasing
{
    public function __construct(private Project $project, private Change $change) {}

    /**
     * @param list<Edit>    $going what views kept because of the change, reversed
     * @param list<RowEdit> $now   what views keep instead, now that the change is taken back
     */
    public function of(array $going, array $now): void
    {
        $first = self::columns($going);
        $last = self::columns($now);
        $views = $first + $last;
        if ($views === []) {
            return;
        }
        /** @var array<int, Edits> $edits by number of the change */
        $edits = [];
        /** @var array<int, array<string, list<array{int, int}>>> $writers change and step, the first first, by view and column */
        $writers = [];
        foreach ((new Later($this->project, $this->change))->done() as $other) {
            $theirs = Edits::unpack($other->edits);
            foreach (array_reverse($theirs->steps, true) as $at => $step) {
                if ($step instanceof RowEdit && $step->table === 'views' && isset($views[$step->number])) {
                    $edits[$other->no] = $theirs;
                    foreach (array_keys(($step->before ?? []) + ($step->after ?? [])) as $column) {
                        $writers[$step->number][$column] = [[$other->no, $at], ...$writers[$step->number][$column] ?? []];
                    }
                }
            }
        }
        $others = $edits;
        foreach ($writers as $view => $byColumn) {
            foreach ($byColumn as $column => $those) {
                if (isset($first[$view][$column])) {
                    $edits = self::with($edits, $those[0], $column, $first[$view][$column], true);
                }
                if (isset($last[$view][$column])) {
                    $edits = self::with($edits, $those[count($those) - 1], $column, $last[$view][$column], false);
                }
            }
        }
        foreach ($edits as $number => $changed) {
            if ($changed !== $others[$number]) {
                Change::query()
                    ->where('project_id', $this->project->id)
                    ->where('no', $number)
                    ->update(['edits' => Bytes::write($changed->pack())]);
            }
        }
    }

    /**
     * @param list<Edit> $steps
     *
     * @return array<int, array<string, array{mixed, mixed}>> what columns of views had before and have after, by view and column
     */
    private static function columns(array $steps): array
    {
        $columns = [];
        foreach ($steps as $step) {
            if ($step instanceof RowEdit && $step->before !== null && $step->after !== null) {
                foreach ($step->after as $column => $after) {
                    $columns[$step->number][$column] = [$columns[$step->number][$column][0] ?? ($step->before[$column] ?? null), $after];
                }
            }
        }

        return $columns;
    }

    /**
     * @param array<int, Edits>   $edits  by number of the change
     * @param array{int, int}     $writer change and step
     * @param array{mixed, mixed} $values what is to be replaced, and by what
     * @param bool                $before whether in what the step goes by, or in what it leaves
     *
     * @return array<int, Edits>
     */
    private static function with(array $edits, array $writer, string $column, array $values, bool $before): array
    {
        [$number, $at] = $writer;
        $steps = $edits[$number]->steps;
        $step = $steps[$at];
        $row = $step instanceof RowEdit ? ($before ? $step->before : $step->after) : null;
        if (! $step instanceof RowEdit || $row === null || ! array_key_exists($column, $row) || $row[$column] !== $values[0]) {
            return $edits;
        }
        $row[$column] = $values[1];
        $steps[$at] = new RowEdit('views', $step->number, $before ? $row : $step->before, $before ? $step->after : $row);
        $edits[$number] = new Edits(array_values($steps));

        return $edits;
    }
}
