<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainModel;
use Tests\Core\Support\RandomForest;
use VineShelf\Colours\Line;
use VineShelf\Colours\Oklab;
use VineShelf\Colours\Palette;
use VineShelf\Facts\Measure;
use VineShelf\Facts\Shared;
use VineShelf\Folders\Folder;
use VineShelf\Folders\FolderTree;
use VineShelf\Folders\Holds;
use VineShelf\Layers\GroupBy;
use VineShelf\Layers\Grouping;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Locks\Lock;
use VineShelf\Organizers\Organizers;
use VineShelf\Picking\Takes;
use VineShelf\Rules\SetLinks;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\OneAtATime;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Pick;
use VineShelf\Sets\SelectionSet;
use VineShelf\Sets\SetTree;
use VineShelf\Tags\Tag;
use VineShelf\Tags\TagTree;
use VineShelf\Tint\EdgeLines;
use VineShelf\Why\Holder;
use VineShelf\Why\Holders;

/** What people sort by, each against the slow and obvious way. */
final class OrganizersTest extends TestCase
{
    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 12) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    public function test_showing_a_member_hides_its_siblings_and_stepping_goes_round(): void
    {
        $tags = new TagTree(
            [
                new Folder(1, Holds::Tags, 0, 0, 'Schemes', oneAtATime: true),
                new Folder(2, Holds::Tags, 1, 1, 'Scheme C, in parts'),
                new Folder(3, Holds::Tags, 0, 1, 'Trades'),
            ],
            [
                new Tag(1, 1, 0, 'Scheme A', '#111111'),
                new Tag(2, 1, 2, 'Scheme B', '#222222'),
                new Tag(3, 2, 0, 'Walls', '#333333'),
                new Tag(4, 3, 0, 'Glazier', '#444444'),
            ],
        );
        $layers = new LayerTree([
            new Layer(1, 0, 0, 'Unsorted', '#999999'),
            new Layer(2, 0, 1, 'Phases', '#999999', oneAtATime: true),
            new Layer(3, 2, 0, 'First', '#999999'),
            new Layer(4, 2, 1, 'Second', '#999999'),
        ]);
        $organizers = new Organizers($layers, $tags);
        $rungs = static fn (Settings $s): array => [$s->tags, $s->folders, $s->layers];

        $shown = OneAtATime::shown(Settings::of([], [], [2 => 2, 4 => 0]), $organizers, [], [2], []);
        self::assertSame([[2 => 2, 4 => 0, 1 => 0], [2 => 0], []], $rungs($shown));
        // What is hidden hides nobody, nor does what lies in a folder that shows all.
        self::assertSame([[1 => 0], [], []], $rungs(OneAtATime::shown(Settings::of([], [], [1 => 0]), $organizers, [], [1], [])));
        self::assertSame([[4 => 5], [], []], $rungs(OneAtATime::shown(Settings::of([], [], [4 => 5]), $organizers, [], [4], [])));
        // Of several that are set at once the first is shown.
        self::assertSame(
            [[1 => 5, 2 => 0], [2 => 0], []],
            $rungs(OneAtATime::shown(Settings::of([], [], [1 => 5, 2 => 5]), $organizers, [], [1, 2], [])),
        );
        self::assertSame([[], [], [3 => 5, 4 => 0]], $rungs(OneAtATime::shown(Settings::of([3 => 5], []), $organizers, [3], [], [])));

        // Which of several stays, when it begins and when several are set at once.
        [$first, $stays, $hidden] = OneAtATime::first(Settings::of([], [], [1 => 3]), $organizers, 'F1');
        self::assertSame([[[1 => 3, 2 => 0], [2 => 0], []], 'M1', 2], [$rungs($first), $stays, $hidden]);
        self::assertSame([null, 0], array_slice(OneAtATime::first(Settings::of([], [], [1 => 0, 2 => 0]), $organizers, 'F1'), 1));
        self::assertSame('L3', OneAtATime::first(new Settings, $organizers, 'L2')[1]);
        self::assertSame(['M1'], OneAtATime::staying(Settings::of([], [], [2 => 0]), $organizers, [3], [1, 2, 4], []));
        self::assertSame([], OneAtATime::staying(Settings::of([], [], [2 => 0]), $organizers, [1, 2], [1], []));

        // Scheme A, then the folder of Scheme C, then Scheme B: their order on screen.
        $settings = new Settings;
        $order = [];
        for ($step = 0; $step < 4; $step++) {
            [$settings, $order[]] = OneAtATime::next($settings, $organizers, 'F1', 1);
        }
        self::assertSame(['F2', 'M2', 'M1', 'F2'], $order);
        self::assertSame(
            ['M1', 'M2'],
            [OneAtATime::next($settings, $organizers, 'F1', -1)[1], OneAtATime::next($settings, $organizers, 'F1', 1)[1]],
        );
        self::assertSame([[1 => 0, 2 => 0], [2 => 5], []], $rungs($settings));
        self::assertSame('L4', OneAtATime::next(new Settings, $organizers, 'L2', 1)[1]);
        self::assertNull(OneAtATime::next(new Settings, $organizers, 'L3', 1)[1]);
    }

    #[DataProvider('seeds')]
    public function test_after_stepping_exactly_one_member_is_shown_whatever_was_set(int $seed): void
    {
        mt_srand($seed);
        for ($round = 0; $round < 30; $round++) {
            $forest = RandomForest::grow(5);
            foreach ($forest->tags->tree->folders as $folder) {
                $settings = $forest->settings;
                $members = $forest->tags->tree->inside($folder->number);
                $seen = [];
                for ($step = 0; $step <= count($members); $step++) {
                    [$settings, $shown] = OneAtATime::next($settings, $forest->organizers, "F$folder->number", 1);
                    if ($shown === null) {
                        self::assertSame([], $members);
                        break;
                    }
                    $seen[$step] = $shown;
                    foreach ($members as $member) {
                        $rung = $member[0] === 'M' ? $settings->tag((int) substr($member, 1)) : $settings->folder((int) substr($member, 1));
                        self::assertSame($member === $shown, $rung === Rung::Full);
                        self::assertSame($member !== $shown, $rung === Rung::Hidden);
                    }
                }
                if ($members !== []) {
                    self::assertSame(
                        count($members),
                        count(array_unique(array_slice($seen, 0, count($members)))),
                        'every member has its turn',
                    );
                    self::assertSame($seen[0], $seen[count($members)]);
                }
            }
        }
    }

    #[DataProvider('seeds')]
    public function test_a_way_back_to_a_set_is_found_where_there_is_one(int $seed): void
    {
        mt_srand($seed);
        for ($round = 0; $round < 40; $round++) {
            $count = mt_rand(1, 7);
            $sets = $links = $folders = $liesIn = [];
            for ($folder = 1; $folder <= mt_rand(0, 3); $folder++) {
                $liesIn["F$folder"] = mt_rand(0, $folder - 1);
                $folders[] = new Folder($folder, Holds::Sets, $liesIn["F$folder"], $folder, "Folder $folder");
            }
            for ($number = 1; $number <= $count; $number++) {
                $liesIn["M$number"] = mt_rand(0, count($folders));
            }
            for ($number = 1; $number <= $count; $number++) {
                $to = array_values(array_filter(range(1, $count), static fn (): bool => mt_rand(0, 8) === 0));
                $named = array_map(static fn (int $other): string => "set=\"Set $other\"", $to);
                // A folder stands for the sets in it, at any depth.
                if ($folders !== [] && mt_rand(0, 5) === 0) {
                    $folder = mt_rand(1, count($folders));
                    $named[] = "set=\"Folder $folder\"";
                    foreach (range(1, $count) as $other) {
                        for ($at = $liesIn["M$other"]; $at !== 0; $at = $liesIn["F$at"]) {
                            $at === $folder && ($to[] = $other);
                        }
                    }
                }
                $links[$number] = array_values(array_unique($to));
                $sets[] = new SelectionSet($number, $liesIn["M$number"], $number, "Set $number", implode(' or ', ['kind:part', ...$named]));
            }
            // Whoever can be reached from a set in at most as many steps as there are sets.
            $reach = $links;
            for ($step = 0; $step < $count; $step++) {
                foreach ($reach as $from => $to) {
                    $reach[$from] = array_unique(array_merge($to, ...array_map(static fn (int $other): array => $links[$other], $to)));
                }
            }
            $isCyclic =
                array_filter($reach, static fn (array $to, int $from): bool => in_array($from, $to, true), ARRAY_FILTER_USE_BOTH) !== [];
            $cycle = (new SetLinks(new SetTree($folders, $sets)))->cycle();
            self::assertSame($isCyclic, $cycle !== null);
            if ($cycle !== null) {
                self::assertSame($cycle[0], $cycle[count($cycle) - 1]);
                $numbers = array_map(static fn (string $name): int => (int) substr($name, 4), $cycle);
                for ($at = 1; $at < count($numbers); $at++) {
                    self::assertContains($numbers[$at], $links[$numbers[$at - 1]], 'every step of the way is one');
                }
            }
        }
    }

    #[DataProvider('seeds')]
    public function test_layers_from_a_pick_hold_what_a_slow_look_at_each_object_says(int $seed): void
    {
        mt_srand($seed);
        for ($round = 0; $round < 5; $round++) {
            $model = PlainModel::grow(mt_rand(2, 50));
            $scene = $model->facts->scene;
            $forest = $model->forest;
            $chosen = array_values(array_filter(array_keys($forest->parents), static fn (): bool => mt_rand(0, 2) === 0));
            $isMeant = static function (int $number) use ($chosen, $forest): bool {
                for ($at = $number; $at !== 0; $at = $forest->parents[$at]) {
                    if (in_array($at, $chosen, true)) {
                        return true;
                    }
                }

                return false;
            };
            $meant = array_values(array_filter(array_keys($forest->parents), $isMeant));
            $bits = static fn (array $numbers): Bits => Bits::ofRows($scene->count(), $scene->rowsOf($numbers));
            $names = static fn (array $rows): array => array_combine(
                $rows,
                array_map(static fn (int $row): string => $model->names[$scene->number($row)], $rows),
            );
            foreach (GroupBy::cases() as $by) {
                $expected = [];
                foreach ($meant as $number) {
                    $name = self::belongsTo($model, $by, $number, $chosen);
                    if ($name !== '') {
                        $expected[$name][] = $number;
                    }
                }
                $found = [];
                foreach (Grouping::of($model->facts, $by, $bits($meant), $bits($chosen), $names) as $name => $rows) {
                    $found[$name] = array_map($scene->number(...), $rows->rows());
                    sort($found[$name]);
                }
                array_walk($expected, static fn (array &$numbers): bool => sort($numbers));
                ksort($expected);
                ksort($found);
                self::assertSame($expected, $found, $by->value);
            }
        }
    }

    /** @param list<int> $chosen */
    private static function belongsTo(PlainModel $model, GroupBy $by, int $number, array $chosen): string
    {
        $kind = Kind::from($model->forest->kinds[$number]);
        if ($by === GroupBy::Object) {
            for ($at = $number; ! in_array($at, $chosen, true); $at = $model->forest->parents[$at]);

            return $model->names[$at] ?: 'Unnamed '.Kind::from($model->forest->kinds[$at])->label();
        }
        if ($by === GroupBy::Level || $by === GroupBy::SourceLayer) {
            for ($at = $number; $at !== 0; $at = $model->forest->parents[$at]) {
                $value = $model->properties[$at][$by === GroupBy::Level ? 'level' : 'layer'] ?? '';
                if ($value !== '') {
                    return (string) $value;
                }
            }

            return '';
        }

        return match ($by) {
            GroupBy::Kind => ucfirst($kind->plural()),
            GroupBy::ObjectClass => $model->classes[$number],
            default => PlainModel::MATERIALS[$model->facts->materialsOf($model->facts->scene->row($number))[0] ?? 0][0] ?? '',
        };
    }

    #[DataProvider('seeds')]
    public function test_a_click_takes_the_group_that_walking_up_finds(int $seed): void
    {
        mt_srand($seed);
        for ($round = 0; $round < 30; $round++) {
            $forest = RandomForest::grow(mt_rand(1, 40));
            $scene = $forest->scene();
            $tops = array_keys($forest->parents, 0, true);
            // A single group around everything says nothing.
            $wrapper = count($tops) === 1 && count($forest->parents) > 1 ? $tops[0] : 0;
            $inside = mt_rand(0, 1) === 0 ? 0 : array_rand($forest->parents);
            foreach ($forest->parents as $number => $parent) {
                $row = $scene->row($number);
                $way = [$number];
                for ($at = $parent; $at !== 0; $at = $forest->parents[$at]) {
                    $way[] = $at;
                }
                $base = $inside !== 0 && $number !== $inside && in_array($inside, $way, true) ? $inside : $wrapper;
                $index = array_search($base, $way, true);
                $outermost = $index === false ? $way[count($way) - 1] : $way[max(0, $index - 1)];
                self::assertSame($row, Takes::Part->rows($scene)[$row]);
                self::assertSame($scene->row($parent === 0 ? $number : $parent), Takes::Group->rows($scene)[$row]);
                self::assertSame(
                    $scene->row($outermost),
                    Takes::Outermost->rows($scene, $inside === 0 ? 0 : $scene->row($inside))[$row],
                    "object $number, inside $inside, below $base",
                );
            }
            $caught = Bits::ofRows(
                $scene->count(),
                array_values(array_filter(range(1, $scene->count()), static fn (): bool => mt_rand(0, 1) === 0)),
            );
            $taken = Takes::Group->rows($scene);
            self::assertEqualsCanonicalizing(
                array_unique(array_map(static fn (int $row): int => $taken[$row], $caught->rows())),
                Takes::Group->of($scene, $caught)->rows(),
            );
        }
    }

    #[DataProvider('seeds')]
    public function test_what_holds_objects_is_each_cause_that_holds_them_alone(int $seed): void
    {
        mt_srand($seed);
        for ($round = 0; $round < 15; $round++) {
            $forest = RandomForest::grow(mt_rand(2, 40));
            $scene = $forest->scene();
            $of = array_values(array_filter(array_keys($forest->parents), static fn (): bool => mt_rand(0, 1) === 0));
            $isolated = mt_rand(0, 2) === 0 ? [array_rand($forest->parents)] : [];
            $isolation = $isolated === [] ? Isolation::none() : Isolation::none()->deeper(Pick::of($isolated), Rung::Ghost);
            $rows = Bits::ofRows($scene->count(), $scene->rowsOf($of));
            $found = [];
            foreach (Holders::of($rows, $scene, $forest->organizers, $forest->settings, $isolation) as $holder) {
                self::assertFalse($holder->rows->isEmpty());
                $found[self::called($holder)] = array_map($scene->number(...), $holder->rows->rows());
                sort($found[self::called($holder)]);
            }
            $expected = [];
            foreach ($of as $number) {
                foreach (self::causes($forest, $number, $isolated) as $cause) {
                    $expected[$cause][] = $number;
                }
            }
            array_walk($expected, static fn (array &$numbers): bool => sort($numbers));
            ksort($expected);
            ksort($found);
            self::assertSame($expected, $found, "round $round");
        }
    }

    private static function called(Holder $holder): string
    {
        return in_array($holder->what, ['own', 'group'], true)
            ? "$holder->what {$holder->rung?->value} {$holder->lock?->value}"
            : "$holder->what $holder->number";
    }

    /**
     * @param list<int> $isolated
     *
     * @return list<string>
     */
    private static function causes(RandomForest $forest, int $number, array $isolated): array
    {
        $causes = [];
        if (($forest->settings->layersAlone[$forest->layerOf[$number]] ?? 5) < 5) {
            $causes[] = "filed {$forest->layerOf[$number]}";
        }
        $above = [];
        for ($at = $forest->parents[$number]; $at !== 0; $at = $forest->parents[$at]) {
            $above[] = $at;
        }
        if ($isolated !== [] && array_intersect($isolated, [$number, ...$above]) === []) {
            $causes[] = 'isolation 0';
        }
        for ($layer = $forest->layerOf[$number]; $layer !== 0; $layer = $forest->layers->get($layer)->parent) {
            if (($forest->settings->layers[$layer] ?? 5) < 5 || $forest->layers->get($layer)->lock !== Lock::Open) {
                $causes["L$layer"] = "layer $layer";
            }
        }
        foreach ($forest->tagsOf($number) as $tag) {
            if (($forest->settings->tags[$tag->number] ?? 5) < 5 || $tag->lock !== Lock::Open) {
                $causes["T$tag->number"] = "tag $tag->number";
            }
            for ($folder = $tag->folder; $folder !== 0; $folder = $forest->tags->folder($folder)->parent) {
                if (($forest->settings->folders[$folder] ?? 5) < 5 || $forest->tags->folder($folder)->lock !== Lock::Open) {
                    $causes["F$folder"] = "folder $folder";
                }
            }
        }
        foreach (['own' => [$number], 'group' => $above] as $what => $setters) {
            foreach ($setters as $setter) {
                if (isset($forest->own[$setter])) {
                    $causes["$what r{$forest->own[$setter]}"] = "$what {$forest->own[$setter]} ";
                }
                if (isset($forest->locks[$setter])) {
                    $causes["$what l{$forest->locks[$setter]}"] = "$what  {$forest->locks[$setter]}";
                }
            }
        }

        if (isset($forest->alone[$number])) {
            $causes["own r{$forest->alone[$number]}"] = "own {$forest->alone[$number]} ";
        }

        return array_values($causes);
    }

    #[DataProvider('seeds')]
    public function test_what_a_pick_shares_is_what_a_loop_counts(int $seed): void
    {
        mt_srand($seed);
        // Many objects are counted in another way than few.
        foreach ([40, 2300] as $count) {
            if ($count > 40 && $seed > 2) {
                continue;
            }
            $model = PlainModel::grow($count);
            $scene = $model->facts->scene;
            $picked =
                $count > 40 ? array_keys($model->forest->parents) : array_slice(array_keys($model->forest->parents), 0, mt_rand(1, 40));
            $shared = new Shared($model->facts, Bits::ofRows($scene->count(), $scene->rowsOf($picked)));
            $words = $model->facts->words('class.words');
            foreach ([count($words) - 1, PHP_INT_MAX] as $values) {
                $classes = [];
                foreach ($shared->codes('class', $values) as $code => $objects) {
                    $classes[(string) ($code === 0 ? '' : $words[$code])] = $objects;
                }
                $expected = array_count_values(array_map(static fn (int $number): string => $model->classes[$number], $picked));
                self::assertEqualsCanonicalizing($expected, $classes);
                self::assertSame(array_diff_assoc($expected, $classes), []);
            }
            foreach ($model->facts->properties() as $name => [$index]) {
                $values = [];
                foreach ($shared->property($index) as $code => $objects) {
                    $values[json_encode($model->facts->words("property.$index.words")[$code])] = $objects;
                }
                $expected = [];
                foreach ($picked as $number) {
                    if (isset($model->properties[$number][$name])) {
                        $text = json_encode($model->properties[$number][$name]);
                        $expected[$text] = ($expected[$text] ?? 0) + 1;
                    }
                }
                ksort($expected);
                ksort($values);
                self::assertSame($expected, $values, (string) $name);
            }
            foreach ([Measure::Triangles, Measure::Depth, Measure::Width] as $measure) {
                $all = array_filter(
                    array_map(static fn (int $number): int|float|null => $model->facts->measure($measure, $scene->row($number)), $picked),
                    static fn (int|float|null $value): bool => $value !== null,
                );
                self::assertEqualsWithDelta($all === [] ? null : [min($all), max($all)], $shared->range($measure), 1e-4, $measure->value);
            }
        }
    }

    #[DataProvider('seeds')]
    public function test_edges_are_those_of_the_layer_else_of_the_first_tag_that_says_something(int $seed): void
    {
        mt_srand($seed);
        $forest = RandomForest::grow(30);
        $line = static fn (): Line => Line::from(mt_rand(0, 1) === 0 ? 0 : mt_rand(1, 4));
        $layers = array_map(
            static fn (array $entry): Layer => new Layer(
                $entry[0]->number,
                $entry[0]->parent,
                $entry[0]->position,
                $entry[0]->name,
                sprintf('#00%04x', $entry[0]->number),
                line: $line(),
            ),
            $forest->layers->walk(),
        );
        $tags = array_map(
            static fn (Tag $tag): Tag => new Tag(
                $tag->number,
                $tag->folder,
                $tag->position,
                $tag->name,
                sprintf('#ff%04x', $tag->number),
                $line(),
            ),
            $forest->tags->all(),
        );
        $organizers = new Organizers(new LayerTree($layers), new TagTree($forest->tags->tree->folders, $tags));
        $scene = $forest->scene();
        $lines = EdgeLines::of($scene, $organizers);
        foreach ($forest->parents as $number => $_) {
            $layer = $organizers->layers->get($forest->layerOf[$number]);
            $expected = $layer->line === Line::None ? null : [$layer->colour, $layer->line];
            foreach ($organizers->tags->all() as $tag) {
                if (in_array($number, $forest->tagged[$tag->number], true) && $tag->line !== Line::None) {
                    $expected ??= [$tag->colour, $tag->line];
                }
            }
            $code = unpack('v', $lines->codes, 2 * $scene->row($number))[1] ?? 0;
            self::assertSame($expected, $code === 0 ? null : $lines->entries[$code - 1]);
        }
        $all = [...$layers, ...$tags];
        self::assertSame(
            array_filter($all, static fn (Layer|Tag $of): bool => $of->line !== Line::None) !== [],
            EdgeLines::areThere($organizers),
        );
    }

    public function test_colours_that_clash_move_aside_and_others_stay(): void
    {
        $wanted = ['#8a8a8a', '#8a8a8a', '#8b8a89', '#3f7a63', '#8a8a8a', '#d26b4f', '#8a8a8a', '#8a8a8a'];
        $apart = Palette::apart($wanted);
        self::assertSame(['#8a8a8a', '#3f7a63', '#d26b4f'], [$apart[0], $apart[3], $apart[5]]);
        foreach ($apart as $at => $colour) {
            self::assertMatchesRegularExpression('~^#[0-9a-f]{6}$~', $colour);
            // Near to what was wanted, but not so near to another one.
            self::assertLessThan(0.3, Oklab::of($colour)->distance(Oklab::of($wanted[$at])));
            foreach (array_slice($apart, 0, $at) as $other) {
                self::assertGreaterThanOrEqual(
                    Palette::APART - 1e-6,
                    Oklab::of($colour)->distance(Oklab::of($other)),
                    "$colour and $other",
                );
            }
        }
        $fresh = [];
        for ($count = 0; $count < 40; $count++) {
            $next = Palette::next($fresh);
            foreach ($fresh as $other) {
                self::assertGreaterThanOrEqual(Palette::APART - 1e-6, Oklab::of($next)->distance(Oklab::of($other)), "$next and $other");
            }
            $fresh[] = $next;
        }
        // Half-way between black and white in lightness, as the eye sees it, is far from half of the light.
        self::assertEqualsWithDelta(0.6, Oklab::of('#808080')->lightness, 0.005);
        self::assertSame('#12ab9f', Oklab::of('#12ab9f')->hexadecimal());
    }

    #[DataProvider('seeds')]
    public function test_folders_are_walked_in_the_order_on_screen_with_what_is_around_each(int $seed): void
    {
        mt_srand($seed);
        $forest = RandomForest::grow(4);
        $tree = $forest->tags->tree;
        $walk = $tree->walk();
        self::assertCount(count($tree->folders) + count($tree->members), $walk);
        foreach ($walk as $at => [$what, $above]) {
            $expected = [];
            for (
                $folder = $what instanceof Folder ? $what->parent : $what->folder;
                $folder !== 0;
                $folder = $tree->folders[$folder]->parent
            ) {
                array_unshift($expected, $folder);
            }
            self::assertSame($expected, $above);
            // What is around comes before, and what lies in it follows at once or after others that do.
            [$before, $around] = $at === 0 ? [null, []] : $walk[$at - 1];
            $reach = $before instanceof Folder ? [...$around, $before->number] : $around;
            self::assertSame(array_slice($reach, 0, count($above)), $above);
        }
        self::assertSame([], (new FolderTree([], []))->walk());
    }
}
