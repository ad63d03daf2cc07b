<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;

/**
 * Rows or objects that have come to lie in something else, as the project is then. What they lie in now may itself have been moved later
 * than they were: if it came from within them, it could not go back there.
 */
final readonly class PlacesBeneath
{
    /**
     * @param string          $table "layers", "folders" or "objects"
     * @param array<int, int> $moved what each of those that moved lies in now
     * @param array<int, int> $above what everything lies in
     */
    private function __construct(private string $table, private array $moved, private array $above) {}

    /** @return list<self> for each kind of things that steps have moved into others */
    public static function after(Project $project, Edits $steps): array
    {
        $moved = [];
        foreach ($steps->steps as $step) {
            foreach (self::placesIn($step) as $table => $places) {
                $moved[$table] = array_filter($places) + ($moved[$table] ?? []);
            }
        }
        $all = [];
        foreach (array_filter($moved) as $table => $places) {
            $rows = DB::table($table)->where('project_id', $project->id)->where('parent_no', '>', 0);
            $above = ($table === 'objects' ? $rows->where('gone', false) : $rows)->pluck('parent_no', 'no');
            $all[] = new self($table, $places, array_map(intval(...), $above->all()));
        }

        return $all;
    }

    /** Whether taking later steps back would lead in a circle. */
    public function closedBy(Edits $later): bool
    {
        $back = [];
        foreach ($later->reversed()->steps as $step) {
            $back = (self::placesIn($step)[$this->table] ?? []) + $back;
        }
        foreach ($this->moved as $number => $into) {
            foreach (array_intersect_key($back, $this->chain($into)) as $wouldLieIn) {
                if (isset($this->chain($wouldLieIn)[$number])) {
                    return true;
                }
            }
        }

        return false;
    }

    /** @return array<int, true> a thing and all that it lies in */
    private function chain(int $number): array
    {
        $chain = [];
        for ($at = $number; $at > 0 && ! isset($chain[$at]); $at = $this->above[$at] ?? 0) {
            $chain[$at] = true;
        }

        return $chain;
    }

    /** @return array<string, array<int, int>> what things lie in after a step, by number, by table */
    private static function placesIn(Edit $step): array
    {
        $parents = static fn (array $places): array => array_map(static fn (array $place): int => $place[0], $places);

        if ($step instanceof NestingEdit) {
            return ['objects' => $parents($step->after)];
        }
        if (! ($step instanceof PlacesEdit || $step instanceof RowEdit) || ! in_array($step->table, ['layers', 'folders'], true)) {
            return [];
        }
        if ($step instanceof PlacesEdit) {
            return [$step->table => $parents($step->after)];
        }
        $into = $step->after['parent_no'] ?? null;

        return is_int($into) ? [$step->table => [$step->number => $into]] : [];
    }
}
