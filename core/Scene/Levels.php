<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/**
 * One of a few steps per row, 0 to at most 8, such as the rung in effect: written as one byte with as many bits set as the step is high, so
 * that the lowest of two columns is their `&` and the highest their `|`, all rows at once. Byte 0 belongs to no row and is 0.
 */
final class Levels
{
    /** Rows that are looked at before all are. */
    private const SAMPLE = 24;

    /** @var array<int, Bits> by step */
    private array $being = [];

    /** @var array<int, int>|null */
    private ?array $histogram = null;

    /** @param string $bytes by row, byte 0 for none */
    private function __construct(public readonly int $length, public readonly int $most, private readonly string $bytes) {}

    public static function constant(int $length, int $most, int $step): self
    {
        return new self($length, $most, "\0".str_repeat(self::byte($step), $length));
    }

    /** @param iterable<int> $steps one per row, in row order */
    public static function fromValues(int $most, iterable $steps): self
    {
        $bytes = "\0";
        foreach ($steps as $step) {
            $bytes .= self::byte($step);
        }

        return new self(strlen($bytes) - 1, $most, $bytes);
    }

    /**
     * Each row's step follows from its value in a column.
     *
     * @param array<int, int> $steps by value
     */
    public static function byValue(Coded $column, array $steps, int $most, int $otherwise): self
    {
        $byte = static fn (int $step): int => ord(self::byte($step));

        return new self($column->length, $most, $column->translated(array_map($byte, $steps), $byte($otherwise)));
    }

    /** The same step in the rows of a set, another one elsewhere. */
    public static function within(Bits $rows, int $most, int $step, int $otherwise): self
    {
        $mask = $rows->mask();
        $length = $rows->length;

        return new self(
            $length,
            $most,
            "\0".
                substr(
                    (str_repeat(self::byte($step), $length + 1) & $mask) | (str_repeat(self::byte($otherwise), $length + 1) & ~$mask),
                    1,
                ),
        );
    }

    /**
     * @internal for what computes on the bytes directly
     *
     * @param string $bytes as {@see bytes()} gives them
     */
    public static function ofBytes(int $length, int $most, string $bytes): self
    {
        return new self($length, $most, $bytes);
    }

    /** Per row the lower of the two. */
    public function lowest(self $other): self
    {
        return new self($this->length, $this->most, $this->bytes & $other->bytes);
    }

    /** Per row the higher of the two. */
    public function highest(self $other): self
    {
        return new self($this->length, $this->most, $this->bytes | $other->bytes);
    }

    /** As one column in the rows of a set, as the other elsewhere. */
    public function except(Bits $rows, self $other): self
    {
        $mask = $rows->mask();

        return new self($this->length, $this->most, ($this->bytes & ~$mask) | ($other->bytes & $mask));
    }

    public function at(int $row): int
    {
        return self::step(ord($this->bytes[$row]));
    }

    /** @return string by row: bits set as far as the step is high */
    public function bytes(): string
    {
        return $this->bytes;
    }

    /** @param array<int, int> $bytes by step @return string another byte for every row, byte 0 for none */
    public function translated(array $bytes): string
    {
        $from = $to = '';
        for ($step = 0; $step <= $this->most; $step++) {
            $from .= self::byte($step);
            $to .= chr($bytes[$step] ?? 0);
        }

        return "\0".substr(strtr($this->bytes, $from, $to), 1);
    }

    /** The rows at a step. */
    public function being(int $step): Bits
    {
        if (! isset($this->being[$step])) {
            // Looking for a byte takes a fraction of counting them.
            $byte = self::byte($step);
            $this->being[$step] = match (true) {
                strpos($this->bytes, $byte, 1) === false => Bits::none($this->length),
                strspn($this->bytes, $byte, 1) === $this->length => Bits::all($this->length),
                default => Bits::ofMask($this->length, $this->translated([$step => 1])),
            };
        }

        return $this->being[$step];
    }

    /** The rows at a step or below it. */
    public function atMost(int $step): Bits
    {
        $rows = $this->being(0);
        for ($at = 1; $at <= $step; $at++) {
            $rows = $rows->or($this->being($at));
        }

        return $rows;
    }

    /** The rows at a step or above it. */
    public function atLeast(int $step): Bits
    {
        return $step === 0 ? Bits::all($this->length) : $this->atMost($step - 1)->not();
    }

    /** @return array<int, int> rows by step, only steps that there are */
    public function histogram(): array
    {
        if ($this->histogram === null) {
            $this->histogram = [];
            /** @var array<int, int> $counts */
            $counts = count_chars($this->bytes, 1);
            // Byte 0 is no row.
            $counts[0] = ($counts[0] ?? 1) - 1;
            foreach (array_filter($counts) as $byte => $count) {
                $this->histogram[self::step($byte)] = $count;
            }
        }

        return $this->histogram;
    }

    /** The step that all rows of a set are at; null where they differ. Far cheaper than counting them. */
    public function only(Bits $rows): ?int
    {
        $steps = [];
        // Where they differ, a few of them mostly do.
        foreach ($rows->some(self::SAMPLE) as $row) {
            $steps[$this->bytes[$row]] = $row;
            if (count($steps) > 1) {
                return null;
            }
        }
        $step = $steps === [] ? null : $this->at(reset($steps));

        return $step !== null && $rows->without($this->being($step))->isEmpty() ? $step : null;
    }

    /** @return array<int, int> rows of a set by step, only steps that there are */
    public function histogramOf(Bits $rows): array
    {
        $spread = [];
        foreach (array_keys($this->histogram()) as $step) {
            $spread[$step] = $rows->and($this->being($step))->count();
        }

        return array_filter($spread);
    }

    /**
     * How many rows of each value of a column are at which step.
     *
     * @return array<int, array<int, int>> rows by step, by value
     */
    public function spread(Coded $column): array
    {
        // All steps at once, for some values after the others, or all values at once, for one step after the other.
        if ($this->most <= 7 && $column->passes() < count($this->histogram())) {
            return $column->histogramBeside($this->translated(range(0, $this->most)));
        }
        $spread = [];
        foreach (array_keys($this->histogram()) as $step) {
            foreach ($column->histogramIn($this->translated([$step => 255])) as $value => $rows) {
                $spread[$value][$step] = $rows;
            }
        }

        return $spread;
    }

    private static function byte(int $step): string
    {
        return chr((1 << $step) - 1);
    }

    private static function step(int $byte): int
    {
        for ($step = 0; $byte > 0; $byte >>= 1) {
            $step++;
        }

        return $step;
    }
}
