<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Intake\Bundle;
use App\Jobs\TakeIn;
use App\Models\Casts\Bytes;
use App\Models\Import;
use App\Models\ImportState;
use App\Models\Project;
use App\Scenes\SceneStore;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\Storage;
use Illuminate\Testing\TestResponse;
use Tests\Core\Support\Gltf;
use Tests\TestCase;
use VineShelf\Layers\SortBy;
use VineShelf\Scene\Drawn;
use VineShelf\Scene\Members;

final class TakeInTest extends TestCase
{
    public function test_an_upload_is_queued_and_becomes_a_project_with_a_report(): void
    {
        $person = $this->person();
        $copy = (string) tempnam(sys_get_temp_dir(), 'shelf');
        copy(self::demoFile(), $copy);
        $this->actingAs($person)
            ->postJson('/imports', ['file' => new UploadedFile($copy, 'marlpit_baths rev07.glb', null, null, true), 'sort_by' => 'best'])
            ->assertOk();
        $import = $person->imports()->firstOrFail();
        self::assertSame(ImportState::Waiting, $import->state);
        $this->get("/imports/$import->key")
            ->assertOk()
            ->assertSee('Waiting for a free worker');
        Queue::assertPushed(TakeIn::class);
        (new TakeIn($import->id))->handle($this->app->make(SceneStore::class));

        $project = $import->refresh()->project;
        self::assertInstanceOf(Project::class, $project);
        self::assertSame('Marlpit baths rev07', $project->name);
        self::assertSame([], Storage::disk('local')->files('uploads'), 'the upload is let go');
        $report = $this->get("/imports/$import->key")
            ->assertRedirect()
            ->headers->get('Location');
        $this->get((string) $report)
            ->assertOk()
            ->assertSeeInOrder([
                '3,197 objects',
                'Groups',
                'Parts',
                'Lights',
                'Cameras',
                'Triangles drawn',
                '254,318',
                'Width',
                '100.00 × 88.00 × 17.1',
                'Where it was filed',
                'the property',
                '51 Seats',
            ]);
        self::assertSame(3197, DB::table('objects')->where('project_id', $project->id)->count());
        self::assertSame(254_318, (int) DB::table('objects')->where('project_id', $project->id)->sum('triangles'));
        $repeat = DB::table('meshes')
            ->where('project_id', $project->id)
            ->selectRaw('hash, count(*) as times')
            ->groupBy('hash')
            ->orderByDesc('times')
            ->first();
        self::assertSame(10, (int) $repeat->times, 'the mesh that was stored ten times has one hash');
        $this->assertIndexTrue($project);
    }

    public function test_objects_keep_their_nesting_order_names_classes_and_properties(): void
    {
        $project = $this->baths($this->person());
        $axis = $project->objects()->where('name', 'Axis 3')->firstOrFail();
        $children = $project->objects()->where('parent_no', $axis->no)->orderBy('position')->get();

        self::assertSame(['RoofBeam.002', 'Column.004', 'Shoe', 'Column.005', 'Shoe'], $children->pluck('name')->all());
        self::assertSame(['Beam', 'Column', 'Plate', 'Column', 'Plate'], $children->pluck('class')->all());
        self::assertSame(['axis' => 3, 'layer' => '10 Structure'], collect($axis->properties)->sortKeys()->all());
        self::assertSame('10 Structure', $project->layers()->where('no', $children[0]->layer_no)->value('name'));
    }

    public function test_a_second_source_joins_the_project_with_new_numbers(): void
    {
        $person = $this->person();
        $project = $this->baths($person);
        $gltf = Gltf::triangle();
        $gltf['nodes'][0]['extras'] = ['layer' => '51 Seats'];
        $this->takeIn($person, Gltf::file($gltf), SortBy::Property, 'pane.gltf', $project);
        $project->refresh();

        self::assertSame(2, $project->sources()->count());
        self::assertSame(3198, $project->objects()->count());
        self::assertSame(
            [3198, $this->layer($project, '51 Seats')],
            [$project->objects()->max('no'), $project->objects()->where('no', 3198)->value('layer_no')],
        );
        $this->assertIndexTrue($project);
    }

    public function test_the_report_says_which_views_have_newcomers_and_leads_to_their_review(): void
    {
        $person = $this->person();
        $first = $this->takeIn($person, Gltf::file(Gltf::triangle()));
        $project = $first->project ?? throw new \LogicException($first->error);
        foreach (
            ['Hall' => ['keep_rungs' => 1], 'Stand' => ['keep_rungs' => 1], 'From the gate' => ['keep_section' => 1]] as $name => $keeps
        ) {
            $this->actingAs($person)
                ->post("/projects/$project->key/views", ['name' => $name] + $keeps)
                ->assertOk();
        }
        $this->get("/projects/$project->key/report/$first->source_id")
            ->assertOk()
            ->assertDontSee('New to');
        $second = $this->takeIn($person, Gltf::file(Gltf::triangle()), name: 'next.glb', into: $project);
        $this->get("/projects/$project->key/report/$second->source_id")
            ->assertSee('New to 2 views')
            ->assertSee('“Hall”, “Stand”')
            ->assertDontSee('From the gate')
            ->assertSee("/projects/$project->key?review=1", false);
        $this->post("/projects/$project->key/views/review", ['keys' => 'V1,V2'])->assertOk();
        $this->get("/projects/$project->key/report/$second->source_id")->assertDontSee('New to');
    }

    public function test_a_property_makes_tags_that_a_second_file_uses_again_and_undo_takes_back(): void
    {
        $person = $this->person();
        $gltf = Gltf::triangle();
        $gltf['nodes'][0]['extras'] = ['use' => 'Wet; Client'];
        $import = $this->takeIn($person, Gltf::file($gltf), tagsFrom: 'USE', separator: ';');
        $project = $import->project ?? throw new \LogicException($import->error);
        $this->assertIndexTrue($project->refresh());
        self::assertSame(['Client' => [1], 'Wet' => [1]], $this->tagged($project));
        $this->actingAs($person)
            ->get("/projects/$project->key/report/$import->source_id")
            ->assertSee('By the property “USE”: 2');

        $gltf['nodes'][0]['extras'] = ['Use' => 'wet;Dry'];
        $this->takeIn($person, Gltf::file($gltf), name: 'next.glb', into: $project, tagsFrom: 'use', separator: ';');
        $this->assertIndexTrue($project->refresh());
        self::assertSame(['Client' => [1], 'Dry' => [2], 'Wet' => [1, 2]], $this->tagged($project));
        self::assertSame(1, DB::table('folders')->where('project_id', $project->id)->count());

        // The tag that the second file made goes with it, and comes again.
        $this->actingAs($person)
            ->post("/projects/$project->key/undo")
            ->assertOk();
        $this->assertIndexTrue($project->refresh());
        self::assertSame(['Client' => [1], 'Wet' => [1]], $this->tagged($project));
        $this->actingAs($person)
            ->post("/projects/$project->key/redo")
            ->assertOk();
        $this->assertIndexTrue($project->refresh());
        self::assertSame(['Client' => [1], 'Dry' => [2], 'Wet' => [1, 2]], $this->tagged($project));
    }

    public function test_what_comes_under_a_locked_tag_is_locked_from_then_on(): void
    {
        $person = $this->person();
        $gltf = Gltf::triangle();
        $gltf['nodes'][0]['extras'] = ['use' => 'Wet'];
        $project = $this->takeIn($person, Gltf::file($gltf), tagsFrom: 'use')->project ?? throw new \LogicException;
        $this->actingAs($person)
            ->post("/projects/$project->key/locks", ['keys' => 'F1', 'lock' => 2])
            ->assertOk();
        $this->takeIn($person, Gltf::file($gltf), name: 'next.glb', into: $project->refresh(), tagsFrom: 'use');
        self::assertSame(['Wet' => [1, 2]], $this->tagged($project->refresh()));
        $this->post("/projects/$project->key/file", ['keys' => 'O2', 'layer' => 1])->assertSee('1 locked object was left alone.');
    }

    /** @return array<string, list<int>> object numbers by tag */
    private function tagged(Project $project): array
    {
        $tagged = [];
        foreach (DB::table('tags')->where('project_id', $project->id)->orderBy('name')->get() as $tag) {
            $tagged[$tag->name] = Members::unpack(Bytes::read($tag->members))->rows();
        }

        return $tagged;
    }

    public function test_a_bad_file_says_why_and_leaves_nothing_behind(): void
    {
        $person = $this->person();
        $before = [Project::query()->count(), DB::table('objects')->count(), DB::table('packs')->count()];
        $whole = (string) file_get_contents(self::demoFile());
        foreach (
            [
                substr($whole, 0, 900_000) => 'ends too early',
                substr_replace($whole, str_repeat("\xFF", 60_000), strlen($whole) - 200_000, 60_000) => '',
            ] as $bytes => $part
        ) {
            $import = $this->takeIn($person, Gltf::keep($bytes), name: 'broken.glb');
            self::assertSame(ImportState::Failed, $import->state);
            self::assertStringContainsString($part, $import->error);
            $this->actingAs($person)->get('/projects')->assertOk()->assertSee($import->error);
        }
        self::assertSame($before, [Project::query()->count(), DB::table('objects')->count(), DB::table('packs')->count()]);
        self::assertSame([], Storage::disk('local')->allFiles());
    }

    public function test_a_wrong_kind_of_file_is_answered_where_it_was_given(): void
    {
        $this->actingAs($this->person())
            ->postJson('/imports', ['file' => UploadedFile::fake()->create('plan.dwg', 4), 'sort_by' => 'best'])
            ->assertStatus(422)
            ->assertJsonPath('errors.file.0', '"plan.dwg" is not a .glb, .gltf or .zip file.');
        $this->postJson('/imports', ['file' => UploadedFile::fake()->create('plan.glb', 4), 'sort_by' => 'colour'])->assertStatus(422);
    }

    public function test_an_import_that_is_stopped_leaves_nothing_behind(): void
    {
        $person = $this->person();
        $copy = (string) tempnam(sys_get_temp_dir(), 'shelf');
        copy(self::demoFile(), $copy);
        $import = $this->app->make(\App\Jobs\Uploads::class)->receive($person, null, $copy, 'hall.glb', new \App\Jobs\Sorted);
        Import::query()
            ->whereKey($import->id)
            ->update(['stop' => true]);
        (new TakeIn($import->id))->handle($this->app->make(SceneStore::class));

        self::assertSame(
            [ImportState::Stopped, 0, []],
            [
                $import->refresh()->state,
                Project::query()->whereHas('people', fn ($people) => $people->whereKey($person->id))->count(),
                Storage::disk('local')->allFiles(),
            ],
        );
        $this->actingAs($person)
            ->delete("/imports/$import->key")
            ->assertRedirect('/projects');
        self::assertNull($import->fresh());
    }

    public function test_a_job_that_runs_again_after_a_killed_worker_makes_one_project(): void
    {
        $person = $this->person();
        $copy = (string) tempnam(sys_get_temp_dir(), 'shelf');
        copy(self::demoFile(), $copy);
        $import = $this->app->make(\App\Jobs\Uploads::class)->receive($person, null, $copy, 'hall.glb', new \App\Jobs\Sorted);
        // A worker died while it packed: its state and some of its packs are still there.
        $import->update(['state' => ImportState::Running, 'stage' => 'Packing the geometry', 'done' => 40, 'total' => 221]);
        Storage::disk('local')->put("sources/$import->key/packs/left-behind.glb", 'half a pack');
        foreach ([1, 2] as $_) {
            (new TakeIn($import->id))->handle($this->app->make(SceneStore::class));
        }
        self::assertSame(ImportState::Done, $import->refresh()->state);
        self::assertSame(1, $person->projects()->count());
        self::assertSame(3197, DB::table('objects')->where('project_id', $import->project_id)->count());
    }

    public function test_a_name_from_a_file_is_a_name(): void
    {
        $person = $this->person();
        $gltf = Gltf::triangle();
        $evil = '<img src=x onerror=alert(1)>';
        $gltf['nodes'][0] += ['extras' => ['layer' => $evil, 'weird' => "a\u{0}b\\n\t\u{2028}"]];
        $gltf['nodes'][0]['name'] = $evil.'\\.'."\t".str_repeat('ö', 3000);
        $import = $this->takeIn($person, Gltf::file($gltf), SortBy::Property, $evil.'.gltf');
        self::assertSame('', $import->error);
        $project = $import->project ?? self::fail('not taken in');
        self::assertSame($gltf['nodes'][0]['name'], $project->objects()->value('name'));
        $page = (string) $this->actingAs($person)
            ->get("/projects/$project->key")
            ->assertOk()
            ->getContent();
        self::assertStringNotContainsString('<img src=x', $page);
        self::assertStringContainsString('&lt;img src=x', $page);
        $this->get("/projects/$project->key/ledger?lens=nesting&from=0&count=20&words=".urlencode('"<img SRC"'))
            ->assertOk()
            ->assertSee('data-hits="1"', false)
            ->assertDontSee('<img src=x', false);
        $this->get('/projects')->assertOk()->assertDontSee('<img src=x', false);
        $this->assertIndexTrue($project);
    }

    public function test_what_has_no_name_is_called_by_its_mesh_and_is_found_again_by_where_it_stands(): void
    {
        $gltf = Gltf::triangle();
        $gltf['meshes'][0]['name'] = 'Sash';
        $gltf['nodes'] = [['mesh' => 0], ['name' => 'Own', 'mesh' => 0], ['children' => [0, 1]], ['mesh' => 0, 'name' => '']];
        $gltf['scenes'] = [['nodes' => [2, 3]]];
        $ida = $this->person();
        $import = $this->takeIn($ida, Gltf::file($gltf), name: 'panes.gltf');
        $project = $import->project ?? self::fail($import->error);
        $stored = $project->objects()->orderBy('no')->get(['name', 'source_key']);
        self::assertSame(['', 'Sash', 'Own', 'Sash'], $stored->pluck('name')->all());
        self::assertSame(['#1', '#1/#1', '#1/Own', '#2'], $stored->pluck('source_key')->all(), 'the file gives no names to find them by');
        self::assertSame(1, $project->sources()->sole()->report['unnamed'] ?? null, 'only the group has none');
    }

    #[\PHPUnit\Framework\Attributes\TestWith([SortBy::Property, 'gr'])]
    #[\PHPUnit\Framework\Attributes\TestWith([SortBy::Material, ''])]
    #[\PHPUnit\Framework\Attributes\TestWith([SortBy::Groups, ''])]
    #[\PHPUnit\Framework\Attributes\TestWith([SortBy::Kind, ''])]
    #[\PHPUnit\Framework\Attributes\TestWith([SortBy::Best, ''])]
    public function test_any_text_of_a_file_may_hold_what_no_database_keeps(SortBy $by, string $property): void
    {
        $person = $this->person();
        $odd = "a\u{0}b\u{7}\u{2028}";
        $gltf = Gltf::triangle();
        $gltf['asset'] += ['generator' => $odd, 'copyright' => $odd];
        $gltf['scenes'][0]['name'] = $odd;
        $gltf['meshes'][0]['name'] = $odd;
        $gltf['materials'] = [['name' => $odd]];
        $gltf['meshes'][0]['primitives'][0]['material'] = 0;
        $gltf['nodes'][0]['name'] = $odd;
        $gltf['nodes'][0]['extras'] = ['layer' => $odd, 'class' => $odd, 'gr' => $odd, $odd => $odd, 'deep' => [$odd => $odd]];
        $import = $this->takeIn($person, Gltf::file($gltf), $by, "$odd.gltf", property: $property);
        self::assertSame('', $import->error);
        $project = $import->project ?? self::fail('not taken in');
        $this->actingAs($person)
            ->get("/projects/$project->key")
            ->assertOk();
        foreach (['name:b', '"a"', 'gr:b', 'class:a', 'material:a'] as $rule) {
            $this->get("/projects/$project->key/ledger?lens=nesting&from=0&count=20&words=".urlencode($rule))
                ->assertOk()
                ->assertSee('data-hits="1"', false);
        }
        $this->get("/projects/$project->key/report/".$project->sources()->value('id'))->assertOk();
        $this->assertIndexTrue($project);
    }

    public function test_the_canvas_gets_packs_and_placements_of_what_is_not_hidden(): void
    {
        $person = $this->person();
        $project = $this->baths($person);
        $this->actingAs($person);
        $count = function (string $address): int {
            $bytes = (string) $this->get($address)->assertOk()->getContent();
            $head = unpack('V4', $bytes);
            self::assertIsArray($head);
            self::assertSame(16 + Drawn::MESH * $head[2] + 40 * $head[3] + Drawn::BYTES * $head[4], strlen($bytes));

            return $head[4];
        };
        $all = $count("/projects/$project->key/records?part=1");
        self::assertSame((int) DB::table('objects')->where('project_id', $project->id)->where('mesh_no', '>', 0)->count(), $all);
        $seats = $this->layer($project, '51 Seats');
        $this->post("/projects/$project->key/rungs", ['keys' => "L$seats", 'rung' => 0])->assertOk();
        self::assertSame($all - 240, $count("/projects/$project->key/records?part=1"));
        $hidden = $project->objects()->where('layer_no', $seats)->where('mesh_no', '>', 0)->limit(3)->pluck('no')->all();
        $shown = $project
            ->objects()
            ->where('layer_no', $this->layer($project, '61 Lockers'))
            ->where('mesh_no', '>', 0)
            ->limit(2)
            ->pluck('no')
            ->all();
        $answer = unpack(
            'V4',
            (string) $this->call('POST', "/projects/$project->key/records", content: pack('V*', ...$hidden, ...$shown, ...[999_999]))
                ->assertOk()
                ->getContent(),
        );
        self::assertSame(2, $answer[4] ?? 0);
        $pack = $this->get("/projects/$project->key/packs/1")->assertOk();
        self::assertStringStartsWith('glTF', (string) $pack->getContent());
        self::assertStringContainsString('immutable', (string) $pack->headers->get('Cache-Control'));
        $this->get("/projects/$project->key/packs/99999")->assertNotFound();
        self::assertStringStartsWith(
            "\x89PNG",
            (string) $this->get("/projects/$project->key/textures/1")
                ->assertOk()
                ->getContent(),
        );
    }

    public function test_a_gltf_and_the_files_beside_it_are_given_together(): void
    {
        $ida = $this->person();
        $bytes = pack('g*', 0, 0, 0, 1, 0, 0, 0, 2, 0).pack('v*', 0, 1, 2, 0);
        $gltf = ['buffers' => [['byteLength' => strlen($bytes), 'uri' => 'parts/a.bin']]] + Gltf::triangle();
        $part = static fn (string $path, string $text): UploadedFile => new UploadedFile(Gltf::keep($text), $path, null, null, true);
        $given = [$part('kiosk/Kiosk 2.gltf', (string) json_encode($gltf)), $part('kiosk/parts/a.bin', $bytes)];
        $send = fn (array $parts): TestResponse => $this->actingAs($ida)->postJson('/imports', ['parts' => $parts, 'sort_by' => 'best']);

        $send([$given[1]])
            ->assertStatus(422)
            ->assertJsonPath('errors.file.0', fn (string $said): bool => str_contains($said, 'one of them is a .gltf'));
        $send([...$given, $part('kiosk/other.gltf', '{}')])
            ->assertStatus(422)
            ->assertJsonPath('errors.file.0', fn (string $said): bool => str_contains($said, 'These are 2 .gltf files'));
        $send([...$given, $part('kiosk/../../x.bin', 'x')])
            ->assertStatus(422)
            ->assertJsonPath('errors.file.0', fn (string $said): bool => str_contains($said, 'climbs out of its folder'));
        $this->postJson('/imports', ['sort_by' => 'best'])->assertStatus(422);
        $this->postJson('/imports', ['parts' => 'x', 'sort_by' => 'best'])->assertStatus(422);
        self::assertSame(0, Import::query()->count());

        $send($given)->assertOk();
        $import = Import::query()->firstOrFail();
        (new TakeIn($import->id))->handle($this->app->make(SceneStore::class));
        self::assertSame(
            ['Kiosk 2.gltf', ImportState::Done, 'Kiosk 2'],
            [$import->file_name, $import->refresh()->state, $import->project?->name],
        );
        self::assertSame(1, DB::table('meshes')->where('project_id', $import->project_id)->sum('triangles'));
    }

    public function test_a_gltf_of_the_command_line_is_bundled_with_what_it_names(): void
    {
        $folder = dirname(Gltf::keep('')).'/shelf-'.bin2hex(random_bytes(5));
        mkdir($folder);
        $gltf = ['buffers' => [['byteLength' => 42, 'uri' => 'a.bin']], 'images' => [['uri' => '../../etc/passwd'], ['uri' => 'gone.png']]];
        file_put_contents("$folder/a.bin", str_repeat('x', 42));
        file_put_contents("$folder/scene.gltf", json_encode($gltf + Gltf::triangle()));
        $zip = new \ZipArchive;
        $bundle = (string) Bundle::around("$folder/scene.gltf");
        self::assertTrue($zip->open($bundle));
        self::assertSame(['scene.gltf', 'a.bin'], [$zip->getNameIndex(0), $zip->getNameIndex(1)]);
        self::assertSame(2, $zip->numFiles);
        self::assertNull(Bundle::around(Gltf::file(Gltf::triangle())), 'a file without others is taken as it is');
        file_put_contents("$folder/broken.gltf", '{"asset');
        self::assertNull(Bundle::around("$folder/broken.gltf"));
        exec('rm -r '.escapeshellarg($folder).' '.escapeshellarg($bundle));
    }
}
