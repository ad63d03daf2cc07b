<?php

declare(strict_types=1);

namespace VineShelf\Lines\Signs;

use VineShelf\Facts\Facts;
use VineShelf\Rules\Printer;

/** The value of one property of the files. */
final readonly class Values implements Sign
{
    /** A property with more values than this says who an object is, not what. */
    private const MOST = 400;

    private function __construct(private Facts $facts, private string $name, private int $index) {}

    /** @return list<self> for every property that sorts objects into a few heaps */
    public static function all(Facts $facts): array
    {
        $all = [];
        foreach ($facts->properties() as $name => [$index]) {
            if (count($facts->words("property.$index.words")) <= self::MOST) {
                $all[] = new self($facts, (string) $name, $index);
            }
        }

        return $all;
    }

    public function codes(): array
    {
        return $this->facts->codes($this->index)->all();
    }

    public function rule(int $code): string
    {
        return Printer::property($this->name).'='.Printer::word((string) $this->facts->words("property.$this->index.words")[$code]);
    }

    public function isOwn(): bool
    {
        return true;
    }
}
