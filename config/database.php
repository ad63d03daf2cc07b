<?php

declare(strict_types=1);

$pgsql = [
    'driver' => 'pgsql',
    'host' => env('DB_HOST', '127.0.0.1'),
    'port' => env('DB_PORT', '54437'),
    'database' => env('DB_DATABASE', 'shelf'),
    'username' => env('DB_USERNAME', 'shelf'),
    'password' => env('DB_PASSWORD', ''),
    'charset' => 'utf8',
    'prefix' => '',
    'prefix_indexes' => true,
    'search_path' => 'public',
    'sslmode' => env('DB_SSLMODE', 'prefer'),
];

return [
    // Opening a connection costs more than most answers: each process that serves pages keeps its own and opens another when it has died.
    'keep' => env('DB_PERSISTENT', true),
    'default' => env('DB_CONNECTION', 'pgsql'),
    'connections' => [
        'pgsql' => $pgsql,
        // One that is open for as long as a worker lives. One that is kept would be the first one again.
        'alive' => ['options' => [PDO::ATTR_PERSISTENT => false]] + $pgsql,
        // A second connection of long work, to tell how far it is while a transaction is open.
        'aside' => ['options' => [PDO::ATTR_PERSISTENT => false]] + $pgsql,
    ],
    'migrations' => ['table' => 'migrations', 'update_date_on_publish' => true],
];
