<?php

declare(strict_types=1);

namespace VineShelf\Lines\Signs;

use VineShelf\Facts\Facts;
use VineShelf\Rules\Printer;
use VineShelf\Search\NameIndex;

/** What their names have in common: all but the number at the end, or the first word. */
final class Names implements Sign
{
    /** @var array<string, int> code by beginning */
    private array $known = ['' => 0];

    /** @param bool $isFirstWord whether only the first word counts */
    public function __construct(private readonly Facts $facts, private readonly bool $isFirstWord) {}

    public function codes(): array
    {
        $codes = [0];
        $names = explode("\n", $this->facts->scene->column('names'));
        for ($row = 1, $count = $this->facts->scene->count(); $row <= $count; $row++) {
            $name = $names[$row];
            $beginning = $this->isFirstWord
                ? (preg_match('~^\pL{3,}(?=[^\pL])~u', $name, $word) === 1
                    ? $word[0]
                    : '')
                : NameIndex::stem($name);
            $codes[] = $this->known[$beginning] ??= count($this->known);
        }

        return $codes;
    }

    public function rule(int $code): string
    {
        $beginning = (string) array_search($code, $this->known, true);

        return match (true) {
            // Only what needs no quotes can have a star at its end.
            Printer::word($beginning) !== $beginning => Printer::quoted($beginning),
            default => "$beginning*",
        };
    }

    public function isOwn(): bool
    {
        return true;
    }
}
