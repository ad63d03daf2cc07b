<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Scenes\MeshShapes;
use App\Workbench\Here;
use App\Workbench\RegionRequest;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\View\View;
use VineShelf\Picking\Ray;
use VineShelf\Picking\Sight;

/** Where things are, for the canvas to look at: places as it counts, metres without the origin. */
final class SightController
{
    private const PLACE = ['numeric', 'between:-1e7,1e7'];

    /** Everything at a place or in a region: what is hidden, guarded and behind things as well, each with why. */
    public function here(Request $request, Bench $bench): View
    {
        $asked = RegionRequest::of($request, $bench->facts()->origin());
        $rows = $asked->find($bench, new MeshShapes($bench->project, $bench->scene()), everything: true);

        return view('workbench.here', ['bench' => $bench, 'here' => Here::of($bench, $rows, $asked->eye)]);
    }

    /** Where to look at an object from so that nothing is in front of it: the eye that the canvas would take, or one around. */
    public function sight(Request $request, Bench $bench): JsonResponse
    {
        $given = $request->validate([
            'object' => ['required', 'integer'],
            'eye' => ['required', 'array', 'size:3'],
            'eye.*' => self::PLACE,
        ]);
        $row = $bench->scene()->row((int) $given['object']);
        $box = $row === 0 ? null : $bench->facts()->place($row);
        if ($box === null || $bench->seen()->rungs()->at($row) === 0) {
            return new JsonResponse(['eye' => null]);
        }
        $origin = $bench->facts()->origin();
        $eye = array_map(floatval(...), array_values($given['eye']));
        $middle = [($box[0] + $box[3]) / 2, ($box[1] + $box[4]) / 2, ($box[2] + $box[5]) / 2];
        $radius = hypot($box[3] - $box[0], hypot($box[4] - $box[1], $box[5] - $box[2])) / 2;
        $sight = new Sight($bench->facts(), $bench->seen(), new MeshShapes($bench->project, $bench->scene()));
        $found = $sight->from($row, [$eye[0] + $origin[0], $eye[1] + $origin[1], $eye[2] + $origin[2]], $middle, $radius);

        return new JsonResponse([
            'eye' => $found === null ? null : [$found[0] - $origin[0], $found[1] - $origin[1], $found[2] - $origin[2]],
        ]);
    }

    /** Where objects of a pick or with a number are, for the canvas to frame. */
    public function frame(Request $request, Bench $bench): JsonResponse
    {
        $rows = $request->has('object') ? $bench->scene()->rowsOf([$request->integer('object')]) : $bench->pickedBits()->rows();
        $box = null;
        foreach ($rows as $row) {
            $own = $bench->facts()->placeFromOrigin($row);
            if ($own !== null) {
                $box =
                    $box === null
                        ? $own
                        : [
                            min($box[0], $own[0]),
                            min($box[1], $own[1]),
                            min($box[2], $own[2]),
                            max($box[3], $own[3]),
                            max($box[4], $own[4]),
                            max($box[5], $own[5]),
                        ];
            }
        }

        return new JsonResponse(['box' => $box]);
    }

    /** Where a ray first meets what is shown: for standing on floors. */
    public function meet(Request $request, Bench $bench): JsonResponse
    {
        $given = $request->validate([
            'from' => ['required', 'array', 'size:3'],
            'from.*' => self::PLACE,
            'way' => ['required', 'array', 'size:3'],
            'way.*' => self::PLACE,
        ]);
        [$x, $y, $z] = $bench->facts()->origin();
        $from = array_map(floatval(...), array_values($given['from']));
        $way = array_map(floatval(...), array_values($given['way']));
        $ray = new Ray([$from[0] + $x, $from[1] + $y, $from[2] + $z], [$way[0], $way[1], $way[2]]);
        $met = $ray->meet($bench->facts(), $bench->seen(), new MeshShapes($bench->project, $bench->scene()));
        if ($met === null) {
            return new JsonResponse(['object' => 0]);
        }
        $at = array_map(static fn (int $axis): float => $from[$axis] + $met['distance'] * $way[$axis], [0, 1, 2]);

        return new JsonResponse(['object' => $bench->scene()->number($met['row']), 'at' => $at]);
    }
}
