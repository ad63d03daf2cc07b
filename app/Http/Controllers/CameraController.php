<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\ChangeViews;
use App\Changes\History;
use App\Changes\KeepCameras;
use App\Workbench\Answer;
use App\Workbench\ModelCameras;
use App\Workbench\Sight;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Views\Around;

/** Cameras by themselves: those of the model, kept as views; a turn around something; and cameras that views hold. */
final class CameraController
{
    public function __construct(private readonly History $history) {}

    /** The cameras that came with the model, to look through. */
    public function index(Bench $bench): JsonResponse
    {
        return new JsonResponse(ModelCameras::of($bench));
    }

    /** Cameras of the model become views: one, or all of them. */
    public function keep(Request $request, Bench $bench): Response
    {
        $object = $request->integer('object');
        $all = $request->boolean('all');
        $command = $this->history->carryOut($bench, static function (Bench $held) use ($object, $all): KeepCameras {
            $cameras = array_filter(ModelCameras::of($held), static fn (array $camera): bool => $all || $camera['object'] === $object);
            if ($cameras === []) {
                throw new Refused($all ? 'This model brought no cameras.' : 'That camera is no longer there.', 'object');
            }

            return new KeepCameras(
                $held,
                array_values(array_map(static fn (array $camera): array => [$camera['name'], ModelCameras::sight($camera)], $cameras)),
                'Cameras of the model',
            );
        });

        return $this->answer($request, $bench, $command);
    }

    /** Asks how many cameras are to go around the pick. */
    public function askAround(Bench $bench): View
    {
        return view('workbench.around', ['bench' => $bench, 'most' => Around::MOST]);
    }

    /** Cameras around what the canvas looks at, from where it looks. */
    public function around(Request $request, Bench $bench): Response
    {
        $given = $request->validate([
            'count' => ['required', 'integer', 'between:2,'.Around::MOST],
            'name' => ['nullable', 'string', 'max:'.(ChangeViews::NAME_LENGTH - 10)],
        ]);
        $camera = Sight::in($request, 'count');
        $name = trim((string) ($given['name'] ?? '')) ?: 'Around';
        if (hypot($camera['eye'][0] - $camera['target'][0], $camera['eye'][1] - $camera['target'][1]) < 1e-6) {
            throw new Refused('From straight above there is no way around; tilt the camera first.', 'count');
        }
        $cameras = array_map(
            static fn (array $turn): array => ["$name $turn[0]°", $turn[1]],
            Around::cameras($camera, (int) $given['count']),
        );
        $command = $this->history->carryOut($bench, static fn (Bench $held): KeepCameras => new KeepCameras($held, $cameras, $name));

        return $this->answer($request, $bench, $command);
    }

    /** Views hold their cameras, or let them go. */
    public function hold(Request $request, Bench $bench): Response
    {
        $numbers = array_map(intval(...), array_filter(explode(',', $request->string('views')->value()), ctype_digit(...)));
        $on = $request->boolean('on');
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ChangeViews => ChangeViews::holdCamera($held, array_values($numbers), $on),
        );

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    private function answer(Request $request, Bench $bench, KeepCameras $command): Response
    {
        return Answer::to($bench, $request)
            ->after($command, '')
            ->with(['shelf' => "V$command->first"])
            ->send();
    }
}
