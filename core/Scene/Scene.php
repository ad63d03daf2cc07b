<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/**
 * The scene index of one project revision: packed columns over the objects, numbered depth-first.
 *
 * Rows run from 1; row 0 stands for "none". A subtree is the range from its row to `end(row)`. Columns:
 *
 * | column    | per row                                     |
 * |-----------|---------------------------------------------|
 * | no        | uint32, the object's number                 |
 * | parent    | uint32, the parent's row, 0 for a root      |
 * | end       | uint32, last row of the subtree             |
 * | kind      | byte, {@see Kind}                           |
 * | triangles | uint64, drawn triangles of all rows up to it|
 * | layer     | {@see Runs} of layer numbers                |
 * | lock      | {@see Runs} of own locks                    |
 * | groups    | uint32: the rows that hold others           |
 * | rows      | uint32 by object number: its row, 0 if gone |
 *
 * The first entry of each per-row column belongs to row 0.
 */
final class Scene
{
    /** @var array<string, string> */
    private array $read = [];

    private ?Runs $layers = null;

    private ?Runs $locks = null;

    private ?bool $plain = null;

    public function __construct(private readonly ColumnSource $columns) {}

    public function column(string $name): string
    {
        return $this->read[$name] ??= $this->columns->column($name);
    }

    public function count(): int
    {
        return $this->layers()->length;
    }

    public function layers(): Runs
    {
        return $this->layers ??= Runs::unpack($this->column('layer'));
    }

    public function locks(): Runs
    {
        return $this->locks ??= Runs::unpack($this->column('lock'));
    }

    public function number(int $row): int
    {
        return Packed::uint32At($this->column('no'), $row);
    }

    /** The row of object $number, 0 if the project no longer has it. */
    public function row(int $number): int
    {
        $rows = $this->column('rows');

        return $number > 0 && ($number + 1) * 4 <= strlen($rows) ? Packed::uint32At($rows, $number) : 0;
    }

    public function parent(int $row): int
    {
        return Packed::uint32At($this->column('parent'), $row);
    }

    public function end(int $row): int
    {
        return Packed::uint32At($this->column('end'), $row);
    }

    public function kind(int $row): Kind
    {
        return Kind::from(ord($this->column('kind')[$row]));
    }

    /** Drawn triangles of the rows from $first to $last. */
    public function triangles(int $first, int $last): int
    {
        $sums = $this->column('triangles');

        return Packed::uint64At($sums, $last) - Packed::uint64At($sums, $first - 1);
    }

    /** Drawn triangles of all the rows. */
    public function trianglesOf(Bits $rows): int
    {
        $sums = $this->column('triangles');
        $triangles = 0;
        foreach ($rows->ranges() as [$first, $last]) {
            $triangles += Packed::uint64At($sums, $last) - Packed::uint64At($sums, $first - 1);
        }

        return $triangles;
    }

    /** @return list<int> rows directly below $row, or the roots for row 0 */
    public function children(int $row): array
    {
        $children = [];
        $last = $row === 0 ? $this->count() : $this->end($row);
        for ($child = $row + 1; $child <= $last; $child = $this->end($child) + 1) {
            $children[] = $child;
        }

        return $children;
    }

    /** @return list<int> the rows that hold others, ascending */
    public function groups(): array
    {
        $groups = $this->column('groups');

        return Packed::uint32($groups, 0, intdiv(strlen($groups), 4));
    }

    /** How deep the row is nested: 1 for a root. */
    public function depth(int $row): int
    {
        return count($this->ancestors($row)) + 1;
    }

    /** @return list<int> rows from the parent of $row up to its root */
    public function ancestors(int $row): array
    {
        $above = [];
        while (($row = $this->parent($row)) !== 0) {
            $above[] = $row;
        }

        return $above;
    }

    /**
     * @param iterable<int> $numbers object numbers; those that are gone are passed over
     *
     * @return list<int> their rows, ascending, without repeats
     */
    public function rowsOf(iterable $numbers): array
    {
        $rows = [];
        foreach ($numbers as $number) {
            $row = $this->row($number);
            if ($row !== 0) {
                $rows[$row] = $row;
            }
        }
        ksort($rows);

        return array_values($rows);
    }

    /** Rows of objects; those that are gone are passed over. @param Bits $numbers one bit per object number */
    public function rowBits(Bits $numbers): Bits
    {
        $count = $this->count();
        if ($this->isPlain()) {
            $size = ($count >> 3) + 1;
            $bytes = substr(str_pad($numbers->bytes, $size, "\0"), 0, $size);

            return Bits::all($count)->and(Bits::ofBytes($count, $bytes));
        }

        return Bits::ofRows($count, $this->rowsOf($numbers->rows()));
    }

    /** One bit per object number. */
    public function numberBits(Bits $rows): Bits
    {
        if ($this->isPlain()) {
            return $rows;
        }
        $numbers = $this->numbersIn($rows->ranges());
        sort($numbers);

        return Bits::ofRows($numbers === [] ? 0 : $numbers[count($numbers) - 1], $numbers);
    }

    /** Whether each object's number is its row, as after taking in one file. */
    public function isPlain(): bool
    {
        return $this->plain ??= $this->column('no') === $this->column('rows');
    }

    /**
     * The rows and everything below them, as ranges.
     *
     * @param list<int> $rows ascending
     *
     * @return list<array{int, int}> first and last row of each range, ascending, apart
     */
    public function subtrees(array $rows): array
    {
        $ranges = [];
        $covered = 0;
        foreach ($rows as $row) {
            if ($row <= $covered) {
                continue;
            }
            $end = $this->end($row);
            if ($ranges !== [] && $covered === $row - 1) {
                $ranges[] = [array_pop($ranges)[0], $end];
            } else {
                $ranges[] = [$row, $end];
            }
            $covered = $end;
        }

        return $ranges;
    }

    /**
     * @param list<array{int, int}> $ranges first and last row of each range
     *
     * @return list<int> object numbers, in row order
     */
    public function numbersIn(array $ranges): array
    {
        $numbers = [];
        $column = $this->column('no');
        foreach ($ranges as [$first, $last]) {
            array_push($numbers, ...Packed::uint32($column, $first * 4, $last - $first + 1));
        }

        return $numbers;
    }
}
