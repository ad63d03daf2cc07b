<?php

declare(strict_types=1);

// What any import must at least do: decode the JSON, unpack the buffers, and COPY the rows of the objects.

require __DIR__.'/../vendor/autoload.php';
$app = require __DIR__.'/../bootstrap/app.php';
$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();
$bytes = (string) file_get_contents($argv[1]);
$pdo = Illuminate\Support\Facades\DB::connection()->getPdo();
$pdo->exec('CREATE TEMPORARY TABLE bench_objects (LIKE objects INCLUDING ALL)');
$copy = static function (array $lines) use ($pdo): void {
    $pdo->pgsqlCopyFromArray(
        'bench_objects',
        $lines,
        "\t",
        '\\\\N',
        'project_id, no, parent_no, position, layer_no, mesh_no, triangles, vertices, kind, lock, source_id, name, class, source_key, '
            .'transform, properties',
    );
};
$started = hrtime(true);
$length = unpack('V', $bytes, 12)[1];
$gltf = json_decode(substr($bytes, 20, $length), true);
foreach (str_split(substr($bytes, 28 + $length), 120_000) as $window) {
    unpack('g*', substr($window, 0, strlen($window) & ~3));
}
$transform = '\\\\x'.str_repeat('00', 96);
$lines = [];
foreach ($gltf['nodes'] as $index => $node) {
    $lines[] =
        "1\t$index\t0\t$index\t1\t0\t12\t24\t1\t0\t1\t".
        addcslashes($node['name'] ?? '', "\\\t\n\r").
        "\t\t$index\t$transform\t".
        addcslashes((string) json_encode($node['extras'] ?? []), "\\\t\n\r");
    if (count($lines) === 10_000) {
        $copy($lines);
        $lines = [];
    }
}
$copy($lines);
echo json_encode(['ms' => (hrtime(true) - $started) / 1e6]);
