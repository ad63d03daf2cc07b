<?php

declare(strict_types=1);

/* The application in a process beside that of the tests, on the same files. Returns what answers requests. */

use Illuminate\Contracts\Http\Kernel;

require __DIR__.'/../../../vendor/autoload.php';

$app = require __DIR__.'/../../../bootstrap/app.php';
$kernel = $app->make(Kernel::class);
$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();
config([
    'filesystems.disks.local.root' => getenv('SIDE_FILES'),
    'session.driver' => 'array',
]);

return $kernel;
