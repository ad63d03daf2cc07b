<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/** Everything with the same name, up to its number: {@see \VineShelf\Search\NameIndex::stem()}. */
final class SameName implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        $stems = $facts->scene->column('stem');
        $codes = Codes::of($pick, static fn (int $row): int => Packed::uint32At($stems, $row));
        $found = $facts->ranked('stem')->in(array_values(array_filter($codes)));

        return in_array(0, $codes, true) ? $found->or($facts->bits('unnamed')) : $found;
    }
}
