<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\RandomForest;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Rungs\WholeDesk;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;
use VineShelf\Views\Applied;

final class WholeDeskTest extends TestCase
{
    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 12) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_on_random_forests_what_is_shown_afterwards_is_what_was_meant(int $seed): void
    {
        mt_srand($seed);
        for ($round = 0; $round < 40; $round++) {
            $forest = RandomForest::grow(mt_rand(1, 50));
            $scene = $forest->scene();
            $whole = new WholeDesk($scene, $forest->organizers, Bits::none($scene->count()));
            $before = $this->rungs($forest, $scene, $forest->settings);
            $picked = array_values(array_filter(array_keys($forest->parents), static fn (): bool => mt_rand(0, 4) === 0));
            $isIn = static function (int $number) use ($forest, $picked): bool {
                for ($link = $number; $link !== 0 && ! in_array($link, $picked, true); $link = $forest->parents[$link]);

                return $link !== 0;
            };
            $only = $this->rungs(
                $forest,
                $scene,
                $whole->showOnly($forest->settings, Bits::ofRows($scene->count(), $scene->rowsOf($picked))),
            );
            $inverted = $whole->inverted($forest->settings, new InEffect($scene, $forest->organizers, $forest->settings));
            $turned = $this->rungs($forest, $scene, $inverted);
            $again = $this->rungs($forest, $scene, $whole->inverted($inverted, new InEffect($scene, $forest->organizers, $inverted)));
            $shown = $this->rungs($forest, $scene, $whole->showAll($forest->settings));
            $where = "seed $seed, round $round";
            foreach (array_keys($forest->parents) as $number) {
                $holdsNothing = ! in_array($number, $forest->parents, true);
                if ($isIn($number)) {
                    self::assertGreaterThanOrEqual(max(1, $before[$number]), $only[$number], "only, $where");
                } elseif ($holdsNothing) {
                    self::assertSame(0, $only[$number], "only, $where");
                }
                if ($holdsNothing) {
                    self::assertSame($before[$number] === 0, $turned[$number] > 0, "inverted, $where");
                    self::assertSame($before[$number] > 0, $again[$number] > 0, "inverted twice, $where");
                }
                self::assertSame($this->lowestButHidden($forest, $number), $shown[$number], "shown again, $where");
            }
            self::assertSame([5], array_values(array_unique($this->rungs($forest, $scene, $whole->raiseAll($forest->settings)))));
            $ceiling = mt_rand(1, 5);
            $lowered = $forest->settings->withCeiling(Rung::from($ceiling));
            self::assertSame(
                array_map(static fn (int $rung): int => min($ceiling, $rung), $before),
                $this->rungs($forest, $scene, Settings::unpack($lowered->pack())),
            );
            self::assertTrue($lowered->withCeiling(Rung::Full)->same($forest->settings), 'what was set stays set');
        }
    }

    public function test_one_rung_lower_or_higher_goes_by_each_own_setting_and_leaves_what_is_locked(): void
    {
        mt_srand(3);
        for ($round = 0; $round < 60; $round++) {
            $forest = RandomForest::grow(mt_rand(2, 40));
            $scene = $forest->scene();
            $numbers = array_keys($forest->parents);
            $some = static fn (): array => array_values(array_filter($numbers, static fn (): bool => mt_rand(0, 1) === 0));
            [$meant, $locked] = [$some(), $some()];
            $bits = static fn (array $those): Bits => Bits::ofRows($scene->count(), $scene->rowsOf($those));
            $whole = new WholeDesk($scene, $forest->organizers, $bits($locked));
            $way = [1, -1][mt_rand(0, 1)];
            $after = $whole->stepped(
                $forest->settings,
                [1],
                array_slice(array_keys($forest->tags->tree->members), 0, 1),
                [],
                $bits($meant),
                $way,
            );
            foreach ($numbers as $number) {
                $own = min($forest->own[$number] ?? 5, $forest->alone[$number] ?? 5);
                $expected = in_array($number, $meant, true) && ! in_array($number, $locked, true) ? max(0, min(5, $own + $way)) : $own;
                self::assertSame($expected, $after->object($number)->value ?? 5);
            }
            self::assertSame(max(0, min(5, ($forest->settings->layers[1] ?? 5) + $way)), $after->layer(1)?->value);
            foreach ([$whole->showAll($forest->settings), $whole->raiseAll($forest->settings)] as $other) {
                foreach ($locked as $number) {
                    $own = min($forest->own[$number] ?? 5, $forest->alone[$number] ?? 5);
                    self::assertSame($own, $other->object($number)->value ?? 5, 'locked objects keep their rung');
                }
            }
        }
    }

    public function test_what_is_locked_stays_shown_when_only_others_are(): void
    {
        // Group 1 holds 2, which is locked, and 3; 4 stands alone.
        $forest = RandomForest::of(
            [1 => 0, 2 => 1, 3 => 1, 4 => 0],
            [1 => 1, 2 => 1, 3 => 1, 4 => 1],
            [1 => 0, 2 => 1, 3 => 1, 4 => 1],
            [new \VineShelf\Layers\Layer(1, 0, 0, 'Unsorted', '#999999')],
            [],
            [],
        );
        $scene = $forest->scene();
        $whole = new WholeDesk($scene, $forest->organizers, Bits::ofRows(4, [$scene->row(2)]));
        $only = $whole->showOnly(new Settings, Bits::ofRows(4, [$scene->row(4)]));

        self::assertSame([1 => 5, 2 => 5, 3 => 0, 4 => 5], $this->rungs($forest, $scene, $only));
    }

    public function test_a_ceiling_is_the_desks_whatever_view_is_applied(): void
    {
        $scene = RandomForest::grow(3)->scene();
        $desk = (new Settings)->withCeiling(Rung::Ghost);

        self::assertSame(2, Applied::rungs(Settings::of([1 => 3], []), $desk, $scene, Bits::none(3), 0, static fn () => null)->ceiling);
        self::assertFalse($desk->same(new Settings));
    }

    /** @return array<int, int> rung in effect by object number */
    private function rungs(RandomForest $forest, Scene $scene, Settings $settings): array
    {
        $rungs = (new InEffect($scene, $forest->organizers, $settings))->rungs();
        $found = [];
        foreach (array_keys($forest->parents) as $number) {
            $found[$number] = $rungs->at($scene->row($number));
        }

        return $found;
    }

    private function lowestButHidden(RandomForest $forest, int $number): int
    {
        $set = [$forest->alone[$number] ?? 5, $forest->settings->layersAlone[$forest->layerOf[$number]] ?? 5];
        for ($layer = $forest->layerOf[$number]; $layer !== 0; $layer = $forest->layers->get($layer)->parent) {
            $set[] = $forest->settings->layers[$layer] ?? 5;
        }
        for ($link = $number; $link !== 0; $link = $forest->parents[$link]) {
            $set[] = $forest->own[$link] ?? 5;
        }
        foreach ($forest->tagsOf($number) as $tag) {
            $set[] = $forest->settings->tags[$tag->number] ?? 5;
            for ($folder = $tag->folder; $folder !== 0; $folder = $forest->tags->folder($folder)->parent) {
                $set[] = $forest->settings->folders[$folder] ?? 5;
            }
        }

        return min([5, ...array_filter($set)]);
    }
}
