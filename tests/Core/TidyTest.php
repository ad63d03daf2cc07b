<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainModel;
use VineShelf\Layers\Layer;
use VineShelf\Scene\Kind;
use VineShelf\Tidy\Check;
use VineShelf\Tidy\Checks;
use VineShelf\Tidy\Checks\ExportersNames;
use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Names;

/** What tidy finds, against looking at every object, or every pair of objects. */
final class TidyTest extends TestCase
{
    /** @return iterable<string, array{string, \Closure(PlainModel, int): bool}> check, and whether an object is one of those */
    public static function byObject(): iterable
    {
        $group = static fn (PlainModel $model, int $number): bool => $model->forest->kinds[$number] === Kind::Group->value;
        $parent = static fn (PlainModel $model, int $number): int => $model->forest->parents[$number];
        $children = static fn (PlainModel $model, int $number): array => array_keys($model->forest->parents, $number, true);
        $home = static function (PlainModel $model, int $number) use ($parent): int {
            for ($at = $parent($model, $number); $at !== 0; $at = $parent($model, $at)) {
                if ($model->forest->layerOf[$at] !== Layer::UNSORTED) {
                    return $model->forest->layerOf[$at];
                }
            }

            return 0;
        };
        $unsorted = static fn (PlainModel $model, int $number): bool => $model->forest->layerOf[$number] === Layer::UNSORTED &&
            ! $group($model, $number);
        yield 'unsorted' => [
            'unsorted',
            static fn (PlainModel $model, int $number): bool => $unsorted($model, $number) && $home($model, $number) === 0,
        ];
        yield 'unsorted in filed' => [
            'unsorted-in-filed',
            static fn (PlainModel $model, int $number): bool => $unsorted($model, $number) && $home($model, $number) !== 0,
        ];
        yield 'filed apart' => [
            'filed-apart',
            static fn (PlainModel $model, int $number): bool => ($above = $parent($model, $number)) !== 0 &&
                $group($model, $above) &&
                ! $group($model, $number) &&
                $model->forest->layerOf[$above] !== $model->forest->layerOf[$number] &&
                ! in_array(Layer::UNSORTED, [$model->forest->layerOf[$above], $model->forest->layerOf[$number]], true),
        ];
        yield 'unnamed' => ['unnamed', static fn (PlainModel $model, int $number): bool => $model->names[$number] === ''];
        yield 'siblings' => [
            'same-siblings',
            static fn (PlainModel $model, int $number): bool => $model->names[$number] !== '' &&
                array_filter(
                    $children($model, $parent($model, $number)),
                    static fn (int $other): bool => $other !== $number &&
                        mb_strtolower($model->names[$other]) === mb_strtolower($model->names[$number]),
                ) !== [],
        ];
        $isEmpty = static function (PlainModel $model, int $number) use (&$isEmpty, $group, $children): bool {
            return $group($model, $number) &&
                array_filter($children($model, $number), static fn (int $child): bool => ! $isEmpty($model, $child)) === [];
        };
        yield 'empty groups' => ['empty-groups', $isEmpty];
        yield 'loose' => [
            'loose',
            static fn (PlainModel $model, int $number): bool => $parent($model, $number) === 0 &&
                ! $group($model, $number) &&
                $children($model, $number) === [] &&
                array_filter(
                    $children($model, 0),
                    static fn (int $other): bool => $group($model, $other) || $children($model, $other) !== [],
                ) !== [],
        ];
        yield 'chains' => [
            'chains',
            static fn (PlainModel $model, int $number): bool => $group($model, $number) &&
                count($children($model, $number)) === 1 &&
                $group($model, $children($model, $number)[0]),
        ];
        $determinant = static fn (array $m): float => $m[0] * ($m[5] * $m[10] - $m[6] * $m[9]) -
            $m[1] * ($m[4] * $m[10] - $m[6] * $m[8]) +
            $m[2] * ($m[4] * $m[9] - $m[5] * $m[8]);
        yield 'mirrored' => [
            'mirrored',
            static fn (PlainModel $model, int $number): bool => $model->meshes[$number] > 0 &&
                array_filter($model->placements[$number], static fn (array $m): bool => $determinant($m) < 0) !== [],
        ];
        yield 'uneven' => [
            'uneven',
            static fn (PlainModel $model, int $number): bool => $model->meshes[$number] > 0 &&
                array_filter($model->placements[$number], static function (array $m): bool {
                    // A ball stays one: the matrix times its own transpose is a multiple of nothing but ones.
                    $gram = [];
                    foreach ([0, 1, 2] as $i) {
                        foreach ([0, 1, 2] as $j) {
                            $gram[] = $m[$i] * $m[$j] + $m[4 + $i] * $m[4 + $j] + $m[8 + $i] * $m[8 + $j];
                        }
                    }
                    $scale = ($gram[0] + $gram[4] + $gram[8]) / 3;

                    return max(
                        array_map(static fn (float $a, float $b): float => abs($a - $scale * $b), $gram, [1, 0, 0, 0, 1, 0, 0, 0, 1]),
                    ) >
                        0.01 * $scale;
                }) !== [],
        ];
        yield 'twins' => [
            'twins',
            static fn (PlainModel $model, int $number): bool => $model->meshes[$number] > 0 &&
                array_filter(
                    array_keys($model->forest->parents),
                    static fn (int $other): bool => $other !== $number && self::sameWhole($model, $other, $number),
                ) !== [],
        ];
    }

    /** @param \Closure(PlainModel, int): bool $is */
    #[DataProvider('byObject')]
    public function test_finds_what_looking_at_every_object_finds(string $id, \Closure $is): void
    {
        mt_srand(1140);
        $found = 0;
        for ($round = 0; $round < 60; $round++) {
            $plain = PlainModel::grow(mt_rand(1, 40));
            $plain->twist();
            $model = self::model($plain);
            $expected = array_values(
                array_filter(array_keys($plain->forest->parents), static fn (int $number): bool => $is($plain, $number)),
            );
            $rows = [];
            foreach (self::check($id)->find($model) as $item) {
                array_push($rows, ...$item->rows->rows());
            }
            $numbers = array_map($model->scene->number(...), $rows);
            self::assertSame(count($numbers), count(array_unique($numbers)), 'each once');
            sort($numbers);
            sort($expected);
            self::assertSame($expected, $numbers, "round $round");
            $found += count($expected);
        }
        self::assertGreaterThan($id === 'chains' ? 2 : 15, $found);
    }

    public function test_names_that_nobody_gives_are_told_from_those_that_somebody_did(): void
    {
        $exporters = [
            'Mesh_033',
            'Object.001',
            'mesh',
            'Group 7',
            'node-12',
            'Cube.014',
            '9f86d081884c7d659a2feaa0c55ad015',
            '1042',
            '#12',
            'Default',
        ];
        $exporters[] = '3f2504e0-4f89-11d3-9a0c-0305e82c3301';
        foreach ($exporters as $name) {
            self::assertTrue(ExportersNames::isOne($name), $name);
        }
        foreach (
            [
                'Seat_033',
                'Mesh fence',
                'Grouping',
                'Party wall 2',
                'Beam A12',
                'Planetarium',
                'Boxing ring',
                '',
                'Café 1',
                'Line of lockers',
            ] as $name
        ) {
            self::assertFalse(ExportersNames::isOne($name), $name);
        }
    }

    public function test_nearly_same_names_go_together_and_are_written_as_most_are(): void
    {
        $plain = PlainModel::grow(12);
        $names = [
            'Seat_shell',
            'Seat_shell',
            'Seat_shell',
            'Seat Shell ',
            'seat-shell',
            'Pump 1',
            'Pump 2',
            'pump_3',
            'Oak',
            'Öak',
            'Glass',
            '',
        ];
        $model = self::model($plain, $names);
        $items = self::check('nearly-same')->find($model);
        self::assertSame(
            ['“Seat_shell”, “Seat Shell ”, “seat-shell”', '“Pump”, “pump”'],
            array_map(static fn (Item $item): string => $item->says, $items),
        );
        $all = $items[0]->rows->or($items[1]->rows);
        $better = Names::oneSpelling($model, $all);
        self::assertEqualsCanonicalizing(['Seat_shell', 'Seat_shell', 'Pump_3'], array_values($better));
        self::assertSame([], array_intersect_key($better, array_flip([1, 2, 3])));
    }

    public function test_better_names_come_from_class_material_and_group_and_are_numbered_on(): void
    {
        mt_srand(3);
        for ($round = 0; $round < 30; $round++) {
            $plain = PlainModel::grow(30);
            $model = self::model(
                $plain,
                array_map(static fn (): string => ['Mesh_1', '', 'Rail', 'Hall', 'Rail 7'][mt_rand(0, 4)], range(1, 30)),
            );
            $rows = $model->rows(
                array_filter(range(1, 30), static fn (int $row): bool => ! in_array($model->names[$row], ['Rail', 'Hall', 'Rail 7'], true)),
            );
            $named = Names::proposed($model, $rows);
            self::assertSame(count($named), count(array_unique($named)));
            self::assertSame([], array_intersect($named, $model->names), 'none is taken');
            foreach ($named as $row => $name) {
                $class = $model->facts->className($row);
                self::assertMatchesRegularExpression('~ \d+$~', $name);
                if ($class !== '') {
                    self::assertStringStartsWith("$class ", $name);
                }
            }
            $numbered = Names::numbered($model, $model->rows(range(1, 30)));
            $all = $numbered + $model->names;
            for ($row = 1; $row <= 30; $row++) {
                foreach ($model->scene->children($model->scene->parent($row)) as $other) {
                    if ($other !== $row && $all[$row] !== '') {
                        self::assertNotSame(mb_strtolower($all[$row]), mb_strtolower($all[$other]));
                    }
                }
            }
        }
    }

    public function test_twins_that_hardly_differ_are_found_wherever_they_stand(): void
    {
        mt_srand(8);
        for ($round = 0; $round < 100; $round++) {
            do {
                $plain = PlainModel::grow(20);
            } while ($plain->twist(1e-7) === 0);
            $pairs = 0;
            foreach (self::check('twins')->find(self::model($plain)) as $item) {
                $pairs += $item->rows->count() - 1;
            }
            self::assertGreaterThan(0, $pairs, "round $round");
        }
    }

    public function test_all_checks_say_what_and_why_and_find_nothing_in_nothing(): void
    {
        $empty = self::model(PlainModel::grow(1), ['Hall']);
        foreach (Checks::all() as $id => $check) {
            self::assertSame($id, $check->id());
            self::assertNotSame($check->title(1), $check->title(2));
            self::assertStringContainsString('1,234', $check->title(1234));
            self::assertGreaterThan(30, strlen($check->why()));
            self::assertLessThan($id === 'empty' ? 9 : 2, count($check->find($empty)), $id);
        }
    }

    private static function check(string $id): Check
    {
        return Checks::all()[$id];
    }

    /** @param list<string> $names by number from 1 on, instead of those that it has */
    private static function model(PlainModel $plain, array $names = []): Model
    {
        $scene = $plain->facts->scene;
        $byRow = [''];
        for ($row = 1; $row <= $scene->count(); $row++) {
            $byRow[] = $names === [] ? $plain->names[$scene->number($row)] : $names[$row - 1];
        }

        return new Model($plain->facts, $plain->organizers, $byRow, \VineShelf\Scene\Bits::none($scene->count()));
    }

    /** Whether two objects draw the same in the same places, and hold the same. */
    private static function sameWhole(PlainModel $model, int $here, int $there): bool
    {
        [$isDrawn, $kinds] = [$model->meshes[$here] > 0, $model->forest->kinds];
        if (
            $here !== $there &&
            ($kinds[$here] !== $kinds[$there] ||
                $model->meshes[$here] !== $model->meshes[$there] ||
                ! self::sameBag($model->placements[$here] ?? [], $model->placements[$there] ?? []) ||
                (! $isDrawn && ($kinds[$here] !== Kind::Group->value || $model->names[$here] !== $model->names[$there])))
        ) {
            return false;
        }
        [$inside, $others] = [array_keys($model->forest->parents, $here, true), array_keys($model->forest->parents, $there, true)];
        foreach ($inside as $child) {
            $like = array_filter($others, static fn (int $other): bool => self::sameWhole($model, $child, $other));
            if ($like === []) {
                return false;
            }
            unset($others[array_key_first($like)]);
        }

        return $others === [];
    }

    /**
     * @param list<list<float>> $here
     * @param list<list<float>> $there
     */
    private static function sameBag(array $here, array $there): bool
    {
        if (count($here) !== count($there)) {
            return false;
        }
        foreach ($here as $m) {
            foreach ($there as $at => $other) {
                if (max(array_map(static fn (float $a, float $b): float => abs($a - $b), $m, $other)) < 1e-4) {
                    unset($there[$at]);

                    continue 2;
                }
            }

            return false;
        }

        return true;
    }
}
