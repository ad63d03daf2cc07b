<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Bench\Keys;
use App\Bench\Targets;
use App\Changes\ChangeViews;
use App\Changes\Command;
use App\Changes\CreateTag;
use App\Changes\KeepView;
use App\Changes\SetInViews;
use App\Models\View;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Views\Facet;

/** Blocks of cells set, copied and pasted at random, taken back and done again, beside a plain table in memory. */
final class GridSequencesTest extends SequenceTestCase
{
    public function test_views_keep_what_a_plain_table_says_after_every_change_undo_and_redo(): void
    {
        mt_srand(8);
        foreach (['One', 'Two', 'Three'] as $name) {
            $this->history->carryOut($this->bench(), static fn (Bench $held): CreateTag => new CreateTag($held, $name, 0, null));
        }
        $rows = ['L1', 'L2', 'L3', 'L4', 'T1', 'T2', 'T3', 'O3', 'O7', 'O12', 'O20', 'O31'];
        /** @var array<int, array<string, int>> $table rungs by row, by view */
        $table = [];
        $done = $undone = [];
        for ($step = 0; $step < 260; $step++) {
            $turn = mt_rand(0, 9);
            $bench = $this->bench();
            if ($turn < 2 && $done !== []) {
                $undone[] = $table;
                $table = array_pop($done);
                self::assertNotNull($this->history->undo($bench)->change);
            } elseif ($turn === 2 && $undone !== []) {
                $done[] = $table;
                $table = array_pop($undone);
                self::assertNotNull($this->history->redo($bench)->change);
            } else {
                $next = $table;
                $command = $this->history->carryOut($bench, function (Bench $held) use ($rows, &$next): Command {
                    return $this->block($held, $rows, $next);
                });
                if ($command->change !== null) {
                    $done[] = $table;
                    $undone = [];
                }
                $table = $next;
            }
            self::assertSame($this->sorted($table), $this->kept($rows), "step $step");
        }
        self::assertGreaterThan(60, count($done));
    }

    /**
     * @param list<string>                   $rows
     * @param array<int, array<string, int>> $table
     */
    private function block(Bench $bench, array $rows, array &$table): Command
    {
        $some = static fn (array $of): array => array_values(array_filter($of, static fn (): bool => mt_rand(0, 2) === 0));
        $views = array_values($bench->shelf()->members);
        $those = array_values(array_filter($views, static fn (): bool => mt_rand(0, 1) === 0));
        if ($views === [] || mt_rand(0, 14) === 0) {
            $number = $bench->project->next_view;
            $table[$number] = ['L2' => 1];

            return new KeepView($bench, "View $number", [Facet::Rungs], null, '', Settings::of([2 => 1], []));
        }
        if ($those === [] || ($keys = $some($rows)) === []) {
            $view = $views[array_rand($views)];
            unset($table[$view->no]);

            return ChangeViews::delete($bench, [$view->no]);
        }
        $targets = Targets::named(Keys::of($keys), $bench);
        $rung = [null, Rung::Hidden, Rung::Ghost, Rung::Full][mt_rand(0, 3)];
        switch (mt_rand(0, 2)) {
            case 0:
                foreach ($those as $view) {
                    $table[$view->no] = self::with($table[$view->no], array_fill_keys($keys, $rung?->value));
                }

                return SetInViews::set($bench, $targets, $those, $rung);
            case 1:
                $from = $views[array_rand($views)];
                $copied = array_map(static fn (string $key): ?int => $table[$from->no][$key] ?? null, array_combine($keys, $keys));
                foreach ($those as $view) {
                    $table[$view->no] = self::with($table[$view->no], $copied);
                }

                return SetInViews::copy($bench, $targets, $those, $from->settings(), $from->name);
            default:
                $pattern = [[null, Rung::Box], [Rung::Plain, null], [$rung, $rung]];
                foreach ($those as $column => $view) {
                    foreach ($keys as $at => $key) {
                        $table[$view->no] = self::with($table[$view->no], [$key => $pattern[$at % 3][$column % 2]?->value]);
                    }
                }

                return SetInViews::paste($bench, $keys, $those, $pattern);
        }
    }

    /**
     * @param array<string, int>      $row
     * @param array<string, int|null> $values
     *
     * @return array<string, int>
     */
    private static function with(array $row, array $values): array
    {
        return array_filter($values + $row, static fn (?int $value): bool => $value !== null);
    }

    /** @param array<int, array<string, int>> $table @return array<int, array<string, int>> */
    private function sorted(array $table): array
    {
        ksort($table);
        array_walk($table, static fn (array &$row) => ksort($row));

        return $table;
    }

    /** @param list<string> $rows @return array<int, array<string, int>> */
    private function kept(array $rows): array
    {
        $kept = [];
        foreach ($this->project->views()->get() as $view) {
            $kept[$view->no] = self::with(
                [],
                array_map(static fn (string $key): ?int => self::says($view, $key), array_combine($rows, $rows)),
            );
        }

        return $this->sorted($kept);
    }

    private static function says(View $view, string $key): ?int
    {
        $number = (int) substr($key, 1);
        $settings = $view->settings();

        $rung = match ($key[0]) {
            'L' => $settings->layer($number),
            'T' => $settings->tag($number),
            default => $settings->object($number),
        };

        return $rung?->value;
    }
}
