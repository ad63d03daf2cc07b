<?php

declare(strict_types=1);

namespace App\Overview;

use App\Bench\Bench;
use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\MembersEdit;
use App\Changes\Edits\ObjectsEdit;
use App\Changes\Edits\RowEdit;
use App\Changes\Edits\SourceEdit;
use App\Models\Casts\Bytes;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;

/**
 * How a project was sorted at an earlier time: as it is now, with all that was made, taken back and done again since gone back over, the
 * last first.
 */
final class Earlier
{
    /** So many changes are read at once. */
    private const AT_ONCE = 20;

    /** @var array<int, int> by object number, of all objects that there ever were */
    private array $layerOf = [];

    /** Numbers of the objects that are there. */
    private Bits $there;

    /** @var array<string, array<int, Bits>> members by number, by table: "tags" and "sets" */
    private array $members = ['tags' => [], 'sets' => []];

    private function __construct(private readonly Bench $bench)
    {
        $numbers = [];
        foreach (
            DB::table('objects')
                ->where('project_id', $bench->project->id)
                ->orderBy('no')
                ->select(['no', 'layer_no', 'gone'])
                ->cursor() as $object
        ) {
            $this->layerOf[(int) $object->no] = (int) $object->layer_no;
            $object->gone || ($numbers[] = (int) $object->no);
        }
        $this->there = Bits::ofRows($numbers === [] ? 0 : $numbers[count($numbers) - 1], $numbers);
        foreach (['tags', 'sets'] as $table) {
            foreach (
                DB::table($table)
                    ->where('project_id', $bench->project->id)
                    ->get(['no', 'members']) as $row
            ) {
                $this->members[$table][(int) $row->no] = Members::unpack(Bytes::read($row->members));
            }
        }
    }

    /** The first moment that can be told of: before it, what changes did is no longer kept. Null for ever. */
    public static function first(Bench $bench): ?Carbon
    {
        $last = $bench->project->changes()->where('thinned', true)->max(DB::raw('greatest(made_at, turned_at)'));

        return is_string($last) ? Carbon::parse($last) : null;
    }

    /** @return array{array<int, int>, array<int, int>, array<int, int>} objects by layer, by tag and by fixed set, at a time */
    public static function counts(Bench $bench, Carbon $at): array
    {
        $earlier = new self($bench);
        foreach (array_chunk(self::since($bench, $at), self::AT_ONCE) as $chunk) {
            $edits = $bench->project
                ->changes()
                ->whereIntegerInRaw('no', array_column($chunk, 0))
                ->get(['project_id', 'no', 'edits'])
                ->keyBy('no');
            foreach ($chunk as [$number, $isBack]) {
                $did = Edits::unpack($edits[$number]->edits ?? '');
                foreach (($isBack ? $did : $did->reversed())->steps as $step) {
                    $earlier->apply($step);
                }
            }
        }

        return $earlier->counted();
    }

    /** @return list<array{int, bool}> what was made, taken back and done again after a time, the last first: number, whether taken back */
    private static function since(Bench $bench, Carbon $at): array
    {
        $events = [];
        $after = $at->getTimestamp();
        $changes = $bench->project
            ->changes()
            ->where('thinned', false)
            ->where(static fn ($query) => $query->where('made_at', '>', $at)->orWhere('turned_at', '>', $at));
        foreach ($changes->get(['project_id', 'no', 'made_at', 'turns']) as $change) {
            if ($change->made_at->greaterThan($at)) {
                $events[$change->no] = [$change->no, false];
            }
            foreach ($change->turns as [$turn, $isBack, $time]) {
                if ($time > $after) {
                    $events[$turn] = [$change->no, $isBack === 1];
                }
            }
        }
        krsort($events);

        return array_values($events);
    }

    private function apply(Edit $step): void
    {
        if ($step instanceof ObjectsEdit && $step->column === 'layer_no') {
            foreach ($step->after as $layer => $numbers) {
                foreach ($numbers as $number) {
                    $this->layerOf[$number] = $layer;
                }
            }
        } elseif ($step instanceof ObjectsEdit && $step->column === 'gone') {
            foreach ($step->after as $gone => $numbers) {
                sort($numbers);
                $those = Bits::ofRows($numbers === [] ? 0 : $numbers[count($numbers) - 1], $numbers);
                $this->there = $gone === 1 ? $this->there->less($those) : $this->there->with($those);
            }
        } elseif ($step instanceof SourceEdit) {
            $came = DB::table('objects')
                ->where('project_id', $this->bench->project->id)
                ->where('source_id', $step->source)
                ->orderBy('no')
                ->pluck('no')
                ->all();
            $came = array_values(array_map(static fn (mixed $number): int => is_numeric($number) ? (int) $number : 0, $came));
            $those = Bits::ofRows($came === [] ? 0 : $came[count($came) - 1], $came);
            $this->there = $step->gone ? $this->there->less($those) : $this->there->with($those);
        } elseif ($step instanceof MembersEdit && isset($this->members[$step->table])) {
            $now = $this->members[$step->table][$step->number] ?? Bits::none(0);
            $this->members[$step->table][$step->number] = $now->with($step->added)->less($step->removed);
        } elseif ($step instanceof RowEdit && isset($this->members[$step->table])) {
            $this->row($step);
        }
    }

    private function row(RowEdit $step): void
    {
        if ($step->after === null) {
            unset($this->members[$step->table][$step->number]);
        } elseif ($step->before === null) {
            $members = $step->after['members'] ?? null;
            $this->members[$step->table][$step->number] = is_string($members)
                ? Members::unpack((string) base64_decode($members, true))
                : Bits::none(0);
        }
    }

    /** @return array{array<int, int>, array<int, int>, array<int, int>} */
    private function counted(): array
    {
        $layers = [];
        foreach ($this->there->rows() as $number) {
            $layer = $this->layerOf[$number] ?? 0;
            $layers[$layer] = ($layers[$layer] ?? 0) + 1;
        }
        $count = fn (Bits $members): int => $members->count() - $members->less($this->there)->count();

        return [$layers, array_map($count, $this->members['tags']), array_map($count, $this->members['sets'])];
    }
}
