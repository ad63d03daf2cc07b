<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\ChangeViews;
use App\Changes\History;
use App\Changes\ViewsAsTheyWere;
use App\Workbench\Answer;
use App\Workbench\Newcomers;
use App\Workbench\Sight;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Views\Facet;

/** Many views at once: what they keep, what newcomers get in them, and whether they were reviewed. */
final class ViewsController
{
    public function __construct(private readonly History $history) {}

    /** Asks what views are to keep from now on. */
    public function askFacets(Request $request, Bench $bench): View
    {
        $numbers = self::meant($request, $bench);

        return view('workbench.view-facets', [
            'bench' => $bench,
            'keys' => $request->string('keys')->value(),
            'views' => array_map(static fn (int $number) => $bench->shelf()->members[$number], $numbers),
        ]);
    }

    /** Views begin to keep what is ticked, and cease to keep what is not; what stays undecided stays as it is. */
    public function facets(Request $request, Bench $bench): Response
    {
        $said = $request->validate(
            array_fill_keys(array_map(static fn (Facet $facet): string => "keep_$facet->value", Facet::cases()), ['nullable', 'in:0,1']),
        );
        $those = static fn (string $value): array => array_values(
            array_filter(Facet::cases(), static fn (Facet $facet): bool => (string) ($said["keep_$facet->value"] ?? '') === $value),
        );
        [$take, $leave] = [$those('1'), $those('0')];
        if ($take === [] && $leave === []) {
            throw new Refused('Say what the views are to keep from now on, or no longer.', 'facets');
        }
        $camera = in_array(Facet::Camera, $take, true) ? Sight::in($request, 'facets') : null;
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ChangeViews => ChangeViews::facets($held, self::meant($request, $held), $take, $leave, $camera),
        );

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    public function newcomers(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['newcomers' => ['required', 'in:0,5,-1']]);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ChangeViews => ChangeViews::newcomers($held, self::meant($request, $held), (int) $given['newcomers']),
        );

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    /** Shows what came since views were kept, and what each does with it. */
    public function askReview(Request $request, Bench $bench): View
    {
        $keys = $request->string('keys')->value();
        $numbers = $keys === '' ? array_keys($bench->shelf()->members) : self::meant($request, $bench);

        return view('workbench.review-views', ['bench' => $bench, 'keys' => $keys, 'newcomers' => new Newcomers($bench, $numbers)]);
    }

    public function review(Request $request, Bench $bench): Response
    {
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ChangeViews => ChangeViews::review($held, self::meant($request, $held)),
        );

        return Answer::to($bench, $request)->after($command, 'They are reviewed already.')->send();
    }

    public function duplicate(Request $request, Bench $bench): Response
    {
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ChangeViews => ChangeViews::duplicate($held, self::meant($request, $held)),
        );

        return Answer::to($bench, $request)
            ->after($command, '')
            ->with(['shelf' => "V$command->last"])
            ->send();
    }

    public function destroy(Request $request, Bench $bench): Response
    {
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ChangeViews => ChangeViews::delete($held, self::meant($request, $held)),
        );

        return Answer::to($bench, $request)->after($command, '')->send();
    }

    /** Views that a change made show something differently show what they showed before it. */
    public function asTheyWere(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['change' => ['required', 'integer', 'min:1']]);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ViewsAsTheyWere => new ViewsAsTheyWere($held, (int) $given['change']),
        );

        return Answer::to($bench, $request)->after($command, 'They are as they were already.')->send();
    }

    /**
     * @return list<int> numbers of the views that are named, "V3", and of those in the folders that are, "F2"
     *
     * @throws Refused
     */
    public static function meant(Request $request, Bench $bench): array
    {
        return self::numbers($bench, $request->string('keys')->value());
    }

    /**
     * @param string $keys "V3" for a view, "F2" for those of a folder, with commas between
     *
     * @return list<int> numbers of the views
     *
     * @throws Refused
     */
    public static function numbers(Bench $bench, string $keys): array
    {
        $numbers = [];
        foreach (explode(',', $keys) as $key) {
            if (preg_match('~^([VF])([0-9]{1,9})$~D', trim($key), $found) !== 1) {
                throw new Refused('Say which views are meant.', 'keys');
            }
            $number = (int) $found[2];
            $isFolder = $found[1] === 'F' && isset($bench->shelf()->folders[$number]);
            array_push($numbers, ...$isFolder ? $bench->shelf()->within($number) : ($found[1] === 'V' ? [$number] : []));
        }
        $numbers = array_values(array_filter(array_unique($numbers), static fn (int $no): bool => isset($bench->shelf()->members[$no])));
        if ($numbers === []) {
            throw new Refused('These views are no longer there, or there are none in the folder.', 'keys');
        }

        return $numbers;
    }
}
