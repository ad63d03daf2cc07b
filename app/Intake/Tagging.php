<?php

declare(strict_types=1);

namespace App\Intake;

use App\Changes\Edits\Edit;
use App\Changes\Edits\MembersEdit;
use App\Changes\Edits\RowEdit;
use App\Models\Project;
use VineShelf\Colours\Palette;
use VineShelf\Folders\Holds;
use VineShelf\Organizers\Organizers;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Tags\Tag;
use VineShelf\Tags\TaggingPlan;

/** Tags that come with a file: those that are in the project already are used again; what is new lands locked in those that are. */
final class Tagging
{
    /**
     * Writes them into the held project.
     *
     * @param int $first number of the file's first object
     *
     * @return list<Edit>
     */
    public static function store(Project $project, TaggingPlan $plan, int $first): array
    {
        if ($plan->names === []) {
            return [];
        }
        $organizers = $project->organizers();
        $taken = array_map(static fn (Tag $tag): string => $tag->colour, $organizers->tags->all());
        $steps = [];
        $there = self::there($organizers);
        foreach ($plan->names as $index => $name) {
            $folder = 0;
            foreach ($plan->folders[$index] as $called) {
                $key = "F$folder ".mb_strtolower($called);
                if (! isset($there[$key])) {
                    $there[$key] = $project->next_folder;
                    $steps[] = self::folder($project, $folder, $there["F$folder"] = ($there["F$folder"] ?? 0) + 1, $called);
                }
                $folder = $there[$key];
            }
            $numbers = array_map(static fn (int $row): int => $first - 1 + $row, $plan->rows[$index]);
            $members = Bits::ofRows($numbers[count($numbers) - 1], $numbers);
            $tag = $there["M$folder ".mb_strtolower($name)] ?? null;
            $place = $there["F$folder"] ?? 0;
            $steps[] =
                $tag === null
                    ? self::made($project, $folder, $there["F$folder"] = $place + 1, $name, $taken[] = Palette::next($taken), $members)
                    : new MembersEdit('tags', $tag, $members, Bits::none(0));
        }
        foreach ($steps as $step) {
            $step->apply($project);
        }

        return $steps;
    }

    /**
     * @return array<string, int> last place in a folder by "F3", number of a folder in it by "F3 name", of a tag by "M3 name"; names in
     *     lower case
     */
    private static function there(Organizers $organizers): array
    {
        $there = [];
        foreach ($organizers->tags->tree->folders as $folder) {
            $there["F$folder->parent ".mb_strtolower($folder->name)] ??= $folder->number;
            $there["F$folder->parent"] = max($there["F$folder->parent"] ?? 0, $folder->position);
        }
        foreach ($organizers->tags->all() as $tag) {
            $there["M$tag->folder ".mb_strtolower($tag->name)] ??= $tag->number;
            $there["F$tag->folder"] = max($there["F$tag->folder"] ?? 0, $tag->position);
        }

        return $there;
    }

    private static function folder(Project $project, int $parent, int $position, string $name): RowEdit
    {
        return new RowEdit('folders', $project->next_folder++, null, [
            'holds' => Holds::Tags->value,
            'parent_no' => $parent,
            'position' => $position,
            'name' => $name,
            'lock' => 0,
            'one_at_a_time' => false,
        ]);
    }

    private static function made(Project $project, int $folder, int $position, string $name, string $colour, Bits $members): RowEdit
    {
        return new RowEdit('tags', $project->next_tag++, null, [
            'folder_no' => $folder,
            'position' => $position,
            'name' => $name,
            'colour' => $colour,
            'line' => 0,
            'lock' => 0,
            'note' => '',
            'members' => base64_encode(Members::pack($members)),
        ]);
    }
}
