<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Layers\LayerTree;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;

/** What a view makes of a desk. */
final class Applied
{
    /**
     * The rungs of a desk after a view was applied to it.
     *
     * @param int $knownLayer the newest layer that the view knows
     * @param int $newcomers  what newer layers get: a rung, or -1 to leave them as the desk has them
     */
    public static function rungs(Settings $view, Settings $desk, LayerTree $layers, int $knownLayer, int $newcomers): Settings
    {
        // A ceiling keeps the desk fast, whatever is looked at.
        $after = $view->withCeiling(Rung::from($desk->ceiling));
        foreach ($layers->walk() as [$layer]) {
            if ($layer->number > $knownLayer) {
                $after = $after->withLayers([$layer->number], $newcomers < 0 ? $desk->layer($layer->number) : Rung::from($newcomers));
            }
        }

        return $after;
    }

    public static function countNewcomers(LayerTree $layers, int $knownLayer): int
    {
        $count = 0;
        foreach ($layers->walk() as [$layer]) {
            $count += $layer->number > $knownLayer ? 1 : 0;
        }

        return $count;
    }
}
