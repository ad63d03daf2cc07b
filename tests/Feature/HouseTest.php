<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Changes\History;
use App\Files\Kept;
use App\Jobs\SortDemo;
use App\Jobs\TakeIn;
use App\Models\Import;
use App\Models\ImportState;
use App\Models\Project;
use App\Models\User;
use App\Models\View;
use App\Scenes\IndexFiles;
use App\Scenes\SceneStore;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\Storage;
use Tests\Core\Support\Gltf;
use Tests\TestCase;
use VineShelf\Formats\Gltf\Pictures;

/** Accounts, projects as a whole, the command line, and what happens when files or the database are gone. */
final class HouseTest extends TestCase
{
    public function test_accounts_are_made_on_the_command_line(): void
    {
        $this->artisan('shelf:person', ['email' => 'Otto@Marlpit.example', 'name' => 'Otto Quill', '--password' => 'tidy-otto'])
            ->expectsOutput('otto@marlpit.example can sign in.')
            ->assertSuccessful();
        $this->artisan('shelf:person', ['email' => 'otto@marlpit.example', 'name' => 'Otto'])
            ->expectsOutput('otto@marlpit.example has an account already.')
            ->assertExitCode(2);
        $this->artisan('shelf:person', ['email' => 'otto', 'name' => 'Otto'])
            ->expectsOutput('"otto" is not an e-mail address.')
            ->assertExitCode(2);
        foreach (['', '   ', str_repeat('n', 256), "\xff"] as $name) {
            $this->artisan('shelf:person', ['email' => 'nobody@marlpit.example', 'name' => $name])
                ->expectsOutput('A name has 1 to 255 characters, in UTF-8.')
                ->assertExitCode(2);
        }
        self::assertSame(1, User::query()->count());
        $this->post('/sign-in', ['email' => 'otto@marlpit.example', 'password' => 'tidy-otto'])->assertRedirect('/projects');
        self::assertSame('OQ', User::query()->where('email', 'otto@marlpit.example')->firstOrFail()->initials());
    }

    public function test_signing_out_ends_the_session_and_a_theme_is_kept(): void
    {
        $ida = $this->person();
        $this->actingAs($ida)
            ->post('/theme', ['theme' => 'dark'])
            ->assertRedirect();
        $this->get('/projects')->assertSee('data-theme="dark"', false);
        $this->post('/theme', ['theme' => 'neon'])->assertSessionHasErrors('theme');
        $this->post('/sign-out')->assertRedirect('/sign-in');
        $this->get('/projects')->assertRedirect('/sign-in');
    }

    public function test_the_demo_is_made_once(): void
    {
        config(['shelf.demo.password' => 'tidy-demo', 'shelf.demo.email' => 'demo@marlpit.example']);
        $this->artisan('shelf:demo')
            ->expectsOutput('A worker takes Marlpit Baths, as it came.glb in now.')
            ->expectsOutput('A worker takes Marlpit Baths.glb in now.')
            ->assertSuccessful();
        $this->artisan('shelf:demo')->doesntExpectOutput('A worker takes Marlpit Baths.glb in now.')->assertSuccessful();
        $demo = User::query()->where('email', 'demo@marlpit.example')->firstOrFail();
        self::assertSame(2, $demo->imports()->count());
        Queue::assertPushed(TakeIn::class, 2);
        Queue::assertPushed(SortDemo::class, 1);
        $this->artisan('shelf:demo', ['--force' => true, '--size' => 'vast'])
            ->expectsOutput('The sizes are small, demo, medium, large, huge, scattered.')
            ->assertExitCode(2);
    }

    public function test_the_demo_is_sorted_by_the_products_own_commands_however_often_a_worker_ends_half_way(): void
    {
        $ida = $this->person();
        $import = $this->takeIn($ida, self::demoFile(), name: 'Marlpit Baths.glb');
        $project = $import->project ?? throw new \LogicException($import->error);
        $sort = fn () => (new SortDemo($import->id))->handle($this->app->make(History::class));
        $sort();
        $bench = Bench::of($project->refresh(), $ida);
        self::assertSame(
            ['Unsorted', 'Structure', 'Roof', 'Glazing', 'Basins', 'Stands', 'Changing', 'Plant', 'Gallery', 'Site', 'Lights', 'Finishes'],
            array_map(static fn (int $number): string => $bench->layers()->get($number)->name, $bench->layers()->inside(0)),
        );
        self::assertSame('Stands › Seats', $bench->layers()->path($this->layer($project, 'Seats')));
        self::assertSame(
            ['Arrival', 'Hall, roof ghosted', 'Pool in slate and steel', 'Plant under the deck'],
            array_map(static fn (View $view): string => $view->name, $bench->shelf()->inOrder()),
        );
        foreach ($bench->shelf()->members as $view) {
            self::assertSame('image/jpeg', Pictures::type((string) Kept::disk()->get($view->picture)), "$view->name has a picture");
        }
        foreach ($bench->tags()->all() as $tag) {
            self::assertFalse($bench->scene()->tagged($tag->number)->isEmpty(), "something is tagged $tag->name");
        }
        foreach ($bench->sets()->all() as $set) {
            self::assertFalse($bench->set($set)->rows->isEmpty(), "something is in $set->name");
            self::assertSame([], $bench->set($set)->remarks, "every name in the rule of $set->name means something");
        }
        self::assertTrue($bench->tags()->folder($bench->tags()->get(1)->folder)->oneAtATime);
        // The first view is on the desk: one scheme shows, the other does not.
        self::assertSame('Arrival', $bench->shelf()->members[$bench->desk->view_no]->name);
        self::assertSame(0, $bench->find('tag:"Slate and steel" is shown')->rows?->count());
        self::assertSame(0, $bench->find('tag:"Oak and stone" is hidden')->rows?->count());
        $this->assertIndexTrue($project);

        // Done again from the start, or from where it ended, it changes nothing more.
        [$changes, $last] = [$project->changes()->count(), (int) $project->changes()->max('no')];
        $sort();
        self::assertSame([], $project->changes()->where('no', '>', $last)->pluck('name')->all());
        for ($step = 0; $step < 9; $step++) {
            self::assertNotNull($this->app->make(History::class)->undo(Bench::of($project->refresh(), $ida))->change);
        }
        $sort();
        self::assertCount(4, Bench::of($project->refresh(), $ida)->shelf()->members);
        self::assertSame($changes, $project->changes()->where('undone', false)->count());
    }

    public function test_views_are_listed_on_the_command_line(): void
    {
        $ida = $this->person();
        $project = $this->baths($ida);
        $this->actingAs($ida)->post("/projects/$project->key/views", ['name' => 'From the door', 'keep_rungs' => 1]);
        $this->artisan('shelf:views', ['project' => $project->key])
            ->expectsOutputToContain('From the door')
            ->assertSuccessful();
        $this->artisan('shelf:views', ['project' => $project->key, '--json' => true])
            ->expectsOutputToContain('"name": "From the door"')
            ->assertSuccessful();
        $this->artisan('shelf:views', ['project' => 'nowhere'])
            ->expectsOutput('There is no project with the key nowhere.')
            ->assertExitCode(2);
    }

    public function test_the_command_line_says_what_is_missing_for_an_import(): void
    {
        $ida = $this->person();
        $path = Gltf::file(Gltf::triangle());
        $this->artisan('shelf:import', ['project' => 'new', 'file' => '/nowhere.glb', '--person' => $ida->email])
            ->expectsOutput('There is no readable file at /nowhere.glb.')
            ->assertExitCode(2);
        $this->artisan('shelf:import', ['project' => 'gone', 'file' => $path, '--person' => $ida->email])
            ->expectsOutput('There is no project with the key gone.')
            ->assertExitCode(2);
        $this->artisan('shelf:import', ['project' => 'new', 'file' => $path, '--person' => $ida->email, '--sort-by' => 'mood'])
            ->expectsOutputToContain('Layers can be made from: best, groups')
            ->assertExitCode(2);
        $this->artisan('shelf:import', ['project' => 'new', 'file' => $path, '--person' => 'nobody@marlpit.example'])
            ->expectsOutput('Nobody has the address nobody@marlpit.example.')
            ->assertExitCode(2);
        $this->artisan('shelf:import', ['project' => 'new'])
            ->expectsOutput('Not enough arguments (missing: "file"). See bin/shelf.')
            ->assertExitCode(2);
    }

    public function test_the_only_owner_need_not_be_named_on_the_command_line(): void
    {
        $ida = $this->person();
        $this->person('Otto Quill');
        $import = ['project' => 'new', 'file' => '/nowhere.glb'];
        $this->artisan('shelf:import', $import)->expectsOutput('Say who does it: --person=EMAIL.')->assertExitCode(2);
        $project = $this->baths($ida);
        $project->people()->attach($this->person('Vera Moss'), ['role' => 'viewer']);
        $this->artisan('shelf:import', $import)->expectsOutput('There is no readable file at /nowhere.glb.')->assertExitCode(2);
        $this->artisan('shelf:rule', ['project' => $project->key, 'rule' => 'lifering'])->assertSuccessful();
        $this->artisan('shelf:views', ['project' => $project->key, '--person' => 'otto.quill@marlpit.example'])
            ->expectsOutput('Nobody in that project has the address otto.quill@marlpit.example.')
            ->assertExitCode(2);
        $project->people()->attach($this->person('Nora Finch'), ['role' => 'owner']);
        $this->artisan('shelf:rule', ['project' => $project->key, 'rule' => 'lifering'])
            ->expectsOutput('Say who does it: --person=EMAIL.')
            ->assertExitCode(2);
    }

    public function test_a_project_is_renamed_and_goes_with_everything_it_kept(): void
    {
        $ida = $this->person();
        $project = $this->baths($ida);
        $this->actingAs($ida)
            ->patch("/projects/$project->key", ['name' => '  Baths, phase 2 '])
            ->assertRedirect('/projects');
        self::assertSame('Baths, phase 2', $project->refresh()->name);
        $this->patch("/projects/$project->key", ['name' => ''])->assertSessionHasErrors(['name' => 'A project needs a name.']);
        $this->post("/projects/$project->key/layers", ['name' => 'More']);
        $this->get("/projects/$project->key")->assertOk();
        self::assertNotSame([], Storage::disk('local')->allFiles());
        $this->delete("/projects/$project->key")->assertRedirect('/projects');
        $this->get('/projects')->assertSee('Baths, phase 2 was deleted.');
        self::assertSame([], Storage::disk('local')->allFiles());
        foreach (['objects', 'layers', 'meshes', 'packs', 'sources', 'desks', 'changes', 'imports'] as $table) {
            self::assertSame(0, DB::table($table)->where('project_id', $project->id)->count(), $table);
        }
    }

    public function test_an_index_that_is_gone_is_built_again(): void
    {
        $ida = $this->person();
        $project = $this->baths($ida);
        $this->actingAs($ida)->post("/projects/$project->key/layers", ['name' => 'More']);
        foreach (Storage::disk('local')->allFiles($project->folder().'/index-'.IndexFiles::LAYOUT) as $index => $file) {
            // Every other file of the index disappears, and then the whole of it.
            if ($index % 2 === 0) {
                Storage::disk('local')->delete($file);
            }
        }
        apcu_enabled() && apcu_clear_cache();
        $this->get("/projects/$project->key")
            ->assertOk()
            ->assertSee('3,197 objects');
        $this->assertIndexTrue($project);
        $this->app->make(SceneStore::class)->forget($project->refresh());
        $this->post("/projects/$project->key/undo")
            ->assertOk()
            ->assertSee('Undone: Create layer More.');
        $this->assertIndexTrue($project);
    }

    public function test_old_index_files_are_let_go(): void
    {
        $ida = $this->person();
        $project = $this->baths($ida);
        $this->actingAs($ida);
        $files = fn (): int => count(Storage::disk('local')->allFiles($this->indexOf($project)));
        $before = $files();
        for ($change = 0; $change < 40; $change++) {
            $this->post("/projects/$project->key/file", ['layer' => 2 + ($change % 2), 'keys' => 'O500,O501']);
        }
        // What was written a moment ago is left, since a manifest that names it may be on its way.
        foreach (Storage::disk('local')->allFiles($this->indexOf($project)) as $file) {
            touch(Storage::disk('local')->path($file), time() - 4000);
        }
        for ($change = 0; $change < 8; $change++) {
            $this->post("/projects/$project->key/file", ['layer' => 2 + ($change % 2), 'keys' => 'O500,O501']);
        }
        self::assertLessThan($before + 30, $files());
        $this->assertIndexTrue($project);
    }

    public function test_what_a_long_export_still_reads_is_not_let_go_of(): void
    {
        $ida = $this->person();
        $project = $this->baths($ida);
        $this->actingAs($ida);
        $store = $this->app->make(SceneStore::class);
        $then = $store->columns($project)->column('layer');
        // Begun, and not yet at the layers.
        $export = $store->columns(clone $project);
        $export->column('parent');
        for ($change = 0; $change < 24; $change++) {
            $this->post("/projects/$project->key/file", ['layer' => 2 + ($change % 2), 'keys' => 'O500,O501']);
            foreach (Storage::disk('local')->allFiles($this->indexOf($project)) as $file) {
                touch(Storage::disk('local')->path($file), time() - 300);
            }
        }
        self::assertNotSame($then, $store->columns($project->refresh())->column('layer'));
        self::assertSame($then, $export->column('layer'));
    }

    public function test_when_the_database_is_gone_the_page_says_so(): void
    {
        $port = config('database.connections.pgsql.port');
        config(['database.connections.pgsql.port' => 1, 'session.driver' => 'array']);
        DB::purge('pgsql');
        try {
            $this->post('/sign-in', ['email' => 'ida@marlpit.example', 'password' => 'x'])
                ->assertStatus(503)
                ->assertSee('The database cannot be reached')
                ->assertDontSee('SQLSTATE');
        } finally {
            config(['database.connections.pgsql.port' => $port]);
            DB::purge('pgsql');
            $this->beginDatabaseTransaction();
        }
    }

    public function test_two_workers_never_hold_the_same_import(): void
    {
        $ida = $this->person();
        $copy = (string) tempnam(sys_get_temp_dir(), 'shelf');
        copy(Gltf::file(Gltf::triangle()), $copy);
        $import = $this->app->make(\App\Jobs\Uploads::class)->receive($ida, null, $copy, 'pane.gltf', new \App\Jobs\Sorted);
        $other = $this->otherConnection();
        $other->exec("SELECT pg_advisory_lock(7201, $import->id)");
        (new TakeIn($import->id))->handle($this->app->make(SceneStore::class));
        self::assertSame(ImportState::Waiting, $import->refresh()->state, 'another worker has it');
        $other->exec("SELECT pg_advisory_unlock(7201, $import->id)");
        (new TakeIn($import->id))->handle($this->app->make(SceneStore::class));
        self::assertSame(ImportState::Done, $import->refresh()->state);
    }

    public function test_a_search_shows_what_matches_with_what_holds_it(): void
    {
        $ida = $this->person();
        $project = $this->baths($ida);
        $names = DB::table('objects')->where('project_id', $project->id)->pluck('name', 'no')->all();
        $parents = DB::table('objects')->where('project_id', $project->id)->pluck('parent_no', 'no')->all();
        foreach (['pump', 'door', 'seat_shell_1', 'élan', 'ring'] as $words) {
            $wanted = [];
            foreach ($names as $number => $name) {
                if (mb_stripos((string) $name, $words) !== false) {
                    for ($at = $number; $at !== 0 && ! isset($wanted[$at]); $at = $parents[$at]) {
                        $wanted[$at] = true;
                    }
                }
            }
            ksort($wanted);
            $page = (string) $this->actingAs($ida)
                ->get("/projects/$project->key/ledger?lens=nesting&from=0&count=200&words=".urlencode($words))
                ->assertOk()
                ->getContent();
            preg_match_all('~data-key="O(\d+)"~', $page, $shown);
            self::assertSame(array_slice(array_keys($wanted), 0, 200), array_map(intval(...), $shown[1]), $words);
            $hits = count(array_filter($names, static fn (mixed $name): bool => mb_stripos((string) $name, $words) !== false));
            self::assertStringContainsString("data-hits=\"$hits\"", $page);
        }
    }

    public function test_a_group_is_filed_apart_from_what_it_holds_when_asked(): void
    {
        $ida = $this->person();
        $project = $this->baths($ida);
        $bank = (int) $project->objects()->where('name', 'Bank 1')->value('no');
        $target = $this->layer($project, '60 Changing');
        $this->actingAs($ida)
            ->post("/projects/$project->key/file", ['layer' => $target, 'keys' => "O$bank", 'with_held' => 0])
            ->assertSee('File 1 object under 60 Changing.');
        self::assertSame(
            [$target, $this->layer($project, '61 Lockers')],
            [
                (int) $project->objects()->where('no', $bank)->value('layer_no'),
                (int) $project
                    ->objects()
                    ->where('no', $bank + 1)
                    ->value('layer_no'),
            ],
        );
        // The group's new layer holds the group alone; what is in it shows as its own layer does.
        $this->post("/projects/$project->key/rungs", ['keys' => "L$target", 'rung' => 2]);
        $this->get("/projects/$project->key/why/$bank")->assertSee('Bank 1 is a ghost because layer 60 Changing is');
        $this->get("/projects/$project->key/why/".($bank + 1))
            ->assertSee('is drawn in full')
            ->assertDontSee('60 Changing');
        $this->assertIndexTrue($project);
    }

    public function test_progress_is_told_while_an_import_runs(): void
    {
        $ida = $this->person();
        $import = Import::query()->create([
            'key' => 'k'.bin2hex(random_bytes(6)),
            'user_id' => $ida->id,
            'file_name' => 'a <b>.glb',
            'path' => 'uploads/x',
            'bytes' => 5_300_000,
            'sort_by' => 'best',
            'state' => 'running',
            'stage' => 'Packing the geometry',
            'done' => 30,
            'total' => 120,
            'objects' => 1500,
        ]);
        $this->actingAs($ida)
            ->get("/imports/$import->key", ['HX-Request' => 'true'])
            ->assertOk()
            ->assertSeeInOrder(
                ['a &lt;b&gt;.glb', '5.3 MB', 'aria-valuenow="25"', 'Packing the geometry', '30 of 120', '1,500 objects so far', 'Stop'],
                false,
            );
        $this->post("/imports/$import->key/stop")
            ->assertOk()
            ->assertSee('Stopping');
        self::assertTrue($import->refresh()->stop);
        $this->delete("/imports/$import->key")->assertStatus(409);
        self::assertSame(0, Project::query()->where('name', 'like', 'A <b>%')->count());
    }

    private function indexOf(Project $project): string
    {
        return $project->folder().'/index-'.IndexFiles::LAYOUT;
    }

    public function test_numbers_are_right_however_php_is_started(): void
    {
        foreach (['tracing' => '1', 'function' => '1', '1254' => '1', '1054' => '1', 'off' => '', '0' => ''] as $mode => $on) {
            $code =
                '(require "bootstrap/app.php")->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();'.
                '$jit = opcache_get_status(false)["jit"]; echo $jit["on"], "|", $jit["on"] ? $jit["opt_flags"] & 3 : 0;';
            $php = [PHP_BINARY, '-d', 'opcache.enable_cli=1', '-d', "opcache.jit=$mode", '-d', 'opcache.jit_buffer_size=8M'];
            $process = proc_open([...$php, '-r', "require 'vendor/autoload.php'; $code"], [1 => ['pipe', 'w']], $pipes, base_path());
            self::assertIsResource($process);
            self::assertSame("$on|0", stream_get_contents($pipes[1]), "opcache.jit=$mode");
            proc_close($process);
        }
    }

    public function test_what_serves_pages_keeps_its_connection_and_the_command_line_does_not(): void
    {
        $cache = (string) tempnam(sys_get_temp_dir(), 'settings');
        unlink($cache);
        $run = static function (string $code, string $keep) use ($cache): string {
            $start =
                'require "vendor/autoload.php"; $app = require "bootstrap/app.php";'.
                '$app->make(Illuminate\Contracts\Console\Kernel::class)->bootstrap();';
            $environment = ['APP_CONFIG_CACHE' => "$cache.php", 'DB_PERSISTENT' => $keep] + getenv();
            $process = proc_open([PHP_BINARY, '-r', "$start $code"], [1 => ['pipe', 'w']], $pipes, base_path(), $environment);
            self::assertIsResource($process);
            $said = (string) stream_get_contents($pipes[1]);
            proc_close($process);

            return $said;
        };
        $tell =
            '$by = App\Providers\AppServiceProvider::connection(...); $here = config("database.connections.pgsql.options");'.
            'foreach ([$by("fpm-fcgi"), $by("cli"), $here] as $options) { echo var_export($options[PDO::ATTR_PERSISTENT], true); }';
        foreach (['true' => 'truefalsefalse', 'false' => 'falsefalsefalse'] as $keep => $told) {
            $run('Illuminate\Support\Facades\Artisan::call("config:cache");', (string) $keep);
            self::assertFileExists("$cache.php");
            self::assertSame($told, $run($tell, ''), 'settings that the command line has kept for those who serve pages');
            unlink("$cache.php");
        }
    }
}
