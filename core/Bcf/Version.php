<?php

declare(strict_types=1);

namespace VineShelf\Bcf;

/** The versions of BCF that are read and written. */
enum Version: string
{
    case V21 = '2.1';
    case V30 = '3.0';

    /** Degrees that a field of view has at least and at most. */
    public const FIELDS = ['2.1' => [45.0, 60.0], '3.0' => [0.1, 179.9]];

    /** The field of view that the version can say. */
    public function field(float $degrees): float
    {
        [$least, $most] = self::FIELDS[$this->value];

        return max($least, min($most, $degrees));
    }
}
