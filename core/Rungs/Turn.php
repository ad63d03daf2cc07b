<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

/** What a click on a rung mark does: it hides a row, or gives back what the row had before it was hidden. */
enum Turn: string
{
    case Hide = 'hide';
    case Back = 'back';

    /** Names a step of the desk or of the history. */
    public function label(): string
    {
        return $this === self::Hide ? Rung::Hidden->label() : 'Shown again';
    }
}
