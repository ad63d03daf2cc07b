<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Jobs\ExportParts;
use App\Models\Export;
use App\Models\Project;
use App\Models\User;
use App\Queue\FairQueue;
use App\Queue\WorkerLife;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use PHPUnit\Framework\Attributes\TestWith;
use Tests\Core\Support\Gltf;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;

/** Who gets which job when: real processes against the real table of jobs. */
final class QueueTest extends CommittedTestCase
{
    private User $ida;

    private User $bea;

    private Project $project;

    private ?FairQueue $queue = null;

    protected function setUp(): void
    {
        parent::setUp();
        [$this->ida, $this->bea] = [$this->person(), $this->person('Bea Lind')];
        $this->project = $this->takeIn($this->ida, Gltf::file(Gltf::triangle()), name: 'one.gltf')->project ?? self::fail('not taken in');
        DB::table('jobs')->delete();
        DB::table('queue_turns')->delete();
    }

    public function test_a_job_is_its_workers_while_that_lives_and_the_next_ones_once_it_is_killed(): void
    {
        $number = $this->export($this->ida);
        $holder = proc_open(
            [PHP_BINARY, __DIR__.'/Support/hold-a-job.php', 'exports'],
            [1 => ['pipe', 'w']],
            $pipes,
            null,
            ['QUEUE_CONNECTION' => 'database'] + $this->surroundings(),
        );
        self::assertIsResource($holder);
        self::assertSame("$number\n", fgets($pipes[1]));
        // However long ago it was begun.
        DB::table('jobs')->update(['reserved_at' => time() - 100_000]);
        self::assertNull($this->next());
        $this->finish($this->worker('exports'));
        self::assertSame(1, DB::table('jobs')->count(), 'a worker that starts leaves it alone');
        self::assertSame('waiting', Export::query()->where('project_id', $this->project->id)->value('state'));

        proc_terminate($holder, 9);
        proc_close($holder);
        $this->finish($this->worker('exports'));
        self::assertSame(0, DB::table('jobs')->count());
        self::assertSame('done', Export::query()->where('project_id', $this->project->id)->value('state'));
    }

    #[TestWith(['exports'])]
    #[TestWith(['lighten'])]
    #[TestWith(['tidy'])]
    public function test_a_worker_killed_at_any_moment_leaves_the_job_to_the_next_while_others_start(string $what): void
    {
        $this->app->forgetInstance('queue');
        Queue::clearResolvedInstance('queue');
        $this->project = $this->takeIn($this->ida, self::demoFile())->project ?? self::fail('not taken in');
        DB::table('jobs')->delete();
        $path = "/projects/{$this->project->key}";
        $this->actingAs($this->ida);
        $lighter = ['triangles' => 90_000, 'side' => 'desk', 'by' => 'objects', 'from' => 'everywhere'];
        match ($what) {
            'exports' => $this->post("$path/exports", ['of' => 'all', 'side' => 'output'])->assertOk(),
            'lighten' => $this->post("$path/lighten", $lighter)->assertOk(),
            default => $this->post("$path/tidy/run")->assertOk(),
        };
        $queue = (string) DB::table('jobs')->value('queue');
        $killed = $this->worker($queue);
        $this->until(static fn (): bool => DB::table('jobs')->whereNotNull('reserved_at')->exists());
        usleep(mt_rand(0, 700_000));
        $others = [$this->worker($queue)];
        proc_terminate($killed, 9);
        proc_close($killed);
        $others[] = $this->worker($queue);
        array_map($this->finish(...), $others);
        $this->finish($this->worker($queue));
        self::assertSame(0, DB::table('jobs')->count());
        self::assertSame(0, DB::table('failed_jobs')->count());
        $table = ['exports' => 'exports', 'lighten' => 'lightenings', 'tidy' => 'tidyings'][$what];
        self::assertSame(['done'], DB::table($table)->where('project_id', $this->project->id)->pluck('state')->all());
    }

    public function test_many_jobs_of_one_person_do_not_keep_those_of_others_waiting(): void
    {
        $idas = array_map(fn (): int => $this->export($this->ida), range(1, 5));
        self::assertSame($idas[0], $this->next());
        $beas = [$this->export($this->bea), $this->export($this->bea)];
        $order = [$beas[0], $idas[1], $beas[1], $idas[2], $idas[3], $idas[4], null];
        self::assertSame($order, array_map(fn () => $this->next(), range(1, 7)));
    }

    public function test_one_worker_of_two_is_always_free_of_exports_and_together_they_do_everything(): void
    {
        /** @var list<string> $workers */
        $workers = config('shelf.workers');
        self::assertCount(2, $workers);
        $lists = array_map(static fn (string $queues): array => explode(',', $queues), $workers);
        self::assertNotContains('exports', $lists[0]);
        self::assertSame('default', $lists[0][0], 'files that are given come first');
        self::assertSame('exports', $lists[1][0]);
        foreach (['default', 'looks', 'pictures', 'later'] as $queue) {
            self::assertContains($queue, $lists[0]);
            self::assertContains($queue, $lists[1]);
        }
    }

    /** @return int number of its job */
    private function export(User $person): int
    {
        $export = Export::query()->create([
            'key' => bin2hex(random_bytes(10)),
            'project_id' => $this->project->id,
            'user_id' => $person->id,
            'asked' => [
                'of' => 'all', 'rows' => base64_encode(Members::pack(Bits::ofRows(1, [1]))),
                'count' => 1, 'held' => 0, 'side' => 'output', 'view' => 0, 'quantized' => false, 'compressed' => false,
            ],
            'file_name' => 'one.glb',
        ]);

        return (int) $this->queue()->push(new ExportParts($export->id), '', 'exports');
    }

    /** The job that a worker would get now, which is then done. */
    private function next(): ?int
    {
        $job = $this->queue()->pop('exports');
        $job?->delete();

        return $job === null ? null : (int) $job->getJobId();
    }

    private function queue(): FairQueue
    {
        if ($this->queue === null) {
            $this->queue = new FairQueue(DB::connection(), 'jobs', 'default', new WorkerLife);
            $this->queue->setContainer($this->app);
            $this->queue->setConnectionName('database');
        }

        return $this->queue;
    }
}
