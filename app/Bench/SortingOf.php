<?php

declare(strict_types=1);

namespace App\Bench;

use Illuminate\Support\Facades\DB;
use VineShelf\Exchange\Sorting;
use VineShelf\Folders\Folder;
use VineShelf\Folders\FolderTree;
use VineShelf\Folders\Holds;
use VineShelf\Layers\Layer;
use VineShelf\Scene\Bits;
use VineShelf\Sets\SelectionSet;
use VineShelf\Tags\Tag;

/** The sorting of a project as it stands; its objects are numbered as the rows of the scene are. */
final class SortingOf
{
    public static function project(Bench $bench): Sorting
    {
        $scene = $bench->scene();
        $layers = $tags = $sets = $folders = [];
        foreach ($bench->layers()->walk() as [$layer]) {
            $layers[] = [
                'path' => array_reverse(array_map(static fn (Layer $link): string => $link->name, $bench->layers()->chain($layer->number))),
                'colour' => $layer->colour,
                'line' => $layer->line,
                'note' => $layer->note,
                'lock' => $layer->lock->value,
                'oneAtATime' => $layer->oneAtATime,
                'objects' => $bench->contents()->rows($layer->number),
            ];
        }
        foreach ([Holds::Tags, Holds::Sets] as $holds) {
            $tree = Organizer::tree($bench, $holds->value);
            foreach ($tree->outline->walk() as [$key]) {
                $folder = $tree->folders[(int) substr((string) $key, 1)] ?? null;
                if ($folder !== null && ((string) $key)[0] === 'F') {
                    $folders[] = [
                        'holds' => $holds->value,
                        'path' => self::path($tree, $folder->parent, $folder->name),
                        'lock' => $folder->lock->value,
                        'oneAtATime' => $folder->oneAtATime,
                    ];
                }
            }
        }
        foreach ($bench->tags()->all() as $tag) {
            $tags[] = [
                'path' => self::path($bench->tags()->tree, $tag->folder, $tag->name),
                'colour' => $tag->colour,
                'line' => $tag->line,
                'note' => $tag->note,
                'lock' => $tag->lock->value,
                'objects' => $scene->tagged($tag->number),
            ];
        }
        foreach ($bench->sets()->all() as $set) {
            $sets[] =
                ['path' => self::path($bench->sets()->tree, $set->folder, $set->name), 'note' => $set->note] +
                ($set->rule === null ? ['objects' => $scene->chosen($set->number)] : ['rule' => $set->rule]);
        }
        $locks = [];
        foreach ([1, 2] as $lock) {
            $locks[$lock] = $scene->locks()->rowsOf([$lock => true]);
        }

        return new Sorting(
            self::objects($bench),
            $layers,
            $folders,
            $tags,
            $sets,
            array_filter($locks, static fn (Bits $rows): bool => ! $rows->isEmpty()),
        );
    }

    /** @return list<array{string, string}> source and stable key of each row */
    public static function objects(Bench $bench): array
    {
        $sources = $bench->project->sources()->pluck('name', 'id');
        $scene = $bench->scene();
        $objects = array_fill(1, $scene->count(), ['', '']);
        $stored = DB::table('objects')
            ->where('project_id', $bench->project->id)
            ->where('gone', false)
            ->select(['no', 'source_id', 'source_key'])
            ->orderBy('no');
        foreach ($stored->cursor() as $object) {
            $row = $scene->row((int) $object->no);
            if ($row > 0) {
                $name = $sources[$object->source_id] ?? '';
                $objects[$row] = [is_string($name) ? $name : '', (string) $object->source_key];
            }
        }

        return array_values($objects);
    }

    /**
     * @param FolderTree<Tag>|FolderTree<SelectionSet>|FolderTree<\App\Models\View> $tree
     *
     * @return list<string>
     */
    private static function path(FolderTree $tree, int $folder, string $name): array
    {
        return [...array_map(static fn (Folder $above): string => $above->name, array_reverse($tree->chain($folder))), $name];
    }
}
