<?php

declare(strict_types=1);

use App\Bench\Bench;
use App\Changes\History;
use App\Changes\KeepSet;
use App\Changes\TagAlong;
use App\Models\Project;
use App\Models\User;
use VineShelf\Scene\Bits;

/** Measures what is sorted by tags and sets: sixty tags over random halves of the objects, in three folders, and fifty live sets. */
final class Sorting
{
    private const TAGS = 60;

    private const SETS = 50;

    /** @return Bits a random half of the rows, scattered */
    public static function half(int $rows, int $seed): Bits
    {
        mt_srand($seed);
        $bytes = '';
        for ($byte = 0; $byte <= $rows >> 3; $byte++) {
            $bytes .= chr(mt_rand(0, 255));
        }

        // Row 0 is none, and nothing follows the last row.
        return Bits::ofBytes($rows, $bytes)->and(Bits::all($rows));
    }

    /** @return array<string, array{float, float, float|null, string}> milliseconds, floor, goal in times of the floor, what the floor is */
    public static function requests(string $size): array
    {
        [$client, $base] = Served::client($size);
        $early = self::early($base);
        $bench = self::sort($base);
        $median = Served::median($client, $base);
        $window = 'lens=tags&from=0&count=47';
        $client->post("$base/ledger", 'lens=tags&all=1&unfold=0');
        for ($run = 0; $run < 24; $run++) {
            $client->post("$base/rungs", 'keys=T7&rung='.($run % 2 === 0 ? 2 : 5)."&$window");
        }
        $empty = 'an empty authenticated request';
        $rung = static fn (string $key): array => $median(
            static fn (Client $c, int $run) => $c->post("$base/rungs", "keys=$key&rung=".($run % 2 === 0 ? 2 : 5)."&$window"),
        );
        $rows = [
            'click on a rung of a tag of 60' => [...$rung('T7'), 3.0, $empty],
            'click on a rung of a folder of 20 tags' => [...$rung('F1'), 3.0, $empty],
            'click on a rung of a layer, 60 tags there' => [...$rung('L7'), 3.0, $empty],
            'a window of 60 rows, tags' => [
                ...$median(static fn (Client $c) => $c->get("$base/ledger?lens=tags&count=60&from=0")),
                2.5,
                $empty,
            ],
        ];
        $client->post("$base/ledger", 'lens=sets&all=1&unfold=0');
        $rows['a window of 60 rows, 50 live sets'] = [
            ...$median(static fn (Client $c) => $c->get("$base/ledger?lens=sets&count=60&from=0")),
            2.5,
            $empty,
        ];
        $rows['50 live sets evaluated anew, answered'] = [...self::cold($client, $base), null, $empty];
        $client->post(
            "$base/ledger",
            'lens=nesting&all=1&unfold=1&over='.implode(',', array_map(static fn (int $n): string => "T$n", range(1, 12))),
        );
        $rows['a window of 60 rows over 12 tags'] = [
            ...$median(static fn (Client $c, int $run) => $c->get("$base/ledger?lens=nesting&count=60&from=". 3000 * $run)),
            2.5,
            $empty,
        ];
        $client->post("$base/ledger", 'lens=nesting&all=1&over=');
        $client->post("$base/pick", 'mode=replace&keys=T3');
        $rows['details of half of the objects'] = [...$median(static fn (Client $c) => $c->get("$base/details")), null, $empty];
        $count = number_format($bench->scene()->tagged(3)->count(), 0, '', ' ');
        $floor = Rows::time(
            static fn () => Illuminate\Support\Facades\DB::transaction(static function () use ($bench): void {
                Illuminate\Support\Facades\DB::update(
                    'UPDATE tags SET members = members || decode(\'\', \'hex\') WHERE project_id = ? AND no = 3',
                    [$bench->project->id],
                );
            }),
        );
        $client->post("$base/tags", 'name=Bench+'.bin2hex(random_bytes(3)));
        $tag = (int) Illuminate\Support\Facades\DB::table('tags')->where('project_id', $bench->project->id)->max('no');
        $update = 'the bare UPDATE';
        $rows["tagging $count objects"] = [
            Rows::time(static fn () => $client->post("$base/tag", "tag=$tag&mode=add")),
            $floor,
            null,
            $update,
        ];
        $rows["taking back tagging $count objects"] = [Rows::time(static fn () => $client->post("$base/undo", '')), $floor, null, $update];
        $later = $bench->project->changes()->where('no', '>', $early)->count();
        $rows["taking back a tag of half, $later changes later"] = [
            Rows::time(static fn () => $client->post("$base/undo", "change=$early")),
            $floor,
            null,
            $update,
        ];

        if (! $bench->project->changes()->where('no', $early)->value('undone')) {
            throw new RuntimeException('The early tag was not taken back.');
        }

        return $rows;
    }

    /** Half of the objects get a tag before everything else. @return int number of that change */
    private static function early(string $base): int
    {
        $project = Project::query()->where('key', basename($base))->firstOrFail();
        $bench = Bench::of($project, User::query()->where('email', 'bench@marlpit.example')->firstOrFail());
        $half = self::half($bench->scene()->count(), self::TAGS + 1);
        $tagging = static fn (Bench $held): TagAlong => new TagAlong($held, 'Early', $half, true, false);

        return (int) app(History::class)->carryOut($bench, $tagging)->change;
    }

    /** Sixty tags and fifty live sets in the bench project, by the product's own commands. */
    private static function sort(string $base): Bench
    {
        $project = Project::query()->where('key', basename($base))->firstOrFail();
        $bench = Bench::of($project, User::query()->where('email', 'bench@marlpit.example')->firstOrFail());
        $history = app(History::class);
        for ($tag = 1; $tag <= self::TAGS; $tag++) {
            $half = self::half($bench->scene()->count(), $tag);
            $path = 'Bundle '.(1 + ($tag % 3))." / Tag $tag";
            $history->carryOut($bench, static fn (Bench $held): TagAlong => new TagAlong($held, $path, $half, true, false));
            $bench->refresh();
        }
        for ($set = 1; $set <= self::SETS; $set++) {
            $rule = sprintf('kind:part (tag:"Tag %d" or tag:"Tag %d") not tag:"Tag %d" triangles >= %d', $set, $set + 5, $set + 10, $set);
            $rule .= $set % 5 === 0 ? sprintf(' and set:"Set %d"', $set - 1) : '';
            $history->carryOut($bench, static fn (Bench $held): KeepSet => new KeepSet($held, "Set $set", $rule, null));
            $bench->refresh();
        }

        return $bench;
    }

    /** @return array{float, float} the lens of sets after something changed that all of them follow from */
    private static function cold(Client $client, string $base): array
    {
        $times = $floors = [];
        for ($run = 0; $run < 9; $run++) {
            foreach (range(2, self::TAGS, 5) as $tag) {
                $client->post("$base/tag", "tag=$tag&mode=toggle&keys=O".(100 + $run));
            }
            $times[] = Rows::time(static fn () => $client->get("$base/ledger?lens=sets&count=60&from=0"));
            $known = $client->known();
            $floors[] = Rows::time(static fn () => $client->get("$base/pulse?$known", 204));
        }
        sort($times);
        sort($floors);

        return [$times[4], $floors[4]];
    }
}
