<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Workbench\PickCard;
use VineShelf\Picking\Reach;
use VineShelf\Rungs\Rung;
use VineShelf\Tint\TintBy;

/** Regions, reach, parked picks, isolation, tints, cameras, and new names for many. */
final class PickTest extends ProjectTestCase
{
    public function test_a_region_catches_what_is_shown_and_open_and_a_count_changes_nothing(): void
    {
        $all = $this->region('rectangle', [[-9000, -9000], [9000, 9000]]);
        $count = (int) $this->post($this->path('pick/region'), ['region' => $all, 'count' => 1])
            ->assertOk()
            ->json('count');
        self::assertSame((int) $this->bench()->find('has geometry')->rows?->count(), $count);
        self::assertSame(0, $this->bench()->pick()->count());
        $this->send('POST', 'rungs', ['keys' => 'L'.$this->layer($this->project, '51 Seats'), 'rung' => 0]);
        $this->send('POST', 'locks', ['keys' => 'L'.$this->layer($this->project, '91 Planting'), 'lock' => 1]);
        $this->send('POST', 'pick/region', ['region' => $all, 'mode' => 'replace'])->assertSee('caught.');
        $bench = $this->bench();
        self::assertSame((int) $bench->find('has geometry is shown is open')->rows?->count(), $bench->pick()->count());
        self::assertSame(0, $bench->find('is picked (layer:Seats or layer:Planting)')->rows?->count());
        $this->send('POST', 'pick/region', ['region' => $this->region('circle', [[400, 300], [430, 300]]), 'mode' => 'remove'])->assertSee(
            'caught and taken away.',
        );
        $fewer = $this->bench()->pick()->count();
        self::assertLessThan($bench->pick()->count(), $fewer);
        $this->send('POST', 'pick/region', ['region' => $this->region('lasso', [[1, 1], [4, 1], [2, 4]]), 'mode' => 'replace'])->assertSee(
            'The region caught nothing',
        );
    }

    public function test_fully_inside_is_part_of_touching_and_every_shape_catches_something(): void
    {
        foreach (
            [
                'rectangle' => [[300, 200], [560, 420]],
                'circle' => [[400, 320], [520, 320]],
                'polygon' => [[250, 200], [600, 240], [420, 480]],
                'lasso' => [[250, 200], [400, 180], [600, 300], [380, 460]],
                'brush' => [[250, 300], [420, 320], [560, 300]],
            ] as $shape => $points
        ) {
            $caught = [];
            foreach ([false, true] as $inside) {
                $this->send('POST', 'pick/region', ['region' => $this->region($shape, $points, $inside), 'mode' => 'replace'])->assertOk();
                $caught[] = $this->bench()->pick()->numbers();
            }
            self::assertNotSame([], $caught[0], $shape);
            self::assertSame([], array_diff($caught[1], $caught[0]), $shape);
            self::assertLessThan(count($caught[0]), count($caught[1]), $shape);
        }
    }

    public function test_a_region_that_makes_no_sense_is_refused_and_leaves_the_pick(): void
    {
        $this->send('POST', 'pick', ['keys' => 'O500', 'mode' => 'replace']);
        foreach (
            [
                '',
                '[]',
                '{"shape":"star"}',
                str_replace('"fov":40', '"fov":400', $this->region('circle', [[1, 1], [2, 2]])),
                str_replace('"points":[[1,1],[2,2]]', '"points":[["a",1]]', $this->region('circle', [[1, 1], [2, 2]])),
                str_replace('"width":800', '"width":1e99', $this->region('circle', [[1, 1], [2, 2]])),
            ] as $bad
        ) {
            $this->postJson($this->path('pick/region'), ['region' => $bad, 'mode' => 'replace'])->assertStatus(422);
        }
        self::assertSame([500], $this->bench()->pick()->numbers());
        // Degenerate shapes and cameras catch nothing or little, and break nothing.
        foreach (
            [
                ['polygon', [[5, 5]]],
                ['brush', [[400, 300]]],
                ['lasso', [[400, 300], [400, 300], [400, 300]]],
                ['rectangle', [[400, 300], [400, 300]]],
            ] as [$shape, $points]
        ) {
            $this->post($this->path('pick/region'), ['region' => $this->region($shape, $points), 'count' => 1])->assertOk();
        }
        $this->post($this->path('pick/region'), [
            'region' => str_replace('"target":[0,0,1]', '"target":[40,-50,30]', $this->region('brush', [[400, 300]])),
            'count' => 1,
        ])->assertOk();
    }

    public function test_reach_says_what_it_did_and_can_go_on(): void
    {
        $this->send('POST', 'pick/reach', ['way' => 'mesh'])
            ->assertStatus(422)
            ->assertSee('Nothing is picked');
        $this->send('POST', 'pick', ['keys' => 'O'.$this->number('Seat_Shell_017'), 'mode' => 'replace']);
        $this->send('POST', 'pick/reach', ['way' => 'mesh'])->assertSee('1 → 220, same mesh.');
        $this->send('POST', 'pick/reach', ['way' => 'mesh'])->assertSee('220 → 220, same mesh: nothing more to reach.');
        $this->send('POST', 'pick/reach', ['way' => 'up'])->assertSee('220 → 10, one up.');
        $this->send('POST', 'pick/reach', ['way' => 'top'])->assertSee('10 → 1, up to the top.');
        $this->get($this->path('pick/reach'))->assertOk()->assertSee('Reach from 1 picked')->assertSee('Same size');
        $this->send('POST', 'pick', ['keys' => 'O'.$this->number('Seat_Shell_017'), 'mode' => 'replace']);
        $this->send('POST', 'pick/reach', ['way' => 'properties', 'property' => 'AISLE'])->assertSee('same aisle');
        $this->send('POST', 'pick/reach', ['way' => 'properties', 'property' => 'unheard of'])
            ->assertStatus(422)
            ->assertSee('No file has a property');
        $this->send('POST', 'pick/reach', ['way' => 'sideways'])->assertStatus(422);
        foreach (Reach::cases() as $reach) {
            $this->send('POST', 'pick', ['keys' => 'O'.$this->number('Seat_Shell_017'), 'mode' => 'replace']);
            $this->send('POST', 'pick/reach', ['way' => $reach->value])
                ->assertOk()
                ->assertSee('1 → ');
        }
    }

    public function test_picks_are_parked_in_nine_slots_of_ones_own(): void
    {
        $this->send('POST', 'parked/3')->assertStatus(422)->assertSee('nothing to park');
        $this->send('POST', 'pick', ['found' => 1, 'mode' => 'replace', 'words' => 'lifering']);
        $this->send('POST', 'parked/3')->assertSee('4 parked in slot 3.')->assertSee('data-count="4"', false);
        $this->send('POST', 'pick', ['keys' => 'O500', 'mode' => 'replace']);
        $this->send('POST', 'parked/9');
        $this->send('POST', 'parked/3/recall', ['mode' => 'add'])->assertSee('Slot 3: 4 picked.');
        self::assertSame(5, $this->bench()->pick()->count());
        $this->send('POST', 'parked/3/recall', ['mode' => 'replace']);
        self::assertSame(4, $this->bench()->pick()->count());
        $this->send('POST', 'parked/3', ['clear' => 1])->assertSee('Slot 3 is empty.');
        $this->send('POST', 'parked/3/recall', ['mode' => 'replace'])
            ->assertStatus(422)
            ->assertSee('Nothing is parked in slot 3');
        self::assertSame(4, $this->bench()->pick()->count(), 'the pick stays');
        $this->send('POST', 'parked/10')->assertNotFound();
        $vera = $this->person('Vera Moss');
        $this->project->people()->attach($vera, ['role' => 'viewer']);
        $this->actingAs($vera)
            ->post($this->path('parked/9/recall'), ['mode' => 'replace'])
            ->assertStatus(422);
    }

    public function test_after_many_steps_the_pick_and_the_slots_are_what_plain_sets_say(): void
    {
        mt_srand(23);
        $bench = $this->bench();
        $layers = array_map(static fn (array $entry): int => $entry[0]->number, $bench->layers()->walk());
        $filed = $this->project->objects()->pluck('layer_no', 'no')->all();
        $parents = $this->project->layers()->pluck('parent_no', 'no')->all();
        $in = static function (int $layer) use ($filed, $parents): array {
            $with = [$layer];
            for ($at = 0; $at < count($with); $at++) {
                array_push($with, ...array_keys($parents, $with[$at], true));
            }

            return array_keys(array_filter($filed, static fn (int $home): bool => in_array($home, $with, true)));
        };
        /** @var list<int> $pick */
        $pick = [];
        /** @var array<int, list<int>> $slots */
        $slots = [];
        for ($step = 0; $step < 70; $step++) {
            $mode = ['replace', 'add', 'remove', 'toggle'][mt_rand(0, 3)];
            $slot = mt_rand(1, 3);
            $values = null;
            switch (mt_rand(0, 6)) {
                case 0:
                case 1:
                    $objects = array_map(static fn (): int => mt_rand(1, 3197), range(1, mt_rand(1, 9)));
                    $values = ['keys' => implode(',', array_map(static fn (int $number): string => "O$number", $objects))];
                    break;
                case 2:
                    $layer = $layers[array_rand($layers)];
                    $objects = $in($layer);
                    $values = ['keys' => "L$layer"];
                    break;
                case 3:
                    $words = ['seat_shell_1', 'kind:light', 'triangles > 500', 'layer:Glazing kind:part'][mt_rand(0, 3)];
                    $objects = $bench->scene()->numbersIn($bench->find($words)->rows?->ranges() ?? []);
                    $values = ['found' => 1, 'words' => $words];
                    break;
                case 4:
                    $this->send('POST', "parked/$slot")->assertStatus($pick === [] ? 422 : 200);
                    if ($pick !== []) {
                        $slots[$slot] = $pick;
                    }
                    break;
                default:
                    $mode = ['replace', 'add', 'remove'][mt_rand(0, 2)];
                    $this->send('POST', "parked/$slot/recall", ['mode' => $mode])->assertStatus(isset($slots[$slot]) ? 200 : 422);
                    $pick = isset($slots[$slot]) ? self::joined($pick, $slots[$slot], $mode) : $pick;
            }
            if ($values !== null) {
                $this->send('POST', 'pick', $values + ['mode' => $mode])->assertOk();
                $pick = self::joined($pick, $objects ?? [], $mode);
            }
            sort($pick);
            $kept = $this->bench()->pick()->numbers();
            sort($kept);
            self::assertSame($pick, $kept, "step $step, $mode");
        }
        foreach ($slots as $slot => $numbers) {
            self::assertSame(count($numbers), $this->bench()->parked()->pick($slot)->count());
        }
    }

    /**
     * @param list<int> $pick
     * @param list<int> $objects
     *
     * @return list<int>
     */
    private static function joined(array $pick, array $objects, string $mode): array
    {
        $objects = array_values(array_unique($objects));

        return match ($mode) {
            'add' => array_values(array_unique([...$pick, ...$objects])),
            'remove' => array_values(array_diff($pick, $objects)),
            'toggle' => array_diff($objects, $pick) === []
                ? array_values(array_diff($pick, $objects))
                : array_values(array_unique([...$pick, ...$objects])),
            default => $objects,
        };
    }

    public function test_isolating_goes_deeper_and_back_and_changes_nothing_else(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0]);
        $settings = $this->bench()->settings();
        $this->send('POST', 'isolate')->assertStatus(422)->assertSee('nothing to look at alone');
        $this->send('POST', 'isolate', ['keys' => "L$seats", 'rest' => 'ghost'])
            ->assertSee('253 isolated; the rest is at most a ghost.')
            ->assertSee('Rest: ghost');
        $bench = $this->bench();
        self::assertSame(253, $bench->find('is full')->rows?->count(), 'lifted whatever holds it down');
        self::assertSame(3197 - 253, $bench->find('is ghost')->rows?->count());
        $this->send('POST', 'pick', ['found' => 1, 'mode' => 'replace', 'words' => 'seat_shell_00?']);
        $this->send('POST', 'isolate')->assertSee('9 isolated; the rest is hidden.')->assertSee('step 2');
        $seat = $this->number('Seat_Shell_001');
        $other = $this->number('Seat_Shell_100');
        $this->get($this->path("why/$seat"))->assertSee('Seat_Shell_001 is drawn in full because it is isolated');
        $this->get($this->path("why/$other"))
            ->assertSee('Seat_Shell_100 is hidden because something else is isolated')
            ->assertSee('End the isolation');
        $this->send('POST', 'isolate/back', ['rest' => 'ghost']);
        self::assertSame(Rung::Ghost, $this->bench()->isolation()->rest());
        $this->send('POST', 'isolate/back')->assertSee('One step back: 253 isolated.');
        $this->send('POST', "why/$other", ['what' => 'object', 'number' => $other])->assertOk();
        $this->send('POST', 'isolate/back')->assertSee('Everything is back as it was.');
        self::assertTrue($settings->same($this->bench()->settings()));
        $this->send('POST', 'isolate/back')->assertSee('Nothing is isolated.');
        $this->send('POST', 'isolate', ['found' => 1, 'words' => 'lifering']);
        $this->send('POST', 'why/'.$other, ['what' => 'isolation', 'number' => 0]);
        self::assertFalse($this->bench()->isolation()->isOn(), 'why mends it');
        $this->send('POST', 'isolate', ['keys' => 'O500']);
        $this->send('POST', 'views', ['name' => 'Hall', 'keep_rungs' => 1]);
        $this->send('POST', 'views/1/apply');
        self::assertTrue($this->bench()->isolation()->isOn(), 'a view leaves alone what it does not keep');
        $this->send('POST', 'isolate/back', ['all' => 1]);
        $this->send('POST', 'views', ['name' => 'All', 'keep_rungs' => 1, 'keep_isolation' => 1]);
        $this->send('POST', 'isolate', ['keys' => 'O500']);
        $this->send('POST', 'views/2/apply');
        self::assertFalse($this->bench()->isolation()->isOn(), 'a view that keeps that nothing is isolated ends it');
        $this->send('POST', 'desk/undo')->assertSee('Taken back');
        self::assertTrue($this->bench()->isolation()->isOn(), 'and that is taken back with it');
    }

    public function test_tints_colour_what_is_drawn_and_their_legend_picks(): void
    {
        $codes = function (): string {
            return (string) gzinflate(
                (string) base64_decode((string) $this->getJson($this->path('tint'))->assertOk()->json('codes'), true),
            );
        };
        self::assertStringContainsString('data-tint=""', (string) $this->send('POST', 'tint', ['by' => 'own'])->getContent());
        // What is compared is chosen where it is compared.
        $this->send('POST', 'tint', ['by' => TintBy::Compare->value])->assertStatus(302);
        foreach (array_filter(TintBy::cases(), static fn (TintBy $by): bool => $by !== TintBy::Compare) as $by) {
            $this->send('POST', 'tint', ['by' => $by->value])->assertOk();
            $entries = $this->getJson($this->path('tint'))->json('entries');
            $coloured = array_filter((array) unpack('v*', $codes()));
            self::assertSame(
                $by === TintBy::Own ? 0 : (int) $this->bench()->find('has geometry')->rows?->count(),
                count($coloured),
                $by->value,
            );
            self::assertSame(count($coloured), array_sum(array_column($entries, 'objects')));
            foreach ($entries as $index => $entry) {
                self::assertMatchesRegularExpression('~^#[0-9a-f]{6}$~', $entry['colour']);
                if ($index < 3) {
                    $this->send('POST', 'tint/pick', ['entry' => $index, 'mode' => 'replace']);
                    self::assertSame($entry['objects'], $this->bench()->pick()->count(), "{$by->value} $index");
                }
            }
        }
        $before = $codes();
        $this->send('POST', 'tint', ['by' => 'shuffle']);
        self::assertNotSame($before, $codes(), 'another shuffle');
        $this->send('POST', 'pick', ['keys' => 'L'.$this->layer($this->project, '51 Seats'), 'mode' => 'replace']);
        $this->send('POST', 'tint', ['by' => 'shuffle', 'pick' => 1]);
        self::assertCount(240, array_filter((array) unpack('v*', $codes())), 'only the pick');
        $this->send('POST', 'tint', ['by' => 'layer']);
        $this->send('POST', 'tint/pick', ['entry' => 9999, 'mode' => 'replace'])
            ->assertStatus(422)
            ->assertSee('no longer in the legend');
        self::assertSame(1, $this->project->changes()->count(), 'tints never change the project');
    }

    public function test_the_models_cameras_are_there_to_look_through_and_floors_to_stand_on(): void
    {
        $cameras = $this->getJson($this->path('cameras'))->assertOk()->json();
        $places = array_column($cameras, 'eye', 'name');
        self::assertEqualsWithDelta([34.0, -30.0, 20.0], $places['Hall from the south east'] ?? null, 1e-3);
        self::assertEqualsWithDelta([13.0, -10.0, 1.8], $places['Cafe corner'] ?? null, 1e-3);
        foreach ($cameras as $camera) {
            self::assertEqualsWithDelta(1.0, hypot(hypot(...array_slice($camera['way'], 0, 2)), $camera['way'][2]), 1e-6);
            self::assertGreaterThan(5, $camera['fov']);
            self::assertLessThan(-0.01, $camera['way'][2], 'they look down a little');
        }
        $met = $this->post($this->path('pick/meet'), ['from' => [0, 0, 80], 'way' => [0, 0, -1]])
            ->assertOk()
            ->json();
        self::assertNotSame(0, $met['object']);
        self::assertGreaterThan(5, $met['at'][2], 'from above, the roof');
        $above = array_map(fn (string $name): string => 'L'.$this->layer($this->project, $name), [
            '10 Structure',
            '12 Steel',
            '20 Roof',
            '21 Roof skin',
            '30 Glazing',
            '95 Lights',
        ]);
        $this->send('POST', 'rungs', ['keys' => implode(',', $above), 'rung' => 0]);
        $through = $this->post($this->path('pick/meet'), ['from' => [0, 0, 80], 'way' => [0, 0, -1]])->json();
        self::assertLessThan($met['at'][2], $through['at'][2], 'through what is hidden');
        self::assertSame(['object' => 0], $this->post($this->path('pick/meet'), ['from' => [0, 0, 80], 'way' => [0, 0, 1]])->json());
        $this->postJson($this->path('pick/meet'), ['from' => [0, 0], 'way' => 'up'])->assertStatus(422);
    }

    public function test_many_objects_get_new_names_in_one_change_that_is_taken_back_in_one(): void
    {
        $this->send('POST', 'rename', ['pattern' => 'x'])
            ->assertStatus(422)
            ->assertSee('Nothing is picked');
        $before = $this->project->objects()->orderBy('no')->pluck('name', 'no')->all();
        $this->send('POST', 'pick', ['found' => 1, 'mode' => 'replace', 'words' => 'seat_shell kind:part']);
        $this->get($this->path('rename'))->assertOk()->assertSee('Rename 240 picked');
        $how = ['pattern' => '{parent}-{number}', 'start' => '5', 'step' => '5', 'digits' => '4', 'suffix' => ' ö'];
        $this->post($this->path('rename/preview'), $how)
            ->assertOk()
            ->assertSee("240 of 240 get\n another name.")
            ->assertSee('Row A-0005 ö')
            ->assertDontSee('clash');
        self::assertSame($before, $this->project->objects()->orderBy('no')->pluck('name', 'no')->all(), 'looking changes nothing');
        $this->send('POST', 'rename', $how)->assertSee('Rename 240 objects.');
        self::assertSame(
            'Row A-0005 ö',
            $this->project
                ->objects()
                ->where('no', $this->bench()->pick()->numbers()[0])
                ->value('name'),
        );
        self::assertSame(
            240,
            $this->bench()->find('"-*ö"')->rows?->count() ?: $this->bench()->find('*-????\ ö or *-????*ö')->rows?->count(),
        );
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'undo')->assertSee('Undone: Rename 240 objects.');
        self::assertSame($before, $this->project->objects()->orderBy('no')->pluck('name', 'no')->all());
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'redo');
        $this->assertIndexTrue($this->project);
    }

    public function test_clashes_are_marked_locked_names_left_alone_and_bad_fields_refused(): void
    {
        $this->send('POST', 'pick', ['found' => 1, 'mode' => 'replace', 'words' => 'seat_shell_00?']);
        $this->send('POST', 'locks', ['keys' => 'O'.$this->number('Seat_Shell_003'), 'lock' => 2]);
        $this->post($this->path('rename/preview'), ['pattern' => 'Same'])
            ->assertSee("8 of 9 get\n another name.")
            ->assertSee("8 would be called like another object beside\n them.")
            ->assertSee('1 locked object was left alone.');
        $this->post($this->path('rename/preview'), ['find' => 'nothing here', 'replace' => 'x'])->assertSee('Every name stays as it is.');
        foreach ([['start', 'one'], ['digits', '12'], ['step', '1e9'], ['pattern', str_repeat('x', 300)]] as [$field, $value]) {
            $this->post($this->path('rename/preview'), [$field => $value, 'pattern' => $field === 'pattern' ? $value : '{number}'])
                ->assertStatus(422)
                ->assertSee("data-field=\"$field\"", false);
        }
        $this->send('POST', 'rename', ['find' => 'Seat_Shell_00?', 'replace' => '<u>$1</u>'])
            ->assertSee('Rename 8 objects.')
            ->assertSee('1 locked object was left alone.')
            ->assertDontSee('<u>1</u>', false);
        self::assertSame(
            '<u>1</u>',
            $this->project
                ->objects()
                ->where('no', $this->bench()->pick()->numbers()[0])
                ->value('name'),
        );
        self::assertSame('Seat_Shell_003', $this->project->objects()->where('no', $this->number('Seat_Shell_003'))->value('name'));
        $vera = $this->person('Vera Moss');
        $this->project->people()->attach($vera, ['role' => 'viewer']);
        $this->actingAs($vera)
            ->post($this->path('rename'), ['pattern' => 'mine'])
            ->assertNotFound();
    }

    public function test_the_index_is_ripened_after_an_import_and_says_the_same_as_before(): void
    {
        $import = $this->takeIn($this->ida, self::demoFile());
        $this->project = $import->project ?? self::fail('The demo was not taken in.');
        \Illuminate\Support\Facades\Queue::assertPushed(
            \App\Jobs\Ripen::class,
            fn (\App\Jobs\Ripen $job): bool => $job->projectId === $import->project_id,
        );
        $rule = 'kind:part width > 1m triangles >= 12 material:oak or "fire rating":EI30';
        $before = $this->bench()->find($rule)->rows?->rows();
        (new \App\Jobs\Ripen($this->project->id))->handle($this->app->make(\App\Scenes\SceneStore::class));
        $counted = (string) \Illuminate\Support\Facades\DB::scalar(
            "SELECT most_common_vals FROM pg_stats WHERE tablename = 'objects' AND attname = 'project_id'",
        );
        self::assertContains(
            (string) $this->project->id,
            explode(',', trim($counted, '{}')),
            'the database knows how many objects the project has',
        );
        self::assertSame($before, $this->bench()->find($rule)->rows?->rows());
        self::assertNotSame([], $before);
        (new \App\Jobs\Ripen(987_654))->handle($this->app->make(\App\Scenes\SceneStore::class));
        self::assertNull(PickCard::of($this->bench()));
    }

    /** @param list<array{int, int}> $points */
    private function region(string $shape, array $points, bool $inside = false): string
    {
        return (string) json_encode([
            'shape' => $shape,
            'inside' => $inside,
            'points' => $points,
            'radius' => 20,
            'width' => 800,
            'height' => 600,
            'eye' => [40, -50, 30],
            'target' => [0, 0, 1],
            'up' => [0, 0, 1],
            'fov' => 40,
            'near' => 0.05,
        ]);
    }
}
