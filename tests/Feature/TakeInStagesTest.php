<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Files\Kept;
use App\Jobs\Coarsen;
use App\Jobs\Sweep;
use App\Jobs\TakeIn;
use App\Jobs\Uploads;
use App\Lighten\Coarsening;
use App\Models\Import;
use App\Models\ImportState;
use App\Models\User;
use App\Scenes\SceneStore;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\Storage;
use MarlpitBaths\MarlpitBaths;
use PHPUnit\Framework\Attributes\DataProvider;
use VineShelf\Geometry\PackReader;

/** Taking a file in, with workers that are killed, databases that go away, and several workers on one queue. The workers are real. */
final class TakeInStagesTest extends CommittedTestCase
{
    private static string $model = '';

    private User $ida;

    protected function setUp(): void
    {
        parent::setUp();
        $this->app->forgetInstance('queue');
        Queue::clearResolvedInstance('queue');
        DB::table('jobs')->delete();
        $this->ida = $this->person();
        if (self::$model === '') {
            self::$model = (string) tempnam(sys_get_temp_dir(), 'shelf-medium');
            MarlpitBaths::write(self::$model, 'medium');
            register_shutdown_function(static fn () => @unlink(self::$model));
        }
    }

    /** @return iterable<string, array{string}> */
    public static function stages(): iterable
    {
        foreach (['Reading the file', 'Packing the geometry', 'Storing the objects', ''] as $stage) {
            yield $stage === '' ? 'once it is in' : $stage => [$stage];
        }
    }

    #[DataProvider('stages')]
    public function test_a_worker_that_is_killed_leaves_the_import_to_the_next_one(string $stage): void
    {
        $import = $this->given();
        $worker = $this->worker();
        $this->until(
            static fn (): bool => $stage === ''
                ? $import->refresh()->state === ImportState::Done
                : in_array($import->refresh()->stage, [$stage], true) || $import->isOver(),
        );
        proc_terminate($worker, SIGKILL);
        proc_close($worker);
        $this->finish($this->worker());
        $this->assertIn($import->refresh());
        self::assertLessThanOrEqual(3, $import->attempts);
        $this->assertNothingLeft($import);
    }

    public function test_a_worker_that_is_killed_while_it_makes_coarser_versions_has_lost_one_batch_at_most(): void
    {
        $project = $this->takeIn($this->ida, self::$model)->project ?? self::fail('not taken in');
        Coarsen::dispatch($project->id);
        foreach ([300_000, 600_000, 900_000] as $after) {
            $worker = $this->worker(Coarsen::QUEUE);
            usleep($after);
            proc_terminate($worker, SIGKILL);
            proc_close($worker);
            $this->assertIndexTrue($project);
        }
        $this->finish($this->worker(Coarsen::QUEUE));
        self::assertSame(0, Coarsening::left($project->refresh()));
        $this->assertIndexTrue($project);
        $seen = [];
        foreach ($project->packs()->whereNotNull('versions')->pluck('file') as $file) {
            foreach ((new PackReader((string) Kept::get((string) $file)))->holds() as [$mesh, $version]) {
                self::assertArrayNotHasKey("$mesh.$version", $seen, 'nothing is there twice');
                $seen["$mesh.$version"] = true;
            }
        }
        self::assertGreaterThan(200, count($seen));
    }

    public function test_a_file_that_ends_several_workers_is_given_up_in_words(): void
    {
        $import = $this->given();
        $import->update(['attempts' => 4, 'state' => 'running', 'stage' => 'Packing the geometry']);
        $this->finish($this->worker());
        self::assertSame(ImportState::Failed, $import->refresh()->state);
        self::assertStringContainsString('4 workers ended while they worked on it', $import->error);
        self::assertSame([], Storage::disk('local')->allFiles());
        self::assertSame(0, DB::table('jobs')->count());
    }

    public function test_a_database_that_goes_away_in_between_loses_nothing(): void
    {
        $import = $this->given();
        $worker = $this->worker();
        $this->until(static fn (): bool => $import->refresh()->stage === 'Packing the geometry' || $import->isOver());
        DB::select(
            'SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE datname = current_database() '.
                "AND pid <> pg_backend_pid() AND application_name = 'taking-in'",
        );
        $this->finish($worker);
        self::assertNotSame(ImportState::Failed, $import->refresh()->state, $import->error);
        self::assertTrue($import->isOver() || Storage::disk('local')->exists($import->path), 'what was given is still there');
        $this->finish($this->worker());
        $this->assertIn($import->refresh());
    }

    public function test_several_workers_on_one_queue_take_every_file_in_once(): void
    {
        $imports = [$this->given(), $this->given(), $this->given()];
        $project = $this->takeIn($this->ida, self::demoFile())->project ?? self::fail('not taken in');
        // Two more join one project at the same time.
        $joining = [$this->given(self::demoFile(), $project->id), $this->given(self::demoFile(), $project->id)];
        $workers = [$this->worker(), $this->worker(), $this->worker()];
        usleep(400_000);
        // A worker that starts frees jobs that others hold.
        DB::table('jobs')->update(['reserved_at' => null]);
        array_map($this->finish(...), $workers);
        $this->finish($this->worker());
        foreach ($imports as $import) {
            $this->assertIn($import->refresh());
        }
        self::assertSame(4, $this->ida->projects()->count());
        self::assertSame(
            [ImportState::Done, ImportState::Done],
            array_map(static fn (Import $import): ImportState => $import->refresh()->state, $joining),
        );
        $project->refresh();
        self::assertSame(3 * 3197, $project->objects()->count());
        self::assertSame($project->meshes()->count(), $project->meshes()->distinct()->count('no'));
        self::assertSame(3, $project->changes()->count());
        $this->assertIndexTrue($project);
    }

    public function test_an_import_that_another_worker_holds_is_looked_at_again_later(): void
    {
        $import = $this->given();
        $other = $this->otherConnection();
        $other->exec("SELECT pg_advisory_lock(7201, $import->id)");
        $this->finish($this->worker());
        self::assertSame(ImportState::Waiting, $import->refresh()->state);
        self::assertSame(1, DB::table('jobs')->count(), 'the job is not dropped');
        $other->exec("SELECT pg_advisory_unlock(7201, $import->id)");
        DB::table('jobs')->update(['available_at' => 0]);
        $this->finish($this->worker());
        $this->assertIn($import->refresh());
    }

    public function test_progress_is_seen_and_stopping_is_heard_while_the_objects_are_stored(): void
    {
        $import = $this->given();
        $worker = $this->worker();
        $seen = [];
        $this->until(static function () use ($import, &$seen): bool {
            $seen[$import->refresh()->stage] = max($seen[$import->stage] ?? 0, $import->done);

            return $import->stage === 'Storing the objects' || $import->isOver();
        });
        $started = microtime(true);
        Import::query()
            ->whereKey($import->id)
            ->where('state', '<>', 'done')
            ->update(['stop' => true]);
        self::assertLessThan(0.3, microtime(true) - $started, 'nobody waits for the transaction');
        $this->finish($worker);
        self::assertArrayHasKey('Packing the geometry', $seen);
        if ($import->refresh()->stop && $import->state !== ImportState::Done) {
            self::assertSame(ImportState::Stopped, $import->state);
            self::assertSame(0, $this->ida->projects()->count());
            self::assertSame([], Storage::disk('local')->allFiles());
        } else {
            $this->assertIn($import);
        }
    }

    public function test_when_the_index_cannot_be_kept_the_file_is_in_all_the_same(): void
    {
        $import = $this->given(self::demoFile());
        // Where the folder of the project's files would be, something else stands in the way.
        Storage::disk('local')->put('projects', 'a file');
        (new TakeIn($import->id))->handle($this->app->make(SceneStore::class));
        self::assertSame(ImportState::Done, $import->refresh()->state);
        $this->actingAs($this->ida)
            ->get("/projects/{$import->project?->key}")
            ->assertOk()
            ->assertSee('3,197 objects');
        $this->get("/projects/{$import->project?->key}/packs/1")->assertOk();
        Storage::disk('local')->delete('projects');
        $this->get("/projects/{$import->project?->key}")->assertOk();
        $this->assertIndexTrue($import->project ?? self::fail('no project'));
    }

    private function given(?string $file = null, ?int $project = null): Import
    {
        copy($file ?? self::$model, $copy = (string) tempnam(sys_get_temp_dir(), 'shelf'));
        $into = $project === null ? null : \App\Models\Project::query()->findOrFail($project);

        return $this->app->make(Uploads::class)->receive($this->ida, $into, $copy, 'hall.glb', new \App\Jobs\Sorted);
    }

    private function assertIn(Import $import): void
    {
        self::assertSame(ImportState::Done, $import->state, $import->error);
        $project = $import->project ?? self::fail('no project');
        self::assertSame($import->objects, DB::table('objects')->where('project_id', $project->id)->count());
        self::assertSame(1, $project->sources()->count());
        $this->assertIndexTrue($project);
        foreach ($project->packs()->pluck('file') as $file) {
            self::assertTrue(Storage::disk('local')->exists($file), $file);
        }
    }

    private function assertNothingLeft(Import $import): void
    {
        $disk = Storage::disk('local');
        foreach ($disk->allFiles() as $file) {
            touch($disk->path($file), time() - 7200);
        }
        (new Sweep)->run();
        self::assertSame([], [...$disk->allFiles('uploads'), ...$disk->allFiles('staging')]);
        self::assertSame(["sources/$import->key"], $disk->directories('sources'));
    }
}
