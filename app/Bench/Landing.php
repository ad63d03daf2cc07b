<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Desk;
use VineShelf\Layers\Layer;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;

/** Where a person's new objects go: the layer they chose, or Unsorted where that is gone; and whether they will be seen there. */
final readonly class Landing
{
    /** @param string $asWhat "unseen", "locked", "unseen and locked", or "" where nothing is the matter */
    private function __construct(public Layer $layer, public string $asWhat) {}

    public static function of(Bench $bench): self
    {
        $layers = $bench->layers();
        $layer = $layers->get($layers->has($bench->desk->landing_layer) ? $bench->desk->landing_layer : Layer::UNSORTED);
        $rung = $layers->lowest($bench->settings()->layers, Rung::Full->value)[$layer->number];
        $words = array_filter([
            $rung === Rung::Hidden->value ? 'unseen' : '',
            $layers->locks()[$layer->number] === Lock::Locked->value ? 'locked' : '',
        ]);

        return new self($layer, implode(' and ', $words));
    }

    /** Where it is wished so, a new layer is where new objects land from now on. */
    public static function inNew(Bench $bench, int $layer): void
    {
        if ($bench->desk->lands_in_new) {
            DeskChange::on($bench, static function (Desk $desk) use ($layer): void {
                $desk->landing_layer = $layer;
            });
        }
    }
}
