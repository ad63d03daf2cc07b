<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\OutOfStep;
use App\Changes\Edits\RowEdit;
use App\Models\Project;

/** What views keep because of a change that is turned. */
final class FollowingViews
{
    /**
     * What views keep because of a change, view by view: what goes as it was recorded, and what others have written since.
     *
     * @param list<Edit> $following
     *
     * @return array{array<int, non-empty-list<RowEdit>>, array<int, non-empty-list<RowEdit>>} steps by number of the view
     */
    public static function apart(Project $project, array $following, ?Later $later): array
    {
        $byView = [];
        foreach ($following as $step) {
            if ($step instanceof RowEdit) {
                $byView[$step->number][] = $step;
            }
        }
        $written = $following === [] ? [] : $later?->rewritten(array_keys($byView)) ?? [];
        $recorded = [];
        foreach ($byView as $view => $steps) {
            if (self::fit($project, $steps) && ! (new Edits($steps))->write($written[$view] ?? [])) {
                $recorded[$view] = $steps;
            }
        }

        return [$recorded, array_diff_key($byView, $recorded)];
    }

    /**
     * Whether a view is as steps expect it, one after the other.
     *
     * @param list<RowEdit> $steps
     */
    private static function fit(Project $project, array $steps): bool
    {
        $known = [];
        try {
            foreach ($steps as $step) {
                if (
                    array_diff_key($step->before ?? [], $known) !== [] ||
                    ! $step->isOf(array_intersect_key($known, $step->before ?? []))
                ) {
                    $step->check($project);
                }
                $known = ($step->after ?? []) + $known;
            }
        } catch (OutOfStep) {
            return false;
        }

        return true;
    }
}
