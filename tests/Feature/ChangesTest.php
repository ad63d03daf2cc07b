<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\Desk;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\Core\Support\Gltf;

final class ChangesTest extends ProjectTestCase
{
    public function test_a_layer_from_the_pick_takes_what_is_picked_and_what_that_holds(): void
    {
        $bank = (int) $this->project->objects()->where('name', 'Bank 2')->value('no');
        $this->send('POST', 'pick', ['keys' => "O$bank", 'mode' => 'replace'])
            ->assertSee('Bank 2')
            ->assertSee('holding 80 more');
        $this->send('POST', 'layers', ['name' => 'Second bank', 'from_pick' => 1])->assertSee('Create layer Second bank from 81 objects.');

        self::assertSame(81, $this->filed('Second bank'));
        self::assertSame(331 - 81, $this->filed('61 Lockers'));
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'undo')->assertSee('Undone: Create layer Second bank from 81 objects.');
        self::assertSame([0, 331], [$this->layer($this->project, 'Second bank'), $this->filed('61 Lockers')]);
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'redo')->assertSee('Redone: Create layer Second bank');
        self::assertSame(81, $this->filed('Second bank'));
        $this->assertIndexTrue($this->project);
    }

    public function test_layers_are_renamed_coloured_and_refuse_what_is_wrong(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('PATCH', "rows/L$seats", ['name' => '  Seats   of the stand '])->assertSee(
            'Rename layer 51 Seats to Seats of the stand.',
        );
        $this->send('PATCH', "rows/L$seats", ['colour' => '#AA00ff']);
        self::assertSame(
            ['Seats of the stand', '#aa00ff'],
            array_values(
                (array) DB::table('layers')
                    ->where('project_id', $this->project->id)
                    ->where('no', $seats)
                    ->first(['name', 'colour']),
            ),
        );
        $this->send('PATCH', "rows/L$seats", ['name' => ''])
            ->assertStatus(422)
            ->assertSee('A layer needs a name.');
        $this->send('PATCH', "rows/L$seats", ['name' => '50 STANDS'])
            ->assertStatus(422)
            ->assertSee('There is a layer &quot;50 Stands&quot; here already', false);
        $this->send('PATCH', "rows/L$seats", ['colour' => 'red'])
            ->assertStatus(422)
            ->assertSee('A colour is written as # and six digits');
        $this->send('PATCH', 'rows/L1', ['name' => 'Rest'])
            ->assertStatus(422)
            ->assertSee('Unsorted keeps its name.');
        $this->send('PATCH', 'rows/L999', ['name' => 'Rest'])
            ->assertStatus(422)
            ->assertSee('That row is no longer there.');
        $this->send('POST', 'undo');
        $this->send('POST', 'undo')->assertSee('Undone: Rename layer');
        self::assertSame($seats, $this->layer($this->project, '51 Seats'));
    }

    public function test_deleting_a_layer_says_where_its_objects_go(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $stands = $this->layer($this->project, '50 Stands');
        $this->get("/projects/{$this->project->key}/layers/$seats/delete")
            ->assertOk()
            ->assertSee('253 objects are filed under it')
            ->assertSee('to Unsorted')
            ->assertSee('50 Stands');
        $this->send('DELETE', "layers/$seats", ['target' => $stands])->assertSee('Delete layer 51 Seats.');
        self::assertSame([0, 260], [$this->layer($this->project, '51 Seats'), $this->filed('50 Stands')]);
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'undo');
        self::assertSame([253, 7], [$this->filed('51 Seats'), $this->filed('50 Stands')]);
        $this->send('DELETE', "layers/$seats", ['target' => 'delete'])->assertSee('Delete layer 51 Seats and 253 objects.');
        self::assertSame(3197 - 253, $this->project->objects()->where('gone', false)->count());
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'undo');
        self::assertSame([3197, 253], [$this->project->objects()->where('gone', false)->count(), $this->filed('51 Seats')]);
        $this->assertIndexTrue($this->project);
        $this->send('DELETE', 'layers/1', ['target' => 2])
            ->assertStatus(422)
            ->assertSee('Unsorted is always there');
        $this->send('DELETE', "layers/$seats", ['target' => $seats])
            ->assertStatus(422)
            ->assertSee('Choose another layer');
    }

    public function test_locked_objects_are_left_alone_and_counted(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $block = (int) $this->project->objects()->where('name', 'Block West')->value('no');
        $this->send('POST', 'locks', ['keys' => "O$block", 'lock' => 2])->assertSee('Lock 1 object.');
        $this->send('POST', 'pick', ['keys' => "L$seats", 'mode' => 'replace']);
        $this->send('POST', 'file', ['layer' => $this->layer($this->project, '50 Stands')])->assertSee(
            'File 127 objects under 50 Stands. 126 locked objects were left alone.',
        );
        self::assertSame(126, $this->filed('51 Seats'));
        $this->send('POST', 'rungs', ['on' => 'pick', 'rung' => 0])->assertSee('126 locked objects were left alone');
        $this->send('PATCH', "objects/$block", ['name' => 'Other'])
            ->assertStatus(422)
            ->assertSee('Block West is locked; open it first.');
        $this->send('DELETE', "layers/$seats", ['target' => 1])
            ->assertStatus(422)
            ->assertSee('51 Seats holds 126 locked objects; open them first.');
        $this->send('POST', 'locks', ['keys' => "L$seats", 'lock' => 2]);
        $this->send('PATCH', "rows/L$seats", ['name' => 'Other'])
            ->assertStatus(422)
            ->assertSee('51 Seats is locked');
        $this->assertIndexTrue($this->project);
    }

    public function test_an_object_is_renamed_and_found_by_its_new_name(): void
    {
        $seat = (int) $this->project->objects()->where('name', 'Seat_Shell_017')->value('no');
        $this->send('PATCH', "objects/$seat", ['name' => 'Seat of honour'])->assertSee('Rename Seat_Shell_017 to Seat of honour.');
        $this->get("/projects/{$this->project->key}/ledger?lens=layers&words=HONOUR&from=0&count=20")
            ->assertSee('data-hits="1"', false)
            ->assertSee('Seat of honour');
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'undo');
        $this->get("/projects/{$this->project->key}/ledger?lens=layers&words=honour&from=0&count=20")->assertSee('Nothing here fits');
    }

    public function test_after_random_changes_and_undos_database_and_index_agree(): void
    {
        mt_srand(17);
        $layers = fn (): array => $this->project->layers()->orderBy('no')->pluck('no')->all();
        for ($step = 0; $step < 60; $step++) {
            $some = $layers();
            $one = $some[mt_rand(0, count($some) - 1)];
            $other = $some[mt_rand(0, count($some) - 1)];
            $first = mt_rand(1, 3190);
            $keys = implode(',', array_map(static fn (int $number): string => "O$number", range($first, $first + mt_rand(0, 6))));
            match (mt_rand(0, 10)) {
                9 => $this->send('PATCH', "objects/$first", ['name' => ["New <b>$step</b>", 'Ölfilter', "same\tname"][mt_rand(0, 2)]]),
                10 => [
                    $this->send('POST', 'pick', ['keys' => $keys, 'mode' => 'replace']),
                    $this->send('POST', 'rename', ['pattern' => ['{layer} {number}', '{name}x', 'é {kind}'][mt_rand(0, 2)]]),
                ],
                0, 1, 2 => $this->send('POST', 'file', ['layer' => $one, 'keys' => $keys, 'with_held' => mt_rand(0, 1)]),
                3 => $this->send('POST', 'locks', ['keys' => $keys, 'lock' => mt_rand(0, 1)]),
                4 => $this->send('POST', 'layers', ['name' => "New $step", 'parent' => mt_rand(0, 1) === 0 ? $one : 0]),
                5 => $this->send('DELETE', "layers/$one", ['target' => mt_rand(0, 5) === 0 ? 'delete' : $other]),
                6 => $this->send('POST', 'redo'),
                default => $this->send('POST', 'undo'),
            };
            if ($step % 5 === 4) {
                $this->assertIndexTrue($this->project);
                $drawn = app(\App\Scenes\SceneStore::class)->scene($this->project->refresh());
                self::assertSame(
                    (int) $this->project->objects()->where('gone', false)->sum('triangles'),
                    $drawn->triangles(1, $drawn->count()),
                );
            }
        }
        while ($this->project->changes()->where('undone', false)->count() > 1) {
            $this->send('POST', 'undo')->assertSee('Undone:');
        }
        self::assertSame(
            [38, 3197, 253],
            [count($layers()), $this->project->objects()->where('gone', false)->count(), $this->filed('51 Seats')],
        );
        $this->assertIndexTrue($this->project);
    }

    public function test_another_persons_change_arrives_with_the_next_pulse(): void
    {
        $editor = $this->person('Vera Moss');
        $this->project->people()->attach($editor, ['role' => 'editor']);
        $revision = $this->project->refresh()->revision;
        $this->get("/projects/{$this->project->key}");
        $desk = (int) DB::table('desks')->where('user_id', $this->ida->id)->value('revision');
        $this->get("/projects/{$this->project->key}/pulse?revision=$revision&desk=$desk")->assertNoContent();
        $this->actingAs($editor);
        $this->send('POST', 'layers', ['name' => 'From Vera'])->assertOk();
        $this->send('POST', 'rungs', ['keys' => 'L2', 'rung' => 0]);
        $this->actingAs($this->ida)
            ->get("/projects/{$this->project->key}/pulse?revision=$revision&desk=$desk&lens=layers&from=0&count=60")
            ->assertOk()
            ->assertSee('From Vera');
        self::assertSame([], Desk::of($this->project, $this->ida)->settings()->layers, 'a desk is a person\'s own');
    }

    public function test_edits_in_a_project_from_another_source_keep_their_numbers(): void
    {
        $gltf = Gltf::triangle();
        $this->takeIn($this->ida, Gltf::file($gltf), name: 'pane.gltf', into: $this->project);
        $roof = $this->layer($this->project, '20 Roof');
        $this->send('DELETE', "layers/$roof", ['target' => 'delete'])->assertOk();
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'pick', ['keys' => 'O3198', 'mode' => 'replace'])->assertSee('Pane');
        $state = (string) $this->send('POST', 'rungs', ['on' => 'pick', 'rung' => 2])->getContent();
        self::assertSame(1, preg_match('~data-states="([^"]+)"~', $state, $found));
        $states = (string) gzinflate((string) base64_decode($found[1], true));
        self::assertSame([3199, 2], [strlen($states), ord($states[3198]) & 15]);
        $gone = (int) $this->project->objects()->where('gone', true)->value('no');
        self::assertSame(0, ord($states[$gone]) & 15, 'what is gone is not drawn');
    }

    /**
     * @param array<string, mixed> $values
     *
     * @return TestResponse<\Illuminate\Http\Response>
     */
    private function filed(string $layer): int
    {
        return $this->project->objects()->where('layer_no', $this->layer($this->project, $layer))->where('gone', false)->count();
    }
}
