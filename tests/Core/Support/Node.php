<?php

declare(strict_types=1);

namespace Tests\Core\Support;

/** Runs a script of a package from the npm registry, as an independent witness. */
final class Node
{
    /** @return array<mixed> what the script prints as JSON */
    public static function run(string $script, string ...$arguments): array
    {
        $process = proc_open(['node', __DIR__.'/'.$script, ...$arguments], [1 => ['pipe', 'w'], 2 => ['pipe', 'w']], $pipes);
        if ($process === false) {
            throw new \RuntimeException('node does not start.');
        }
        $out = (string) stream_get_contents($pipes[1]);
        $error = (string) stream_get_contents($pipes[2]);
        proc_close($process);
        $decoded = json_decode($out, true);

        return is_array($decoded) ? $decoded : throw new \RuntimeException("$script: $error");
    }
}
