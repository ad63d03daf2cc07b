<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/**
 * Resolves "the lowest along the chain" for every row of a forest at once.
 *
 * A row's result is the lowest of its own value, the value that its layer has in effect, and the result of its parent. Because
 * rows are numbered depth-first, a cause covers a range of rows, and the result is built from runs:
 *
 * 1. every run of rows in one layer starts from that layer's value;
 * 2. where such a run ends inside the subtree of one of its own rows, the topmost of those rows is a cause for its whole subtree;
 * 3. an own value is a cause for its row's subtree;
 * 4. the causes are nested or apart, so one sweep with a stack of "lowest so far" writes the result.
 *
 * Cost: the runs and the causes, not the rows. A loop over all rows stands in the tests and must agree.
 */
final class SubtreeCauses
{
    /**
     * @param Runs            $layers     layer number per row
     * @param string          $parents    packed uint32 per row, 0 for a root; entry 0 is unused
     * @param string          $ends       packed uint32 per row: last row of the row's subtree; entry 0 is unused
     * @param array<int, int> $layerValue value in effect by layer number
     * @param array<int, int> $own        own value by row, only where it is below $most
     * @param int             $most       the value of a row that nothing holds down
     */
    public static function resolve(Runs $layers, string $parents, string $ends, array $layerValue, array $own, int $most): Runs
    {
        $base = $layers->map(static fn (int $layer): int => $layerValue[$layer] ?? $most);

        return self::sweep($base, self::causes($base, $parents, $own, $most), $ends, $most);
    }

    /**
     * @param array<int, int> $own
     *
     * @return array<int, int> value by row, ascending rows; each holds for the row's whole subtree
     */
    private static function causes(Runs $base, string $parents, array $own, int $most): array
    {
        $causes = $own;
        foreach ($base->values as $index => $value) {
            $next = $base->starts[$index + 1] ?? 0;
            if ($value >= $most || $next === 0) {
                continue;
            }
            $start = $base->starts[$index];
            $top = 0;
            $row = Packed::uint32At($parents, $next);
            while ($row >= $start) {
                $top = $row;
                $row = Packed::uint32At($parents, $row);
            }
            if ($top !== 0 && ($causes[$top] ?? $most) > $value) {
                $causes[$top] = $value;
            }
        }
        ksort($causes);

        return $causes;
    }

    /** @param array<int, int> $causes */
    private static function sweep(Runs $base, array $causes, string $ends, int $most): Runs
    {
        $build = new RunsBuilder;
        $starts = $base->starts;
        $values = $base->values;
        $runs = count($starts);
        $run = 0;
        $lowest = [$most];
        $until = [PHP_INT_MAX];
        $depth = 0;
        $baseValue = $most;
        $causes[$base->length + 1] = $most;
        foreach ($causes as $row => $value) {
            // Everything that changes before this cause: base runs that start, causes that end.
            while (true) {
                $nextRun = $run < $runs ? $starts[$run] : PHP_INT_MAX;
                $nextEnd = $until[$depth] === PHP_INT_MAX ? PHP_INT_MAX : $until[$depth] + 1;
                $at = $nextRun < $nextEnd ? $nextRun : $nextEnd;
                if ($at > $row || $at > $base->length) {
                    break;
                }
                while ($depth > 0 && $until[$depth] < $at) {
                    $depth--;
                }
                if ($nextRun === $at) {
                    $baseValue = $values[$run++];
                }
                $build->run($at, min($baseValue, $lowest[$depth]));
            }
            if ($row > $base->length) {
                break;
            }
            $depth++;
            $lowest[$depth] = min($value, $lowest[$depth - 1]);
            $until[$depth] = Packed::uint32At($ends, $row);
            $build->run($row, min($baseValue, $lowest[$depth]));
        }

        return $build->finish($base->length);
    }
}
