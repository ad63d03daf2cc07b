<?php

declare(strict_types=1);

namespace VineShelf\Bcf;

/** What BCF calls a topic: a title and words, and viewpoints to them. */
final readonly class Topic
{
    /**
     * @param string          $guid    lower case, with dashes
     * @param string          $created date and time as ISO 8601
     * @param list<string>    $labels
     * @param list<Viewpoint> $viewpoints
     */
    public function __construct(
        public string $guid,
        public string $title,
        public string $description,
        public string $author,
        public string $created,
        public array $labels = [],
        public array $viewpoints = [],
        /** Its place among the topics. */
        public int $index = 0,
    ) {}
}
