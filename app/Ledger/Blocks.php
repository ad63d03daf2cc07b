<?php

declare(strict_types=1);

namespace App\Ledger;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Coded;
use VineShelf\Scene\Levels;

/** All rows of a scene sorted by a column of few values: one block per value, in each the order of the scene. */
final class Blocks
{
    /** @var array<int, Bits> rows by block, those that were looked at */
    private array $blocks = [];

    /**
     * @param list<int>            $values in the order in which they come
     * @param array<int, int>      $counts rows by value
     * @param \Closure(int): Bits  $find   the rows of a value
     * @param \Closure(int): int   $at     the value of a row
     */
    private function __construct(
        private readonly int $length,
        private readonly array $values,
        private readonly array $counts,
        private readonly \Closure $find,
        private readonly \Closure $at,
    ) {}

    /** @param list<int> $values in the order in which they come */
    public static function ofLevels(Levels $levels, array $values): self
    {
        return new self($levels->length, $values, $levels->histogram(), $levels->being(...), $levels->at(...));
    }

    /** @param list<int> $values in the order in which they come */
    public static function ofCoded(Coded $column, array $values): self
    {
        return new self(
            $column->length,
            $values,
            $column->histogram(),
            static fn (int $value): Bits => $column->rowsOf([$value => true]),
            $column->at(...),
        );
    }

    /** @return list<int> */
    public function slice(int $offset, int $count): array
    {
        $kept = [];
        foreach ($this->values as $value) {
            $here = $this->counts[$value] ?? 0;
            if ($here > $offset && count($kept) < $count) {
                array_push($kept, ...$this->block($value)->slice($offset, $count - count($kept)));
            }
            $offset = max(0, $offset - $here);
        }

        return $kept;
    }

    /** @return list<int> some of the rows that are in a set */
    public function sliceOf(Bits $among, int $offset, int $count): array
    {
        $kept = [];
        foreach ($this->values as $value) {
            if (count($kept) >= $count) {
                break;
            }
            if (! isset($this->counts[$value])) {
                continue;
            }
            $rows = $this->block($value)->and($among);
            $here = $rows->count();
            if ($here > $offset) {
                array_push($kept, ...$rows->slice($offset, $count - count($kept)));
            }
            $offset = max(0, $offset - $here);
        }

        return $kept;
    }

    /** Where a row stands, counted from 0; among those of a set when there is one. */
    public function place(int $row, ?Bits $among = null): int
    {
        $among ??= Bits::all($this->length);
        $own = ($this->at)($row);
        $place = 0;
        foreach ($this->values as $value) {
            if ($value === $own) {
                return $place + $this->block($value)->and($among)->rank($row);
            }
            $place += isset($this->counts[$value]) ? $this->block($value)->and($among)->count() : 0;
        }

        return $place;
    }

    private function block(int $value): Bits
    {
        return $this->blocks[$value] ??= ($this->find)($value);
    }
}
