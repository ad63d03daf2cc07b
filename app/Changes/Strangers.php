<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edit;
use App\Changes\Edits\ObjectsEdit;
use App\Changes\Edits\RowEdit;
use App\Changes\Edits\SourceEdit;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;

/** Objects that come back when a change is done again are new to the views that were kept while they were away. */
final class Strangers
{
    /**
     * @param list<Edit> $edits of the change that was done again
     * @param int        $turn  of the history in which it was taken back
     *
     * @return list<RowEdit>
     */
    public static function steps(Project $project, array $edits, int $turn): array
    {
        $numbers = Bits::none(0);
        foreach ($edits as $edit) {
            $numbers = $numbers->with(self::coming($project, $edit));
        }
        if ($numbers->isEmpty()) {
            return [];
        }
        $steps = [];
        foreach ($project->views()->where('known_turn', '>=', $turn)->get() as $view) {
            $before = $view->strangers();
            $steps[] = new RowEdit(
                'views',
                $view->no,
                ['strangers' => self::stored($before)],
                ['strangers' => self::stored($before->with($numbers))],
            );
        }

        return $steps;
    }

    private static function stored(Bits $numbers): ?string
    {
        return $numbers->isEmpty() ? null : base64_encode(Members::pack($numbers));
    }

    /** Numbers of the objects that a step brings back. */
    private static function coming(Project $project, Edit $edit): Bits
    {
        $numbers = match (true) {
            $edit instanceof SourceEdit && ! $edit->gone => DB::table('objects')
                ->where('project_id', $project->id)
                ->where('source_id', $edit->source)
                ->orderBy('no')
                ->pluck('no')
                ->all(),
            $edit instanceof ObjectsEdit && $edit->column === 'gone' => $edit->after[0] ?? [],
            default => [],
        };
        $numbers = array_map(intval(...), $numbers);
        sort($numbers);

        return Bits::ofRows($numbers === [] ? 0 : end($numbers), $numbers);
    }
}
