<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainView;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;
use VineShelf\Views\Applied;
use VineShelf\Views\Around;
use VineShelf\Views\AsItWas;
use VineShelf\Views\Differing;
use VineShelf\Views\Holding;
use VineShelf\Views\Shift;

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
                $shift = self::shift($scene, $from, $plain, $at, $tagged);
                $counted = $plain->known->newcomerRows($shift->before, $settings)->not();
                $held = (new Holding($shift, $plain->known, $settings, $settings, $counted))->settings();
                $is = $plain->rungs();
                $shown = self::shown($plain, $shift->after, $shift->to, $held);
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
                $again = array_intersect_key(self::shown($plain, $shift->after, $shift->to, $kept), $was);
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

    /**
     * @param array<int, int>              $at     layers by object before
     * @param array<int, array<int, true>> $tagged objects by tag before
     */
    private static function shift(Scene $before, Organizers $from, PlainView $plain, array $at, array $tagged): Shift
    {
        $after = $plain->scene();
        // What is new stands in no row of the scene before: the sorting is compared on the objects of both.
        $before = $after->count() === $before->count() ? $before : $after;
        $numbers = array_keys(array_diff_assoc(array_intersect_key($plain->layerOf, $at), $at));
        $isOther = static fn (int $tag): bool => isset($tagged[$tag]) && $tagged[$tag] != $plain->tagged[$tag];
        $tags = array_filter(array_keys($plain->tags), $isOther);

        return new Shift(
            $before,
            $from,
            $after,
            $plain->organizers(),
            Bits::ofRows($before->count(), $before->rowsOf($numbers)),
            Bits::none($before->count()),
            array_values($tags),
        );
    }

    /** @return array<int, int> by object number */
    private static function shown(PlainView $plain, Scene $scene, Organizers $organizers, Settings $settings): array
    {
        $newcomers = $plain->known->newcomerRows($scene, $settings);
        $none = static fn (): ?InEffect => null;
        $applied = Applied::withNewcomers($settings, $scene, $newcomers, Applied::HIDDEN, $none);
        $rungs = (new InEffect($scene, $organizers, $applied))->rungs();
        $shown = [];
        foreach (array_keys($plain->parents) as $object) {
            $shown[$object] = $rungs->at($scene->row($object));
        }

        return $shown;
    }
}
