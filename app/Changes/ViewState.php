<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Models\View;
use VineShelf\Layers\Layer;
use VineShelf\Rungs\Settings;
use VineShelf\Views\Facet;

/**
 * What a view keeps of a desk, as columns of its row.
 *
 * @phpstan-type Camera array{eye: list<float>, target: list<float>, fov: float, tall?: float, up?: list<float>, aspect?: float}
 */
final class ViewState
{
    /**
     * @param list<Facet> $facets
     * @param Camera|null $camera   as the canvas has it; without one, the camera is not kept
     * @param Settings    $rungs    own rungs to keep
     *
     * @return array<string, mixed> values of the facets' columns, null for those that are not kept
     */
    public static function of(Bench $bench, array $facets, ?array $camera, Settings $rungs): array
    {
        $columns = array_fill_keys(array_values(View::COLUMNS), null);
        foreach ($facets as $facet) {
            $columns[View::COLUMNS[$facet->value]] = self::column($bench, $facet, $camera, $rungs);
        }

        return $columns;
    }

    /** @param Camera|null $camera */
    public static function column(Bench $bench, Facet $facet, ?array $camera, Settings $rungs): ?string
    {
        $desk = $bench->desk;

        return match ($facet) {
            Facet::Camera => $camera === null ? null : self::json($camera),
            Facet::Rungs => base64_encode($rungs->pack()),
            Facet::Output => base64_encode($bench->outputs()->settings()->pack()),
            Facet::Tint => self::json($desk->tint),
            Facet::Section => self::json($desk->section),
            Facet::Isolation => base64_encode($desk->isolation()->pack()),
        };
    }

    /** @return array<string, mixed> columns that say what is there now: the view knows it from now on */
    public static function known(Bench $bench): array
    {
        $layers = array_map(static fn (array $entry): int => $entry[0]->number, $bench->layers()->walk());

        return [
            'known_layer' => $bench->project->next_layer - 1,
            'known_layers' => self::json(array_values(array_diff($layers, [Layer::UNSORTED]))),
            'known_folders' => self::json(array_keys($bench->tags()->tree->folders)),
            'known_object' => $bench->project->next_object - 1,
            'known_turn' => $bench->project->next_change,
            'strangers' => null,
        ];
    }

    /** @param array<mixed> $value */
    public static function json(array $value): string
    {
        return json_encode($value === [] ? new \stdClass : $value, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }
}
