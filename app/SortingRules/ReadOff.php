<?php

declare(strict_types=1);

namespace App\SortingRules;

use App\Bench\Bench;
use VineShelf\Exchange\SortingLine;
use VineShelf\Exchange\SortingRules;
use VineShelf\Layers\Layer;
use VineShelf\Lines\Proposal;
use VineShelf\Lines\Proposed;
use VineShelf\Lines\Signs\Values;
use VineShelf\Scene\Bits;

/** Lines that are read off how a project is filed. */
final readonly class ReadOff
{
    /**
     * @param list<Proposed> $lines
     * @param list<string>   $repeating properties that say what the layers are called
     */
    private function __construct(private Bench $bench, private array $lines, private array $repeating, private bool $withRepeating) {}

    /** @param bool $withRepeating whether lines may ask for properties that only say what the layers are called */
    public static function of(Bench $bench, bool $withRepeating = false): self
    {
        $none = Bits::none($bench->scene()->count());
        $layers = [];
        foreach ($bench->layers()->walk() as [$layer]) {
            $layers[$layer->number] = $layer->name;
        }
        $signs = array_filter(Values::all($bench->facts()), static fn (Values $sign): bool => $sign->repeats($layers));
        $repeating = array_values(array_map(static fn (Values $sign): string => $sign->name, $signs));
        $find = static fn (string $rule): Bits => $bench->find($rule)->rows ?? $none;

        return new self($bench, Proposal::of($bench->facts(), $find, $withRepeating ? [] : $repeating), $repeating, $withRepeating);
    }

    /** @return array<string, mixed> what the screen shows */
    public function shown(): array
    {
        $scene = $this->bench->scene();
        $unsorted = $scene->layers()->histogram()[Layer::UNSORTED] ?? 0;

        return [
            'lines' => $this->lines,
            'repeating' => $this->repeating,
            'withRepeating' => $this->withRepeating,
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
