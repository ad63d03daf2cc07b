<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Changes\Nesting;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Relatives;

/** What another nesting would mean for rungs and locks, before it is done. */
final readonly class WhatItMeans
{
    /** @param array{more: int, less: int, opened: int, held: int} $means as {@see Nesting::means()} has it */
    private function __construct(private array $means) {}

    /** @param int $within scene row of what they would come to, 0 for the top */
    public static function moving(Bench $bench, Bits $rows, int $within): self
    {
        return new self(Nesting::means($bench, Nesting::outermost($bench->scene(), $rows), $within));
    }

    public static function grouping(Bench $bench, Bits $rows): self
    {
        $roots = Nesting::outermost($bench->scene(), $rows);

        return new self(Nesting::means($bench, $roots, $roots->isEmpty() ? 0 : Nesting::common($bench->scene(), $roots)));
    }

    public static function ungrouping(Bench $bench, Bits $rows): self
    {
        $scene = $bench->scene();
        $groups = $rows->and(
            $bench
                ->facts()
                ->ranked('kind')
                ->in([Kind::Group->value]),
        );
        $sum = ['more' => 0, 'less' => 0, 'opened' => 0, 'held' => 0];
        $by = [];
        foreach ($groups->rows() as $row) {
            $within = $scene->parent($row);
            while ($within !== 0 && $groups->has($within)) {
                $within = $scene->parent($within);
            }
            foreach ($scene->children($row) as $child) {
                if (! $groups->has($child)) {
                    $by[$within][] = $child;
                }
            }
        }
        foreach ($by as $within => $children) {
            sort($children);
            foreach (Nesting::means($bench, Bits::ofRows($scene->count(), $children), $within) as $what => $many) {
                $sum[$what] += $many;
            }
        }

        return new self($sum);
    }

    /** A sentence; empty when it means nothing. */
    public function inWords(): string
    {
        $objects = static fn (int $many): string => number_format($many).' '.($many === 1 ? 'object' : 'objects');
        $parts = array_filter([
            $this->means['more'] > 0 ? $objects($this->means['more']).' will be shown more on your desk' : '',
            $this->means['less'] > 0 ? $objects($this->means['less']).' will be shown less on your desk' : '',
            $this->means['opened'] > 0 ? $objects($this->means['opened']).' will be held by no lock, or by a lesser one' : '',
            $this->means['held'] > 0 ? $objects($this->means['held']).' will be guarded or locked' : '',
        ]);

        return $parts === [] ? '' : implode('; ', $parts).'.';
    }

    /**
     * Groups that objects may come to: those around them first.
     *
     * @return list<array{int, string, string}> number, name, and what it stands in
     */
    public static function near(Bench $bench, Bits $roots, int $most): array
    {
        $scene = $bench->scene();
        $groups = $bench
            ->facts()
            ->ranked('kind')
            ->in([Kind::Group->value]);
        $not = Relatives::within($scene, $roots);
        $around = Relatives::holding($scene, $roots);
        $beside = Relatives::beside($scene, $roots->or($around))->and($groups)->without($not);
        $rows = [];
        foreach ([$around->and($groups), $beside, $groups->without($not)] as $some) {
            foreach ($some->slice(0, $most) as $row) {
                $rows[$row] = $row;
            }
        }
        $rows = array_slice(array_values($rows), 0, $most);
        $parents = array_map($scene->parent(...), $rows);
        $numbers = array_map($scene->number(...), array_values(array_unique([...$rows, ...array_filter($parents)])));
        $names = DB::table('objects')
            ->where('project_id', $bench->project->id)
            ->whereIntegerInRaw('no', $numbers)
            ->pluck('name', 'no')
            ->all();
        $name = static fn (int $row): string => is_string($names[$scene->number($row)] ?? null) ? $names[$scene->number($row)] : '';

        return array_map(
            static fn (int $row): array => [
                $scene->number($row),
                $name($row) === '' ? 'Unnamed group '.$scene->number($row) : $name($row),
                $scene->parent($row) === 0 ? '' : $name($scene->parent($row)),
            ],
            $rows,
        );
    }
}
