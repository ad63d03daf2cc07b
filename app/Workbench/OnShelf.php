<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Models\Project;
use Illuminate\Support\Facades\DB;

/** What the shelf shows besides the views themselves. */
final class OnShelf
{
    /** What the shelf as it stands is known by; it stays the same for as long as nothing on it changes. */
    public static function stamp(Project $project): string
    {
        $stamp = DB::scalar(
            "SELECT left(md5(coalesce(string_agg(no || ':' || pictured || picture, ',' ORDER BY no), '')), 8) || '.' || ".
                '(SELECT count(*) FROM guest_comments WHERE project_id = ? AND NOT done) FROM views WHERE project_id = ?',
            [$project->id, $project->id],
        );

        return $project->revision.'.'.(is_string($stamp) ? $stamp : '');
    }

    /** @return array<int, int> how much guests have said of views that nobody has dealt with, by number of the view */
    public static function openComments(Project $project): array
    {
        /** @var array<int, int> */
        return DB::table('guest_comments')
            ->where('project_id', $project->id)
            ->where('done', false)
            ->groupBy('view_no')
            ->selectRaw('view_no, count(*) AS count')
            ->pluck('count', 'view_no')
            ->all();
    }
}
