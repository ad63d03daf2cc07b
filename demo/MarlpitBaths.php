<?php

declare(strict_types=1);

namespace MarlpitBaths;

/**
 * Writes the demo: Marlpit Baths, a made-up municipal swimming hall, as an outside exporter would deliver it.
 *
 * `demo` is one hall of about 3,000 objects and 250,000 triangles; `small` is the same hall, cut as coarsely as it can be. The others are
 * the regional scheme of several such halls, cut less finely, sharing most of their meshes: `medium` about 10,000 objects, `large` 50,000
 * with 2 million triangles drawn,
 * `huge` 200,000 with 12 million. `scattered` are as many objects, of a model that is unlike the others: {@see Scattered}.
 */
final class MarlpitBaths
{
    /** size => [halls, detail] */
    public const SIZES = [
        'small' => [1, 0.2],
        'demo' => [1, 1.08],
        'medium' => [3, 0.86],
        'large' => [16, 0.6],
        'huge' => [63, 0.86],
        'scattered' => [0, 1.0],
    ];

    /** @return array{objects: int, triangles: int, bytes: int} what was written */
    public static function write(string $path, string $size): array
    {
        [$halls, $detail] =
            self::SIZES[$size] ??
            throw new \InvalidArgumentException(
                "There is no size \"$size\"; the sizes are ".implode(', ', array_keys(self::SIZES)).'.',
            );
        $model = new Model($detail);
        if ($size === 'scattered') {
            Scattered::build($model);

            return self::finish($model, $path);
        }
        $root = $model->group(null, $halls === 1 ? 'MARLPIT_BATHS_rev07' : 'MARLPIT_REGION_rev02', ['author' => 'export', 'unit' => 'm']);
        $across = (int) ceil(sqrt($halls));
        for ($hall = 0; $hall < $halls; $hall++) {
            $place = [($hall % $across) * 112.0, intdiv($hall, $across) * 96.0, 0.0];
            self::hall($model, $halls === 1 ? $root : $model->group($root, 'Hall '.($hall + 1), ['hall' => $hall + 1], $place), $hall);
        }

        return self::finish($model, $path);
    }

    /** @return array{objects: int, triangles: int, bytes: int} */
    private static function finish(Model $model, string $path): array
    {
        $out = fopen($path, 'wb');
        if ($out === false) {
            throw new \RuntimeException("The demo cannot be written to $path.");
        }
        $model->write($out);
        fclose($out);

        return ['objects' => $model->objects(), 'triangles' => $model->triangles, 'bytes' => (int) filesize($path)];
    }

    private static function hall(Model $model, int $parent, int $seed): void
    {
        Site::build($model, $parent, $seed);
        $building = $model->group($parent, 'Building', ['class' => 'Building']);
        Structure::build($model, $building);
        Facade::build($model, $building);
        Pools::build($model, $building);
        Stands::build($model, $building);
        Changing::build($model, $building);
        PlantLevel::build($model, $building);
        Rooms::build($model, $building);
        if ($seed === 0) {
            $cameras = $model->group($parent, 'Cameras');
            $model->camera($cameras, 'Hall from the south east', [34.0, -30.0, 20.0], [-2.0, 0.0, 1.0], 40);
            $model->camera($cameras, 'Pool from block 3', [-13.5, 0.4, 2.2], [8.0, -1.0, 1.2], 60);
            $model->camera($cameras, 'Stand from the gallery', [12.0, 8.0, 5.2], [-6.0, -9.0, 1.0], 55);
            $model->camera($cameras, 'Cafe corner', [13.0, -10.0, 1.8], [21.0, -14.5, 1.1], 58);
        }
    }
}
