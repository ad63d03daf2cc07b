<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainModel;
use Tests\Core\Support\RandomRule;
use VineShelf\Facts\Codes;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Facts\Facts;
use VineShelf\Facts\FactsBuilder;
use VineShelf\Facts\Measure;
use VineShelf\Rules\Evaluator;
use VineShelf\Rules\Field;
use VineShelf\Rules\KnownView;
use VineShelf\Rules\Lexer;
use VineShelf\Rules\NumberIs;
use VineShelf\Rules\NumberTest;
use VineShelf\Rules\Parser;
use VineShelf\Rules\Pattern;
use VineShelf\Rules\Printer;
use VineShelf\Rules\Quantity;
use VineShelf\Rules\RuleError;
use VineShelf\Rules\StateIs;
use VineShelf\Rules\TextIs;
use VineShelf\Rules\TextTest;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Bits;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;
use VineShelf\Search\NameIndex;

final class RulesTest extends TestCase
{
    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 24) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_finds_what_the_slow_evaluator_finds(int $seed): void
    {
        mt_srand($seed);
        for ($round = 0; $round < 4; $round++) {
            $model = PlainModel::grow(mt_rand(1, 45));
            for ($tree = 0; $tree < 25; $tree++) {
                $text = Printer::print(RandomRule::grow(2));
                self::assertSame(
                    $model->slowFind(Parser::parse($text)->tree),
                    self::found($model, $text),
                    "$text, seed $seed, round $round",
                );
            }
        }
    }

    public function test_every_field_operator_state_and_relation_agrees_on_its_own(): void
    {
        mt_srand(77);
        $model = PlainModel::grow(60);
        $rules = [];
        foreach (
            ['name', 'class', 'layer', 'tag', 'set', 'material', 'source', 'level', 'note', 'mixed', '"fire rating"', 'diameter'] as $field
        ) {
            foreach (
                ['seat', '"Seat"', 'l*', '*e*', '7', '8.5', '100', 'EI30', 'Pool', 'steel', 'Wall', 'plant.glb', '"Layer 2"'] as $words
            ) {
                array_push($rules, "$field:$words", "$field=$words", "$field!=$words");
            }
        }
        foreach (\VineShelf\Facts\Measure::cases() as $measure) {
            foreach (['=', '!=', '<', '<=', '>', '>='] as $operator) {
                foreach (['0', '1', '2', '100', '2.5'] as $number) {
                    $rules[] = "$measure->value $operator $number";
                }
            }
            array_push($rules, "$measure->value = 1..3", "$measure->value != 1..3", "$measure->value: ..2", "$measure->value: 2..");
        }
        foreach (\VineShelf\Rules\State::cases() as $state) {
            $rules[] = $state->value;
        }
        foreach (
            [
                'kind:part',
                'kind!=group',
                'inside (kind:group)',
                'holding (kind:part)',
                'beside (seat)',
                'beside (is picked)',
                'is newer than VIEW',
                'has level',
                'has no "fire rating"',
            ] as $rule
        ) {
            $rules[] = str_replace('VIEW', Printer::quoted('View "1"'), $rule);
        }
        $hits = 0;
        foreach ($rules as $rule) {
            $found = self::found($model, $rule);
            self::assertSame($model->slowFind(Parser::parse($rule)->tree), $found, $rule);
            $hits += $found === [] ? 0 : 1;
        }
        self::assertGreaterThan(200, $hits, 'most of these rules find something');
    }

    #[DataProvider('seeds')]
    public function test_a_tree_that_is_printed_and_read_again_is_the_same_tree(int $seed): void
    {
        mt_srand($seed + 1000);
        for ($round = 0; $round < 250; $round++) {
            $tree = RandomRule::grow(mt_rand(0, 4));
            $text = Printer::print($tree);
            self::assertEquals($tree, Parser::parse($text)->tree, $text);
            self::assertSame($text, Printer::print(Parser::parse($text)->tree));
        }
    }

    #[DataProvider('seeds')]
    public function test_random_text_is_a_rule_or_a_clear_error_and_never_more(int $seed): void
    {
        mt_srand($seed + 2000);
        $pieces = [
            'and',
            'or',
            'not',
            '(',
            ')',
            '"',
            'seat',
            'layer',
            ':',
            '=',
            '!=',
            '<',
            '>=',
            ' ',
            'is',
            'has',
            'no',
            'newer',
            'than',
            'inside',
            '1..2',
            '..',
            '5mm',
            'width',
            'kind',
            '\\',
            'ö',
            "\n",
            '!',
            '*',
            "\u{202E}",
            '🪴',
        ];
        for ($round = 0; $round < 400; $round++) {
            $text = '';
            for ($piece = mt_rand(0, 14); $piece > 0; $piece--) {
                $text .= $pieces[array_rand($pieces)].(mt_rand(0, 2) > 0 ? ' ' : '');
            }
            try {
                $tree = Parser::parse($text)->tree;
                self::assertEquals($tree, Parser::parse(Printer::print($tree))->tree, $text);
            } catch (RuleError $error) {
                self::assertGreaterThanOrEqual(0, $error->at, $text);
                self::assertGreaterThan(0, $error->length, $text);
                self::assertLessThanOrEqual(mb_strlen($text) + 1, $error->at + $error->length, $text);
                self::assertStringEndsWith('.', $error->getMessage());
            }
        }
    }

    #[TestWith(['kind:chair', 5, 5, 'the kinds are group, part'])]
    #[TestWith(['seat layer:', 10, 1, 'After layer: comes'])]
    #[TestWith(['seat and', 8, 1, 'a condition comes here'])]
    #[TestWith(['or seat', 0, 2, 'stands between two conditions'])]
    #[TestWith(['öl (a or b', 3, 1, 'never closed'])]
    #[TestWith(['öl "a or b', 3, 7, 'never closed'])]
    #[TestWith(['a)', 1, 1, 'closes nothing'])]
    #[TestWith(['()', 1, 1, 'nothing between'])]
    #[TestWith(['triangles > many', 12, 4, 'not a number'])]
    #[TestWith(['width > 2kg', 8, 3, 'units are mm, cm, m, in, ft'])]
    #[TestWith(['triangles > 2m', 12, 2, 'units are k, M'])]
    #[TestWith(['width = 3..1', 8, 4, 'ends before it begins'])]
    #[TestWith(['width > 1..2', 6, 1, 'compared with : = or !='])]
    #[TestWith(['width = ..', 8, 2, 'at least one side'])]
    #[TestWith(['layer > 3', 6, 1, 'holds words'])]
    #[TestWith(['is asleep', 3, 6, 'After “is” comes one of: shown, hidden'])]
    #[TestWith(['is', 0, 2, 'put it in quotes'])]
    #[TestWith(['has', 0, 3, 'After “has” comes'])]
    #[TestWith(['is newer', 8, 1, 'is newer than'])]
    #[TestWith(['in view', 7, 1, 'After “in view” comes'])]
    #[TestWith(['is hidden in', 12, 1, 'After “is hidden in” comes'])]
    #[TestWith(['inside', 0, 6, 'put it in quotes'])]
    #[TestWith(['a:b:c', 3, 1, 'put words that hold it in quotes'])]
    #[TestWith(['= 3', 0, 1, 'Put a field before it'])]
    #[TestWith(['"":x', 0, 2, 'A field needs a name'])]
    #[TestWith(['"fire rating":', 13, 1, 'comes a word'])]
    #[TestWith(['', 0, 1, 'empty'])]
    #[
        TestWith([
            'a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a '.
            'a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a a bc',
            240,
            2,
            'at most 120 conditions',
        ]),
    ]
    public function test_errors_point_at_the_right_place_and_say_what_would_be_right(string $rule, int $at, int $length, string $says): void
    {
        try {
            Parser::parse($rule);
            self::fail("“{$rule}” was read as a rule");
        } catch (RuleError $error) {
            self::assertStringContainsString($says, $error->getMessage());
            self::assertSame([$at, $length], [$error->at, $error->length], $error->getMessage());
        }
    }

    public function test_hostile_texts_end_quickly_in_an_error(): void
    {
        foreach (
            [
                str_repeat('(', 3000),
                str_repeat('not ', 900).'a',
                str_repeat('inside ', 500).'a',
                str_repeat('x', Lexer::LONGEST + 1),
                "\xFF\xFE",
                str_repeat('"', 3001),
                'name:'.str_repeat('*a', 1500),
            ] as $text
        ) {
            try {
                $tree = Parser::parse($text);
                self::assertSame([], self::found(PlainModel::grow(20), $text));
            } catch (RuleError $error) {
                self::assertNotSame('', $error->getMessage());
            }
        }
        self::assertEquals(Parser::parse('a and b')->tree, Parser::parse('a AND b')->tree);
    }

    public function test_a_rule_that_names_what_is_not_there_says_so_and_picks_nothing_for_it(): void
    {
        mt_srand(4);
        $model = PlainModel::grow(30);
        $evaluator = self::evaluator($model);
        $all = count($model->names);
        foreach (
            [
                'layer:Attic' => 'no layer with “Attic”',
                'tag:red' => 'no tag',
                'set:mine' => 'no set',
                'material:gold' => 'no material',
                'class:Roof' => 'class with “Roof”',
                'colour:red' => 'a property of these files is called “colour”',
                'is newer than Later' => 'no view called “Later”',
                'in view Later' => 'no view called “Later”',
                'is ghost in Later' => 'no view called “Later”',
                'has wings' => 'called “wings”',
                'note:x' => 'No note',
                'level:9' => 'on a level',
            ] as $rule => $says
        ) {
            $found = $evaluator->find(Parser::parse($rule));
            self::assertSame(0, $found->rows->count(), $rule);
            self::assertCount(1, $found->remarks, $rule);
            self::assertStringContainsString($says, $found->remarks[0]->sentence);
            self::assertNotSame('', mb_substr($rule, $found->remarks[0]->at, $found->remarks[0]->length));
            self::assertSame($all, $evaluator->find(Parser::parse("not ($rule)"))->rows->count(), 'what is not there is nobody\'s');
        }
        $remark = $evaluator->find(Parser::parse('seat or (öl layer:Attic)'))->remarks[0];
        self::assertSame([18, 5], [$remark->at, $remark->length]);
        self::assertSame([], $evaluator->find(Parser::parse('seat'))->remarks);
    }

    public function test_units_are_metres_when_none_is_given(): void
    {
        $value = static function (string $rule): float {
            $tree = Parser::parse($rule)->tree;
            \assert($tree instanceof NumberIs);

            return $tree->number?->value() ?? NAN;
        };
        self::assertEqualsWithDelta(
            [2.0, 0.04, 0.4, 0.0254, 0.9144, 0.002, 25000.0, 2e6],
            array_map($value, [
                'width > 2',
                'width > 40mm',
                'width > 40 cm',
                'width > 1in',
                'width > 3ft',
                'volume > 2l',
                'triangles > 25k',
                'triangles > 2M',
            ]),
            1e-12,
        );
        self::assertSame([Field::Name->value, 'm'], [Parser::parse('m')->tree->field ?? '', Parser::parse('m')->tree->words ?? '']);
    }

    public function test_words_and_wildcards(): void
    {
        $is = static fn (string $rule, string $name): bool => (new \VineShelf\Rules\Pattern(self::text($rule)))->matches($name);
        self::assertTrue($is('SEAT', 'Seat_Shell_001'), 'case does not matter');
        self::assertFalse($is('olfilter', 'Ölfilter'), 'accents do');
        self::assertTrue($is('name="ölFILTER"', 'Ölfilter'));
        self::assertTrue($is('seat*', 'Seat 1') && ! $is('seat*', 'A seat'), 'wildcards describe the whole name');
        self::assertTrue($is('?lfilter', 'Ölfilter'), 'a question mark is one letter, whatever bytes it takes');
        self::assertTrue($is('"a*b"', 'a*b') && ! $is('"a*b"', 'aXb'), 'in quotes a star is a star');
        self::assertFalse($is('a+(b', 'aab'), 'nothing else has a meaning');
        self::assertInstanceOf(StateIs::class, Parser::parse('Is Hidden')->tree);
    }

    public function test_wildcards_agree_with_trying_every_way_and_never_lose_a_hit(): void
    {
        mt_srand(31);
        $letters = ['a', 'b', 'é', ' ', '.', '_'];
        $text = static fn (int $longest, array $of): string => implode(
            '',
            array_map(static fn (): string => $of[mt_rand(0, count($of) - 1)], range(1, mt_rand(1, $longest))),
        );
        for ($round = 0; $round < 3000; $round++) {
            $pattern = $text(7, [...$letters, '*', '*', '?']);
            if (strpbrk($pattern, '*?') === false || trim($pattern) === '') {
                continue;
            }
            $name = $text(9, $letters);
            $node = new TextIs('name', TextTest::Has, $pattern, false);
            $slow = PlainModel::fitsLetters(mb_str_split($name), mb_str_split($pattern));
            self::assertSame($slow, (new Pattern($node))->resembles($name), "“{$pattern}” and “{$name}”");
        }
    }

    public function test_a_rule_of_stars_over_names_made_for_it_is_quick_and_complete(): void
    {
        $names = [''];
        for ($row = 1; $row <= 3000; $row++) {
            $names[] = str_repeat('a', 400).($row % 3 === 0 ? 'b' : 'c');
        }
        $numbers = range(1, 3000);
        $columns = SceneBuilder::columns(array_fill_keys($numbers, 0), array_fill_keys($numbers, 1), array_fill_keys($numbers, 1), [], []);
        $scene = new Scene(new ColumnsInMemory($columns + NameIndex::columns($names)));
        $expression = (new Pattern(new TextIs('name', TextTest::Has, str_repeat('a*', 60).'b', false)))->regular() ?? '';
        $kept = [ini_get('pcre.backtrack_limit'), ini_get('pcre.jit')];
        foreach (['1', '0'] as $jit) {
            foreach (['1000000', '2000'] as $limit) {
                ini_set('pcre.jit', $jit);
                ini_set('pcre.backtrack_limit', $limit);
                self::assertSame(range(3, 3000, 3), NameIndex::like($scene, $expression)->rows(), "limit $limit, compiled: $jit");
            }
        }
        [$limit, $jit] = $kept;
        ini_set('pcre.backtrack_limit', (string) $limit);
        ini_set('pcre.jit', (string) $jit);
    }

    public function test_properties_that_differ_by_case_are_one_field_and_small_volumes_keep_their_digits(): void
    {
        $builder = new FactsBuilder(3, [], [], []);
        $builder->add(1, 0, 0, 1, '', '{"level":"Pool","Größe":3}');
        $builder->add(2, 0, 0, 1, '', '{"Level":"Pool","größe":4}');
        $builder->add(3, 0, 0, 1, '', '{"LEVEL":"Plant"}');
        $columns = $builder->columns();
        self::assertSame(['level' => [1, 3, false], 'Größe' => [2, 2, true]], json_decode($columns['properties'], true));
        self::assertSame([1 => 1, 2 => 1, 3 => 2], Codes::unpack($columns['property.1'])->all());

        // 3 by 3 by 0.3 cm: 2.7 cubic centimetres.
        $model = PlainModel::grow(5);
        self::assertEqualsWithDelta(2.7e-6, Measure::Volume->near(2.7e-6) / 0.0005, 1e-18);
        self::assertSame([], self::found($model, 'volume = 2.7cm3'));
        $scene = new Scene(
            new DerivedColumns(
                new ColumnsInMemory(
                    SceneBuilder::columns([1 => 0], [1 => 1], [1 => 1], [], []) + [
                        'bounds' => pack('e6', INF, INF, INF, -INF, -INF, -INF).pack('e6', 0, 0, 0, 0.03, 0.03, 0.003),
                        'origin' => pack('e3', 0, 0, 0),
                    ],
                ),
            ),
        );
        $volumes = (new Facts($scene))->ranked('volume');
        self::assertSame([1], $volumes->between(2.69e-6, 2.71e-6)->rows());
        self::assertSame([], $volumes->between(-1.0, 1e-6)->rows());
    }

    /** 1.0945 - 1 is a little more than 0.0945. */
    #[TestWith([1.0945 - 1.0, 0])]
    #[TestWith([0.0945, 0])]
    #[TestWith([0.09449, 0])]
    #[TestWith([0.0950, 0])]
    #[TestWith([0.0939, -1])]
    #[TestWith([0.0951, 1])]
    public function test_a_number_is_below_another_or_equals_it_or_is_above_it(float $value, int $is): void
    {
        $near = Measure::Width->near(0.0945) + 1e-12;
        $holds = static fn (NumberTest $test, float $high = INF): bool => $test->span(0.0945, $high, $near, $near)->has($value);
        self::assertSame(
            [$is < 0, $is === 0, $is > 0, $is <= 0, $is >= 0, $is !== 0],
            array_map($holds, [
                NumberTest::Below,
                NumberTest::Is,
                NumberTest::Above,
                NumberTest::AtMost,
                NumberTest::AtLeast,
                NumberTest::IsNot,
            ]),
        );
        self::assertSame([$is >= 0, $is < 0], [$holds(NumberTest::Within), $holds(NumberTest::NotWithin)]);
        self::assertSame([$is === 0, $is !== 0], [$holds(NumberTest::Within, 0.0945), $holds(NumberTest::NotWithin, 0.0945)]);
    }

    public function test_every_example_in_the_manual_is_a_rule_and_every_field_and_state_is_in_it(): void
    {
        $manual = (string) file_get_contents(__DIR__.'/../../docs/rules.md');
        preg_match('~```\n(.*?)```~s', $manual, $block);
        $examples = array_map(
            static fn (string $line): string => (string) preg_replace('~\s{3,}.*~', '', $line),
            array_filter(explode("\n", $block[1] ?? '')),
        );
        preg_match('~## Examples(.*?)\n## ~s', $manual, $section);
        preg_match_all('~\| `([^`]+)` \|~', $section[1] ?? '', $found);
        $examples = [...$examples, ...$found[1]];
        self::assertGreaterThan(14, count($examples));
        foreach ($examples as $example) {
            self::assertNotSame('', Printer::print(Parser::parse($example)->tree), $example);
        }
        foreach (
            [
                ...array_map(static fn (Field $field): string => "`$field->value:`", Field::cases()),
                ...array_map(
                    static fn (\VineShelf\Facts\Measure $measure): string => "`$measure->value`",
                    \VineShelf\Facts\Measure::cases(),
                ),
                ...array_map(static fn (\VineShelf\Rules\State $state): string => "`$state->value`", \VineShelf\Rules\State::cases()),
            ] as $word
        ) {
            self::assertStringContainsString($word, $manual);
        }
    }

    private static function text(string $rule): TextIs
    {
        $tree = str_contains($rule, '(') ? new TextIs('name', \VineShelf\Rules\TextTest::Has, $rule, false) : Parser::parse($rule)->tree;
        \assert($tree instanceof TextIs);

        return $tree;
    }

    private static function evaluator(PlainModel $model): Evaluator
    {
        $scene = $model->facts->scene;

        return new Evaluator(
            $model->facts,
            $model->organizers,
            new InEffect($scene, $model->forest->organizers, $model->forest->settings),
            Bits::ofRows($scene->count(), $scene->rowsOf($model->picked)),
            [
                new KnownView(
                    'View "1"',
                    static fn (): Bits => Bits::ofRows(
                        $scene->count(),
                        array_values(array_filter(range(1, $scene->count()), static fn (int $row): bool => $scene->number($row) > 10)),
                    ),
                    static fn (): Levels => Levels::fromValues(
                        5,
                        array_map(static fn (int $row): int => $scene->number($row) % 6, range(1, $scene->count())),
                    ),
                ),
            ],
        );
    }

    /** @return list<int> object numbers, ascending */
    private static function found(PlainModel $model, string $rule): array
    {
        $numbers = array_map($model->facts->scene->number(...), self::evaluator($model)->find(Parser::parse($rule))->rows->rows());
        sort($numbers);

        return $numbers;
    }

    public function test_what_a_cell_shows_can_be_compared_as_it_stands_there(): void
    {
        mt_srand(20);
        foreach ([Measure::Triangles, Measure::Width, Measure::Height, Measure::Bottom, Measure::Volume] as $measure) {
            foreach (range(-9, 7) as $power) {
                for ($time = 0; $time < 20; $time++) {
                    $value = (mt_rand(1000, 9999) / 1000) * 10 ** $power;
                    $value = $measure->dimension() === 0 ? (int) ceil($value) : $value;
                    $shown = $measure->shown($value);
                    $node = Parser::parse("{$measure->value} = $shown")->tree;
                    self::assertInstanceOf(NumberIs::class, $node, $shown);
                    // Off by half of the last digit that is shown.
                    self::assertSame(1, preg_match('~^[\d,]+(?:\.(\d+))?~', $shown, $digits));
                    $unit = (new Quantity('1', (string) $node->number?->unit))->value();
                    $half = 0.5 * 10 ** -strlen($digits[1] ?? '') * $unit;
                    self::assertEqualsWithDelta($value, (float) $node->number?->value(), $half * 1.001, $shown);
                }
            }
        }
    }
}
