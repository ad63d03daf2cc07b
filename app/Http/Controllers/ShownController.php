<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Refused;
use App\Http\Middleware\BringShown;
use App\Models\GuestComment;
use App\Presenting\Shown;
use App\Presenting\Step;
use App\Workbench\Budget;
use App\Workbench\CutDrawing;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\RedirectResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\Support\Facades\Hash;
use Illuminate\View\View;

/** What people without an account get by a link. */
final class ShownController
{
    public function show(Request $request, Shown $shown): View|Response
    {
        $link = $shown->link;
        if ($shown->presentation()->count() === 0) {
            return response()->view('shown-closed', [], 404);
        }
        if (! $request->session()->has("visited.$link->id")) {
            $request->session()->put("visited.$link->id", 1);
            $link->visited();
        }
        $address = route('shown', $link->token);

        return view('present', [
            'title' => $link->name,
            'presentation' => $shown->presentation(),
            'revision' => $shown->bench->project->revision,
            'address' => $address,
            'shared' => $address,
            'back' => '',
            'link' => $link,
            'other' => null,
            'asPictures' => true,
            'materials' => $shown->materials(),
            'budget' => json_encode(Budget::most()),
        ]);
    }

    /** The password of a link is given. */
    public function open(Request $request, Shown $shown): RedirectResponse
    {
        $given = $request->string('password')->value();
        if (Hash::check($given, $shown->link->password)) {
            $request->session()->regenerate();
            $request->session()->put(BringShown::key($shown->link), $shown->link->password);
        } else {
            $request->session()->flash('wrong', true);
        }

        return redirect()->route('shown', $shown->link->token);
    }

    public function records(Request $request, Shown $shown): Response
    {
        $part = (int) $request->validate(['part' => ['required', 'integer', 'between:0,1000000']])['part'];

        return self::bytes($shown->presentation()->records($part), 'application/x-shelf-records');
    }

    public function step(Shown $shown, int $step): JsonResponse
    {
        abort_unless($step < $shown->presentation()->count(), 404);

        return new JsonResponse((new Step($shown->presentation(), $step))->toArray());
    }

    public function faces(Shown $shown, int $step): Response
    {
        abort_unless($step < $shown->presentation()->count(), 404);

        return self::bytes((new CutDrawing($shown->presentation()->at($step)))->bytes(), 'application/octet-stream');
    }

    public function versions(Shown $shown): Response
    {
        return self::bytes($shown->versions(), 'application/x-shelf-records');
    }

    public function pack(Shown $shown, int $pack): Response
    {
        return self::bytes($shown->pack($pack) ?? abort(404), 'model/gltf-binary');
    }

    public function texture(Shown $shown, int $texture): Response
    {
        abort_unless($shown->hasTexture($texture), 404);

        return (new KeptFileController)->texture($shown->bench->project, $texture);
    }

    /** The name of an object that a step shows, where the link says names. */
    public function object(Shown $shown, int $step, int $object): JsonResponse
    {
        abort_unless($shown->link->may_pick && $step < $shown->presentation()->count(), 404);
        $row = $shown->scene()->rowsOf([$object])[0] ?? 0;
        abort_unless($row > 0 && $shown->presentation()->shownAt($step)->has($row), 404);

        return new JsonResponse(['name' => (string) $shown->bench->project->objects()->where('no', $object)->value('name')]);
    }

    /** A guest says something of a view. */
    public function comment(Request $request, Shown $shown): JsonResponse
    {
        abort_unless($shown->link->may_comment, 404);
        $given = $request->validate([
            'view' => ['required', 'integer', 'min:1', 'max:999999999'],
            'by' => ['required', 'string', 'max:60'],
            'words' => ['required', 'string', 'max:1000'],
            // Metres, with commas between.
            'place' => ['nullable', 'string', 'regex:~^-?[0-9]{1,8}(\.[0-9]{1,9})?(,-?[0-9]{1,8}(\.[0-9]{1,9})?){2}$~D'],
        ]);
        // By its number: views may have been moved since the page was loaded.
        $view = array_column($shown->presentation()->views, null, 'no')[(int) $given['view']] ?? null;
        if ($view === null) {
            throw new Refused('This view is not shown any more.', 'view');
        }
        $most = GuestComment::query()->where('share_link_id', $shown->link->id)->count();
        if ($most >= 500) {
            throw new Refused('This link has as many comments as it takes.', 'words');
        }
        $place = $given['place'] ?? null;
        GuestComment::query()->create([
            'project_id' => $shown->bench->project->id,
            'view_no' => $view->no,
            'share_link_id' => $shown->link->id,
            'by' => $given['by'],
            'words' => $given['words'],
            'place' => is_string($place) ? array_map(floatval(...), explode(',', $place)) : null,
        ]);

        return new JsonResponse(['says' => 'Thank you. Whoever shared this sees it with the view.'], 201);
    }

    private static function bytes(string $bytes, string $type): Response
    {
        return response($bytes, 200, ['Content-Type' => $type, 'Cache-Control' => 'no-store']);
    }
}
