<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\View;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Settings;

/** One of two states that are compared. */
final readonly class State
{
    public function __construct(
        /** "V3" for a view, "D" for the desk, "O" for pictures. */
        public string $key,
        public string $name,
        public Settings $settings,
        public InEffect $inEffect,
        /** The view whose picture stands for it. */
        public ?View $view,
    ) {}
}
