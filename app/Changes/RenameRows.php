<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\OrganizerKind;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Locks\Lock;
use VineShelf\Naming\Renaming;
use VineShelf\Rules\SetLinks;
use VineShelf\Sets\SelectionSet;
use VineShelf\Sets\SetTree;

/** Many layers, tags, sets or folders get new names at once. */
final class RenameRows extends Command
{
    /** @var array<string, string> old names by key: only those that change */
    public readonly array $before;

    /** @var array<string, string> new names by key */
    public readonly array $after;

    /** @var array<string, true> keys of rows whose new name another row beside them has as well */
    public readonly array $clashes;

    /** @var array<string, Organizer> by key */
    private array $rows = [];

    /** @param list<string> $keys */
    public function __construct(private readonly Bench $bench, array $keys, Renaming $renaming)
    {
        $before = $after = [];
        $locked = $index = 0;
        foreach (array_unique($keys) as $key) {
            $row = Organizer::named($bench, $key);
            if ($row->lock === Lock::Locked || $row->isUnsorted()) {
                $locked++;

                continue;
            }
            $above = $row->parent === 0 ? null : Organizer::find($bench, ($row->family === 'layers' ? 'L' : 'F').$row->parent);
            $new = $renaming->of($row->name, $index++, $above->name ?? '', $above->name ?? '', $row->kind->word());
            if ($new !== $row->name) {
                $before[$key] = $row->name;
                $after[$key] = RowNames::check($new, $row->kind->word());
                $this->rows[$key] = $row;
            }
        }
        $this->before = $before;
        $this->after = $after;
        $this->clashes = $this->clashing();
        $this->leftAlone =
            $locked === 0 ? '' : number_format($locked).' locked '.($locked === 1 ? 'row was' : 'rows were').' left alone.';
    }

    public function name(): string
    {
        $kinds = array_unique(array_map(static fn (Organizer $row): OrganizerKind => $row->kind, $this->rows), SORT_REGULAR);
        $count = count($this->after);

        return 'Rename '.(count($kinds) === 1 ? reset($kinds)->counted($count) : "$count rows");
    }

    /** @throws Refused when rows beside each other would be called the same, or sets lead back to themselves */
    public function edits(): Edits
    {
        if ($this->clashes !== []) {
            $name = $this->after[array_key_first($this->clashes)];
            throw new Refused("Several rows beside each other would be called “{$name}”.", 'pattern');
        }
        $this->checkNoCycle();
        $steps = [];
        foreach ($this->after as $key => $name) {
            $row = $this->rows[$key];
            $steps[] = new RowEdit($row->kind->table(), $row->number, ['name' => $this->before[$key]], ['name' => $name]);
        }

        return new Edits($steps);
    }

    /** @return array<string, true> */
    private function clashing(): array
    {
        $clashes = [];
        foreach ($this->rows as $key => $row) {
            foreach (Organizer::inside($this->bench, $row->family, $row->parent) as $other) {
                $called = $this->after[$other->key()] ?? $other->name;
                if (
                    $other->key() !== $key &&
                    $other->kind === $row->kind &&
                    $row->kind !== OrganizerKind::View &&
                    mb_strtolower($called) === mb_strtolower($this->after[$key])
                ) {
                    $clashes[$key] = true;
                }
            }
        }

        return $clashes;
    }

    private function checkNoCycle(): void
    {
        $sets = $this->bench->sets()->tree;
        $renamed = array_map(
            fn (SelectionSet $set): SelectionSet => new SelectionSet(
                $set->number,
                $set->folder,
                $set->position,
                $this->after["E$set->number"] ?? $set->name,
                $set->rule,
            ),
            $sets->members,
        );
        $cycle = (new SetLinks(new SetTree($sets->folders, $renamed)))->cycle();
        if ($cycle !== null) {
            throw new Refused('A set would lead back to itself: '.implode(' → ', $cycle).'.', 'pattern');
        }
    }
}
