<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edit;
use App\Changes\Edits\NestingEdit;
use Illuminate\Support\Facades\DB;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;
use VineShelf\Scene\Scene;

/**
 * Objects that come to stand in something else. They do not move by a hair: where an object is in the world is kept with the object itself,
 * as a matrix, and no group has a place of its own. What that means to views, {@see OldViews} works out.
 */
final class Nesting
{
    /** @var array<int, array{int, int}> parent and place by object number */
    private array $to = [];

    public function __construct(private readonly Bench $bench) {}

    /** The rows that stand in none of the others. */
    public static function outermost(Scene $scene, Bits $rows): Bits
    {
        return $rows->without(Relatives::inside($scene, $rows));
    }

    /** The row of the group that all of them stand in, 0 for the top. @param Bits $rows not empty */
    public static function common(Scene $scene, Bits $rows): int
    {
        $common = null;
        foreach (array_unique(array_map($scene->parent(...), $rows->rows())) as $parent) {
            $above = $parent === 0 ? [] : [$parent, ...$scene->ancestors($parent)];
            $common = $common === null ? $above : array_values(array_intersect($common, $above));
        }

        return $common[0] ?? 0;
    }

    /**
     * What stands in a group, or at the top, stands in an order from now on.
     *
     * @param int       $into  number of the group, 0 for the top; it may just have been made
     * @param list<int> $order numbers of all that is to stand in it
     *
     * @return array<int, int> places by number: only those that are not what they were
     */
    public function put(int $into, array $order): array
    {
        $placed = Siblings::places($order, Siblings::of($this->bench->project, $into));
        foreach ($placed as $number => $place) {
            $this->to[$number] = [$into, $place];
        }

        return $placed;
    }

    /**
     * Objects come to the end of a group, or before something in it.
     *
     * @param Bits     $roots  scene rows, none of them in another
     * @param int      $into   as above
     * @param int|null $before number of what they are to stand before; null for the end
     */
    public function move(Bits $roots, int $into, ?int $before = null): void
    {
        $numbers = $this->bench->scene()->numbersIn($roots->ranges());
        $places = Siblings::of($this->bench->project, $into);
        $order = array_values(array_diff(array_keys($places), $numbers));
        $at = $before === null ? false : array_search($before, $order, true);
        array_splice($order, $at === false ? count($order) : $at, 0, $numbers);
        // They keep the order that they have among each other, whatever places they had.
        $keep = $order === array_keys($places) ? $places : array_diff_key($places, array_fill_keys($numbers, true));
        foreach (Siblings::places($order, $keep) as $number => $place) {
            $this->to[$number] = [$into, $place];
        }
    }

    /** @return list<Edit> the steps that bring it about */
    public function steps(): array
    {
        $from = $to = [];
        foreach (self::stored($this->bench, array_keys($this->to)) as $number => $place) {
            if ($place !== $this->to[$number]) {
                $from[$number] = $place;
                $to[$number] = $this->to[$number];
            }
        }

        return $to === [] ? [] : [new NestingEdit($from, $to)];
    }

    /**
     * @param list<int> $numbers
     *
     * @return array<int, array{int, int}> parent and place by number, of those that are there
     */
    private static function stored(Bench $bench, array $numbers): array
    {
        $places = [];
        foreach (
            DB::select('SELECT no, parent_no, position FROM objects WHERE project_id = ? AND NOT gone AND no = ANY(?::int[]) ORDER BY no', [
                $bench->project->id,
                '{'.implode(',', $numbers).'}',
            ]) as $row
        ) {
            $places[(int) $row->no] = [(int) $row->parent_no, (int) $row->position];
        }

        return $places;
    }

    /** The rung that groups hold what stands in one at. */
    private static function heldAt(Scene $scene, Settings $settings, int $within): int
    {
        $held = Rung::Full->value;
        foreach ($within === 0 ? [] : [$within, ...$scene->ancestors($within)] as $row) {
            $held = min($held, $settings->reaching($scene->number($row))->value ?? $held);
        }

        return $held;
    }

    /**
     * What it would mean for the desk and for locks.
     *
     * @param int $within scene row of what they come to, 0 for the top
     *
     * @return array{more: int, less: int, opened: int, held: int} objects that the desk would show more of, and less; that would be opened,
     *     and guarded or locked
     */
    public static function means(Bench $bench, Bits $roots, int $within): array
    {
        $scene = $bench->scene();
        $moved = Relatives::within($scene, $roots);
        $above = Relatives::holding($scene, $roots);
        $settings = $bench->settings();
        $free = $settings->withObjects($scene->numberBits($above), null);
        $before = $bench->inEffect()->under($settings, null)->rungs();
        $inner = $bench->inEffect()->under($free, null)->rungs();
        $held = self::heldAt($scene, $settings, $within);
        $locks = $scene->locks();
        $own = Lock::Open->value;
        foreach ($within === 0 ? [] : [$within, ...$scene->ancestors($within)] as $row) {
            $own = max($own, $locks->at($row));
        }
        $open = new Scene(new ChangedColumns(['lock' => $locks->with($above, Lock::Open->value)->pack()], new ScenesColumns($scene)));
        $unlocked = (new InEffect($open, $bench->organizers(), $settings))->locks();
        $locked = $bench->inEffect()->locks();
        $means = ['more' => 0, 'less' => 0, 'opened' => 0, 'held' => 0];
        foreach ($moved->rows() as $row) {
            $rung = min($inner->at($row), $held) <=> $before->at($row);
            $lock = max($unlocked->at($row), $own) <=> $locked->at($row);
            $means['more'] += (int) ($rung > 0);
            $means['less'] += (int) ($rung < 0);
            $means['opened'] += (int) ($lock < 0);
            $means['held'] += (int) ($lock > 0);
        }

        return $means;
    }

    /**
     * The outermost of some objects, without those that are locked.
     *
     * @return array{Bits, int} and how many were left out
     *
     * @throws Refused when none is left
     */
    public static function free(Bench $bench, Bits $rows): array
    {
        $scene = $bench->scene();
        $roots = self::outermost($scene, $rows);
        $free = $roots->without($bench->inEffect()->locked());
        if ($free->isEmpty()) {
            throw new Refused($roots->isEmpty() ? 'Pick objects first.' : 'All of it is locked; open it first.', 'keys');
        }

        return [$free, $roots->count() - $free->count()];
    }

    /** @throws Refused when nothing may change in a group */
    public static function checkOpen(Bench $bench, int $row): void
    {
        if ($row !== 0 && $bench->inEffect()->lock($row) === Lock::Locked) {
            throw new Refused('The group is locked; open it first.', 'into');
        }
    }
}
