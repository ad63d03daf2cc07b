<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\OrganizerKind;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use Illuminate\Support\Facades\DB;
use VineShelf\Locks\Lock;

/** Tags, sets, views and folders go. Objects stay; what lies in a folder goes with it, or to where the folder stood. */
final class DeleteRows extends Command
{
    private readonly string $title;

    private readonly Edits $edits;

    /** @param list<string> $keys */
    public function __construct(Bench $bench, array $keys, bool $withContent)
    {
        $rows = [];
        foreach (array_unique($keys) as $key) {
            $row = Organizer::named($bench, $key);
            if ($row->kind === OrganizerKind::Layer) {
                throw new Refused('A layer is deleted by itself: its objects have to go somewhere.', 'keys');
            }
            $rows[] = $row;
        }
        $going = [];
        foreach ($rows as $row) {
            foreach ($withContent ? $row->withNested($bench) : [$row] as $each) {
                $going[$each->key()] = $each;
            }
        }
        $locked = array_filter($going, static fn (Organizer $row): bool => $row->lock === Lock::Locked);
        if ($locked !== []) {
            throw new Refused(reset($locked)->name.' is locked; open it first.', 'keys');
        }
        $steps = $withContent ? [] : MovingOut::of($bench, $going);
        // What lies in a folder goes before the folder does, in whatever order they were named.
        $isFolder = static fn (Organizer $row): bool => $row->kind === OrganizerKind::Folder;
        $depth = static fn (Organizer $row): int => $isFolder($row) ? count($row->withNested($bench)) : 0;
        uasort($going, static fn (Organizer $a, Organizer $b): int => $depth($a) <=> $depth($b));
        foreach ($going as $row) {
            $table = $row->kind->table();
            $stored = DB::table($table)->where('project_id', $bench->project->id)->where('no', $row->number)->first() ?? new \stdClass;
            $steps[] = new RowEdit($table, $row->number, RowEdit::stored($stored), null);
        }
        $this->edits = new Edits($steps);
        $this->title = 'Delete '.self::words(array_values($going), $rows);
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /**
     * @param list<Organizer> $going
     * @param list<Organizer> $named
     */
    private static function words(array $going, array $named): string
    {
        $kinds = [];
        foreach ($going as $row) {
            $kinds[$row->kind->value] = ($kinds[$row->kind->value] ?? 0) + 1;
        }
        if (count($named) === 1) {
            $kinds[$named[0]->kind->value] = ($kinds[$named[0]->kind->value] ?? 1) - 1;
        }
        $more = [];
        foreach (array_filter($kinds) as $letter => $count) {
            $more[] = OrganizerKind::from($letter)->counted($count);
        }
        $words = implode(', ', $more);

        return count($named) === 1 ? $named[0]->inWords().($words === '' ? '' : " with $words") : $words;
    }
}
