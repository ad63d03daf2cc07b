<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use VineShelf\Facts\Facts;

/** The storeys of a model, as its files name them, and how high the floor of each is: where most of what stands on it has its feet. */
final readonly class Levels
{
    /** Feet that are so near to each other stand on the same floor, metres. */
    private const STEP = 0.05;

    public function __construct(private Facts $facts) {}

    public static function of(Bench $bench): self
    {
        return new self($bench->facts());
    }

    /** @return list<array{name: string, floor: float}> metres, from the lowest up */
    public function all(): array
    {
        $feet = [];
        foreach ($this->names() as $row => $name) {
            $box = $this->facts->box($row);
            if ($box !== null && $this->facts->scene->end($row) === $row) {
                $step = (int) round($box[2] / self::STEP);
                $feet[$name][$step] = ($feet[$name][$step] ?? 0) + 1;
            }
        }
        $levels = [];
        foreach ($feet as $name => $steps) {
            ksort($steps);
            $levels[] = ['name' => (string) $name, 'floor' => round(self::STEP * (int) array_search(max($steps), $steps, true), 3)];
        }
        usort($levels, static fn (array $one, array $other): int => $one['floor'] <=> $other['floor']);

        return $levels;
    }

    /** @return array<int, string> the storey of each row that names one, or that stands in something which does, by row */
    private function names(): array
    {
        $own = [];
        foreach (['level', 'storey'] as $property) {
            $name = $this->facts->propertyNamed($property);
            foreach (
                $name === null
                    ? []
                    : $this->facts
                        ->ranked('property.'.$this->facts->properties()[$name][0])
                        ->present()
                        ->rows() as $row
            ) {
                $own[$row] ??= (string) $this->facts->property($row, (string) $name);
            }
        }
        ksort($own);
        $names = [];
        foreach ($own as $row => $name) {
            // What stands in it and names another one comes later, and goes over this.
            for ($at = $row, $end = $this->facts->scene->end($row); $at <= $end; $at++) {
                $names[$at] = $name;
            }
        }

        return $names;
    }
}
