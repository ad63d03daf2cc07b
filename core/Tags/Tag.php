<?php

declare(strict_types=1);

namespace VineShelf\Tags;

use VineShelf\Colours\Line;
use VineShelf\Folders\Shelved;
use VineShelf\Locks\Lock;
use VineShelf\Output\Output;

/** A label of which an object has any number. Which objects have it is in the scene, see {@see \VineShelf\Scene\Scene::tagged()}. */
final readonly class Tag implements Shelved
{
    /** @param string $colour hexadecimal, for example "#3f7a63" */
    public function __construct(
        public int $number,
        public int $folder,
        public int $position,
        public string $name,
        public string $colour,
        public Line $line = Line::None,
        public Lock $lock = Lock::Open,
        public string $note = '',
        /** What pictures are to show of what has it; null where nothing is set. */
        public ?Output $output = null,
        /** Why it is never in pictures. */
        public string $outputNote = '',
    ) {}

    public function number(): int
    {
        return $this->number;
    }

    public function folder(): int
    {
        return $this->folder;
    }

    public function position(): int
    {
        return $this->position;
    }

    public function name(): string
    {
        return $this->name;
    }
}
