<?php

declare(strict_types=1);

namespace App\Changes;

use App\Models\Change;

/** A change that cannot be taken back or done again; the message is why, as the end of a sentence. */
final class CannotTurn extends \RuntimeException
{
    public function __construct(public readonly Change $change, string $reason)
    {
        parent::__construct($reason);
    }
}
