<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\RandomForest;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
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
            $inEffect = new InEffect($forest->scene(), $forest->layers, $forest->settings);
            $scene = $forest->scene();
            foreach ($forest->parents as $number => $parent) {
                $row = $scene->row($number);
                self::assertSame($forest->slowRung($number), $inEffect->rungs()->at($row), "rung of object $number, seed $seed, round $round");
                self::assertSame($forest->slowLock($number), $inEffect->locks()->at($row), "lock of object $number, seed $seed, round $round");
            }
            self::assertSame($forest->slowDrawn(), $inEffect->weight()['drawn'], "drawn triangles, seed $seed, round $round");
        }
    }

    public function test_a_group_holds_down_what_it_holds_whatever_layer_that_is_in(): void
    {
        $columns = SceneBuilder::columns([1 => 0, 2 => 1, 3 => 2, 4 => 0], [1 => 2, 2 => 1, 3 => 3, 4 => 3], [1 => 0, 2 => 0, 3 => 1, 4 => 1], [], [3 => 100, 4 => 10]);
        $layers = new LayerTree([
            new Layer(1, 0, 0, 'Unsorted', '#999999'),
            new Layer(2, 0, 1, 'Site', '#8d9a75', Lock::Guarded),
            new Layer(3, 0, 2, 'Seats', '#3f7a63'),
        ]);
        $inEffect = new InEffect(new Scene(new ColumnsInMemory($columns)), $layers, new Settings([2 => 2], [3 => 4]));

        self::assertSame([Rung::Ghost, Rung::Ghost, Rung::Ghost, Rung::Full], array_map($inEffect->rung(...), [1, 2, 3, 4]));
        self::assertSame([Lock::Guarded, Lock::Guarded, Lock::Guarded, Lock::Open], array_map($inEffect->lock(...), [1, 2, 3, 4]));
    }

    public function test_members_keep_their_own_rung_when_the_layer_is_raised_again(): void
    {
        $columns = SceneBuilder::columns([1 => 0, 2 => 0], [1 => 1, 2 => 1], [1 => 1, 2 => 1], [], []);
        $layers = new LayerTree([new Layer(1, 0, 0, 'Unsorted', '#999999')]);
        $own = (new Settings)->withObjects([2], Rung::Box);
        $lowered = $own->withLayers([1], Rung::Hidden);
        $scene = new Scene(new ColumnsInMemory($columns));

        self::assertSame([0, 0], array_map((new InEffect($scene, $layers, $lowered))->rungs()->at(...), [1, 2]));
        self::assertSame([5, 1], array_map((new InEffect($scene, $layers, $lowered->withLayers([1], Rung::Full)))->rungs()->at(...), [1, 2]));
    }

    public function test_settings_survive_packing(): void
    {
        $settings = new Settings([1 => 0, 7 => 3], [5 => 1, 70000 => 4]);

        self::assertTrue($settings->same(Settings::unpack($settings->pack())));
        self::assertTrue((new Settings)->same(Settings::unpack('')));
    }

    public function test_an_empty_scene_has_nothing_in_effect(): void
    {
        $scene = new Scene(new ColumnsInMemory(SceneBuilder::columns([], [], [], [], [])));
        $inEffect = new InEffect($scene, new LayerTree([new Layer(1, 0, 0, 'Unsorted', '#999999')]), new Settings);

        self::assertSame(0, $scene->count());
        self::assertSame(['triangles' => 0, 'drawn' => 0], $inEffect->weight());
    }
}
