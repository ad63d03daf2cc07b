<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Models\GuestComment;
use App\Models\ShareLink;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\Hash;
use Illuminate\Support\Str;
use Illuminate\View\View;

/** Links by which people without an account see views, and what they have said of them. */
final class ShareLinkController
{
    /** Days that a link lasts when nobody says otherwise, and at most. */
    private const DAYS = 30;

    private const MOST_DAYS = 730;

    public function index(Request $request, Bench $bench): View
    {
        $keys = $request->string('keys')->value();
        $links = ShareLink::query()
            ->with(['maker', 'project'])
            ->where('project_id', $bench->project->id)
            ->orderByDesc('id')
            ->limit(200)
            ->get();

        return view('workbench.share-links', [
            'bench' => $bench,
            'keys' => $keys === '' ? 'all' : $keys,
            'count' => $keys === '' ? count($bench->shelf()->within(0)) : count(ViewsController::numbers($bench, $keys)),
            'called' => self::called($bench, $keys),
            'ends' => now()->addDays(self::DAYS)->toDateString(),
            'links' => $links,
            'made' => $links->find($request->integer('made')),
            'open' => ShareLink::open($links),
        ]);
    }

    /** A new link; its address is answered once more whenever the list is looked at. */
    public function store(Request $request, Bench $bench): JsonResponse
    {
        $given = $request->validate([
            'name' => ['required', 'string', 'max:120'],
            'keys' => ['required', 'string', 'max:2000'],
            'ends' => ['required', 'date_format:Y-m-d'],
            'password' => ['nullable', 'string', 'max:200'],
        ]);
        $ends = Carbon::createFromFormat('Y-m-d', (string) $given['ends'])?->endOfDay();
        if ($ends === null || $ends->isPast() || $ends->isAfter(now()->addDays(self::MOST_DAYS))) {
            throw new Refused('A link ends between today and in two years.', 'ends');
        }
        $keys = (string) $given['keys'];
        if ($keys !== 'all') {
            ViewsController::numbers($bench, $keys);
        } elseif ($bench->shelf()->members === []) {
            throw new Refused('There are no views to share yet.', 'keys');
        }
        $token = Str::random(ShareLink::TOKEN);
        $link = ShareLink::query()->create([
            'project_id' => $bench->project->id,
            'user_id' => $bench->person->id,
            'hash' => ShareLink::hashOf($token),
            'token' => $token,
            'name' => $given['name'],
            'views' => $keys,
            'as_pictures' => ! $request->boolean('as_kept'),
            'may_pick' => $request->boolean('may_pick'),
            'may_comment' => $request->boolean('may_comment'),
            'password' => ($given['password'] ?? '') === '' ? '' : Hash::make((string) $given['password']),
            'ends_at' => $ends,
        ]);

        return new JsonResponse(['address' => route('shown', $token), 'id' => $link->id], 201);
    }

    /** A link leads nowhere from now on, also for those who have it open; or, with "back", to where it led before. */
    public function revoke(Request $request, Bench $bench, int $link): JsonResponse
    {
        $isBack = $request->boolean('back');
        $links = self::link($bench, $link)->where('ends_at', '>', now());
        $changed = $isBack
            ? $links->whereNotNull('revoked_at')->update(['revoked_at' => null])
            : $links->whereNull('revoked_at')->update(['revoked_at' => now()]);
        if ($changed === 0) {
            throw new Refused($isBack ? 'This link has ended, or was open all along.' : 'This link is no longer open.');
        }

        return new JsonResponse(['says' => $isBack ? 'The link leads to its views again.' : 'The link leads nowhere from now on.']);
    }

    /** Guests may comment from now on, or no longer; what they have said stays. */
    public function change(Request $request, Bench $bench, int $link): JsonResponse
    {
        $may = $request->boolean('may_comment');
        if (self::link($bench, $link)->update(['may_comment' => $may]) === 0) {
            throw new Refused('This link is not there.');
        }

        return new JsonResponse(['says' => $may ? 'Guests of this link may comment.' : 'Guests of this link no longer comment.']);
    }

    /** @return Builder<ShareLink> */
    private static function link(Bench $bench, int $link): Builder
    {
        return ShareLink::query()->where('project_id', $bench->project->id)->whereKey($link);
    }

    public function comments(Request $request, Bench $bench): View
    {
        $view = $bench->shelf()->members[$request->integer('view')] ?? throw new Refused('This view is no longer there.');

        return view('workbench.comments', [
            'bench' => $bench,
            'view' => $view,
            'comments' => GuestComment::query()
                ->where('project_id', $bench->project->id)
                ->where('view_no', $view->no)
                ->orderBy('id')
                ->get(),
        ]);
    }

    /** A comment is dealt with, or not after all. */
    public function settle(Request $request, Bench $bench, int $comment): JsonResponse
    {
        $done = $request->boolean('done');
        $changed = GuestComment::query()
            ->where('project_id', $bench->project->id)
            ->whereKey($comment)
            ->update(['done' => $done]);
        if ($changed === 0) {
            throw new Refused('This comment is no longer there.');
        }

        return new JsonResponse(['says' => $done ? 'Dealt with.' : 'Open again.']);
    }

    private static function called(Bench $bench, string $keys): string
    {
        $only = preg_match('~^[FV]([0-9]{1,9})$~D', $keys, $found) === 1 ? (int) $found[1] : 0;
        $named = str_starts_with($keys, 'F') ? $bench->shelf()->folders[$only] ?? null : $bench->shelf()->members[$only] ?? null;

        return mb_substr($named->name ?? $bench->project->name, 0, 120);
    }
}
