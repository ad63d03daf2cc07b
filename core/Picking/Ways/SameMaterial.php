<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/** Everything drawn with one of its materials. */
final class SameMaterial implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        $surfaces = $facts->scene->column('surfaces');
        $materials = [];
        foreach (Codes::of($pick, static fn (int $row): int => Packed::uint32At($surfaces, $row)) as $code) {
            $materials += array_flip($facts->surfaceLists()[$code]);
        }
        $codes = [];
        foreach ($facts->surfaceLists() as $code => $list) {
            if (array_intersect_key(array_flip($list), $materials) !== []) {
                $codes[] = $code;
            }
        }

        return $facts->ranked('surfaces')->in($codes)->or($pick);
    }
}
