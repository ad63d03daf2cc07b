<?php

declare(strict_types=1);

namespace App\Changes;

use App\Models\Change;
use VineShelf\Scene\Bits;

/** A change that cannot be taken back or done again; the message is why, as the end of a sentence. */
final class CannotTurn extends \RuntimeException
{
    /**
     * @param array<string, Bits> $by   what was written instead; nothing where it is what the change has written
     * @param Change|null         $upon what stands on the change, if that is known
     */
    public function __construct(
        public readonly Change $change,
        string $reason,
        public readonly array $by = [],
        public readonly ?Change $upon = null,
    ) {
        parent::__construct($reason);
    }
}
