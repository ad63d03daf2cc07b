<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainView;
use VineShelf\Organizers\Organizers;
use VineShelf\Output\Output;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Pick;
use VineShelf\Scene\Scene;
use VineShelf\Views\KeptState;
use VineShelf\Views\OldView;
use VineShelf\Views\Regrouping;
use VineShelf\Views\Resorting;
use VineShelf\Views\Shift;

/** Every facet of an old view while people sort: what it shows on the desk and in pictures is as it was, or is said to differ. */
final class OldViewsTest extends TestCase
{
    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 30) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    /** The own rungs of a picture, however they fall to the project, the view and its own output settings, follow as rungs do. */
    #[DataProvider('seeds')]
    public function test_pictures_of_a_view_that_keeps_output_show_what_the_rules_say(int $seed): void
    {
        mt_srand($seed);
        for ($round = 0; $round < 8; $round++) {
            $plain = new PlainView(mt_rand(1, 25));
            $keepsRungs = mt_rand(0, 1) === 0;
            [$project, $meant, $own] = self::apart($plain, $keepsRungs);
            $state = new KeptState($keepsRungs ? $plain->settings : null, $keepsRungs ? $meant : null, $own, null, null);
            $did = [];
            for ($step = 0; $step < 8; $step++) {
                $was = $plain->rungs();
                [$shift, $done] = self::sorted($plain);
                $did[] = $done;
                $picture = $state->inPictures($project);
                $counted = $plain->known->newcomerRows($shift->before, $picture)->not();
                $change = new Resorting($shift, new Regrouping($shift->before, [], []), $project, $project);
                $old = new OldView($change, $state, $plain->known, $counted);
                $is = $plain->rungs();
                $where = implode('; ', $did)." (seed $seed, round $round)";
                $shown = $plain->shown($shift->after, $shift->to, $old->held->inPictures($project));
                if ($plain->staysWithLayer($done, $is, $was, $shown)) {
                    break;
                }
                self::assertSame($is, $shown, $where);
                $changed = array_diff_assoc(array_intersect_key($is, $was), $was);
                self::assertSame($changed !== [], $old->isResorted(), "whether it is said to differ, after $where");
                $again = $plain->shown($shift->after, $shift->to, $old->asItWas()->inPictures($project));
                self::assertSame($was, array_intersect_key($again, $was), "as it was, after $where");
                $held = $old->held;
                $state = new KeptState(
                    $held->rungs,
                    $held->meant,
                    $held->output === null ? null : OutputSettings::unpack($held->output->pack()),
                    null,
                    null,
                );
            }
        }
    }

    /** Whatever is kept, and whatever the project says of pictures: what is not said to differ does not. */
    #[DataProvider('seeds')]
    public function test_what_is_not_said_to_differ_does_not(int $seed): void
    {
        mt_srand($seed + 100);
        $said = $same = 0;
        for ($round = 0; $round < 12; $round++) {
            $plain = new PlainView(mt_rand(1, 25));
            $one = static fn (): bool => mt_rand(0, 1) === 0;
            [$project, $meant, $own] = [self::outputs($plain), self::apart($plain, true)[1], self::outputs($plain)];
            $rungs = $one() ? $plain->settings : null;
            $isolation = $one() ? Isolation::none()->deeper(
                Pick::of(PlainView::some(array_keys($plain->parents), 3)),
                Rung::from(mt_rand(0, 2)),
            ) : null;
            $state = new KeptState($rungs, $rungs === null || $one() ? null : $meant, $one() ? $own : null, $isolation, null);
            $project = $one() ? $project : new OutputSettings;
            for ($step = 0; $step < 6; $step++) {
                [$shift, $done] = self::sorted($plain);
                $counted = $plain->known->newcomerRows($shift->before, $state->rungs ?? new Settings)->not();
                $change = new Resorting($shift, new Regrouping($shift->before, [], []), $project, $project);
                $old = new OldView($change, $state, $plain->known, $counted);
                $levels = static fn (KeptState $kept, Scene $scene, Organizers $organizers): array => array_map(
                    static fn (Levels $found): array => array_map($found->at(...), $counted->rows()),
                    [
                        (new InEffect($scene, $organizers, $kept->rungs ?? new Settings, $kept->alone()))->rungs(),
                        $kept->pictured($project, $scene, $organizers),
                    ],
                );
                [$desk, $pictures] = $levels($state, $shift->before, $shift->from);
                $now = $levels($old->held, $shift->after, $shift->to);
                $differs = ($state->rungs !== null && $now[0] !== $desk) || (! self::saysNothing($state) && $now[1] !== $pictures);
                if ($differs || ! $old->isResorted()) {
                    self::assertSame($differs, $old->isResorted(), "after $done (seed $seed, round $round)");
                }
                [$deskAgain, $picturesAgain] = $levels($old->asItWas(), $shift->after, $shift->to);
                if ($state->rungs !== null) {
                    self::assertSame($desk, $deskAgain);
                }
                if (! self::saysNothing($state) && $project->never()->isEmpty()) {
                    self::assertSame($pictures, $picturesAgain, "as pictures were, after $done (seed $seed, round $round)");
                }
                $said += (int) $differs;
                $same += (int) ! $differs;
                $state = $old->held;
            }
        }
        self::assertGreaterThan(0, $said);
        self::assertGreaterThan(0, $same);
    }

    public function test_what_leaves_a_group_stays_tinted_and_shown_alone_in_every_step(): void
    {
        // 1 holds 2 and 3; 4 holds 5. The group 1 goes; 3 comes into 4.
        $parents = [1 => 0, 2 => 1, 3 => 1, 4 => 0, 5 => 4];
        $plain = new PlainView(1);
        [$plain->parents, $plain->layerOf] = [$parents, array_map(static fn (): int => 1, $parents)];
        $plain->tagged = [];
        $scene = $plain->scene();
        $shift = new Shift($scene, $plain->organizers(), $scene, $plain->organizers(), Bits::none(5), Bits::none(5), []);
        $change = static fn (array $to): Resorting => new Resorting(
            $shift,
            new Regrouping($scene, $to, []),
            new OutputSettings,
            new OutputSettings,
        );
        $isolation = Isolation::none()->deeper(Pick::of([1]), Rung::Ghost)->deeper(Pick::of([1]), Rung::Hidden, true);
        $state = new KeptState(null, null, null, $isolation->deeper(Pick::of([1, 4]), Rung::Hidden), Pick::of([1]));
        $old = new OldView($change([2 => 0, 3 => 0]), $state, $plain->known, Bits::none(5)->not());

        $steps = $old->held->alone();
        self::assertSame([1, 4, 2, 3], $steps->objects()->numbers());
        self::assertSame([1], $steps->back()->objects()->numbers(), 'objects that are meant without what they hold');
        self::assertSame([1, 2, 3], $steps->back()->back()->objects()->numbers());
        self::assertSame([1, 2, 3], $old->held->tinted?->numbers());
        self::assertFalse($old->isRegrouped());

        $tint = new KeptState(null, null, null, null, Pick::of([4]));
        $comes = new OldView($change([3 => 4]), $tint, $plain->known, Bits::none(5)->not());
        self::assertSame([4], $comes->held->tinted?->numbers());
        self::assertTrue($comes->isRegrouped(), 'what comes to it is tinted from then on');
    }

    public function test_a_group_that_is_taken_apart_leaves_its_output_to_what_it_held(): void
    {
        $parents = [1 => 0, 2 => 1, 3 => 1];
        $plain = new PlainView(1);
        [$plain->parents, $plain->layerOf] = [$parents, array_map(static fn (): int => 1, $parents)];
        $plain->tagged = [];
        $scene = $plain->scene();
        $shift = new Shift($scene, $plain->organizers(), $scene, $plain->organizers(), Bits::none(3), Bits::none(3), []);
        $change = new Resorting($shift, new Regrouping($scene, [2 => 0, 3 => 0], []), new OutputSettings, new OutputSettings);
        $own = new OutputSettings(objects: [Output::Box->value => Bits::ofRows(1, [1]), Output::Hidden->value => Bits::ofRows(3, [3])]);
        $old = new OldView($change, new KeptState(null, null, $own, null, null), $plain->known, Bits::none(3)->not());

        $held = $old->held->output;
        self::assertSame([Output::Box, Output::Hidden], [$held?->value('object', 2), $held?->value('object', 3)]);
        self::assertFalse($old->isRegrouped());
    }

    private static function saysNothing(KeptState $state): bool
    {
        return $state->rungs === null && $state->output === null && $state->isolation === null;
    }

    /** @return array{Shift, string} what was sorted otherwise at random, and in words */
    private static function sorted(PlainView $plain): array
    {
        [$before, $from, $at, $tagged] = [$plain->scene(), $plain->organizers(), $plain->layerOf, $plain->tagged];
        $done = $plain->sort();

        return [$plain->since($before, $from, $at, $tagged), $done];
    }

    /**
     * Own rungs of a picture as what the project says, what the view means for pictures, and what the view says itself: at random.
     *
     * @return array{OutputSettings, Settings, OutputSettings}
     */
    private static function apart(PlainView $plain, bool $keepsRungs): array
    {
        $wanted = $plain->settings;
        $said = ['layers' => [[], [], []], 'tags' => [[], [], []], 'folders' => [[], [], []], 'objects' => [[], [], []]];
        $objects = [];
        foreach ($wanted->objects as $rung => $numbers) {
            $objects += array_fill_keys($numbers->rows(), $rung);
        }
        $values = ['layers' => $wanted->layers, 'tags' => $wanted->tags, 'folders' => $wanted->folders, 'objects' => $objects];
        foreach ($values as $what => $rungs) {
            foreach (range(1, $what === 'objects' ? count($plain->parents) : 9) as $number) {
                $rung = $rungs[$number] ?? null;
                $any = mt_rand(0, 5);
                [$project, $meant, $own] = match (mt_rand($keepsRungs ? 0 : 2, 4)) {
                    0, 1 => [null, $rung, null],
                    2 => [$rung ?? 5, $any, null],
                    3 => [mt_rand(0, 5), $any, $rung ?? 5],
                    default => [null, $any, $rung ?? 5],
                };
                $keeps = [$project, $keepsRungs ? $meant : null, $own];
                foreach (isset($rungs[$number]) || mt_rand(0, 2) === 0 ? $keeps : [] as $at => $value) {
                    if ($value !== null) {
                        $said[$what][$at][$number] = $value;
                    }
                }
            }
        }
        $alone = Settings::of([], [], [], []);
        foreach ($wanted->objectsAlone as $rung => $numbers) {
            $alone = $alone->withObjectsAlone($numbers, Rung::from($rung));
        }
        $full = static fn (int $at): OutputSettings => new OutputSettings(
            $said['layers'][$at],
            $said['tags'][$at],
            $said['folders'][$at],
            array_map(static fn (array $numbers): Bits => Bits::ofRows(end($numbers), $numbers), self::byValue($said['objects'][$at])),
            $at === 2 ? $wanted->layersAlone : [],
            $at === 2 ? $alone->objectsAlone : [],
        );

        return [
            $full(0),
            Settings::of($said['layers'][1], $said['objects'][1], $said['tags'][1], $said['folders'][1]),
            $full(2),
        ];
    }

    /**
     * @param array<int, int> $values
     *
     * @return array<int, non-empty-list<int>> ascending numbers by value
     */
    private static function byValue(array $values): array
    {
        ksort($values);
        $by = [];
        foreach ($values as $number => $value) {
            $by[$value][] = $number;
        }

        return $by;
    }

    /** Output settings of all kinds, what follows the desk and what is never in pictures among them. */
    private static function outputs(PlainView $plain): OutputSettings
    {
        $some = static fn (array $numbers): array => array_map(
            static fn (): int => mt_rand(0, mt_rand(0, 5) === 0 ? 7 : 5),
            array_flip(PlainView::some(array_values($numbers), 4)),
        );
        $objects = self::byValue($some(array_keys($plain->parents)));

        return new OutputSettings(
            $some(array_keys($plain->layers)),
            $some(array_keys($plain->tags)),
            $some(array_keys($plain->folders)),
            array_map(static fn (array $numbers): Bits => Bits::ofRows(end($numbers), $numbers), $objects),
        );
    }
}
