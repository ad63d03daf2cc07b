<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Models\User;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\Core\Support\Gltf;
use VineShelf\Layers\SortBy;
use VineShelf\Scene\Bits;

/** Changes are taken back by name and by whom, and never pull away what something else stands on. */
final class HistoryTest extends ProjectTestCase
{
    private User $bea;

    protected function setUp(): void
    {
        parent::setUp();
        $this->bea = $this->person('Bea Lind');
        $this->project->people()->attach($this->bea, ['role' => 'editor']);
    }

    public function test_taking_in_a_source_is_a_change_like_any_other(): void
    {
        $this->send('POST', 'layers', ['name' => 'Nursery']);
        $nursery = $this->layer($this->project, 'Nursery');
        $this->takeIn($this->ida, $this->pane(['layer' => 'nursery']), SortBy::Property, 'pane.gltf', $this->project);
        self::assertSame(
            $nursery,
            (int) $this->project->objects()->where('no', 3198)->value('layer_no'),
            'the layer that is there already, whatever the case',
        );

        $this->send('POST', 'undo')->assertOk()->assertSee('Undone: Take in pane.gltf.');
        self::assertSame(
            [3197, 1],
            [
                $this->bench()->scene()->count(),
                $this->bench()->facts()->sourceNames() === [] ? 0 : count($this->bench()->facts()->sourceNames()),
            ],
        );
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'undo')->assertSee('Undone: Create layer Nursery.');
        $this->get($this->path('ledger?lens=sources&from=0&count=20'))->assertOk()->assertDontSee('pane.gltf');
        $this->send('POST', 'redo')->assertSee('Redone: Create layer Nursery.');
        $this->send('POST', 'redo')->assertSee('Redone: Take in pane.gltf.');
        self::assertSame(3198, $this->bench()->scene()->count());
        self::assertSame(
            $nursery,
            $this->bench()
                ->scene()
                ->layers()
                ->at($this->bench()->scene()->row(3198)),
        );
        $this->assertIndexTrue($this->project);
    }

    public function test_a_take_in_takes_the_layers_back_that_it_made_and_everything_can_be_undone_to_an_empty_project(): void
    {
        $this->takeIn($this->ida, $this->pane(['layer' => 'Brand new']), SortBy::Property, 'pane.gltf', $this->project);
        self::assertNotSame(0, $this->layer($this->project, 'Brand new'));
        $this->send('POST', 'undo');
        self::assertSame(0, $this->layer($this->project, 'Brand new'));
        $this->send('POST', 'undo')->assertSee('Undone: Take in Marlpit Baths.glb.');
        self::assertSame(['Unsorted'], $this->project->layers()->pluck('name')->all());
        $this->get($this->path(''))->assertOk()->assertSee('Unsorted')->assertSee('data-total="1"', false);
        $this->get('/projects')->assertOk();
        $this->send('POST', 'undo')->assertSee('Nothing to undo.');
        $this->send('POST', 'redo');
        $this->send('POST', 'redo')->assertSee('Redone: Take in pane.gltf.');
        self::assertSame(3198, $this->bench()->scene()->count());
        $this->assertIndexTrue($this->project);
    }

    public function test_undo_sends_the_change_that_it_names(): void
    {
        $this->send('POST', 'layers', ['name' => 'A']);
        $a = (int) $this->project->changes()->max('no');
        $this->get($this->path(''))->assertSee("data-command=\"undo\"\n data-change=\"$a\"", false);
        $this->actingAs($this->bea)->send('POST', 'layers', ['name' => 'B']);
        $b = (int) $this->project->changes()->max('no');

        $names = fn (): array => $this->project
            ->layers()
            ->whereIn('name', ['A', 'B'])
            ->orderBy('name')
            ->pluck('name')
            ->all();
        // Each takes back their own, whoever came after.
        $this->get($this->path(''))->assertSee("data-command=\"undo\"\n data-change=\"$b\"", false);
        $this->send('POST', 'undo', ['change' => $a])->assertSee('“Create layer A” is by Ida Keller: only they, and');
        self::assertSame(['A', 'B'], $names());
        $this->actingAs($this->ida)
            ->send('POST', 'undo', ['change' => $a])
            ->assertSee('Undone: Create layer A.');
        self::assertSame(['B'], $names());
        // Whoever owns the project can clear up after others.
        $this->send('POST', 'undo', ['change' => $b])->assertSee('Undone: Create layer B.');
        $this->actingAs($this->bea)
            ->send('POST', 'undo', ['change' => $b])
            ->assertSee('“Create layer B” was taken back already, by Ida Keller.');
        $this->send('POST', 'redo')->assertSee('You have nothing to redo.');
        $this->send('POST', 'redo', ['change' => $a])->assertSee('was taken back by Ida Keller: only they can do it again');
        $this->send('POST', 'redo', ['change' => $b])->assertSee('Redone: Create layer B.');
        self::assertSame(['B'], $names());
        $this->send('POST', 'undo', ['change' => 99999])->assertSee('That change is no longer in the history.');
        foreach (['x', '-1', '0', '1e9', '99999999999999999999'] as $odd) {
            $this->call('POST', $this->path('undo'), ['change' => $odd], [], [], ['HTTP_ACCEPT' => 'application/json'])->assertStatus(422);
        }
    }

    public function test_one_persons_new_change_does_not_throw_anothers_redo_away(): void
    {
        $this->send('POST', 'layers', ['name' => 'Mine']);
        $this->send('POST', 'undo');
        $this->actingAs($this->bea)->send('POST', 'layers', ['name' => 'Hers']);
        $this->actingAs($this->ida)->send('POST', 'redo')->assertSee('Redone: Create layer Mine.');
        self::assertSame(
            2,
            $this->project
                ->layers()
                ->whereIn('name', ['Mine', 'Hers'])
                ->count(),
        );
        // Hers stays, whatever is taken back of mine.
        $this->send('POST', 'undo')->assertSee('Undone: Create layer Mine.');
        $this->actingAs($this->bea)->send('POST', 'undo')->assertSee('Undone: Create layer Hers.');
        $this->send('POST', 'undo')->assertSee('You have nothing to undo.');
        $this->actingAs($this->ida);
        // One's own new change does throw one's own redo away.
        $this->send('POST', 'layers', ['name' => 'Other']);
        $this->send('POST', 'redo')->assertSee('You have nothing to redo.');
        $this->assertIndexTrue($this->project);
    }

    public function test_the_screen_shows_every_change_picks_its_objects_and_goes_back_over_several(): void
    {
        $seat = $this->number('Seat_Shell_017');
        $this->send('PATCH', "objects/$seat", ['name' => 'First']);
        $this->send('POST', 'layers', ['name' => 'Mine']);
        $mine = (int) $this->project->changes()->max('no');
        $this->actingAs($this->bea)->send('POST', 'layers', ['name' => 'Hers']);
        $this->actingAs($this->ida)->send('POST', 'file', ['layer' => $this->layer($this->project, 'Mine'), 'keys' => "O$seat"]);
        $filed = (int) $this->project->changes()->max('no');
        $this->get($this->path('changes'))
            ->assertSee('Rename Seat_Shell_017 to First')
            ->assertSee('Bea Lind')
            ->assertSee('Take in Marlpit Baths.glb')
            ->assertSee('3,197</button', false);
        $this->get($this->path("changes?by={$this->bea->id}"))->assertSee('Create layer Hers')->assertDontSee('Create layer Mine');
        $this->get($this->path('changes?words=seat%25'))->assertSee('No change is called that.');
        $this->get($this->path('changes?words=rename'))->assertSee('Rename Seat_Shell_017')->assertDontSee('Create layer Mine');
        $this->send('POST', 'changes/pick', ['change' => $filed, 'mode' => 'replace']);
        self::assertSame([$seat], $this->bench()->pick()->numbers());

        $this->send('POST', 'changes/back', ['change' => $mine])->assertSee('Undone: 2 changes.');
        self::assertSame(
            [0, true, 'First'],
            [
                $this->layer($this->project, 'Mine'),
                $this->layer($this->project, 'Hers') > 0,
                $this->project->objects()->where('no', $seat)->value('name'),
            ],
        );
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'redo')->assertSee('Redone: Create layer Mine.');
        $this->send('POST', 'redo')->assertSee('Redone: File 1 object under Mine.');
        // What takes long is gone on with.
        config(['shelf.back_for' => 0]);
        $back = fn (): TestResponse => $this->send('POST', 'changes/back', ['change' => $mine]);
        $back()->assertSee('Undone: 1 change. That took long: 1 more to go. Go back once more.');
        $back()->assertSee('Undone: 1 change.')->assertDontSee('That took long');
        config(['shelf.back_for' => 15]);
        self::assertSame(0, $this->layer($this->project, 'Mine'));
        $this->send('POST', 'redo')->assertSee('Redone: Create layer Mine.');
        $this->send('POST', 'redo')->assertSee('Redone: File 1 object under Mine.');
        // Where somebody else stands on one of them, nothing is taken back.
        $this->actingAs($this->bea)
            ->send('PATCH', 'rows/L'.$this->layer($this->project, 'Mine'), ['name' => 'Ours'])
            ->assertOk();
        $this->actingAs($this->ida)
            ->send('POST', 'changes/back', ['change' => $mine])
            ->assertSee('cannot be taken back')
            ->assertSee('“Rename layer Mine to Ours”, by Bea Lind, stands on it.')
            ->assertSee('Nothing was taken back.');
        self::assertSame($this->layer($this->project, 'Ours'), (int) $this->project->objects()->where('no', $seat)->value('layer_no'));
        $this->send('POST', 'changes/back', ['change' => 99999])->assertSee('no longer in the history');
    }

    public function test_a_history_is_thinned_by_a_setting_and_says_what_is_too_old(): void
    {
        foreach (range(1, 40) as $number) {
            $this->send('POST', 'layers', ['name' => "Layer $number"]);
        }
        $this->actingAs($this->bea)
            ->send('POST', 'changes/keep', ['kept' => 30])
            ->assertStatus(422)
            ->assertSee('who owns the project');
        $this->actingAs($this->ida)
            ->send('POST', 'changes/keep', ['kept' => 30])
            ->assertSee('11 older changes can no longer be taken back.');
        $this->get($this->path('changes'))->assertSee('too old to be taken back');
        $oldest = (int) $this->project->changes()->where('name', 'Create layer Layer 3')->value('no');
        $this->send('POST', 'undo', ['change' => $oldest])->assertSee('is too old: what it did is no longer kept.');
        $this->send('POST', 'changes/pick', ['change' => $oldest, 'mode' => 'replace'])->assertStatus(422);
        for ($undo = 0; $undo < 30; $undo++) {
            $this->send('POST', 'undo')->assertSee('Undone: Create layer');
        }
        $this->send('POST', 'undo')->assertSee('Nothing to undo.');
        foreach (range(1, 20) as $number) {
            $this->send('POST', 'layers', ['name' => "Other $number"]);
        }
        self::assertLessThan(31 + 16, $this->project->changes()->where('thinned', false)->count(), 'it goes on by itself');
        $this->send('POST', 'changes/keep', ['kept' => 7])->assertStatus(302);
    }

    public function test_what_others_have_set_on_a_tag_does_not_go_with_it(): void
    {
        foreach (['output' => ['POST', 'output', ['output' => '2']], 'lock' => ['POST', 'locks', ['lock' => 1]]] as $what => $set) {
            $this->actingAs($this->ida)
                ->send('POST', 'tags', ['name' => "Tag with $what"])
                ->assertOk();
            $tag = $this->project->refresh()->next_tag - 1;
            $made = (int) $this->project->changes()->max('no');
            [$method, $path, $values] = $set;
            $this->actingAs($this->bea)
                ->send($method, $path, $values + ['keys' => "T$tag"])
                ->assertOk();
            $this->assertBeaStandsOn($made, "Create tag Tag with $what", "Tag Tag with $what has changed meanwhile");
            self::assertTrue(DB::table('tags')->where('project_id', $this->project->id)->where('no', $tag)->exists());
            $this->assertFreeOnceBeaTookBack($made, "Create tag Tag with $what");
        }
    }

    public function test_an_object_never_gets_two_values_of_one_thing_by_what_is_taken_back(): void
    {
        // Ida sets a seat to ghost, and to nothing again; meanwhile Bea never wants it in pictures.
        $seat = (int) $this->project->objects()->where('kind', 1)->min('no');
        $this->send('POST', 'output', ['keys' => "O$seat", 'output' => '2'])->assertOk();
        $this->send('POST', 'output', ['keys' => "O$seat", 'output' => 'none'])->assertOk();
        $cleared = (int) $this->project->changes()->max('no');
        $this->actingAs($this->bea)
            ->send('POST', 'output', ['keys' => "O$seat", 'output' => 'never'])
            ->assertOk();
        $this->actingAs($this->ida)
            ->send('POST', 'undo', ['change' => $cleared])
            ->assertSee('cannot be taken back: What pictures show of some of these objects has changed meanwhile.')
            ->assertSee(', by Bea Lind, stands on it.');
        self::assertSame(
            [7],
            array_keys(
                array_filter(
                    $this->bench()->outputs()->settings()->objects,
                    static fn (Bits $those): bool => $those->length >= $seat && $those->has($seat),
                ),
            ),
        );
    }

    public function test_a_view_that_has_followed_what_others_filed_says_who_stands_on_it(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0])->assertOk();
        $this->send('POST', 'views', ['name' => 'Without seats', 'keep_rungs' => 1])->assertOk();
        $kept = (int) $this->project->changes()->max('no');
        $seat = (int) $this->project->objects()->where('layer_no', $seats)->min('no');
        $this->actingAs($this->bea)->send('POST', 'layers', ['name' => 'Reserved']);
        $reserved = $this->layer($this->project, 'Reserved');
        $this->send('POST', 'file', ['layer' => $reserved, 'keys' => "O$seat"])->assertOk();
        $this->assertBeaStandsOn($kept, 'Keep view Without seats', 'View Without seats has changed meanwhile', ' under Reserved”');
        $this->assertFreeOnceBeaTookBack($kept, 'Keep view Without seats', 'File ');
    }

    public function test_what_others_did_to_copies_and_groups_does_not_go_with_them(): void
    {
        $seat = (int) $this->project->objects()->where('kind', 1)->min('no');
        $glazing = $this->layer($this->project, '30 Glazing');
        foreach (['copy' => 'Copy 1 object', 'group' => 'Group 1 object as Pair'] as $how => $name) {
            $this->actingAs($this->ida)
                ->send('POST', "objects/$how", ['keys' => "O$seat", 'name' => 'Pair'])
                ->assertOk();
            [$made, $change] = [$this->project->refresh()->next_object - 1, (int) $this->project->changes()->max('no')];
            $this->actingAs($this->bea)
                ->send('POST', 'file', ['layer' => $glazing, 'keys' => "O$made", 'only' => 1])
                ->assertOk();
            $this->assertBeaStandsOn($change, $name, '1 of the objects that it made has been changed since', ' under 30 Glazing”');
            self::assertSame($glazing, (int) $this->project->objects()->where('no', $made)->value('layer_no'));
            $this->assertFreeOnceBeaTookBack($change, $name, 'File ');
        }
    }

    /** Ida cannot take a change back, and is told why, and by what of Bea's. */
    private function assertBeaStandsOn(int $change, string $name, string $why, string $upon = ''): void
    {
        $this->actingAs($this->ida)
            ->send('POST', 'undo', ['change' => $change])
            ->assertSee("“{$name}” cannot be taken back: $why.")
            ->assertSee("$upon, by Bea Lind, stands on it.");
    }

    /** Bea takes her last change back, and then Ida can. */
    private function assertFreeOnceBeaTookBack(int $change, string $name, string $last = ''): void
    {
        $this->actingAs($this->bea)
            ->send('POST', 'undo')
            ->assertSee("Undone: $last");
        $this->actingAs($this->ida)
            ->send('POST', 'undo', ['change' => $change])
            ->assertSee("Undone: $name.");
    }

    public function test_what_cannot_be_done_again_is_refused_in_words(): void
    {
        $this->send('POST', 'layers', ['name' => 'Café']);
        $this->send('POST', 'undo');
        $this->actingAs($this->bea)->send('POST', 'layers', ['name' => 'CAFÉ']);
        $this->actingAs($this->ida)
            ->send('POST', 'redo')
            ->assertOk()
            ->assertSee('“Create layer Café” cannot be done again: there is a layer “Café” already.');
        self::assertSame(1, $this->project->layers()->whereRaw("lower(name) = 'café'")->count());
    }

    public function test_an_undo_that_cannot_be_carried_out_is_refused_and_does_not_stand_before_older_ones(): void
    {
        $this->send('POST', 'layers', ['name' => 'One']);
        $this->send('POST', 'layers', ['name' => 'Two']);
        // Somebody mended the database by hand.
        DB::table('layers')
            ->where('project_id', $this->project->id)
            ->where('name', 'Two')
            ->update(['name' => 'Three']);
        $this->send('POST', 'undo')
            ->assertOk()
            ->assertSee('“Create layer Two” cannot be taken back: Layer Two has changed meanwhile.')
            ->assertSee('Undo “Create layer One”');
        $this->send('POST', 'undo')->assertSee('Undone: Create layer One.');
        DB::table('changes')
            ->where('project_id', $this->project->id)
            ->where('name', 'like', 'Take in%')
            ->update(['edits' => DB::raw("decode('00ff', 'hex')")]);
        $this->send('POST', 'undo')->assertOk()->assertSee('cannot be taken back: what it did cannot be read any more.');
        $this->send('POST', 'undo')->assertSee('Nothing to undo.');
        $this->get($this->path(''))->assertOk();
    }

    public function test_a_layer_that_something_stands_on_is_not_pulled_away(): void
    {
        $this->send('POST', 'layers', ['name' => 'Nursery']);
        DB::table('objects')
            ->where('project_id', $this->project->id)
            ->where('no', 7)
            ->update(['layer_no' => $this->layer($this->project, 'Nursery')]);
        $this->send('POST', 'undo')->assertSee('cannot be taken back: Layer Nursery is still needed: 1 object lies under it.');
        $this->get($this->path(''))->assertOk();
    }

    public function test_renames_views_and_locks_are_taken_back_one_by_one(): void
    {
        $seat = $this->number('Seat_Shell_017');
        $this->send('PATCH', "objects/$seat", ['name' => 'First']);
        $this->send('PATCH', "objects/$seat", ['name' => 'Second']);
        $this->send('POST', 'locks', ['keys' => "O$seat", 'lock' => 2]);
        $this->send('POST', 'views', ['name' => 'Hall', 'keep_camera' => 1, 'camera' => '{"eye":[1.5,2,3],"target":[0,0,0],"fov":40}']);
        $this->send('PATCH', 'views/1', ['newcomers' => 5]);
        $names = [
            'Newcomers in view Hall: Full',
            'Keep view Hall',
            'Lock 1 object',
            'Rename First to Second',
            'Rename Seat_Shell_017 to First',
        ];
        foreach ($names as $name) {
            $this->send('POST', 'undo')->assertSee("Undone: $name.");
        }
        self::assertSame($seat, $this->number('Seat_Shell_017'));
        foreach (range(1, 5) as $_) {
            $this->send('POST', 'redo')->assertSee('Redone:');
        }
        self::assertSame([$seat, 5], [$this->number('Second'), $this->project->views()->value('newcomers')]);
    }

    /** @param array<string, string> $extras @return string a file with one pane */
    private function pane(array $extras): string
    {
        $gltf = Gltf::triangle();
        $gltf['nodes'][0]['extras'] = $extras;

        return Gltf::file($gltf);
    }
}
