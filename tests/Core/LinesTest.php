<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainModel;
use VineShelf\Exchange\SortingLine;
use VineShelf\Exchange\SortingRules;
use VineShelf\Exchange\UnreadableSorting;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Facts\Facts;
use VineShelf\Facts\FactsBuilder;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Lines\Line;
use VineShelf\Lines\Proposal;
use VineShelf\Lines\Proposed;
use VineShelf\Lines\Run;
use VineShelf\Lines\Signs\Values;
use VineShelf\Organizers\Organizers;
use VineShelf\Rules\Evaluator;
use VineShelf\Rules\Parser;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Relatives;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;
use VineShelf\Search\NameIndex;

final class LinesTest extends TestCase
{
    public function test_a_run_does_what_going_down_the_list_with_each_object_does(): void
    {
        mt_srand(1101);
        $seen = ['fights' => 0, 'untaken' => 0, 'left' => 0, 'filed' => 0, 'tagged' => 0, 'named' => 0];
        for ($round = 0; $round < 150; $round++) {
            $model = PlainModel::grow(mt_rand(1, 60));
            $scene = $model->facts->scene;
            $rows = range(1, $scene->count());
            $some = static fn (int $of): array => array_values(array_filter($rows, static fn (): bool => mt_rand(1, $of) === 1));
            $locked = $some(6);
            $members = [7 => $some(3), 8 => $some(3)];
            $among = mt_rand(0, 2) === 0 ? $some(2) : $rows;
            $lists = $lines = [];
            for ($line = 0, $count = mt_rand(0, 7); $line < $count; $line++) {
                $matched = $some(mt_rand(1, 4));
                $tags = array_values(array_filter([7, 8, 9], static fn (): bool => mt_rand(0, 2) === 0));
                $lists[] = [$matched, mt_rand(0, 4), $tags, mt_rand(0, 2) === 0 ? '{name} new' : '', mt_rand(0, 1) === 1];
                $lines[] = new Line(Bits::ofRows($scene->count(), $matched), ...array_slice($lists[$line], 1));
            }
            $bits = static fn (array $some): Bits => Bits::ofRows($scene->count(), $some);
            $run = Run::of($scene, $lines, $bits($locked), array_map($bits, $members), $bits($among));
            $expected = self::oneByOne($scene, $lists, $locked, $members, $among);
            self::assertSame($expected, self::listed($run), "round $round");
            $seen['fights'] += count($expected['fights']);
            $seen['untaken'] += count($expected['untaken']);
            $seen['left'] += count(array_merge(...$expected['left'], ...[[]]));
            $seen['filed'] += count($expected['layers']);
            $seen['tagged'] += count($expected['tags']);
            $seen['named'] += count(array_merge(...$expected['named'], ...[[]]));
        }
        self::assertGreaterThan(100, min($seen), json_encode($seen) ?: '');
    }

    /**
     * @param list<array{list<int>, int, list<int>, string, bool}> $lines
     * @param list<int>                                            $locked
     * @param array<int, list<int>>                                $members
     * @param list<int>                                            $among
     *
     * @return array<string, mixed>
     */
    private static function oneByOne(Scene $scene, array $lines, array $locked, array $members, array $among): array
    {
        $layers = $tags = $untaken = $fights = [];
        $taken = $left = $moved = $named = array_fill(0, count($lines), []);
        foreach ($among as $row) {
            $isTaken = false;
            $home = $name = null;
            foreach ($lines as $at => [$matched, $layer, $tagging, $pattern, $goesOn]) {
                if (! in_array($row, $matched, true)) {
                    continue;
                }
                $isTaken = true;
                $taken[$at][] = $row;
                if (in_array($row, $locked, true)) {
                    $left[$at][] = $row;
                } else {
                    if ($layer !== 0 && $home === null) {
                        $home = $layer;
                        if ($scene->layers()->at($row) !== $layer) {
                            $layers[$row] = $layer;
                            $moved[$at][] = $row;
                        }
                    }
                    if ($pattern !== '' && $name === null) {
                        $name = $at;
                        $named[$at][] = $row;
                    }
                    foreach ($tagging as $tag) {
                        if (! in_array($row, $members[$tag] ?? [], true)) {
                            $tags["$row $tag"] = true;
                        }
                    }
                }
                if (! $goesOn) {
                    break;
                }
            }
            if (! $isTaken) {
                $untaken[] = $row;
            }
            foreach ($lines as $at => [$matched, $layer]) {
                foreach ($lines as $other => [$also, $elsewhere]) {
                    if (
                        $at < $other &&
                        $layer > 0 &&
                        $elsewhere > 0 &&
                        $layer !== $elsewhere &&
                        in_array($row, $matched, true) &&
                        in_array($row, $also, true)
                    ) {
                        $fights["$at $other"][] = $row;
                    }
                }
            }
        }
        ksort($layers);
        ksort($tags);
        ksort($fights);

        return compact('layers', 'tags', 'untaken', 'taken', 'left', 'moved', 'named', 'fights');
    }

    /** @return array<string, mixed> */
    private static function listed(Run $run): array
    {
        $layers = $tags = $fights = $taken = $left = $moved = $named = [];
        foreach ($run->filed as $layer => $rows) {
            $layers += array_fill_keys($rows->rows(), $layer);
        }
        foreach ($run->tagged as $tag => $rows) {
            foreach ($rows->rows() as $row) {
                $tags["$row $tag"] = true;
            }
        }
        foreach ($run->fights as $fight) {
            $fights["$fight->winner $fight->other"] = $fight->rows->rows();
        }
        foreach ($run->took as $took) {
            $taken[] = $took->rows->rows();
            $left[] = $took->left->rows();
            $moved[] = $took->filed->rows();
            $named[] = $took->named->rows();
            self::assertSame($took->filed->count(), array_sum($took->from));
        }
        ksort($layers);
        ksort($tags);
        ksort($fights);
        $untaken = $run->untaken->rows();

        return compact('layers', 'tags', 'untaken', 'taken', 'left', 'moved', 'named', 'fights');
    }

    public function test_a_list_comes_back_from_its_file(): void
    {
        $lines = [
            new SortingLine(
                'seat*',
                ['Stände', 'Seats / no'],
                [['Phases', 'First'], ['Loose']],
                '{layer} {number}',
                true,
                true,
                true,
                'said',
            ),
            new SortingLine('kind:part'),
            new SortingLine('"<b>" or "\\"quoted\\""', ['Unsorted']),
        ];
        $read = SortingRules::read((new SortingRules($lines))->write());
        self::assertEquals($lines, $read->lines);
        $short = '{"format":"vine-shelf sorting rules","version":1,"lines":[{"rule":" pump ","layer":"Plant / Pumps","tags":["A / B"]}]}';
        self::assertEquals([new SortingLine('pump', ['Plant', 'Pumps'], [['A', 'B']])], SortingRules::read($short)->lines);
    }

    /** @return iterable<string, array{string, string}> */
    public static function broken(): iterable
    {
        $with = static fn (string $lines): string => '{"format":"vine-shelf sorting rules","version":1,"lines":'.$lines.'}';
        yield 'nothing' => ['', 'is not JSON'];
        yield 'a list' => ['[]', 'its format would be'];
        yield 'a sorting' => ['{"format":"vine-shelf sorting"}', 'its format would be'];
        yield 'another version' => ['{"format":"vine-shelf sorting rules","version":2}', 'another version than 1'];
        yield 'no lines' => ['{"format":"vine-shelf sorting rules","version":1}', 'lines is not a list'];
        yield 'lines by name' => [$with('{"a":{"rule":"x"}}'), 'lines is not a list'];
        yield 'a line that is a text' => [$with('["seat"]'), 'lines[0] is not an object'];
        yield 'no rule' => [$with('[{"rule":"a"},{"layer":["B"]}]'), 'lines[1].rule is missing'];
        yield 'a rule that is a number' => [$with('[{"rule":7}]'), 'lines[0].rule is not a text'];
        yield 'a long rule' => [$with('[{"rule":"'.str_repeat('a', 4001).'"}]'), 'lines[0].rule is longer than 4,000 characters'];
        yield 'a layer that is a number' => [$with('[{"rule":"a","layer":7}]'), 'lines[0].layer is not a path'];
        yield 'a nameless layer' => [$with('[{"rule":"a","layer":["A","  "]}]'), 'lines[0].layer has a name that is empty'];
        yield 'a zero in a name' => [$with('[{"rule":"a","layer":["A\\u0000"]}]'), 'lines[0].layer has a name that is empty'];
        yield 'a deep layer' => [$with('[{"rule":"a","layer":['.implode(',', array_fill(0, 61, '"A"')).']}]'), 'not a path of 1 to 60'];
        yield 'tags that are a text' => [$with('[{"rule":"a","tags":"A"}]'), 'lines[0].tags is not a list'];
        yield 'a tag that is nothing' => [$with('[{"rule":"a","tags":[[]]}]'), 'lines[0].tags[0] is not a path'];
        yield 'a flag that is a text' => [$with('[{"rule":"a","goesOn":"no"}]'), 'lines[0].goesOn is neither true nor false'];
        yield 'deep JSON' => [$with('[{"rule":'.str_repeat('[', 20).str_repeat(']', 20).'}]'), 'not JSON'];
        yield 'many lines' => [$with('['.implode(',', array_fill(0, 501, '{"rule":"a"}')).']'), 'are 501, and at most 500 are read'];
    }

    #[DataProvider('broken')]
    public function test_says_what_is_wrong_with_a_file(string $json, string $sentence): void
    {
        $this->expectException(UnreadableSorting::class);
        $this->expectExceptionMessage($sentence);
        SortingRules::read($json);
    }

    public function test_rules_by_which_a_model_was_sorted_are_found_again(): void
    {
        mt_srand(1102);
        $rules = [2 => 'class=Door', 3 => 'material=glass', 4 => 'seat*', 5 => 'system=Water', 6 => 'class=Wall'];
        for ($round = 0; $round < 8; $round++) {
            $facts = self::hall(400);
            $sorted = self::sortedBy($facts, $rules);
            $proposed = Proposal::of($sorted, self::finder($sorted));
            self::assertSame([], self::wronglyFiled($sorted, $proposed), "round $round");
            $found = [];
            foreach ($proposed as $line) {
                $found[$line->layer][] = $line->rule;
                self::assertGreaterThan(Proposal::LINE + Proposal::EXCEPTION * $line->otherwise, $line->explained);
                self::assertSame(0, $line->otherwise, $line->rule);
            }
            foreach ($rules as $layer => $rule) {
                self::assertSame([$rule], $found[$layer] ?? [], "round $round, layer $layer");
            }
        }
    }

    public function test_a_heap_without_order_is_explained_by_nothing_that_costs_more_than_it_explains(): void
    {
        mt_srand(1103);
        $lines = 0;
        for ($round = 0; $round < 20; $round++) {
            $facts = self::hall(150);
            // Half of it goes by class, but for an object here and there.
            $layers = array_map(
                static fn (int $row): int => mt_rand(0, 30) === 0 || $facts->className($row) < 'E' ? mt_rand(1, 4) : 2,
                range(1, 150),
            );
            $sorted = self::withLayers($facts, $layers);
            $find = self::finder($sorted);
            $left = Bits::all(150);
            foreach (Proposal::of($sorted, $find) as $line) {
                $rows = $find($line->rule);
                $rows = ($line->only ? $rows : Relatives::within($sorted->scene, $rows))->and($left);
                $by = array_count_values(array_map(static fn (int $row): int => $layers[$row - 1], $rows->rows()));
                self::assertSame($by[$line->layer] ?? 0, $line->explained);
                self::assertSame($by[Layer::UNSORTED] ?? 0, $line->unsorted);
                self::assertNotSame(Layer::UNSORTED, $line->layer);
                $lines++;
                self::assertSame($rows->count(), $line->explained + $line->otherwise + $line->unsorted);
                self::assertGreaterThan(2 + 5 * $line->otherwise + $line->unsorted / 20, $line->explained);
                $left = $left->without($rows);
            }
        }
        self::assertGreaterThan(20, $lines);
    }

    public function test_a_property_that_repeats_the_layers_is_told_from_one_that_explains_them(): void
    {
        mt_srand(1104);
        $facts = self::sortedBy(self::hall(300), [2 => 'system=Water', 3 => 'system=Air', 4 => 'system=Power']);
        $repeats = static fn (array $layers): array => array_map(
            static fn (Values $sign): bool => $sign->repeats($layers),
            array_column(array_map(static fn (Values $sign): array => [$sign->name, $sign], Values::all($facts)), 1, 0),
        );
        self::assertSame(['system' => true, 'serial' => false], $repeats([1 => 'Unsorted', 2 => ' water', 3 => 'AIR', 4 => 'Power']));
        self::assertSame(['system' => false, 'serial' => false], $repeats([1 => 'Unsorted', 2 => 'Pipes', 3 => 'Air', 4 => 'Cables']));
        self::assertSame(
            [],
            array_filter(
                Proposal::of($facts, self::finder($facts), ['system']),
                static fn (Proposed $line): bool => str_contains($line->rule, 'system'),
            ),
        );
        self::assertCount(3, Proposal::of($facts, self::finder($facts)));
    }

    public function test_groups_explain_what_stands_in_them(): void
    {
        $facts = self::hall(60, groups: ['Stand "A"', 'Plant']);
        $rows = range(1, $facts->scene->count());
        $sorted = self::withLayers($facts, array_map(static fn (int $row): int => $row <= $facts->scene->end(1) ? 2 : 3, $rows));
        $proposed = Proposal::of($sorted, self::finder($sorted));
        self::assertSame(['name="stand \\"a\\""', 'name="plant"'], array_map(static fn (Proposed $line): string => $line->rule, $proposed));
        self::assertSame([false, false], array_map(static fn (Proposed $line): bool => $line->only, $proposed));
        self::assertSame($facts->scene->count(), $proposed[0]->explained + $proposed[1]->explained);
    }

    /** @param list<string> $groups names of groups that the parts stand in, half in each; none for parts side by side */
    private static function hall(int $parts, array $groups = []): Facts
    {
        $parents = $kinds = $names = [];
        foreach ($groups as $name) {
            $names[] = $name;
            $parents[count($names)] = 0;
            $kinds[count($names)] = 0;
        }
        for ($part = 1; $part <= $parts; $part++) {
            $names[] = $groups === [] ? ['Seat_', 'Body', 'Rail.', 'Thing '][mt_rand(0, 3)].mt_rand(1, 900) : "X$part";
            $parents[count($names)] = $groups === [] ? 0 : 1 + ($part % count($groups));
            $kinds[count($names)] = 1;
        }
        $count = count($names);
        $columns = SceneBuilder::columns($parents, array_fill(1, $count, 1), $kinds, [], []);
        $order = (new Scene(new ColumnsInMemory($columns)))->numbersIn([[1, $count]]);
        $columns += NameIndex::columns(['', ...array_map(static fn (int $number): string => $names[$number - 1], $order)]);
        $builder = new FactsBuilder(
            $count,
            [1 => [1], 2 => [2]],
            [1 => ['Glass', false, '#ffffff', 1, []], 2 => ['Oak', false, '#ffffff', 1, []]],
            [],
            [1 => 'hall.glb'],
        );
        foreach ($order as $at => $number) {
            $isPart = $kinds[$number] === 1 && $groups === [];
            $properties =
                $isPart && mt_rand(0, 2) === 0 ? ['system' => ['Water', 'Air', 'Power'][mt_rand(0, 2)], 'serial' => mt_rand()] : null;
            $builder->add(
                $at + 1,
                $isPart ? mt_rand(1, 2) : 0,
                3,
                1,
                $isPart ? ['', 'Door', 'Wall', 'Window'][mt_rand(0, 3)] : '',
                $properties === null ? null : (string) json_encode($properties),
            );
        }

        return new Facts(new Scene(new DerivedColumns(new ColumnsInMemory($columns + $builder->columns()))));
    }

    /** @param array<int, string> $rules by layer, the first that fits files an object */
    private static function sortedBy(Facts $facts, array $rules): Facts
    {
        $find = self::finder($facts);
        $layers = array_fill(0, $facts->scene->count(), Layer::UNSORTED);
        foreach (array_reverse($rules, true) as $layer => $rule) {
            foreach ($find($rule)->rows() as $row) {
                $layers[$row - 1] = $layer;
            }
        }

        return self::withLayers($facts, $layers);
    }

    /** @param list<int> $layers by row, from the first on */
    private static function withLayers(Facts $facts, array $layers): Facts
    {
        return new Facts(
            new Scene(
                new class ($facts->scene, \VineShelf\Scene\Coded::fromValues($layers)->pack()) implements \VineShelf\Scene\ColumnSource {
                    public function __construct(private readonly Scene $scene, private readonly string $layers) {}

                    public function column(string $name): string
                    {
                        return $name === 'layer' ? $this->layers : $this->scene->column($name);
                    }
                },
            ),
        );
    }

    /** @return \Closure(string): Bits */
    private static function finder(Facts $facts): \Closure
    {
        $organizers = new Organizers(new LayerTree([new Layer(1, 0, 0, 'Unsorted', '#000000')]));
        $effect = new InEffect($facts->scene, $organizers, Settings::of([], []));

        return static fn (
            string $rule,
        ): Bits => (new Evaluator($facts, $organizers, $effect, Bits::none($facts->scene->count())))->find(Parser::parse($rule))->rows;
    }

    /**
     * @param list<Proposed> $lines
     *
     * @return list<int> rows that the lines would file otherwise than they are
     */
    private static function wronglyFiled(Facts $facts, array $lines): array
    {
        $find = self::finder($facts);
        $wrong = [];
        for ($row = 1; $row <= $facts->scene->count(); $row++) {
            $home = $facts->scene->layers()->at($row);
            foreach ($lines as $line) {
                if ($find($line->rule)->has($row)) {
                    $home = $line->layer;
                    break;
                }
            }
            if ($home !== $facts->scene->layers()->at($row)) {
                $wrong[] = $row;
            }
        }

        return $wrong;
    }
}
