<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** Something that a rule names and that is not there: the rule still works and picks nothing for it. */
final readonly class Remark
{
    public function __construct(
        public string $sentence,
        /** First character, counted from 0. */
        public int $at,
        public int $length,
    ) {}
}
