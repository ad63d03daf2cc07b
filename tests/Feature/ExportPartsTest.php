<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Exporting\Done;
use App\Exporting\Exporting;
use App\Files\Kept;
use App\Files\UnableToKeep;
use App\Jobs\Coarsen;
use App\Jobs\ExportParts;
use App\Jobs\Sweep;
use App\Models\Export;
use App\Models\Project;
use App\Scenes\SceneStore;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use PHPUnit\Framework\Attributes\TestWith;
use Tests\Core\Support\Gltf;
use Tests\Core\Support\Node;
use VineShelf\Folders\Folder;
use VineShelf\Formats\Files;
use VineShelf\Formats\Intake;
use VineShelf\Geometry\Box;
use VineShelf\Layers\Layer;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;
use VineShelf\Tags\Tag;

/** Parts of Marlpit Baths as files, read back. */
final class ExportPartsTest extends ProjectTestCase
{
    protected function tearDown(): void
    {
        $this->roomForFiles(null);
        parent::tearDown();
    }

    #[TestWith([false, false])]
    #[TestWith([true, true])]
    public function test_everything_at_full_is_read_back_as_it_was_taken_in(bool $isQuantized, bool $isCompressed): void
    {
        [$done, $path] = $this->export(null, null, $isQuantized, $isCompressed);
        $counted = Node::run('count.mjs', $path, 'validate');
        self::assertSame([0, 0], [$counted['errors'], $counted['warnings']], (string) json_encode($counted['messages']));
        [$intake, $original] = [Files::open($path), Files::open(self::demoFile())];
        self::assertSame(filesize($path), $done->bytes);
        // Groups that hold nothing are not written.
        $empty = 0;
        foreach ($original->objects()->kinds as $row => $kind) {
            $empty += $row > 0 && $kind === 0 && ! in_array($row, $original->objects()->parents, true) ? 1 : 0;
        }
        self::assertSame($original->objects()->count() - $empty, $intake->objects()->count());
        self::assertSame([0, []], [$done->hidden, $done->heldBack]);
        self::assertSame(self::triangles($original), self::triangles($intake));
        self::assertEqualsWithDelta(self::bounds($original), self::bounds($intake), 2e-3);
        // What has no name in a file is called by its mesh.
        $named = static fn (Intake $file): array => array_count_values(
            array_map(static fn (int $row): string => $file->objects()->called($row, $file->meshes()), range(1, $file->objects()->count())),
        );
        self::assertSame([], array_diff_assoc($named($intake), $named($original)));
        $row = (int) array_search('Seat_Shell_050', $intake->objects()->names, true);
        self::assertSame(['51 Seats'], $intake->objects()->sorted[$row]->layer);
    }

    public function test_a_file_that_comes_back_is_sorted_as_it_was_beside_what_its_own_file_said(): void
    {
        $this->send('POST', 'layers', ['name' => 'Stands / all', 'keys' => ''])->assertOk();
        $above = $this->layer($this->project, 'Stands / all');
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'rows/move', ['keys' => "L$seats", 'where' => 'into', 'mark' => "L$above"])->assertOk();
        $this->send('POST', 'tags', ['name' => 'Wet; dry', 'keys' => 'O5']);
        $this->send('POST', 'folders', ['holds' => 'tags', 'name' => 'Phases', 'around' => 'T1']);
        $this->send('POST', 'tags', ['name' => 'First', 'keys' => 'O5,O9']);
        $this->send('POST', 'own', ['keys' => 'O9', 'property' => 'fire', 'value' => 'EI 30'])->assertOk();
        [, $path] = $this->export(null, null);
        $back = Project::query()->findOrFail($this->takeIn($this->ida, $path)->project_id);
        $told = function (Project $project): array {
            $bench = Bench::of($project, $this->ida);
            $rows = [];
            foreach ($bench->project->objects()->orderBy('no')->get(['no', 'name']) as $object) {
                $row = $bench->scene()->row($object->no);
                $layers = $bench->layers()->chain($bench->scene()->layers()->at($row));
                $tags = array_filter($bench->tags()->all(), static fn (Tag $tag): bool => $bench->scene()->tagged($tag->number)->has($row));
                $rows[] = [
                    $object->name,
                    array_map(static fn (Layer $layer): string => $layer->name, $layers),
                    array_values(array_map(
                        static fn (Tag $tag): array => [
                            ...array_map(static fn (Folder $folder): string => $folder->name, $bench->tags()->tree->chain($tag->folder)),
                            $tag->name,
                        ],
                        $tags,
                    )),
                ];
            }
            sort($rows);

            return $rows;
        };
        [$here, $there] = array_map(
            static fn (Project $project): array => array_map(serialize(...), $told($project)),
            [$this->project->refresh(), $back],
        );
        self::assertSame([], array_diff($there, $here));
        $found = Bench::of($back, $this->ida)->find('fire:"EI 30"')->rows;
        self::assertSame(1, $found?->count());
    }

    public function test_what_is_hidden_or_not_for_export_stays_out_and_is_told_with_its_reason(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0])->assertOk();
        $tree = $this->number('Tree#20');
        $this->send('POST', 'own', ['keys' => "O$tree", 'property' => '~export', 'value' => 'Bought model'])
            ->assertOk()
            ->assertSee('Keep 1 object out of exports.');
        $lights = $this->project->objects()->where('kind', 2)->pluck('no');
        $this->send('POST', 'rungs', ['keys' => 'K2', 'rung' => 0])->assertOk();
        $hidden = $this->project->objects()->where('layer_no', $seats)->where('kind', '<>', 0)->count();

        [$done, $path] = $this->export(null, $this->bench()->inEffect()->rungs());
        self::assertSame(['Bought model' => 1], $done->heldBack);
        self::assertSame($hidden + $lights->count(), $done->hidden);
        self::assertStringContainsString('1 object stayed out: not for export, “Bought model”.', $done->says());
        $names = Files::open($path)->objects()->names;
        self::assertNotContains('Tree#20', $names);
        self::assertNotContains('Seat_Shell_050', $names);

        // In pictures everything is there that was only hidden on the desk.
        [$done] = $this->export(null, $this->bench()->outputs()->of(null)->inEffect->rungs());
        self::assertSame([0, ['Bought model' => 1]], [$done->hidden, $done->heldBack]);
        $this->send('POST', 'undo')->assertOk();
        [$done] = $this->export(null, $this->bench()->outputs()->of(null)->inEffect->rungs());
        self::assertSame([], $done->heldBack);
    }

    public function test_it_says_how_many_were_asked_for_and_what_came_along(): void
    {
        $says = function (string $keys): string {
            $this->send('POST', 'pick', ['keys' => $keys, 'mode' => 'replace'])->assertOk();
            $this->post($this->path('exports'), ['of' => 'pick', 'side' => 'output'])->assertOk();

            $export = Export::query()->orderByDesc('id')->firstOrFail();
            (new ExportParts($export->id))->handle();

            return $export->refresh()->says;
        };
        $parents = DB::table('objects')->where('project_id', $this->project->id)->pluck('parent_no', 'no');
        $above = static function (int $of) use ($parents): int {
            for ($count = 0; ($of = (int) $parents[$of]) !== 0; $count++);

            return $count;
        };
        $seat = $this->number('Seat_Shell_050');
        $holders = $above($seat);
        $whole = 1 + $holders;
        self::assertGreaterThan(0, $holders);
        $groups = $holders === 1 ? 'group' : 'groups';
        self::assertSame("1 asked for, $whole exported: $holders $groups around came along.", $says("O$seat"));
        // The group itself brings what it holds, and one group less has to come along.
        $group = (int) $parents[$seat];
        $inside = count(array_filter($parents->keys()->all(), static function (int $no) use ($parents, $group): bool {
            for (; $no !== 0 && $no !== $group; $no = (int) $parents[$no]);

            return $no === $group;
        })) - 1;
        self::assertStringContainsString('1 asked for, ', $said = $says("O$group"));
        self::assertStringContainsString("$inside that it holds", $said);
        self::assertStringNotContainsString('asked for', (new Done(3, 0, [], 1))->says(3));
    }

    public function test_what_came_in_a_file_that_is_not_for_export_stays_out_until_that_is_taken_back(): void
    {
        $own = $this->project->sources()->firstOrFail();
        $this->takeIn($this->ida, Gltf::file(Gltf::triangle()), name: 'pane.gltf', into: $this->project);
        $pane = $this->project->sources()->where('name', 'pane.gltf')->firstOrFail();
        $this->get($this->path("sources/$own->id/hold-back"))->assertOk()->assertSee('Marlpit Baths.glb');
        $this->send('POST', "sources/$own->id/hold-back", ['reason' => ' Only   lent '])
            ->assertOk()
            ->assertSee('Keep out of exports: Marlpit Baths.glb');
        [$done, $path] = $this->export(null, null);
        $parts = DB::table('objects')->where('source_id', $own->id)->where('kind', '<>', 0)->count();
        self::assertSame(['Only lent' => $parts], $done->heldBack);
        self::assertSame(1, self::triangles(Files::open($path)));
        $this->send('POST', 'pick', ['keys' => 'O'.$this->number('Tree#20'), 'mode' => 'replace']);
        $this->get($this->path('details'))->assertOk()->assertSee('leave its file out: Only lent');
        $this->send('POST', "sources/$own->id/hold-back", ['reason' => 'Only lent'])->assertSee('It is so already.');
        $this->send('POST', "sources/$pane->id/hold-back", ['reason' => str_repeat('x', 401)])->assertStatus(422);
        $this->send('POST', 'sources/999999999/hold-back', ['reason' => 'x'])
            ->assertStatus(422)
            ->assertSee('no longer there');
        foreach ([['undo', []], ['redo', ['Only lent' => $parts]]] as [$way, $held]) {
            $this->post($this->path($way))->assertOk();
            self::assertSame($held, $this->export(null, null)[0]->heldBack);
        }
        $this->send('POST', "sources/$own->id/hold-back", ['reason' => ''])->assertSee('again');
        self::assertSame([], $this->export(null, null)[0]->heldBack);
    }

    public function test_what_is_in_a_layer_that_is_not_for_export_stays_out_with_its_reason(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->get($this->path("rows/L$seats/hold-back"))->assertOk()->assertSee('what is in 51 Seats');
        $this->send('PATCH', "rows/L$seats", ['held_back' => ' By   others '], count: 47)
            ->assertSee('Keep layer 51 Seats out of exports.')
            ->assertSee('not for export');
        $parts = DB::table('objects')->where('project_id', $this->project->id)->where('layer_no', $seats)->where('kind', '<>', 0)->count();
        [$done, $path] = $this->export(null, null);
        self::assertSame(['By others' => $parts], $done->heldBack);
        self::assertNotContains('Seat_Shell_050', Files::open($path)->objects()->names);
        $this->send('PATCH', "rows/L$seats", ['held_back' => str_repeat('x', 401)])->assertStatus(422);
        // What is filed elsewhere goes out, whatever it stands in.
        $seat = $this->number('Seat_Shell_050');
        $this->send('POST', 'file', ['layer' => 1, 'keys' => "O$seat"])->assertOk();
        [$done, $path] = $this->export(null, null);
        self::assertSame(['By others' => $parts - 1], $done->heldBack);
        self::assertContains('Seat_Shell_050', Files::open($path)->objects()->names);
        $this->send('POST', 'undo');
        $this->send('POST', 'undo')->assertSee('Undone: Keep layer 51 Seats out of exports.');
        self::assertSame([], $this->export(null, null)[0]->heldBack);
    }

    public function test_each_rung_goes_out_as_it_is_drawn(): void
    {
        (new Coarsen($this->project->id))->handle($this->app->make(SceneStore::class));
        $tree = $this->number('Tree#20');
        $row = $this->bench()->scene()->row($tree);
        $rows = Bits::ofRows($this->bench()->scene()->count(), [$row]);
        $drawn = [];
        foreach ([5, 4, 3, 2, 1] as $rung) {
            $levels = Levels::constant($rows->length, 5, $rung);
            [, $path] = $this->export($rows, $levels);
            $drawn[$rung] = self::triangles(Files::open($path));
            self::assertSame($this->bench()->weights()->drawn($rows, $levels), $drawn[$rung]);
        }
        self::assertSame([1254, 1254, 12], [$drawn[5], $drawn[4], $drawn[1]]);
        self::assertLessThan(700, $drawn[3]);
        // With what it stands in, and nothing else.
        [$done] = $this->export($rows, null);
        self::assertSame(1 + count($this->bench()->scene()->ancestors($row)), $done->objects);
    }

    public function test_nothing_and_no_room_are_said_and_leave_the_file_as_it_was(): void
    {
        $path = Gltf::keep('as it was', '.glb');
        $none = Bits::none($this->bench()->scene()->count());
        try {
            (new Exporting($this->bench(), Levels::constant($none->length, 5, 5)))->write($none, $path);
            self::fail('nothing was exported');
        } catch (Refused $refused) {
            self::assertStringContainsString('Nothing is left to export', $refused->getMessage());
        }
        $this->roomForFiles(20_000);
        try {
            $full = Levels::constant($none->length, 5, 5);
            (new Exporting($this->bench(), $full))->write(Bits::all($none->length), $path);
            self::fail('it was written where there is no room');
        } catch (UnableToKeep) {
            $this->roomForFiles(null);
        }
        self::assertSame('as it was', file_get_contents($path));
        self::assertSame([], glob("$path.part-*"));
    }

    public function test_scripts_export_by_rule_view_and_output(): void
    {
        $key = $this->project->key;
        $path = Gltf::keep('', '.glb');
        $given = ['project' => $key, 'file' => $path, '--json' => true];
        $run = static fn (array $more): int => Artisan::call('shelf:export', $given + $more);
        self::assertSame(0, $run(['--rule' => 'layer:"51 Seats"', '--compressed' => true]));
        $said = json_decode(Artisan::output(), true);
        $seats = DB::table('objects')->where('layer_no', $this->layer($this->project, '51 Seats'))->where('kind', '<>', 0)->count();
        $parts = array_filter(Files::open($path)->objects()->kinds, static fn (int $kind): bool => $kind !== 0);
        self::assertCount($seats, $parts);
        self::assertSame(filesize($path), $said['bytes']);
        foreach (['nowhere/x.glb' => [], $path => ['--view' => 'None such'], "$path " => ['--rule' => 'kind:chair']] as $file => $more) {
            self::assertSame(2, Artisan::call('shelf:export', ['project' => $key, 'file' => trim($file)] + $more));
        }
    }

    public function test_an_export_is_asked_for_written_in_the_queue_fetched_and_nobody_elses(): void
    {
        $this->send('POST', 'pick', ['keys' => 'L'.$this->layer($this->project, '51 Seats'), 'mode' => 'replace'])->assertOk();
        $this->get($this->path('exports/ask'))
            ->assertOk()
            ->assertSee('what is picked: ')
            ->assertSee('51 Seats')
            ->assertSee('pictures show it');
        $this->send('POST', 'exports', ['of' => 'pick', 'side' => 'desk', 'compressed' => 1])
            ->assertOk()
            ->assertSee('Waiting for a free worker');
        $export = Export::query()->firstOrFail();
        Queue::assertPushed(ExportParts::class);
        $this->get($this->path("exports/$export->key/file"))->assertNotFound();
        (new ExportParts($export->id))->handle();
        $export->refresh();
        self::assertSame('done', $export->state, $export->says);
        $this->get($this->path("exports/$export->key"))->assertOk()->assertSee(' came along.')->assertSee('Save Marlpit Baths.glb');
        $file = $this->get($this->path("exports/$export->key/file"))->assertOk()->assertDownload('Marlpit Baths.glb')->streamedContent();
        self::assertSame($export->bytes, strlen($file));
        $kinds = Files::open(Gltf::keep($file, '.glb'))->objects()->kinds;
        self::assertSame(240, count(array_filter($kinds, static fn (int $kind): bool => $kind === 1)));
        // Whoever else sees the project sees nothing of it; strangers see nothing at all.
        $anton = $this->person('Anton Weber');
        $this->project->people()->attach($anton, ['role' => 'editor']);
        $this->actingAs($anton)->get($this->path("exports/$export->key/file"))->assertNotFound();
        $this->actingAs($this->person('Stranger'))->get($this->path('exports/ask'))->assertNotFound();
        // After a day it is gone.
        Kept::put('exports/forgotten.glb', 'x');
        $export->forceFill(['created_at' => now()->subDays(2)])->save();
        foreach (Kept::disk()->files('exports') as $kept) {
            touch(Kept::disk()->path($kept), time() - 90_000);
        }
        (new Sweep)->run();
        self::assertSame([[], 0], [Kept::disk()->files('exports'), Export::query()->count()]);
    }

    public function test_an_export_is_stopped_fails_in_words_and_is_refused_where_it_was_asked_for(): void
    {
        foreach (['L999' => 'layer', 'E99' => 'no longer there', 'pick' => 'nothing in that'] as $of => $says) {
            $this->send('POST', 'exports', ['of' => $of, 'side' => 'desk'])
                ->assertStatus(422)
                ->assertSee($says);
        }
        $this->send('POST', 'exports', ['of' => 'all', 'side' => 'output'])->assertOk();
        $export = Export::query()->firstOrFail();
        $this->post($this->path("exports/$export->key/stop"))->assertOk()->assertSee('Stopped.');
        (new ExportParts($export->id))->handle();
        self::assertSame(['stopped', []], [$export->refresh()->state, Kept::disk()->files('exports')]);

        // While it is written, it hears of that as well; and a full disk is said.
        foreach (['stopped' => ['stop' => true], 'failed' => []] as $state => $how) {
            $this->send('POST', 'exports', ['of' => 'all', 'side' => 'output'])->assertOk();
            $export = Export::query()->latest('id')->firstOrFail();
            $export->update($how);
            $this->roomForFiles($how === [] ? 30_000 : null);
            (new ExportParts($export->id))->handle();
            $this->roomForFiles(null);
            self::assertSame([$state, []], [$export->refresh()->state, Kept::disk()->files('exports')]);
            $this->get($this->path("exports/$export->key"))
                ->assertOk()
                ->assertSee($how === [] ? 'disk is full' : 'Stopped.');
        }
        // A layer that was hidden meanwhile leaves nothing.
        $this->send('POST', 'rungs', ['keys' => 'K0,K1,K2,K3,K4,K5,K6', 'rung' => 0]);
        $this->send('POST', 'exports', ['of' => 'all', 'side' => 'desk'])->assertOk();
        $export = Export::query()->latest('id')->firstOrFail();
        (new ExportParts($export->id))->handle();
        self::assertStringContainsString('Nothing is left to export', $export->refresh()->says);
    }

    /** @return array{Done, string} what it came to, and the file */
    private function export(?Bits $rows, ?Levels $rungs, bool $isQuantized = false, bool $isCompressed = false): array
    {
        $bench = $this->bench();
        $count = $bench->scene()->count();
        $path = Gltf::keep('', '.glb');
        $exporting = new Exporting($bench, $rungs ?? Levels::constant($count, 5, 5), $isQuantized, $isCompressed);

        return [$exporting->write($rows ?? Bits::all($count), $path), $path];
    }

    private static function triangles(Intake $intake): int
    {
        $triangles = 0;
        $meshes = $intake->meshes();
        for ($row = 1; $row <= $intake->objects()->count(); $row++) {
            $mesh = $intake->objects()->meshes[$row];
            $triangles += $mesh < 0 ? 0 : $meshes[$mesh]->triangles * $intake->objects()->drawn($row);
        }

        return $triangles;
    }

    /** @return list<float> */
    private static function bounds(Intake $intake): array
    {
        $box = new Box;
        for ($row = 1; $row <= $intake->objects()->count(); $row++) {
            $mesh = $intake->objects()->meshes[$row];
            foreach ($mesh < 0 ? [] : $intake->objects()->placements($row) as $m) {
                foreach ($intake->primitives($mesh) as $primitive) {
                    $box = $box->with(Box::around($primitive->positions)->transformed($m));
                }
            }
        }

        return $box->toList();
    }
}
