<?php

declare(strict_types=1);

// One import in a process of its own: how long, and the most memory that the process held.

require __DIR__.'/../vendor/autoload.php';
$app = require __DIR__.'/../bootstrap/app.php';
$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();
Illuminate\Support\Facades\Queue::fake();
$person = App\Models\User::query()->firstOrCreate(['email' => 'bench@marlpit.example'], ['name' => 'Bench', 'password' => 'tidy-bench']);
$copy = (string) tempnam(sys_get_temp_dir(), 'bench');
copy($argv[1], $copy);
$import = $app->make(App\Jobs\Uploads::class)->receive($person, null, $copy, 'bench.glb', VineShelf\Layers\SortBy::Best, '');
$started = hrtime(true);
(new App\Jobs\TakeIn($import->id))->handle($app->make(App\Scenes\SceneStore::class));
$took = (hrtime(true) - $started) / 1e6;
preg_match('~VmHWM:\s+(\d+) kB~', (string) file_get_contents('/proc/self/status'), $most);
$import->refresh();
$import->project?->delete();
echo json_encode(['ms' => $took, 'memory' => (int) ($most[1] ?? 0) / 1024, 'objects' => $import->objects, 'error' => $import->error]);
