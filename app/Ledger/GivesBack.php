<?php

declare(strict_types=1);

namespace App\Ledger;

use VineShelf\Rungs\Settings;

/** What a click gives back to rows that are hidden, for marks that show it before the server has answered. */
final readonly class GivesBack
{
    /** @param Settings $known what rows had before they were hidden, as {@see \VineShelf\Rungs\BeforeHiding} has it */
    public function __construct(private Settings $known) {}

    /** @param string $key of a row @return string "0" to "5", or "none" for nothing set */
    public function to(string $key): string
    {
        $number = (int) substr($key, 1);
        $rung = match ($key[0]) {
            'L' => $this->known->layer($number),
            'O' => $this->known->reaching($number),
            'T' => $this->known->tag($number),
            'F' => $this->known->folder($number),
            default => null,
        };

        return $rung === null ? 'none' : (string) $rung->value;
    }
}
