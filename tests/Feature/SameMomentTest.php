<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Jobs\Lighten;
use App\Models\Casts\Bytes;
use App\Models\GuestComment;
use App\Models\Lightening;
use App\Models\Project;
use App\Models\ShareLink;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use Tests\Core\Support\Gltf;
use VineShelf\Scene\Members;

/** Two people, or two windows of one, in the same second: real processes against the real database. */
final class SameMomentTest extends CommittedTestCase
{
    private User $ida;

    private User $bea;

    private Project $project;

    protected function setUp(): void
    {
        parent::setUp();
        $this->ida = $this->person();
        $this->bea = $this->person('Bea Lind');
        $gltf = Gltf::triangle();
        $gltf['nodes'] = array_map(static fn (int $number): array => ['mesh' => 0, 'name' => "Pane $number"], range(1, 20));
        $gltf['scenes'][0]['nodes'] = range(0, 19);
        $this->project = $this->takeIn($this->ida, Gltf::file($gltf), name: 'panes.gltf')->project ?? self::fail('not taken in');
        $this->project->people()->attach($this->bea, ['role' => 'editor']);
    }

    public function test_no_pick_of_two_windows_is_lost_and_every_revision_is_another(): void
    {
        $before = Bench::of($this->project, $this->ida)->desk->revision;
        $pick = fn (string $numbers): array => [$this->ida, 'POST', $this->path('pick'), ['mode' => 'add', 'keys' => $numbers]];
        foreach ([['O1,O2', 'O3'], ['O4', 'O5,O6'], ['O7', 'O8']] as [$one, $other]) {
            foreach ($this->atOnce([$pick($one), $pick($other)]) as [[$status]]) {
                self::assertSame(200, $status);
            }
        }
        $bench = Bench::of($this->project, $this->ida);
        $numbers = $bench->pick()->numbers();
        sort($numbers);
        self::assertSame(range(1, 8), $numbers);
        self::assertGreaterThanOrEqual($before + 6, $bench->desk->revision);
    }

    public function test_many_desk_changes_of_two_windows_all_count(): void
    {
        $answers = $this->atOnce(
            [
                [$this->ida, 'POST', $this->path('rungs'), ['keys' => 'O1', 'rung' => 2]],
                [$this->ida, 'POST', $this->path('pick'), ['mode' => 'toggle', 'keys' => 'O2']],
                [$this->ida, 'POST', $this->path('ledger'), ['fold' => 'L1', 'unfold' => 1]],
            ],
            7,
        );
        self::assertSame(
            [200],
            array_values(array_unique(array_map(static fn (array $answer): int => $answer[0], array_merge(...$answers)))),
        );
        $bench = Bench::of($this->project, $this->ida);
        self::assertSame([2], $bench->pick()->numbers(), 'an odd number of toggles');
        self::assertSame([1], array_keys($bench->arrangement()->layers));
        self::assertSame(2, $bench->settings()->object(1)?->value);
    }

    public function test_two_deletes_of_one_view_are_one_change_and_undo_goes_on_working(): void
    {
        $this->actingAs($this->ida)
            ->post($this->path('views'), ['name' => 'Panes', 'keep_rungs' => 1])
            ->assertOk();
        $delete = static fn (User $person, string $path): array => [$person, 'DELETE', $path, []];
        $answers = $this->atOnce([$delete($this->ida, $this->path('views/1')), $delete($this->bea, $this->path('views/1'))]);
        $statuses = array_map(static fn (array $answer): int => $answer[0][0], $answers);
        sort($statuses);
        self::assertSame([200, 422], $statuses);
        self::assertStringContainsString('That view is no longer there.', $answers[0][0][1].$answers[1][0][1]);
        self::assertSame(3, $this->project->changes()->count(), 'taking in, keeping, deleting');
        // Whoever was first takes it back; then the other has nothing left but what was kept.
        $first = $answers[0][0][0] === 200 ? $this->ida : $this->bea;
        $this->actingAs($first)->post($this->path('undo'))->assertOk()->assertSee('Undone: Delete view Panes.');
        $this->actingAs($this->ida)->post($this->path('undo'))->assertOk()->assertSee('Undone: Keep view Panes.');
    }

    public function test_what_is_proposed_is_applied_and_given_back_once_beside_what_others_set(): void
    {
        $asked = ['triangles' => 10, 'by' => 'objects', 'from' => 'everywhere', 'hides' => 1];
        foreach (['desk', 'output'] as $side) {
            $this->actingAs($this->ida)
                ->post($this->path('lighten'), ['side' => $side] + $asked)
                ->assertOk();
            $own = Lightening::query()->latest('id')->firstOrFail();
            (new Lighten($own->id))->handle();
            $set =
                $side === 'desk'
                    ? [$this->ida, 'POST', $this->path('rungs'), ['keys' => 'O1', 'rung' => 2]]
                    : [$this->bea, 'POST', $this->path('output'), ['keys' => 'O1', 'output' => '2']];
            foreach (['apply', 'back'] as $what) {
                $once = [$this->ida, 'POST', $this->path("lighten/$own->key/$what"), []];
                $answers = $this->atOnce([$once, $once, $set]);
                $statuses = array_map(static fn (array $answer): int => $answer[0][0], $answers);
                sort($statuses);
                self::assertSame([200, 200, 422], $statuses, $answers[0][0][1].$answers[1][0][1]);
            }
            $bench = Bench::of($this->project, $this->ida);
            $rungs = $side === 'desk' ? $bench->seen()->rungs() : $bench->outputs()->of(null)->inEffect->rungs();
            $found = array_map(static fn (int $number): int => $rungs->at($bench->scene()->row($number)), range(1, 20));
            self::assertContains($found[0], [2, 5], 'as it was set, or as it was before');
            self::assertSame(array_fill(0, 19, 5), array_slice($found, 1));
        }
    }

    public function test_layers_of_the_same_name_in_the_same_moment_are_one_layer(): void
    {
        $create = fn (User $person): array => [$person, 'POST', $this->path('layers'), ['name' => 'Nursery']];
        $answers = $this->atOnce([$create($this->ida), $create($this->bea)]);
        $statuses = array_map(static fn (array $answer): int => $answer[0][0], $answers);
        sort($statuses);
        self::assertSame([200, 422], $statuses);
        self::assertSame(1, $this->project->layers()->where('name', 'Nursery')->count());
    }

    public function test_a_lock_and_a_filing_in_the_same_moment_never_move_what_is_locked(): void
    {
        $this->actingAs($this->ida)->post($this->path('layers'), ['name' => 'Nursery']);
        $layer = $this->layer($this->project, 'Nursery');
        for ($round = 0; $round < 3; $round++) {
            $keys = 'O'.(2 * $round + 1).',O'.(2 * $round + 2);
            $answers = $this->atOnce([
                [$this->ida, 'POST', $this->path('locks'), ['keys' => $keys, 'lock' => 2]],
                [$this->bea, 'POST', $this->path('file'), ['keys' => $keys, 'layer' => $layer]],
            ]);
            $order = $this->project->changes()->orderByDesc('no')->limit(2)->pluck('name')->all();
            $moved =
                $this->project
                    ->objects()
                    ->where('no', 2 * $round + 1)
                    ->value('layer_no') === $layer;
            // Either the filing came first and is in the history before the lock, or it met locked objects and says so.
            self::assertSame($moved, $order[1] === 'File 2 objects under Nursery', $answers[1][0][1]);
            self::assertSame(! $moved, str_contains($answers[1][0][1], '2 locked objects were left alone.'));
        }
        $this->assertIndexTrue($this->project);
    }

    public function test_tags_of_two_people_in_the_same_moment_all_count_and_come_off_one_by_one(): void
    {
        $this->actingAs($this->ida)->post($this->path('tags'), ['name' => 'Wet']);
        $this->post($this->path('tags'), ['name' => 'North']);
        $tag = fn (User $person, int $tag, string $keys, string $mode): array => [
            $person,
            'POST',
            $this->path('tag'),
            ['tag' => $tag, 'mode' => $mode, 'keys' => $keys],
        ];
        $all = implode(',', array_map(static fn (int $number): string => "O$number", range(1, 20)));
        $answers = $this->atOnce(
            [
                $tag($this->ida, 1, 'O1,O2,O3,O4,O5', 'toggle'),
                $tag($this->bea, 1, 'O4,O5,O6,O7', 'toggle'),
                [$this->ida, 'POST', $this->path('memberships'), ['keys' => $all, 'columns' => 'T2', 'on' => 1]],
            ],
            5,
        );
        self::assertSame([200], array_values(array_unique(array_column(array_merge(...$answers), 0))));
        $this->project->refresh();
        $this->assertIndexTrue($this->project);
        $changes = $this->project->changes()->orderBy('turn')->pluck('name')->all();
        self::assertCount(3 + 10 + 1, $changes, 'taking in, two tags, ten toggles; who comes to a tag again changes nothing');
        $after = $this->members(1);
        $last = fn (bool $undone, string $by): User => User::query()->findOrFail(
            $this->project->changes()->where('undone', $undone)->orderByDesc('turn')->value($by),
        );
        for ($step = 0; $step < 11; $step++) {
            $this->actingAs($last(false, 'user_id'))->post($this->path('undo'))->assertSee('Undone');
        }
        self::assertSame([], $this->members(1));
        $this->assertIndexTrue($this->project->refresh());
        for ($step = 0; $step < 11; $step++) {
            $this->actingAs($last(true, 'undone_by'))->post($this->path('redo'))->assertSee('Redone');
        }
        self::assertSame($after, $this->members(1));
        self::assertSame(range(1, 20), $this->members(2));
        $this->assertIndexTrue($this->project->refresh());
    }

    public function test_rules_groups_copies_and_undos_of_two_people_in_the_same_moment_leave_a_whole_project(): void
    {
        $this->actingAs($this->ida)->post($this->path('sorting-rules'), ['rule' => 'kind:part', 'layer' => 'Stands / All']);
        $post = fn (User $person, string $path, array $values = []): array => [$person, 'POST', $this->path($path), $values];
        $keys = static fn (int $from, int $to): string => implode(
            ',',
            array_map(static fn (int $number): string => "O$number", range($from, $to)),
        );
        $answers = $this->atOnce(
            [
                $post($this->ida, 'sorting-rules/run'),
                $post($this->bea, 'sorting-rules', ['rule' => 'kind:group', 'layer' => 'Stands / All']),
                $post($this->bea, 'objects/group', ['keys' => $keys(40, 60), 'name' => 'Hers']),
                $post($this->ida, 'objects/group', ['keys' => $keys(50, 70), 'name' => 'His']),
                $post($this->ida, 'objects/copy', ['keys' => $keys(45, 47), 'way' => 'row', 'count' => 3, 'x' => 1]),
                $post($this->bea, 'undo'),
            ],
            4,
        );
        self::assertSame([], array_diff(array_column(array_merge(...$answers), 0), [200, 422]));
        $this->assertIndexTrue($this->project->refresh());
        $parents = $this->project->objects()->where('gone', false)->pluck('parent_no', 'no')->all();
        foreach ($parents as $number => $parent) {
            for ($at = $parent, $steps = 0; $at !== 0; $at = $parents[$at] ?? self::fail("$number stands in what is gone")) {
                self::assertLessThan(200, $steps++);
            }
        }
        self::assertSame(1, $this->project->layers()->where('name', 'All')->count(), 'one layer, whoever asked for it first');
        $names = $this->project->changes()->pluck('no')->all();
        self::assertSame(count($names), count(array_unique($names)));
    }

    public function test_two_moves_in_the_same_moment_never_put_a_folder_into_itself(): void
    {
        foreach (['One', 'Two'] as $name) {
            $this->actingAs($this->ida)->post($this->path('folders'), ['holds' => 'tags', 'name' => $name]);
        }
        $move = fn (User $person, string $keys, string $mark): array => [
            $person,
            'POST',
            $this->path('rows/move'),
            ['keys' => $keys, 'where' => 'into', 'mark' => $mark],
        ];
        $statuses = array_map(
            static fn (array $answer): int => $answer[0][0],
            $this->atOnce([$move($this->ida, 'F1', 'F2'), $move($this->bea, 'F2', 'F1')]),
        );
        sort($statuses);
        self::assertSame([200, 422], $statuses);
        $parents = DB::table('folders')->where('project_id', $this->project->id)->pluck('parent_no')->sort()->values()->all();
        self::assertSame(0, $parents[0]);
        self::assertGreaterThan(0, $parents[1]);
    }

    /** @return list<int> numbers of the objects that have a tag, as the database has them */
    private function members(int $tag): array
    {
        return Members::unpack(
            Bytes::read(DB::table('tags')->where('project_id', $this->project->id)->where('no', $tag)->value('members')),
        )->rows();
    }

    public function test_undo_pressed_twice_takes_one_change_back(): void
    {
        $this->actingAs($this->ida)->post($this->path('layers'), ['name' => 'One']);
        $this->post($this->path('layers'), ['name' => 'Two']);
        $last = (int) $this->project->changes()->max('no');
        $undo = [$this->ida, 'POST', $this->path('undo'), ['change' => $last]];
        $said = array_map(static fn (array $answer): string => $answer[0][1], $this->atOnce([$undo, $undo]));
        sort($said);
        self::assertStringContainsString('Undone: Create layer Two.', implode(' ', $said));
        self::assertStringContainsString('“Create layer Two” was taken back already, by you.', implode(' ', $said));
        self::assertSame(
            ['One'],
            $this->project
                ->layers()
                ->whereIn('name', ['One', 'Two'])
                ->pluck('name')
                ->all(),
        );
    }

    public function test_guests_of_one_link_all_count_and_none_is_heard_once_it_is_revoked(): void
    {
        $this->actingAs($this->ida)->post($this->path('views'), ['name' => 'Panes', 'keep_rungs' => 1]);
        $made = $this->postJson($this->path('share-links'), [
            'name' => 'Client',
            'keys' => 'all',
            'ends' => now()->addDay()->format('Y-m-d'),
            'may_comment' => 1,
        ])->assertCreated();
        $link = (string) parse_url((string) $made->json('address'), PHP_URL_PATH);
        $visit = [null, 'GET', $link, []];
        foreach ($this->atOnce([$visit, $visit, $visit]) as [[$status]]) {
            self::assertSame(200, $status);
        }
        self::assertSame(3, ShareLink::query()->where('project_id', $this->project->id)->value('visits'));
        $said = fn (): int => GuestComment::query()->where('project_id', $this->project->id)->count();
        $say = static fn (string $by): array => [null, 'POST', "$link/comments", ['view' => 1, 'by' => $by, 'words' => '{time}']];
        foreach ($this->atOnce([$say('Rosa'), $say('Emil')], 5) as $answers) {
            self::assertSame([201], array_values(array_unique(array_column($answers, 0))));
        }
        self::assertSame(10, $said());
        $revoke = [$this->ida, 'POST', $this->path('share-links/'.$made->json('id').'/revoke'), []];
        [$heard, [[$revoked]]] = $this->atOnce([$say('Rosa'), $revoke]);
        self::assertSame(200, $revoked);
        self::assertContains($heard[0][0], [201, 404]);
        self::assertSame(10 + ($heard[0][0] === 201 ? 1 : 0), $said());
        [[[$late]]] = $this->atOnce([$say('Emil')]);
        self::assertSame(404, $late);
    }

    private function path(string $path): string
    {
        return "/projects/{$this->project->key}/$path";
    }
}
