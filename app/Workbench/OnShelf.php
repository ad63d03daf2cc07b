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
        $pictures = DB::scalar(
            "SELECT md5(coalesce(string_agg(no || ':' || pictured || picture, ',' ORDER BY no), '')) FROM views WHERE project_id = ?",
            [$project->id],
        );

        return implode('.', [
            $project->revision,
            substr(is_string($pictures) ? $pictures : '', 0, 8),
            array_sum(self::openComments($project)),
        ]);
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
