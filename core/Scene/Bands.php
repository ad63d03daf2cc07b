<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** All rows of a scene sorted by a column of few values: one band per value, in each the order of the scene. */
final class Bands
{
    /** @var array<int, Bits> rows by value, those that were looked at */
    private array $bands = [];

    /**
     * @param list<int>                        $values  in the order in which they come
     * @param array<int, int>                  $counts  rows by value
     * @param \Closure(Bits): array<int, int>  $countIn those of a set
     * @param \Closure(int): Bits              $find    the rows of a value
     * @param \Closure(int): int               $at      the value of a row
     */
    private function __construct(
        private readonly array $values,
        private readonly array $counts,
        private readonly \Closure $countIn,
        private readonly \Closure $find,
        private readonly \Closure $at,
    ) {}

    /** @param list<int> $values in the order in which they come */
    public static function ofLevels(Levels $levels, array $values): self
    {
        return new self($values, $levels->histogram(), $levels->histogramOf(...), $levels->being(...), $levels->at(...));
    }

    /** @param list<int> $values in the order in which they come */
    public static function ofCoded(Coded $column, array $values): self
    {
        return new self(
            $values,
            $column->histogram(),
            $column->histogram(...),
            static fn (int $value): Bits => $column->rowsOf([$value => true]),
            $column->at(...),
        );
    }

    /**
     * Rows by the first of some sets that they are in, those in none of them last.
     *
     * @param list<Bits> $sets no two of which have a row in common
     * @param bool       $down whether the last set comes first; those in none come last all the same
     */
    public static function ofSets(int $length, array $sets, bool $down = false): self
    {
        $rest = Bits::all($length);
        foreach ($sets as $set) {
            $rest = $rest->without($set);
        }
        $bands = [...$down ? array_reverse($sets) : $sets, $rest];
        $countIn = static fn (Bits $among): array => array_filter(
            array_map(static fn (Bits $band): int => $band->and($among)->count(), $bands),
        );
        $at = static function (int $row) use ($bands): int {
            foreach ($bands as $value => $band) {
                if ($band->has($row)) {
                    return $value;
                }
            }

            return count($bands) - 1;
        };

        return new self(
            array_keys($bands),
            array_filter(array_map(static fn (Bits $band): int => $band->count(), $bands)),
            $countIn,
            static fn (int $value): Bits => $bands[$value],
            $at,
        );
    }

    /** @return list<int> */
    public function slice(int $offset, int $count): array
    {
        return $this->window($this->counts, null, $offset, $count);
    }

    /** @return list<int> some of the rows that are in a set */
    public function sliceOf(Bits $among, int $offset, int $count): array
    {
        return $this->window(($this->countIn)($among), $among, $offset, $count);
    }

    /** Where a row stands, counted from 0; among those of a set when there is one. */
    public function place(int $row, ?Bits $among = null): int
    {
        $own = ($this->at)($row);
        $counts = $among === null ? $this->counts : ($this->countIn)($among);
        $place = 0;
        foreach ($this->values as $value) {
            if ($value === $own) {
                return $place + $this->band($value, $among)->rank($row);
            }
            $place += $counts[$value] ?? 0;
        }

        return $place;
    }

    /**
     * @param array<int, int> $counts rows of the set by value
     *
     * @return list<int>
     */
    private function window(array $counts, ?Bits $among, int $offset, int $count): array
    {
        $kept = [];
        foreach ($this->values as $value) {
            $here = $counts[$value] ?? 0;
            if ($here > $offset && count($kept) < $count) {
                array_push($kept, ...$this->band($value, $among)->slice($offset, $count - count($kept)));
            }
            $offset = max(0, $offset - $here);
        }

        return $kept;
    }

    private function band(int $value, ?Bits $among): Bits
    {
        $rows = $this->bands[$value] ??= ($this->find)($value);

        return $among === null ? $rows : $rows->and($among);
    }
}
