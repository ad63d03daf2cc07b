<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Casts\Bytes;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Own\OwnValue;
use VineShelf\Rules\SetLinks;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Sets\SelectionSet;
use VineShelf\Sets\SetTree;

/**
 * What steps make sure of that touch layers, tags, sets and folders: every object has a layer that exists, everything lies in something
 * that exists and never in itself, beside each other no two are called the same, and no set leads back to itself.
 */
final class Places
{
    /**
     * @param string $which a condition on the objects
     *
     * @throws OutOfStep when objects would come back to a layer that is no longer there
     */
    public static function checkHomes(Project $project, string $which): void
    {
        $homeless = DB::selectOne(
            "SELECT count(*) AS objects FROM objects WHERE project_id = ? AND $which
            AND NOT EXISTS (SELECT 1 FROM layers WHERE layers.project_id = objects.project_id AND layers.no = objects.layer_no)",
            [$project->id],
        );
        if ((int) $homeless->objects > 0) {
            throw OutOfStep::missing('The layer of '.number_format((int) $homeless->objects).' objects');
        }
    }

    /**
     * @param string $table of the rows that lie in it
     *
     * @throws OutOfStep when what rows are to lie in is not there
     */
    public static function checkExists(Project $project, string $table, int $into): void
    {
        if ($into === 0) {
            return;
        }
        $what = $table === 'layers' ? 'layers' : 'folders';
        if (! DB::table($what)->where('project_id', $project->id)->where('no', $into)->exists()) {
            throw OutOfStep::missing('The '.rtrim($what, 's'));
        }
    }

    /**
     * @param array<string, mixed> $row a row of the table that is to be there
     *
     * @throws OutOfStep when something beside it is called the same
     */
    public static function checkFree(Project $project, string $table, array $row, int $number): void
    {
        $parent = PlacesEdit::PARENTS[$table];
        $name = is_string($row['name'] ?? null) ? $row['name'] : '';
        $beside = DB::table($table)
            ->where('project_id', $project->id)
            ->where($parent, $row[$parent] ?? 0)
            ->where('no', '<>', $number)
            ->whereRaw('lower(name) = lower(?)', [$name]);
        if ($table === 'folders') {
            $beside->where('holds', $row['holds'] ?? '');
        }
        if ($beside->exists()) {
            throw OutOfStep::taken('a '.rtrim($table, 's')." “{$name}”");
        }
    }

    /** @throws OutOfStep when objects lie under the layer */
    public static function checkEmpty(Project $project, int $layer, string $name): void
    {
        $objects = DB::table('objects')->where('project_id', $project->id)->where('layer_no', $layer)->where('gone', false)->count();
        if ($objects > 0) {
            throw OutOfStep::needed(
                "Layer $name",
                number_format($objects).' '.($objects === 1 ? 'object lies' : 'objects lie').' under it',
            );
        }
    }

    /**
     * @param string $table "layers" or "folders"
     *
     * @throws OutOfStep when something lies in the layer or the folder
     */
    public static function checkNothingIn(Project $project, string $table, int $number, string $name): void
    {
        foreach ($table === 'layers' ? ['layers'] : ['folders', 'tags', 'sets', 'views'] as $inside) {
            $nested = DB::table($inside)->where('project_id', $project->id)->where(PlacesEdit::PARENTS[$inside], $number)->value('name');
            if (is_string($nested)) {
                throw OutOfStep::needed(ucfirst(rtrim($table, 's'))." $name", rtrim($inside, 's')." $nested lies in it");
            }
        }
    }

    /**
     * @param string          $table "layers" or "folders"
     * @param array<int, int> $into  what rows are to lie in, by number
     *
     * @throws OutOfStep when one of them would lie in itself
     */
    public static function checkNotInItself(Project $project, string $table, array $into): void
    {
        $parents = $into + array_map(intval(...), DB::table($table)->where('project_id', $project->id)->pluck('parent_no', 'no')->all());
        foreach (array_keys($into) as $number) {
            for ($at = $parents[$number], $steps = 0; $at > 0; $at = $parents[$at] ?? 0) {
                if ($at === $number || $steps++ > count($parents)) {
                    throw OutOfStep::changed('The order of the '.$table);
                }
            }
        }
    }

    /**
     * @param array<string, mixed> $row of the set that is to be there
     *
     * @throws OutOfStep when sets would lead back to themselves
     */
    public static function checkNoCycle(Project $project, int $number, array $row): void
    {
        $sets = $project->organizers()->sets;
        $rule = $row['rule'] ?? null;
        $set = new SelectionSet($number, 0, 0, is_string($row['name'] ?? null) ? $row['name'] : '', is_string($rule) ? $rule : null);
        $cycle = (new SetLinks(new SetTree($sets->tree->folders, [...array_values($sets->tree->members), $set])))->cycle();
        if ($cycle !== null) {
            throw OutOfStep::taken('a way from the set back to itself, '.implode(' → ', $cycle).',');
        }
    }

    /**
     * What sets lie in counts for rules that name a folder: once steps are made, the way from a set back to itself.
     *
     * @param list<Edit> $steps
     *
     * @return string names along it, "A → B → A"; empty where there is none
     */
    public static function cycleBy(Project $project, array $steps): string
    {
        $isAboutSets = static fn (Edit $step): bool => ($step instanceof RowEdit || $step instanceof PlacesEdit) &&
            in_array($step->table, ['sets', 'folders'], true);

        return array_filter($steps, $isAboutSets) === [] ? '' : implode(' → ', (new SetLinks($project->organizers()->sets))->cycle() ?? []);
    }

    /**
     * @param string $property of the objects
     * @param Bits   $objects  numbers of those that are to get a value of it
     * @param int    $number   of the value
     *
     * @throws OutOfStep when some of them have got another one
     */
    public static function checkNoOtherValue(Project $project, string $property, Bits $objects, int $number): void
    {
        $others = DB::table('own_values')->where('project_id', $project->id)->where('property', $property)->where('no', '<>', $number);
        foreach ($objects->isEmpty() ? [] : $others->get(['no', 'members']) as $other) {
            $members = Members::unpack(Bytes::read($other->members));
            if ($objects->less($members)->count() !== $objects->count()) {
                throw OutOfStep::changed(
                    $property === OwnValue::OUTPUT
                        ? 'What pictures show of some of these objects'
                        : "The $property of some of these objects",
                    ["own_values members $other->no" => $objects, 'own_values' => Numbers::of([(int) $other->no])],
                );
            }
        }
    }

    /**
     * @param array<string, mixed> $row property and value
     *
     * @throws OutOfStep when there is a row for the value already
     */
    public static function checkNewValue(Project $project, array $row): void
    {
        $values = DB::table('own_values')
            ->where('project_id', $project->id)
            ->where('property', $row['property'] ?? '');
        if ($values->where('value', $row['value'] ?? '')->exists()) {
            throw OutOfStep::taken('such a value');
        }
    }
}
