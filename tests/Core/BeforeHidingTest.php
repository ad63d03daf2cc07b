<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VineShelf\Output\Output;
use VineShelf\Rungs\BeforeHiding;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Rows;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;

/** What hidden rows had before: by hand, and beside plain lists of what every row went through. */
final class BeforeHidingTest extends TestCase
{
    public function test_what_a_row_had_comes_back_and_what_it_never_had_does_not(): void
    {
        $none = new Settings;
        $ghost = $none->withLayers([2], Rung::Ghost)->withTags([3], Rung::Box);
        $hidden = $ghost->withLayers([2, 4], Rung::Hidden)->withTags([3], Rung::Hidden)->withFolders([5], Rung::Hidden);
        $known = BeforeHiding::following($none, $ghost, $hidden);
        self::assertSame([[2 => 2], [3 => 1], []], [$known->layers, $known->tags, $known->folders]);

        // Hidden once more, it still had what it had; shown in between, it had something else.
        self::assertEquals($known, BeforeHiding::following($known, $hidden, $hidden));
        $all = new Rows([2, 4, 6], [3], [5], Bits::none(0));
        $back = BeforeHiding::givenBack($hidden, $all, $known);
        self::assertSame([[2 => 2], [3 => 1], []], [$back->layers, $back->tags, $back->folders]);
        self::assertTrue(BeforeHiding::following($known, $hidden, $back)->isEmpty());

        // Only what is meant comes back.
        $some = BeforeHiding::givenBack($hidden, new Rows([4], [], [], Bits::none(0)), $known);
        self::assertSame([2 => 0], $some->layers);
    }

    public function test_what_is_held_alone_in_a_row_is_shown_with_it(): void
    {
        $view = (new Settings)->withLayersAlone([2], Rung::Hidden)->withObjectsAlone(Bits::ofRows(9, [7]), Rung::Hidden);
        $back = BeforeHiding::givenBack($view, new Rows([2], [], [], Bits::ofRows(9, [7])), new Settings);
        self::assertTrue($back->isEmpty());
    }

    public function test_random_histories_of_objects_layers_and_tags_against_plain_lists(): void
    {
        mt_srand(71);
        for ($run = 0; $run < 60; $run++) {
            $now = $known = new Settings;
            $set = $had = [];
            for ($step = 0; $step < 25; $step++) {
                $number = mt_rand(1, 40);
                $rows = array_unique([$number, mt_rand(1, 40), mt_rand(1, 12)]);
                sort($rows);
                [$layer, $tag] = [mt_rand(1, 4), mt_rand(1, 4)];
                $meant = new Rows([$layer], [$tag], [], Bits::ofRows(max($rows), $rows));
                $keys = ["L$layer", "T$tag", ...array_map(static fn (int $row): string => "O$row", $rows)];
                $rung = [null, 0, 0, 0, 2, 5, 'back', 'back'][mt_rand(0, 7)];
                if ($rung === 'back') {
                    $after = BeforeHiding::givenBack($now, $meant, $known);
                } else {
                    $after = $meant->put($now, $rung === null ? null : Rung::from($rung));
                }
                foreach ($keys as $key) {
                    $before = $set[$key] ?? null;
                    if ($rung === 'back') {
                        $set[$key] = $before === 0 ? $had[$key] ?? null : $before;
                    } else {
                        $had[$key] = $rung === 0 && $before !== 0 ? $before : $had[$key] ?? null;
                        $set[$key] = $rung;
                    }
                }
                $known = Settings::unpack(BeforeHiding::following($known, $now, $after)->pack());
                $now = $after;
                foreach (range(1, 40) as $each) {
                    self::assertSame($set["O$each"] ?? null, $now->object($each)?->value, "object $each");
                    $remembered = ($set["O$each"] ?? null) === 0 ? $had["O$each"] ?? null : null;
                    self::assertSame($remembered, $known->object($each)?->value, "what object $each had");
                }
                foreach (range(1, 4) as $each) {
                    self::assertSame($set["L$each"] ?? null, $now->layer($each)?->value);
                    self::assertSame($set["T$each"] ?? null, $now->tag($each)?->value);
                }
            }
        }
    }

    public function test_a_row_that_is_hidden_in_pictures_notes_what_it_had(): void
    {
        foreach ([null, Output::Full, Output::Box, Output::AsOnDesk] as $had) {
            self::assertSame($had, OutputSettings::before(OutputSettings::remembering($had)));
        }
        self::assertNull(OutputSettings::before('stands in for planting'));
        self::assertSame(Output::Hidden, OutputSettings::read('0 '.OutputSettings::remembering(Output::Ghost)));
    }
}
