<?php

declare(strict_types=1);

namespace VineShelf\Tidy;

use VineShelf\Scene\Bits;

/** One thing that a check has found: some objects, or something that people sort by, or both. */
final readonly class Item
{
    /**
     * @param string       $key  the same whenever the same is found again
     * @param string       $says what it is, for example "Seat_shell, Seat Shell"
     * @param Bits         $rows scene rows of the objects
     * @param list<string> $of   keys of layers, tags, folders and sets: "L5", "T2", "F1", "E3"
     */
    public function __construct(public string $key, public string $says, public Bits $rows, public array $of = []) {}
}
