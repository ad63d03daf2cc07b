<?php

declare(strict_types=1);

/*
 * A worker that takes a job of the queue $argv[1] and is never done with it. Prints the job's number, then waits to be killed.
 */

use Illuminate\Contracts\Console\Kernel;
use Illuminate\Support\Facades\Queue;

require __DIR__.'/../../../vendor/autoload.php';

$app = require __DIR__.'/../../../bootstrap/app.php';
$app->make(Kernel::class)->bootstrap();
$job = Queue::connection('database')->pop($argv[1]);
echo $job?->getJobId(), "\n";
sleep(60);
