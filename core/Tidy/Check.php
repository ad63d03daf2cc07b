<?php

declare(strict_types=1);

namespace VineShelf\Tidy;

/** One habit that makes a model hard to work with. */
interface Check
{
    /** The same for ever, for example "unnamed". */
    public function id(): string;

    /** What was found, for example "12 objects have no name". */
    public function title(int $many): string;

    /** Why it matters, one or two sentences. */
    public function why(): string;

    /** @return array<string, string> what can be done about it, by id: what the button says */
    public function mends(): array;

    /** Whether what counts are the things that were found, rather than the objects in them. */
    public function countsItems(): bool;

    /** @return list<Item> the worst first */
    public function find(Model $model): array;
}
