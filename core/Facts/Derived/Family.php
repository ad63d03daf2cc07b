<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Scene\Scene;

/** One kind of columns that follow from others. */
interface Family
{
    /** The word before the first dot of its columns' names. */
    public function name(): string;

    /** @param string $of what stands after the dot, "" for none */
    public function has(string $of): bool;

    /**
     * The columns that such a column follows from: when one of them changes, it is worked out again.
     *
     * @return list<string>
     */
    public function needs(string $of): array;

    /** @return string the packed column */
    public function make(Scene $scene, string $of): string;
}
