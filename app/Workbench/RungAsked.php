<?php

declare(strict_types=1);

namespace App\Workbench;

use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Turn;

/** The rung that a request asks for, as routes write it. */
final class RungAsked
{
    /** "0" to "5", "none" to set nothing, "hide", or "back" for what the row had before it was hidden. */
    public const RULE = 'in:0,1,2,3,4,5,none,hide,back';

    /** Null to set nothing. */
    public static function named(string $word): Rung|Turn|null
    {
        return Turn::tryFrom($word) ?? ($word === 'none' ? null : Rung::from((int) $word));
    }
}
