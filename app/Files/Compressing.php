<?php

declare(strict_types=1);

namespace App\Files;

use League\Flysystem\Local\LocalFilesystemAdapter;
use Symfony\Component\Process\Process;

/**
 * Keeps a compressed twin beside each file, for browsers that take it. On a disk of this machine gzip does it while other work goes on, one
 * process at a time; for an object store it is done here.
 */
final class Compressing
{
    private const LEVEL = 4;

    /** Files that one process takes at least: starting one costs as much as compressing a few. */
    private const AT_ONCE = 8;

    /** @var list<string> files that no process has yet */
    private array $waiting = [];

    /** @var list<string> files that the process has */
    private array $under = [];

    private ?Process $process = null;

    /** Bytes of the twins so far. */
    private int $bytes = 0;

    /** @throws UnableToKeep also for files that were given before */
    public function add(string $file, string $bytes): void
    {
        if (! (Kept::disk()->getAdapter() instanceof LocalFilesystemAdapter)) {
            $packed = (string) gzencode($bytes, self::LEVEL);
            Kept::put("$file.gz", $packed);
            $this->bytes += strlen($packed);

            return;
        }
        $this->waiting[] = $file;
        if (count($this->waiting) >= self::AT_ONCE && ($this->process === null || ! $this->process->isRunning())) {
            $this->next();
        }
    }

    /** @return int bytes of all twins, which are there from now on @throws UnableToKeep */
    public function finish(): int
    {
        if ($this->waiting !== []) {
            $this->next();
        }
        $this->hear();

        return $this->bytes;
    }

    private function next(): void
    {
        $this->hear();
        [$this->under, $this->waiting] = [$this->waiting, []];
        $paths = array_map(static fn (string $file): string => Kept::disk()->path($file), $this->under);
        $this->process = new Process(['gzip', '-n', '-'.self::LEVEL, '-k', '-f', '--', ...$paths], timeout: null);
        $this->process->start();
    }

    private function hear(): void
    {
        $isWell = $this->process === null || $this->process->wait() === 0;
        $this->process = null;
        foreach ($this->under as $file) {
            $path = Kept::disk()->path("$file.gz");
            $bytes = $isWell && is_file($path) ? (int) filesize($path) : 0;
            if ($bytes === 0) {
                throw UnableToKeep::file("$file.gz", 0);
            }
            $this->bytes += $bytes;
        }
        $this->under = [];
    }
}
