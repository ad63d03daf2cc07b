<?php

declare(strict_types=1);

namespace VineShelf\Views\Follows;

use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Views\Holding;
use VineShelf\Views\KeptState;
use VineShelf\Views\Known;
use VineShelf\Views\Resorting;

/** Rungs are held where objects go under what the view does not know, and where they leave groups; those of pictures by themselves. */
final readonly class Rungs implements Follows
{
    public function held(KeptState $before, KeptState $kept, Resorting $change, Known $known, Bits $counted): KeptState
    {
        if ($before->rungs === null) {
            return $kept;
        }
        $held = static fn (Settings $settings): Settings => $change->regrouping->held(
            (new Holding($change->shift, $known, $settings, $settings, $counted))->settings(),
        );

        return $kept->withRungs($held($before->rungs), $before->meant === null ? null : $held($before->meant));
    }
}
