<?php

declare(strict_types=1);

namespace VineShelf\Exchange;

/** One line of a list that sorts, as it goes from project to project: layers and tags by their paths. */
final readonly class SortingLine
{
    /**
     * @param list<string>       $layer names from the top down; empty to leave layers alone
     * @param list<list<string>> $tags  for each tag the folders that it lies in and its name
     * @param string             $name  pattern of new names; empty to leave them alone
     * @param bool               $only  whether what a picked group holds stays out of it
     * @param bool               $goesOn whether lines below it may take its objects as well
     * @param bool               $isOff whether it is passed over
     */
    public function __construct(
        public string $rule,
        public array $layer = [],
        public array $tags = [],
        public string $name = '',
        public bool $only = false,
        public bool $goesOn = false,
        public bool $isOff = false,
        public string $note = '',
    ) {}
}
