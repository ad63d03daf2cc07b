<?php

declare(strict_types=1);

namespace App\Queue;

use Illuminate\Database\Connection;
use Illuminate\Database\ConnectionResolverInterface;
use Illuminate\Queue\Connectors\ConnectorInterface;

final readonly class FairConnector implements ConnectorInterface
{
    public function __construct(private ConnectionResolverInterface $connections) {}

    /** @param array{connection?: string|null, table: string, queue: string} $config */
    public function connect(array $config): FairQueue
    {
        $database = $this->connections->connection($config['connection'] ?? null);
        \assert($database instanceof Connection);

        return new FairQueue(
            $database,
            $config['table'],
            $config['queue'],
            new WorkerLife,
        );
    }
}
