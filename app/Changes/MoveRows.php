<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\OrganizerKind;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\PlacesEdit;
use VineShelf\Locks\Lock;

/** Layers, or tags, sets or views with their folders, move: into another layer or folder, or before or after a row. */
final class MoveRows extends Command
{
    private readonly string $title;

    private readonly Edits $edits;

    /**
     * @param list<string> $keys  of the rows that move; what lies in one of them comes along
     * @param string       $where "into", "before" or "after"
     * @param string       $mark  key of the row that it is about; "" for the top level
     */
    public function __construct(Bench $bench, array $keys, string $where, string $mark)
    {
        $rows = self::outermost(
            $bench,
            array_map(static fn (string $key): Organizer => Organizer::named($bench, $key), array_values(array_unique($keys))),
        );
        if ($rows === []) {
            throw new Refused('Say which rows are to move.', 'keys');
        }
        $family = $rows[0]->family;
        $target = $mark === '' ? null : Organizer::named($bench, $mark);
        self::checkTarget($bench, $rows, $where, $target);
        [$moving, $locked] = [[], 0];
        foreach ($rows as $row) {
            $row->lock === Lock::Locked ? $locked++ : ($moving[] = $row);
        }
        $this->leftAlone =
            $locked === 0 ? '' : number_format($locked).' locked '.($locked === 1 ? 'row was' : 'rows were').' left alone.';
        $into = $where === 'into' ? $target->number ?? 0 : $target->parent ?? 0;
        $moved = array_fill_keys(array_map(static fn (Organizer $row): string => $row->key(), $moving), true);
        $staying = array_values(
            array_filter(Organizer::inside($bench, $family, $into), static fn (Organizer $row): bool => ! isset($moved[$row->key()])),
        );
        foreach ($moving as $row) {
            if ($row->parent !== $into) {
                RowNames::checkFree($row->name, $row->kind->word(), $staying);
            }
        }
        self::checkAlike($moving);
        $this->edits = new Edits(self::steps($moving, $into, $staying, self::index($staying, $where, $target)));
        $this->title = self::words($moving, $where, $target);
    }

    /**
     * The steps that put rows among those that stay there.
     *
     * @param list<Organizer> $moving
     * @param int             $into    number of what they lie in then
     * @param list<Organizer> $staying what lies there already, in order
     * @param int|null        $at      how many of those stand before them; null for all
     *
     * @return list<PlacesEdit>
     */
    public static function steps(array $moving, int $into, array $staying, ?int $at = null): array
    {
        $order = $staying;
        array_splice($order, $at ?? count($staying), 0, $moving);

        return self::placed($order, $into, array_fill_keys(array_map(static fn (Organizer $row): string => $row->key(), $moving), true));
    }

    /**
     * The steps that put rows in an order. What does not move keeps its place where it can: one row that moves is few rows that change.
     *
     * @param list<Organizer>     $order
     * @param int                 $into   number of what they lie in then
     * @param array<string, true> $moving keys of the rows that move
     *
     * @return list<PlacesEdit>
     */
    public static function placed(array $order, int $into, array $moving): array
    {
        $before = $after = [];
        $last = 0;
        foreach ($order as $row) {
            // Unsorted stands first whatever its place.
            if ($row->isUnsorted()) {
                continue;
            }
            $place = isset($moving[$row->key()]) ? $last + 1 : max($row->position, $last + 1);
            if ($place !== $row->position || $into !== $row->parent) {
                $table = $row->kind->table();
                $before[$table][$row->number] = [$row->parent, $row->position];
                $after[$table][$row->number] = [$into, $place];
            }
            $last = $place;
        }

        return array_map(
            static fn (string $table): PlacesEdit => new PlacesEdit($table, $before[$table], $after[$table]),
            array_keys($after),
        );
    }

    /**
     * Without those that lie in another one of them.
     *
     * @param list<Organizer> $rows
     *
     * @return list<Organizer>
     */
    public static function outermost(Bench $bench, array $rows): array
    {
        $inside = [];
        foreach ($rows as $row) {
            foreach (array_slice($row->withNested($bench), 1) as $nested) {
                $inside[$nested->key()] = true;
            }
        }

        return array_values(array_filter($rows, static fn (Organizer $row): bool => ! isset($inside[$row->key()])));
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
     * @param list<Organizer> $rows
     *
     * @throws Refused
     */
    private static function checkTarget(Bench $bench, array $rows, string $where, ?Organizer $target): void
    {
        if (! in_array($where, ['into', 'before', 'after'], true) || ($target === null && $where !== 'into')) {
            throw new Refused('Rows move into another one, or before or after it.', 'where');
        }
        foreach ($rows as $row) {
            if ($row->isUnsorted()) {
                throw new Refused('Unsorted stays where it is, first in the list.', 'keys');
            }
            if ($row->family !== $rows[0]->family || ($target !== null && $row->family !== $target->family)) {
                throw new Refused('Layers lie among layers, and tags, sets and views each among their own.', 'keys');
            }
            $nested = array_map(static fn (Organizer $each): string => $each->key(), $row->withNested($bench));
            if ($target !== null && in_array($target->key(), $nested, true)) {
                throw new Refused("$row->name cannot move into itself.", 'mark');
            }
        }
        if ($where === 'into' && $target !== null && (! $target->holdsOthers() || $target->isUnsorted())) {
            throw new Refused("Nothing lies in $target->name but objects.", 'mark');
        }
        if ($where === 'before' && $target?->isUnsorted() === true) {
            throw new Refused('Unsorted stays first in the list.', 'mark');
        }
    }

    /**
     * @param list<Organizer> $rows
     *
     * @throws Refused when two that come from different places are called the same
     */
    private static function checkAlike(array $rows): void
    {
        foreach ($rows as $index => $row) {
            RowNames::checkFree($row->name, $row->kind->word(), array_slice($rows, 0, $index));
        }
    }

    /** @param list<Organizer> $staying */
    private static function index(array $staying, string $where, ?Organizer $target): ?int
    {
        if ($where === 'into') {
            return null;
        }
        foreach ($staying as $index => $row) {
            if ($row->key() === $target?->key()) {
                return $where === 'before' ? $index : $index + 1;
            }
        }

        return null;
    }

    /** @param list<Organizer> $rows */
    private static function words(array $rows, string $where, ?Organizer $target): string
    {
        $kinds = array_unique(array_map(static fn (Organizer $row): OrganizerKind => $row->kind, $rows), SORT_REGULAR);
        $what = match (true) {
            count($rows) === 1 => $rows[0]->inWords(),
            count($kinds) === 1 => $kinds[0]->counted(count($rows)),
            default => count($rows).' rows',
        };

        return "Move $what ".($target === null ? 'to the top level' : "$where $target->name");
    }
}
