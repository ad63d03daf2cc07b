<?php

declare(strict_types=1);

namespace VineShelf\Sets;

use VineShelf\Folders\Shelved;

/** Objects that were selected together: by a list of members, or by a rule that is evaluated whenever it is used. */
final readonly class SelectionSet implements Shelved
{
    public function __construct(
        public int $number,
        public int $folder,
        public int $position,
        public string $name,
        /** Null for a fixed set; its members are in the scene, see {@see \VineShelf\Scene\Scene::chosen()}. */
        public ?string $rule,
        /** Members of a fixed set, those that are gone from the project included. */
        public int $members = 0,
        public string $note = '',
    ) {}

    public function isLive(): bool
    {
        return $this->rule !== null;
    }

    public function number(): int
    {
        return $this->number;
    }

    public function folder(): int
    {
        return $this->folder;
    }

    public function position(): int
    {
        return $this->position;
    }

    public function name(): string
    {
        return $this->name;
    }
}
