<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Workbench\Bench;
use VineShelf\Scene\Runs;

/** All rows of a scene, sorted by a column of the ledger. */
final readonly class Sorting
{
    public function __construct(private Bench $bench) {}

    /** @return string|null packed uint32; null for the order of the scene */
    public function order(string $by, bool $down): ?string
    {
        if ($by === '') {
            return null;
        }
        $facts = $this->bench->facts();

        return match ($by) {
            'count' => $facts->order('holds', $down),
            'weigh' => $facts->order('weight', $down),
            'desk' => self::byValue($this->bench->inEffect()->rungs(), [5, 4, 3, 2, 1, 0], $down),
            'lock' => self::byValue($this->bench->inEffect()->locks(), [0, 1, 2], $down),
            'layer' => self::byValue($this->bench->scene()->layers(), array_map(static fn (array $entry): int => $entry[0]->number, $this->bench->layers()->walk()), $down),
            default => $facts->order(str_starts_with($by, 'p:') ? 'property.'.($facts->properties()[substr($by, 2)][0] ?? 0) : $by, $down),
        };
    }

    /** @param list<int> $values in the order in which they come */
    private static function byValue(Runs $runs, array $values, bool $down): string
    {
        $rows = [];
        foreach ($runs->values as $index => $value) {
            for ($row = $runs->starts[$index], $last = $runs->end($index); $row <= $last; $row++) {
                $rows[$value][] = $row;
            }
        }
        $sorted = '';
        foreach ($down ? array_reverse($values) : $values as $value) {
            if (isset($rows[$value])) {
                $sorted .= pack('V*', ...$rows[$value]);
            }
        }

        return $sorted;
    }
}
