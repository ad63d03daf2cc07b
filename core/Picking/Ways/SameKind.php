<?php

declare(strict_types=1);

namespace VineShelf\Picking\Ways;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;

/** Everything of the same kind. */
final class SameKind implements Way
{
    public function of(Bits $pick, Facts $facts, Asked $asked): Bits
    {
        return $facts->ranked('kind')->in(Codes::of($pick, static fn (int $row): int => $facts->scene->kind($row)->value));
    }
}
