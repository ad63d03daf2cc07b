<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Group;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;

/** One line of the ledger. */
final readonly class Row
{
    public function __construct(
        /** "L5" for a layer, "O123" for an object, "K1", "K1.3", "M4", "S2" for a {@see Group}. */
        public string $key,
        /** Depth, from 1. */
        public int $level,
        public string $name,
        public string $colour,
        /** Objects inside; null for an object that holds nothing. */
        public ?int $count,
        public int $triangles,
        public Rung $own,
        public Rung $inEffect,
        /** Whether the members differ from each other. */
        public bool $mixed,
        public Lock $ownLock,
        public Lock $lock,
        /** Picked objects in it, and whether the row itself counts as picked. */
        public int $picked,
        public bool $isPicked,
        public bool $foldable,
        public bool $unfolded,
        /** "layer", what a group is, or an object's kind. */
        public string $kind,
        public bool $landing = false,
        /** @var array<string, string> text by id of the columns that the row does not draw itself */
        public array $cells = [],
    ) {}

    public function isLayer(): bool
    {
        return $this->key[0] === 'L';
    }

    public function isObject(): bool
    {
        return $this->key[0] === 'O';
    }

    public function number(): int
    {
        return (int) substr($this->key, 1);
    }

    /** Whether something other than the row's own setting holds it down. */
    public function isHeld(): bool
    {
        return $this->inEffect->value < $this->own->value;
    }
}
