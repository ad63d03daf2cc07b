<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\Storage;
use Tests\Core\Support\ForeignModel;
use Tests\Core\Support\Gltf;

/** bin/shelf as scripts call it, in processes of their own: an answer and 0, or one plain sentence among the errors and 2. */
final class ScriptsTest extends CommittedTestCase
{
    protected function setUp(): void
    {
        parent::setUp();
        $this->app->forgetInstance('queue');
        Queue::clearResolvedInstance('queue');
        DB::table('jobs')->delete();
    }

    public function test_a_file_is_taken_in_asked_about_and_taken_in_again(): void
    {
        $ida = $this->person();
        [$code, $out, $error] = $this->shelf('import', 'new', Gltf::file(Gltf::triangle()), "--person=$ida->email", '--json');
        self::assertSame([0, ''], [$code, $error], $out);
        $project = json_decode($out, true)['project'] ?? '';
        self::assertSame(['project' => $project, 'objects' => 1, 'viewsWithNewcomers' => 0], json_decode($out, true));

        // The only owner of a project need not be named.
        [$code, $out] = $this->shelf('rule', $project, 'name:pane kind:part', '--json');
        self::assertSame(0, $code);
        self::assertSame([['number' => 1, 'kind' => 'part', 'name' => 'Pane']], json_decode($out, true)['objects']);
        [$code, $out, $error] = $this->shelf('rule', $project, 'pane or layer:Attic');
        self::assertSame([0, "There is no layer with “Attic” in its name.\n"], [$code, $error]);
        self::assertStringContainsString('Pane', $out);
        [$code, $out] = $this->shelf('views', $project, '--json');
        self::assertSame([0, []], [$code, json_decode($out, true)]);

        // A .gltf with its buffer beside it joins the project.
        $folder = sys_get_temp_dir().'/shelf-scripts-'.bin2hex(random_bytes(5));
        mkdir($folder);
        $bytes = pack('g*', 0, 0, 0, 1, 0, 0, 0, 2, 0).pack('v*', 0, 1, 2, 0);
        file_put_contents("$folder/pane.bin", $bytes);
        $gltf = ['buffers' => [['byteLength' => strlen($bytes), 'uri' => 'pane.bin']]] + Gltf::triangle();
        file_put_contents("$folder/second.gltf", json_encode($gltf));
        [$code, $out, $error] = $this->shelf('import', $project, "$folder/second.gltf");
        self::assertSame([0, '', "1 object is in project $project.\n"], [$code, $error, $out]);
        self::assertCount(2, json_decode($this->shelf('rule', $project, 'pane', '--json')[1], true)['objects']);
        exec('rm -r '.escapeshellarg($folder));
    }

    public function test_a_foreign_model_is_sorted_by_scripts_as_plain_lists_say(): void
    {
        mt_srand(2026);
        $model = ForeignModel::grow(120);
        foreach (array_keys($model->gltf['nodes']) as $node) {
            $model->gltf['nodes'][$node]['extras'] = ['zone' => ['a', 'b', 'c'][$node % 3]];
        }
        $ida = $this->person();
        [, $out] = $this->shelf('import', 'new', $model->write('glb'), "--person=$ida->email", '--sort-by=unsorted', '--json');
        $key = json_decode($out, true)['project'];
        $objects = DB::table('objects')
            ->join('projects', 'projects.id', '=', 'objects.project_id')
            ->where('projects.key', $key)
            ->orderBy('no')
            ->get(['no', 'parent_no', 'objects.name', 'kind', 'properties'])
            ->keyBy('no')
            ->all();
        $zone = static fn (int $number): string => json_decode($objects[$number]->properties, true)['zone'];
        /** @return list<int> the objects and all that they hold */
        $withHeld = static function (array $numbers) use ($objects): array {
            foreach ($objects as $number => $object) {
                // What holds an object has a lower number than it.
                if (in_array((int) $object->parent_no, $numbers, true)) {
                    $numbers[] = $number;
                }
            }

            return array_values(array_unique($numbers));
        };
        $where = static fn (\Closure $is): array => array_values(array_filter(array_keys($objects), $is));
        $parts = $where(static fn (int $number): bool => (int) $objects[$number]->kind === 1);
        $says = function (string ...$words) use ($key): string {
            [$code, $out, $error] = $this->shelf($words[0], $key, ...array_slice($words, 1));
            self::assertSame([0, ''], [$code, $error], implode(' ', $words));

            return $out;
        };
        $agrees = function (array $expected, string $rule) use ($key, $ida): void {
            sort($expected);
            $bench = Bench::of(Project::query()->where('key', $key)->firstOrFail(), $ida);
            $found = array_map($bench->scene()->number(...), $bench->find($rule)->rows?->rows() ?? []);
            sort($found);
            self::assertSame($expected, $found, $rule);
        };

        $a = $withHeld($where(static fn (int $number): bool => $zone($number) === 'a'));
        $says('tag', 'Zones / A', 'zone:a');
        $b = $where(static fn (int $number): bool => $zone($number) === 'b');
        $says('tag', 'Zones / B', 'zone:b', '--only');
        $walls = $withHeld($where(static fn (int $number): bool => str_contains(mb_strtolower($objects[$number]->name), 'wall')));
        $says('file', 'Building / Walls', 'wall');
        $agrees($a, 'tag:A');
        self::assertCount(count($a), json_decode($says('rule', 'tag:A', '--json'), true)['objects']);
        $agrees($b, 'tag="B"');
        $agrees(array_unique([...$a, ...$b]), 'tag:Zones');
        $agrees(array_diff($where(static fn (): bool => true), $a, $b), 'not is tagged');
        $agrees(array_intersect($walls, $parts, $b), 'layer:Building kind:part tag:B');

        $says('set', 'Kept / Parts of B', 'kind:part tag:B');
        $says('set', 'Fixed', 'tag:A not layer:Walls', '--fixed');
        $fixed = array_diff($a, $walls);
        $agrees(array_intersect($parts, $b), 'set:"Parts of B"');
        $agrees(array_unique([...$fixed, ...array_intersect($parts, $b)]), 'set:Fixed or set:"Parts of B"');
        $says('tag', 'Zones / B', 'kind:part', '--off');
        $b = array_diff($b, $withHeld($parts));
        $agrees(array_intersect($parts, $b), 'set:"Parts of B"');
        $agrees($fixed, 'set:Fixed');

        foreach ([['folder:Zones', 3], ['layer:Building', 4], ['object:7', 2]] as [$what, $rung]) {
            $says('rung', $what, (string) $rung);
        }
        $says('lock', 'tag:Zones / B', '1');
        $says('lock', 'layer:Building / Walls', '2');
        $rungs = $locks = '';
        foreach (array_keys($objects) as $number) {
            $rungs .= min(
                5,
                in_array($number, $a, true) ? 3 : 5,
                in_array($number, $b, true) ? 3 : 5,
                in_array($number, $walls, true) ? 4 : 5,
                in_array($number, $withHeld([7]), true) ? 2 : 5,
            );
            $locks .= max(in_array($number, $b, true) ? 1 : 0, in_array($number, $walls, true) ? 2 : 0);
        }
        self::assertSame(['rungs' => $rungs, 'locks' => $locks], json_decode($says('effect'), true));
        // A picture has nothing of the desk; of a view it has what the view kept, under what is set for pictures.
        $pictures = static fn (string ...$more): array => json_decode($says('effect', '--output', ...$more), true);
        self::assertSame(str_repeat('5', count($objects)), $pictures()['rungs']);
        $says('view', 'keep', 'Kept', '--keeps=camera,rungs', '--pictures=all');
        self::assertSame($rungs, $pictures('--view=Kept')['rungs']);
        // Coarse and plain are only to work, ghosts are meant.
        $says('view', 'keep', 'Meant', '--keeps=camera,rungs', '--pictures=meant');
        $ghosts = $withHeld([7]);
        $isGhost = static fn (int $number): string => in_array($number, $ghosts, true) ? '2' : '5';
        self::assertSame(implode('', array_map($isGhost, array_keys($objects))), $pictures('--view=Meant')['rungs']);
        self::assertSame($rungs, json_decode($says('effect', '--view=Meant'), true)['rungs']);
        $says('rung', 'layer:Building / Walls', '1', '--output');
        $says('rung', 'folder:Zones', 'never', '--output', '--note=by others');
        $output = '';
        foreach (array_keys($objects) as $number) {
            $output .= min(
                in_array($number, $a, true) || in_array($number, $b, true) ? 0 : 5,
                in_array($number, $walls, true) ? 1 : 5,
                in_array($number, $withHeld([7]), true) ? 2 : 5,
            );
        }
        self::assertSame($output, $pictures('--view=Kept')['rungs']);
        self::assertSame($rungs, json_decode($says('effect'), true)['rungs'], 'the desk is as it was');
        $says('rung', 'folder:Zones', 'none', '--output');
        $says('rung', 'layer:Building / Walls', 'none', '--output');
        $says('view', 'delete', 'Kept');
        // What is locked is left alone, and says so.
        self::assertStringContainsString('left alone', $says('tag', 'Zones / C', 'wall'));
        $agrees(array_diff($walls, $walls), 'tag:C');

        // The sorting goes out, and into another project of the same file.
        $file = Gltf::keep('').'.json';
        $says('sorting', $file);
        [, $out] = $this->shelf('import', 'new', $model->write('glb'), "--person=$ida->email", '--sort-by=unsorted', '--json');
        $other = json_decode($out, true)['project'];
        [$code, , $error] = $this->shelf('sorting', $other, $file, '--read');
        self::assertSame([0, ''], [$code, $error]);
        $numbers = static function (string $project) use ($ida): array {
            $bench = Bench::of(Project::query()->where('key', $project)->firstOrFail(), $ida);
            $rows = $bench->find('tag:A or layer:Walls or set:Fixed or set:"Parts of B"')->rows?->rows() ?? [];

            return array_map($bench->scene()->number(...), $rows);
        };
        self::assertNotSame([], $numbers($key));
        self::assertSame($numbers($key), $numbers($other));
        self::assertSame($locks, json_decode($this->shelf('effect', $other)[1], true)['locks']);
        $says('undo');
        $says('redo');
        [$code, , $error] = $this->shelf('redo', $key);
        self::assertSame([2, "Nothing to redo.\n"], [$code, $error]);
        @unlink($file);
    }

    public function test_whatever_is_wrong_is_one_plain_sentence(): void
    {
        $ida = $this->person();
        $this->person('Otto Quill');
        $broken = Gltf::keep('{"asset":{"version":"2.0"},"nodes":[{]}');
        foreach (
            [
                [['import'], 'Not enough arguments'],
                [['import', 'new', '/nowhere.glb', "--person=$ida->email"], 'There is no readable file at /nowhere.glb.'],
                [['import', 'new', $broken, "--person=$ida->email"], 'JSON is broken'],
                [['import', 'new', $broken, "--person=$ida->email", '--sort-by=mood'], 'Layers can be made from'],
                [['import', 'gone', $broken], 'There is no project with the key gone.'],
                [['rule', 'gone', 'seat'], 'There is no project with the key gone.'],
                [['rule', 'gone'], 'Not enough arguments'],
                [['views', 'gone', '--loud'], 'option does not exist'],
                [['fly'], 'The commands are'],
                [[], 'The commands are'],
            ] as [$words, $said]
        ) {
            [$code, $out, $error] = $this->shelf(...$words);
            $which = implode(' ', $words);
            self::assertSame([2, ''], [$code, $out], $which);
            self::assertStringContainsString($said, $error, $which);
            self::assertSame(1, substr_count($error, "\n"), "$which: $error");
            self::assertDoesNotMatchRegularExpression('~#0|vendor/|\x1b|⇂~', $error, $which);
        }
        [$code, , $error] = $this->shelf('views', 'any', surroundings: ['DB_PORT' => '1']);
        self::assertSame([2, "The database cannot be reached; bin/start starts it.\n"], [$code, $error]);
    }

    public function test_a_command_that_waits_says_for_whom(): void
    {
        [$ida, $bea] = [$this->person(), $this->person('Bea Lind')];
        $project = $this->baths($ida);
        $project->people()->attach($bea, ['role' => 'editor']);
        $change = $this->otherConnection();
        $change->exec('BEGIN');
        $change->exec("SET LOCAL application_name = 'change $project->id $bea->id'");
        $change->exec("SELECT 1 FROM projects WHERE id = $project->id FOR NO KEY UPDATE");
        $tag = fn (): array => $this->shelf('tag', $project->key, 'Wet', 'pump', surroundings: ['SHELF_WAITS_FOR_CHANGES' => '1']);
        self::assertSame(
            [
                2,
                '',
                "Bea Lind is changing the project; yours comes next.\n".
                "Another change has been under way for 1 seconds; yours was not made. Try again in a while.\n",
            ],
            $tag(),
        );
        $change->exec('ROLLBACK');
        [$code, , $error] = $tag();
        self::assertSame([0, ''], [$code, $error]);
        self::assertSame(1, DB::table('tags')->where('project_id', $project->id)->count());
    }

    /**
     * @param array<string, string> $surroundings
     *
     * @return array{int, string, string} exit code, output, errors
     */
    private function shelf(mixed ...$words): array
    {
        $surroundings = $words['surroundings'] ?? [];
        unset($words['surroundings']);
        $process = proc_open(
            [PHP_BINARY, __DIR__.'/../../bin/shelf', ...array_map(strval(...), array_values($words))],
            [1 => ['pipe', 'w'], 2 => ['pipe', 'w']],
            $pipes,
            null,
            $surroundings + ['FILES_ROOT' => Storage::disk('local')->path(''), 'QUEUE_CONNECTION' => 'database'] + $this->surroundings(),
        );
        self::assertIsResource($process);
        // An import waits for a worker.
        $needsWorker = ($words[0] ?? '') === 'import' && count($words) > 2 && $surroundings === [];
        while (($status = proc_get_status($process))['running']) {
            $needsWorker ? $this->finish($this->worker()) : usleep(20_000);
        }
        [$out, $error] = [(string) stream_get_contents($pipes[1]), (string) stream_get_contents($pipes[2])];
        proc_close($process);

        return [$status['exitcode'], $out, $error];
    }
}
