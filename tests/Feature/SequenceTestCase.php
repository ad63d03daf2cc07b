<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Bench\Keys;
use App\Bench\Targets;
use App\Changes\ChangeLines;
use App\Changes\ChangeMembers;
use App\Changes\ChangeMemberships;
use App\Changes\ChangeOrganizer;
use App\Changes\ChangeViews;
use App\Changes\ClearOut;
use App\Changes\Command;
use App\Changes\CopyObjects;
use App\Changes\CreateFolder;
use App\Changes\CreateLayer;
use App\Changes\CreateLayers;
use App\Changes\CreateSet;
use App\Changes\CreateTag;
use App\Changes\DeleteLayer;
use App\Changes\DeleteLayers;
use App\Changes\DeleteObjects;
use App\Changes\DeleteRows;
use App\Changes\Edits\MembersEdit;
use App\Changes\EmptyLayer;
use App\Changes\FileObjects;
use App\Changes\GiveBackPictures;
use App\Changes\GroupObjects;
use App\Changes\History;
use App\Changes\HoldBackSource;
use App\Changes\KeepView;
use App\Changes\LightenPictures;
use App\Changes\MergeLayers;
use App\Changes\MergeTags;
use App\Changes\MoveRows;
use App\Changes\NestObjects;
use App\Changes\OrderObjects;
use App\Changes\RenameRows;
use App\Changes\SetLocks;
use App\Changes\SetOutput;
use App\Changes\SetOwn;
use App\Changes\SortByLines;
use App\Changes\SwapMeshes;
use App\Changes\TagObjects;
use App\Changes\UngroupObjects;
use App\Changes\ViewsAsTheyWere;
use App\Models\ImportState;
use App\Models\User;
use App\Models\View;
use App\SortingRules\DryRun;
use App\SortingRules\StoredLine;
use Illuminate\Support\Facades\DB;
use Tests\Core\Support\Gltf;
use VineShelf\Exchange\SortingLine;
use VineShelf\Folders\Holds;
use VineShelf\Geometry\Copies;
use VineShelf\Layers\GroupBy;
use VineShelf\Layers\SortBy;
use VineShelf\Locks\Lock;
use VineShelf\Naming\Renaming;
use VineShelf\Output\Output;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Rungs\Turn;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Views\Facet;

/** A small model with much of everything, random changes of it, and what holds after each of them. */
abstract class SequenceTestCase extends ProjectTestCase
{
    protected User $bea;

    protected History $history;

    /** How often views were said to show something differently. */
    protected int $announced = 0;

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

    /** @param array<int, array{string, string}> $states the project before and after each change */
    protected function assertUndoBringsBack(Bench $bench, array &$states, string $now): void
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

    /** Another file comes in, with layers that are there, were renamed or merged meanwhile, or never were. @return int the change */
    protected function addFile(User $person): int
    {
        $names = ['Layer 1', 'layer 4', 'Wet '.mt_rand(1, 9), 'Joinery', ''];
        $gltf = Gltf::triangle();
        $gltf['nodes'] = array_map(
            static fn (int $at): array => ['name' => "Late $at", 'mesh' => 0, 'extras' => ['layer' => $names[array_rand($names)]]],
            range(1, mt_rand(1, 4)),
        );
        $gltf['scenes'] = [['nodes' => array_keys($gltf['nodes'])]];
        $import = $this->takeIn($person, Gltf::file($gltf), SortBy::Property, 'late.gltf', into: $this->project, property: 'layer');
        self::assertSame(ImportState::Done, $import->state, $import->error);

        return (int) $this->project->changes()->max('no');
    }

    /** Everything that changes can change, as the database has it. */
    protected function state(): string
    {
        $rows = [];
        foreach (['layers', 'tags', 'folders', 'sets', 'views', 'own_values', 'sorting_lines'] as $table) {
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
        // What was made here or taken in and is away again is as if it had never been.
        $sources = DB::table('sources')->where('project_id', $this->project->id)->where('gone', false)->orderBy('id');
        $rows['objects'] = DB::table('objects')
            ->where('project_id', $this->project->id)
            ->where(static fn ($made) => $made->where('gone', false)->orWhereIn('source_id', $sources->clone()->pluck('id')))
            ->orderBy('no')
            ->get(['no', 'parent_no', 'position', 'layer_no', 'lock', 'gone', 'name', 'mesh_no', 'triangles', 'vertices'])
            ->all();
        $rows['sources'] = $sources->pluck('held_back')->all();

        return json_encode($rows, JSON_THROW_ON_ERROR);
    }

    /**
     * Views show what they showed, or the change says how many do not.
     *
     * @param array<int, array<int, int>> $before rungs by object, by view
     */
    protected function assertViewsAnnounced(Command $command, array $before): void
    {
        if ($command instanceof ChangeViews || $command instanceof ViewsAsTheyWere || $command instanceof LightenPictures) {
            return;
        }
        $after = $this->shownInViews();
        $differing = [];
        foreach (array_intersect_key($before, $after) as $view => $rungs) {
            if (array_intersect_key($rungs, $after[$view]) !== array_intersect_key($after[$view], $rungs)) {
                $differing[abs($view)] = true;
            }
        }
        $differ = count($differing);
        self::assertSame($differ, $command->viewsDiffer, "views that differ after {$command->name()}");
        $this->announced += $differ;
    }

    /**
     * What every view that keeps rungs shows of every object, and what of that its pictures take over, going up every chain.
     *
     * @return array<int, array<int, int>> by number of the view, below zero for its pictures
     */
    protected function shownInViews(): array
    {
        $project = $this->project->refresh();
        $parents = fn (string $table, string $column): array => array_map(
            intval(...),
            DB::table($table)->where('project_id', $project->id)->pluck($column, 'no')->all(),
        );
        [$layers, $folders, $tags] = [$parents('layers', 'parent_no'), $parents('folders', 'parent_no'), $parents('tags', 'folder_no')];
        $members = [];
        foreach ($tags as $tag => $_) {
            $members[$tag] = MembersEdit::members($project, 'tags', $tag) ?? Bits::none(0);
        }
        $objects = $project
            ->objects()
            ->where('gone', false)
            ->orderBy('no')
            ->get(['project_id', 'no', 'parent_no', 'layer_no']);
        $above = $objects->pluck('parent_no', 'no')->all();
        $shown = [];
        foreach ($project->views()->whereNotNull('rungs')->get() as $view) {
            foreach ([$view->no => $view->settings(), -$view->no => $view->meant()] as $key => $set) {
                foreach ($objects as $object) {
                    $rungs = [$set->object($object->no), $set->layerAlone($object->layer_no)];
                    for ($at = $above[$object->no]; $at > 0; $at = $above[$at] ?? 0) {
                        $rungs[] = $set->reaching($at);
                    }
                    for ($at = $object->layer_no; $at > 0; $at = $layers[$at]) {
                        $rungs[] = $set->layer($at);
                    }
                    foreach ($members as $tag => $those) {
                        if ($object->no <= $those->length && $those->has($object->no)) {
                            $rungs[] = $set->tag($tag);
                            for ($at = $tags[$tag]; $at > 0; $at = $folders[$at]) {
                                $rungs[] = $set->folder($at);
                            }
                        }
                    }
                    $values = array_map(static fn (?Rung $rung): int => $rung->value ?? 5, $rungs);
                    $shown[$key][$object->no] = self::isAlone($view, $object->no, $above)
                        ? 5
                        : min($view->isolation()?->rest()->value ?? 5, ...$values);
                }
            }
        }

        return $shown;
    }

    /** @param array<int, int> $above what each object stands in */
    private static function isAlone(View $view, int $number, array $above): bool
    {
        for ($at = $number; $at > 0; $at = $above[$at] ?? 0) {
            if ($view->isolation()?->objects()->has($at) === true) {
                return true;
            }
        }

        return false;
    }

    protected function someRungs(Bench $bench): Settings
    {
        $settings = new Settings;
        foreach ($bench->layers()->walk() as [$layer]) {
            $settings = mt_rand(0, 1) === 0 ? $settings->withLayers([$layer->number], Rung::from(mt_rand(0, 4))) : $settings;
        }
        foreach ($bench->tags()->all() as $tag) {
            $settings = mt_rand(0, 1) === 0 ? $settings->withTags([$tag->number], Rung::from(mt_rand(0, 4))) : $settings;
        }
        foreach ($bench->tags()->tree->folders as $folder) {
            $settings = mt_rand(0, 2) === 0 ? $settings->withFolders([$folder->number], Rung::from(mt_rand(0, 4))) : $settings;
        }

        foreach (
            mt_rand(0, 1) === 0 || $bench->scene()->count() < 3 ? [] : array_rand(array_fill(1, $bench->scene()->count(), true), 3) as $row
        ) {
            $number = $bench->scene()->number($row);
            $settings = $settings->withObjects(Bits::ofRows($number, [$number]), Rung::from(mt_rand(0, 4)));
        }

        return $settings->withObjects(Bits::ofRows(9, [mt_rand(1, 9)]), Rung::from(mt_rand(0, 4)));
    }

    /** @param list<string> $views keys @return list<int> */
    protected static function numbersOf(array $views): array
    {
        $those = array_filter($views, static fn (string $key): bool => $key[0] === 'V');

        return array_values(array_map(static fn (string $key): int => (int) substr($key, 1), $those)) ?: [99];
    }

    protected function assertHomes(): void
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
    protected function assertNoCircles(): void
    {
        foreach (['layers', 'folders', 'objects'] as $table) {
            $rows = DB::table($table)->where('project_id', $this->project->id);
            $parents = ($table === 'objects' ? $rows->where('gone', false) : $rows)->pluck('parent_no', 'no')->all();
            foreach (array_keys($parents) as $number) {
                for (
                    $at = $number, $steps = 0;
                    $at > 0;
                    $at = $parents[$at] ?? self::fail("row $number of $table lies in what is gone"), $steps++
                ) {
                    self::assertLessThanOrEqual(count($parents), $steps, "row $number of $table lies in itself");
                }
            }
        }
    }

    /** Not so many that little is left of the model. */
    private static function few(Bits $rows): Bits
    {
        return Bits::ofRows($rows->length, $rows->slice(mt_rand(0, 4), mt_rand(1, 3)));
    }

    /** Groups made and taken apart, and objects that move from one to another. */
    protected function someNesting(Bench $bench): Command
    {
        $scene = $bench->scene();
        $rows = array_values(array_filter(range(1, $scene->count()), static fn (): bool => mt_rand(0, 5) === 0)) ?: [1];
        $some = Bits::ofRows($scene->count(), $rows);
        $groups = [0, ...array_map($scene->number(...), $scene->groups())];

        return match (mt_rand(0, 3)) {
            0 => new GroupObjects($bench, $some, 'Group'),
            1 => new UngroupObjects($bench, $some),
            default => NestObjects::into($bench, self::few($some), $groups[array_rand($groups)]),
        };
    }

    /** What the list of sorting rules does, changed or run. */
    private function someSorting(Bench $bench): Command
    {
        $lines = StoredLine::all($bench->project);
        if ($lines === [] || mt_rand(0, 1) === 1) {
            return new SortByLines($bench, new DryRun($bench, $lines));
        }
        $line = $lines[array_rand($lines)]->number;

        return match (mt_rand(0, 3)) {
            0 => ChangeLines::move($bench, $line, [-1, 1, 1000][mt_rand(0, 2)]),
            1 => ChangeLines::duplicate($bench, $line),
            2 => ChangeLines::delete($bench, $line),
            default => ChangeLines::turn($bench, $line, mt_rand(0, 1) === 1),
        };
    }

    protected function some(Bench $bench, int $kinds = 52): Command
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

        return match (mt_rand(0, $kinds)) {
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
                : (mt_rand(0, 1) === 1
                    ? new DeleteLayer($bench, $one($layers), mt_rand(0, 5) === 0 ? null : $one($layers))
                    : new DeleteLayers(
                        $bench,
                        array_values(array_diff($some($layers), [1])),
                        [DeleteLayers::ABOVE, $one($layers)][mt_rand(0, 1)],
                        mt_rand(0, 2) === 0,
                    )),
            17 => new SetLocks(
                $bench,
                Targets::named(Keys::of($some([...$keys, 'O3', 'O7', 'O12', 'O20'])), $bench),
                Lock::from([0, 0, 0, 1, 2][mt_rand(0, 4)]),
            ),
            18 => ChangeOrganizer::rename($bench, (string) $one($keys), $name()),
            19 => match (mt_rand(0, 2)) {
                0 => new EmptyLayer($bench, $one($layers)),
                1 => new MergeTags($bench, $some($tags) ?: [99], (int) $one($tags)),
                default => new MergeLayers($bench, $some($layers), $one($layers)),
            },
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
                ? new KeepView($bench, $name(), [Facet::Rungs, Facet::Isolation], null, '', $this->someRungs($bench))
                : new CreateFolder($bench, Holds::Views, $name(), $one($shelves), $some($views)),
            26 => new MoveRows($bench, $some($views) ?: ['V99'], ['into', 'before'][mt_rand(0, 1)], (string) $one(['', ...$views])),
            27 => new DeleteRows($bench, $some($views) ?: ['V99'], mt_rand(0, 1) === 1),
            28, 29 => new SetOutput(
                $bench,
                Targets::named(Keys::of($some([...$keys, 'O3', 'O7', 'O12', 'O20'])), $bench),
                [null, Turn::Hide, Turn::Back, ...Output::cases()][mt_rand(0, 10)],
                ['', 'helper'][mt_rand(0, 1)],
            ),
            30 => new KeepView($bench, $name(), [[Facet::Output], [Facet::Tint, Facet::Section]][mt_rand(0, 1)], null, ''),
            35 => ChangeViews::review($bench, self::numbersOf($views)),
            36 => ChangeViews::newcomers($bench, self::numbersOf($views), [0, 5, -1][mt_rand(0, 2)]),
            37 => ChangeViews::facets(
                $bench,
                self::numbersOf($views),
                [[], [Facet::Tint], [Facet::Isolation], [Facet::Rungs]][mt_rand(0, 3)],
                [[], [Facet::Output], [Facet::Section]][mt_rand(0, 2)],
                null,
            ),
            38 => ChangeViews::duplicate($bench, self::numbersOf($views)),
            39 => new ViewsAsTheyWere($bench, $bench->project->next_change - mt_rand(1, 3)),
            31 => new LightenPictures($bench, $proposed(), 100),
            32 => new GiveBackPictures($bench, $proposed(), ['objects' => ['2' => base64_encode(Members::pack($numbers()))]]),
            42 => new GroupObjects($bench, $rows(), $name()),
            43 => new UngroupObjects($bench, $rows()),
            44, 45 => NestObjects::into(
                $bench,
                self::few($rows()),
                $one([0, ...array_map($bench->scene()->number(...), $bench->scene()->groups())]),
            ),
            46 => NestObjects::beside(
                $bench,
                self::few($rows()),
                $bench->scene()->count() === 0 ? 1 : $bench->scene()->number(mt_rand(1, $bench->scene()->count())),
                mt_rand(0, 1) === 1,
            ),
            47 => mt_rand(0, 1) === 1 ? new OrderObjects($bench, $rows()) : new DeleteObjects($bench, self::few($rows())),
            48 => new CopyObjects($bench, self::few($rows()), new Copies(mt_rand(1, 2), [1.0, 0.0, 0.5], 45.0)),
            49 => $this->someSorting($bench),
            50 => ChangeLines::add($bench, new SortingLine($rule(), [$name()], [], '', mt_rand(0, 1) === 1, mt_rand(0, 1) === 1)),
            33 => new SwapMeshes($bench, [[1 => 2], [2 => 1]][mt_rand(0, 1)], 'Swap'),
            34 => new HoldBackSource($bench, (int) $bench->project->sources()->value('id'), ['', 'lent', 'sketch'][mt_rand(0, 2)]),
            default => new CreateLayers($bench, GroupBy::cases()[mt_rand(0, 5)], $one([0, ...$layers]), $rows()),
        };
    }
}
