<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Changes\History;
use App\Models\ImportState;
use App\Models\Project;
use App\Models\User;
use App\Scenes\IndexFiles;
use Illuminate\Database\Events\TransactionCommitted;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Event;
use Tests\Core\Support\Gltf;

/**
 * Four processes do whatever people do to one project, all at the same time; then each person takes back what they did. HAMMER_SECONDS says
 * for how long, HAMMER_SEED which requests are drawn.
 */
final class HammerTest extends CommittedTestCase
{
    /** @var list<User> */
    private array $people;

    private Project $project;

    protected function setUp(): void
    {
        parent::setUp();
        $this->people = [$this->person(), $this->person('Bea Lind'), $this->person('Cleo Marsh')];
        $gltf = Gltf::triangle();
        $gltf['nodes'] = array_map(
            static fn (int $number): array => ['mesh' => 0, 'name' => ['Pane', 'Seat', 'Pump'][$number % 3]." $number"],
            range(1, 60),
        );
        $gltf['scenes'][0]['nodes'] = range(0, 59);
        // By somebody who does nothing else: the file is to stay.
        $import = $this->takeIn($this->person('Dora Quist'), Gltf::file($gltf), name: 'panes.gltf');
        $this->project = $import->project ?? self::fail('not taken in');
        foreach ($this->people as $person) {
            $this->project->people()->attach($person, ['role' => 'editor']);
        }
    }

    public function test_nothing_fails_nothing_is_doubled_and_all_is_taken_back_in_any_order(): void
    {
        $came = $this->state();
        $answers = $this->hammer((float) (getenv('HAMMER_SECONDS') ?: 6), (int) getenv('HAMMER_SEED'));
        $failed = array_filter($answers, static fn (array $answer): bool => $answer[1] >= 500);
        self::assertSame([], array_slice(array_values($failed), 0, 3), count($failed).' of '.count($answers).' failed');
        // What was answered as done was done, once.
        $changes = $this->project->changes()->where('no', '>', 1)->orderBy('no')->get();
        foreach (['Copy' => 'change: copy', 'Merge tag' => 'change: merge tags', 'Group' => 'change: group'] as $begins => $what) {
            $told = array_filter(
                $answers,
                static fn (array $answer): bool => $answer[0] === $what && $answer[1] === 200 && str_contains($answer[3], "$begins "),
            );
            $done = $changes->filter(static fn ($change): bool => str_starts_with($change->name, "$begins "));
            self::assertCount(count($told), $done, $begins);
        }
        self::assertSame($changes->pluck('no')->unique()->count(), $changes->count());
        $this->assertIndexTrue($this->project->refresh());
        $this->takeAllBack();
        self::assertSame($came, $this->state());
        $this->assertIndexTrue($this->project->refresh());
    }

    public function test_whoever_is_killed_at_any_moment_leaves_the_project_as_before_or_as_after(): void
    {
        mt_srand($seed = (int) getenv('HAMMER_SEED'));
        $came = $this->state();
        $end = microtime(true) + (float) (getenv('HAMMER_SECONDS') ?: 4);
        $running = $until = [];
        for ($started = $killed = 0; microtime(true) < $end || $killed < 6;) {
            foreach ($this->people as $at => $person) {
                if (! isset($running[$at])) {
                    $until[$at] = null;
                    $running[$at] = $this->start($at, $person, 0.0, $end + 300, 100 * $seed + $started++);
                } elseif ($until[$at] === null && filesize(sys_get_temp_dir()."/hammer-$at.err") > 0) {
                    $until[$at] = microtime(true) + mt_rand(20, 900) / 1000;
                } elseif ($until[$at] !== null && microtime(true) > $until[$at]) {
                    proc_terminate($running[$at], SIGKILL);
                    proc_close($running[$at]);
                    unset($running[$at]);
                    $killed++;
                }
            }
            clearstatcache();
            usleep(2_000);
        }
        foreach ($running as $process) {
            proc_terminate($process, SIGKILL);
            proc_close($process);
        }
        $changes = $this->project->changes()->where('no', '>', 1)->pluck('no');
        self::assertGreaterThan(3, $changes->count());
        self::assertSame($changes->unique()->count(), $changes->count());
        $this->assertIndexTrue($this->project->refresh());
        $this->takeAllBack();
        self::assertSame($came, $this->state());
        $this->assertIndexTrue($this->project->refresh());
    }

    public function test_readers_and_desks_do_not_wait_for_a_change_and_who_waits_for_whom_is_said(): void
    {
        // Another project house on the same server, with numbers of its own.
        $elsewhere = $this->otherConnection('shelf');
        $elsewhere->exec('BEGIN');
        $elsewhere->exec("SET LOCAL application_name = 'change {$this->project->id} {$this->people[0]->id}'");
        $change = $this->otherConnection();
        $change->exec('BEGIN');
        $by = "{$this->project->id} {$this->people[1]->id}";
        $change->exec("SET LOCAL application_name = 'change $by'");
        $change->exec("SELECT 1 FROM projects WHERE id = {$this->project->id} FOR NO KEY UPDATE");
        DB::statement("SET lock_timeout = '2s'");
        $this->actingAs($this->people[0]);
        $path = "/projects/{$this->project->key}";
        foreach (['', '/ledger', '/records?part=0', '/changes', '/why/1', '/pulse'] as $read) {
            $this->get($path.$read)->assertOk();
        }
        $this->post("$path/rungs", ['keys' => 'O1', 'rung' => 2])->assertOk();
        $this->post("$path/pick", ['mode' => 'add', 'keys' => 'O2'])->assertOk();
        $this->post("$path/desk/undo")->assertOk();
        self::assertSame('', $this->get("$path/waiting")->json('says'), 'nothing of theirs waits');

        config(['shelf.waits_for_changes' => 1]);
        $this->post("$path/layers", ['name' => 'Wet'])
            ->assertStatus(422)
            ->assertSee('Another change has been under way for 1 seconds; yours was not made.');
        $waits = $this->otherConnection();
        $waits->exec("SET application_name = 'waits {$this->project->id} {$this->people[0]->id}'");
        self::assertSame('Bea Lind is changing the project; yours comes next', $this->get("$path/waiting")->json('says'));
        $change->exec('ROLLBACK');
        $this->post("$path/layers", ['name' => 'Wet'])->assertOk();
        self::assertSame(1, $this->project->layers()->where('name', 'Wet')->count());
    }

    public function test_the_index_is_there_as_soon_as_others_see_a_change(): void
    {
        $seen = [];
        Event::listen(TransactionCommitted::class, function () use (&$seen): void {
            if (DB::transactionLevel() > 0) {
                return;
            }
            $now = Project::query()->find($this->project->id);
            $files = $now === null ? null : new IndexFiles($now);
            $seen[(int) $now?->revision] ??= $files?->manifest($files->base($now->revision)) !== null;
        });
        $path = "/projects/{$this->project->key}";
        $this->actingAs($this->people[0]);
        $this->post("$path/layers", ['name' => 'Wet'])->assertOk();
        $this->post("$path/file", ['keys' => 'O5,O6', 'layer' => 2])->assertOk();
        $this->post("$path/objects/group", ['keys' => 'O7,O8', 'name' => 'Two'])->assertOk();
        $this->post("$path/objects/copy", ['keys' => 'O9', 'way' => 'row', 'count' => 2, 'x' => 1])->assertOk();
        $this->post("$path/undo")->assertOk();
        $this->post("$path/redo")->assertOk();
        $filed = (int) $this->project->changes()->where('name', 'like', 'File 2%')->value('no');
        $this->post("$path/changes/back", ['change' => $filed])->assertOk()->assertSee('Undone: 3 changes.');
        $import = $this->takeIn($this->people[0], Gltf::file(Gltf::triangle()), name: 'pane.gltf', into: $this->project);
        self::assertSame(ImportState::Done, $import->refresh()->state, $import->error);
        self::assertSame(array_fill(0, 8, true), array_slice(array_values($seen), -8));
        $this->assertIndexTrue($this->project->refresh());
    }

    public function test_a_page_is_of_one_moment_whatever_is_committed_while_it_is_put_together(): void
    {
        $this->actingAs($this->people[0])->post("/projects/{$this->project->key}/tags", ['name' => 'Wet']);
        $between = null;
        DB::listen(function ($query) use (&$between): void {
            // The project is read; then somebody else makes a tag, before what it is sorted by is read.
            if ($between === null && str_contains($query->sql, 'from "desks"')) {
                $between = true;
                $this->atOnce([[$this->people[1], 'POST', "/projects/{$this->project->key}/tags", ['name' => 'Late']]]);
            }
        });
        $page = $this->get("/projects/{$this->project->key}/ledger?lens=tags&from=0&count=20")->assertOk();
        self::assertTrue($between);
        $page->assertSee('Wet')->assertDontSee('Late');
        $this->get("/projects/{$this->project->key}/ledger?lens=tags&from=0&count=20")->assertSee('Late');
    }

    /** @return list<array{string, int, float, string}> what was asked, status, seconds and text */
    private function hammer(float $seconds, int $seed): array
    {
        $begin = microtime(true) + 1.0;
        $running = [];
        foreach ([...$this->people, $this->people[0]] as $at => $person) {
            $running[] = $this->start($at, $person, $begin, $begin + $seconds, 10 * $seed + $at);
        }
        $answers = [];
        foreach ($running as $at => $process) {
            proc_close($process);
            $read = json_decode((string) file_get_contents(sys_get_temp_dir()."/hammer-$at.json"), true);
            self::assertIsArray($read, (string) file_get_contents(sys_get_temp_dir()."/hammer-$at.err"));
            array_push($answers, ...$read);
        }
        $this->tell($answers);

        return $answers;
    }

    /** @return resource the process: its answers go to a file of the number $at */
    private function start(int $at, User $person, float $begin, float $end, int $seed)
    {
        $pipes = [];
        $process = proc_open(
            array_map(strval(...), [PHP_BINARY, __DIR__.'/Support/hammer.php', $begin, $end, $person->id, $this->project->key, $seed]),
            [1 => ['file', sys_get_temp_dir()."/hammer-$at.json", 'w'], 2 => ['file', sys_get_temp_dir()."/hammer-$at.err", 'w']],
            $pipes,
            null,
            // Whoever only reads, or writes their own desk, never waits that long; a change says itself how long it waits.
            ['PGOPTIONS' => '-c lock_timeout=1900'] + $this->surroundings(),
        );
        self::assertIsResource($process);

        return $process;
    }

    /** @param list<array{string, int, float, string}> $answers for whoever wants to know: HAMMER_TELLS=1 */
    private function tell(array $answers): void
    {
        $all = [];
        foreach ($answers as [$what, $status, $took]) {
            $all[$what] ??= ['times' => 0, 'longest' => 0.0];
            $all[$what]['times']++;
            $all[$what][$status] = ($all[$what][$status] ?? 0) + 1;
            $all[$what]['longest'] = max($all[$what]['longest'], $took);
        }
        ksort($all);
        foreach (getenv('HAMMER_TELLS') ? $all : [] as $what => $of) {
            fwrite(STDERR, "\n$what ".json_encode($of));
        }
    }

    /** Each change by its person, in any order, for as long as something can be taken back. */
    private function takeAllBack(): void
    {
        $history = $this->app->make(History::class);
        do {
            $left = $this->project->changes()->where('undone', false)->where('no', '>', 1)->get();
            $said = [];
            $went = 0;
            foreach ($left->shuffle(3) as $change) {
                $person = $this->people[array_search($change->user_id, array_column($this->people, 'id'), true)];
                $turned = $history->undo(Bench::of($this->project->refresh(), $person), $change->no);
                $went += (int) ($turned->change !== null);
                $said[] = $turned->sentence;
            }
        } while ($went > 0);
        self::assertCount(0, $left, implode("\n", $said));
    }

    /** What people sort, as the database has it: what was made meanwhile and is away again is as if it had never been. */
    private function state(): string
    {
        $plain = static fn (mixed $value): mixed => is_resource($value) ? bin2hex((string) stream_get_contents($value)) : $value;
        $rows = [];
        foreach (['layers', 'tags', 'folders', 'sets', 'views', 'own_values', 'sorting_lines'] as $table) {
            foreach (DB::table($table)->where('project_id', $this->project->id)->orderBy('no')->get() as $row) {
                $rows[$table][] = array_map($plain, (array) $row);
            }
        }
        $rows['objects'] = DB::table('objects')
            ->where('project_id', $this->project->id)
            ->where('gone', false)
            ->orderBy('no')
            ->get(['no', 'parent_no', 'position', 'layer_no', 'lock', 'name', 'mesh_no'])
            ->all();

        return json_encode($rows, JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT);
    }
}
