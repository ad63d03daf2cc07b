<?php

declare(strict_types=1);

namespace Tests\Feature;

use PHPUnit\Framework\Attributes\DataProvider;

/** Whatever row of whatever lens an action names, it acts on what that row stands for, or is refused; never on something else. */
final class TargetsTest extends ProjectTestCase
{
    /** @return iterable<string, array{string, string}> a lens, and a rule that picks what its second row stands for */
    public static function rowsOfLenses(): iterable
    {
        yield 'a kind' => ['kinds', 'kind:light'];
        yield 'a class' => ['kinds', 'kind:part class=Plate'];
        yield 'a material' => ['materials', 'material="stainless"'];
        yield 'a source' => ['sources', 'source:Marlpit'];
    }

    #[DataProvider('rowsOfLenses')]
    public function test_rows_of_every_lens_are_locked_filed_ghosted_isolated_and_picked_as_what_they_stand_for(
        string $lens,
        string $rule,
    ): void {
        $this->send('POST', 'pick', ['keys' => 'O5', 'mode' => 'replace']);
        $bench = $this->bench();
        $wanted = $bench->scene()->numbersIn($bench->find($rule)->rows?->ranges() ?? []);
        self::assertGreaterThan(3, count($wanted));
        $key = $this->keyOf($lens, $wanted);

        $this->send('POST', 'locks', ['keys' => $key, 'lock' => 1])->assertOk();
        self::assertSame($wanted, $this->project->objects()->where('lock', 1)->orderBy('no')->pluck('no')->all());
        $this->send('POST', 'undo');
        $this->send('POST', 'layers', ['name' => 'Together']);
        $this->send('POST', 'file', ['keys' => $key, 'layer' => $this->layer($this->project, 'Together'), 'with_held' => 0])->assertOk();
        self::assertSame(
            $wanted,
            $this->project->objects()->where('layer_no', $this->layer($this->project, 'Together'))->orderBy('no')->pluck('no')->all(),
        );
        $this->send('POST', 'rungs', ['keys' => $key, 'rung' => 2])->assertOk();
        self::assertSame($wanted, ($this->bench()->settings()->objects[2] ?? null)?->rows());
        $this->send('POST', 'isolate', ['keys' => $key])->assertSee(number_format(count($wanted)).' isolated');
        $this->send('POST', 'pick', ['keys' => $key, 'mode' => 'replace']);
        $picked = $this->bench()->pick()->numbers();
        sort($picked);
        self::assertSame($wanted, $picked);
        $this->assertIndexTrue($this->project);
    }

    public function test_a_layer_among_rows_is_locked_with_them_and_never_filed(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'pick', ['keys' => 'O5', 'mode' => 'replace']);
        $this->send('POST', 'file', ['keys' => "L$seats", 'layer' => 2])
            ->assertStatus(422)
            ->assertSee('Objects are filed under layers; a layer itself is not.');
        $this->send('POST', 'locks', ['keys' => "L$seats,O7,O8", 'lock' => 2])->assertSee('Lock layer 51 Seats and 2 objects.');
        self::assertSame([7, 8], $this->project->objects()->where('lock', 2)->orderBy('no')->pluck('no')->all());
        $this->send('POST', 'rungs', ['keys' => "L$seats,O3000", 'rung' => 1])->assertSee('1 layer and 1 object: Box.');
    }

    public function test_rows_that_are_not_there_are_refused_and_the_pick_is_left_alone(): void
    {
        $this->send('POST', 'pick', ['keys' => 'O5,O6', 'mode' => 'replace']);
        foreach (
            ['O999999', 'M99999', 'K4', 'S0', 'L999', 'K1.9999', 'X1', 'O', '*', '<b>', 'O1;O2', '0', str_repeat('O1,', 6000)] as $keys
        ) {
            foreach ([['locks', ['lock' => 2]], ['file', ['layer' => 2]], ['rungs', ['rung' => 0]]] as [$path, $values]) {
                $status = $this->send('POST', $path, ['keys' => $keys] + $values)->status();
                self::assertSame(422, $status, "$path ".substr($keys, 0, 20));
            }
        }
        self::assertSame([0, []], [$this->project->objects()->where('lock', '>', 0)->count(), $this->bench()->settings()->objects]);
        self::assertSame(1, $this->project->changes()->count());
        $this->send('POST', 'locks', ['lock' => 1])->assertSee('Guard 2 objects.');
    }

    public function test_the_key_for_locks_goes_by_the_whole_pick(): void
    {
        $this->send('POST', 'locks', ['keys' => 'O5', 'lock' => 2]);
        $this->send('POST', 'pick', ['keys' => 'O5,O6,O7', 'mode' => 'replace'])
            ->assertSee('Now 1 locked, 2 open', false)
            ->assertSee('data-command="lock-pick" data-lock="2"', false);
        $this->send('POST', 'locks', ['lock' => 2])->assertSee('data-command="lock-pick" data-lock="0"', false);
    }

    public function test_a_viewer_is_offered_only_what_a_viewer_may_do(): void
    {
        $this->send('POST', 'views', ['name' => 'Hall', 'keep_rungs' => 1]);
        $this->send('POST', 'locks', ['keys' => 'O5', 'lock' => 2]);
        $viewer = $this->person('Vera Moss');
        $this->project->people()->attach($viewer, ['role' => 'viewer']);
        $this->actingAs($viewer)->send('POST', 'pick', ['keys' => 'O5,O6', 'mode' => 'replace']);
        $page = (string) $this->get($this->path(''))->assertOk()->getContent();
        foreach (['undo', 'redo', 'file-under', 'new-layer-from-pick', 'lock-pick', 'rename-pick', 'keep-view', 'view-menu'] as $command) {
            self::assertStringNotContainsString("data-command=\"$command\"", $page);
        }
        self::assertStringNotContainsString('draggable="true"', $page);
        foreach (['reach', 'isolate', 'why', 'apply-view'] as $command) {
            self::assertStringContainsString("data-command=\"$command\"", $page);
        }
        $this->send('POST', 'rungs', ['keys' => 'O6', 'rung' => 0])->assertOk();
        $this->get($this->path('why/6'))->assertSee('Raise to Full');
        $this->send('POST', 'why/6', ['what' => 'all', 'part' => 'rung'])
            ->assertOk()
            ->assertSee('now is drawn in full');
        $this->get($this->path('why/5'))->assertDontSee('Open it');
        $this->send('POST', 'why/5', ['what' => 'all'])->assertNotFound();
        self::assertSame(1, $this->project->objects()->where('lock', 2)->count());
    }

    public function test_an_over_long_name_that_stays_does_not_stop_a_rename_of_many(): void
    {
        $this->project
            ->objects()
            ->where('no', 7)
            ->update(['name' => rtrim(str_repeat('long ', 200))]);
        $this->send('POST', 'pick', ['keys' => 'O7,O8', 'mode' => 'replace']);
        $old = (string) $this->project->objects()->where('no', 8)->value('name');
        $this->send('POST', 'rename', ['find' => $old, 'replace' => 'New'])
            ->assertOk()
            ->assertSee('Rename 1 object.');
        $this->send('POST', 'rename', ['prefix' => 'x'])
            ->assertStatus(422)
            ->assertSee('A name has at most 500 characters');
    }

    public function test_reviewing_a_view_that_keeps_no_rungs_does_not_make_it_keep_them(): void
    {
        $this->send('POST', 'views', [
            'name' => 'Only the camera',
            'keep_camera' => 1,
            'camera' => '{"eye":[1,2,3],"target":[0,0,0],"fov":40}',
        ]);
        $this->send('POST', 'layers', ['name' => 'Later']);
        $this->send('PATCH', 'views/1', ['reviewed' => 1])->assertOk();
        self::assertFalse($this->project->views()->firstOrFail()->keepsRungs());
        self::assertSame($this->layer($this->project, 'Later'), $this->project->views()->firstOrFail()->known_layer);
    }

    /** @param list<int> $wanted */
    private function keyOf(string $lens, array $wanted): string
    {
        $bench = $this->bench();
        $groups = new \App\Bench\Groups($bench);
        $all = $groups->ofLens($lens);
        foreach ($lens === 'kinds' ? \VineShelf\Scene\Kind::cases() : [] as $kind) {
            array_push($all, ...$groups->classes($kind));
        }
        foreach ($all as $group) {
            if ($bench->scene()->numbersIn($group->rows()->ranges()) === $wanted) {
                return $group->key;
            }
        }
        self::fail('no row stands for that');
    }
}
