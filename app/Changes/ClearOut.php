<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\OrganizerKind;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use App\Models\Desk;
use Illuminate\Support\Facades\DB;
use VineShelf\Locks\Lock;

/**
 * Layers, tags, fixed sets and folders that hold no objects go. A live set stays: its rule may find something tomorrow. So do layers that
 * somebody's new objects land in, and what is locked.
 */
final class ClearOut extends Command
{
    /** @var list<Organizer> what goes; what holds comes before what it holds */
    public readonly array $going;

    private readonly Edits $edits;

    /**
     * @param list<string>      $families of "layers", "tags" and "sets"
     * @param list<string>|null $only     keys of those that may go; null for all
     */
    public function __construct(Bench $bench, array $families, private readonly ?array $only = null)
    {
        $going = [];
        foreach (array_intersect(['layers', 'tags', 'sets'], $families) as $family) {
            $going = [...$going, ...$this->bare($bench, $family)];
        }
        $this->going = $going;
        $steps = [];
        foreach (array_reverse($going) as $row) {
            $table = $row->kind->table();
            $stored = DB::table($table)->where('project_id', $bench->project->id)->where('no', $row->number)->first() ?? new \stdClass;
            $steps[] = new RowEdit($table, $row->number, RowEdit::stored($stored), null);
        }
        $this->edits = new Edits($steps);
    }

    public function name(): string
    {
        $counts = [];
        foreach ($this->going as $row) {
            $counts[$row->kind->value] = ($counts[$row->kind->value] ?? 0) + 1;
        }
        $words = [];
        foreach ($counts as $letter => $count) {
            $words[] = OrganizerKind::from($letter)->counted($count);
        }

        return 'Clear out '.implode(', ', $words);
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /** @return list<Organizer> */
    private function bare(Bench $bench, string $family): array
    {
        $landing = $family === 'layers' ? Desk::query()->where('project_id', $bench->project->id)->pluck('landing_layer')->all() : [];
        $holds = fn (Organizer $row): bool => match ($row->kind) {
            OrganizerKind::Layer => $row->isUnsorted() ||
                $bench->contents()->objects($row->number) > 0 ||
                in_array($row->number, $landing, true),
            OrganizerKind::Tag => ! $bench->scene()->tagged($row->number)->isEmpty(),
            OrganizerKind::Set => $bench->sets()->get($row->number)->isLive() || $bench->sets()->get($row->number)->members > 0,
            default => false,
        } ||
            $row->lock === Lock::Locked ||
            ($this->only !== null && ! in_array($row->key(), $this->only, true));
        $bare = [];
        // Whether something stays that lies in a row is known once that was looked at.
        $look = static function (Organizer $row) use (&$look, $bench, $holds, &$bare): bool {
            $stays = $holds($row);
            $before = count($bare);
            $bare[] = $row;
            foreach ($row->holdsOthers() ? Organizer::inside($bench, $row->family, $row->number) : [] as $inner) {
                $stays = $look($inner) || $stays;
            }
            if ($stays) {
                array_splice($bare, $before, 1);
            }

            return $stays;
        };
        array_map($look, Organizer::inside($bench, $family, 0));

        return $bare;
    }
}
