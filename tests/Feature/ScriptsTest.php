<?php

declare(strict_types=1);

namespace Tests\Feature;

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\Storage;
use Tests\Core\Support\Gltf;

/** bin/shelf as scripts call it, in processes of their own: an answer and 0, or one plain sentence among the errors and 2. */
final class ScriptsTest extends CommittedTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->app->forgetInstance('queue');
        Queue::clearResolvedInstance('queue');
        DB::table('jobs')->delete();
    }

    public function test_a_file_is_taken_in_asked_about_and_taken_in_again(): void
    {
        $ida = $this->person();
        [$code, $out, $error] = $this->shelf('import', 'new', Gltf::file(Gltf::triangle()), "--person=$ida->email", '--json');
        self::assertSame([0, ''], [$code, $error], $out);
        $project = json_decode($out, true)['project'] ?? '';
        self::assertSame(['project' => $project, 'objects' => 1], json_decode($out, true));

        // The only owner of a project need not be named.
        [$code, $out] = $this->shelf('rule', $project, 'name:pane kind:part', '--json');
        self::assertSame(0, $code);
        self::assertSame([['number' => 1, 'kind' => 'part', 'name' => 'Pane']], json_decode($out, true)['objects']);
        [$code, $out, $error] = $this->shelf('rule', $project, 'pane or layer:Attic');
        self::assertSame([0, "There is no layer with “Attic” in its name.\n"], [$code, $error]);
        self::assertStringContainsString('Pane', $out);
        [$code, $out] = $this->shelf('views', $project, '--json');
        self::assertSame([0, []], [$code, json_decode($out, true)]);

        // A .gltf with its buffer beside it joins the project.
        $folder = sys_get_temp_dir().'/shelf-scripts-'.bin2hex(random_bytes(5));
        mkdir($folder);
        $bytes = pack('g*', 0, 0, 0, 1, 0, 0, 0, 2, 0).pack('v*', 0, 1, 2, 0);
        file_put_contents("$folder/pane.bin", $bytes);
        $gltf = ['buffers' => [['byteLength' => strlen($bytes), 'uri' => 'pane.bin']]] + Gltf::triangle();
        file_put_contents("$folder/second.gltf", json_encode($gltf));
        [$code, $out, $error] = $this->shelf('import', $project, "$folder/second.gltf");
        self::assertSame([0, '', "1 object is in project $project.\n"], [$code, $error, $out]);
        self::assertCount(2, json_decode($this->shelf('rule', $project, 'pane', '--json')[1], true)['objects']);
        exec('rm -r '.escapeshellarg($folder));
    }

    public function test_whatever_is_wrong_is_one_plain_sentence(): void
    {
        $ida = $this->person();
        $this->person('Otto Quill');
        $broken = Gltf::keep('{"asset":{"version":"2.0"},"nodes":[{]}');
        foreach (
            [
                [['import'], 'Not enough arguments'],
                [['import', 'new', '/nowhere.glb', "--person=$ida->email"], 'There is no readable file at /nowhere.glb.'],
                [['import', 'new', $broken, "--person=$ida->email"], 'JSON is broken'],
                [['import', 'new', $broken, "--person=$ida->email", '--sort-by=mood'], 'Layers can be made from'],
                [['import', 'gone', $broken], 'There is no project with the key gone.'],
                [['rule', 'gone', 'seat'], 'There is no project with the key gone.'],
                [['rule', 'gone'], 'Not enough arguments'],
                [['views', 'gone', '--loud'], 'option does not exist'],
                [['fly'], 'The commands are'],
                [[], 'The commands are'],
            ] as [$words, $said]
        ) {
            [$code, $out, $error] = $this->shelf(...$words);
            $which = implode(' ', $words);
            self::assertSame([2, ''], [$code, $out], $which);
            self::assertStringContainsString($said, $error, $which);
            self::assertSame(1, substr_count($error, "\n"), "$which: $error");
            self::assertDoesNotMatchRegularExpression('~#0|vendor/|\x1b|⇂~', $error, $which);
        }
        [$code, , $error] = $this->shelf('views', 'any', surroundings: ['DB_PORT' => '1']);
        self::assertSame([2, "The database cannot be reached; bin/start starts it.\n"], [$code, $error]);
    }

    /**
     * @param array<string, string> $surroundings
     *
     * @return array{int, string, string} exit code, output, errors
     */
    private function shelf(mixed ...$words): array
    {
        $surroundings = $words['surroundings'] ?? [];
        unset($words['surroundings']);
        $process = proc_open(
            [PHP_BINARY, __DIR__.'/../../bin/shelf', ...array_map(strval(...), array_values($words))],
            [1 => ['pipe', 'w'], 2 => ['pipe', 'w']],
            $pipes,
            null,
            $surroundings + ['FILES_ROOT' => Storage::disk('local')->path(''), 'QUEUE_CONNECTION' => 'database'] + $this->surroundings(),
        );
        self::assertIsResource($process);
        // An import waits for a worker.
        $needsWorker = ($words[0] ?? '') === 'import' && count($words) > 2 && $surroundings === [];
        while (($status = proc_get_status($process))['running']) {
            $needsWorker ? $this->finish($this->worker()) : usleep(20_000);
        }
        [$out, $error] = [(string) stream_get_contents($pipes[1]), (string) stream_get_contents($pipes[2])];
        proc_close($process);

        return [$status['exitcode'], $out, $error];
    }
}
