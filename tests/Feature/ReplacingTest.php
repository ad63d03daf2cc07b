<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Exporting\Exporting;
use App\Files\Kept;
use App\Files\UnableToKeep;
use App\Jobs\Coarsen;
use App\Jobs\Sweep;
use App\Lighten\Fine;
use App\Lighten\Replacing;
use App\Scenes\MeshShapes;
use App\Scenes\SceneStore;
use App\Weighing\Lists;
use Illuminate\Support\Facades\DB;
use Tests\Core\Support\Gltf;
use VineShelf\Formats\Files;
use VineShelf\Geometry\PackReader;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;
use VineShelf\Scene\MeshVersions;

/** Meshes that are too fine for what they show, and coarser ones in their place. */
final class ReplacingTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    protected function tearDown(): void
    {
        $this->roomForFiles(null);
        parent::tearDown();
    }

    public function test_a_coarser_mesh_in_place_of_another_counts_everywhere_and_undo_and_redo_are_exact(): void
    {
        $mesh = $this->meshOf('Tree#20');
        $users = $this->users($mesh);
        $before = $this->objects();
        $coarse = MeshVersions::coarse($this->bench()->scene())[$mesh];
        $meshed = $this->project->refresh()->meshed;
        $boxes = $this->boxes($users);

        $this->send('POST', 'meshes/coarser', ['meshes' => (string) $mesh])
            ->assertOk()
            ->assertSee('Put a coarser version in place of ');
        self::assertGreaterThan($meshed, $this->project->refresh()->meshed, 'pages that are open hear of it');
        $this->assertIndexTrue($this->project);
        $new = $this->meshOf('Tree#20');
        self::assertNotSame($mesh, $new);
        self::assertSame($users, $this->users($new));
        self::assertSame([], $this->users($mesh));
        foreach ($this->objects() as $number => $object) {
            if (in_array($number, $users, true)) {
                self::assertSame($coarse['triangles'] * intdiv($before[$number][1], $this->triangles($mesh)), $object[1]);
            } else {
                self::assertSame($before[$number], $object);
            }
        }
        self::assertSame($boxes, $this->boxes($users), 'what stands where does not move');
        // The canvas and exports draw it: its pack is there, with its twin for browsers.
        $pack = DB::table('meshes')->where('project_id', $this->project->id)->where('no', $new)->value('pack_no');
        $file = (string) $this->project->packs()->where('no', $pack)->value('file');
        self::assertSame($coarse['triangles'], (new PackReader((string) Kept::get($file)))->packed($new)?->triangles());
        self::assertSame(Kept::get($file), gzdecode((string) Kept::get("$file.gz")));
        $this->get($this->path("packs/$pack"))->assertOk();
        self::assertSame(array_sum(array_column($this->objects(), 1)), $this->exported());
        $meshes = array_values((array) unpack('V*', (string) $this->get($this->path('meshes'))->assertOk()->getContent()));
        self::assertSame($new, $meshes[$this->number('Tree#20')]);
        // Whoever looks can click it.
        self::assertNotNull((new MeshShapes($this->project, $this->bench()->scene()))->shape($new));

        // It gets coarser versions of its own, and the sweep leaves alone what undo needs.
        $this->coarsen();
        (new Sweep)->run();
        $after = $this->objects();
        foreach ([['undo', $before], ['redo', $after], ['undo', $before]] as [$way, $expected]) {
            $this->post($this->path($way))->assertOk();
            self::assertSame($expected, $this->objects(), $way);
            $this->assertIndexTrue($this->project);
        }
        self::assertSame(array_sum(array_column($before, 1)), $this->exported());

        // Once more, by what was made before; then back as it came.
        $this->send('POST', 'meshes/coarser', ['meshes' => (string) $mesh])->assertOk();
        self::assertSame($after, $this->objects());
        $this->send('GET', 'weight?show=fine')
            ->assertOk()
            ->assertSee('coarser on purpose, was '.number_format($this->triangles($mesh)));
        $this->send('POST', 'meshes/finer', ['meshes' => (string) $new])
            ->assertOk()
            ->assertSee('back as it came');
        self::assertSame($before, $this->objects());
        $this->send('POST', 'meshes/finer', ['meshes' => (string) $new])
            ->assertStatus(422)
            ->assertSee('Nothing is drawn with that');
        $this->send('POST', 'meshes/finer', ['meshes' => (string) $mesh])
            ->assertStatus(422)
            ->assertSee('came as it is');
        $this->send('POST', 'meshes/coarser', ['meshes' => '999999'])
            ->assertStatus(422)
            ->assertSee('no longer there');
    }

    public function test_what_is_locked_keeps_its_mesh_and_where_all_is_nothing_is_made(): void
    {
        $mesh = $this->meshOf('Tree#20');
        $users = $this->users($mesh);
        $this->send('POST', 'locks', ['keys' => 'O'.$users[0], 'lock' => 2])->assertOk();
        $this->send('POST', 'meshes/coarser', ['meshes' => (string) $mesh])
            ->assertOk()
            ->assertSee('1 locked object was left alone.');
        self::assertSame([$users[0]], $this->users($mesh));
        $this->post($this->path('undo'))->assertOk();
        $keys = implode(',', array_map(static fn (int $number): string => "O$number", $this->users($mesh)));
        $this->send('POST', 'locks', ['keys' => $keys, 'lock' => 2])->assertOk();
        [$rows, $next] = [DB::table('meshes')->count(), $this->project->refresh()->next_mesh];
        $this->send('POST', 'meshes/coarser', ['meshes' => (string) $mesh])
            ->assertStatus(422)
            ->assertSee('left alone');
        self::assertSame([$rows, $next], [DB::table('meshes')->count(), $this->project->refresh()->next_mesh]);
        $this->assertIndexTrue($this->project);
    }

    public function test_a_full_disk_and_a_fault_leave_everything_as_it_was(): void
    {
        $mesh = $this->meshOf('Tree#20');
        $state = fn (): array => [
            $this->objects(),
            DB::table('meshes')->count(),
            DB::table('packs')->count(),
            Kept::disk()->allFiles('sources'),
        ];
        $before = $state();
        $this->roomForFiles(300);
        try {
            (new Replacing($this->bench()))->coarser([$mesh]);
            self::fail('it was kept where there is no room');
        } catch (UnableToKeep) {
            $this->roomForFiles(null);
        }
        self::assertSame($before, $state());
        // A pack that is cut, and one that is lost, are said.
        $versions = MeshVersions::of($this->bench()->scene(), $mesh);
        $pack = array_values(array_filter($versions, static fn (array $version): bool => $version['coarse']))[0]['pack'];
        $file = (string) $this->project->packs()->where('no', $pack)->value('file');
        $bytes = (string) Kept::get($file);
        foreach ([substr($bytes, 0, 60), '', null] as $broken) {
            $broken === null ? Kept::disk()->delete($file) : Kept::put($file, $broken);
            $this->send('POST', 'meshes/coarser', ['meshes' => (string) $mesh])
                ->assertStatus(422)
                ->assertSee('cannot be read');
        }
        Kept::put($file, $bytes);
        // A mesh that has no coarser version, beside one that has: neither is replaced.
        $small = (int) DB::table('meshes')->where('project_id', $this->project->id)->where('triangles', 12)->value('no');
        $this->send('POST', 'meshes/coarser', ['meshes' => "$mesh,$small"])
            ->assertStatus(422)
            ->assertSee('has no coarser version');
        self::assertSame($before, $state());
        $this->assertIndexTrue($this->project);
    }

    public function test_too_fine_is_counted_by_area_and_by_the_nearest_view(): void
    {
        $found = array_column((new Fine($this->bench()))->meshes('area', 0.0), null, 'mesh');
        self::assertGreaterThan(20, count($found));
        foreach ($found as $mesh => $one) {
            $users = $this->users($mesh);
            $area = 0.0;
            foreach ($this->boxes($users) as $box) {
                [$x, $y, $z] = [$box[3] - $box[0], $box[4] - $box[1], $box[5] - $box[2]];
                $area = max($area, 2 * ($x * $y + $y * $z + $z * $x));
            }
            self::assertSame(count($users), $one['objects']);
            self::assertEqualsWithDelta($area, $one['area'], 1e-6);
            self::assertEqualsWithDelta($this->triangles($mesh) / $area, $one['per'], 1e-3);
        }
        // From afar the same mesh shows in fewer pixels; a view from nearby counts instead.
        self::assertFalse((new Fine($this->bench()))->hasViews());
        $tree = $this->meshOf('Tree#20');
        $box = $this->boxes([$this->number('Tree#20')])[0];
        $middle = [($box[0] + $box[3]) / 2, ($box[1] + $box[4]) / 2, ($box[2] + $box[5]) / 2];
        $seen = [];
        foreach ([400, 40] as $away) {
            $camera = json_encode(['eye' => [$middle[0], $middle[1] - $away, $middle[2]], 'target' => $middle, 'fov' => 40]);
            $this->send('POST', 'views', ['name' => "From $away", 'keep_camera' => 1, 'camera' => $camera])->assertOk();
            $seen[] = array_column((new Fine($this->bench()))->meshes('pixel', 0.0), 'pixels', 'mesh')[$tree];
        }
        // 800 pixels over 40 degrees, 40 metres away: a metre is 27 pixels, and a box hides its front.
        $front = ($box[3] - $box[0]) * ($box[5] - $box[2]) * (400 / tan(deg2rad(20)) / 40) ** 2;
        self::assertEqualsWithDelta(0.6 * $front, $seen[1], 0.25 * $front);
        self::assertLessThan($seen[1] / 30, $seen[0]);
        $this->send('GET', 'weight?show=fine&per=pixel&least=0.001')->assertOk()->assertSee('Per pixel')->assertSee('Coarser for all');
        $this->send('GET', 'weight?show=fine&per=area&least=99999999')->assertOk()->assertSee('No mesh is finer than that.');
        $this->project->people()->updateExistingPivot($this->ida->id, ['role' => 'viewer']);
        $this->send('GET', 'weight?show=fine&per=area&least=0')->assertOk()->assertDontSee('data-mesh-do', false);
        $this->send('POST', 'meshes/coarser', ['meshes' => (string) $tree])->assertNotFound();
    }

    public function test_meshes_that_are_stored_several_times_are_shared_in_the_same_materials_only(): void
    {
        $repeats = (new Lists($this->bench()))->repeats();
        self::assertNotSame([], $repeats);
        $hashes = array_map(static fn (array $one): string => substr($one['key'], 1), $repeats);
        [$stored, $once] = (new Lists($this->bench()))->sharing();
        $before = $this->objects();
        $drawn = $this->exported();
        $this->send('POST', 'meshes/share', ['hashes' => implode(',', $hashes)])
            ->assertOk()
            ->assertSee('Share ');
        self::assertSame([$once, $once], (new Lists($this->bench()))->sharing());
        self::assertSame([], (new Lists($this->bench()))->repeats());
        self::assertLessThan($stored, $once);
        self::assertSame($drawn, $this->exported());
        self::assertSame(array_column($before, 1), array_column($this->objects(), 1));
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'meshes/share', ['hashes' => $hashes[0]])->assertStatus(422);
        $this->post($this->path('undo'))->assertOk();
        self::assertSame($before, $this->objects());

        // Two that are alike but for what they are made of stay two.
        $two = DB::table('meshes')->where('project_id', $this->project->id)->where('hash', $hashes[0])->orderBy('no')->pluck('no')->all();
        DB::table('meshes')
            ->where('project_id', $this->project->id)
            ->where('no', $two[0])
            ->update(['material_no' => 1, 'materials' => '[1]']);
        DB::table('meshes')
            ->where('project_id', $this->project->id)
            ->whereIn('no', array_slice($two, 1))
            ->update(['material_no' => 2, 'materials' => '[2]']);
        if (count($two) === 2) {
            $this->send('POST', 'meshes/share', ['hashes' => $hashes[0]])
                ->assertStatus(422)
                ->assertSee('same materials');
        } else {
            $this->send('POST', 'meshes/share', ['hashes' => $hashes[0]])->assertOk();
            self::assertNotSame([], $this->users((int) $two[0]));
        }
    }

    public function test_what_came_with_a_file_that_was_taken_back_is_shared_with_nobody(): void
    {
        // Without materials, meshes of two files are the same mesh.
        $gltf = Gltf::triangle();
        $gltf['meshes'][1] = $gltf['meshes'][0];
        $gltf['nodes'] = [['mesh' => 0, 'name' => 'Pane one'], ['mesh' => 1, 'name' => 'Pane two']];
        $gltf['scenes'][0]['nodes'] = [0, 1];
        $this->takeIn($this->ida, Gltf::file($gltf), name: 'panes.gltf', into: $this->project);
        $gone = $this->project->sources()->where('name', 'panes.gltf')->value('id');
        $this->post($this->path('undo'))->assertOk();
        $this->takeIn($this->ida, Gltf::file($gltf), name: 'panes.gltf', into: $this->project);
        $hash = (string) DB::table('meshes')->where('project_id', $this->project->id)->where('source_id', $gone)->value('hash');
        $this->send('POST', 'meshes/share', ['hashes' => $hash])->assertOk();
        $panes = $this->project->objects()->where('gone', false)->where('name', 'like', 'Pane%')->pluck('mesh_no')->unique();
        self::assertCount(1, $panes);
        $source = DB::table('meshes')->where('project_id', $this->project->id)->where('no', $panes->first())->value('source_id');
        self::assertNotSame($gone, $source);
        $this->assertIndexTrue($this->project);
    }

    private function coarsen(): void
    {
        (new Coarsen($this->project->id))->handle($this->app->make(SceneStore::class));
    }

    private function meshOf(string $name): int
    {
        return (int) $this->project->objects()->where('name', $name)->value('mesh_no');
    }

    private function triangles(int $mesh): int
    {
        return (int) DB::table('meshes')->where('project_id', $this->project->id)->where('no', $mesh)->value('triangles');
    }

    /** @return list<int> */
    private function users(int $mesh): array
    {
        return $this->project->objects()->where('mesh_no', $mesh)->orderBy('no')->pluck('no')->all();
    }

    /** @return array<int, array{int, int, int}> mesh, triangles and vertices by number */
    private function objects(): array
    {
        $objects = [];
        foreach (
            $this->project
                ->objects()
                ->orderBy('no')
                ->toBase()
                ->get(['no', 'mesh_no', 'triangles', 'vertices']) as $object
        ) {
            $objects[$object->no] = [$object->mesh_no, $object->triangles, $object->vertices];
        }

        return $objects;
    }

    /** @param list<int> $numbers @return list<list<float>> */
    private function boxes(array $numbers): array
    {
        $bench = $this->bench();

        return array_map(static fn (int $number): array => $bench->facts()->box($bench->scene()->row($number)) ?? [], $numbers);
    }

    /** @return int triangles of all as a file */
    private function exported(): int
    {
        $path = Gltf::keep('', '.glb');
        $count = $this->bench()->scene()->count();
        (new Exporting($this->bench(), Levels::constant($count, 5, 5), false, false))->write(Bits::all($count), $path);
        $intake = Files::open($path);
        $triangles = 0;
        foreach ($intake->objects()->meshes as $row => $mesh) {
            $triangles += $mesh < 0 ? 0 : $intake->meshes()[$mesh]->triangles * $intake->objects()->drawn($row);
        }

        return $triangles;
    }
}
