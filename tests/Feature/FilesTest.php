<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Files\Compressing;
use App\Files\Kept;
use App\Files\UnableToKeep;
use App\Jobs\Sweep;
use App\Jobs\TakeIn;
use App\Jobs\Uploads;
use App\Models\Import;
use App\Models\ImportState;
use App\Models\Project;
use App\Scenes\SceneStore;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Storage;
use PHPUnit\Framework\Attributes\TestWith;
use Tests\Core\Support\Gltf;
use Tests\TestCase;
use VineShelf\Facts\Derived;
use VineShelf\Facts\Facts;
use VineShelf\Facts\Measure;

/** Files are whole or not there: full disks, cut files, leftovers. */
final class FilesTest extends TestCase
{
    protected function tearDown(): void
    {
        $this->roomForFiles(null);
        parent::tearDown();
    }

    public function test_a_full_disk_ends_a_take_in_in_words_and_leaves_nothing(): void
    {
        $person = $this->person();
        $before = [Project::query()->count(), DB::table('objects')->count()];
        copy(self::demoFile(), $copy = (string) tempnam(sys_get_temp_dir(), 'shelf'));
        $import = $this->app->make(Uploads::class)->receive($person, null, $copy, 'hall.glb', new \App\Jobs\Sorted);
        $this->roomForFiles(60_000);
        (new TakeIn($import->id))->handle($this->app->make(SceneStore::class));
        $this->roomForFiles(null);
        self::assertSame(ImportState::Failed, $import->refresh()->state);
        self::assertStringContainsString('its disk is full or not writable', $import->error);
        self::assertSame($before, [Project::query()->count(), DB::table('objects')->count()]);
        self::assertSame([], Storage::disk('local')->allFiles());
    }

    public function test_a_file_is_never_half_there(): void
    {
        Kept::put('a/b', 'as it was');
        $this->roomForFiles(1000);
        try {
            Kept::put('a/b', str_repeat('x', 5000));
            self::fail('5,000 bytes where 1,000 fit');
        } catch (UnableToKeep $full) {
            self::assertSame('The server could not keep 5 kB: its disk is full or not writable.', $full->getMessage());
        }
        $this->roomForFiles(null);
        self::assertSame(['a/b'], Storage::disk('local')->allFiles());
        self::assertSame('as it was', Kept::get('a/b'));
        self::assertNull(Kept::get('a/b', 4));
    }

    #[TestWith(['sorting', 'as.json'])]
    #[TestWith(['export', 'as.glb'])]
    #[TestWith(['bcf', 'as.bcf'])]
    public function test_what_a_command_writes_is_whole_or_as_it_was(string $command, string $name): void
    {
        $project = $this->baths($this->person());
        $this->actingAs($project->people()->firstOrFail());
        foreach ($command === 'bcf' ? range(1, 8) : [] as $view) {
            $this->post("/projects/$project->key/views", ['name' => "$view ".bin2hex(random_bytes(30)), 'keep_rungs' => 1])->assertOk();
        }
        $folder = sys_get_temp_dir().'/shelf-'.bin2hex(random_bytes(6));
        mkdir($folder);
        file_put_contents("$folder/$name", 'as it was');
        $this->roomForFiles(4000);
        $this->artisan("shelf:$command", ['project' => $project->key, 'file' => "$folder/$name"])
            ->expectsOutput("There is no writing to $folder/$name, or not enough room.")
            ->assertExitCode(2);
        if ($command === 'bcf') {
            $left = glob(sys_get_temp_dir().'/bcf*');
            $this->get("/projects/$project->key/bcf")->assertStatus(507)->assertSee('its disk is full or not writable');
            self::assertSame($left, glob(sys_get_temp_dir().'/bcf*'));
        }
        $this->roomForFiles(null);
        self::assertSame(["$folder/$name"], glob("$folder/*"));
        self::assertStringEqualsFile("$folder/$name", 'as it was');
        $this->artisan("shelf:$command", ['project' => $project->key, 'file' => "$folder/$name"])->assertExitCode(0);
        self::assertGreaterThan(4000, filesize("$folder/$name"));
        exec('rm -r '.escapeshellarg($folder));
    }

    public function test_each_pack_has_a_compressed_twin_and_a_source_says_what_it_takes(): void
    {
        $project = $this->baths($this->person());
        $bytes = 0;
        foreach (Kept::disk()->allFiles() as $file) {
            $bytes += str_contains($file, '/index-') ? 0 : Kept::disk()->size($file);
            if (str_ends_with($file, '.glb') && ! str_starts_with($file, 'originals/')) {
                self::assertSame(Kept::get($file), gzdecode((string) Kept::get("$file.gz")), $file);
            }
        }
        self::assertGreaterThan(20, DB::table('packs')->where('project_id', $project->id)->count());
        self::assertSame($bytes, (int) $project->sources()->value('kept'));
    }

    public function test_what_cannot_be_compressed_is_said(): void
    {
        $noise = random_bytes(40_000);
        $kept = new Compressing;
        for ($file = 0; $file < 60; $file++) {
            Kept::put("packs/$file", $noise.$file);
            $kept->add("packs/$file", $noise.$file);
        }
        self::assertGreaterThan(60 * 40_000, $kept->finish());
        self::assertSame($noise.'59', gzdecode((string) Kept::get('packs/59.gz')));

        $full = new Compressing;
        $full->add('packs/1', $noise);
        $this->roomForFiles(10_000);
        $this->expectException(UnableToKeep::class);
        $full->finish();
    }

    public function test_with_a_full_disk_people_go_on_working(): void
    {
        $person = $this->person();
        $project = $this->baths($person);
        $this->actingAs($person);
        // Where it is served, views are compiled when it starts.
        $this->artisan('view:cache')->run();
        $this->roomForFiles(10);
        foreach (range(1, 3) as $step) {
            $this->post("/projects/$project->key/layers", ['name' => "Layer $step"])
                ->assertOk()
                ->assertSee("Create layer Layer $step.");
            $this->post("/projects/$project->key/file", [
                'keys' => 'O'.(3 + $step),
                'layer' => $this->layer($project, "Layer $step"),
            ])->assertOk();
        }
        $this->get("/projects/$project->key/ledger?lens=objects&from=0&count=20&words=width+%3E+1m")
            ->assertOk()
            ->assertSee('data-total', false);
        $this->post("/projects/$project->key/undo")
            ->assertOk()
            ->assertSee('Undone');
        $this->post("/projects/$project->key/views", [
            'name' => 'Hall',
            'keep_rungs' => 1,
            'picture' =>
                'data:image/png;base64,'.
                base64_encode((string) file_get_contents(__DIR__.'/../../docs/screenshots/projects.png', length: 3000)),
        ])
            ->assertStatus(507)
            ->assertSee('its disk is full or not writable');
        $this->roomForFiles(null);
        self::assertSame(0, $project->views()->count());
        $this->assertIndexTrue($project);
    }

    public function test_index_files_that_are_cut_emptied_or_gone_heal(): void
    {
        mt_srand(4);
        $person = $this->person();
        $project = $this->baths($person);
        $this->actingAs($person);
        $this->app->make(SceneStore::class)->ripen($project);
        $store = $this->app->make(SceneStore::class);
        $wanted = [];
        foreach (Derived::usual() as $name) {
            $wanted[$name] = md5($store->columns($project)->column($name));
        }
        $disk = Storage::disk('local');
        foreach (range(1, 6) as $round) {
            foreach ($disk->allFiles($project->folder()) as $file) {
                match (mt_rand(0, 5)) {
                    0 => $disk->put($file, ''),
                    1 => $disk->put($file, substr((string) $disk->get($file), 0, mt_rand(1, 40))),
                    2 => $disk->put($file, substr((string) $disk->get($file), 0, -1)),
                    3 => $disk->delete($file),
                    default => null,
                };
            }
            apcu_enabled() && apcu_clear_cache();
            $this->get("/projects/$project->key")
                ->assertOk()
                ->assertSee('3,197 objects');
            $this->assertIndexTrue($project);
            foreach ($wanted as $name => $hash) {
                self::assertSame($hash, md5($store->columns($project)->column($name)), "$name in round $round");
            }
        }
        // What has healed stays: nothing is made a second time.
        $files = $disk->allFiles($project->folder());
        $this->get("/projects/$project->key")->assertOk();
        self::assertSame($files, $disk->allFiles($project->folder()));
    }

    public function test_columns_that_two_processes_add_at_once_are_all_kept(): void
    {
        $project = $this->baths($this->person());
        [$one, $other] = [(new SceneStore)->columns($project), (new SceneStore)->columns($project)];
        $one->column('kind');
        $other->column('kind');
        // Each has read the manifest before the other adds.
        $one->column('order.size.down');
        $other->column('order.height.down');
        $one->column('ranked.width');
        $names = array_map(basename(...), Storage::disk('local')->allFiles($project->folder()));
        foreach (['order.size.down', 'order.height.down', 'ranked.width'] as $name) {
            self::assertCount(1, preg_grep('~^\~'.preg_quote($name, '~').'\.~', $names) ?: [], $name);
        }
    }

    public function test_the_sweep_removes_what_nothing_names_and_nothing_else(): void
    {
        $person = $this->person();
        $project = $this->baths($person);
        $this->actingAs($person);
        $picture = static fn (int $shade): string => 'data:image/png;base64,'.base64_encode("\x89PNG\r\n\x1a\n".chr($shade));
        $this->post("/projects/$project->key/views", ['name' => 'Kept', 'keep_rungs' => 1, 'picture' => $picture(1)])->assertOk();
        $this->post("/projects/$project->key/views", ['name' => 'Deleted', 'keep_rungs' => 1, 'picture' => $picture(2)])->assertOk();
        $this->delete("/projects/$project->key/views/2")->assertOk();
        $this->post("/projects/$project->key/views", ['name' => '', 'picture' => $picture(3)])->assertStatus(422);
        $disk = Storage::disk('local');
        $waiting = Import::query()->create([
            'key' => 'waitingwaiting',
            'user_id' => $person->id,
            'file_name' => 'a.glb',
            'path' => 'uploads/waitingwaiting',
            'bytes' => 3,
            'sort_by' => 'best',
        ]);
        foreach (
            [
                'uploads/waitingwaiting',
                'uploads/nobody',
                'staging/gone/packs/a.glb',
                'staging/waitingwaiting/packs/a.glb',
                'sources/gone/packs/a.glb',
                'projects/gone/index-6/kind.1',
                $project->folder().'/index-3/kind.1',
                $project->folder().'/pictures/x.png.part-12',
            ] as $file
        ) {
            $disk->put($file, 'abc');
        }
        (new Sweep)->run();
        self::assertTrue($disk->exists('uploads/nobody'), 'what is young may be on its way');
        foreach ($disk->allFiles() as $file) {
            touch($disk->path($file), time() - 7200);
        }
        $young = $project->folder().'/pictures/young.png';
        $disk->put($young, 'abc');
        $before = $disk->allFiles();
        $this->artisan('shelf:sweep')->assertSuccessful();
        $gone = array_values(array_diff($before, $disk->allFiles()));
        $refused = array_values(array_filter($gone, static fn (string $file): bool => str_ends_with($file, '.png')));
        self::assertEqualsCanonicalizing(
            [
                'uploads/nobody',
                'staging/gone/packs/a.glb',
                'sources/gone/packs/a.glb',
                'projects/gone/index-6/kind.1',
                $project->folder().'/index-3/kind.1',
                $project->folder().'/pictures/x.png.part-12',
                ...$refused,
            ],
            $gone,
        );
        self::assertLessThanOrEqual(1, count($refused), 'only the refused view\'s picture');
        $this->post("/projects/$project->key/undo")->assertSee('Undone: Delete view Deleted.');
        $this->get("/projects/$project->key/views/2/picture")->assertOk();
        $this->get("/projects/$project->key/packs/1")->assertOk();
        self::assertTrue($disk->exists($waiting->path));
    }

    public function test_an_import_whose_job_is_lost_starts_again_and_one_whose_file_is_lost_is_over(): void
    {
        $person = $this->person();
        $make = static fn (string $key): Import => Import::query()->create([
            'key' => $key,
            'user_id' => $person->id,
            'file_name' => 'a.glb',
            'path' => "uploads/$key",
            'bytes' => 3,
            'sort_by' => 'best',
            'state' => 'running',
        ]);
        [$lost, $there] = [$make('lostlostlost'), $make('theretherethere')];
        Storage::disk('local')->put($there->path, 'abc');
        DB::table('imports')
            ->whereIn('id', [$lost->id, $there->id])
            ->update(['updated_at' => now()->subHours(5)]);
        self::assertSame(1, (new Sweep)->run()['resumed']);
        self::assertSame([ImportState::Failed, 'The file was lost on its way; give it again.'], [$lost->refresh()->state, $lost->error]);
    }

    public function test_a_person_keeps_so_much_and_the_disk_holds_so_much(): void
    {
        $person = $this->person();
        $this->baths($person);
        $this->actingAs($person)->getJson('/imports/room?bytes=1000')->assertOk();
        config(['shelf.quota' => 3_000_000]);
        $this->getJson('/imports/room?bytes=2900000')
            ->assertStatus(422)
            ->assertJsonPath(
                'errors.file.0',
                static fn (string $said): bool => str_starts_with($said, 'With this file (2.9 MB) you would keep ') &&
                    str_contains($said, '3.0 MB is what one person may keep'),
            );
        $this->actingAs($this->person('Bea Lind'))->getJson('/imports/room?bytes=2900000')->assertOk();
        config(['shelf.quota' => 20_000_000_000, 'shelf.reserve' => (int) disk_free_space('/') + 1]);
        $this->getJson('/imports/room?bytes=2900000')
            ->assertStatus(422)
            ->assertJsonPath('errors.file.0', 'The server has room for files of up to 0.0 MB now; this one has 2.9 MB.');
        $pane = Gltf::file(Gltf::triangle());
        copy($pane, $copy = (string) tempnam(sys_get_temp_dir(), 'shelf'));
        $this->postJson('/imports', [
            'file' => new \Illuminate\Http\UploadedFile($copy, 'pane.gltf', null, null, true),
            'sort_by' => 'best',
        ])
            ->assertStatus(422)
            ->assertJsonPath(
                'errors.file.0',
                static fn (string $said): bool => str_starts_with($said, 'The server has room for files of up to'),
            );
        self::assertSame(0, Import::query()->where('user_id', auth()->id())->count());
        self::assertFileDoesNotExist($copy, 'what is refused is let go of');
        foreach (['', '-1', 'x', '1e99', '99999999999999999999'] as $odd) {
            $this->getJson("/imports/room?bytes=$odd")->assertStatus(422);
        }
    }

    public function test_without_the_files_beside_the_packs_regions_catch_the_same(): void
    {
        $ida = $this->person();
        $project = $this->baths($ida);
        $region =
            '{"shape":"circle","inside":false,"points":[[390,320],[520,320]],"width":780,"height":644,'.
            '"eye":[40,-50,30],"target":[0,0,2],"up":[0,0,1],"fov":40}';
        $caught = fn (): int => $this->actingAs($ida)
            ->post("/projects/$project->key/pick/region", ['count' => 1, 'region' => $region])
            ->assertOk()
            ->json('count');
        $before = $caught();
        self::assertGreaterThan(20, $before);
        $folder = dirname((string) $project->sources()->value('hulls'));
        Kept::disk()->delete("$folder/shapes");
        $this->app->make(SceneStore::class)->forget($project);
        self::assertSame($before, $caught());
        // Extents are then those of turned boxes: no smaller than they are.
        $exact = $this->heights($project);
        Kept::disk()->delete("$folder/hulls");
        $this->app->make(SceneStore::class)->forget($project);
        $loose = $this->heights($project);
        self::assertNotSame($exact, $loose);
        foreach ($exact as $number => $height) {
            self::assertLessThanOrEqual($loose[$number] + 1e-6, $height);
        }
    }

    /** @return array<int, float> by object number */
    private function heights(Project $project): array
    {
        $facts = new Facts($this->app->make(SceneStore::class)->scene($project));
        $heights = [];
        for ($row = 1; $row <= $facts->scene->count(); $row++) {
            $heights[$facts->scene->number($row)] = (float) $facts->measure(Measure::Height, $row);
        }

        return $heights;
    }
}
