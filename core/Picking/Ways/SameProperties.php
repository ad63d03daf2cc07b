<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;

/** Everything that has the values which all of the pick share; of one property alone, all values that the pick has. */
final class SameProperties implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        $shared = null;
        foreach ($facts->properties() as $name => [$index]) {
            if ($asked->property !== null && $name !== $asked->property) {
                continue;
            }
            $codes = Codes::of($pick, $facts->codes($index)->at(...));
            if ($asked->property !== null ? array_filter($codes) !== [] : count($codes) === 1 && $codes[0] !== 0) {
                $rows = $facts->ranked("property.$index")->in(array_values(array_filter($codes)));
                $shared = $shared?->and($rows) ?? $rows;
            }
        }

        return ($shared ?? Bits::none($pick->length))->or($pick);
    }
}
