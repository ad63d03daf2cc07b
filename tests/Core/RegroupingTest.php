<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Pick;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;
use VineShelf\Views\Regrouping;

/** Views while objects are grouped, ungrouped and moved: what they show is compared with the rule in words, object by object. */
final class RegroupingTest extends TestCase
{
    public function test_what_is_left_goes_on_holding_and_what_is_come_to_holds_from_then_on(): void
    {
        mt_srand(61);
        $differed = $widened = 0;
        for ($round = 0; $round < 800; $round++) {
            $parents = self::forest(mt_rand(1, 18));
            $settings = self::settings(array_keys($parents));
            $isolation = self::isolation(array_keys($parents));
            [$to, $back, $after] = self::moved($parents);
            $regrouping = new Regrouping(self::scene($parents), $to, $back);
            $held = $regrouping->held($settings);
            $alone = $regrouping->alone($isolation);
            $before = self::shown($parents, $settings, $isolation);
            $shown = array_intersect_key(self::shown($after, $held, $alone), $parents);
            $expected = [];
            foreach (array_keys(array_intersect_key($after, $parents)) as $number) {
                $groups = [...self::above($parents, $number), ...self::above($after, $number)];
                $isAlone = self::isIn($isolation, $number, $groups);
                $rungs = array_map(static fn (int $group): int => $settings->reaching($group)->value ?? 5, $groups);
                $expected[$number] = $isAlone ? 5 : min($isolation->rest()->value, $settings->object($number)->value ?? 5, 5, ...$rungs);
            }
            ksort($expected);
            self::assertSame($expected, $shown, "round $round");

            $scene = self::scene($parents);
            $levels = (new InEffect($scene, self::unsorted(), $settings, $isolation))->rungs();
            $said = array_map($scene->number(...), $regrouping->differing($settings, $isolation, $levels)->rows());
            sort($said);
            $differing = array_keys(array_diff_assoc($shown, $before));
            self::assertSame($differing, array_values(array_intersect($said, array_keys($shown))), "round $round");
            $differed += count($differing);
            $widened += (int) ($alone !== $isolation);
        }
        self::assertGreaterThan(200, $differed);
        self::assertGreaterThan(20, $widened);
    }

    public function test_a_group_that_is_lower_without_what_it_holds_stays_so(): void
    {
        // 1 holds 2 that holds 3; 2 comes to the top.
        $scene = self::scene([1 => 0, 2 => 1, 3 => 2]);
        $settings = (new Settings)->withObjects(Bits::ofRows(1, [1]), Rung::Coarse)->withObjectsAlone(Bits::ofRows(2, [2]), Rung::Box);
        $held = (new Regrouping($scene, [2 => 0], []))->held($settings);
        self::assertSame([1 => 3, 2 => 1, 3 => 3], self::shown([1 => 0, 2 => 0, 3 => 2], $held, Isolation::none()));
    }

    /** @return array<int, int> what each object stands in, by number */
    private static function forest(int $count): array
    {
        $parents = [];
        for ($number = 1; $number <= $count; $number++) {
            $parents[$number] = mt_rand(0, 4) === 0 ? 0 : mt_rand(0, $number - 1);
        }

        return $parents;
    }

    /**
     * Something is grouped, ungrouped, moved, or a group that was taken apart comes back.
     *
     * @param array<int, int> $parents
     *
     * @return array{array<int, int>, array<int, int>, array<int, int>} what stands elsewhere, what comes, and everything then
     */
    private static function moved(array $parents): array
    {
        $some = array_filter(array_keys($parents), static fn (): bool => mt_rand(0, 3) === 0);
        $roots = array_values(
            array_filter($some, static fn (int $number): bool => array_intersect($some, self::above($parents, $number)) === []),
        );
        $new = count($parents) + 1;
        $way = mt_rand(0, 2);
        if ($way === 0) {
            // Groups among them go, outermost first; what stands in them stands where they stood.
            $going = array_fill_keys($some, true);
            $to = [];
            foreach (array_diff(array_keys($parents), $some) as $number) {
                for ($into = $parents[$number]; isset($going[$into]); $into = $parents[$into]);
                $to += $into === $parents[$number] ? [] : [$number => $into];
            }

            return [$to, [], array_diff_key($to + $parents, $going)];
        }
        $outside = array_filter(
            [0, ...array_keys($parents)],
            static fn (int $number): bool => array_intersect([$number, ...self::above($parents, $number)], $roots) === [],
        );
        $into = $outside[array_rand($outside)];
        $to = array_fill_keys($roots, $way === 1 ? $into : $new);
        $back = $way === 1 ? [] : [$new => $into];

        return [$to, $back, $to + $back + $parents];
    }

    /** @param list<int> $numbers */
    private static function settings(array $numbers): Settings
    {
        $settings = new Settings;
        // What stood in the project once may have a rung.
        foreach ([...$numbers, count($numbers) + 1] as $number) {
            $bit = Bits::ofRows($number, [$number]);
            $settings = mt_rand(0, 2) === 0 ? $settings->withObjects($bit, Rung::from(mt_rand(0, 5))) : $settings;
            $settings = mt_rand(0, 4) === 0 ? $settings->withObjectsAlone($bit, Rung::from(mt_rand(0, 5))) : $settings;
        }

        return $settings;
    }

    /** @param list<int> $numbers */
    private static function isolation(array $numbers): Isolation
    {
        $some = array_filter($numbers, static fn (): bool => mt_rand(0, 4) === 0);

        return $some === [] || mt_rand(0, 1) === 0
            ? Isolation::none()
            : Isolation::none()->deeper(Pick::of(array_values($some)), Rung::from(mt_rand(0, 2)), mt_rand(0, 3) === 0);
    }

    /**
     * @param array<int, int> $parents
     *
     * @return array<int, int> rungs by number
     */
    private static function shown(array $parents, Settings $settings, Isolation $isolation): array
    {
        $shown = [];
        foreach (array_keys($parents) as $number) {
            $groups = self::above($parents, $number);
            $rungs = array_map(static fn (int $group): int => $settings->reaching($group)->value ?? 5, $groups);
            $shown[$number] = self::isIn($isolation, $number, $groups)
                ? 5
                : min($isolation->rest()->value, $settings->object($number)->value ?? 5, 5, ...$rungs);
        }
        ksort($shown);

        return $shown;
    }

    /** @param list<int> $groups that hold it */
    private static function isIn(Isolation $isolation, int $number, array $groups): bool
    {
        $isExact = $isolation->isOn() && ! $isolation->reachesInto($isolation->objects()->numbers());

        return $isolation->objects()->has($number) || (! $isExact && array_filter($groups, $isolation->objects()->has(...)) !== []);
    }

    /**
     * @param array<int, int> $parents
     *
     * @return list<int>
     */
    private static function above(array $parents, int $number): array
    {
        $above = [];
        for ($at = $parents[$number] ?? 0; $at !== 0; $at = $parents[$at] ?? 0) {
            $above[] = $at;
        }

        return $above;
    }

    /** @param array<int, int> $parents */
    private static function scene(array $parents): Scene
    {
        $all = array_map(static fn (): int => 1, $parents);

        return new Scene(new ColumnsInMemory(SceneBuilder::columns($parents, $all, $all, [], [])));
    }

    private static function unsorted(): Organizers
    {
        return new Organizers(new LayerTree([new Layer(1, 0, 0, 'Unsorted', '#b9b3a2')]));
    }
}
