<?php

declare(strict_types=1);

namespace App\Scenes;

use VineShelf\Facts\Derived;
use VineShelf\Scene\MissingColumn;

/** What derived columns follow from, in the columns of one revision. */
final readonly class DerivedNames
{
    public function __construct(private Manifest $base, private ?Manifest $facts) {}

    /**
     * @return list<string>|null for each column that it needs, the file that it is read from, or where that is derived too, what it follows
     * from; null when one of them has no file
     */
    public function from(string $name): ?array
    {
        try {
            $sources = array_map(fn (string $need): ?string => $this->source($need), Derived::needs($name));
        } catch (MissingColumn) {
            return null;
        }

        return in_array(null, $sources, true) ? null : array_values(array_filter($sources, is_string(...)));
    }

    private function source(string $name): ?string
    {
        if (Derived::has($name)) {
            $from = $this->from($name);

            return $from === null ? null : $name.'('.implode(',', $from).')';
        }

        return $this->base->file($name) ?: ($this->facts?->file($name) ?: null);
    }
}
