<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Workbench\Bench;
use VineShelf\Layers\Layer;
use VineShelf\Rungs\Rung;

/** Layers in their order; an unfolded layer shows the layers nested in it, then its own objects. */
final class LayersLens implements Lens
{
    /** @var list<array{Layer|int, int, int}> layer and level with length 1, or layer number and level with the number of its objects */
    private array $segments = [];

    private int $total = 0;

    /** @var array<int, list<int>>|null scene rows that match, by layer */
    private ?array $matches = null;

    private readonly ObjectRows $objects;

    /**
     * @param array<int, true> $unfolded layer numbers
     * @param list<int>|null   $found    scene rows to narrow down to, null for all
     */
    public function __construct(private readonly Bench $bench, private readonly array $unfolded, ?array $found = null, private readonly string $words = '')
    {
        $this->objects = new ObjectRows($bench);
        if ($found !== null) {
            $this->matches = [];
            $layers = $bench->scene()->layers();
            foreach ($found as $row) {
                $this->matches[$layers->at($row)][] = $row;
            }
        }
        foreach ($bench->layers()->inside(0) as $number) {
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
                    $rows[$at] = $this->layer($what, $level);
                } else {
                    for ($offset = max(0, $from - $at); $offset < min($length, $from + $count - $at); $offset++) {
                        $row = $this->matches === null ? $this->bench->contents()->rowAt($what, $offset) : $this->matches[$what][$offset];
                        $objects[$at + $offset] = [$row, $level, false, false];
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
            for ($offset = max(0, $from - $at); $offset < min($length, $from + $count - $at); $offset++) {
                $keys[] = $what instanceof Layer ? "L$what->number"
                    : 'O'.$this->bench->scene()->number($this->matches === null ? $this->bench->contents()->rowAt($what, $offset) : $this->matches[$what][$offset]);
            }
            $at += $length;
        }

        return $keys;
    }

    public function position(string $key): ?int
    {
        $at = 0;
        $number = (int) substr($key, 1);
        $row = $key[0] === 'O' ? $this->bench->scene()->row($number) : 0;
        $home = $row === 0 ? 0 : $this->bench->scene()->layers()->at($row);
        foreach ($this->segments as [$what, , $length]) {
            if ($what instanceof Layer) {
                if ($row === 0 && $what->number === $number) {
                    return $at;
                }
            } elseif ($what === $home) {
                if ($this->matches !== null) {
                    $offset = array_search($row, $this->matches[$what], true);

                    return $offset === false ? null : $at + $offset;
                }
                $offset = 0;
                foreach ($this->bench->contents()->ranges($what) as [$first, $last]) {
                    if ($row >= $first && $row <= $last) {
                        return $at + $offset + $row - $first;
                    }
                    $offset += $last - $first + 1;
                }
            }
            $at += $length;
        }

        return null;
    }

    /** @return bool whether anything was laid */
    private function lay(int $number, int $level): bool
    {
        $layer = $this->bench->layers()->get($number);
        $segments = count($this->segments);
        $this->add([$layer, $level, 1]);
        $own = $this->matches === null ? $this->bench->contents()->objects($number) : count($this->matches[$number] ?? []);
        $shown = false;
        if ($this->matches !== null || isset($this->unfolded[$number])) {
            foreach ($this->bench->layers()->inside($number) as $nested) {
                $shown = $this->lay($nested, $level + 1) || $shown;
            }
            if ($own > 0) {
                $this->add([$number, $level + 1, $own]);
            }
        }
        if ($this->matches !== null && ! $shown && $own === 0 && mb_stripos($layer->name, $this->words) === false) {
            $this->total -= 1;
            array_splice($this->segments, $segments);

            return false;
        }

        return true;
    }

    /** @param array{Layer|int, int, int} $segment */
    private function add(array $segment): void
    {
        $this->segments[] = $segment;
        $this->total += $segment[2];
    }

    private function layer(Layer $layer, int $level): Row
    {
        $bench = $this->bench;
        $inEffect = $bench->layers()->rungs($bench->settings())[$layer->number];
        $spread = $bench->contents()->spread($layer->number, $bench->inEffect()->rungs());
        $picked = 0;
        foreach ($bench->layers()->withNested($layer->number) as $nested) {
            $picked += $bench->contents()->spread($nested, $bench->picked())[1] ?? 0;
        }
        $own = $bench->contents()->objects($layer->number);

        return new Row(
            "L$layer->number",
            $level,
            $layer->name,
            $layer->colour,
            $bench->contents()->objectsWithNested($layer->number),
            $bench->contents()->trianglesWithNested($layer->number),
            $bench->settings()->layer($layer->number),
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
        );
    }
}
