<?php

declare(strict_types=1);

namespace VineShelf\Facts;

use VineShelf\Scene\Coded;
use VineShelf\Scene\MissingColumn;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** How many rows and how many triangles there are of each value of a column, counted once per revision. */
final readonly class Tally
{
    /**
     * @param array<int, int> $rows      by value
     * @param array<int, int> $triangles drawn by the rows themselves, by value
     */
    private function __construct(public array $rows, public array $triangles) {}

    /** @param string $column "layer", "source", "kind", "class", "surfaces", or "kindclass" for {@see ofKind()} */
    public static function of(Scene $scene, string $column): self
    {
        try {
            $packed = $scene->column("tally.$column");
        } catch (MissingColumn) {
            $packed = self::pack($scene, $column);
        }
        $rows = $triangles = [];
        for ($at = 0; $at < strlen($packed); $at += 16) {
            [$value, $count] = Packed::uint32($packed, $at, 2);
            $rows[$value] = $count;
            $triangles[$value] = Packed::uint64At(substr($packed, $at + 8, 8), 0);
        }

        return new self($rows, $triangles);
    }

    /** The value for a class among the objects of a kind; kinds are fewer than 16, and there may be as many classes as objects. */
    public static function ofKind(int $kind, int $class): int
    {
        return ($class << 4) | $kind;
    }

    public static function pack(Scene $scene, string $column): string
    {
        $rows = $triangles = [];
        $count = $scene->count();
        if ($count === 0) {
            return '';
        }
        /** @var array<int, int> $sums counted from 1: entry 1 belongs to row 0 */
        $sums = unpack('P*', $scene->column('triangles'));
        if ($column === 'layer' || $column === 'source') {
            $row = 0;
            foreach (Coded::unpack($scene->column($column))->toList() as $value) {
                $row++;
                $rows[$value] = ($rows[$value] ?? 0) + 1;
                $triangles[$value] = ($triangles[$value] ?? 0) + $sums[$row + 1] - $sums[$row];
            }
        } else {
            $kinds = $scene->column('kind');
            $codes = $column === 'kind' ? [] : Packed::uint32($scene->column($column === 'kindclass' ? 'class' : $column), 0, $count + 1);
            for ($row = 1; $row <= $count; $row++) {
                $value = match ($column) {
                    'kind' => ord($kinds[$row]),
                    'kindclass' => self::ofKind(ord($kinds[$row]), $codes[$row]),
                    default => $codes[$row],
                };
                $rows[$value] = ($rows[$value] ?? 0) + 1;
                $triangles[$value] = ($triangles[$value] ?? 0) + $sums[$row + 1] - $sums[$row];
            }
        }
        $packed = '';
        foreach ($rows as $value => $number) {
            $packed .= pack('VVP', $value, $number, $triangles[$value]);
        }

        return $packed;
    }
}
