<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use VineShelf\Facts\Ordered;
use VineShelf\Own\OwnValue;
use VineShelf\Scene\Bands;
use VineShelf\Scene\Bits;

/** All rows of a scene, sorted by a column of the ledger. */
final readonly class Sorting
{
    public function __construct(private Bench $bench) {}

    /** @return Ordered|Bands|null null for the order of the scene */
    public function order(string $by, bool $down): Ordered|Bands|null
    {
        if ($by === '') {
            return null;
        }
        $facts = $this->bench->facts();

        return match ($by) {
            'count' => $facts->order('holds', $down),
            'weigh' => $facts->order('weight', $down),
            'desk' => Bands::ofLevels($this->bench->inEffect()->rungs(), $down ? [0, 1, 2, 3, 4, 5] : [5, 4, 3, 2, 1, 0]),
            'output' => Bands::ofLevels(
                $this->bench->outputs()->side()->inEffect->rungs(),
                $down ? [0, 1, 2, 3, 4, 5] : [5, 4, 3, 2, 1, 0],
            ),
            'lock' => Bands::ofLevels($this->bench->inEffect()->locks(), $down ? [2, 1, 0] : [0, 1, 2]),
            'layer' => self::byLayer($this->bench, $down),
            'picked' => Bands::ofSets($this->bench->scene()->count(), [$this->bench->pickedBits()]),
            Forecast::COLUMN => Bands::ofSets($this->bench->scene()->count(), (new Forecast($this->bench))->sets(), $down),
            'drawn', 'drawnvertices', 'drawncalls', 'drawnbytes' => (new Costs($this->bench))->order($by, $down),
            default => str_starts_with($by, 'p:') ? $this->byProperty(substr($by, 2), $down) : $facts->order($by, $down),
        };
    }

    private function byProperty(string $name, bool $down): Ordered|Bands
    {
        $facts = $this->bench->facts();
        $own = $facts->propertyNamed($name) === null ? $this->bench->organizers()->own->named($name) : null;
        if ($own === null) {
            return $facts->order('property.'.($facts->properties()[$name][0] ?? 0), $down);
        }
        $scene = $this->bench->scene();
        $sets = array_map(
            static fn (OwnValue $value): Bits => $scene->valued($value->number),
            $this->bench->organizers()->own->values($own),
        );

        return Bands::ofSets($scene->count(), $sets, $down);
    }

    private static function byLayer(Bench $bench, bool $down): Bands
    {
        $numbers = array_map(static fn (array $entry): int => $entry[0]->number, $bench->layers()->walk());

        return Bands::ofCoded($bench->scene()->layers(), $down ? array_reverse($numbers) : $numbers);
    }
}
