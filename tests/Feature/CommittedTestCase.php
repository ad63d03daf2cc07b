<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Project;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use Tests\TestCase;

/** A test whose writes are committed, so that other processes see them; it takes them back itself. Processes at once are real ones. */
abstract class CommittedTestCase extends TestCase
{
    /** @var list<User> */
    private array $people = [];

    public function beginDatabaseTransaction(): void
    {
        // Nothing is taken back at the end but what tearDown() removes.
    }

    protected function person(string $name = 'Ida Keller'): User
    {
        $person = User::query()
            ->create(['name' => $name, 'email' => bin2hex(random_bytes(6)).'@marlpit.example', 'password' => 'tidy-test'])
            ->refresh();

        return $this->people[] = $person;
    }

    protected function tearDown(): void
    {
        foreach ($this->people as $person) {
            Project::query()
                ->whereIn('id', $person->projects()->pluck('projects.id'))
                ->delete();
            $person->delete();
        }
        DB::table('jobs')->delete();
        parent::tearDown();
    }

    /**
     * Requests of several processes in the same moment.
     *
     * @param list<array{User|null, string, string, array<string, mixed>}> $asked person (null for a guest), method, path and values of each
     *
     * @return list<list<array{int, string}>> status and text of the answers, by process
     */
    protected function atOnce(array $asked, int $times = 1): array
    {
        $at = microtime(true) + 0.8;
        $running = [];
        foreach ($asked as [$person, $method, $path, $values]) {
            $one = json_encode(['person' => $person?->id, 'method' => $method, 'path' => $path, 'values' => $values], JSON_THROW_ON_ERROR);
            $pipes = [];
            $process = proc_open(
                [PHP_BINARY, __DIR__.'/Support/side-by-side.php', (string) $at, $one, (string) $times],
                [1 => ['pipe', 'w'], 2 => ['pipe', 'w']],
                $pipes,
                null,
                $this->surroundings(),
            );
            self::assertIsResource($process);
            $running[] = [$process, $pipes];
        }
        $answers = [];
        foreach ($running as [$process, $pipes]) {
            $out = (string) stream_get_contents($pipes[1]);
            $err = (string) stream_get_contents($pipes[2]);
            proc_close($process);
            $read = json_decode($out, true);
            self::assertIsArray($read, $out.$err);
            $answers[] = $read;
        }

        return $answers;
    }

    /** @return string a folder of settings with which PHP keeps what it has compiled: a process begins in half the time then */
    private static function compiled(): string
    {
        static $folder = null;
        if ($folder === null) {
            $folder = sys_get_temp_dir().'/shelf-php-'.bin2hex(random_bytes(6));
            mkdir("$folder/cache", 0o700, true);
            file_put_contents("$folder/cache.ini", "opcache.enable_cli=1\nopcache.file_cache_only=1\nopcache.file_cache=$folder/cache\n");
            register_shutdown_function(static fn () => exec('rm -rf '.escapeshellarg($folder)));
        }

        return $folder;
    }

    /** @return array<string, string> */
    protected function surroundings(): array
    {
        return [
            'DB_DATABASE' => self::database(),
            'SIDE_FILES' => Storage::disk('local')->path(''),
            'APP_ENV' => 'testing',
            'PHP_INI_SCAN_DIR' => ':'.self::compiled(),
        ] + getenv();
    }

    /** @return resource a worker that goes on until the queue is empty: what waits behind everything else costs most tests only time */
    protected function worker(string $queue = 'default')
    {
        $log = Storage::disk('local')->path('../worker.log');
        $worker = proc_open(
            [PHP_BINARY, __DIR__.'/../../artisan', 'shelf:work', '--once', "--queue=$queue"],
            [1 => ['file', $log, 'a'], 2 => ['file', $log, 'a']],
            $pipes,
            null,
            [
                'FILES_ROOT' => Storage::disk('local')->path(''),
                'SHELF_ASIDE' => 'aside',
                'PGAPPNAME' => 'taking-in',
                'QUEUE_CONNECTION' => 'database',
            ] + $this->surroundings(),
        );
        self::assertIsResource($worker);

        return $worker;
    }

    /** @param resource $worker */
    protected function finish($worker): void
    {
        $this->until(static fn (): bool => ! proc_get_status($worker)['running'], 70);
        proc_close($worker);
    }

    /** @param \Closure(): bool $happened */
    protected function until(\Closure $happened, int $seconds = 40): void
    {
        for ($end = microtime(true) + $seconds; ! $happened();) {
            self::assertLessThan($end, microtime(true), 'it did not happen in time');
            usleep(3000);
        }
    }
}
