<?php

declare(strict_types=1);

use App\Models\Import;
use App\Models\User;
use MarlpitBaths\MarlpitBaths;
use Tests\Browser\Support\Browser;

/** Measures and prints the rows of bin/bench. */
final class Rows
{
    /** @var list<array<string, mixed>> */
    private array $rows = [];

    public function __construct(private readonly bool $json) {}

    public function note(string $line): void
    {
        if (! $this->json) {
            echo $line, "\n";
        }
    }

    /** How much the same work varies on this machine right now. */
    public function noise(): void
    {
        $times = [];
        for ($run = 0; $run < 15; $run++) {
            $times[] = self::time(static function (): void {
                $sum = 0;
                for ($n = 0; $n < 3_000_000; $n++) {
                    $sum += $n & 7;
                }
            });
        }
        sort($times);
        $this->rows[] = ['row' => 'noise', 'spread' => round((100 * ($times[13] - $times[1])) / $times[7], 1)];
        $this->note(sprintf('noise: the same loop takes %.1f to %.1f ms, median %.1f', $times[1], $times[13], $times[7]));
    }

    public function add(
        string $name,
        string $size,
        float $value,
        ?float $floor,
        string $floorIs,
        ?float $goal,
        string $remark,
        string $unit = 'ms',
    ): void {
        $this->rows[] = [
            'row' => $name,
            'size' => $size,
            'value' => round($value, 2),
            'unit' => $unit,
            'floor' => $floor === null ? null : round($floor, 2),
            'floor is' => $floorIs,
            'goal' => $goal === null ? null : round($goal, 1),
            'met' => $goal === null ? null : $value <= $goal,
            'remark' => $remark,
        ];
        $this->note(
            sprintf(
                '%-34s %-6s %10s %-3s floor %-9s %s %s',
                $name,
                $size,
                number_format($value, $value < 10 ? 2 : 1),
                $unit,
                $floor === null ? '-' : number_format($floor, 1).' ('.number_format($value / max(0.001, $floor), 1).'x)',
                $goal === null ? '' : ($value <= $goal ? 'met ' : 'MISSED ').'(goal '.number_format($goal).')',
                '· '.$remark,
            ),
        );
    }

    /** How rows grow from the smaller sizes to the larger ones, beside how the objects do. */
    public function growth(): void
    {
        $objects = ['medium' => 9_582, 'large' => 51_078, 'huge' => 201_102, 'scattered' => 200_001];
        $values = [];
        foreach ($this->rows as $row) {
            if (isset($row['size'], $objects[$row['size']]) && ($row['unit'] ?? '') === 'ms') {
                $values[$row['row']][$row['size']] = $row['value'];
            }
        }
        foreach ($values as $name => $bySize) {
            foreach (['medium', 'large'] as $from) {
                if (! isset($bySize[$from], $bySize['huge'])) {
                    continue;
                }
                $times = $bySize['huge'] / max(0.001, $bySize[$from]);
                $more = $objects['huge'] / $objects[$from];
                // A tenth more is within the noise of this machine.
                $straight = $times <= 1.1 * $more;
                $this->rows[] = [
                    'row' => "growth of $name",
                    'from' => $from,
                    'times' => round($times, 2),
                    'objects' => round($more, 1),
                    'straight' => $straight,
                ];
                $this->note(
                    sprintf(
                        'growth, %s to huge: %-42s %5.2f times for %.1f times the objects%s',
                        $from,
                        $name,
                        $times,
                        $more,
                        $straight ? '' : ' MORE THAN A STRAIGHT LINE',
                    ),
                );
            }
        }
    }

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
        $floor = self::best(31, static fn () => $bits[0]->and($bits[1])->and($bits[2])->or($bits[3])->without($bits[4])->count());
        $rows = [];
        foreach (
            [
                'rule of five terms with names, core' => ['kind:part seat_shell layer:Seats width < 1m triangles >= 12', 6.0],
                'rule of five terms without names, core' => ['kind:part layer:Seats width < 1m triangles >= 12 is shown', 2.0],
            ] as $name => [$rule, $goal]
        ) {
            $found = 0;
            $ms = self::best(31, static function () use ($bench, $scene, $rule, &$found): void {
                $evaluator = new VineShelf\Rules\Evaluator(
                    new VineShelf\Facts\Facts($scene),
                    $bench->layers(),
                    $bench->inEffect(),
                    VineShelf\Scene\Bits::none($scene->count()),
                );
                $found = $evaluator->find(VineShelf\Rules\Parser::parse($rule))->rows->count();
            });
            $rows[$name] = ['ms' => $ms, 'floor' => $floor, 'goal' => $goal, 'rule' => $rule, 'found' => $found];
        }

        return $rows;
    }

    public function finish(): void
    {
        if ($this->json) {
            echo json_encode($this->rows, JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE), "\n";
        }
    }

    public static function file(string $size): string
    {
        $path = getenv('SHELF_STATE')."/bench-$size.glb";
        if (! is_file($path)) {
            MarlpitBaths::write($path, $size);
        }

        return $path;
    }

    public static function time(callable $work): float
    {
        $started = hrtime(true);
        $work();

        return (hrtime(true) - $started) / 1e6;
    }

    public static function best(int $runs, callable $work): float
    {
        $times = [];
        for ($run = 0; $run < $runs; $run++) {
            $times[] = self::time($work);
        }
        sort($times);

        return $times[intdiv($runs, 2)];
    }

    /** @return array{ms: float, floor: float, memory: float, objects: string} */
    public static function import(string $path, int $runs): array
    {
        $out = (string) shell_exec(
            getenv('SHELF_PHP').' -d memory_limit=2G '.escapeshellarg(__DIR__.'/import.php').' '.escapeshellarg($path)." $runs",
        );
        $told = json_decode($out, true);
        $floor = json_decode(
            (string) shell_exec(
                getenv('SHELF_PHP').' -d memory_limit=4G '.escapeshellarg(__DIR__.'/import-floor.php').' '.escapeshellarg($path),
            ),
            true,
        );
        if (! is_array($told) || ! is_array($floor)) {
            throw new RuntimeException("The import could not be measured: $out");
        }

        return [
            'ms' => (float) $told['ms'],
            'floor' => (float) $floor['ms'],
            'memory' => (float) $told['memory'],
            'objects' => number_format((int) $told['objects']),
        ];
    }

    /** @return array{rows: array<string, array{float, float}>, boxes: float} each row with an empty request beside it, medians */
    public static function requests(string $size): array
    {
        [$client, $base] = self::client($size);
        // The machine's speed changes from minute to minute: the floor is measured beside each row.
        $median = static function (callable $ask) use ($client, $base): array {
            $times = $floors = [];
            for ($run = 0; $run < 17; $run++) {
                $times[] = self::time(static fn () => $ask($client, $run));
                $known = $client->known();
                $floors[] = self::time(static fn () => $client->get("$base/pulse?$known", 204));
            }
            sort($times);
            sort($floors);

            return [$times[8], $floors[8]];
        };
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
        $file = self::time(static fn () => $client->post("$base/file", 'layer=3'));
        $back = self::time(static fn () => $client->post("$base/undo", ''));
        $numbers = $project->objects()->orderBy('no')->limit(100_000)->pluck('no')->all();
        $floor = self::time(static function () use ($project, $numbers): void {
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
    private static function sight(string $base): array
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

        return self::best(5, static function () use ($boxes, $scene, $m): void {
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

    /** Milliseconds until something of the page is on the screen. */
    private static function seen(Browser $browser): float
    {
        return (float) $browser->js('return performance.getEntriesByName("first-contentful-paint")[0]?.startTime ?? 0');
    }

    /**
     * Opening a workbench in a browser that has nothing cached and no shader compiled, then again, and drawing while the camera moves.
     *
     * @return array{bare: float, cold: array{first: float, ready: float, whole: float},
     *     warm: array{first: float, ready: float, whole: float}, megabytes: float, frame: float, plain: float}
     */
    public static function canvas(string $size): array
    {
        [, $base] = self::client($size);
        $fresh = static function (): Browser {
            $browser = Browser::open((string) getenv('APP_URL'));
            $browser->signIn('bench@marlpit.example', 'tidy-bench');
            $browser->tools->execute('Network.clearBrowserCache');
            $browser->tools->execute('Page.enable');

            return $browser;
        };
        $browser = $fresh();
        $browser->tools->execute('Network.enable');
        $browser->tools->execute('Network.setBlockedURLs', ['urls' => ['*/records*', '*/packs/*']]);
        $browser->tools->execute('Page.addScriptToEvaluateOnNewDocument', [
            'source' => 'HTMLCanvasElement.prototype.getContext = () => null',
        ]);
        $browser->visit('/projects')->visit($base);
        $browser->waitUntil('return performance.getEntriesByName("first-contentful-paint").length > 0', 'the page is not seen');
        $bare = self::seen($browser);
        $browser->quit();
        $browser = $fresh();
        $browser->tools->execute('Page.addScriptToEvaluateOnNewDocument', [
            'source' => <<<'JS'
                addEventListener('shelf:drawn', ({ detail }) => {
                    const whole = detail.done && detail.missing === 0 && !detail.loading;
                    window.wholeAt = whole ? (window.wholeAt ?? performance.now()) : undefined;
                    if (window.firstDrawn !== undefined) return;
                    window.firstDrawn = 0;
                    requestAnimationFrame(() => {
                        window.firstDrawn = performance.now();
                        const fetched = [...performance.getEntriesByType('resource'), ...performance.getEntriesByType('navigation')];
                        window.firstBytes = fetched.reduce((sum, entry) => sum + (entry.encodedBodySize || 0), 0);
                    });
                }, true);
            JS
        ,
        ]);
        $opened = static function () use ($browser, $base): array {
            $browser->visit('/projects')->visit($base);
            $browser->waitUntil('return window.firstDrawn > 0', 'nothing is drawn', 60);
            $browser->waitUntil('return window.wholeAt !== undefined && performance.now() - window.wholeAt > 1500', 'it is not whole', 200);

            return [
                // Nothing is seen before the page is.
                'first' => max((float) $browser->js('return window.firstDrawn'), self::seen($browser)),
                'ready' => (float) $browser->js('return performance.getEntriesByType("navigation")[0].domContentLoadedEventEnd'),
                'whole' => (float) $browser->js('return window.wholeAt'),
            ];
        };
        $cold = $opened();
        $warm = $opened();
        $megabytes = (float) $browser->js('return window.firstBytes') / 1e6;
        $browser->waitUntil('return !shelfBench.canvas.loading', 'the placements do not come', 120);
        $frame = (float) $browser->driver->executeAsyncScript(
            <<<'JS'
                const done = arguments[arguments.length - 1], { canvas } = window.shelfBench, frames = [];
                let angle = 0, last = performance.now();
                const eye = canvas.viewpoint.get().eye, [tx, ty] = canvas.viewpoint.get().target;
                const turn = () => {
                    const now = performance.now(); frames.push(now - last); last = now; angle += 0.02;
                    const [x, y] = [eye[0] - tx, eye[1] - ty];
                    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
                    canvas.viewpoint.camera.position.set(tx + x * cos - y * sin, ty + x * sin + y * cos, eye[2]);
                    canvas.viewpoint.controls.update();
                    if (frames.length < 45) return requestAnimationFrame(turn);
                    frames.splice(0, 10);
                    frames.sort((a, b) => a - b);
                    done(frames[Math.floor(frames.length / 2)]);
                };
                requestAnimationFrame(turn);
            JS
            ,
        );
        // The same library drawing every triangle: the same buffers and shaders, with no budget, in one picture.
        $browser->waitUntil('return shelfBench.canvas.packs.missing === 0', 'the packs do not come', 300);
        $plain = (float) $browser->driver->executeAsyncScript(
            <<<'JS'
                const done = arguments[arguments.length - 1], { canvas } = window.shelfBench, { painter } = canvas;
                canvas.frame = () => {};
                setTimeout(() => {
                    painter.budget = Infinity; painter.speed = 1e9;
                    painter.begin(canvas.viewpoint.camera, false);
                    const started = performance.now();
                    painter.drawSlice(Infinity); painter.drawSeeThrough(Infinity); painter.synchronize();
                    done(performance.now() - started);
                }, 500);
            JS
            ,
        );
        $browser->quit();

        return ['bare' => $bare, 'cold' => $cold, 'warm' => $warm, 'megabytes' => $megabytes, 'frame' => $frame, 'plain' => $plain];
    }

    /** @return array{Client, string} a signed-in client, and the path of the size's project with two views kept in it */
    private static function client(string $size): array
    {
        static $clients = [];
        if (isset($clients[$size])) {
            return $clients[$size];
        }
        $app = require __DIR__.'/../bootstrap/app.php';
        $app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();
        $person = User::query()->firstOrCreate(['email' => 'bench@marlpit.example'], ['name' => 'Bench', 'password' => 'tidy-bench']);
        $copy = (string) tempnam(sys_get_temp_dir(), 'bench');
        copy(self::file($size), $copy);
        $import = $app->make(App\Jobs\Uploads::class)->receive($person, null, $copy, "bench $size.glb", VineShelf\Layers\SortBy::Best, '');
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

/** A person's browser, as far as requests go. */
final class Client
{
    private CurlHandle $curl;

    private string $token = '';

    /** The last answer that told where project and desk stand. */
    private string $told = '';

    public function __construct(private readonly string $base)
    {
        $this->curl = curl_init();
        curl_setopt_array($this->curl, [
            CURLOPT_RETURNTRANSFER => true,
            CURLOPT_COOKIEFILE => '',
            CURLOPT_TIMEOUT => 120,
            CURLOPT_ENCODING => 'gzip',
        ]);
    }

    public function signIn(string $email, string $password): void
    {
        $page = $this->get('/sign-in');
        $this->readToken($page);
        $this->post('/sign-in', http_build_query(['_token' => $this->token, 'email' => $email, 'password' => $password]), 302);
    }

    public function open(string $path): void
    {
        $page = $this->get($path);
        $this->readToken($page);
    }

    /** The revisions that this page has heard of, as its pulse says them. */
    public function known(): string
    {
        preg_match('~data-revision="(\d+)"\s+data-desk="(\d+)"~', $this->told, $found);

        return 'revision='.($found[1] ?? 0).'&desk='.($found[2] ?? 0);
    }

    public function get(string $path, int $expected = 200): string
    {
        curl_setopt_array($this->curl, [
            CURLOPT_URL => $this->base.$path,
            CURLOPT_HTTPGET => true,
            CURLOPT_HTTPHEADER => ['HX-Request: true'],
        ]);

        return $this->send($path, $expected);
    }

    public function post(string $path, string $body, int $expected = 200): string
    {
        curl_setopt_array($this->curl, [
            CURLOPT_URL => $this->base.$path,
            CURLOPT_POST => true,
            CURLOPT_POSTFIELDS => $body,
            CURLOPT_HTTPHEADER => ["X-CSRF-TOKEN: $this->token", 'HX-Request: true'],
        ]);

        return $this->send($path, $expected);
    }

    private function send(string $path, int $expected): string
    {
        $answer = (string) curl_exec($this->curl);
        $status = curl_getinfo($this->curl, CURLINFO_RESPONSE_CODE);
        if ($status !== $expected) {
            throw new RuntimeException("$path answered $status: ".substr(strip_tags($answer), 0, 300));
        }

        if (str_contains($answer, 'data-revision=')) {
            $this->told = $answer;
        }

        return $answer;
    }

    private function readToken(string $page): void
    {
        preg_match('~name="csrf-token" content="([^"]+)"~', $page, $found);
        $this->token = $found[1] ?? '';
    }
}
