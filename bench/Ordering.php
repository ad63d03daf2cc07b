<?php

declare(strict_types=1);

use App\Bench\Bench;
use App\Jobs\Tidy;
use App\Models\Project;
use App\Models\Tidying;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use VineShelf\Exchange\SortingLine;
use VineShelf\Exchange\SortingRules;

/** Measures sorting that does itself, and what is done with many objects: forty rules, regrouping, copies, tidy, each taken back. */
final class Ordering
{
    private const RULES = 40;

    private const GROUPED = 50_000;

    private const COPIES = 10_000;

    /** @return array<string, array{float, float, float|null, string}> milliseconds, floor, goal in times of the floor, what the floor is */
    public static function requests(string $size): array
    {
        [$client, $base] = Served::client($size);
        $project = Project::query()->where('key', basename($base))->firstOrFail();
        $person = User::query()->where('email', 'bench@marlpit.example')->firstOrFail();
        $bench = Bench::of($project, $person);
        $client->post("$base/sorting-rules/read", http_build_query(['list' => self::rules($bench)->write()]));
        $empty = Rows::time(static fn () => $client->get("$base/pulse?{$client->known()}", 204));
        $is = 'an empty authenticated request';
        $rows = [
            'dry run of 40 rules' => [Rows::time(static fn () => $client->get("$base/sorting-rules")), $empty, null, $is],
            'a run of 40 rules' => [Rows::time(static fn () => $client->post("$base/sorting-rules/run", '')), $empty, null, $is],
            'taking that back' => [Rows::time(static fn () => $client->post("$base/undo", '')), $empty, null, $is],
            'rules read off the model' => [Rows::time(static fn () => $client->get("$base/sorting-rules/proposed")), $empty, null, $is],
        ];
        $bench->refresh();
        $roots = self::some($bench, self::GROUPED);
        $update = self::bare($project, $roots);
        self::pick($project, $person, $roots);
        $many = number_format(count($roots), 0, '', ' ');
        $bare = 'the bare UPDATE of those rows';
        $rows["grouping $many objects"] = [
            Rows::time(static fn () => $client->post("$base/objects/group", 'name=All')),
            $update,
            null,
            $bare,
        ];
        $rows["taking back grouping $many objects"] = [Rows::time(static fn () => $client->post("$base/undo", '')), $update, null, $bare];
        self::pick($project, $person, array_slice($roots, 0, 1));
        $rows['10 000 copies'] = [
            Rows::time(static fn () => $client->post("$base/objects/copy", 'way=row&x=1&count='.self::COPIES)),
            $empty,
            null,
            $is,
        ];
        $rows['taking back 10 000 copies'] = [Rows::time(static fn () => $client->post("$base/undo", '')), $empty, null, $is];
        $client->post("$base/tidy/run", '');
        $tidying = (int) Tidying::query()->max('id');
        $rows['a tidy run'] = [Rows::time(static fn () => (new Tidy($tidying))->handle()), $empty, null, $is];
        $rows['how it was sorted a day ago'] = [
            Rows::time(static fn () => $client->get("$base/summary?since=".now()->subDay()->format('Y-m-d'))),
            $empty,
            null,
            $is,
        ];

        return $rows;
    }

    /** Rules of all sorts, with something for each to do. */
    private static function rules(Bench $bench): SortingRules
    {
        $layers = array_values(array_map(static fn (array $entry): string => $entry[0]->name, $bench->layers()->walk()));
        $lines = [];
        for ($rule = 0; $rule < self::RULES; $rule++) {
            $layer = '"'.addcslashes($layers[1 + ($rule % (count($layers) - 1))], '"\\').'"';
            $lines[] = new SortingLine(
                ["layer=$layer triangles >= 50", "layer=$layer depth >= 3", "seat* layer=$layer", "kind:part layer=$layer size > 1m"][
                    $rule % 4
                ],
                ['Ordered', 'Heap '.$rule % 8],
                $rule % 5 === 0 ? [['Found', "By rule $rule"]] : [],
                only: $rule % 2 === 0,
                goesOn: $rule % 3 === 0,
            );
        }

        return new SortingRules($lines);
    }

    /** @return list<int> numbers of objects that stand in nothing else of them */
    private static function some(Bench $bench, int $many): array
    {
        $scene = $bench->scene();
        $numbers = [];
        for ($row = 1, $count = $scene->count(); $row <= $count && count($numbers) < $many; $row++) {
            if ($scene->end($row) === $row) {
                $numbers[] = $scene->number($row);
            }
        }

        return $numbers;
    }

    /** @param list<int> $numbers */
    private static function pick(Project $project, User $person, array $numbers): void
    {
        App\Bench\DeskChange::on(
            Bench::of($project->refresh(), $person),
            static fn (App\Models\Desk $desk) => $desk->putPick(VineShelf\Scene\Pick::of($numbers)),
        );
    }

    /** @param list<int> $numbers */
    private static function bare(Project $project, array $numbers): float
    {
        return Rows::time(static function () use ($project, $numbers): void {
            DB::beginTransaction();
            DB::update('UPDATE objects SET parent_no = parent_no, position = position + 1 WHERE project_id = ? AND no = ANY(?::int[])', [
                $project->id,
                '{'.implode(',', $numbers).'}',
            ]);
            DB::rollBack();
        });
    }
}
