<?php

declare(strict_types=1);

namespace App\SortingRules;

use App\Bench\Bench;
use VineShelf\Exchange\SortingLine;
use VineShelf\Exchange\SortingRules;
use VineShelf\Layers\Layer;
use VineShelf\Lines\Proposal;
use VineShelf\Lines\Proposed;
use VineShelf\Scene\Bits;

/** Lines that are read off how a project is filed. */
final readonly class ReadOff
{
    /** @param list<Proposed> $lines */
    private function __construct(private Bench $bench, private array $lines) {}

    public static function of(Bench $bench): self
    {
        $none = Bits::none($bench->scene()->count());

        return new self($bench, Proposal::of($bench->facts(), static fn (string $rule): Bits => $bench->find($rule)->rows ?? $none));
    }

    /** @return array<string, mixed> what the screen shows */
    public function shown(): array
    {
        $scene = $this->bench->scene();
        $unsorted = $scene->layers()->histogram()[Layer::UNSORTED] ?? 0;

        return [
            'lines' => $this->lines,
            'list' => new SortingRules(
                array_map(
                    fn (Proposed $line): SortingLine => new SortingLine(
                        $line->rule,
                        Paths::layerNames($this->bench, $line->layer),
                        only: $line->only,
                    ),
                    $this->lines,
                ),
            ),
            'filed' => $scene->count() - $unsorted,
            'explained' => array_sum(array_map(static fn (Proposed $line): int => $line->explained, $this->lines)),
        ];
    }
}
