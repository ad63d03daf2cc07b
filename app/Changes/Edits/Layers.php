<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;

/** What steps that touch layers make sure of: every object has a layer that exists. */
final class Layers
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

    /** @throws OutOfStep */
    public static function checkExists(Project $project, int $layer): void
    {
        if (! DB::table('layers')->where('project_id', $project->id)->where('no', $layer)->exists()) {
            throw OutOfStep::missing('The layer');
        }
    }

    /** @throws OutOfStep when objects lie under the layer, or layers in it */
    public static function checkEmpty(Project $project, int $layer, string $name): void
    {
        $objects = DB::table('objects')->where('project_id', $project->id)->where('layer_no', $layer)->where('gone', false)->count();
        if ($objects > 0) {
            throw OutOfStep::needed(
                "Layer $name",
                number_format($objects).' '.($objects === 1 ? 'object lies' : 'objects lie').' under it',
            );
        }
        $nested = DB::table('layers')->where('project_id', $project->id)->where('parent_no', $layer)->value('name');
        if (is_string($nested)) {
            throw OutOfStep::needed("Layer $name", "layer $nested lies in it");
        }
    }
}
