<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainView;
use Tests\Core\Support\RandomForest;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;
use VineShelf\Views\Around;
use VineShelf\Views\AsItWas;
use VineShelf\Views\Copying;
use VineShelf\Views\Differing;
use VineShelf\Views\Holding;
use VineShelf\Views\Known;

/** Old views while people sort: what they show is compared with the rules in words, object by object. */
final class ViewsTest extends TestCase
{
    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 30) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_an_old_view_shows_what_the_rules_say_however_things_are_sorted(int $seed): void
    {
        mt_srand($seed);
        for ($round = 0; $round < 12; $round++) {
            $plain = new PlainView(mt_rand(1, 25));
            $settings = $plain->settings;
            $did = [];
            for ($step = 0; $step < 10; $step++) {
                [$scene, $from, $was, $at] = [$plain->scene(), $plain->organizers(), $plain->rungs(), $plain->layerOf];
                $tagged = $plain->tagged;
                $did[] = $plain->sort();
                $shift = $plain->since($scene, $from, $at, $tagged);
                $counted = $plain->known->newcomerRows($shift->before, $settings)->not();
                $held = (new Holding($shift, $plain->known, $settings, $settings, $counted))->settings();
                $is = $plain->rungs();
                $shown = $plain->shown($shift->after, $shift->to, $held);
                if ($plain->staysWithLayer(end($did), $is, $was, $shown)) {
                    break;
                }
                self::assertSame($is, $shown, implode('; ', $did)." (seed $seed, round $round)");

                $changed = array_keys(array_diff_assoc(array_intersect_key($is, $was), $was));
                $differing = Differing::rows($shift, $plain->known, $settings, $held, Isolation::none(), $counted);
                sort($changed);
                $numbers = array_map($shift->before->number(...), $differing->rows());
                sort($numbers);
                self::assertSame($changed, $numbers, 'what is said to differ, after '.implode('; ', $did));

                $kept = AsItWas::settings(
                    $held,
                    $shift->after,
                    $shift->to,
                    (new InEffect($shift->before, $shift->from, $settings))->rungs(),
                    $counted,
                );
                $again = array_intersect_key($plain->shown($shift->after, $shift->to, $kept), $was);
                self::assertSame($was, $again, 'kept as it was, after '.implode('; ', $did)." (seed $seed, round $round)");
                $settings = Settings::unpack($held->pack());
            }
        }
    }

    public function test_a_camera_goes_around_what_it_looks_at(): void
    {
        $camera = ['eye' => [3.0, 1.0, 7.0], 'target' => [1.0, 1.0, 2.0], 'fov' => 40.0, 'tall' => 5.0];
        $around = Around::cameras($camera, 4);
        self::assertSame([0, 90, 180, 270], array_column($around, 0));
        foreach ([[3, 1], [1, 3], [-1, 1], [1, -1]] as $at => [$x, $y]) {
            self::assertEqualsWithDelta([$x, $y, 7], $around[$at][1]['eye'], 1e-12);
            self::assertSame(
                [[1.0, 1.0, 2.0], 40.0, 5.0],
                [$around[$at][1]['target'], $around[$at][1]['fov'], $around[$at][1]['tall'] ?? 0],
            );
        }
        self::assertSame([0, 51, 103, 154, 206, 257, 309], array_column(Around::cameras($camera, 7), 0));
    }

    /** What a view knows of copies, told object by object as it would be on paper. */
    public function test_copies_are_as_old_as_what_they_are_copies_of_unless_that_is_lower_in_the_view(): void
    {
        for ($seed = 0; $seed < 60; $seed++) {
            mt_srand($seed);
            $last = $known = mt_rand(4, 20);
            $of = $copyings = [];
            for ($times = mt_rand(1, 4); $times > 0; $times--) {
                $first = $last + 1;
                $originals = (array) array_rand(range(0, $last - 1), mt_rand(2, min(4, $last)));
                sort($originals);
                foreach (range(1, mt_rand(1, 3)) as $_) {
                    foreach ($originals as $at) {
                        $of[++$last] = $at + 1;
                    }
                }
                $copyings[] = new Copying($first, $last, pack('V*', ...array_map(static fn (int $at): int => $at + 1, $originals)));
                $last += mt_rand(0, 2);
            }
            $own = $alone = [];
            foreach (range(1, $last) as $number) {
                if (mt_rand(0, 5) === 0) {
                    mt_rand(0, 1) === 0 ? ($own[$number] = mt_rand(0, 5)) : ($alone[$number] = mt_rand(0, 4));
                }
            }
            $all = array_fill_keys(range(1, $last), 0);
            $scene = new Scene(new ColumnsInMemory(SceneBuilder::columns($all, array_fill_keys(range(1, $last), 1), $all, [], [])));
            $strangers = Bits::ofRows($known, mt_rand(0, 1) === 0 ? [] : [mt_rand(1, $known)]);
            $settings = RandomForest::settings([], $own, [], [], [], $alone);
            $found = (new Known([], [], $known, $strangers, $copyings))->newcomers($scene, $settings);
            $new = [];
            foreach (range(1, $last) as $number) {
                $isSet = isset($own[$number]) || isset($alone[$number]);
                $original = $number > $known ? $of[$number] ?? null : null;
                $isOld = $original === null
                    ? $number <= $known && ! $strangers->has($number)
                    : ! in_array($original, $new, true) && ($own[$original] ?? $alone[$original] ?? 5) === 5;
                if (! $isSet && ! $isOld) {
                    $new[] = $number;
                }
            }
            self::assertSame($new, $found->rows(), "seed $seed");
        }
    }
}
