<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** A condition on a number: compared with one, or within a range. */
final readonly class NumberIs implements Node
{
    public function __construct(
        /** A measure, or a property of the file as it was written. */
        public string $field,
        public NumberTest $test,
        /** The number, or the lower end of a range: null when it is open. */
        public ?Quantity $number,
        /** The upper end of a range: null when it is open. */
        public ?Quantity $upTo = null,
        public bool $isProperty = false,
    ) {}

    public function accept(Visitor $visitor): mixed
    {
        return $visitor->numberIs($this);
    }
}
