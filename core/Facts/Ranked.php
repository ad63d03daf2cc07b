<?php

declare(strict_types=1);

namespace VineShelf\Facts;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/**
 * A column of numbers, laid out for finding rows by value: the different values ascending, the rows sorted by value (equal ones in
 * row order), and at about every fiftieth part of them a checkpoint, the set of all rows so far.
 *
 * The rows up to any value are then the nearest checkpoint and a few thousand rows at most: comparing 200,000 numbers costs a
 * fraction of a millisecond. Packed: three counts; values as doubles; rows before each value, and in all; the rows; for each
 * checkpoint how many values it takes in; the checkpoints, laid out as {@see Bits}.
 */
final readonly class Ranked
{
    private const CHECKPOINTS = 48;

    /** Rows that are read at once: more than fit near the processor take twice as long. */
    private const READ = 1024;

    private const MASKS = ["\x01", "\x02", "\x04", "\x08", "\x10", "\x20", "\x40", "\x80"];

    private int $valuesAt;

    private int $startsAt;

    private int $rowsAt;

    private int $marksAt;

    private int $checkpointsAt;

    private function __construct(private string $packed, private int $length, private int $values, private int $checkpoints)
    {
        $this->valuesAt = 12;
        $this->startsAt = $this->valuesAt + 8 * $values;
        $this->rowsAt = $this->startsAt + 4 * ($values + 1);
        $this->marksAt = $this->rowsAt + 4 * $this->start($values);
        $this->checkpointsAt = $this->marksAt + 4 * $checkpoints;
    }

    /**
     * @param array<int, int|float> $numbers by row; rows may be missing
     * @param int                   $length  rows in all
     */
    public static function pack(array $numbers, int $length): string
    {
        $groups = [];
        $values = [];
        foreach ($numbers as $row => $number) {
            // Adding 0.0 makes -0.0 the same as 0.0.
            $key = pack('e', $number + 0.0);
            $values[$key] = $number + 0.0;
            $groups[$key][] = $row;
        }
        asort($values);
        $starts = $marks = [];
        $checkpoints = '';
        $soFar = Bits::none($length)->bytes;
        $sorted = [];
        $step = max(1, intdiv(count($numbers), self::CHECKPOINTS));
        $last = 0;
        foreach (array_keys($values) as $index => $key) {
            $starts[] = count($sorted);
            array_push($sorted, ...$groups[$key]);
            // All rows together are asked for most.
            if (count($sorted) - $last >= $step || count($sorted) === count($numbers)) {
                for ($end = count($sorted); $last < $end; $last++) {
                    $row = $sorted[$last];
                    $soFar[$row >> 3] = chr(ord($soFar[$row >> 3]) | (1 << ($row & 7)));
                }
                $marks[] = $index + 1;
                $checkpoints .= $soFar;
            }
        }
        $rows = $sorted === [] ? '' : pack('V*', ...$sorted);

        return pack('VVV', $length, count($values), count($marks)).
            ($values === [] ? '' : pack('e*', ...array_values($values))).
            pack('V*', ...[...$starts, count($sorted)]).
            $rows.
            ($marks === [] ? '' : pack('V*', ...$marks)).
            $checkpoints;
    }

    public static function unpack(string $packed): self
    {
        [$length, $values, $checkpoints] = Packed::uint32($packed, 0, 3);

        return new self($packed, $length, $values, $checkpoints);
    }

    /** The rows whose number is between the two, both included unless said otherwise. */
    public function between(float $low, float $high, bool $withLow = true, bool $withHigh = true): Bits
    {
        $first = $low === -INF ? 0 : $this->place($low, $withLow);
        $last = $high === INF ? $this->values : $this->place($high, ! $withHigh);

        return $this->part($first, $last);
    }

    /** @param list<int> $numbers the rows whose number is one of these */
    public function in(array $numbers): Bits
    {
        $all = Bits::none($this->length);
        $rows = [];
        foreach (array_unique($numbers) as $number) {
            $first = $this->place($number, true);
            $last = $this->place($number, false);
            $count = $this->start($last) - $this->start($first);
            if ($count > 0 && $count <= 2000) {
                array_push($rows, ...$this->rows($first, $last));
            } elseif ($count > 0) {
                $all = $all->or($this->part($first, $last));
            }
        }
        if ($rows === []) {
            return $all;
        }
        sort($rows);

        return $all->or(Bits::ofRows($this->length, $rows));
    }

    /** The numbers, packed as doubles. */
    public function numbers(): string
    {
        return substr($this->packed, $this->valuesAt, 8 * $this->values);
    }

    /** @return list<int> how many rows stand before those of each number, and in all */
    public function starts(): array
    {
        return Packed::uint32($this->packed, $this->startsAt, $this->values + 1);
    }

    /** Bytes of rows put in the order of numbers. @param string $bytes by row */
    public function sorted(string $bytes): string
    {
        $sorted = '';
        for ($at = 0, $count = $this->start($this->values); $at < $count; $at += self::READ) {
            /** @var array<int, int> $rows */
            $rows = unpack('V'.min(self::READ, $count - $at), $this->packed, $this->rowsAt + 4 * $at);
            foreach ($rows as $row) {
                $sorted .= $bytes[$row];
            }
        }

        return $sorted;
    }

    /** The rows that have a number. */
    public function present(): Bits
    {
        return $this->upTo($this->values);
    }

    /** @return array{float, float}|null the least and the greatest number among some rows; null when none of them has one */
    public function rangeOf(Bits $rows): ?array
    {
        $least = $this->firstPlace(fn (int $values): bool => ! $this->upTo($values)->and($rows)->isEmpty());
        if ($least > $this->values) {
            return null;
        }
        $all = $this->upTo($this->values)->and($rows);
        $greatest = $this->firstPlace(fn (int $values): bool => $all->without($this->upTo($values))->isEmpty());

        return [$this->value($least - 1), $this->value($greatest - 1)];
    }

    /**
     * The least number of values, from 1, for which something holds that goes on holding; one more than there are when it never does.
     *
     * @param \Closure(int): bool $holds
     */
    private function firstPlace(\Closure $holds): int
    {
        $low = 0;
        $high = $this->values + 1;
        while ($high - $low > 1) {
            $middle = ($low + $high) >> 1;
            if ($holds($middle)) {
                $high = $middle;
            } else {
                $low = $middle;
            }
        }

        return $high;
    }

    private function value(int $place): float
    {
        return Packed::float64($this->packed, $this->valuesAt + $place * 8, 1)[0];
    }

    /** How many rows have the number. */
    public function count(float $number): int
    {
        return $this->start($this->place($number, false)) - $this->start($this->place($number, true));
    }

    /** The rows of the values from the place $first up to before $last. */
    private function part(int $first, int $last): Bits
    {
        if ($last <= $first) {
            return Bits::none($this->length);
        }
        if ($first === 0) {
            return $this->upTo($last);
        }
        if ($this->start($last) - $this->start($first) <= 2000) {
            $rows = $this->rows($first, $last);
            sort($rows);

            return Bits::ofRows($this->length, $rows);
        }

        return $this->upTo($last)->without($this->upTo($first));
    }

    /** The rows of the first $values values. */
    private function upTo(int $values): Bits
    {
        $low = -1;
        $high = $this->checkpoints;
        while ($high - $low > 1) {
            $middle = ($low + $high) >> 1;
            if ($this->mark($middle) <= $values) {
                $low = $middle;
            } else {
                $high = $middle;
            }
        }
        $below = $low < 0 ? 0 : $this->mark($low);
        $above = $high < $this->checkpoints ? $this->mark($high) : PHP_INT_MAX;
        $wanted = $this->start($values);
        if ($above !== PHP_INT_MAX && $this->start($above) - $wanted < $wanted - $this->start($below)) {
            $bytes = $this->checkpoint($high);
            $masks = self::MASKS;
            foreach ($this->rows($values, $above) as $row) {
                $bytes[$row >> 3] = $bytes[$row >> 3] & ~$masks[$row & 7];
            }
        } else {
            $bytes = $low < 0 ? Bits::none($this->length)->bytes : $this->checkpoint($low);
            $masks = self::MASKS;
            foreach ($this->rows($below, $values) as $row) {
                $bytes[$row >> 3] = $bytes[$row >> 3] | $masks[$row & 7];
            }
        }

        return Bits::ofBytes($this->length, $bytes);
    }

    /** @return list<int> the rows of the values from the place $first up to before $last */
    private function rows(int $first, int $last): array
    {
        $from = $this->start($first);

        return Packed::uint32($this->packed, $this->rowsAt + 4 * $from, $this->start($last) - $from);
    }

    /** The place, from 0, of the first value that is at least $value, or above it. */
    private function place(float $value, bool $atLeast): int
    {
        $low = 0;
        $high = $this->values;
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            $here = Packed::float64($this->packed, $this->valuesAt + $middle * 8, 1)[0];
            if ($atLeast ? $here >= $value : $here > $value) {
                $high = $middle;
            } else {
                $low = $middle + 1;
            }
        }

        return $low;
    }

    /** How many rows stand before the value at a place. */
    private function start(int $place): int
    {
        return Packed::uint32($this->packed, $this->startsAt + 4 * $place, 1)[0];
    }

    private function mark(int $checkpoint): int
    {
        return Packed::uint32($this->packed, $this->marksAt + 4 * $checkpoint, 1)[0];
    }

    private function checkpoint(int $index): string
    {
        $size = ($this->length >> 3) + 1;

        return substr($this->packed, $this->checkpointsAt + $index * $size, $size);
    }
}
