<?php

declare(strict_types=1);

namespace App\Ledger;

use VineShelf\Output\Output;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Rung;

/** What pictures show of a row. */
final readonly class InPictures
{
    public function __construct(
        /** What is set for it; null where nothing is, or nothing can be. */
        public ?Output $own,
        public Rung $inEffect,
        /** Whether what it holds differs. */
        public bool $mixed,
        /** Why it is never in pictures; or what it had set before it was hidden, see {@see OutputSettings::before()}. */
        public string $note = '',
    ) {}

    /** The rung that is set, Full where nothing is or the desk decides. */
    public function ownRung(): Rung
    {
        return Rung::from($this->own?->rung() ?? Rung::Full->value);
    }

    /** Why it is never in pictures; empty where nobody said, or where it is in some. */
    public function reason(): string
    {
        return $this->own === Output::Never ? $this->note : '';
    }

    /** The word of what a click gives back to a row that is hidden; "none" for nothing set. */
    public function before(): string
    {
        return $this->own === Output::Hidden ? OutputSettings::before($this->note)?->word() ?? 'none' : 'none';
    }

    public function label(): string
    {
        $effect = $this->mixed ? 'Mixed' : $this->inEffect->label();

        return match (true) {
            $this->own === null => "In pictures $effect, nothing set",
            $this->own->rung() === $this->inEffect->value && $this->own->value <= 5 => "In pictures $effect",
            default => "In pictures $effect, set to {$this->own->label()}",
        };
    }
}
