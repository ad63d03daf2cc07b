<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Jobs\Tidy;
use App\Models\Tidying;
use App\Tidying\Looking;
use App\Tidying\Report;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use VineShelf\Tidy\Checks;

/** What is untidy, looked for in the queue, mended and waved through. */
final class TidyTest extends ProjectTestCase
{
    public function test_a_report_is_made_in_the_queue_shown_picked_and_outlived_by_changes(): void
    {
        $this->get($this->path('tidy'))->assertOk()->assertSee('Look through the model');
        $this->run_();
        $report = $this->report();
        self::assertGreaterThan(4, count($report));
        $this->get($this->path('tidy'))->assertOk()->assertSee('Look again')->assertDontSee('has changed since');
        foreach ($report as $id => [$many, $objects]) {
            $this->send('POST', 'tidy/pick', ['check' => $id, 'mode' => 'replace'])->assertOk();
            $objects === 0 || self::assertSame($objects, $this->bench()->pick()->count(), $id);
            $this->get($this->path('tidy'))->assertSee(Checks::all()[$id]->title($many));
        }
        $this->send('POST', 'layers', ['name' => 'Later'])->assertOk();
        $this->get($this->path('tidy'))->assertSee('The model has changed since');
        $this->run_();
        self::assertSame($report['empty'][0] ?? 0, ($this->report()['empty'][0] ?? 0) - 1, 'the new layer is empty');
    }

    public function test_names_that_are_shown_before_are_those_that_mending_gives(): void
    {
        // One that was waved through is none of them.
        $this->send('POST', 'pick', ['keys' => 'O'.$this->number('Mesh_33'), 'mode' => 'replace'])->assertOk();
        $this->send('POST', 'tidy/wave', ['check' => 'exporters-names', 'of' => 'pick'])->assertOk();
        $this->run_();
        $shown = [];
        foreach (Report::unpack((string) Tidying::query()->latest('id')->firstOrFail()->report)->entries as $entry) {
            $shown[$entry['id']] = $entry['names'] ?? [];
        }
        self::assertSame([], $shown['filed-apart'] ?? null, 'nothing is named there');
        $screen = $this->get($this->path('tidy'))->assertOk();
        foreach (['unnamed' => 'name', 'exporters-names' => 'name', 'same-siblings' => 'number'] as $check => $mend) {
            self::assertCount($check === 'unnamed' ? 1 : 3, $shown[$check], $check);
            $before = DB::table('objects')->where('project_id', $this->project->id)->pluck('name', 'no');
            $this->send('POST', 'tidy/mend', ['check' => $check, 'mend' => $mend])->assertOk();
            $after = DB::table('objects')->where('project_id', $this->project->id)->pluck('name', 'no');
            $given = [];
            foreach ($after as $number => $name) {
                $given[] = [$before[$number], $name];
            }
            foreach ($shown[$check] as [$old, $new]) {
                self::assertNotSame('Mesh_33', $old);
                self::assertContains([$old, $new], $given, $check);
                $screen->assertSee("<b>$new</b>", false)->assertSee($old === '' ? 'unnamed' : $old);
            }
            $this->send('POST', 'undo')->assertOk();
        }
    }

    public function test_every_mend_leaves_nothing_that_it_could_mend_and_is_taken_back(): void
    {
        // What the demo has none of.
        $numbers = $this->parts()->limit(40)->pluck('no')->all();
        $name = fn (int $at, string $name) => DB::table('objects')
            ->where('project_id', $this->project->id)
            ->where('no', $numbers[$at])
            ->update(['name' => $name]);
        foreach (['Rail_shell 1', 'Rail Shell  2', 'Rail_shell 3'] as $at => $called) {
            $name($at, $called);
        }
        DB::table('objects')
            ->where('project_id', $this->project->id)
            ->whereIn('no', array_slice($numbers, 5, 4))
            ->update(['layer_no' => 1]);
        $this->app->make(\App\Scenes\SceneStore::class)->forget($this->project);
        $this->send('POST', 'objects/group', ['keys' => 'O'.$numbers[20], 'name' => 'Inner'])->assertOk();
        $inner = $this->project->refresh()->next_object - 1;
        $this->send('POST', 'objects/group', ['keys' => "O$inner", 'name' => 'Outer'])->assertOk();
        $this->send('POST', 'objects/copy', ['keys' => 'O'.$numbers[21]])->assertOk();
        $this->send('POST', 'objects/nest', ['keys' => 'O'.$numbers[22], 'into' => 0])->assertOk();
        $this->send('POST', 'objects/group', ['keys' => 'O'.$numbers[23], 'name' => 'Hollow'])->assertOk();
        $this->send('POST', 'objects/nest', ['keys' => 'O'.$numbers[23], 'into' => $inner])->assertOk();
        $this->send('POST', 'layers', ['name' => 'Bare'])->assertOk();
        $mended = [];
        foreach (Checks::all() as $id => $check) {
            foreach ($check->mends() as $mend => $label) {
                if ($this->found($id) === 0) {
                    continue;
                }
                $before = $this->sorting();
                $many = $this->found($id);
                $this->send('POST', 'tidy/mend', ['check' => $id, 'mend' => $mend])
                    ->assertOk()
                    ->assertSee('Undo');
                $most = in_array($mend, ['number', 'name', 'file-groups'], true) ? $many : 1 + intdiv($many, 2);
                self::assertLessThan($most, $this->found($id), "$id $mend");
                $this->assertIndexTrue($this->project);
                $this->send('POST', 'undo')->assertSee('Undone: ');
                self::assertSame($before, $this->sorting(), "$id $mend");
                self::assertSame($many, $this->found($id));
                $mended[$mend] = $label;
            }
        }
        self::assertSame(
            [],
            array_diff(
                [
                    'file-with-group',
                    'file-groups',
                    'name',
                    'number',
                    'one-spelling',
                    'delete',
                    'delete-twins',
                    'ungroup',
                    'group',
                    'clear-out',
                    'share',
                ],
                array_keys($mended),
            ),
        );
    }

    public function test_what_is_waved_through_stays_so_until_somebody_looks_again(): void
    {
        $this->run_();
        $all = $this->found('exporters-names');
        self::assertGreaterThan(5, $all);
        // Some objects.
        $this->send('POST', 'tidy/pick', ['check' => 'exporters-names', 'mode' => 'replace']);
        $some = array_slice($this->bench()->pick()->numbers(), 0, 3);
        $this->send('POST', 'pick', [
            'keys' => implode(',', array_map(static fn (int $number): string => "O$number", $some)),
            'mode' => 'replace',
        ]);
        $this->send('POST', 'tidy/wave', ['check' => 'exporters-names', 'of' => 'pick'])->assertSee('Wave through');
        self::assertSame($all - 3, $this->found('exporters-names'));
        Queue::assertPushed(Tidy::class);
        // One thing.
        $items = (new Looking($this->bench()))->find(Checks::all()['filed-apart']);
        self::assertGreaterThan(1, count($items));
        $this->send('POST', 'tidy/wave', ['check' => 'filed-apart', 'of' => 'item', 'item' => $items[0]->key])->assertOk();
        self::assertCount(count($items) - 1, (new Looking($this->bench()))->find(Checks::all()['filed-apart']));
        // A habit, told once.
        $this->send('POST', 'tidy/wave', ['check' => 'same-siblings', 'of' => 'all'])->assertOk();
        self::assertSame(0, $this->found('same-siblings'));
        $this->finish();
        self::assertArrayNotHasKey('same-siblings', $this->report());
        $this->get($this->path('tidy'))->assertSee('Waved through:')->assertSee('look again');
        // The next file, and another person, find it as it was decided.
        $this->takeIn($this->ida, self::demoFile(), into: $this->project);
        self::assertSame(0, $this->found('same-siblings'));
        $this->send('POST', 'tidy/wave', ['check' => 'same-siblings', 'of' => 'again'])->assertOk();
        self::assertGreaterThan(0, $this->found('same-siblings'));
        $this->send('POST', 'undo')->assertSee('Undone: Look again');
        self::assertSame(0, $this->found('same-siblings'));
        $this->send('POST', 'pick', ['mode' => 'replace', 'keys' => 'O1']);
        $this->send('POST', 'tidy/wave', ['check' => 'unnamed', 'of' => 'pick'])
            ->assertStatus(422)
            ->assertSee('None of the pick');
        $this->send('POST', 'tidy/wave', ['check' => 'nothing', 'of' => 'all'])->assertStatus(422);
        $this->send('POST', 'tidy/mend', ['check' => 'unnamed', 'mend' => 'share'])->assertStatus(422);
    }

    public function test_a_report_is_stopped_and_a_worker_that_gives_up_says_so(): void
    {
        $this->send('POST', 'tidy/run')->assertOk();
        $this->send('POST', 'tidy/stop')->assertOk();
        self::assertSame('stopped', Tidying::query()->latest('id')->value('state'));
        $this->get($this->path('tidy'))->assertSee('Stopped.');
        $this->send('POST', 'tidy/run')->assertOk();
        $tidying = Tidying::query()->latest('id')->firstOrFail();
        (new Tidy($tidying->id))->failed(null);
        self::assertSame('failed', $tidying->refresh()->state);
        // Whoever may not see the project any more gets no report of it.
        $this->send('POST', 'tidy/run')->assertOk();
        $this->project->people()->detach($this->ida);
        $this->finish();
        self::assertSame('', Tidying::query()->latest('id')->firstOrFail()->report);
    }

    public function test_groups_are_never_filed_under_unsorted_because_most_of_their_parts_are(): void
    {
        $parts = $this->parts()->limit(4)->pluck('no')->all();
        $keys = implode(',', array_map(static fn (int $part): string => "O$part", $parts));
        $this->send('POST', 'objects/group', ['keys' => $keys, 'name' => 'Half done'])->assertOk();
        $group = $this->project->refresh()->next_object - 1;
        $layers = DB::table('layers')
            ->where('project_id', $this->project->id)
            ->where('no', '>', 1)
            ->orderBy('no')
            ->limit(2)
            ->pluck('no')
            ->all();
        $file = fn (array $numbers, int $layer) => DB::table('objects')
            ->where('project_id', $this->project->id)
            ->whereIn('no', $numbers)
            ->update(['layer_no' => $layer]);
        $file([$group], $layers[0]);
        $file(array_slice($parts, 0, 3), 1);
        $file([$parts[3]], $layers[1]);
        $this->app->make(\App\Scenes\SceneStore::class)->forget($this->project);
        $item = "$layers[0]-$layers[1]";
        $this->send('POST', 'tidy/mend', ['check' => 'filed-apart', 'mend' => 'file-groups', 'item' => $item])->assertOk();
        self::assertSame($layers[1], DB::table('objects')->where('project_id', $this->project->id)->where('no', $group)->value('layer_no'));
    }

    public function test_one_thing_of_a_very_long_name_can_be_meant(): void
    {
        [$one, $other] = $this->parts()->limit(2)->pluck('no')->all();
        $long = str_repeat('Long name ', 20);
        foreach ([$one => $long.'end', $other => str_replace(' ', '_', $long).'end'] as $number => $name) {
            DB::table('objects')
                ->where('project_id', $this->project->id)
                ->where('no', $number)
                ->update(['name' => $name]);
        }
        $this->app->make(\App\Scenes\SceneStore::class)->forget($this->project);
        $looking = new Looking($this->bench());
        $items = array_filter($looking->find(Checks::all()['nearly-same']), static fn ($item): bool => str_contains($item->says, 'Long'));
        self::assertCount(1, $items);
        $item = ['check' => 'nearly-same', 'item' => reset($items)->key];
        $this->send('POST', 'tidy/pick', $item + ['mode' => 'replace'])->assertOk();
        self::assertSame([$one, $other], $this->bench()->pick()->numbers());
        $this->send('POST', 'tidy/mend', $item + ['mend' => 'one-spelling'])->assertOk();
        self::assertSame(
            1,
            $this->parts()
                ->whereIn('no', [$one, $other])
                ->distinct()
                ->count('name'),
        );
    }

    private function parts(): \Illuminate\Database\Query\Builder
    {
        return DB::table('objects')->where('project_id', $this->project->id)->where('kind', 1)->orderBy('no');
    }

    private function run_(): void
    {
        $this->send('POST', 'tidy/run')->assertOk();
        $this->finish();
    }

    private function finish(): void
    {
        (new Tidy((int) Tidying::query()->max('id')))->handle();
    }

    /** @return array<string, array{int, int}> how many, and objects, by check */
    private function report(): array
    {
        $report = [];
        foreach (Report::unpack(Tidying::query()->latest('id')->firstOrFail()->report)->entries as $entry) {
            $report[$entry['id']] = [$entry['many'], $entry['objects']];
        }

        return $report;
    }

    private function found(string $id): int
    {
        $looking = new Looking($this->bench());
        $check = Checks::all()[$id];

        return $check->countsItems() ? count($looking->find($check)) : $looking->rows($check)->count();
    }

    /** @return array<string, mixed> */
    private function sorting(): array
    {
        return [
            DB::table('objects')
                ->where('project_id', $this->project->id)
                ->where('gone', false)
                ->orderBy('no')
                ->get(['no', 'parent_no', 'position', 'layer_no', 'name', 'mesh_no'])
                ->map(static fn ($row): string => implode(' ', (array) $row))
                ->all(),
            DB::table('layers')->where('project_id', $this->project->id)->orderBy('no')->pluck('name', 'no')->all(),
        ];
    }
}
