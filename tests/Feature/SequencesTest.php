<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Bench\Keys;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\ChangeMembers;
use App\Changes\ChangeMemberships;
use App\Changes\ChangeOrganizer;
use App\Changes\ChangeView;
use App\Changes\ClearOut;
use App\Changes\Command;
use App\Changes\CreateFolder;
use App\Changes\CreateLayer;
use App\Changes\CreateLayers;
use App\Changes\CreateSet;
use App\Changes\CreateTag;
use App\Changes\DeleteLayer;
use App\Changes\DeleteRows;
use App\Changes\EmptyLayer;
use App\Changes\FileObjects;
use App\Changes\GiveBackPictures;
use App\Changes\History;
use App\Changes\HoldBackSource;
use App\Changes\LightenPictures;
use App\Changes\MergeLayers;
use App\Changes\MoveRows;
use App\Changes\RenameRows;
use App\Changes\SetLocks;
use App\Changes\SetOutput;
use App\Changes\SetOwn;
use App\Changes\SwapMeshes;
use App\Changes\TagObjects;
use App\Models\User;
use Illuminate\Support\Facades\DB;
use Tests\Core\Support\Gltf;
use Tests\Feature\Support\PlainSorting;
use VineShelf\Folders\Holds;
use VineShelf\Layers\GroupBy;
use VineShelf\Layers\SortBy;
use VineShelf\Locks\Lock;
use VineShelf\Naming\Renaming;
use VineShelf\Output\Output;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;

/**
 * Random changes, one after the other and back again, by two people: the database, the index and what each change said of itself agree, no
 * object is without exactly one layer, and what is locked is never changed.
 */
final class SequencesTest extends ProjectTestCase
{
    private User $bea;

    private History $history;

    protected function baths(User $person): \App\Models\Project
    {
        // Forty-five objects nest and repeat as much as three thousand do, and are compared a hundred times faster.
        $nodes = [];
        for ($index = 0; $index < 45; $index++) {
            $parent = $index % 5 === 0 ? null : $index - 1 - ($index % 3 === 0 ? 0 : ($index % 5) - 1);
            $nodes[$index] = [
                'name' => ['Seat', 'Pump', 'Beam', 'Pane'][$index % 4]." $index",
                'extras' => ['layer' => 'Layer '.$index % 6],
            ];
            if ($index % 2 === 1) {
                $nodes[$index]['mesh'] = intdiv($index, 2) % 2;
            }
            if ($parent !== null && $parent >= 0) {
                $nodes[$parent]['children'][] = $index;
            }
        }
        $held = array_merge(...array_map(static fn (array $node): array => $node['children'] ?? [], $nodes));
        $gltf = Gltf::triangle();
        $gltf['meshes'][1] = ['name' => 'Other'] + $gltf['meshes'][0];
        $gltf['nodes'] = $nodes;
        $gltf['scenes'] = [['nodes' => array_values(array_diff(range(0, 44), $held))]];
        $import = $this->takeIn($person, Gltf::file($gltf), SortBy::Property, 'small.gltf', property: 'layer');

        return $import->project ?? throw new \LogicException($import->error);
    }

    protected function setUp(): void
    {
        parent::setUp();
        $this->bea = $this->person('Bea Lind');
        $this->project->people()->attach($this->bea, ['role' => 'editor']);
        $this->history = $this->app->make(History::class);
    }

    public function test_random_changes_and_undos_leave_database_and_index_in_agreement(): void
    {
        mt_srand(77);
        $states = [];
        $made = $refused = $turned = 0;
        for ($step = 0; $step < 300; $step++) {
            $bench = Bench::of($this->project->refresh(), mt_rand(0, 1) === 0 ? $this->ida : $this->bea);
            $before = $this->state();
            $lockedBefore = $this->locked($bench);
            $way = mt_rand(0, 9);
            if ($way < 2) {
                $this->assertUndoBringsBack($bench, $states, $before);
                $turned++;

                continue;
            }
            try {
                $command = $this->history->carryOut($bench, $this->some(...));
            } catch (Refused) {
                self::assertSame($before, $this->state(), 'what is refused changes nothing');
                $refused++;

                continue;
            }
            if ($command->change !== null) {
                $states[$command->change] = [$before, $this->state()];
                $made++;
                self::assertNotSame('', $command->name());
            }
            $this->assertWhole($command, $lockedBefore);
            if ($step % 20 === 0) {
                $this->assertIndexTrue($this->project);
            }
        }
        $this->assertIndexTrue($this->project);
        self::assertGreaterThan(110, $made);
        self::assertGreaterThan(40, $turned);
        self::assertGreaterThan(8, $refused);
    }

    public function test_the_index_says_what_plain_arrays_say_after_every_change_undo_and_redo(): void
    {
        mt_srand(4);
        $model = new PlainSorting;
        foreach (
            $this->project
                ->objects()
                ->orderBy('no')
                ->get(['no', 'parent_no', 'layer_no', 'project_id']) as $object
        ) {
            $model->parents[$object->no] = $object->parent_no;
            $model->layerOf[$object->no] = $object->layer_no;
        }
        foreach (range(1, 3) as $number) {
            $this->history->carryOut($this->bench(), static fn (Bench $held): CreateTag => new CreateTag($held, "Tag $number", 0, null));
            $this->history->carryOut(
                $this->bench(),
                static fn (Bench $held): CreateSet => CreateSet::fixed($held, "Set $number", 0, Bits::none($held->scene()->count())),
            );
            $model->tags[$number] = $model->sets[$number] = [];
        }
        $done = $undone = [];
        $steps = 0;
        for ($step = 0; $step < 480; $step++) {
            $bench = Bench::of($this->project->refresh(), [$this->ida, $this->bea][mt_rand(0, 1)]);
            $turn = mt_rand(0, 9);
            if ($turn < 2 && $done !== []) {
                [$person, $before] = array_pop($done);
                $undone[] = [$bench->person->id, $model];
                self::assertNotNull($this->history->undo($bench)->change);
                $model = $before;
            } elseif ($turn === 2 && $undone !== [] && $undone[count($undone) - 1][0] === $bench->person->id) {
                [, $after] = array_pop($undone);
                self::assertNotNull($this->history->redo($bench)->change);
                $done[] = [$bench->person->id, $model];
                $model = $after;
            } else {
                $next = clone $model;
                $command = $this->history->carryOut($bench, fn (Bench $held): Command => $this->mirrored($held, $next));
                if ($command->change !== null) {
                    $done[] = [$bench->person->id, $model];
                    // What the person took back before can no longer be done again; what others took back stands on what was.
                    $undone = [];
                    $steps++;
                }
                $model = $next;
            }
            self::assertSame($model->state(), $this->indexed($model), "step $step");
        }
        self::assertGreaterThan(230, $steps);
        $this->assertIndexTrue($this->project->refresh());
    }

    /** A change, and what plain arrays make of it. */
    private function mirrored(Bench $bench, PlainSorting $model): Command
    {
        $numbers = array_values(array_filter(array_keys($model->parents), static fn (): bool => mt_rand(0, 9) === 0)) ?: [1];
        $rows = Bits::ofRows($bench->scene()->count(), $bench->scene()->rowsOf($numbers));
        $tag = (int) array_rand($model->tags);
        $set = mt_rand(1, 3);
        $layer = $bench->layers()->walk()[mt_rand(0, $bench->layers()->count() - 1)][0];
        $on = [true, false, null][mt_rand(0, 2)];
        $withHeld = mt_rand(0, 1) === 1;
        $lock = [0, 0, 1, 2][mt_rand(0, 3)];
        $value = [null, 'F30', 'F90'][mt_rand(0, 2)];
        $targets = static fn (string $key): Targets => Targets::named(Keys::of([$key]), $bench);
        switch (mt_rand(0, 11)) {
            case 0:
            case 1:
                $model->file($numbers, $layer->number);

                return new FileObjects($bench, $rows, $layer);
            case 2:
            case 3:
                $model->tag($numbers, $tag, $on, $withHeld);

                return new TagObjects($bench, $rows, $bench->tags()->get($tag), $on, $withHeld);
            case 4:
                $model->member($numbers, $tag, $set, $on !== false);

                return new ChangeMemberships($bench, $rows, ["T$tag", "E$set"], $on !== false);
            case 5:
                $model->fire($numbers, $value);

                return new SetOwn($bench, $rows, 'fire', $value);
            case 6:
                $model->locks[$numbers[0]] = $lock;

                return new SetLocks($bench, $targets("O$numbers[0]"), Lock::from($lock));
            case 7:
                $model->tagLocks[$tag] = $lock;

                return new SetLocks($bench, $targets("T$tag"), Lock::from($lock));
            case 8:
                $model->layerLocks[$layer->number] = $lock;

                return new SetLocks($bench, $targets("L$layer->number"), Lock::from($lock));
            case 9:
                $output = [null, ...Output::cases()][mt_rand(0, 8)];
                $keys = ["L$layer->number", "T$tag"];
                $model->output($numbers, $keys, $output?->value);

                return new SetOutput(
                    $bench,
                    Targets::named(Keys::of([...$keys, ...array_map(static fn (int $number): string => "O$number", $numbers)]), $bench),
                    $output,
                );
            default:
                $new = $bench->project->next_tag;
                $model->tags[$new] = $model->open($model->withHeld($numbers));

                return new CreateTag($bench, "Tag $new", 0, $rows);
        }
    }

    /** @return array<string, mixed> the same from the index */
    private function indexed(PlainSorting $model): array
    {
        $bench = $this->bench();
        $scene = $bench->scene();
        $numbers = static function (Bits $rows) use ($scene): array {
            $numbers = array_map($scene->number(...), $rows->rows());
            sort($numbers);

            return $numbers;
        };
        $layers = $fire = $tags = $sets = [];
        foreach (array_keys($model->parents) as $number) {
            $layers[$number] = $scene->layers()->at($scene->row($number));
            $value = $bench->organizers()->own->at($scene, $scene->row($number), 'fire');
            $fire += $value === null ? [] : [$number => $value];
        }
        foreach ($bench->tags()->all() as $tag) {
            $tags[$tag->number] = $numbers($scene->tagged($tag->number));
        }
        foreach ($bench->sets()->all() as $set) {
            $sets[$set->number] = $numbers($bench->set($set)->rows);
        }
        $settings = $bench->outputs()->settings();
        $outputs = [];
        foreach (['L' => $settings->layers, 'T' => $settings->tags] as $letter => $values) {
            foreach ($values as $number => $value) {
                $outputs[$letter.$number] = $value;
            }
        }
        foreach ($settings->objects as $value => $those) {
            foreach ($those->rows() as $number) {
                $outputs["O$number"] = $value;
            }
        }
        ksort($outputs);
        ksort($layers);
        ksort($fire);
        ksort($tags);
        ksort($sets);

        return [
            'layers' => $layers,
            'tags' => $tags,
            'sets' => $sets,
            'fire' => $fire,
            'locked' => $numbers($bench->inEffect()->locked()),
            'outputs' => $outputs,
        ];
    }

    /** @param array<int, array{string, string}> $states the project before and after each change */
    private function assertUndoBringsBack(Bench $bench, array &$states, string $now): void
    {
        $undo = mt_rand(0, 2) > 0;
        $turned = $undo ? $this->history->undo($bench) : $this->history->redo($bench);
        self::assertStringNotContainsString('cannot be read', $turned->sentence);
        if ($turned->change === null) {
            self::assertSame($now, $this->state(), $turned->sentence);

            return;
        }
        [$before, $after] = $states[$turned->change->no] ?? ['', ''];
        if ($undo && $after === $now) {
            self::assertSame($before, $this->state(), $turned->sentence);
        }
        if (! $undo && $before === $now) {
            self::assertSame($after, $this->state(), $turned->sentence);
        }
        if (mt_rand(0, 3) === 0) {
            $this->assertIndexTrue($this->project);
        }
        $this->assertHomes();
    }

    /** Everything that changes can change, as the database has it. */
    private function state(): string
    {
        $rows = [];
        foreach (['layers', 'tags', 'folders', 'sets', 'views', 'own_values'] as $table) {
            foreach (DB::table($table)->where('project_id', $this->project->id)->orderBy('no')->get() as $row) {
                $row = array_map(
                    static fn (mixed $value): mixed => is_resource($value) ? bin2hex((string) stream_get_contents($value)) : $value,
                    (array) $row,
                );
                // Without any, and with none: the same.
                $row['members'] = $row['members'] ?? '' ?: '';
                $rows[$table][] = $row;
            }
        }
        $rows['objects'] = DB::table('objects')
            ->where('project_id', $this->project->id)
            ->orderBy('no')
            ->get(['no', 'layer_no', 'lock', 'gone', 'name', 'mesh_no', 'triangles', 'vertices'])
            ->all();
        $rows['sources'] = DB::table('sources')->where('project_id', $this->project->id)->orderBy('id')->pluck('held_back')->all();

        return json_encode($rows, JSON_THROW_ON_ERROR);
    }

    /** @return array<int, array{int, list<int>}> layer and tags of the locked objects, by number */
    private function locked(Bench $bench): array
    {
        $scene = $bench->scene();
        $locked = [];
        foreach ($bench->inEffect()->locked()->rows() as $row) {
            $tags = [];
            foreach ($bench->tags()->all() as $tag) {
                if ($scene->tagged($tag->number)->has($row)) {
                    $tags[] = $tag->number;
                }
            }
            $locked[$scene->number($row)] = [$scene->layers()->at($row), $tags];
        }

        return $locked;
    }

    /** @param array<int, array{int, list<int>}> $lockedBefore */
    private function assertWhole(Command $command, array $lockedBefore): void
    {
        $this->assertHomes();
        $bench = $this->bench();
        foreach ($lockedBefore as $number => [$layer, $tags]) {
            $row = $bench->scene()->row($number);
            self::assertGreaterThan(0, $row, "locked object $number is still there after {$command->name()}");
            self::assertSame($layer, $bench->scene()->layers()->at($row), "layer of locked object $number after {$command->name()}");
            foreach ($bench->tags()->all() as $tag) {
                self::assertSame(
                    in_array($tag->number, $tags, true),
                    $bench->scene()->tagged($tag->number)->has($row),
                    "tag $tag->name of locked object $number after {$command->name()}",
                );
            }
        }
    }

    private function assertHomes(): void
    {
        $this->assertNoCircles();
        $homeless = DB::selectOne(
            'SELECT count(*) AS objects FROM objects o LEFT JOIN layers l ON l.project_id = o.project_id AND l.no = o.layer_no
             WHERE o.project_id = ? AND NOT o.gone AND l.no IS NULL',
            [$this->project->id],
        );
        self::assertSame(0, (int) $homeless->objects, 'every object has a layer');
        foreach (
            [
                'layers' => ['parent_no', 'layers'],
                'tags' => ['folder_no', 'folders'],
                'sets' => ['folder_no', 'folders'],
                'folders' => ['parent_no', 'folders'],
            ] as $table => [$column, $in]
        ) {
            $lost = DB::selectOne(
                "SELECT count(*) AS rows FROM $table t LEFT JOIN $in p ON p.project_id = t.project_id AND p.no = t.$column
                 WHERE t.project_id = ? AND t.$column > 0 AND p.no IS NULL",
                [$this->project->id],
            );
            self::assertSame(0, (int) $lost->rows, "$table lie in something that is there");
        }
    }

    /** Walking up from any row comes to the top. */
    private function assertNoCircles(): void
    {
        foreach (['layers', 'folders'] as $table) {
            $parents = DB::table($table)->where('project_id', $this->project->id)->pluck('parent_no', 'no')->all();
            foreach (array_keys($parents) as $number) {
                for ($at = $number, $steps = 0; $at > 0; $at = $parents[$at], $steps++) {
                    self::assertLessThanOrEqual(count($parents), $steps, "row $number of $table lies in itself");
                }
            }
        }
    }

    private function some(Bench $bench): Command
    {
        $layers = array_map(static fn (array $entry): int => $entry[0]->number, $bench->layers()->walk());
        $tags = array_keys($bench->tags()->tree->members);
        $sets = array_keys($bench->sets()->tree->members);
        $keys = [
            ...array_map(static fn (int $number): string => "L$number", $layers),
            ...array_map(static fn (int $number): string => "T$number", $tags),
            ...array_map(static fn (int $number): string => "E$number", $sets),
            ...array_map(static fn (int $number): string => "F$number", array_keys($bench->tags()->tree->folders)),
            ...array_map(static fn (int $number): string => "F$number", array_keys($bench->sets()->tree->folders)),
        ];
        $one = static fn (array $of): mixed => $of === [] ? 0 : $of[array_rand($of)];
        $some = static fn (array $of): array => $of === []
            ? []
            : array_values(array_intersect_key($of, array_flip((array) array_rand($of, mt_rand(1, min(3, count($of)))))));
        $name = static fn (): string => ['Wet', 'North', 'Phase', 'Scheme', 'Oak', 'Later'][mt_rand(0, 5)].' '.mt_rand(1, 9);
        $rows = static fn (): Bits => Bits::ofRows(
            $bench->scene()->count(),
            array_values(
                array_filter(
                    range(1, max(1, $bench->scene()->count())),
                    static fn (int $row): bool => mt_rand(0, 4) === 0 && $row <= $bench->scene()->count(),
                ),
            ),
        );
        $folders = [0, ...array_keys($bench->tags()->tree->folders)];
        $rule = static fn (): string => [
            'seat',
            'tag:north or layer:"Layer 1"',
            'set:wet',
            'not set="Phase 3"',
            'is tagged',
            'kind:part layer:1',
        ][mt_rand(0, 5)];

        $shelves = [0, ...array_keys($bench->shelf()->folders)];
        $views = [
            ...array_map(static fn (int $number): string => "V$number", array_keys($bench->shelf()->members)),
            ...array_map(static fn (int $number): string => "F$number", array_keys($bench->shelf()->folders)),
        ];
        $owned = [...$tags === [] ? [] : ['T'.$one($tags)], ...$sets === [] ? [] : ['E'.$one($sets)]];

        $numbers = static fn (): Bits => $bench->scene()->numberBits($rows());
        $proposed = static fn (): Settings => mt_rand(0, 1) === 1
            ? new Settings([(int) $one($layers) => [0, 1, 3][mt_rand(0, 2)]])
            : new Settings([], [[0, 1, 3][mt_rand(0, 2)] => $numbers()]);

        return match (mt_rand(0, 35)) {
            0, 1, 2 => new FileObjects($bench, $rows(), $bench->layers()->get($one($layers)), mt_rand(0, 1) === 1),
            3 => new CreateLayer($bench, $name(), $one([0, ...$layers]), mt_rand(0, 1) === 1 ? $rows() : null),
            4, 5 => new CreateTag($bench, $name(), $one($folders), mt_rand(0, 1) === 1 ? $rows() : null, mt_rand(0, 1) === 1),
            6, 7, 8 => $tags === []
                ? new CreateTag($bench, $name(), 0, $rows())
                : new TagObjects(
                    $bench,
                    $rows(),
                    $bench->tags()->get($one($tags)),
                    [true, false, null][mt_rand(0, 2)],
                    mt_rand(0, 1) === 1,
                ),
            9 => new CreateFolder(
                $bench,
                [Holds::Tags, Holds::Sets][mt_rand(0, 1)],
                $name(),
                $one($folders),
                mt_rand(0, 1) === 1 ? $some($keys) : [],
            ),
            10 => CreateSet::fixed($bench, $name(), $one([0, ...array_keys($bench->sets()->tree->folders)]), $rows()),
            11 => CreateSet::live($bench, $name(), 0, $rule()),
            12 => ChangeMembers::of($bench, (int) $one($sets), $rows(), ['add', 'remove', 'replace'][mt_rand(0, 2)]),
            13, 14, 15 => new MoveRows(
                $bench,
                $some($keys),
                ['into', 'into', 'before', 'after'][mt_rand(0, 3)],
                (string) $one(['', ...$keys]),
            ),
            16 => mt_rand(0, 1) === 1
                ? new DeleteRows(
                    $bench,
                    $some(array_values(array_filter($keys, static fn (string $key): bool => $key[0] !== 'L'))) ?: ['T99'],
                    mt_rand(0, 1) === 1,
                )
                : new DeleteLayer($bench, $one($layers), mt_rand(0, 5) === 0 ? null : $one($layers)),
            17 => new SetLocks(
                $bench,
                Targets::named(Keys::of($some([...$keys, 'O3', 'O7', 'O12', 'O20'])), $bench),
                Lock::from([0, 0, 0, 1, 2][mt_rand(0, 4)]),
            ),
            18 => ChangeOrganizer::rename($bench, (string) $one($keys), $name()),
            19 => mt_rand(0, 1) === 1 ? new EmptyLayer($bench, $one($layers)) : new MergeLayers($bench, $some($layers), $one($layers)),
            20 => mt_rand(0, 5) === 0
                ? new ClearOut($bench, ['layers', 'tags', 'sets'])
                : new SetLocks($bench, Targets::named(Keys::of($keys), $bench), Lock::Open),
            21 => new ChangeMemberships($bench, $rows(), $owned, mt_rand(0, 2) > 0),
            22, 23 => new SetOwn(
                $bench,
                $rows(),
                ['fire', 'client', OwnValue::NOTE, OwnValue::COLOUR][mt_rand(0, 3)],
                [null, 'F30', 'F90', '#3f7a63'][mt_rand(0, 3)],
            ),
            24 => new RenameRows(
                $bench,
                $some($keys),
                new Renaming(['?*', 'Wet *'][mt_rand(0, 1)], ['$1$2', 'Dry $1'][mt_rand(0, 1)], '', $name().' '),
            ),
            25 => mt_rand(0, 1) === 1
                ? ChangeView::keep($bench->project, $name(), null, $bench->settings(), null, '')
                : new CreateFolder($bench, Holds::Views, $name(), $one($shelves), $some($views)),
            26 => new MoveRows($bench, $some($views) ?: ['V99'], ['into', 'before'][mt_rand(0, 1)], (string) $one(['', ...$views])),
            27 => new DeleteRows($bench, $some($views) ?: ['V99'], mt_rand(0, 1) === 1),
            28, 29 => new SetOutput(
                $bench,
                Targets::named(Keys::of($some([...$keys, 'O3', 'O7', 'O12', 'O20'])), $bench),
                [null, ...Output::cases()][mt_rand(0, 8)],
                ['', 'helper'][mt_rand(0, 1)],
            ),
            30 => ChangeView::keep($bench->project, $name(), null, null, $bench->outputs()->settings(), ''),
            31 => new LightenPictures($bench, $proposed(), 100),
            32 => new GiveBackPictures($bench, $proposed(), ['objects' => ['2' => base64_encode(Members::pack($numbers()))]]),
            33 => new SwapMeshes($bench, [[1 => 2], [2 => 1]][mt_rand(0, 1)], 'Swap'),
            34 => new HoldBackSource($bench, (int) $bench->project->sources()->value('id'), ['', 'lent', 'sketch'][mt_rand(0, 2)]),
            default => new CreateLayers($bench, GroupBy::cases()[mt_rand(0, 5)], $one([0, ...$layers]), $rows()),
        };
    }
}
