<?php

declare(strict_types=1);

namespace VineShelf\Own;

/** A value that people gave some objects for a property of their own. Which objects have it is in the scene. */
final readonly class OwnValue
{
    /** The property that is an object's note, and the one that is its colour, hexadecimal. Names that people give begin otherwise. */
    public const NOTE = '~note';

    public const COLOUR = '~colour';

    /** The property that says what pictures are to show of an object: the word of an output setting, and a note after a space. */
    public const OUTPUT = '~output';

    /** The property that keeps an object and what it holds out of exports; its value is the reason. */
    public const EXPORT = '~export';

    public function __construct(public int $number, public string $property, public string $value) {}

    public function isNumber(): bool
    {
        return is_numeric($this->value);
    }
}
