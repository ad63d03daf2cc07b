<?php

declare(strict_types=1);

namespace VineShelf\Facts;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/** What some objects have in common, and where they differ. */
final readonly class Shared
{
    /** So many objects are looked at one by one. */
    private const FEW = 2000;

    /** Of a column of so few values each value is asked who has it. */
    private const FEW_VALUES = 150;

    private int $count;

    /** @param Bits $rows of the objects */
    public function __construct(private Facts $facts, private Bits $rows)
    {
        $this->count = $rows->count();
    }

    /**
     * @param string $column "class", "surfaces" or "mesh"
     * @param int    $values how many different codes there are besides 0, as far as that is known
     *
     * @return array<int, int> objects by code, 0 for none; the code that most have first
     */
    public function codes(string $column, int $values = PHP_INT_MAX): array
    {
        $counts = [];
        if ($this->count > self::FEW && $values <= self::FEW_VALUES) {
            $counts = $this->eachOf($column, $values, $this->rows);
            $counts[0] = $this->count - array_sum($counts);
            $counts = array_filter($counts);
        } elseif ($this->count <= self::FEW) {
            $packed = $this->facts->scene->column($column);
            foreach ($this->rows->rows() as $row) {
                $code = Packed::uint32At($packed, $row);
                $counts[$code] = ($counts[$code] ?? 0) + 1;
            }
        } else {
            $codes = Packed::uint32($this->facts->scene->column($column), 0, $this->facts->scene->count() + 1);
            foreach ($this->rows->rows() as $row) {
                $counts[$codes[$row]] = ($counts[$codes[$row]] ?? 0) + 1;
            }
        }
        arsort($counts);

        return $counts;
    }

    /**
     * The values of a property of the files, by how many of the objects have each.
     *
     * @param int $index of the property
     *
     * @return array<int, int> objects by code, those without it not among them; the code that most have first
     */
    public function property(int $index): array
    {
        $codes = $this->facts->codes($index);
        $counts = [];
        if ($codes->isSparse() && $this->count > self::FEW) {
            $bytes = $this->rows->bytes;
            foreach ($codes->all() as $row => $code) {
                if ((ord($bytes[$row >> 3]) >> ($row & 7)) & 1) {
                    $counts[$code] = ($counts[$code] ?? 0) + 1;
                }
            }
        } else {
            $present = $this->facts
                ->ranked("property.$index")
                ->present()
                ->and($this->rows);
            $having = $present->count();
            $words = count($this->facts->words("property.$index.words")) - 1;
            if ($having > self::FEW && $words <= self::FEW_VALUES) {
                $counts = array_filter($this->eachOf("property.$index", $words, $present));
            } elseif ($having > 0) {
                $all = $having > self::FEW ? $codes->all() : null;
                foreach ($present->rows() as $row) {
                    $code = $all === null ? $codes->at($row) : $all[$row];
                    $counts[$code] = ($counts[$code] ?? 0) + 1;
                }
            }
        }
        arsort($counts);

        return $counts;
    }

    /** @return array<int, int> how many of some rows have each code of a column from 1 on */
    private function eachOf(string $column, int $values, Bits $rows): array
    {
        $ranked = $this->facts->ranked($column);
        $counts = [];
        for ($code = 1; $code <= $values; $code++) {
            $counts[$code] = $ranked
                ->in([$code])
                ->and($rows)
                ->count();
        }

        return $counts;
    }

    /** @return array{float, float}|null the least and the greatest of a measure; null when none of the objects has it */
    public function range(Measure $measure): ?array
    {
        if ($this->count <= self::FEW) {
            $values = array_filter(
                array_map(fn (int $row): int|float|null => $this->facts->measure($measure, $row), $this->rows->rows()),
                static fn (int|float|null $value): bool => $value !== null,
            );

            return $values === [] ? null : [(float) min($values), (float) max($values)];
        }

        return $this->facts->ranked($measure->value)->rangeOf($this->rows);
    }
}
