<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Command;
use App\Changes\KeepView;
use App\Changes\ViewsAsTheyWere;
use VineShelf\Views\Facet;

/** People sort at random while views stand: they show what they showed, or the change says how many do not; undo brings all of it back. */
final class ViewSequencesTest extends SequenceTestCase
{
    private int $kept = 0;

    public function test_old_views_show_what_they_showed_or_the_change_says_so(): void
    {
        mt_srand(12);
        $states = [];
        $made = $turned = 0;
        for ($step = 0; $step < 130; $step++) {
            $bench = Bench::of($this->project->refresh(), mt_rand(0, 1) === 0 ? $this->ida : $this->bea);
            [$before, $shown] = [$this->state(), $this->shownInViews()];
            if ($step % 30 > 2 && mt_rand(0, 6) === 0) {
                $this->assertUndoBringsBack($bench, $states, $before);
                $turned++;

                continue;
            }
            try {
                $command = $this->history->carryOut(
                    $bench,
                    fn (Bench $held) => $step % 30 < 2
                        ? new KeepView($held, "At $step", [Facet::Rungs], null, '', $this->someRungs($held))
                        : (mt_rand(0, 3) === 0
                            ? $this->someNesting($held)
                            : $this->some($held, 21)),
                );
            } catch (Refused) {
                continue;
            }
            if ($command->change !== null) {
                $states[$command->change] = [$before, $this->state()];
                $made++;
            }
            $this->assertViewsAnnounced($command, $shown);
            if ($command->viewsDiffer > 0 && mt_rand(0, 3) === 0) {
                $this->keepAsBefore($command, $shown);
                $states = [];
            }
        }
        $this->assertIndexTrue($this->project->refresh());
        self::assertGreaterThan(50, $made);
        self::assertGreaterThan(6, $turned);
        self::assertGreaterThan(20, $this->announced);
        self::assertGreaterThan(2, $this->kept);
    }

    /** @param array<int, array<int, int>> $shown rungs by object, by view */
    private function keepAsBefore(Command $command, array $shown): void
    {
        $kept = $this->history->carryOut(
            $this->bench(),
            static fn (Bench $held): ViewsAsTheyWere => new ViewsAsTheyWere($held, $command->change ?? 0),
        );
        self::assertSame('', $kept->leftAlone);
        $after = $this->shownInViews();
        foreach (array_intersect_key($shown, $after) as $view => $rungs) {
            self::assertSame(
                array_intersect_key($rungs, $after[$view]),
                array_intersect_key($after[$view], $rungs),
                "view $view as before {$command->name()}",
            );
        }
        $this->kept++;
    }
}
