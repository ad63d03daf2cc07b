<?php

declare(strict_types=1);

namespace App\Changes;

use App\Models\Project;
use Illuminate\Support\Facades\DB;

/** Objects that stand in one group, or at the top, in their order. */
final class Siblings
{
    /** @return array<int, int> places by object number, in their order */
    public static function of(Project $project, int $parent): array
    {
        $rows = DB::select('SELECT no, position FROM objects WHERE project_id = ? AND parent_no = ? AND NOT gone ORDER BY position, no', [
            $project->id,
            $parent,
        ]);
        $places = [];
        foreach ($rows as $row) {
            $places[(int) $row->no] = (int) $row->position;
        }

        return $places;
    }

    /**
     * Places for an order; those that fit already stay.
     *
     * @param list<int>       $order  object numbers
     * @param array<int, int> $places those that there are, by number; the others come newly
     *
     * @return array<int, int> only those that change
     */
    public static function places(array $order, array $places): array
    {
        $changed = [];
        $last = 0;
        foreach ($order as $number) {
            $place = $places[$number] ?? 0;
            if ($place <= $last) {
                $changed[$number] = $place = $last + 1;
            }
            $last = $place;
        }

        return $changed;
    }

    /** A place after everything in a group. */
    public static function last(Project $project, int $parent): int
    {
        $last = DB::table('objects')->where('project_id', $project->id)->where('parent_no', $parent)->where('gone', false)->max('position');

        return (int) (is_numeric($last) ? $last : 0);
    }
}
