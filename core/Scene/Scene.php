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
 * | layer     | {@see Coded} layer numbers                  |
 * | lock      | {@see Coded} own locks                      |
 * | groups    | uint32: the rows that hold others           |
 * | rows      | uint32 by object number: its row, 0 if gone |
 * | tag.N     | {@see Bits} of the rows that have the tag N; empty for none |
 * | value.N   | {@see Bits} of the rows that have the value N of a property of their own; empty for none |
 * | set.N     | {@see Bits} of the rows in the fixed set N; empty for none |
 * | stretches | three uint32 per stretch of rows that are numbered one by one: first row, its number, rows |
 *
 * The first entry of each per-row column belongs to row 0.
 */
final class Scene
{
    /** @var array<string, string> */
    private array $read = [];

    private ?Coded $layers = null;

    private ?Coded $locks = null;

    private ?bool $plain = null;

    private ?Bits $groups = null;

    private ?Planes $weights = null;

    /** @var array<string, Bits> by column */
    private array $members = [];

    public function __construct(private readonly ColumnSource $columns) {}

    public function column(string $name): string
    {
        return $this->read[$name] ??= $this->columns->column($name);
    }

    public function count(): int
    {
        return strlen($this->column('kind')) - 1;
    }

    public function layers(): Coded
    {
        return $this->layers ??= Coded::unpack($this->column('layer'));
    }

    public function locks(): Coded
    {
        return $this->locks ??= Coded::unpack($this->column('lock'));
    }

    /** The rows that have a tag. */
    public function tagged(int $tag): Bits
    {
        return $this->members("tag.$tag");
    }

    /** The rows in a fixed set. */
    public function chosen(int $set): Bits
    {
        return $this->members("set.$set");
    }

    /** The rows that have a value of a property of their own. */
    public function valued(int $value): Bits
    {
        return $this->members("value.$value");
    }

    /** @param string $column "tag.N", "set.N" or "value.N" */
    public function members(string $column): Bits
    {
        return $this->members[$column] ??=
            $this->column($column) === '' ? Bits::none($this->count()) : Bits::ofBytes($this->count(), $this->column($column));
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
        $this->weights ??= Planes::unpack($this->column('planes.triangles'));

        return $this->weights->sum($rows);
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

    /** The rows that hold others. */
    public function groupBits(): Bits
    {
        return $this->groups ??= Bits::ofRows($this->count(), $this->groups());
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

        return Bits::ofMask($count, strtr($this->byRow($numbers->mask(), "\0"), "\xFF", "\1"));
    }

    /** One bit per object number. */
    public function numberBits(Bits $rows): Bits
    {
        if ($this->isPlain()) {
            return $rows;
        }
        $mask = $this->byNumber($rows->mask(), "\0");

        return Bits::ofMask(strlen($mask) - 1, strtr($mask, "\xFF", "\1"));
    }

    /**
     * One byte per object number, put in the order of rows.
     *
     * @param string $bytes     by number; may end early
     * @param string $otherwise the byte for numbers beyond its end, and for row 0
     */
    public function byRow(string $bytes, string $otherwise): string
    {
        $last = intdiv(strlen($this->column('rows')), 4);
        $bytes = str_pad($bytes, $last, $otherwise);
        if ($this->isPlain()) {
            return $otherwise.substr($bytes, 1, $this->count());
        }
        $ordered = $otherwise;
        foreach ($this->stretches() as [, $number, $length]) {
            $ordered .= substr($bytes, $number, $length);
        }

        return $ordered;
    }

    /**
     * Bytes per row, put in the order of object numbers.
     *
     * @param string $bytes by row, row 0 first
     * @param string $gone  the bytes for numbers that no row has; as many for each row as it has bytes
     */
    public function byNumber(string $bytes, string $gone): string
    {
        $wide = strlen($gone);
        if ($this->isPlain()) {
            return $gone.substr($bytes, $wide);
        }
        $stretches = $this->stretches();
        usort($stretches, static fn (array $a, array $b): int => $a[1] <=> $b[1]);
        $ordered = $gone;
        $next = 1;
        foreach ($stretches as [$row, $number, $length]) {
            $ordered .= str_repeat($gone, $number - $next).substr($bytes, $row * $wide, $length * $wide);
            $next = $number + $length;
        }

        return str_pad($ordered, intdiv(strlen($this->column('rows')), 4) * $wide, $gone);
    }

    /** @return list<array{int, int, int}> first row, its number, rows: for each stretch of rows that are numbered one by one */
    private function stretches(): array
    {
        $column = $this->column('stretches');

        /** @var list<array{int, int, int}> */
        return array_chunk(Packed::uint32($column, 0, intdiv(strlen($column), 4)), 3);
    }

    /** Whether each object's number is its row, as after taking in one file. */
    public function isPlain(): bool
    {
        return $this->plain ??= $this->count() === 0 || $this->column('stretches') === pack('VVV', 1, 1, $this->count());
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
