<?php

declare(strict_types=1);

use App\Bench\Bench;
use App\Changes\History;
use App\Changes\KeepView;
use App\Models\Project;
use App\Models\User;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Views\Facet;

/** Measures two hundred views: each keeps rungs of half of the layers, every tenth one of many objects as well. */
final class Viewing
{
    private const VIEWS = 200;

    /** @return array<string, array{float, float, float|null, string}> milliseconds, floor, goal in times of the floor or none, note */
    public static function requests(string $size): array
    {
        [$client, $base] = Served::client($size);
        $bench = self::keep($base);
        $median = Served::median($client, $base);
        $window = 'lens=layers&from=0&count=47';
        $views = array_values(array_map(static fn ($view): int => $view->no, $bench->shelf()->members));
        $hasObjects = static fn (int $view): bool => $bench->shelf()->members[$view]->settings()->objects !== [];
        $many = array_values(array_filter($views, $hasObjects));
        $client->post("$base/ledger", 'lens=layers&all=1&unfold=0&views=null');
        $rows = [
            'applying one of 200 views' => [
                ...$median(static fn (Client $c, int $run) => $c->post("$base/views/".$views[11 + ($run % 8)].'/apply', $window)),
                3.0,
                'views of half of the layers',
            ],
            'applying a view with 20,000 objects of their own' => [
                ...$median(static fn (Client $c, int $run) => $c->post("$base/views/".$many[$run % 2].'/apply', $window)),
                null,
                'objects scattered',
            ],
        ];
        $rows['comparing two of 200 views'] = [
            ...$median(
                static fn (Client $c, int $run) => $c->get(
                    "$base/compare?first=V".$views[11 + ($run % 8)].'&second=V'.$many[$run % 2],
                ),
            ),
            null,
            'rows, objects and weights of both',
        ];
        $client->post("$base/ledger", 'lens=layers&all=1&unfold=1&views='.urlencode('[0,"",""]'));
        $rows['a window of the grid, 60 rows of 200 views'] = [
            ...$median(static fn (Client $c, int $run) => $c->get("$base/ledger?lens=layers&count=60&from=0&across=40&left=". 8 * $run)),
            null,
            '60 rows, 40 columns',
        ];
        $columns = implode(',', array_map(static fn (int $view): string => "V$view", $views));
        $rungs = [0, 2, 5, 1];
        $rows['a block of 100 rows and 200 views'] = [
            ...$median(
                static fn (Client $c, int $run) => $c->post("$base/grid", "span=0-99&columns=$columns&rung={$rungs[$run % 4]}&$window"),
            ),
            null,
            'one change, with history',
        ];
        $client->post("$base/ledger", 'lens=layers&all=1&unfold=0&views=null');
        $known = Rows::best(5, static function () use ($bench): void {
            $bench->refresh();
            foreach ($bench->shelf()->members as $view) {
                $bench->newTo()->rows($view)->count();
            }
        });
        $rows['newcomers of 200 views'] = [$known, Rows::best(5, static fn () => $bench->refresh()), null, 'in the same process'];
        foreach (['a layer made now' => 'Late '.bin2hex(random_bytes(3)), 'a layer that they know' => null] as $what => $name) {
            $target = $name ?? $bench->layers()->get($bench->layers()->walk()[3][0]->number)->name;
            $client->post("$base/pick", 'mode=replace&lens=objects&span=0-99999');
            if ($name !== null) {
                $client->post("$base/layers", 'name='.urlencode($name));
            }
            $bench->refresh();
            $layer = 0;
            foreach ($bench->layers()->walk() as [$each]) {
                $layer = $each->name === $target ? $each->number : $layer;
            }
            $count = number_format($bench->pickedBits()->count(), 0, '', ' ');
            $rows["filing $count objects under $what, 200 views"] = [
                Rows::time(static fn () => $client->post("$base/file", "layer=$layer&with_held=0")),
                1.0,
                null,
                'once',
            ];
            $client->post("$base/undo", '');
        }

        return $rows;
    }

    private static function keep(string $base): Bench
    {
        $project = Project::query()->where('key', basename($base))->firstOrFail();
        $bench = Bench::of($project, User::query()->where('email', 'bench@marlpit.example')->firstOrFail());
        mt_srand(5);
        for ($number = count($bench->shelf()->members) + 1; $number <= self::VIEWS; $number++) {
            $settings = new Settings;
            foreach ($bench->layers()->walk() as [$layer]) {
                $settings = mt_rand(0, 1) === 0 ? $settings->withLayers([$layer->number], Rung::from(mt_rand(0, 5))) : $settings;
            }
            if ($number % 10 === 0) {
                $half = Sorting::half($bench->scene()->count(), $number)->and(Sorting::half($bench->scene()->count(), $number + 1));
                $some = $half->and(Sorting::half($bench->scene()->count(), $number + 2));
                $settings = $settings->withObjects($bench->scene()->numberBits($some), Rung::Ghost);
            }
            $facets = [Facet::Rungs, Facet::Isolation];
            app(History::class)->carryOut(
                $bench,
                static fn (Bench $held): KeepView => new KeepView($held, "View $number", $facets, null, '', $settings),
            );
        }
        $bench->refresh();

        return $bench;
    }
}
