<?php

declare(strict_types=1);

namespace VineShelf\Views\Follows;

use VineShelf\Scene\Bits;
use VineShelf\Views\KeptState;
use VineShelf\Views\Known;
use VineShelf\Views\Resorting;

/** How one facet of an old view follows while people sort: what it has to hold so that it goes on showing what it showed. */
interface Follows
{
    /**
     * What the view is to keep from now on; the same where the facet has nothing to hold.
     *
     * @param KeptState $before  what the view kept before the change
     * @param KeptState $kept    what it keeps now, with what facets before this one hold
     * @param Bits      $counted rows that the view has something to say about: no newcomers, nothing that is gone
     */
    public function held(KeptState $before, KeptState $kept, Resorting $change, Known $known, Bits $counted): KeptState;
}
