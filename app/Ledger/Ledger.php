<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Workbench\Bench;
use VineShelf\Search\NameIndex;

/** The ledger as a person has it open: lens, what is unfolded, and the words that narrow it. */
final class Ledger
{
    public const LENSES = ['layers' => 'Layers', 'nesting' => 'Nesting'];

    private ?Lens $lens = null;

    /** @var list<int>|null */
    private ?array $found = null;

    public readonly string $name;

    public readonly string $words;

    public function __construct(private readonly Bench $bench, string $lens, string $words, public readonly int $from = 0, public readonly int $count = 60)
    {
        $this->name = isset(self::LENSES[$lens]) ? $lens : 'layers';
        $this->words = trim($words);
    }

    public function lens(): Lens
    {
        if ($this->lens === null) {
            $found = $this->words === '' ? null : $this->found();
            $this->lens = $this->name === 'nesting'
                ? new NestingLens($this->bench, $this->unfolded('objects'), $found)
                : new LayersLens($this->bench, $this->unfolded('layers'), $found, $this->words);
        }

        return $this->lens;
    }

    /** @return list<int> scene rows whose names hold the words */
    public function found(): array
    {
        return $this->found ??= NameIndex::find($this->bench->scene(), $this->words);
    }

    /** @return list<Row> */
    public function rows(): array
    {
        return $this->lens()->rows($this->from, $this->count);
    }

    /** The weight that a full bar stands for. */
    public function heaviest(): int
    {
        $heaviest = 1;
        foreach ($this->bench->layers()->inside(0) as $number) {
            $heaviest = max($heaviest, $this->bench->contents()->trianglesWithNested($number));
        }

        return $heaviest;
    }

    /** @return array<int, true> */
    private function unfolded(string $what): array
    {
        return array_fill_keys($this->bench->desk->ledger[$what === 'layers' ? 'layers' : 'objects'] ?? [], true);
    }
}
