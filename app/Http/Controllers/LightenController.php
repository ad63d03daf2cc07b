<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Jobs\Lighten;
use App\Lighten\Applying;
use App\Lighten\Asked;
use App\Lighten\Proposing;
use App\Models\Desk;
use App\Models\Lightening;
use App\Workbench\Answer;
use App\Workbench\PickMode;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Illuminate\Support\Facades\Validator;
use Illuminate\Support\Str;
use Illuminate\View\View;
use Symfony\Component\HttpFoundation\StreamedResponse;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Pick;

/** Rungs that fit a budget: asks for a proposal, shows how far it is and what it loses, applies it and gives it back. */
final class LightenController
{
    /** Views that are looked from. */
    private const VIEWS = 12;

    public function store(Request $request, Bench $bench): View
    {
        $given = $request->validate([
            'triangles' => ['required', 'integer', 'between:0,2000000000'],
            'side' => ['required', 'in:'.implode(',', Asked::SIDES)],
            'by' => ['required', 'in:'.implode(',', Asked::BY)],
            'from' => ['required', 'in:'.implode(',', Asked::FROM)],
            'views' => ['nullable', 'string', 'max:200', 'regex:~^\d{1,9}(,\d{1,9})*$~D'],
            'camera' => ['nullable', 'string', 'max:2000'],
            'keep' => ['nullable', 'boolean'],
            'hides' => ['nullable', 'boolean'],
        ]);
        $from = (string) $given['from'];
        $views = $from === 'views' ? self::views($bench, (string) ($given['views'] ?? '')) : [];
        $asked = new Asked(
            (int) $given['triangles'],
            (string) $given['side'],
            (string) $given['by'],
            $from,
            $from === 'camera' ? [self::camera((string) ($given['camera'] ?? ''))] : array_values($views),
            $request->boolean('keep') && $bench->pick()->count() > 0 ? $bench->scene()->numberBits($bench->pickedBits()) : null,
            $request->boolean('hides'),
            array_keys($views),
        );
        // At once what can be said from sizes alone; what is seen takes longer.
        $guess = (new Proposing($bench, $asked))->quick();
        $lightening = DB::transaction(static function () use ($bench, $asked, $guess): Lightening {
            self::own($bench)
                ->whereNotIn('state', ['done', 'failed', 'stopped'])
                ->update(['stop' => true]);
            $lightening = Lightening::query()->create([
                'key' => Str::lower(Str::random(20)),
                'project_id' => $bench->project->id,
                'user_id' => $bench->person->id,
                'wanted' => $asked->toArray(),
                'report' => $guess->report,
            ]);
            Lighten::dispatch($lightening->id);

            return $lightening;
        });

        return self::shown($bench, $lightening);
    }

    public function show(Bench $bench, string $lightening): View
    {
        return self::shown($bench, self::found($bench, $lightening));
    }

    public function stop(Bench $bench, string $lightening): View
    {
        $own = self::found($bench, $lightening);
        $own->update(['stop' => true] + ($own->state === 'waiting' ? ['state' => 'stopped', 'says' => 'Stopped.'] : []));

        return self::shown($bench, $own);
    }

    public function apply(Request $request, Bench $bench, string $lightening): Response
    {
        $own = self::found($bench, $lightening);
        $says = Applying::apply($bench, $own);

        return Answer::to($bench, $request)->saying($says, self::undo($own))->send();
    }

    public function giveBack(Request $request, Bench $bench, string $lightening): Response
    {
        $own = self::found($bench, $lightening);
        $says = Applying::giveBack($bench, $own);

        return Answer::to($bench, $request)->saying($says, self::undo($own))->send();
    }

    /** Picks what is lowered, all of it or within a layer. */
    public function pick(Request $request, Bench $bench, string $lightening): Response
    {
        $mode = PickMode::in($request);
        $given = $request->validate(['layer' => ['nullable', 'integer', 'min:0', 'max:999999999']]);
        $settings = self::found($bench, $lightening)->settings();
        $scene = $bench->scene();
        $rows = Bits::none($scene->count());
        foreach ($settings->objects as $numbers) {
            $rows = $rows->or($scene->rowBits($numbers));
        }
        foreach ($settings->layers as $layer => $_) {
            foreach ($bench->layers()->has($layer) ? $bench->layers()->withNested($layer) : [] as $nested) {
                $rows = $rows->or($bench->contents()->rows($nested));
            }
        }
        $layer = (int) ($given['layer'] ?? 0);
        $rows = $layer === 0 ? $rows : $rows->and($scene->layers()->rowsOf([$layer => true]));
        $numbers = $scene->numberBits($rows);
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putPick($mode->of($desk->pick(), Pick::of(), $numbers)));

        return Answer::to($bench, $request)->send();
    }

    public function picture(Bench $bench, string $lightening, string $picture): StreamedResponse
    {
        $file = self::found($bench, $lightening)->file($picture);
        abort_unless(Storage::disk('local')->exists($file), 404);

        return Storage::disk('local')->response($file, null, [
            'Content-Type' => 'image/png',
            'Cache-Control' => 'private, max-age=86400, immutable',
        ]);
    }

    /** The last that a person asked for in a project; null for none. */
    public static function last(Bench $bench): ?Lightening
    {
        return self::own($bench)->orderByDesc('id')->first();
    }

    private static function shown(Bench $bench, Lightening $lightening): View
    {
        return view('workbench.lightening', ['bench' => $bench, 'lightening' => $lightening, 'asked' => Asked::of($lightening)]);
    }

    /** @return Builder<Lightening> those that the person asked for themself: nobody else has to know of them */
    private static function own(Bench $bench): Builder
    {
        return Lightening::query()->where('project_id', $bench->project->id)->where('user_id', $bench->person->id);
    }

    private static function found(Bench $bench, string $key): Lightening
    {
        return self::own($bench)->where('key', $key)->firstOrFail();
    }

    private static function undo(Lightening $lightening): string
    {
        return Asked::of($lightening)->side === 'output' ? 'project' : 'desk';
    }

    /**
     * @return array<string, mixed> from the origin of the scene, as the canvas counts
     *
     * @throws Refused
     */
    private static function camera(string $text): array
    {
        $far = ['numeric', 'between:-1e7,1e7'];
        $decoded = json_decode($text, true);
        $given = Validator::make(is_array($decoded) ? $decoded : [], [
            'eye' => ['required', 'array', 'size:3'],
            'eye.*' => $far,
            'target' => ['required', 'array', 'size:3'],
            'target.*' => $far,
            'up' => ['nullable', 'array', 'size:3'],
            'up.*' => ['numeric', 'between:-1,1'],
            'fov' => ['nullable', 'numeric', 'between:1,170'],
            'tall' => ['nullable', 'numeric', 'between:0.001,1e7'],
            'width' => ['nullable', 'numeric', 'between:1,20000'],
            'height' => ['nullable', 'numeric', 'between:1,20000'],
        ]);
        if ($given->fails()) {
            throw new Refused('The camera could not be read; move it a little and try again.', 'from');
        }

        return array_map(
            static fn (mixed $value): mixed => is_array($value)
                ? array_map(floatval(...), array_values($value))
                : (is_numeric($value)
                    ? (float) $value
                    : $value),
            array_filter($given->validated(), static fn (mixed $value): bool => $value !== null),
        );
    }

    /**
     * @return array<int, array<string, mixed>> cameras by number of the view
     *
     * @throws Refused
     */
    private static function views(Bench $bench, string $numbers): array
    {
        $cameras = [];
        $wanted = $numbers === '' ? [] : array_map(intval(...), explode(',', $numbers));
        if (count($wanted) > self::VIEWS) {
            throw new Refused('At most '.self::VIEWS.' views can be looked from at once.', 'views');
        }
        foreach ($bench->shelf()->members as $view) {
            if (in_array($view->no, $wanted, true) && $view->camera !== null) {
                $cameras[$view->no] = $view->camera;
            }
        }

        return $cameras === [] ? throw new Refused('Choose at least one view that keeps a camera.', 'views') : $cameras;
    }
}
