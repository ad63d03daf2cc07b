<?php

declare(strict_types=1);

// An import in a process of its own: how long, and the most memory that the process held. With a second argument, it is the median of so
// many, after one that is not counted: a worker lives on, and compiles what it runs when it runs it first.

require __DIR__.'/../vendor/autoload.php';
$app = require __DIR__.'/../bootstrap/app.php';
$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();
Illuminate\Support\Facades\Queue::fake();
$person = App\Models\User::query()->firstOrCreate(['email' => 'bench@marlpit.example'], ['name' => 'Bench', 'password' => 'tidy-bench']);
$scenes = $app->make(App\Scenes\SceneStore::class);
$takeIn = static function () use ($app, $argv, $person, $scenes): array {
    $copy = (string) tempnam(sys_get_temp_dir(), 'bench');
    copy($argv[1], $copy);
    $import = $app->make(App\Jobs\Uploads::class)->receive($person, null, $copy, 'bench.glb', new App\Jobs\Sorted);
    $started = hrtime(true);
    (new App\Jobs\TakeIn($import->id))->handle($scenes);
    $took = (hrtime(true) - $started) / 1e6;
    $import->refresh();
    $import->project?->delete();

    return [$took, $import];
};
$runs = (int) ($argv[2] ?? 0);
// The first of several warms up.
[$took, $import] = $takeIn();
$times = $runs === 0 ? [$took] : [];
for ($run = 0; $run < $runs; $run++) {
    [$times[], $import] = $takeIn();
}
sort($times);
preg_match('~VmHWM:\s+(\d+) kB~', (string) file_get_contents('/proc/self/status'), $most);
echo json_encode([
    'ms' => $times[intdiv(count($times), 2)],
    'memory' => (int) ($most[1] ?? 0) / 1024,
    'objects' => $import->objects,
    'error' => $import->error,
]);
