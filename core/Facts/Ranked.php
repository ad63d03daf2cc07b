<?php

declare(strict_types=1);

namespace VineShelf\Facts;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/** A column of numbers as its different values, ascending, and for each row the place of its value among them, kept as {@see Planes}. */
final readonly class Ranked
{
    private function __construct(private string $values, private int $count, private Planes $ranks) {}

    /** @param array<int, int|float> $values by row; rows may be missing */
    public static function of(array $values, int $rows): self
    {
        $keys = [];
        $different = [];
        foreach ($values as $row => $value) {
            // Adding 0.0 makes -0.0 the same as 0.0.
            $key = pack('e', $value + 0.0);
            $keys[$row] = $key;
            $different[$key] = $value + 0.0;
        }
        asort($different);
        $place = 0;
        $places = [];
        foreach ($different as $key => $_) {
            $places[$key] = ++$place;
        }
        $ranks = array_fill(0, $rows + 1, 0);
        foreach ($keys as $row => $key) {
            $ranks[$row] = $places[$key];
        }

        return new self($different === [] ? '' : pack('e*', ...array_values($different)), count($different), Planes::of($ranks));
    }

    public function pack(): string
    {
        return pack('V', $this->count).$this->values.$this->ranks->pack();
    }

    public static function unpack(string $packed): self
    {
        [$count] = Packed::uint32($packed, 0, 1);

        return new self(substr($packed, 4, $count * 8), $count, Planes::unpack(substr($packed, 4 + $count * 8)));
    }

    /** The rows whose value is between the two, both included unless said otherwise. */
    public function between(float $low, float $high, bool $withLow = true, bool $withHigh = true): Bits
    {
        $first = $low === -INF ? 1 : $this->place($low, $withLow);
        $last = $high === INF ? $this->count : $this->place($high, ! $withHigh) - 1;

        return $this->ranks->between(max(1, $first), min($this->count, $last));
    }

    /** The rows that have a value. */
    public function present(): Bits
    {
        return $this->ranks->between(1, $this->count);
    }

    /** The place, from 1, of the first value that is at least $value, or above it. */
    private function place(float $value, bool $atLeast): int
    {
        $low = 0;
        $high = $this->count;
        while ($low < $high) {
            $middle = ($low + $high) >> 1;
            $here = Packed::float64($this->values, $middle * 8, 1)[0];
            if ($atLeast ? $here >= $value : $here > $value) {
                $high = $middle;
            } else {
                $low = $middle + 1;
            }
        }

        return $low + 1;
    }
}
