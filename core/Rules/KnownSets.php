<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Sets\SelectionSet;

/** What live sets were found to hold, as long as nothing that they depend on has changed. */
interface KnownSets
{
    public function get(SelectionSet $set): ?Evaluated;

    public function put(SelectionSet $set, Evaluated $found): void;
}
