<?php

declare(strict_types=1);

namespace VineShelf\Folders;

/** What lies in a folder: a tag, a set or a view. */
interface Shelved
{
    public function number(): int;

    /** Number of the folder that it lies in, 0 at the top. */
    public function folder(): int;

    /** Its place among its siblings, folders included. */
    public function position(): int;

    public function name(): string;
}
