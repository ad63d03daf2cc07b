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
        $this->rows[] = ['row' => 'noise', 'spread' => round(100 * ($times[13] - $times[1]) / $times[7], 1)];
        $this->note(sprintf('noise: the same loop takes %.1f to %.1f ms, median %.1f', $times[1], $times[13], $times[7]));
    }

    public function add(string $name, string $size, float $value, ?float $floor, string $floorIs, ?float $goal, string $remark, string $unit = 'ms'): void
    {
        $this->rows[] = ['row' => $name, 'size' => $size, 'value' => round($value, 2), 'unit' => $unit, 'floor' => $floor === null ? null : round($floor, 2), 'floor is' => $floorIs, 'goal' => $goal === null ? null : round($goal, 1), 'met' => $goal === null ? null : $value <= $goal, 'remark' => $remark];
        $this->note(sprintf('%-34s %-6s %10s %-3s floor %-9s %s %s', $name, $size, number_format($value, $value < 10 ? 2 : 1), $unit, $floor === null ? '-' : number_format($floor, 1).' ('.number_format($value / max(0.001, $floor), 1).'x)', $goal === null ? '' : ($value <= $goal ? 'met ' : 'MISSED ').'(goal '.number_format($goal).')', '· '.$remark));
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
    public static function import(string $path): array
    {
        $out = (string) shell_exec('php -d opcache.enable_cli=1 -d opcache.jit=tracing -d opcache.jit_buffer_size=64M -d memory_limit=2G '.escapeshellarg(__DIR__.'/import.php').' '.escapeshellarg($path));
        $told = json_decode($out, true);
        $floor = json_decode((string) shell_exec('php -d opcache.enable_cli=1 -d opcache.jit=tracing -d opcache.jit_buffer_size=64M -d memory_limit=4G '.escapeshellarg(__DIR__.'/import-floor.php').' '.escapeshellarg($path)), true);
        if (! is_array($told) || ! is_array($floor)) {
            throw new RuntimeException("The import could not be measured: $out");
        }

        return ['ms' => (float) $told['ms'], 'floor' => (float) $floor['ms'], 'memory' => (float) $told['memory'], 'objects' => number_format((int) $told['objects'])];
    }

    /** @return array{rows: array<string, float>, goals: array<string, float>, floor: float} */
    public static function requests(string $size): array
    {
        [$client, $base] = self::client($size);
        $median = static function (callable $ask) use ($client): float {
            $times = [];
            for ($run = 0; $run < 17; $run++) {
                $times[] = self::time(static fn () => $ask($client, $run));
            }
            sort($times);

            return $times[8];
        };
        $floor = $median(static fn (Client $c) => $c->get("$base/pulse?revision={$c->revision}&desk={$c->desk}", 204));
        $window = 'lens=layers&from=0&count=47';
        $rows = [
            'click on a rung, answered' => $median(static fn (Client $c, int $run) => $c->post("$base/rungs", "keys=L7&rung=".($run % 2 === 0 ? 2 : 5)."&$window")),
            'apply a view, answered' => $median(static function (Client $c, int $run) use ($base, $window): void {
                $c->post("$base/views/".(1 + $run % 2).'/apply', $window);
            }),
            'a window of 60 rows, nesting, far down' => $median(static fn (Client $c, int $run) => $c->get("$base/ledger?lens=nesting&count=60&from=".(1000 * $run))),
            'a window of 60 rows, by name' => $median(static fn (Client $c, int $run) => $c->get("$base/ledger?lens=layers&words=seat_shell_".($run % 10)."&count=60&from=60")),
        ];
        $client->get("$base/pulse?revision=0&desk=0");

        return ['rows' => $rows, 'goals' => array_combine(array_keys($rows), [100.0, 150.0, 100.0, 100.0]), 'floor' => $floor];
    }

    /** @return array{first: float, megabytes: float, frame: float, plain: float} */
    public static function canvas(string $size): array
    {
        [, $base] = self::client($size);
        $browser = new Browser((string) getenv('APP_URL'));
        $browser->signIn('bench@marlpit.example', 'tidy-bench');
        $browser->visit($base);
        sleep(2);
        $browser->visit('/projects');
        $browser->tools->execute('Page.enable');
        $browser->tools->execute('Page.addScriptToEvaluateOnNewDocument', ['source' => 'addEventListener("shelf:drawn", () => { if (window.firstDrawn === undefined) requestAnimationFrame(() => { window.firstDrawn = performance.now(); window.firstBytes = performance.getEntriesByType("resource").concat(performance.getEntriesByType("navigation")).reduce((sum, e) => sum + (e.encodedBodySize || 0), 0); }); }, true);']);
        $browser->visit($base);
        $browser->waitUntil('return window.firstDrawn !== undefined', 'nothing is drawn', 60);
        $first = (float) $browser->js('return window.firstDrawn');
        $megabytes = (float) $browser->js('return window.firstBytes') / 1e6;
        $browser->waitUntil('return !shelfBench.canvas.loading', 'the placements do not come', 120);
        sleep(4);
        $frame = (float) $browser->driver->executeAsyncScript(<<<'JS'
            const done = arguments[arguments.length - 1], { canvas } = window.shelfBench, frames = [];
            let angle = 0, last = performance.now();
            const eye = canvas.viewpoint.get().eye, [tx, ty] = canvas.viewpoint.get().target;
            const turn = () => {
                const now = performance.now(); frames.push(now - last); last = now; angle += 0.02;
                const [x, y] = [eye[0] - tx, eye[1] - ty];
                canvas.viewpoint.camera.position.set(tx + x * Math.cos(angle) - y * Math.sin(angle), ty + x * Math.sin(angle) + y * Math.cos(angle), eye[2]);
                canvas.viewpoint.controls.update();
                if (frames.length < 45) requestAnimationFrame(turn); else { frames.splice(0, 10); frames.sort((a, b) => a - b); done(frames[Math.floor(frames.length / 2)]); }
            };
            requestAnimationFrame(turn);
        JS);
        // The same library drawing every triangle: the same buffers and shaders, with no budget, in one picture.
        $browser->waitUntil('return shelfBench.canvas.packs.missing === 0', 'the packs do not come', 300);
        $plain = (float) $browser->driver->executeAsyncScript(<<<'JS'
            const done = arguments[arguments.length - 1], { canvas } = window.shelfBench, { painter } = canvas;
            canvas.frame = () => {};
            setTimeout(() => {
                painter.budget = Infinity; painter.speed = 1e9;
                painter.begin(canvas.viewpoint.camera, false);
                const started = performance.now();
                painter.drawSlice(Infinity); painter.drawSeeThrough(Infinity); painter.synchronize();
                done(performance.now() - started);
            }, 500);
        JS);
        $browser->quit();

        return ['first' => $first, 'megabytes' => $megabytes, 'frame' => $frame, 'plain' => $plain];
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
        $import = $app->make(App\Intake\Uploads::class)->receive($person, null, $copy, "bench $size.glb", VineShelf\Layers\SortBy::Best, '');
        while (! Import::query()->findOrFail($import->id)->isOver()) {
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

    public int $revision = 0;

    public int $desk = 0;

    public function __construct(private readonly string $base)
    {
        $this->curl = curl_init();
        curl_setopt_array($this->curl, [CURLOPT_RETURNTRANSFER => true, CURLOPT_COOKIEFILE => '', CURLOPT_TIMEOUT => 120, CURLOPT_ENCODING => 'gzip']);
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
        preg_match('~data-revision="(\d+)" data-desk="(\d+)"~', $page, $found);
        $this->revision = (int) ($found[1] ?? 0);
        $this->desk = (int) ($found[2] ?? 0);
    }

    public function get(string $path, int $expected = 200): string
    {
        curl_setopt_array($this->curl, [CURLOPT_URL => $this->base.$path, CURLOPT_HTTPGET => true, CURLOPT_HTTPHEADER => ['HX-Request: true']]);

        return $this->send($path, $expected);
    }

    public function post(string $path, string $body, int $expected = 200): string
    {
        curl_setopt_array($this->curl, [CURLOPT_URL => $this->base.$path, CURLOPT_POST => true, CURLOPT_POSTFIELDS => $body, CURLOPT_HTTPHEADER => ["X-CSRF-TOKEN: $this->token", 'HX-Request: true']]);

        return $this->send($path, $expected);
    }

    private function send(string $path, int $expected): string
    {
        $answer = (string) curl_exec($this->curl);
        $status = curl_getinfo($this->curl, CURLINFO_RESPONSE_CODE);
        if ($status !== $expected) {
            throw new RuntimeException("$path answered $status: ".substr(strip_tags($answer), 0, 300));
        }

        return $answer;
    }

    private function readToken(string $page): void
    {
        preg_match('~name="csrf-token" content="([^"]+)"~', $page, $found);
        $this->token = $found[1] ?? '';
    }
}
