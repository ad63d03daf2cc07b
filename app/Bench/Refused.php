<?php

declare(strict_types=1);

namespace App\Bench;

/** A change that cannot be made; the message tells the person why and what would be right. */
final class Refused extends \RuntimeException
{
    public function __construct(string $sentence, public readonly string $field = '')
    {
        parent::__construct($sentence);
    }
}
