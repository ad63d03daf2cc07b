<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use VineShelf\Facts\Ordered;
use VineShelf\Layers\Layer;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bands;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;
use VineShelf\Weights\GroupWeights;
use VineShelf\Weights\Weight;

/** Layers in their order; an unfolded layer shows the layers nested in it, then its own objects. */
final class LayersLens implements Lens
{
    /** @var list<array{Layer|int, int, int}> layer and level with length 1, or layer number and level with the number of its objects */
    private array $segments = [];

    private int $total = 0;

    /** @var array<int, int>|null how many objects match, by layer */
    private ?array $matches = null;

    /** @var array<int, RowList> by layer */
    private array $lists = [];

    private readonly ObjectRows $objects;

    private readonly Costs $costs;

    private readonly Forecast $forecast;

    /** @var array<int, array<int, Weight>> by whether at the rungs in effect, and by layer with what is nested in it */
    private array $weights = [];

    /**
     * @param array<int, true> $unfolded layer numbers
     * @param Ordered|Bands|null $order null for the order of the scene
     * @param Bits|null        $found    scene rows to narrow down to, null for all
     */
    public function __construct(
        private readonly Bench $bench,
        private readonly array $unfolded,
        private readonly Ordered|Bands|null $order = null,
        private readonly ?Bits $found = null,
        private readonly string $words = '',
        private readonly string $named = '',
        private readonly string $sortBy = '',
        private readonly bool $down = false,
    ) {
        $this->objects = new ObjectRows($bench);
        $this->costs = new Costs($bench);
        $this->forecast = new Forecast($bench);
        if ($found !== null) {
            $this->matches = $bench->scene()->layers()->histogram($found);
        }
        foreach ($this->sorted($bench->layers()->inside(0)) as $number) {
            $this->lay($number, 1);
        }
    }

    public function total(): int
    {
        return $this->total;
    }

    public function rows(int $from, int $count): array
    {
        $rows = [];
        $objects = [];
        $at = 0;
        foreach ($this->segments as [$what, $level, $length]) {
            if ($at >= $from + $count) {
                break;
            }
            if ($at + $length > $from) {
                if ($what instanceof Layer) {
                    $rows[$at] = $this->row($what, $level);
                } else {
                    $offset = max(0, $from - $at);
                    foreach ($this->list($what)->slice($offset, min($length, $from + $count - $at) - $offset) as $index => $row) {
                        $objects[$at + $offset + $index] = [$row, $level, false, false];
                    }
                }
            }
            $at += $length;
        }
        foreach ($this->objects->make(array_values($objects)) as $index => $row) {
            $rows[array_keys($objects)[$index]] = $row;
        }
        ksort($rows);

        return array_values($rows);
    }

    public function keys(int $from, int $count): array
    {
        $keys = [];
        $at = 0;
        foreach ($this->segments as [$what, , $length]) {
            $offset = max(0, $from - $at);
            $until = min($length, $from + $count - $at);
            if ($until > $offset && $what instanceof Layer) {
                $keys[] = "L$what->number";
            } elseif ($until > $offset && is_int($what)) {
                foreach ($this->list($what)->slice($offset, $until - $offset) as $row) {
                    $keys[] = 'O'.$this->bench->scene()->number($row);
                }
            }
            $at += $length;
        }

        return $keys;
    }

    public function hits(): int
    {
        return array_sum(array_map(static fn (array $segment): int => $segment[0] instanceof Layer ? 0 : $segment[2], $this->segments));
    }

    public function hit(int $index): ?int
    {
        foreach ($this->segments as [$what, , $length]) {
            if ($what instanceof Layer) {
                continue;
            }
            if ($index < $length) {
                return $this->list($what)->slice($index, 1)[0] ?? null;
            }
            $index -= $length;
        }

        return null;
    }

    public function hitOf(int $row): ?int
    {
        $before = 0;
        $home = $this->bench->scene()->layers()->at($row);
        foreach ($this->segments as [$what, , $length]) {
            if ($what === $home) {
                $place = $this->list($what)->position($row);

                return $place === null ? null : $before + $place;
            }
            $before += $what instanceof Layer ? 0 : $length;
        }

        return null;
    }

    public function position(string $key): ?int
    {
        $at = 0;
        $number = (int) substr($key, 1);
        $row = $key[0] === 'O' ? $this->bench->scene()->row($number) : 0;
        $home = $row === 0 ? 0 : $this->bench->scene()->layers()->at($row);
        foreach ($this->segments as [$what, , $length]) {
            if ($what instanceof Layer) {
                if ($row === 0 && $key[0] === 'L' && $what->number === $number) {
                    return $at;
                }
            } elseif ($what === $home) {
                $position = $this->list($what)->position($row);

                return $position === null ? null : $at + $position;
            }
            $at += $length;
        }

        return null;
    }

    /** A layer's own objects, as far as they match. */
    private function list(int $layer): RowList
    {
        $contents = $this->bench->contents();
        $found = $this->found;

        return $this->lists[$layer] ??= new RowList(
            $this->bench->scene()->count(),
            static fn (): Bits => $found === null ? $contents->rows($layer) : $contents->rows($layer)->and($found),
            $this->order,
            $this->matches === null ? $contents->objects($layer) : $this->matches[$layer] ?? 0,
        );
    }

    /** @return bool whether anything was laid */
    private function lay(int $number, int $level, bool $isIn = false): bool
    {
        $layer = $this->bench->layers()->get($number);
        [$segments, $total] = [count($this->segments), $this->total];
        $this->add([$layer, $level, 1]);
        $own = $this->matches === null ? $this->bench->contents()->objects($number) : $this->matches[$number] ?? 0;
        $isIn = $isIn || $this->named === '' || mb_stripos($layer->name, $this->named) !== false;
        $isOpen = $this->matches !== null || isset($this->unfolded[$number]);
        $shown = false;
        foreach ($isOpen || ! $isIn ? $this->sorted($this->bench->layers()->inside($number)) : [] as $nested) {
            $shown = $this->lay($nested, $level + 1, $isIn) || $shown;
        }
        if ($isOpen && $isIn && $own > 0) {
            $this->add([$number, $level + 1, $own]);
        }
        // A layer stays for what is found in it, for its name, or for what stays in it.
        $fits = $this->matches === null || $own > 0 || mb_stripos($layer->name, $this->words) !== false;
        if (! $shown && ! ($isIn && $fits)) {
            $this->total = $total;
            array_splice($this->segments, $segments);

            return false;
        }

        return true;
    }

    /** What a layer weighs with what is nested in it: once one is asked for, all are known. */
    private function weight(int $layer, bool $isDrawn): Weight
    {
        if (! isset($this->weights[(int) $isDrawn])) {
            $scene = $this->bench->scene();
            $parents = [];
            foreach ($this->bench->layers()->walk() as [$each]) {
                $parents[$each->number] = $each->parent;
            }
            $rungs = $isDrawn ? $this->bench->seen()->rungs() : Levels::constant($scene->count(), Rung::Full->value, Rung::Full->value);
            $this->weights[(int) $isDrawn] = (new GroupWeights($this->bench->facts()))->all($scene->layers(), $parents, $rungs);
        }

        return $this->weights[(int) $isDrawn][$layer] ?? new Weight;
    }

    /**
     * Layers beside each other in the order of the ledger's sorting, Unsorted on top.
     *
     * @param list<int> $numbers
     *
     * @return list<int>
     */
    private function sorted(array $numbers): array
    {
        $layers = $this->bench->layers();
        $contents = $this->bench->contents();
        $value = match ($this->sortBy) {
            'name' => static fn (int $number): string => mb_strtolower($layers->get($number)->name),
            'count' => $contents->objectsWithNested(...),
            'weigh', 'weight', 'triangles' => $contents->trianglesWithNested(...),
            default => Costs::has($this->sortBy)
                ? fn (int $number): int => Costs::of($this->sortBy, $this->weight($number, Costs::isDrawn($this->sortBy)))
                : null,
        };
        if ($value === null) {
            return $numbers;
        }
        $by = array_map($value, array_combine($numbers, $numbers));
        usort(
            $numbers,
            fn (int $a, int $b): int => [$b === Layer::UNSORTED, $this->down ? $by[$b] : $by[$a]] <=> [
                $a === Layer::UNSORTED,
                $this->down ? $by[$a] : $by[$b],
            ],
        );

        return $numbers;
    }

    /** @param array{Layer|int, int, int} $segment */
    private function add(array $segment): void
    {
        $this->segments[] = $segment;
        $this->total += $segment[2];
    }

    /** Whether it is the one that is shown in a layer whose members are shown one at a time. */
    private function isShown(Layer $layer): ?bool
    {
        $isOne =
            $layer->parent > 0 && $this->bench->layers()->has($layer->parent) && $this->bench->layers()->get($layer->parent)->oneAtATime;

        return $isOne ? $this->bench->settings()->layer($layer->number) !== Rung::Hidden : null;
    }

    private function pictures(Layer $layer): ?InPictures
    {
        $bench = $this->bench;
        if (! $bench->arrangement()->has('output')) {
            return null;
        }
        $side = $bench->outputs()->side();
        $spread = $bench->contents()->spread($layer->number, $side->inEffect->rungs());
        $inEffect = $bench->layers()->lowest($side->settings->layers, Rung::Full->value)[$layer->number];

        return new InPictures(
            $layer->output,
            Rung::from(count($spread) === 1 ? (int) array_key_first($spread) : $inEffect),
            count($spread) > 1,
            $layer->outputNote,
        );
    }

    /** The row of a layer, at a level of one's choice. */
    public function row(Layer $layer, int $level): Row
    {
        $bench = $this->bench;
        $inEffect = $bench->layers()->lowest($bench->settings()->layers, Rung::Full->value)[$layer->number];
        $spread = $bench->contents()->spread($layer->number, $bench->inEffect()->rungs());
        $picked = 0;
        foreach ($bench->layers()->withNested($layer->number) as $nested) {
            $picked += $bench->pickedByLayer()[$nested] ?? 0;
        }
        $own = $bench->contents()->objects($layer->number);

        return new Row(
            "L$layer->number",
            $level,
            $layer->name,
            $layer->colour,
            $bench->contents()->objectsWithNested($layer->number),
            $bench->contents()->trianglesWithNested($layer->number),
            $bench->settings()->layer($layer->number) ?? Rung::Full,
            Rung::from(count($spread) === 1 ? (int) array_key_first($spread) : $inEffect),
            count($spread) > 1,
            $layer->lock,
            \VineShelf\Locks\Lock::from($bench->layers()->locks()[$layer->number]),
            $picked,
            $picked > 0 && $picked === $bench->contents()->objectsWithNested($layer->number),
            $own > 0 || $bench->layers()->inside($layer->number) !== [],
            $this->matches !== null || isset($this->unfolded[$layer->number]),
            'layer',
            $bench->desk->landing_layer === $layer->number,
            $this->costs->cellsOf(fn (bool $isDrawn): Weight => $this->weight($layer->number, $isDrawn)) +
                $this->forecast->ofLayer($layer->number),
            about: new About($layer->note, $layer->line, $layer->oneAtATime, $this->isShown($layer), heldBack: $layer->heldBack),
            pictures: $this->pictures($layer),
        );
    }
}
