<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainModel;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Facts\Facts;
use VineShelf\Naming\Renaming;
use VineShelf\Picking\Reach;
use VineShelf\Picking\Scope;
use VineShelf\Picking\Ways\Asked;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Pick;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;
use VineShelf\Search\NameIndex;

final class ReachTest extends TestCase
{
    /** @return iterable<string, array{Reach}> */
    public static function ways(): iterable
    {
        foreach (Reach::cases() as $reach) {
            yield $reach->value => [$reach];
        }
    }

    #[DataProvider('ways')]
    public function test_leads_where_looking_at_every_object_leads(Reach $reach): void
    {
        mt_srand(31);
        $grown = 0;
        for ($round = 0; $round < 40; $round++) {
            $model = PlainModel::grow(mt_rand(2, 40));
            $all = array_keys($model->forest->parents);
            $pick = (array) array_rand(array_flip($all), mt_rand(1, min(4, count($all))));
            $scene = $model->facts->scene;
            $found = array_map(
                $scene->number(...),
                $reach->of(Bits::ofRows($scene->count(), $scene->rowsOf($pick)), $model->facts)->rows(),
            );
            sort($found);
            $expected = array_values(array_filter($all, static fn (int $number): bool => self::leads($model, $reach, $pick, $number)));
            sort($expected);
            self::assertSame($expected, $found, "$reach->value, round $round");
            $grown += count($found);
        }
        self::assertGreaterThan(20, $grown);
        self::assertNotSame('', $reach->label().$reach->meaning());
    }

    #[DataProvider('ways')]
    public function test_a_scope_keeps_to_the_same_outermost_group_or_layer(Reach $reach): void
    {
        mt_srand(32);
        for ($round = 0; $round < 25; $round++) {
            $model = PlainModel::grow(mt_rand(2, 40));
            $parents = $model->forest->parents;
            $all = array_keys($parents);
            $pick = (array) array_rand(array_flip($all), mt_rand(1, min(3, count($all))));
            $scene = $model->facts->scene;
            $top = static function (int $of) use ($parents): int {
                while ($parents[$of] !== 0) {
                    $of = $parents[$of];
                }

                return $of;
            };
            $layer = static fn (int $of): int => $model->forest->layerOf[$of];
            foreach ([[Scope::Outermost, $top], [Scope::Layer, $layer]] as [$scope, $of]) {
                $rows = $reach->of(Bits::ofRows($scene->count(), $scene->rowsOf($pick)), $model->facts, scope: $scope)->rows();
                $expected = array_filter(
                    $all,
                    static fn (int $number): bool => self::leads($model, $reach, $pick, $number) &&
                        (in_array($number, $pick, true) || in_array($of($number), array_map($of, $pick), true)),
                );
                self::assertEqualsCanonicalizing(
                    $expected,
                    array_map($scene->number(...), $rows),
                    "$reach->value, $scope->value, round $round",
                );
            }
        }
    }

    public function test_a_pick_of_a_thousand_names_and_sizes_reaches_the_twins_of_all_of_them(): void
    {
        $count = 2000;
        $names = [''];
        $boxes = pack('e6', INF, INF, INF, -INF, -INF, -INF);
        for ($row = 1; $row <= $count; $row++) {
            // Every size and every name twice, the second time turned by a quarter.
            $kind = ($row - 1) % 1000;
            $side = 0.05 * 1.03 ** ($kind % 250) + 7 * intdiv($kind, 250);
            $names[] = chr(97 + ($kind % 26)).'_'.chr(97 + (intdiv($kind, 26) % 26)).chr(97 + intdiv($kind, 676)).' '.$row;
            $boxes .=
                $row <= 1000
                    ? pack('e6', 0, 0, 0, $side, $side / 2, $side / 3)
                    : pack('e6', 5, 5, 5, 5 + $side / 2, 5 + $side, 5 + $side / 3);
        }
        $numbers = range(1, $count);
        $columns = SceneBuilder::columns(array_fill_keys($numbers, 0), array_fill_keys($numbers, 1), array_fill_keys($numbers, 1), [], []);
        $scene = new Scene(
            new DerivedColumns(
                new ColumnsInMemory($columns + NameIndex::columns($names) + ['bounds' => $boxes, 'origin' => pack('e3', 0, 0, 0)]),
            ),
        );
        $pick = Bits::ofRanges($count, [[1, 1000]]);
        foreach ([Reach::Name, Reach::Size] as $reach) {
            self::assertSame($count, $reach->of($pick, new Facts($scene), new Asked(0.0001))->count(), $reach->value);
        }
    }

    public function test_one_property_alone_leads_to_all_values_that_the_pick_has(): void
    {
        mt_srand(3);
        $model = PlainModel::grow(60);
        $scene = $model->facts->scene;
        $with = array_keys(array_filter($model->properties, static fn (array $properties): bool => isset($properties['diameter'])));
        $pick = array_slice($with, 0, 2);
        $values = array_map(static fn (int $number): int|float|string => $model->properties[$number]['diameter'], $pick);
        $found = array_map(
            $scene->number(...),
            Reach::Properties
                ->of(Bits::ofRows($scene->count(), $scene->rowsOf($pick)), $model->facts, new Asked(property: 'diameter'))
                ->rows(),
        );
        $expected = array_filter($with, static fn (int $number): bool => in_array($model->properties[$number]['diameter'], $values, true));
        self::assertEqualsCanonicalizing($expected, $found);
    }

    public function test_names_are_the_same_up_to_their_number(): void
    {
        self::assertSame(
            ['seat_shell', 'seat', 'lamp', 'wall', 'group', '12', 'glass', 'ab3c'],
            array_map(NameIndex::stem(...), ['seat_shell_001', 'seat 7', 'lamp', 'wall.004', 'group (12)', '12', 'glass#12', 'ab3c']),
        );
    }

    public function test_isolating_lifts_the_pick_and_lowers_the_rest_and_back_is_as_before(): void
    {
        mt_srand(8);
        for ($round = 0; $round < 60; $round++) {
            $model = PlainModel::grow(mt_rand(1, 40));
            $forest = $model->forest;
            $scene = $model->facts->scene;
            $inside = static function (int $number, array $pick) use ($forest): bool {
                for (; $number !== 0; $number = $forest->parents[$number]) {
                    if (in_array($number, $pick, true)) {
                        return true;
                    }
                }

                return false;
            };
            $rest = [Rung::Hidden, Rung::Ghost][$round % 2];
            $once = Isolation::none()->deeper(Pick::of($model->picked), $rest);
            $twice = Isolation::unpack($once->deeper(Pick::of(array_slice($model->picked, 0, 1)), Rung::Hidden)->pack());
            $rungs = (new InEffect($scene, $forest->organizers, $forest->settings, $once))->rungs();
            foreach ($forest->parents as $number => $_) {
                self::assertSame(
                    $inside($number, $model->picked) ? 5 : min($rest->value, $forest->slowRung($number)),
                    $rungs->at($scene->row($number)),
                );
            }
            self::assertSame([2, array_slice($model->picked, 0, 1)], [$twice->depth(), $twice->objects()->numbers()]);
            self::assertEquals($once, $twice->back());
            self::assertFalse($twice->back()->back()->isOn());
            self::assertSame(Rung::Ghost, $twice->withRest(Rung::Ghost)->rest());
            self::assertEquals(
                (new InEffect($scene, $forest->organizers, $forest->settings))->rungs(),
                (new InEffect($scene, $forest->organizers, $forest->settings, Isolation::none()))->rungs(),
            );
        }
    }

    public function test_new_names_are_made_as_described(): void
    {
        $names = static fn (Renaming $renaming, string ...$names): array => array_map(
            static fn (string $name, int $index): string => $renaming->of($name, $index, 'Seats', 'Block West', 'part'),
            $names,
            array_keys($names),
        );
        self::assertSame(['Chair_Shell_1', 'a Chair'], $names(new Renaming('seat', 'Chair'), 'Seat_Shell_1', 'a seat'));
        self::assertSame(['Seat 001 (old)', 'x'], $names(new Renaming('Mesh_*', 'Seat $1 (old)'), 'Mesh_001', 'x'));
        self::assertSame(
            ['Seats 010', 'Seats 015', 'Seats 020'],
            $names(new Renaming(pattern: '{layer} {number}', start: 10, step: 5, digits: 3), 'a', 'b', 'c'),
        );
        self::assertSame(['W-a-part', 'W-b-part'], $names(new Renaming(prefix: 'W-', suffix: '-{kind}'), 'a', 'b'));
        self::assertSame(['Block West/a'], $names(new Renaming(pattern: '{parent}/{name}'), 'a'));
        self::assertSame(['a.b', 'aXb'], $names(new Renaming('.', '.'), 'a.b', 'aXb'), 'a dot is a dot');
        self::assertSame(['-02'], $names(new Renaming(pattern: '{number}', start: -2, digits: 2), 'a'));
        self::assertSame(['$1 {number}'], $names(new Renaming, '$1 {number}'), 'what stands in a name has no meaning');
        self::assertSame(['two words'], $names(new Renaming(pattern: "  two \n words "), 'a'));
    }

    /** @param list<int> $pick */
    private static function leads(PlainModel $model, Reach $reach, array $pick, int $number): bool
    {
        $parents = $model->forest->parents;
        $above = static function (int $of) use ($parents): array {
            $chain = [];
            while (($of = $parents[$of]) !== 0) {
                $chain[] = $of;
            }

            return $chain;
        };
        $children = static fn (int $of): array => array_keys($parents, $of, true);
        $top = static fn (int $of): int => $above($of) === [] ? $of : $above($of)[count($above($of)) - 1];
        $is = in_array($number, $pick, true);
        $any = static fn (callable $test): bool => array_filter($pick, $test) !== [];
        $materials = static fn (int $of): array => $model->facts->materialsOf($model->facts->scene->row($of));
        $sides = static function (int $of) use ($model): array {
            $sides = array_map(static fn (string $side): float|int|null => $model->measure($of, $side), ['width', 'length', 'height']);
            sort($sides);

            return $sides;
        };

        return match ($reach) {
            Reach::Up => $any(static fn (int $one): bool => ($parents[$one] ?: $one) === $number),
            Reach::Top => $any(static fn (int $one): bool => $top($one) === $number),
            Reach::Down => $any(static fn (int $one): bool => $parents[$number] === $one || ($one === $number && $children($one) === [])),
            Reach::Below => $is || $any(static fn (int $one): bool => in_array($one, $above($number), true)),
            Reach::Beside => $is || $any(static fn (int $one): bool => $parents[$one] === $parents[$number]),
            Reach::Depth => $any(static fn (int $one): bool => count($above($one)) === count($above($number))),
            Reach::Kind => $any(static fn (int $one): bool => $model->forest->kinds[$one] === $model->forest->kinds[$number]),
            Reach::ObjectClass => $any(
                static fn (int $one): bool => $model->classes[$one] === $model->classes[$number] && $model->classes[$one] !== '',
            ) || $is,
            Reach::Material => $is || $any(static fn (int $one): bool => array_intersect($materials($one), $materials($number)) !== []),
            Reach::Mesh => $is ||
                $any(static fn (int $one): bool => $model->meshes[$one] > 0 && $model->meshes[$one] === $model->meshes[$number]),
            Reach::Size => $is ||
                ($any(static fn (int $one): bool => $model->forest->kinds[$one] === $model->forest->kinds[$number]) &&
                    $any(
                        static fn (int $one): bool => $sides($one)[2] !== null &&
                            $sides($number)[0] !== null &&
                            max(array_map(static fn (float $a, float $b): float => abs($a - $b), $sides($one), $sides($number))) <=
                                $sides($one)[2] * Asked::TOLERANCE + 1e-4,
                    )),
            Reach::Name => $is ||
                $any(
                    static fn (int $one): bool => NameIndex::stem(mb_strtolower($model->names[$one])) ===
                        NameIndex::stem(mb_strtolower($model->names[$number])),
                ),
            Reach::Layer => $any(static fn (int $one): bool => $model->forest->layerOf[$one] === $model->forest->layerOf[$number]),
            Reach::Properties => $is || self::shares($model, $pick, $number),
        };
    }

    /** @param list<int> $pick */
    private static function shares(PlainModel $model, array $pick, int $number): bool
    {
        $shared = array_intersect_assoc(
            ...array_map(static fn (int $one): array => array_map(self::typed(...), $model->properties[$one]), [...$pick, $pick[0]]),
        );

        return $shared !== [] && array_diff_assoc($shared, array_map(self::typed(...), $model->properties[$number])) === [];
    }

    private static function typed(int|float|string $value): string
    {
        return get_debug_type($value)." $value";
    }
}
