<?php

declare(strict_types=1);

namespace VineShelf\Folders;

use VineShelf\Locks\Lock;
use VineShelf\Output\Output;

/** Holds tags, sets or views, and folders of the same. Only a folder of tags has a lock, and a rung on each desk. */
final readonly class Folder
{
    public function __construct(
        public int $number,
        public Holds $holds,
        /** Number of the folder that it lies in, 0 at the top. */
        public int $parent,
        public int $position,
        public string $name,
        public Lock $lock = Lock::Open,
        /** Whether showing one member hides its siblings. */
        public bool $oneAtATime = false,
        /** Of a folder of tags: what pictures are to show of what has one of them; null where nothing is set. */
        public ?Output $output = null,
        /** Why it is never in pictures. */
        public string $outputNote = '',
    ) {}
}
