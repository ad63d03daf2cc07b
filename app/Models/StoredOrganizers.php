<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Support\Facades\DB;
use VineShelf\Colours\Line;
use VineShelf\Folders\Folder;
use VineShelf\Folders\Holds;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Locks\Lock;
use VineShelf\Organizers\Organizers;
use VineShelf\Sets\SelectionSet;
use VineShelf\Sets\SetTree;
use VineShelf\Tags\Tag;
use VineShelf\Tags\TagTree;

/** Reads layers, tags, sets and folders from the database: rows, not models, as there may be thousands. */
final class StoredOrganizers
{
    /** Seconds that what was read is remembered; it is asked for by revision, so it never has to be forgotten. */
    private const REMEMBERED = 600;

    public static function of(Project $project): Organizers
    {
        // Inside a transaction there may be rows that belong to no revision yet.
        if (! apcu_enabled() || DB::transactionLevel() > 0) {
            return self::read($project);
        }
        $entry = "organizers.$project->key.$project->revision";
        $known = apcu_fetch($entry);
        if ($known instanceof Organizers) {
            return $known;
        }
        $read = self::read($project);
        apcu_store($entry, $read, self::REMEMBERED);

        return $read;
    }

    private static function read(Project $project): Organizers
    {
        $folders = [];
        foreach (self::rows($project, 'folders', '*') as $row) {
            $folders[$row->holds][] = new Folder(
                (int) $row->no,
                Holds::from($row->holds),
                (int) $row->parent_no,
                (int) $row->position,
                (string) $row->name,
                Lock::from((int) $row->lock),
                (bool) $row->one_at_a_time,
            );
        }

        return new Organizers(
            new LayerTree(array_map(self::layer(...), self::rows($project, 'layers', '*'))),
            new TagTree(
                $folders[Holds::Tags->value] ?? [],
                array_map(self::tag(...), self::rows($project, 'tags', 'no, folder_no, position, name, colour, line, lock, note')),
            ),
            new SetTree(
                $folders[Holds::Sets->value] ?? [],
                array_map(self::set(...), self::rows($project, 'sets', 'no, folder_no, position, name, rule, size, note')),
            ),
            $folders[Holds::Views->value] ?? [],
        );
    }

    /** @return list<\stdClass> */
    private static function rows(Project $project, string $table, string $columns): array
    {
        /** @var list<\stdClass> */
        return DB::select("SELECT $columns FROM $table WHERE project_id = ?", [$project->id]);
    }

    private static function layer(\stdClass $row): Layer
    {
        return new Layer(
            (int) $row->no,
            (int) $row->parent_no,
            (int) $row->position,
            (string) $row->name,
            (string) $row->colour,
            Lock::from((int) $row->lock),
            Line::from((int) $row->line),
            (bool) $row->one_at_a_time,
            (string) $row->note,
        );
    }

    private static function tag(\stdClass $row): Tag
    {
        return new Tag(
            (int) $row->no,
            (int) $row->folder_no,
            (int) $row->position,
            (string) $row->name,
            (string) $row->colour,
            Line::from((int) $row->line),
            Lock::from((int) $row->lock),
            (string) $row->note,
        );
    }

    private static function set(\stdClass $row): SelectionSet
    {
        return new SelectionSet(
            (int) $row->no,
            (int) $row->folder_no,
            (int) $row->position,
            (string) $row->name,
            $row->rule === null ? null : (string) $row->rule,
            (int) $row->size,
            (string) $row->note,
        );
    }
}
