<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Bench\Groups;
use App\Bench\Keys;
use VineShelf\Scene\Bits;

/**
 * The ledger widened over tags and sets: for each row and each of those columns whether it is in, out, in by the rule of a live set, or
 * some of it is.
 */
final class Memberships
{
    public const IN = 'in';

    public const OUT = 'out';

    public const SOME = 'some';

    public const BY_RULE = 'rule';

    /** @var array<string, Bits> rows by column */
    private array $sets = [];

    /** @var list<array{string, string, string, bool}>|null */
    private ?array $columns = null;

    /** @var array<string, array<int, int>> objects by layer, by column */
    private array $byLayer = [];

    private readonly Groups $groups;

    public function __construct(private readonly Bench $bench)
    {
        $this->groups = new Groups($bench);
    }

    /**
     * The columns that the ledger is widened over, as far as they are there.
     *
     * @return list<array{string, string, string, bool}> key, name, colour, and whether people decide who is in
     */
    public function columns(): array
    {
        if ($this->columns !== null) {
            return $this->columns;
        }
        $columns = [];
        foreach ($this->bench->arrangement()->over as $key) {
            $number = (int) substr($key, 1);
            if ($key[0] === 'T' && $this->bench->tags()->has($number)) {
                $tag = $this->bench->tags()->get($number);
                $columns[] = [$key, $tag->name, $tag->colour, true];
            } elseif ($key[0] === 'E' && $this->bench->sets()->has($number)) {
                $set = $this->bench->sets()->get($number);
                $columns[] = [$key, $set->name, '', ! $set->isLive()];
            }
        }

        return $this->columns = $columns;
    }

    /** @return array<string, string> what the row is in each column, by key of the column */
    public function of(Row $row): array
    {
        $states = [];
        foreach ($this->columns() as [$key, , , $isDecided]) {
            $states[$key] = $this->state($row, $key, $isDecided);
        }

        return $states;
    }

    private function state(Row $row, string $column, bool $isDecided): string
    {
        $set = $this->rows($column);
        $in = $isDecided ? self::IN : self::BY_RULE;
        if ($row->isObject()) {
            $at = $this->bench->scene()->row($row->number());
            $end = $this->bench->scene()->end($at);
            if ($end === $at) {
                return $set->has($at) ? $in : self::OUT;
            }
            [$some, $all] = [$set->countBetween($at, $end), $end - $at + 1];
        } else {
            [$some, $all] = $row->isLayer() ? $this->ofLayer($row->number(), $column) : $this->ofGroup($row->key, $set);
        }

        return match (true) {
            $some === 0 => self::OUT,
            $some === $all => $in,
            default => self::SOME,
        };
    }

    /** @return array{int, int} how many of the objects of a layer and of those nested in it are in, and how many there are */
    private function ofLayer(int $layer, string $column): array
    {
        $this->byLayer[$column] ??= $this->bench->scene()->layers()->histogram($this->rows($column));
        $some = $all = 0;
        foreach ($this->bench->layers()->withNested($layer) as $nested) {
            $some += $this->byLayer[$column][$nested] ?? 0;
            $all += $this->bench->contents()->objects($nested);
        }

        return [$some, $all];
    }

    /** @return array{int, int} */
    private function ofGroup(string $key, Bits $set): array
    {
        $rows = $this->groups->named($key)?->rows() ?? Bits::none($this->bench->scene()->count());

        return [$rows->and($set)->count(), $rows->count()];
    }

    private function rows(string $column): Bits
    {
        return $this->sets[$column] ??= Keys::of([$column])->groupsIn($this->bench);
    }
}
