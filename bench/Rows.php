<?php

declare(strict_types=1);

use MarlpitBaths\MarlpitBaths;

/** Measures and prints the rows of bin/bench. */
final class Rows
{
    /** @var list<array<string, mixed>> */
    private array $rows = [];

    private int $failed = 0;

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
        $this->rows[] = ['row' => 'noise', 'spread' => round((100 * ($times[13] - $times[1])) / $times[7], 1)];
        $this->note(sprintf('noise: the same loop takes %.1f to %.1f ms, median %.1f', $times[1], $times[13], $times[7]));
    }

    public function add(
        string $name,
        string $size,
        float $value,
        ?float $floor,
        string $floorIs,
        ?float $goal,
        string $remark,
        string $unit = 'ms',
    ): void {
        $this->rows[] = [
            'row' => $name,
            'size' => $size,
            'value' => round($value, 2),
            'unit' => $unit,
            'floor' => $floor === null ? null : round($floor, 2),
            'floor is' => $floorIs,
            'goal' => $goal === null ? null : round($goal, 1),
            'met' => $goal === null ? null : $value <= $goal,
            'remark' => $remark,
        ];
        $this->note(
            sprintf(
                '%-34s %-6s %10s %-3s floor %-9s %s %s',
                $name,
                $size,
                number_format($value, $value < 10 ? 2 : 1),
                $unit,
                $floor === null ? '-' : number_format($floor, 1).' ('.number_format($value / max(0.001, $floor), 1).'x)',
                $goal === null ? '' : ($value <= $goal ? 'met ' : 'MISSED ').'(goal '.number_format($goal).')',
                '· '.$remark,
            ),
        );
    }

    /**
     * The rows of a part: what goes wrong in it is said, and the rest goes on.
     *
     * @param \Closure(string): void $run
     */
    public function part(string $part, string $size, \Closure $run): void
    {
        try {
            $run($size);
        } catch (\Throwable $fault) {
            $this->failed++;
            $where = basename($fault->getFile()).':'.$fault->getLine();
            $says = sprintf('%s %s FAILED: %s (%s)', $part, $size, mb_strimwidth($fault->getMessage(), 0, 300, '…'), $where);
            $this->rows[] = ['row' => $part, 'size' => $size, 'failed' => $says];
            fwrite(STDERR, $says.PHP_EOL);
        }
    }

    /** How rows grow from the smaller sizes to the larger ones, beside how the objects do. */
    public function growth(): void
    {
        $objects = ['medium' => 9_582, 'large' => 51_078, 'huge' => 201_102, 'scattered' => 200_001];
        $values = [];
        foreach ($this->rows as $row) {
            if (isset($row['size'], $objects[$row['size']]) && ($row['unit'] ?? '') === 'ms') {
                $values[$row['row']][$row['size']] = $row['value'];
            }
        }
        foreach ($values as $name => $bySize) {
            foreach (['medium', 'large'] as $from) {
                if (! isset($bySize[$from], $bySize['huge'])) {
                    continue;
                }
                $times = $bySize['huge'] / max(0.001, $bySize[$from]);
                $more = $objects['huge'] / $objects[$from];
                // A tenth more is within the noise of this machine.
                $straight = $times <= 1.1 * $more;
                $this->rows[] = [
                    'row' => "growth of $name",
                    'from' => $from,
                    'times' => round($times, 2),
                    'objects' => round($more, 1),
                    'straight' => $straight,
                ];
                $this->note(
                    sprintf(
                        'growth, %s to huge: %-42s %5.2f times for %.1f times the objects%s',
                        $from,
                        $name,
                        $times,
                        $more,
                        $straight ? '' : ' MORE THAN A STRAIGHT LINE',
                    ),
                );
            }
        }
    }

    /** @return int how bin/bench is to end: 1 where a part failed */
    public function finish(): int
    {
        if ($this->json) {
            echo json_encode($this->rows, JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE), "\n";
        }

        return $this->failed === 0 ? 0 : 1;
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
    public static function import(string $path, int $runs): array
    {
        $out = (string) shell_exec(
            getenv('SHELF_PHP').' -d memory_limit=2G '.escapeshellarg(__DIR__.'/import.php').' '.escapeshellarg($path)." $runs",
        );
        $told = json_decode($out, true);
        $floor = json_decode(
            (string) shell_exec(
                getenv('SHELF_PHP').' -d memory_limit=4G '.escapeshellarg(__DIR__.'/import-floor.php').' '.escapeshellarg($path),
            ),
            true,
        );
        if (! is_array($told) || ! is_array($floor)) {
            throw new RuntimeException("The import could not be measured: $out");
        }

        return [
            'ms' => (float) $told['ms'],
            'floor' => (float) $floor['ms'],
            'memory' => (float) $told['memory'],
            'objects' => number_format((int) $told['objects']),
        ];
    }
}
