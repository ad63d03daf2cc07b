<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;

/** A view, as rules ask about it. */
final readonly class KnownView
{
    /**
     * @param \Closure(): Bits   $newer rows of the objects that came after it was kept or last reviewed
     * @param \Closure(): Levels $rungs what it shows of every row
     */
    public function __construct(public string $name, public \Closure $newer, public \Closure $rungs) {}
}
