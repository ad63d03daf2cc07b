<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainModel;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Organizers\Organizers;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;
use VineShelf\Tidy\Checks;
use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;

/** What tidy finds of sizes, places, looks, meshes, layers, tags and sets: against every object, every corner, every pair. */
final class TidyPairsTest extends TestCase
{
    protected function setUp(): void
    {
        mt_srand(1211);
    }

    public function test_parts_of_no_size_are_those_whose_corners_are_all_in_one_place(): void
    {
        $found = 0;
        for ($round = 0; $round < 90; $round++) {
            $plain = PlainModel::grow(30);
            // Nothing, next to nothing, thin in one direction, and a hair that can still be seen.
            $sizes = [[0, 0, 0], [1e-7, 1e-7, 1e-7], [0, 1, 1], [1e-3, 1e-3, 1e-3], [1, 1, 1]];
            $plain->place(static function (int $number, array $m) use ($sizes): array {
                $size = $sizes[$number % 5];
                foreach ([0, 1, 2, 4, 5, 6, 8, 9, 10] as $at) {
                    $m[$at] *= $size[$at % 4];
                }

                return $m;
            });
            $expected = [];
            foreach (array_keys($plain->forest->parents) as $number) {
                $corners = $plain->corners($number);
                $isLeaf = ! in_array($number, $plain->forest->parents, true);
                if ($corners !== [] && $isLeaf && self::widest($corners) <= 1e-5) {
                    $expected[] = $number;
                }
            }
            self::assertFinds($expected, 'zero-size', self::model($plain), "round $round");
            $found += count($expected);
        }
        self::assertGreaterThan(100, $found);
    }

    public function test_what_stands_far_from_everything_else_is_found_wherever_the_model_stands(): void
    {
        $found = 0;
        for ($round = 0; $round < 120; $round++) {
            $plain = PlainModel::grow(60);
            $whole = [mt_rand(-1, 1) * 4e5, mt_rand(-1, 1) * 5e6, 0.0];
            $off = [0.0, 60.0, 400.0, 3000.0, 2e5][$round % 5];
            $some = 9 + mt_rand(0, 30);
            $plain->place(static function (int $number, array $m) use ($whole, $off, $some): array {
                $m[3] += $whole[0] + ($number % $some === 0 ? $off : 0.0);
                $m[7] += $whole[1];

                return $m;
            });
            $middles = [];
            foreach (array_keys($plain->forest->parents) as $number) {
                $corners = $plain->corners($number);
                if ($corners !== [] && ! in_array($number, $plain->forest->parents, true)) {
                    $middles[$number] = array_map(
                        static fn (int $axis): float => (min(array_column($corners, $axis)) + max(array_column($corners, $axis))) / 2,
                        [0, 1, 2],
                    );
                }
            }
            $expected = count($middles) < 10 ? [] : self::far($middles);
            self::assertFinds($expected, 'far-away', self::model($plain), "round $round");
            $found += count($expected);
        }
        self::assertGreaterThan(20, $found);
    }

    /**
     * @param array<int, list<float>> $middles
     *
     * @return list<int> more than fifty metres from the middle, and ten times as far as nine tenths of all
     */
    private static function far(array $middles): array
    {
        $of = count($middles);
        // The value that has as many below it as there must be, found by asking each for how many those are.
        $ranked = static function (array $values, int $rank): float {
            foreach ($values as $value) {
                $below = count(array_filter($values, static fn (float $other): bool => $other < $value));
                $upTo = count(array_filter($values, static fn (float $other): bool => $other <= $value));
                if ($below <= $rank && $rank < $upTo) {
                    return $value;
                }
            }
            throw new \LogicException;
        };
        $middle = array_map(static fn (int $axis): float => $ranked(array_column($middles, $axis), intdiv($of, 2)), [0, 1, 2]);
        $distances = array_map(
            static fn (array $at): float => hypot(hypot($at[0] - $middle[0], $at[1] - $middle[1]), $at[2] - $middle[2]),
            $middles,
        );
        $most = $ranked($distances, (int) floor(($of - 1) * 0.9));

        return array_keys(array_filter($distances, static fn (float $distance): bool => $distance > 50 && $distance > 10 * $most));
    }

    public function test_heavy_parts_are_those_that_take_a_fiftieth_of_everything(): void
    {
        $found = 0;
        for ($round = 0; $round < 40; $round++) {
            $plain = PlainModel::grow(40);
            foreach (array_keys(array_filter($plain->meshes)) as $number) {
                $plain->forest->triangles[$number] = [12, 19_999, 20_000, 30_000, 400_000][mt_rand(0, 4)];
            }
            $plain->place(static fn (int $number, array $m): array => $m);
            $all = array_sum($plain->forest->triangles);
            $expected = array_keys(
                array_filter($plain->forest->triangles, static fn (int $own): bool => $own >= 20_000 && 50 * $own >= $all),
            );
            $model = self::model($plain);
            self::assertFinds($expected, 'too-heavy', $model, "round $round");
            // The heaviest stands first, and each by itself.
            $weights = array_map(
                static fn (Item $item): int => $plain->forest->triangles[$model->scene->number($item->rows->rows()[0])],
                Checks::all()['too-heavy']->find($model),
            );
            $sorted = $weights;
            rsort($sorted);
            self::assertSame($sorted, $weights);
            $found += count($expected);
        }
        self::assertGreaterThan(40, $found);
    }

    public function test_meshes_that_are_stored_twice_are_all_pairs_that_are_alike_and_drawn(): void
    {
        $found = 0;
        for ($round = 0; $round < 60; $round++) {
            $plain = PlainModel::grow(mt_rand(2, 25));
            $made = [];
            foreach (range(1, 5) as $mesh) {
                $alike = mt_rand(1, 3);
                $made[$mesh] = ["made $alike", 1000 * $alike];
            }
            $pairs = $saved = [];
            foreach ($plain->meshes as $one => $mesh) {
                foreach ($plain->meshes as $other => $like) {
                    if ($mesh > 0 && $like > 0 && $mesh !== $like && $made[$mesh] === $made[$like]) {
                        $pairs[$one] = true;
                        $saved[$made[$mesh][0]][$mesh] = $saved[$made[$mesh][0]][$like] = $made[$mesh][1];
                    }
                }
            }
            $model = self::model($plain, meshes: $made);
            self::assertFinds(array_keys($pairs), 'stored-twice', $model, "round $round");
            $bytes = array_map(static fn (array $all): int => array_sum($all) - max($all), $saved);
            rsort($bytes);
            self::assertSame(
                array_map(static fn (int $bytes): string => number_format($bytes).' bytes too many', $bytes),
                array_map(
                    static fn (Item $item): string => substr($item->says, (int) strrpos($item->says, ', ') + 2),
                    Checks::all()['stored-twice']->find($model),
                ),
                'what saves most stands first',
            );
            $found += count($pairs);
        }
        self::assertGreaterThan(100, $found);
    }

    public function test_materials_that_differ_by_name_only_are_those_that_look_alike_and_are_used(): void
    {
        $found = 0;
        for ($round = 0; $round < 60; $round++) {
            $plain = PlainModel::grow(mt_rand(1, 20));
            $looks = array_map(static fn (): string => 'looks '.mt_rand(1, 2), PlainModel::MATERIALS);
            $expected = [];
            foreach (array_keys($plain->forest->parents) as $number) {
                foreach ($plain->materialsOf($number) as $one) {
                    foreach (array_keys(PlainModel::MATERIALS) as $other) {
                        if ($one !== $other && $looks[$one] === $looks[$other]) {
                            $expected[$number] = true;
                        }
                    }
                }
            }
            self::assertFinds(array_keys($expected), 'same-materials', self::model($plain, surfaces: $looks), "round $round");
            $found += count($expected);
        }
        self::assertGreaterThan(100, $found);
    }

    public function test_layers_that_are_called_like_each_other_or_like_objects_are_all_pairs_that_are(): void
    {
        $same = static fn (string $one, string $other): bool => mb_strtolower(trim($one)) === mb_strtolower(trim($other));
        [$layersFound, $objectsFound] = [0, 0];
        for ($round = 0; $round < 80; $round++) {
            $plain = PlainModel::grow(mt_rand(1, 20));
            $words = ['Seat', 'SEAT', ' seat', 'Ölfilter', 'ÖLFILTER', 'Roof', 'pump ', 'Lamp 1', 'Glass', 'Stand'];
            $names = [];
            $layers = [];
            foreach ($plain->forest->layers->walk() as [$layer]) {
                $names[$layer->number] = $layer->isUnsorted() ? 'Unsorted' : $words[array_rand($words)];
                $layers[] = new Layer($layer->number, $layer->parent, $layer->position, $names[$layer->number], '#777777');
            }
            $model = self::model($plain, organizers: new Organizers(new LayerTree($layers)));
            $twice = [];
            foreach ($names as $one => $name) {
                foreach ($names as $other => $like) {
                    if ($one !== $other && $same($name, $like)) {
                        $twice["L$one"] = true;
                    }
                }
            }
            self::assertSameKeys(array_keys($twice), 'same-layers', $model);
            $in = array_filter($plain->forest->layerOf, static fn (int $layer): bool => isset($twice["L$layer"]));
            self::assertFinds(array_keys($in), 'same-layers', $model, "round $round");
            $like = [];
            foreach ($names as $layer => $name) {
                foreach ($plain->names as $object) {
                    if ($same($name, $object)) {
                        $like["L$layer"] = true;
                    }
                }
            }
            self::assertSameKeys(array_keys($like), 'same-as-layer', $model);
            [$layersFound, $objectsFound] = [$layersFound + count($twice), $objectsFound + count($like)];
        }
        self::assertGreaterThan(40, min($layersFound, $objectsFound));
    }

    public function test_what_holds_nothing_is_every_layer_tag_and_set_that_nobody_is_in(): void
    {
        $found = ['L' => 0, 'T' => 0, 'E' => 0];
        for ($round = 0; $round < 80; $round++) {
            $plain = PlainModel::grow(mt_rand(1, 6));
            $forest = $plain->forest;
            $empty = [];
            foreach ($forest->layers->walk() as [$layer]) {
                $holds = false;
                foreach ($forest->layerOf as $of) {
                    for ($at = $of; $at !== 0; $at = $forest->layers->get($at)->parent) {
                        $holds = $holds || $at === $layer->number;
                    }
                }
                if (! $holds && $layer->number !== Layer::UNSORTED) {
                    $empty[] = "L$layer->number";
                }
            }
            foreach ($forest->tags->all() as $tag) {
                if (($forest->tagged[$tag->number] ?? []) === []) {
                    $empty[] = "T$tag->number";
                }
            }
            foreach ($plain->sets as $set) {
                if ($set->rule === null && $plain->chosen[$set->number] === []) {
                    $empty[] = "E$set->number";
                }
            }
            self::assertSameKeys($empty, 'empty', self::model($plain));
            foreach ($empty as $key) {
                $found[$key[0]]++;
            }
        }
        self::assertGreaterThan(20, min($found));
    }

    public function test_hidden_parts_and_live_sets_in_vain_are_told_as_they_were_worked_out(): void
    {
        for ($round = 0; $round < 20; $round++) {
            do {
                $plain = PlainModel::grow(20);
                $live = array_filter($plain->sets, static fn ($set): bool => $set->rule !== null);
            } while (count($live) < 2);
            $unseen = array_filter(array_keys($plain->forest->parents), static fn (): bool => mt_rand(0, 1) === 0);
            $counts = $dead = [];
            foreach ($live as $set) {
                $counts[$set->number] = [mt_rand(0, 1), mt_rand(0, 2) === 0 ? 'There is no tag Gone.' : ''];
                if ($counts[$set->number] !== [1, '']) {
                    $dead[] = "E$set->number";
                }
            }
            // One that was deleted while the report was made.
            $counts[999] = [0, ''];
            $scene = $plain->facts->scene;
            $hidden = Bits::ofRows($scene->count(), $scene->rowsOf($unseen));
            $model = self::model($plain, hidden: $hidden, sets: $counts);
            self::assertSameKeys($dead, 'dead-sets', $model);
            $parts = array_filter($unseen, static fn (int $number): bool => $plain->forest->kinds[$number] !== Kind::Group->value);
            self::assertFinds($parts, 'hidden', $model, "round $round");
        }
    }

    /** @param array<int> $expected numbers of the objects, in any order */
    private static function assertFinds(array $expected, string $check, Model $model, string $where): void
    {
        $numbers = [];
        foreach (Checks::all()[$check]->find($model) as $item) {
            array_push($numbers, ...array_map($model->scene->number(...), $item->rows->rows()));
        }
        sort($numbers);
        sort($expected);
        self::assertSame($expected, $numbers, "$check, $where");
    }

    /** @param list<string> $expected keys of what people sort by, in any order */
    private static function assertSameKeys(array $expected, string $check, Model $model): void
    {
        $keys = array_merge([], ...array_map(static fn (Item $item): array => $item->of, Checks::all()[$check]->find($model)));
        sort($keys);
        sort($expected);
        self::assertSame($expected, $keys, $check);
    }

    /** @param list<array{float, float, float}> $corners */
    private static function widest(array $corners): float
    {
        $widest = 0.0;
        foreach ($corners as $one) {
            foreach ($corners as $other) {
                $widest = max($widest, abs($one[0] - $other[0]), abs($one[1] - $other[1]), abs($one[2] - $other[2]));
            }
        }

        return $widest;
    }

    /**
     * @param array<int, array{int, string}> $sets
     * @param array<int, string>             $surfaces
     * @param array<int, array{string, int}> $meshes
     */
    private static function model(
        PlainModel $plain,
        ?Organizers $organizers = null,
        ?Bits $hidden = null,
        array $sets = [],
        array $surfaces = [],
        array $meshes = [],
    ): Model {
        $scene = $plain->facts->scene;
        $names = [''];
        for ($row = 1; $row <= $scene->count(); $row++) {
            $names[] = $plain->names[$scene->number($row)];
        }
        $hidden ??= Bits::none($scene->count());

        return new Model($plain->facts, $organizers ?? $plain->organizers, $names, $hidden, $sets, $surfaces, $meshes);
    }
}
