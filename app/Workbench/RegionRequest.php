<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\Validator;
use VineShelf\Geometry\Shapes;
use VineShelf\Picking\Camera;
use VineShelf\Picking\Region;
use VineShelf\Picking\RegionPick;
use VineShelf\Picking\Stroke;
use VineShelf\Scene\Bits;

/** A region as the canvas sends it: the shape in pixels, and the camera that it was drawn through. */
final readonly class RegionRequest
{
    /** Points that a request may have, and that are left of a lasso and of a brush's way once they are thinned. */
    private const MOST_POINTS = 20_000;

    private const LASSO = 600;

    private const BRUSH = 200;

    /** @param array{float, float, float} $eye where it is looked from, metres */
    private function __construct(private Camera $camera, private Region $region, private bool $inside, public array $eye) {}

    /** @param array{float, float, float} $origin what the canvas leaves off all places, metres */
    public static function of(Request $request, array $origin): self
    {
        $decoded = json_decode($request->string('region')->value(), true);
        $far = ['numeric', 'between:-1e7,1e7'];
        /**
         * @var array{shape: string, inside: bool, points: list<array{int|float, int|float}>, radius?: int|float, width: int|float,
         *     height: int|float, eye: list<int|float>, target: list<int|float>, up: list<int|float>, fov?: int|float, tall?: int|float,
         *     near?: int|float} $given
         */
        $given = Validator::make(is_array($decoded) ? $decoded : [], [
            'shape' => ['required', 'in:rectangle,circle,polygon,lasso,brush'],
            'inside' => ['required', 'boolean'],
            'points' => ['required', 'array', self::checkPoints(...)],
            'radius' => ['nullable', 'numeric', 'between:1,2000'],
            'width' => ['required', 'numeric', 'between:1,20000'],
            'height' => ['required', 'numeric', 'between:1,20000'],
            'eye' => ['required', 'array', 'size:3'],
            'eye.*' => $far,
            'target' => ['required', 'array', 'size:3'],
            'target.*' => $far,
            'up' => ['required', 'array', 'size:3'],
            'up.*' => ['numeric', 'between:-1,1'],
            'fov' => ['required_without:tall', 'numeric', 'between:1,170'],
            'tall' => ['required_without:fov', 'numeric', 'between:0.001,1e7'],
            'near' => ['nullable', 'numeric', 'between:0.0001,1000'],
        ])->validate();
        $place = static fn (array $list, array $offset): array => [
            (float) $list[0] + $offset[0],
            (float) $list[1] + $offset[1],
            (float) $list[2] + $offset[2],
        ];
        $eye = $place($given['eye'], $origin);
        $target = $place($given['target'], $origin);
        $up = $place($given['up'], [0.0, 0.0, 0.0]);
        $camera = isset($given['tall'])
            ? Camera::parallel($eye, $target, $up, (float) $given['tall'], (float) $given['width'], (float) $given['height'])
            : Camera::perspective(
                $eye,
                $target,
                $up,
                (float) ($given['fov'] ?? 40),
                (float) $given['width'],
                (float) $given['height'],
                (float) ($given['near'] ?? 0.02),
            );

        return new self($camera, self::region($given), $given['inside'], $eye);
    }

    /** A rule for each of thousands of points would take longer than to look for what they catch. */
    private static function checkPoints(string $field, mixed $points, \Closure $fail): void
    {
        $points = is_array($points) ? $points : [];
        if ($points === [] || count($points) > self::MOST_POINTS) {
            $fail('A region has 1 to '.number_format(self::MOST_POINTS).' points; this one has '.number_format(count($points)).'.');

            return;
        }
        foreach ($points as $point) {
            foreach (is_array($point) && count($point) === 2 && array_is_list($point) ? $point : [null] as $value) {
                if ((! is_int($value) && ! is_float($value)) || abs($value) > 20_000) {
                    $fail('A point of a region is two numbers up to 20,000 pixels.');

                    return;
                }
            }
        }
    }

    /** @param bool $everything whether what is hidden, guarded or locked is caught as well */
    public function find(Bench $bench, Shapes $shapes, bool $everything = false): Bits
    {
        return (new RegionPick(
            $bench->facts(),
            $bench->seen(),
            $shapes,
            $this->camera,
            $this->region,
            $this->inside,
            $everything,
            $bench->cutting()->section,
        ))->find();
    }

    /** @param array{shape: string, points: list<array{int|float, int|float}>, radius?: int|float} $given */
    private static function region(array $given): Region
    {
        $points = array_map(static fn (array $point): array => [(float) $point[0], (float) $point[1]], array_values($given['points']));
        if (count($points) > 3 && $given['shape'] !== 'rectangle' && $given['shape'] !== 'circle') {
            $points = Stroke::thinned($points, $given['shape'] === 'brush' ? self::BRUSH : self::LASSO);
        }
        [$x, $y] = $points[0];
        [$toX, $toY] = $points[count($points) - 1];
        while (count($points) < 3 && in_array($given['shape'], ['polygon', 'lasso'], true)) {
            $points[] = [$toX + 0.01 * count($points), $toY + 0.01];
        }
        /** @var non-empty-list<array{float, float}> $points */

        return match ($given['shape']) {
            'rectangle' => Region::rectangle($x, $y, $toX, $toY),
            'circle' => Region::circle($x, $y, max(0.5, hypot($toX - $x, $toY - $y))),
            'brush' => Region::brush($points, (float) ($given['radius'] ?? 16)),
            default => Region::polygon($points),
        };
    }
}
