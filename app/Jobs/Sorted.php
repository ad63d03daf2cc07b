<?php

declare(strict_types=1);

namespace App\Jobs;

use VineShelf\Layers\SortBy;

/** How what a file brings is to be sorted. */
final readonly class Sorted
{
    /**
     * @param string $property  name of the property that {@see SortBy::Property} goes by
     * @param string $tagsFrom  name of a property that tags are made from, "" for none
     * @param string $separator what stands between several values in one
     */
    public function __construct(
        public SortBy $by = SortBy::Best,
        public string $property = '',
        public string $tagsFrom = '',
        public string $separator = '',
    ) {}
}
