<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edits;

/** A change that a person can make. It works out its edits once, when it is made, inside the transaction that carries it out. */
abstract class Command
{
    /** Set when there was something to change. */
    public bool $recorded = false;

    /** What was left alone and why, a sentence; empty when nothing was. */
    public string $leftAlone = '';

    /** What the change is called in the history, for example "File 214 objects under Glazing". */
    abstract public function name(): string;

    abstract public function edits(): Edits;
}
