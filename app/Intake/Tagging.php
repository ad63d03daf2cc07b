<?php

declare(strict_types=1);

namespace App\Intake;

use App\Changes\Edits\Edit;
use App\Changes\Edits\MembersEdit;
use App\Changes\Edits\RowEdit;
use App\Models\Project;
use VineShelf\Colours\Palette;
use VineShelf\Folders\Folder;
use VineShelf\Folders\Holds;
use VineShelf\Organizers\Organizers;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
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
        [$folder, $steps] = self::folder($project, $organizers, $plan->folder);
        $known = $taken = [];
        $last = 0;
        foreach ($organizers->tags->all() as $tag) {
            $taken[] = $tag->colour;
            if ($tag->folder === $folder) {
                $known[mb_strtolower($tag->name)] = $tag;
                $last = max($last, $tag->position);
            }
        }
        foreach ($plan->names as $index => $name) {
            $numbers = array_map(static fn (int $row): int => $first - 1 + $row, $plan->rows[$index]);
            $members = Bits::ofRows($numbers[count($numbers) - 1], $numbers);
            $tag = $known[mb_strtolower($name)] ?? null;
            if ($tag === null) {
                $steps[] = self::made($project, $folder, ++$last, $name, $taken[] = Palette::next($taken), $members);
            } else {
                $steps[] = new MembersEdit('tags', $tag->number, $members, Bits::none(0));
            }
        }
        foreach ($steps as $step) {
            $step->apply($project);
        }

        return $steps;
    }

    /** @return array{int, list<RowEdit>} its number, and what makes it where it is missing */
    private static function folder(Project $project, Organizers $organizers, string $name): array
    {
        $last = 0;
        foreach ($organizers->tags->tree->inside(0) as $key) {
            $what = $key[0] === 'F' ? $organizers->tags->folder((int) substr($key, 1)) : $organizers->tags->get((int) substr($key, 1));
            if ($what instanceof Folder && mb_strtolower($what->name) === mb_strtolower($name)) {
                return [$what->number, []];
            }
            $last = max($last, $what->position);
        }
        $number = $project->next_folder++;
        $values = [
            'holds' => Holds::Tags->value,
            'parent_no' => 0,
            'position' => $last + 1,
            'name' => $name,
            'lock' => 0,
            'one_at_a_time' => false,
        ];

        return [$number, [new RowEdit('folders', $number, null, $values)]];
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
