<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainModel;
use VineShelf\Colours\Oklab;
use VineShelf\Colours\Palette;
use VineShelf\Facts\Facts;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Coded;
use VineShelf\Scene\ColumnSource;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Parked;
use VineShelf\Scene\Pick;
use VineShelf\Scene\Scene;
use VineShelf\Sets\SelectionSet;
use VineShelf\Tint\Legend;
use VineShelf\Tint\TintBy;

/** Tints: which object gets which colour; and picks that are parked. */
final class TintTest extends TestCase
{
    #[TestWith([TintBy::Layer])]
    #[TestWith([TintBy::Kind])]
    #[TestWith([TintBy::Material])]
    #[TestWith([TintBy::Source])]
    #[TestWith([TintBy::Lock])]
    #[TestWith([TintBy::Weight])]
    #[TestWith([TintBy::Tag])]
    #[TestWith([TintBy::TagCount])]
    #[TestWith([TintBy::WithoutTags])]
    #[TestWith([TintBy::Set])]
    public function test_every_object_that_is_drawn_has_the_entry_that_looking_at_it_gives(TintBy $by): void
    {
        mt_srand(41);
        for ($round = 0; $round < 12; $round++) {
            $model = PlainModel::grow(mt_rand(3, 60));
            $legend = self::legend($model, $by);
            foreach ($model->forest->parents as $number => $_) {
                $expected =
                    $model->meshes[$number] === 0
                        ? null
                        : match ($by) {
                            TintBy::Layer => $model->forest->layers->get($model->forest->layerOf[$number])->name,
                            TintBy::Kind => $model->classes[$number] !== ''
                                ? $model->classes[$number]
                                : ucfirst(Kind::from($model->forest->kinds[$number])->plural()),
                            TintBy::Material => self::material($model, $number),
                            TintBy::Source => ['', 'Hall.glb', 'Plant.glb'][$model->sources[$number]],
                            TintBy::Lock => ['Open', 'Guarded', 'Locked'][$model->forest->slowLock($number)],
                            TintBy::Tag => self::firstTag($model, $number),
                            TintBy::TagCount => self::tagCount(count($model->forest->tagsOf($number))),
                            TintBy::WithoutTags => $model->forest->tagsOf($number) === [] ? 'Nothing tagged' : 'Tagged',
                            TintBy::Set => self::firstSet($model, $number),
                            default => self::weight($model->forest->triangles[$number] ?? 0),
                        };
                self::assertSame(
                    $expected,
                    self::entryOf($legend, $model->facts->scene->row($number))[0] ?? null,
                    "object $number, round $round",
                );
            }
        }
    }

    public function test_entries_have_colours_of_their_own_and_the_scale_of_weight_goes_from_light_to_heavy(): void
    {
        mt_srand(42);
        $model = PlainModel::grow(200);
        foreach (
            [
                TintBy::Kind,
                TintBy::Material,
                TintBy::Source,
                TintBy::Lock,
                TintBy::Weight,
                TintBy::Shuffle,
                TintBy::Tag,
                TintBy::Set,
                TintBy::TagCount,
            ] as $by
        ) {
            $colours = array_map(static fn ($entry): string => $entry->colour, self::legend($model, $by)->entries);
            self::assertSame($colours, array_unique($colours), $by->value);
            foreach ($colours as $colour) {
                self::assertMatchesRegularExpression('~^#[0-9a-f]{6}$~', $colour);
                [$red, $green, $blue] = array_map(hexdec(...), str_split(substr($colour, 1), 2));
                self::assertFalse($red > $green + 25 && $blue > $green + 25, "$colour looks like the pick");
            }
        }
        $weights = self::legend($model, TintBy::Weight)->entries;
        self::assertGreaterThan(3, count($weights));
        self::assertSame('#a83c1e', $weights[0]->colour, 'the heaviest');
        self::assertSame('#dee2c4', $weights[count($weights) - 1]->colour, 'the lightest');
        self::assertSame([], self::legend($model, TintBy::Own)->entries);
    }

    public function test_another_seed_shuffles_anew_and_only_the_given_rows_are_coloured(): void
    {
        mt_srand(43);
        $model = PlainModel::grow(120);
        $scene = $model->facts->scene;
        $code = static fn (int $seed, ?Bits $only = null): string => self::legend($model, TintBy::Shuffle, $seed, $only)->codes();
        $colours = static function (int $seed) use ($model): array {
            $of = [];
            $legend = self::legend($model, TintBy::Shuffle, $seed);
            foreach ($legend->entries as $index => $entry) {
                foreach ($legend->rowsOf($index)->rows() as $row) {
                    $of[$row] = $entry->colour;
                }
            }
            ksort($of);

            return $of;
        };
        self::assertSame($code(1), $code(1));
        self::assertNotSame($colours(1), $colours(2));
        self::assertSame(array_keys($colours(1)), array_keys($colours(2)), 'the same objects');
        self::assertSame($colours(3), $colours(3));
        $only = Bits::ofRows($scene->count(), [1, 2, 3, 5, 8, 13, 21, 34, 55, 89]);
        foreach (array_values((array) unpack('v*', $code(1, $only))) as $row => $entry) {
            self::assertSame($row > 0 && $only->has($row) && $model->meshes[$scene->number($row)] > 0, $entry > 0, "row $row");
        }
    }

    public function test_codes_name_the_entry_of_each_row(): void
    {
        mt_srand(44);
        for ($round = 0; $round < 10; $round++) {
            $model = PlainModel::grow(mt_rand(1, 80));
            $count = $model->facts->scene->count();
            $legend = self::legend($model, TintBy::Layer);
            $codes = array_values((array) unpack('v*', $legend->codes()));
            self::assertCount($count + 1, $codes);
            foreach ($codes as $row => $code) {
                self::assertSame($row === 0 ? null : self::entryOf($legend, $row)[1] ?? null, $code === 0 ? null : $code - 1, "row $row");
            }
        }
    }

    public function test_as_many_layers_as_a_large_office_makes_each_have_their_entry(): void
    {
        mt_srand(45);
        $model = PlainModel::grow(1500);
        $numbers = range(1, 900);
        $layers = new LayerTree(
            array_map(static fn (int $number): Layer => new Layer($number, 0, $number, "L$number", '#7a8b6c'), $numbers),
        );
        $layerOf = array_map(static fn (int $_): int => mt_rand(1, 900), range(1, $model->facts->scene->count()));
        $columns = new class ($model->facts->scene, Coded::fromValues($layerOf)->pack()) implements ColumnSource {
            public function __construct(private readonly Scene $scene, private readonly string $layers) {}

            public function column(string $name): string
            {
                return $name === 'layer' ? $this->layers : $this->scene->column($name);
            }
        };
        $scene = new Scene($columns);
        $legend = Legend::of(
            TintBy::Layer,
            new Facts($scene),
            new Organizers($layers),
            new InEffect($scene, new Organizers($layers), $model->forest->settings),
        );
        $drawn = array_filter(
            $layerOf,
            static fn (int $index): bool => $model->meshes[$scene->number($index + 1)] > 0,
            ARRAY_FILTER_USE_KEY,
        );
        $counts = array_count_values($drawn);
        ksort($counts);
        self::assertGreaterThan(400, count($counts));
        $place = static fn (int $number): string => "L$number";
        self::assertSame(array_map($place, array_keys($counts)), array_column($legend->entries, 'label'));
        self::assertSame(array_values($counts), array_column($legend->entries, 'objects'));
        $codes = array_values((array) unpack('v*', $legend->codes()));
        foreach ($drawn as $index => $layer) {
            self::assertSame("L$layer", $legend->entries[$codes[$index + 1] - 1]->label);
        }
        self::assertCount(count($drawn), array_filter($codes));
    }

    public function test_slots_keep_picks_until_they_are_emptied(): void
    {
        $parked = Parked::unpack('');
        self::assertSame(0, $parked->pick(4)->count());
        $full = $parked->with(4, Pick::of([5, 3, 9]))->with(9, Pick::of(range(1, 4000)));
        $again = Parked::unpack($full->pack());
        self::assertSame([3, 5, 9], self::sorted($again->pick(4)));
        self::assertSame(4000, $again->pick(9)->count());
        self::assertSame(0, $again->pick(1)->count());
        self::assertSame([7], self::sorted(Parked::unpack($again->with(4, Pick::of([7]))->pack())->pick(4)));
        $emptied = $again->with(4, Pick::of());
        self::assertSame([0, 4000], [$emptied->pick(4)->count(), $emptied->pick(9)->count()]);
        self::assertSame(3, $again->pick(4)->count(), 'the one before is as it was');
        foreach ([0, 10] as $slot) {
            try {
                $again->with($slot, Pick::of([1]));
                self::fail("There is a slot $slot.");
            } catch (\OutOfRangeException $error) {
                self::assertStringContainsString("no slot $slot", $error->getMessage());
            }
        }
    }

    /** The name of the first tag of an object in the order on screen, after those of the folders that it lies in. */
    private static function firstTag(PlainModel $model, int $number): string
    {
        $first = $model->forest->tagsOf($number)[0] ?? null;

        return $first === null ? 'No tag' : $model->forest->tags->tree->path($first);
    }

    private static function tagCount(int $tags): string
    {
        return $tags === 0 ? 'No tag' : $tags.($tags === 1 ? ' tag' : ' tags');
    }

    private static function firstSet(PlainModel $model, int $number): string
    {
        foreach ($model->sets as $set) {
            if ($set->rule === null && in_array($number, $model->chosen[$set->number], true)) {
                return $set->name;
            }
        }

        return 'In no set';
    }

    public function test_layers_and_tags_that_share_a_colour_are_told_apart(): void
    {
        mt_srand(46);
        $model = PlainModel::grow(150);
        foreach ([TintBy::Layer, TintBy::Tag] as $by) {
            // All of them are #3f7a63 or the grey of Unsorted.
            $colours = array_map(static fn ($entry): Oklab => Oklab::of($entry->colour), self::legend($model, $by)->entries);
            foreach ($colours as $at => $colour) {
                foreach (array_slice($colours, 0, $at) as $other) {
                    self::assertGreaterThan(Palette::APART * 0.95, $colour->distance($other), $by->value);
                }
            }
        }
    }

    private static function legend(PlainModel $model, TintBy $by, int $seed = 1, ?Bits $only = null): Legend
    {
        return Legend::of(
            $by,
            $model->facts,
            $model->organizers,
            new InEffect($model->facts->scene, $model->organizers, $model->forest->settings),
            $seed,
            $only,
            static fn (SelectionSet $set): Bits => $set->rule === null
                ? $model->facts->scene->chosen($set->number)
                : Bits::none($model->facts->scene->count()),
        );
    }

    /** @return array{string, int}|null label and place of the entry that colours a row */
    private static function entryOf(Legend $legend, int $row): ?array
    {
        $found = null;
        foreach ($legend->entries as $index => $entry) {
            self::assertSame($entry->objects, $legend->rowsOf($index)->count());
            if ($legend->rowsOf($index)->has($row)) {
                self::assertNull($found, 'one entry at most');
                $found = [$entry->label, $index];
            }
        }

        return $found;
    }

    private static function material(PlainModel $model, int $number): string
    {
        $materials = $model->facts->materialsOf($model->facts->scene->row($number));

        return $materials === [] ? 'No material' : PlainModel::MATERIALS[$materials[0]][0];
    }

    private static function weight(int $triangles): string
    {
        for ($high = 24; $triangles > $high; $high *= 2);

        return $high === 24 ? 'Up to 24 triangles' : number_format($high / 2 + 1).' to '.number_format($high).' triangles';
    }

    /** @return list<int> */
    private static function sorted(Pick $pick): array
    {
        $numbers = $pick->numbers();
        sort($numbers);

        return $numbers;
    }
}
