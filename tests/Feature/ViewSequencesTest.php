<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Changes\Command;
use App\Changes\KeepView;
use App\Changes\Lowered;
use App\Changes\ViewsAsTheyWere;
use App\Models\Desk;
use PHPUnit\Framework\Attributes\TestWith;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Pick;
use VineShelf\Views\Facet;

/** People sort at random while views stand: they show what they showed, or the change says how many do not; undo brings all of it back. */
final class ViewSequencesTest extends SequenceTestCase
{
    private int $kept = 0;

    #[TestWith([21])]
    #[TestWith([37])]
    public function test_old_views_show_what_they_showed_or_the_change_says_so(int $seed): void
    {
        mt_srand($seed);
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
                        ? $this->someView($held, "At $step")
                        : ($held->scene()->count() > 0 && mt_rand(0, 3) === 0
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
            if ($command->viewsCanStay && mt_rand(0, 3) === 0) {
                $this->keepAsBefore($command, $shown);
                $states = [];
            }
        }
        $this->assertIndexTrue($this->project->refresh());
        self::assertGreaterThan(50, $made);
        self::assertGreaterThan(6, $turned);
        self::assertGreaterThan(20, $this->announced);
        self::assertGreaterThan(0, $this->kept);
    }

    /** A view of some rungs, every other one of some objects alone. */
    private function someView(Bench $bench, string $name): KeepView
    {
        $rows = array_rand(array_fill(1, max(4, $bench->scene()->count()), true), 4);
        $numbers = array_map(
            $bench->scene()->number(...),
            array_filter($rows, static fn (int $row): bool => $row <= $bench->scene()->count()),
        );
        $alone = Isolation::none()->deeper(Pick::of($numbers), Rung::from(mt_rand(0, 2)));
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putIsolation($alone));
        $facets = [Facet::Rungs, ...mt_rand(0, 1) === 0 ? [] : [Facet::Isolation]];

        DeskChange::on($bench, fn (Desk $desk) => $desk->putSettings($this->someRungs($bench)));
        // Some of what is lowered is for pictures, some only to work.
        $meant = [];
        foreach (Lowered::onDesk($bench)->lines as $line) {
            $meant[$line->id] = mt_rand(0, 1) === 0;
        }

        return new KeepView($bench, $name, $facets, null, '', meant: mt_rand(0, 2) === 0 ? null : $meant);
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
