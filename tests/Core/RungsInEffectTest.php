<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\RandomForest;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Locks\Lock;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;

final class RungsInEffectTest extends TestCase
{
    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 40) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_agrees_with_walking_every_chain_on_random_forests(int $seed): void
    {
        mt_srand($seed);
        for ($round = 0; $round < 60; $round++) {
            $forest = RandomForest::grow(mt_rand(1, 60));
            $inEffect = new InEffect($forest->scene(), $forest->organizers, $forest->settings);
            $scene = $forest->scene();
            foreach ($forest->parents as $number => $parent) {
                $row = $scene->row($number);
                self::assertSame(
                    $forest->slowRung($number),
                    $inEffect->rungs()->at($row),
                    "rung of object $number, seed $seed, round $round",
                );
                self::assertSame(
                    $forest->slowLock($number),
                    $inEffect->locks()->at($row),
                    "lock of object $number, seed $seed, round $round",
                );
            }
        }
    }

    public function test_only_what_is_set_on_a_group_itself_reaches_down(): void
    {
        // Group 1 in Site holds group 2 in Unsorted, which holds part 3 in Seats; part 4 in Seats stands alone.
        $columns = SceneBuilder::columns(
            [1 => 0, 2 => 1, 3 => 2, 4 => 0],
            [1 => 2, 2 => 1, 3 => 3, 4 => 3],
            [1 => 0, 2 => 0, 3 => 1, 4 => 1],
            [],
            [3 => 100, 4 => 10],
        );
        $layers = new LayerTree([
            new Layer(1, 0, 0, 'Unsorted', '#999999'),
            new Layer(2, 0, 1, 'Site', '#8d9a75', Lock::Guarded),
            new Layer(3, 0, 2, 'Seats', '#3f7a63'),
        ]);
        $scene = new Scene(new ColumnsInMemory($columns));
        $byLayer = new InEffect($scene, new Organizers($layers), Settings::of([2 => 2], [3 => 4]));
        self::assertSame([Rung::Ghost, Rung::Full, Rung::Plain, Rung::Full], array_map($byLayer->rung(...), [1, 2, 3, 4]));
        self::assertSame([Lock::Guarded, Lock::Open, Lock::Open, Lock::Open], array_map($byLayer->lock(...), [1, 2, 3, 4]));

        $byGroup = new InEffect($scene, new Organizers($layers), Settings::of([], [1 => 2, 3 => 4]));
        self::assertSame([Rung::Ghost, Rung::Ghost, Rung::Ghost, Rung::Full], array_map($byGroup->rung(...), [1, 2, 3, 4]));
    }

    public function test_members_keep_their_own_rung_when_the_layer_is_raised_again(): void
    {
        $columns = SceneBuilder::columns([1 => 0, 2 => 0], [1 => 1, 2 => 1], [1 => 1, 2 => 1], [], []);
        $layers = new LayerTree([new Layer(1, 0, 0, 'Unsorted', '#999999')]);
        $own = Settings::of([], [2 => 1]);
        $lowered = $own->withLayers([1], Rung::Hidden);
        $scene = new Scene(new ColumnsInMemory($columns));

        self::assertSame([0, 0], array_map((new InEffect($scene, new Organizers($layers), $lowered))->rungs()->at(...), [1, 2]));
        self::assertSame(
            [5, 1],
            array_map((new InEffect($scene, new Organizers($layers), $lowered->withLayers([1], Rung::Full)))->rungs()->at(...), [1, 2]),
        );
    }

    public function test_settings_survive_packing(): void
    {
        $settings = Settings::of([1 => 0, 7 => 3, 8 => 5], [5 => 1, 70000 => 4, 3 => 5], [2 => 1, 9 => 5], [4 => 0]);
        $back = Settings::unpack($settings->pack());

        self::assertSame([[2 => 1, 9 => 5], [4 => 0]], [$back->tags, $back->folders]);

        self::assertSame([1 => 0, 7 => 3, 8 => 5], $back->layers);
        self::assertSame([Rung::Box, Rung::Plain, Rung::Full, null], array_map($back->object(...), [5, 70000, 3, 4]));
        self::assertTrue($settings->same($back));
        self::assertTrue((new Settings)->same(Settings::unpack('')));
    }

    public function test_settings_as_they_were_kept_first_are_still_read(): void
    {
        $raw = pack('CVV', 1, 2, 2).pack('V*', 1, 7).pack('C*', 0, 3).pack('V*', 5, 70000).pack('C*', 1, 4);
        $read = Settings::unpack((string) gzdeflate($raw));

        self::assertTrue(Settings::of([1 => 0, 7 => 3], [5 => 1, 70000 => 4])->same($read));
    }

    public function test_settings_from_before_there_were_tags_are_still_read(): void
    {
        $raw = pack('CV', 2, 2).pack('V*', 1, 7).pack('C*', 0, 3).pack('CV', 1, 1)."\x20";
        $read = Settings::unpack((string) gzdeflate($raw));

        self::assertTrue(Settings::of([1 => 0, 7 => 3], [5 => 1])->same($read));
    }

    public function test_full_is_a_value_that_lies_over_others(): void
    {
        $under = Settings::of([1 => 2, 2 => 2], [1 => 0, 2 => 0, 3 => 3]);
        $over = Settings::of([1 => 5], [2 => 5, 3 => 1]);
        $both = $over->over($under);

        self::assertSame([1 => 5, 2 => 2], $both->layers);
        self::assertSame([Rung::Hidden, Rung::Full, Rung::Box, null], array_map($both->object(...), [1, 2, 3, 4]));
        self::assertSame(
            ['layers' => 0, 'objects' => 0, 'tags' => 0, 'folders' => 0],
            (new Settings)->difference(Settings::of([1 => 5], [9 => 5])),
            'on a desk nothing set means Full',
        );
        self::assertSame(['layers' => 1, 'objects' => 2, 'tags' => 0, 'folders' => 0], $both->difference($under));
        self::assertNull($both->withObjects(Bits::ofRows(3, [3]), null)->object(3));
    }

    public function test_a_rung_on_random_sets_is_what_a_list_says(): void
    {
        mt_srand(11);
        $settings = new Settings;
        $plain = [];
        for ($step = 0; $step < 400; $step++) {
            $numbers = array_values(array_unique(array_map(static fn (): int => mt_rand(1, 300), range(0, mt_rand(0, 40)))));
            sort($numbers);
            $rung = mt_rand(-1, 5);
            $settings = $settings->withObjects(Bits::ofRows($numbers[count($numbers) - 1], $numbers), $rung < 0 ? null : Rung::from($rung));
            foreach ($numbers as $number) {
                $plain[$number] = $rung < 0 ? null : $rung;
            }
        }
        $back = Settings::unpack($settings->pack());
        for ($number = 1; $number <= 310; $number++) {
            self::assertSame($plain[$number] ?? null, $back->object($number)?->value);
        }
    }

    public function test_an_empty_scene_has_nothing_in_effect(): void
    {
        $scene = new Scene(new ColumnsInMemory(SceneBuilder::columns([], [], [], [], [])));
        $inEffect = new InEffect($scene, new Organizers(new LayerTree([new Layer(1, 0, 0, 'Unsorted', '#999999')])), new Settings);

        self::assertSame([0, true], [$scene->count(), $inEffect->rungs()->atLeast(0)->isEmpty()]);
    }
}
