<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Models\Casts\Bytes;
use VineShelf\Geometry\Affine;
use VineShelf\Scene\Kind;

/**
 * The cameras that came with the model.
 *
 * @phpstan-type ModelCamera array{object: int, name: string, eye: list<float>, way: list<float>, up: list<float>, fov: float, tall?: float}
 */
final class ModelCameras
{
    private const MOST = 500;

    /** Metres from a camera of the model to what it is taken to look at. */
    private const AHEAD = 5.0;

    /** @return list<ModelCamera> places as the canvas counts, metres; fields of view in degrees */
    public static function of(Bench $bench): array
    {
        [$x, $y, $z] = $bench->facts()->origin();
        $cameras = [];
        foreach (
            $bench->project
                ->objects()
                ->where('kind', Kind::Camera->value)
                ->where('gone', false)
                ->orderBy('position')
                ->limit(self::MOST)
                ->get(['project_id', 'no', 'name', 'kind', 'transform', 'properties']) as $object
        ) {
            $m = Affine::unpack(Affine::lengthened(Bytes::read($object->getAttributes()['transform'])));
            $camera = is_array($object->properties['camera'] ?? null) ? $object->properties['camera'] : [];
            $tall = is_numeric($camera['ymag'] ?? null) ? 2 * (float) $camera['ymag'] : null;
            $cameras[] =
                [
                    'object' => $object->no,
                    'name' => $object->name === '' ? 'Unnamed camera' : $object->name,
                    'eye' => [$m[3] - $x, $m[7] - $y, $m[11] - $z],
                    // A camera of the file looks along its own -z.
                    'way' => [-$m[2], -$m[6], -$m[10]],
                    'up' => [$m[1], $m[5], $m[9]],
                    'fov' => is_numeric($camera['yfov'] ?? null) ? rad2deg((float) $camera['yfov']) : 40.0,
                ] + ($tall === null ? [] : ['tall' => $tall]);
        }

        return $cameras;
    }

    /**
     * One of them as views keep cameras.
     *
     * @param ModelCamera $camera
     *
     * @return array{eye: list<float>, target: list<float>, fov: float, tall?: float, up?: list<float>}
     */
    public static function sight(array $camera): array
    {
        $target = array_map(static fn (float $eye, float $way): float => $eye + self::AHEAD * $way, $camera['eye'], $camera['way']);

        return ['eye' => $camera['eye'], 'target' => $target, 'fov' => $camera['fov']] +
            (isset($camera['tall']) ? ['tall' => $camera['tall']] : []) + ['up' => $camera['up']];
    }
}
