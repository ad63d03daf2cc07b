<?php

declare(strict_types=1);

namespace VineShelf\Layers;

use VineShelf\Colours\Line;
use VineShelf\Locks\Lock;
use VineShelf\Output\Output;

/** An exclusive home for objects. */
final readonly class Layer
{
    /** The number of the layer that every project starts with. */
    public const UNSORTED = 1;

    /** @param string $colour hexadecimal, for example "#3f7a63" */
    public function __construct(
        public int $number,
        public int $parent,
        public int $position,
        public string $name,
        public string $colour,
        public Lock $lock = Lock::Open,
        public Line $line = Line::None,
        /** Whether showing one of the layers in it hides the others. */
        public bool $oneAtATime = false,
        public string $note = '',
        /** What pictures are to show of what is in it; null where nothing is set. */
        public ?Output $output = null,
        /** Why it is never in pictures. */
        public string $outputNote = '',
        /** Why exports leave out what is in it; empty for no reason. */
        public string $heldBack = '',
    ) {}

    public function isUnsorted(): bool
    {
        return $this->number === self::UNSORTED;
    }
}
