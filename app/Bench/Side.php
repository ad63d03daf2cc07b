<?php

declare(strict_types=1);

namespace App\Bench;

use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Settings;
use VineShelf\Why\Why;

/** One of the two states that a project is in for a person: the desk, or the output. */
final readonly class Side
{
    public function __construct(public bool $isOutput, public Settings $settings, public InEffect $inEffect, public Isolation $isolation) {}

    public function why(Bench $bench, int $row): Why
    {
        return Why::of($row, $bench->scene(), $bench->organizers(), $this->settings, $this->inEffect, $this->isolation);
    }

    /** As addresses and the page write it. */
    public function name(): string
    {
        return $this->isOutput ? 'output' : 'desk';
    }
}
