<?php

declare(strict_types=1);

namespace App\Models;

use App\Database\ReadSnapshot;
use Illuminate\Support\Facades\DB;
use VineShelf\Colours\Line;
use VineShelf\Folders\Folder;
use VineShelf\Folders\Holds;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Locks\Lock;
use VineShelf\Organizers\Organizers;
use VineShelf\Output\Output;
use VineShelf\Own\OwnProperties;
use VineShelf\Own\OwnValue;
use VineShelf\Sets\SelectionSet;
use VineShelf\Sets\SetTree;
use VineShelf\Tags\Tag;
use VineShelf\Tags\TagTree;

/**
 * Reads layers, tags, sets, folders and own properties from the database: rows, not models, as there may be thousands. The rows of a
 * revision are remembered as plain lists: what outlives a process must not depend on what its classes look like.
 *
 * @phpstan-type Rows array<string, list<array<string, mixed>>>
 */
final class StoredOrganizers
{
    /** Seconds that what was read is remembered; it is asked for by revision, so it never has to be forgotten. */
    private const REMEMBERED = 600;

    private const COLUMNS = [
        'layers' => 'no, parent_no, position, name, colour, lock, line, one_at_a_time, note, output, output_note, held_back',
        'folders' => 'no, holds, parent_no, position, name, lock, one_at_a_time, output, output_note',
        'tags' => 'no, folder_no, position, name, colour, line, lock, note, output, output_note',
        'sets' => 'no, folder_no, position, name, rule, size, note',
        'own_values' => 'no, property, value',
    ];

    public static function of(Project $project): Organizers
    {
        // Only what is read at one moment belongs to the revision that the project has in it.
        if (! apcu_enabled() || ! ReadSnapshot::isOn()) {
            return self::made(self::read($project));
        }
        $entry = "organizers.$project->key.$project->revision.".hash('crc32b', implode(self::COLUMNS));
        $known = apcu_fetch($entry);
        if (is_array($known)) {
            /** @var Rows $known */
            return self::made($known);
        }
        $read = self::read($project);
        // Something may have been written since the project was read.
        if (DB::scalar('SELECT revision FROM projects WHERE id = ?', [$project->id]) === $project->revision) {
            apcu_store($entry, $read, self::REMEMBERED);
        }

        return self::made($read);
    }

    /** @return Rows by table */
    private static function read(Project $project): array
    {
        $rows = [];
        foreach (self::COLUMNS as $table => $columns) {
            $found = DB::select("SELECT $columns FROM $table WHERE project_id = ? ORDER BY no", [$project->id]);
            $rows[$table] = array_map(static fn (\stdClass $row): array => (array) $row, $found);
        }

        /** @var Rows */
        return $rows;
    }

    /** @param Rows $rows by table */
    private static function made(array $rows): Organizers
    {
        $each = static fn (string $table): array => array_map(static fn (array $row): \stdClass => (object) $row, $rows[$table]);
        $folders = [];
        foreach ($each('folders') as $row) {
            $folders[$row->holds][] = new Folder(
                (int) $row->no,
                Holds::from($row->holds),
                (int) $row->parent_no,
                (int) $row->position,
                (string) $row->name,
                Lock::from((int) $row->lock),
                (bool) $row->one_at_a_time,
                self::output($row),
                (string) $row->output_note,
            );
        }

        return new Organizers(
            new LayerTree(array_map(self::layer(...), $each('layers'))),
            new TagTree($folders[Holds::Tags->value] ?? [], array_map(self::tag(...), $each('tags'))),
            new SetTree($folders[Holds::Sets->value] ?? [], array_map(self::set(...), $each('sets'))),
            $folders[Holds::Views->value] ?? [],
            new OwnProperties(
                array_map(
                    static fn (\stdClass $row): OwnValue => new OwnValue((int) $row->no, (string) $row->property, (string) $row->value),
                    $each('own_values'),
                ),
            ),
        );
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
            self::output($row),
            (string) $row->output_note,
            (string) $row->held_back,
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
            self::output($row),
            (string) $row->output_note,
        );
    }

    private static function output(\stdClass $row): ?Output
    {
        return $row->output === null ? null : Output::from((int) $row->output);
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
