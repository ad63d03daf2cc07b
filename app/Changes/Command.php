<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edits;
use App\Models\Project;

/** A change that a person can make. It works out its edits once, when it is made, inside the transaction that carries it out. */
abstract class Command
{
    /** Number of the change in the history; null when there was nothing to change. */
    public ?int $change = null;

    /** How many views show something differently since, because something went under what they know. */
    public int $viewsDiffer = 0;

    /** Whether these can show what they showed before, the change left as it is. */
    public bool $viewsCanStay = false;

    /** What was left alone and why, a sentence; empty when nothing was. */
    public string $leftAlone = '';

    /** What the change is called in the history, for example "File 214 objects under Glazing". */
    abstract public function name(): string;

    abstract public function edits(): Edits;

    /** What is written when all else is: on desks, say, so that nobody waits for theirs while the change goes on. */
    public function atLast(Project $project): void {}

    /** What is said of views that show something differently; empty for none. */
    public function viewsInWords(): string
    {
        return match ($this->viewsDiffer) {
            0 => '',
            1 => '1 view shows something differently now.',
            default => "$this->viewsDiffer views show something differently now.",
        };
    }

    /** What is said of locked objects that a command met; empty for none. */
    public static function lockedInWords(int $locked): string
    {
        return $locked === 0 ? '' : number_format($locked).' locked '.($locked === 1 ? 'object was' : 'objects were').' left alone.';
    }
}
