<?php

declare(strict_types=1);

use App\Models\Import;
use App\Models\User;

/** Measures what the server answers: requests over nginx and PHP-FPM, filing, and rules on the index of the same project. */
final class Served
{
    /** @return array<string, array{ms: float, floor: float, goal: float, rule: string, found: int}> */
    public static function rules(string $size): array
    {
        [, $base] = self::client($size);
        $project = App\Models\Project::query()->where('key', basename($base))->firstOrFail();
        $store = app(App\Scenes\SceneStore::class);
        $store->ripen($project);
        $bench = App\Bench\Bench::of($project, User::query()->where('email', 'bench@marlpit.example')->firstOrFail());
        $scene = $bench->scene();
        $bench->inEffect()->rungs();
        mt_srand(3);
        $bits = array_map(
            static fn (): VineShelf\Scene\Bits => VineShelf\Scene\Bits::ofRows(
                $scene->count(),
                array_values(array_filter(range(1, $scene->count()), static fn (): bool => mt_rand(0, 1) === 1)),
            ),
            range(1, 5),
        );
        $floor = Rows::best(31, static fn () => $bits[0]->and($bits[1])->and($bits[2])->or($bits[3])->without($bits[4])->count());
        $rows = [];
        foreach (
            [
                'rule of five terms with names, core' => ['kind:part seat_shell layer:Seats width < 1m triangles >= 12', 6.0],
                'rule of five terms without names, core' => ['kind:part layer:Seats width < 1m triangles >= 12 is shown', 2.0],
            ] as $name => [$rule, $goal]
        ) {
            $found = 0;
            $ms = Rows::best(31, static function () use ($bench, $scene, $rule, &$found): void {
                $evaluator = new VineShelf\Rules\Evaluator(
                    new VineShelf\Facts\Facts($scene),
                    $bench->organizers(),
                    $bench->inEffect(),
                    VineShelf\Scene\Bits::none($scene->count()),
                );
                $found = $evaluator->find(VineShelf\Rules\Parser::parse($rule))->rows->count();
            });
            $rows[$name] = ['ms' => $ms, 'floor' => $floor, 'goal' => $goal, 'rule' => $rule, 'found' => $found];
        }

        return $rows;
    }

    /** @return array<string, array{float, float, string, float|null}> milliseconds, those of the floor, what was done, goal */
    public static function weights(string $size): array
    {
        [, $base] = self::client($size);
        $project = App\Models\Project::query()->where('key', basename($base))->firstOrFail();
        $bench = App\Bench\Bench::of($project, User::query()->where('email', 'bench@marlpit.example')->firstOrFail());
        $rungs = $bench->seen()->rungs();
        $all = VineShelf\Scene\Bits::all($bench->scene()->count());
        $floor = Rows::best(15, static fn () => $bench->scene()->trianglesOf($all));
        $parents = [];
        foreach ($bench->layers()->walk() as [$layer]) {
            $parents[$layer->number] = $layer->parent;
        }
        $took = Rows::best(
            15,
            static fn () => (new VineShelf\Weights\GroupWeights($bench->facts()))->all($bench->scene()->layers(), $parents, $rungs),
        );
        $map = Rows::best(5, static fn () => (new App\Weighing\Parts($bench))->inside('meshes', ''));

        return [
            'weights of all layers, core' => [
                $took,
                $floor,
                count($parents).' layers with what is nested in them, five measures each at the rungs in effect',
                30.0,
            ],
            'the parts of the map, by mesh' => [$map, $floor, 'names from the database', null],
        ];
    }

    /**
     * The machine's speed changes from minute to minute: the floor is measured beside each row.
     *
     * @return Closure(callable(Client, int): mixed): array{float, float} a request and an empty one beside it, medians in milliseconds
     */
    public static function median(Client $client, string $base): Closure
    {
        return static function (callable $ask) use ($client, $base): array {
            $times = $floors = [];
            for ($run = 0; $run < 17; $run++) {
                $times[] = Rows::time(static fn () => $ask($client, $run));
                $known = $client->known();
                $floors[] = Rows::time(static fn () => $client->get("$base/pulse?$known", 204));
            }
            sort($times);
            sort($floors);

            return [$times[8], $floors[8]];
        };
    }

    /** @return array{rows: array<string, array{float, float}>, boxes: float} each row with an empty request beside it, medians */
    public static function requests(string $size): array
    {
        [$client, $base] = self::client($size);
        $median = self::median($client, $base);
        // Each of the server's processes compiles what it runs when it runs it first: that is not what a click takes.
        for ($run = 0; $run < 24; $run++) {
            $client->post("$base/rungs", 'keys=L7&rung='.($run % 2 === 0 ? 2 : 5).'&lens=layers&from=0&count=47');
        }
        $window = 'lens=layers&from=0&count=47';
        $rows = [
            'click on a rung, answered' => $median(
                static fn (Client $c, int $run) => $c->post("$base/rungs", 'keys=L7&rung='.($run % 2 === 0 ? 2 : 5)."&$window"),
            ),
            'apply a view, answered' => $median(static function (Client $c, int $run) use ($base, $window): void {
                $c->post("$base/views/".(1 + ($run % 2)).'/apply', $window);
            }),
            'a window of 60 rows, nesting, far down' => $median(
                static fn (Client $c, int $run) => $c->get("$base/ledger?lens=nesting&count=60&from=". 1000 * $run),
            ),
            'a window of 60 rows, by name' => $median(
                static fn (Client $c, int $run) => $c->get("$base/ledger?lens=layers&words=seat_shell_".$run % 10 .'&count=60&from=60'),
            ),
        ];
        // Sorting is worked out when it is first asked for; what is measured is every window after that.
        foreach (
            [
                'name' => 'objects sorted by name',
                'height' => 'objects sorted by height, filtered',
                'layer' => 'objects sorted by layer, filtered',
            ] as $by => $name
        ) {
            $client->post("$base/ledger", "lens=objects&sort=$by&down=1&from=0&count=60");
            $filter = $by === 'name' ? '' : '&words='.urlencode('kind:part triangles > 20');
            $rows["a window of 60 rows, $name"] = $median(
                static fn (Client $c, int $run) => $c->get(
                    "$base/ledger?lens=objects&count=60&from=".($by === 'name' ? 9000 : 2000) * $run.$filter,
                ),
            );
        }
        $client->post("$base/ledger", 'lens=nesting&sort=name&from=0&count=60');
        $rows['a window of 60 rows, nesting sorted by name'] = $median(
            static fn (Client $c, int $run) => $c->get("$base/ledger?lens=nesting&count=60&from=". 9000 * $run),
        );
        $client->post("$base/ledger", 'lens=materials&sort=&all=1&unfold=1&from=0&count=60');
        $rows['a window of 60 rows, materials unfolded'] = $median(
            static fn (Client $c, int $run) => $c->get("$base/ledger?lens=materials&count=60&from=". 9000 * $run),
        );
        $rows['a step to the next hit'] = $median(
            static fn (Client $c, int $run) => $c->get("$base/find/step?lens=objects&words=seat&object=0&way=1"),
        );
        $client->post("$base/pick", 'mode=replace&keys=K1,K0');
        $rows['click on a rung with everything picked'] = $median(
            static fn (Client $c, int $run) => $c->post("$base/rungs", 'on=pick&rung='.($run % 2 === 0 ? 2 : 5)."&$window"),
        );
        $client->post("$base/rungs", "on=pick&rung=5&$window");
        $client->post("$base/pick", 'mode=replace');
        foreach (
            [
                'region, rectangle, touching' => ['rectangle', false, [[250, 200], [560, 430]]],
                'region, rectangle, fully inside' => ['rectangle', true, [[250, 200], [560, 430]]],
                'region, lasso of 126 points' => [
                    'lasso',
                    false,
                    array_map(static fn (int $at): array => [390 + 190 * cos($at / 20), 320 + 140 * sin($at / 20)], range(0, 125)),
                ],
                'region, lasso of 3000 points' => [
                    'lasso',
                    false,
                    array_map(
                        static fn (int $at): array => [390 + (190 + 3 * sin($at)) * cos($at / 477), 320 + 140 * sin($at / 477)],
                        range(0, 2999),
                    ),
                ],
                'region, brush of 600 points' => [
                    'brush',
                    false,
                    array_map(static fn (int $at): array => [120 + $at, 320 + 140 * sin($at / 20)], range(0, 599)),
                ],
            ] as $name => [$shape, $inside, $points]
        ) {
            $region = urlencode(
                (string) json_encode(
                    ['shape' => $shape, 'inside' => $inside, 'points' => $points, 'width' => 780, 'height' => 644] + self::sight($base),
                ),
            );
            $rows[$name] = $median(static fn (Client $c) => $c->post("$base/pick/region", "count=1&region=$region"));
        }

        return ['rows' => $rows, 'boxes' => self::boxes($base)];
    }

    /**
     * Filing a hundred thousand objects, with history, and taking it back.
     *
     * @return array<string, array{ms: float, floor: float}>
     */
    public static function filing(string $size): array
    {
        [$client, $base] = self::client($size);
        $project = App\Models\Project::query()->where('key', basename($base))->firstOrFail();
        $objects = (int) $project->objects()->count();
        $client->post(
            "$base/pick",
            'mode=replace&found=1&lens=objects&words='.
                urlencode(
                    $size === 'scattered'
                        ? 'layer:Tiles or layer:Steel or layer:Pipes or layer:Cable or layer:Fixings or layer:Glass or layer:Rubber'
                        : 'kind:part not layer:51',
                ),
        );
        $name = 'filing '.number_format(min(100_000, $objects), 0, '', ' ').' objects or so';
        $file = Rows::time(static fn () => $client->post("$base/file", 'layer=3'));
        $back = Rows::time(static fn () => $client->post("$base/undo", ''));
        $numbers = $project->objects()->orderBy('no')->limit(100_000)->pluck('no')->all();
        $floor = Rows::time(static function () use ($project, $numbers): void {
            Illuminate\Support\Facades\DB::beginTransaction();
            Illuminate\Support\Facades\DB::update('UPDATE objects SET layer_no = 3 WHERE project_id = ? AND no = ANY(?::int[])', [
                $project->id,
                '{'.implode(',', $numbers).'}',
            ]);
            Illuminate\Support\Facades\DB::rollBack();
        });

        return [$name => ['ms' => $file, 'floor' => $floor], "taking back $name" => ['ms' => $back, 'floor' => $floor]];
    }

    /** @return array<string, mixed> a camera from which the whole model fills the picture */
    public static function sight(string $base): array
    {
        $scene = app(App\Scenes\SceneStore::class)->scene(App\Models\Project::query()->where('key', basename($base))->firstOrFail());
        $box = (new VineShelf\Facts\Facts($scene))->box(1) ?? [0.0, 0.0, 0.0, 1.0, 1.0, 1.0];
        $size = max($box[3] - $box[0], $box[4] - $box[1]);
        $middle = [($box[0] + $box[3]) / 2, ($box[1] + $box[4]) / 2, ($box[2] + $box[5]) / 2];

        return [
            'eye' => [$middle[0] + 0.6 * $size, $middle[1] - 0.8 * $size, $middle[2] + 0.5 * $size],
            'target' => $middle,
            'up' => [0, 0, 1],
            'fov' => 40,
            'near' => 0.05,
        ];
    }

    /** Milliseconds for putting the eight corners of every object's box into the picture, and nothing else. */
    private static function boxes(string $base): float
    {
        $scene = app(App\Scenes\SceneStore::class)->scene(App\Models\Project::query()->where('key', basename($base))->firstOrFail());
        $boxes = $scene->column('box');
        $sight = self::sight($base);
        $m = VineShelf\Picking\Camera::perspective($sight['eye'], $sight['target'], $sight['up'], 40, 780, 644, 0.05)->rows;

        return Rows::best(5, static function () use ($boxes, $scene, $m): void {
            for ($row = 1, $count = $scene->count(); $row <= $count; $row++) {
                $b = unpack('g6', $boxes, $row * 24);
                $left = $top = INF;
                $right = $bottom = -INF;
                for ($corner = 0; $corner < 8; $corner++) {
                    $x = $b[$corner & 1 ? 4 : 1];
                    $y = $b[$corner & 2 ? 5 : 2];
                    $z = $b[$corner & 4 ? 6 : 3];
                    $w = $m[8] * $x + $m[9] * $y + $m[10] * $z + $m[11];
                    $u = ($m[0] * $x + $m[1] * $y + $m[2] * $z + $m[3]) / $w;
                    $v = ($m[4] * $x + $m[5] * $y + $m[6] * $z + $m[7]) / $w;
                    $left = min($left, $u);
                    $right = max($right, $u);
                    $top = min($top, $v);
                    $bottom = max($bottom, $v);
                }
            }
        });
    }

    /** @return array{Client, string} a signed-in client, and the path of the size's project with two views kept in it */
    public static function client(string $size): array
    {
        static $clients = [];
        if (isset($clients[$size])) {
            return $clients[$size];
        }
        $app = require __DIR__.'/../bootstrap/app.php';
        $app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();
        $person = User::query()->firstOrCreate(['email' => 'bench@marlpit.example'], ['name' => 'Bench', 'password' => 'tidy-bench']);
        $copy = (string) tempnam(sys_get_temp_dir(), 'bench');
        copy(Rows::file($size), $copy);
        $import = $app->make(App\Jobs\Uploads::class)->receive($person, null, $copy, "bench $size.glb", new App\Jobs\Sorted);
        while (! Import::query()->findOrFail($import->id)->isOver()) {
            usleep(200_000);
        }
        // What follows an import in the background must not be measured with the requests.
        while (Illuminate\Support\Facades\DB::table('jobs')->count() > 0) {
            usleep(200_000);
        }
        $project = Import::query()->findOrFail($import->id)->project ?? throw new RuntimeException('The bench project was not taken in.');
        $base = "/projects/$project->key";
        $client = new Client((string) getenv('APP_URL'));
        $client->signIn('bench@marlpit.example', 'tidy-bench');
        $client->open($base);
        $client->post("$base/ledger", 'lens=nesting&all=1&unfold=1');
        $client->post("$base/rungs", 'keys=L3,L4,L9&rung=0');
        $client->post("$base/views", 'name=One&keep_rungs=1');
        $client->post("$base/rungs", 'keys=L5,L6,L12&rung=2');
        $client->post("$base/views", 'name=Two&keep_rungs=1');
        $client->open($base);

        return $clients[$size] = [$client, $base];
    }
}
