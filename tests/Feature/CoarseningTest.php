<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Files\Kept;
use App\Jobs\Coarsen;
use App\Jobs\Sweep;
use App\Lighten\Coarsening;
use App\Models\Project;
use App\Models\User;
use App\Scenes\SceneStore;
use Illuminate\Database\Events\TransactionBeginning;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\Queue;
use Tests\TestCase;
use VineShelf\Geometry\PackReader;
use VineShelf\Scene\MeshVersions;
use VineShelf\Simplify\Versions;

/** Coarser versions of a project's meshes, behind a take-in. */
final class CoarseningTest extends TestCase
{
    private User $ida;

    private Project $baths;

    protected function setUp(): void
    {
        parent::setUp();
        $this->ida = $this->person();
        $this->baths = $this->baths($this->ida);
    }

    protected function tearDown(): void
    {
        $this->roomForFiles(null);
        parent::tearDown();
    }

    public function test_every_mesh_that_can_be_coarser_is_after_a_take_in_and_the_canvas_hears_of_it(): void
    {
        $before = $this->state();
        self::assertSame('', $this->actingAs($this->ida)->get("/projects/{$this->baths->key}/versions")->assertOk()->getContent());
        $this->coarsen();
        self::assertSame(0, Coarsening::left($this->baths));
        self::assertNotSame($before, $this->state(), 'pages that are open ask anew');
        $this->assertIndexTrue($this->baths);

        $all = MeshVersions::all($this->app->make(SceneStore::class)->scene($this->baths));
        $meshes = DB::table('meshes')->where('project_id', $this->baths->id)->pluck('triangles', 'no')->all();
        self::assertGreaterThan(80, count($all));
        foreach ($all as $mesh => $versions) {
            $triangles = (int) $meshes[$mesh];
            self::assertGreaterThanOrEqual(Versions::LEAST, $triangles);
            self::assertSame(1, count(array_filter(array_column($versions, 'coarse'))), 'one of them does for the rung Coarse');
            foreach ($versions as $at => $version) {
                self::assertLessThan($triangles, $triangles = $version['triangles']);
                $file = (string) $this->baths->packs()->where('no', $version['pack'])->value('file');
                $shape = (new PackReader((string) Kept::get($file)))->packed($mesh, $at + 1);
                self::assertSame([$version['triangles'], $version['vertices']], [$shape?->triangles(), $shape?->vertices()]);
                self::assertSame(Kept::get($file), gzdecode((string) Kept::get("$file.gz")));
            }
        }
        $told = (string) $this->get("/projects/{$this->baths->key}/versions")->getContent();
        self::assertSame(array_sum(array_map(count(...), $all)), intdiv(strlen($told), MeshVersions::ENTRY));
        $this->get("/projects/{$this->baths->key}/packs/{$version['pack']}")->assertOk();
        $this->actingAs($this->person('Stranger'))->get("/projects/{$this->baths->key}/versions")->assertNotFound();
        // Whoever looks at a part sees how coarse it can become.
        $tree = (int) $this->baths->objects()->where('name', 'Tree#0')->value('no');
        $this->actingAs($this->ida)->post("/projects/{$this->baths->key}/pick", ['keys' => "O$tree", 'mode' => 'replace']);
        $this->get("/projects/{$this->baths->key}/details")->assertOk()->assertSee('Coarser')->assertSee('off by 0.20 m');
        // Once more changes nothing.
        $state = $this->state();
        $this->coarsen();
        self::assertSame($state, $this->state());
    }

    public function test_taking_the_file_back_takes_its_versions_and_doing_it_again_brings_them(): void
    {
        $this->coarsen();
        $this->actingAs($this->ida)->post("/projects/{$this->baths->key}/undo")->assertOk();
        $scene = fn () => $this->app->make(SceneStore::class)->scene($this->baths->refresh());
        self::assertSame([], MeshVersions::all($scene()));
        self::assertSame(0, Coarsening::left($this->baths), 'nothing is made coarser that is gone');
        $this->post("/projects/{$this->baths->key}/redo")->assertOk();
        self::assertNotSame([], MeshVersions::all($scene()));
        $this->assertIndexTrue($this->baths);
    }

    public function test_what_somebody_else_did_in_the_meantime_is_not_done_twice(): void
    {
        $packs = DB::table('packs')->count();
        $coarsening = $this->coarsening();
        // The batch is made; when it is about to be put in, it is there.
        Event::listen(TransactionBeginning::class, fn () => DB::table('sources')->update(['coarsened' => DB::raw("'\\x00'::bytea")]));
        $coarsening->next();
        Event::forget(TransactionBeginning::class);
        self::assertSame($packs, DB::table('packs')->count());
        self::assertSame($this->baths->revision, $this->baths->refresh()->revision);

        // While another worker has the project, a job leaves it alone.
        $other = $this->otherConnection();
        $other->query('SELECT pg_advisory_lock(7202, '.$this->baths->id.')');
        $this->coarsen();
        self::assertSame($packs, DB::table('packs')->count());
        $other->query('SELECT pg_advisory_unlock(7202, '.$this->baths->id.')');
        DB::table('sources')->update(['coarsened' => null]);
        $this->coarsen();
        self::assertGreaterThan($packs, DB::table('packs')->count());
    }

    public function test_a_full_disk_and_a_fault_after_the_work_leave_everything_as_it_was(): void
    {
        $before = [$this->state(), DB::table('packs')->count(), Kept::disk()->allFiles()];
        $this->roomForFiles(60_000);
        $this->coarsen();
        $this->roomForFiles(null);
        self::assertSame($before, [$this->state(), DB::table('packs')->count(), Kept::disk()->allFiles()]);

        Event::listen(TransactionBeginning::class, static fn () => throw new \RuntimeException('The worker ends here.'));
        try {
            $this->coarsening()->next();
            self::fail('the worker went on');
        } catch (\RuntimeException) {
            Event::forget(TransactionBeginning::class);
        }
        self::assertSame(array_slice($before, 0, 2), [$this->state(), DB::table('packs')->count()]);
        $this->coarsen();
        self::assertSame(0, Coarsening::left($this->baths));
        $this->assertIndexTrue($this->baths);
    }

    public function test_a_pack_that_is_lost_or_broken_costs_its_own_meshes_only(): void
    {
        $files = $this->baths->packs()->orderBy('no')->pluck('file')->all();
        Kept::put($files[0], 'nothing of a pack');
        Kept::disk()->delete($files[1]);
        $this->coarsen();
        self::assertSame(0, Coarsening::left($this->baths));
        $none = $this->baths->meshes()->whereIn('pack_no', [1, 2])->pluck('no')->all();
        $all = MeshVersions::all($this->app->make(SceneStore::class)->scene($this->baths->refresh()));
        self::assertGreaterThan(60, count($all));
        self::assertSame([], array_intersect($none, array_keys($all)));
    }

    public function test_the_daily_sweep_gives_what_was_lost_on_its_way_back_to_the_queue(): void
    {
        (new Sweep)->run();
        Queue::assertPushedOn(Coarsen::QUEUE, Coarsen::class);
        Queue::fake();
        $this->coarsen();
        (new Sweep)->run();
        Queue::assertNotPushed(Coarsen::class);
    }

    private function coarsening(): Coarsening
    {
        return new Coarsening(Project::query()->findOrFail($this->baths->id), $this->app->make(SceneStore::class));
    }

    private function coarsen(): void
    {
        (new Coarsen($this->baths->id))->handle($this->app->make(SceneStore::class));
        $this->baths->refresh();
    }

    /** @return array{int, int} what pages compare */
    private function state(): array
    {
        $this->baths->refresh();

        return [$this->baths->revision, $this->baths->next_pack];
    }
}
