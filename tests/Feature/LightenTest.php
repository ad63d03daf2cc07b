<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Files\Kept;
use App\Jobs\Coarsen;
use App\Jobs\Lighten;
use App\Jobs\Sweep;
use App\Models\Lightening;
use App\Scenes\SceneStore;
use Illuminate\Support\Facades\Artisan;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Testing\TestResponse;
use PHPUnit\Framework\Attributes\TestWith;
use Tests\Core\Support\ForeignModel;
use Tests\Core\Support\Gltf;
use VineShelf\Scene\MeshVersions;

/** Marlpit Baths made lighter, counted from the database. */
final class LightenTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    private const ASK = ['triangles' => 90_000, 'side' => 'desk', 'by' => 'objects', 'from' => 'everywhere', 'hides' => 1];

    /** @var array<int, object>|null by number */
    private ?array $objects = null;

    protected function tearDown(): void
    {
        $this->roomForFiles(null);
        parent::tearDown();
    }

    #[TestWith(['desk', 'objects'])]
    #[TestWith(['desk', 'layers'])]
    #[TestWith(['output', 'layers'])]
    public function test_it_fits_leaves_locks_and_the_other_side_alone_and_is_given_back(string $side, string $by): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'locks', ['keys' => 'L'.$this->layer($this->project, '41 Lane ropes'), 'lock' => 2])->assertOk();
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 4])->assertOk();
        $other = $side === 'desk' ? 'output' : 'desk';
        [$before, $otherBefore] = [$this->rungs($side), $this->rungs($other)];
        $locked = $this->bench()->inEffect()->locked();

        $lightening = $this->proposed(['side' => $side, 'by' => $by, 'triangles' => 120_000]);
        self::assertSame('done', $lightening->state, $lightening->says);
        self::assertSame([$before, $otherBefore], [$this->rungs($side), $this->rungs($other)], 'nothing changes until it is applied');
        $report = (array) $lightening->report;
        self::assertSame($this->counted($before), $report['before']['triangles']);

        $this->post($this->path("lighten/$lightening->key/apply"))->assertOk()->assertSee('120,000 triangles');
        $after = $this->rungs($side);
        self::assertSame($this->counted($after), $report['after']['triangles'], 'it comes to what was said');
        self::assertLessThanOrEqual(120_000, $report['after']['triangles']);
        self::assertGreaterThan($by === 'objects' ? 119_000 : 60_000, $report['after']['triangles'], 'and not to much less');
        self::assertSame($otherBefore, $this->rungs($other));
        $lowered = 0;
        foreach ($after as $number => $rung) {
            self::assertLessThanOrEqual($before[$number], $rung);
            if ($rung < $before[$number]) {
                $lowered++;
                self::assertFalse($locked->has($this->bench()->scene()->row($number)));
            }
        }
        self::assertSame(array_sum($report['lowered']), $lowered);
        self::assertGreaterThan(0.0, $report['loss']);
        self::assertLessThanOrEqual($report['loss'] + 1e-9, $report['bound']);
        self::assertSame($lowered, array_sum(array_map(static fn (array $layer): int => array_sum($layer['rungs']), $report['layers'])));

        // Once more, and what is not there.
        $this->post($this->path("lighten/$lightening->key/apply"))->assertStatus(422)->assertSee('applied already');
        $this->post($this->path('lighten/'.str_repeat('a', 20).'/apply'))->assertNotFound();
        $this->post($this->path("lighten/$lightening->key/back"))->assertOk();
        self::assertSame($before, $this->rungs($side));
        self::assertSame($otherBefore, $this->rungs($other));
        $this->post($this->path("lighten/$lightening->key/back"))->assertStatus(422)->assertSee('given back already');

        // One step, or one change, to undo each.
        $undo = $side === 'desk' ? ['desk/undo', 'desk/redo'] : ['undo', 'redo'];
        foreach ([[$undo[0], $after], [$undo[0], $before], [$undo[1], $after], [$undo[1], $before]] as [$path, $there]) {
            $this->post($this->path($path))->assertOk();
            self::assertSame($there, $this->rungs($side), $path);
        }
    }

    #[TestWith(['desk'])]
    #[TestWith(['output'])]
    public function test_what_was_set_otherwise_since_then_stays_when_it_is_given_back(string $side): void
    {
        $tree = $this->number('Tree#20');
        $shell = $this->number('Seat_Shell_050');
        $set = fn (int $number, int $rung) => $this->send('POST', $side === 'desk' ? 'rungs' : 'output', [
            'keys' => "O$number",
            $side === 'desk' ? 'rung' : 'output' => (string) $rung,
        ])->assertOk();
        $set($shell, 4);
        $was = $this->rungs($side);
        $lightening = $this->proposed(['side' => $side, 'triangles' => 33_000]);
        $this->post($this->path("lighten/$lightening->key/apply"))->assertOk();
        $there = $this->rungs($side);
        self::assertLessThan(5, $there[$tree]);
        self::assertLessThan(4, $there[$shell]);
        $set($tree, $there[$tree] === 1 ? 2 : 1);
        $set($this->number('Tree#7'), 0);
        $stays = $this->rungs($side);
        // An object that is locked by then refuses; the rest is as it was, also what was set by hand before.
        $late = $this->number('Tree#6');
        $this->send('POST', 'locks', ['keys' => "O$late", 'lock' => 2])->assertOk();
        $this->post($this->path("lighten/$lightening->key/back"))->assertOk()->assertSee('locked');
        $back = $this->rungs($side);
        self::assertSame($stays[$tree], $back[$tree]);
        self::assertSame($stays[$late], $back[$late]);
        self::assertSame(4, $back[$shell]);
        $differ = array_keys(array_diff_assoc($back, $was));
        sort($differ);
        $expected = [$tree, $this->number('Tree#7'), $late];
        sort($expected);
        self::assertSame($expected, $differ);
    }

    public function test_what_is_kept_stays_and_without_hiding_there_are_boxes(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'pick', ['keys' => "L$seats", 'mode' => 'replace'])->assertOk();
        $before = $this->rungs('desk');
        $lightening = $this->proposed(['keep' => 1, 'hides' => 0, 'triangles' => 150_000]);
        $this->post($this->path("lighten/$lightening->key/apply"))->assertOk();
        $after = $this->rungs('desk');
        self::assertLessThanOrEqual(150_000, $this->counted($after));
        $kept = $this->project->objects()->where('layer_no', $seats)->pluck('no')->all();
        foreach ($after as $number => $rung) {
            if (in_array($number, $kept, true)) {
                self::assertSame($before[$number], $rung);
            }
            self::assertTrue($rung > 0 || $before[$number] === 0, 'nothing is hidden');
        }
        // What is lowered can be picked, and within a layer.
        $this->post($this->path("lighten/$lightening->key/pick"), ['mode' => 'replace'])->assertOk();
        $lowered = array_keys(array_diff_assoc($after, $before));
        self::assertEqualsCanonicalizing($lowered, $this->bench()->pick()->numbers());
        $layer = (int) ((array) $lightening->report)['layers'][0]['layer'];
        $this->post($this->path("lighten/$lightening->key/pick"), ['mode' => 'replace', 'layer' => $layer])->assertOk();
        $there = $this->project->objects()->where('layer_no', $layer)->pluck('no')->all();
        self::assertEqualsCanonicalizing(array_values(array_intersect($lowered, $there)), $this->bench()->pick()->numbers());
    }

    public function test_what_stands_behind_other_things_goes_first_and_pictures_show_it(): void
    {
        [$eye, $target] = $this->fromOutside();
        $camera = ['eye' => $eye, 'target' => $target, 'up' => [0, 0, 1], 'fov' => 45, 'width' => 900, 'height' => 500];
        $seen = $this->proposed(['from' => 'camera', 'camera' => json_encode($camera), 'triangles' => 100_000]);
        $report = (array) $seen->report;
        self::assertLessThan(0.01, $report['loss']);
        self::assertLessThan(0.02, $report['differs']);
        self::assertGreaterThan(array_sum($report['lowered']) / 2, $report['unseen']);
        self::assertNull(((array) $this->proposed(['triangles' => 100_000])->report)['differs'], 'from everywhere there is no one picture');
        $sizes = [];
        foreach (Lightening::PICTURES as $picture) {
            $answer = $this->get($this->path("lighten/$seen->key/$picture.png"))->assertOk()->assertHeader('Content-Type', 'image/png');
            [$wide, $high] = getimagesizefromstring($answer->streamedContent()) ?: [0, 0];
            $sizes[] = [$wide, $high];
            self::assertSame(1, preg_match('~IDAT(.*)....\0\0\0\0IEND~s', $answer->streamedContent(), $found));
            $lines = str_split((string) gzuncompress($found[1]), 1 + 3 * $wide);
            self::assertCount($high, $lines);
            $middle = array_count_values(str_split(substr($lines[intdiv($high, 2)], 1), 3));
            self::assertGreaterThan(10, count($middle), 'there is something to see');
        }
        self::assertSame([[480, 267], [480, 267], [480, 267]], $sizes);
        $this->get($this->path("lighten/$seen->key/other.png"))->assertNotFound();
        $this->get($this->path("lighten/$seen->key"))
            ->assertOk()
            ->assertSee('of the picture')
            ->assertSee('mark what is lost')
            ->assertSee(number_format($report['after']['triangles']));
    }

    public function test_the_same_is_seen_wherever_in_the_world_the_model_stands(): void
    {
        $found = [];
        foreach ([self::demoFile(), self::farDemoFile()] as $path) {
            $this->project = $this->takeIn($this->ida, $path)->project ?? self::fail('not taken in');
            [$eye, $target] = $this->fromOutside();
            $report = (array) $this->proposed(['from' => 'camera', 'camera' => json_encode(compact('eye', 'target'))])->report;
            $found[] = [$report['unseen'], 100 * $report['loss']];
        }
        // So far away, places are off by a few millimetres.
        self::assertEqualsWithDelta($found[0][0], $found[1][0], 40);
        self::assertEqualsWithDelta($found[0][1], $found[1][1], 0.1);
        self::assertGreaterThan(1000, $found[0][0]);
    }

    public function test_views_are_looked_from_together(): void
    {
        [$eye, $target] = $this->fromOutside();
        $cameras = [['Outside', $eye], ['From above', [$target[0], $target[1] - 0.1, 90.0]], ['No camera', null]];
        foreach ($cameras as [$name, $from]) {
            $this->send('POST', 'views', [
                'name' => $name,
                ...$from === null ? ['keep_rungs' => 1] : ['keep_camera' => 1],
                'camera' => json_encode(['eye' => $from, 'target' => $target, 'fov' => 45]),
            ])->assertOk();
        }
        $views = DB::table('views')->where('project_id', $this->project->id)->pluck('no', 'name')->all();
        self::assertCount(3, $views, (string) json_encode($views));
        $both = $this->proposed(['from' => 'views', 'views' => $views['Outside'].','.$views['From above'], 'triangles' => 60_000]);
        $report = (array) $both->report;
        self::assertEqualsWithDelta(59_950, $report['after']['triangles'], 50);
        self::assertContains($report['pictured'], [0, 1]);
        $this->get($this->path("lighten/$both->key"))
            ->assertSee('of the pictures')
            ->assertSee(['Outside', 'From above'][$report['pictured']]);
        $this->ask(['from' => 'views', 'views' => (string) $views['No camera']])
            ->assertStatus(422)
            ->assertSee('keeps a camera');
        $this->ask(['from' => 'views', 'views' => implode(',', range(1, 13))])
            ->assertStatus(422)
            ->assertSee('At most 12 views');
    }

    public function test_what_cannot_be_done_is_said_where_it_was_asked_for(): void
    {
        $this->ask(['triangles' => 400_000])->assertOk();
        $done = $this->worked();
        $this->get($this->path("lighten/$done->key"))->assertSee('It fits as it is')->assertDontSee('data-lighten-do="apply"', false);

        $this->send('POST', 'locks', ['keys' => 'L'.$this->layer($this->project, '51 Seats'), 'lock' => 2])->assertOk();
        $this->ask(['triangles' => 3])
            ->assertStatus(422)
            ->assertSee('does not come down to 3 triangles')
            ->assertSee('locked');
        $this->ask(['triangles' => 3, 'by' => 'layers'])
            ->assertStatus(422)
            ->assertSee('Layers alone do not bring it down');
        $this->ask(['from' => 'camera', 'camera' => '{"eye":[1,2]}'])
            ->assertStatus(422)
            ->assertSee('camera could not be read');
        $this->send('POST', 'pick', ['keys' => 'L'.$this->layer($this->project, '41 Lane ropes'), 'mode' => 'replace']);
        $this->send('POST', 'isolate')->assertOk();
        $this->ask([])->assertStatus(422)->assertSee('looked at alone');
        $this->ask(['side' => 'output'])->assertOk();
    }

    public function test_odd_cameras_see_something_or_nothing_and_what_is_proposed_fits(): void
    {
        foreach (
            [
                '{"eye":[1,2,3],"target":[1,2,3]}',
                '{"eye":[0,0,50],"target":[0,0,0],"up":[0,0,0]}',
                '{"eye":[0,0,50],"target":[0,0,0],"up":[0,1,0],"tall":0.001}',
                '{"eye":[1e7,1e7,1e7],"target":[-1e7,0,0],"fov":170,"width":1,"height":20000}',
                '{"eye":[1,2,3],"target":[4,5,6],"fov":1,"width":20000,"height":1}',
            ] as $camera
        ) {
            $lightening = $this->proposed(['from' => 'camera', 'camera' => $camera]);
            self::assertSame('done', $lightening->state, $camera.$lightening->says);
            $report = (array) $lightening->report;
            self::assertLessThanOrEqual(90_000, $report['after']['triangles'], $camera);
            self::assertFinite($report['loss'], $camera);
        }
    }

    public function test_packs_that_are_lost_or_cut_are_done_without(): void
    {
        [$eye, $target] = $this->fromOutside();
        $ask = ['from' => 'camera', 'camera' => json_encode(compact('eye', 'target')), 'triangles' => 60_000];
        $packs = $this->project->packs()->orderBy('no')->pluck('file')->all();
        foreach ($packs as $at => $file) {
            $bytes = (string) Kept::get((string) $file);
            match ($at % 4) {
                0 => Kept::disk()->delete((string) $file),
                1 => Kept::put((string) $file, substr($bytes, 0, intdiv(strlen($bytes), 2))),
                2 => Kept::put((string) $file, ''),
                default => null,
            };
        }
        $lightening = $this->proposed($ask);
        self::assertSame('done', $lightening->state, $lightening->says);
        self::assertLessThanOrEqual(60_000, ((array) $lightening->report)['after']['triangles']);
    }

    public function test_it_is_stopped_fails_in_words_and_waits_for_nobody_elses(): void
    {
        $this->ask([])->assertOk()->assertSee('Waiting for a free worker')->assertSee('A first guess');
        Queue::assertPushed(Lighten::class);
        $first = Lightening::query()->firstOrFail();
        $this->post($this->path("lighten/$first->key/apply"))->assertStatus(422)->assertSee('not ready');
        $this->post($this->path("lighten/$first->key/stop"))->assertOk()->assertSee('Stopped.');
        (new Lighten($first->id))->handle();
        self::assertSame('stopped', $first->refresh()->state);
        // Who asks again has no more use for what was asked before.
        $this->ask(['triangles' => 100_000])->assertOk();
        $second = Lightening::query()->latest('id')->firstOrFail();
        $this->ask(['triangles' => 110_000])->assertOk();
        (new Lighten($second->id))->handle();
        self::assertSame('stopped', $second->refresh()->state);
        self::assertSame('done', $this->worked()->state);

        // A full disk leaves nothing half done.
        [$eye, $target] = $this->fromOutside();
        $this->ask(['from' => 'camera', 'camera' => json_encode(['eye' => $eye, 'target' => $target])])->assertOk();
        $this->roomForFiles(100);
        $failed = $this->worked();
        $this->roomForFiles(null);
        self::assertSame(['failed', null], [$failed->state, $failed->getAttributes()['proposed'] ?? null]);
        $this->get($this->path("lighten/$failed->key"))->assertSee('disk is full')->assertDontSee('data-lighten-do', false);

        // A worker that died is followed by one that starts over; one that is given up says so.
        $this->ask([])->assertOk();
        Lightening::query()
            ->latest('id')
            ->firstOrFail()
            ->update(['state' => 'running', 'percent' => 40]);
        self::assertSame('done', $this->worked()->state);
        $this->ask([])->assertOk();
        $lost = Lightening::query()->latest('id')->firstOrFail();
        (new Lighten($lost->id))->failed(null);
        self::assertStringContainsString('gave it up', $lost->refresh()->says);

        // Whoever else sees the project sees nothing of it, and may not lighten its pictures as a viewer.
        $own = $this->proposed(['side' => 'output']);
        $anton = $this->person('Anton Weber');
        $this->project->people()->attach($anton, ['role' => 'viewer']);
        $this->actingAs($anton);
        $this->get($this->path("lighten/$own->key"))->assertNotFound();
        $this->post($this->path("lighten/$own->key/apply"))->assertNotFound();
        self::assertSame('done', $this->proposed(['side' => 'output'])->state);
        $his = Lightening::query()->latest('id')->firstOrFail();
        $this->post($this->path("lighten/$his->key/apply"))->assertStatus(422)->assertSee('not yours to change');
        $desk = $this->proposed([]);
        $this->post($this->path("lighten/$desk->key/apply"))->assertOk();

        // After a while it is gone, unless it can still be given back.
        Lightening::query()->update(['created_at' => now()->subDays(40)]);
        foreach (Kept::disk()->files('lightenings') as $kept) {
            touch(Kept::disk()->path($kept), time() - 40 * 86_400);
        }
        (new Sweep)->run();
        self::assertSame([$desk->id], Lightening::query()->pluck('id')->all());
    }

    public function test_what_is_gone_by_then_is_left_out(): void
    {
        $lightening = $this->proposed(['by' => 'layers', 'side' => 'output', 'triangles' => 60_000]);
        $layers = $lightening->settings()->layers;
        self::assertNotSame([], $layers);
        foreach (array_keys($layers) as $number) {
            $this->send('DELETE', 'layers', ['keys' => "L$number"]);
            break;
        }
        $this->post($this->path("lighten/$lightening->key/apply"))->assertOk();
        $this->post($this->path("lighten/$lightening->key/back"))->assertOk();
        $desk = $this->proposed(['triangles' => 60_000]);
        $this->send('POST', 'rungs', ['keys' => 'K1', 'rung' => 0])->assertOk();
        $this->post($this->path("lighten/$desk->key/apply"))->assertOk();
        self::assertLessThanOrEqual(60_000, $this->counted($this->rungs('desk')));
    }

    public function test_models_of_other_people_never_come_out_heavier_than_was_asked_for(): void
    {
        mt_srand(20261127);
        foreach ([1, 9, 60, 120] as $round => $nodes) {
            $empty = ['asset' => ['version' => '2.0'], 'scenes' => [['nodes' => [0]]], 'nodes' => [['name' => 'Group']]];
            $file = $round === 0 ? Gltf::file($empty) : null;
            $import = $this->takeIn($this->ida, $file ?? ForeignModel::grow($nodes)->write('glb'), name: $file ? 'a.gltf' : 'a.glb');
            $this->project = $import->project ?? self::fail("not taken in: $import->error");
            $this->objects = null;
            (new Coarsen($this->project->id))->handle($this->app->make(SceneStore::class));
            $whole = $this->counted($before = $this->rungs('desk'));
            foreach ([0, 0.4] as $part) {
                foreach (['objects', 'layers'] as $by) {
                    $camera = json_encode(['eye' => [mt_rand(-9, 9), mt_rand(-9, 9), 5], 'target' => [0, 0, 0], 'up' => [0, 0, 1]]);
                    $lightening = $this->proposed(
                        ['triangles' => (int) ($part * $whole), 'by' => $by, 'from' => ['camera', 'everywhere'][$round % 2]] +
                            compact('camera'),
                    );
                    self::assertSame('done', $lightening->state, $lightening->says);
                    $report = (array) $lightening->report;
                    self::assertSame($whole, $report['before']['triangles']);
                    $this->post($this->path("lighten/$lightening->key/apply"))->assertOk();
                    $after = $this->rungs('desk');
                    self::assertSame($this->counted($after), $report['after']['triangles']);
                    self::assertLessThanOrEqual($part * $whole, $report['after']['triangles']);
                    $this->post($this->path("lighten/$lightening->key/back"))->assertOk();
                    self::assertSame($before, $this->rungs('desk'));
                }
            }
        }
    }

    public function test_scripts_lighten_and_give_back(): void
    {
        $key = $this->project->key;
        $run = static function (array $more) use ($key): array {
            $code = Artisan::call('shelf:lighten', ['project' => $key, '--json' => true] + $more);

            return [$code, json_decode(Artisan::output(), true)];
        };
        $before = $this->rungs('desk');
        [$code, $said] = $run(['--triangles' => '90000']);
        self::assertSame(0, $code);
        self::assertSame($before, $this->rungs('desk'), 'only asked');
        [, $applied] = $run(['--triangles' => '90000', '--apply' => true, '--keep' => 'layer:"51 Seats"']);
        self::assertSame($said['before'], $applied['before']);
        $after = $this->rungs('desk');
        self::assertSame($applied['after']['triangles'], $this->counted($after));
        foreach ($applied['objects'] as $number => $rung) {
            self::assertSame($rung, $after[$number]);
        }
        self::assertSame(0, $run(['--back' => true])[0]);
        self::assertSame($before, $this->rungs('desk'));
        [, $layers] = $run(['--triangles' => '90000', '--apply' => true, '--layers' => true, '--output' => true, '--boxes' => true]);
        self::assertNotSame([], $layers['rungsOfLayers']);
        self::assertLessThanOrEqual(90_000, $this->counted($this->rungs('output')));
        $missing = ['--triangles' => '9', '--view' => 'None such'];
        foreach ([['--back' => true, '--person' => 'nobody'], ['--triangles' => 'many'], $missing] as $wrong) {
            self::assertSame(2, Artisan::call('shelf:lighten', ['project' => $key] + $wrong));
        }
    }

    /** @param array<string, mixed> $values */
    private function ask(array $values): TestResponse
    {
        return $this->post($this->path('lighten'), $values + self::ASK);
    }

    /** What the queue makes of what was asked for last. */
    private function worked(): Lightening
    {
        $last = Lightening::query()->latest('id')->firstOrFail();
        (new Lighten($last->id))->handle();

        return $last->refresh();
    }

    /** @param array<string, mixed> $values */
    private function proposed(array $values): Lightening
    {
        $this->ask($values)->assertOk();

        return $this->worked();
    }

    /** @return array{list<float>, list<float>} an eye south east of the model, and its middle, from the origin of the scene */
    private function fromOutside(): array
    {
        $scene = $this->bench()->scene();
        $facts = $this->bench()->facts();
        [$x, $y, $z] = $facts->origin();
        [$least, $most] = [[INF, INF, INF], [-INF, -INF, -INF]];
        for ($row = 0; $row < $scene->count(); $row++) {
            foreach ($facts->box($row) ?? [] as $at => $edge) {
                $at < 3 ? ($least[$at] = min($least[$at], $edge)) : ($most[$at - 3] = max($most[$at - 3], $edge));
            }
        }
        $middle = [($least[0] + $most[0]) / 2 - $x, ($least[1] + $most[1]) / 2 - $y, ($least[2] + $most[2]) / 2 - $z];

        return [[$middle[0] + 60, $middle[1] - 60, $middle[2] + 25], $middle];
    }

    /** @return array<int, int> rung in effect of each part, by number */
    private function rungs(string $side): array
    {
        $bench = $this->bench();
        $rungs = $side === 'desk' ? $bench->seen()->rungs() : $bench->outputs()->of(null)->inEffect->rungs();
        $found = [];
        foreach ($this->objects() as $number => $object) {
            $found[$number] = $rungs->at($bench->scene()->row($number));
        }
        ksort($found);

        return $found;
    }

    /** @param array<int, int> $rungs @return int triangles, one object at a time */
    private function counted(array $rungs): int
    {
        $triangles = 0;
        foreach ($this->objects() as $number => $object) {
            $triangles += match (true) {
                $rungs[$number] === 0 => 0,
                $rungs[$number] === 1 => 12 * $object->times,
                $rungs[$number] < 4 => $object->times * ($object->coarse ?? $object->fine),
                default => $object->times * $object->fine,
            };
        }

        return $triangles;
    }

    /** @return array<int, object> parts with what one drawing of them has at Full and at Coarse, and how often they are drawn */
    private function objects(): array
    {
        if ($this->objects !== null) {
            return $this->objects;
        }
        $coarse = [];
        foreach (MeshVersions::all($this->bench()->scene()) as $mesh => $versions) {
            foreach ($versions as $version) {
                if ($version['coarse']) {
                    $coarse[$mesh] = $version['triangles'];
                }
            }
        }
        $this->objects = [];
        $rows = DB::select(
            'select o.no, o.mesh_no, o.triangles, m.triangles as fine from objects o '.
                'join meshes m on m.project_id = o.project_id and m.no = o.mesh_no where o.project_id = ? order by o.no',
            [$this->project->id],
        );
        foreach ($rows as $row) {
            $row->coarse = $coarse[$row->mesh_no] ?? null;
            $row->times = $row->fine > 0 ? intdiv($row->triangles, $row->fine) : 1;
            $this->objects[$row->no] = $row;
        }

        return $this->objects;
    }
}
