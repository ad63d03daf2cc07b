<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Changes\Edits\Edits;
use App\Changes\Edits\NameEdit;
use App\Changes\Edits\ObjectsEdit;
use App\Changes\Edits\RowEdit;
use App\Ledger\LayersLens;
use App\Ledger\NestingLens;
use App\Ledger\Row;
use App\View\Marks;
use App\Workbench\PickCard;
use Illuminate\Database\Events\QueryExecuted;
use Illuminate\Support\Facades\DB;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Pick;

/** Lenses against a slow listing, the pick card's words, marks, and edits that survive storing. */
final class LedgerTest extends ProjectTestCase
{
    public function test_the_nesting_lens_shows_what_walking_the_tree_shows(): void
    {
        $bench = Bench::of($this->project, $this->ida);
        $scene = $bench->scene();
        mt_srand(12);
        for ($round = 0; $round < 25; $round++) {
            $unfolded = [];
            foreach ($scene->groups() as $group) {
                if (mt_rand(0, ($round % 3) + 1) === 0) {
                    $unfolded[$scene->number($group)] = true;
                }
            }
            $slow = [];
            $walk = static function (int $parent, int $level) use (&$walk, &$slow, $scene, $unfolded): void {
                foreach ($scene->children($parent) as $row) {
                    $slow[] = [$scene->number($row), $level];
                    if (isset($unfolded[$scene->number($row)])) {
                        $walk($row, $level + 1);
                    }
                }
            };
            $walk(0, 1);
            $lens = new NestingLens($bench, Pick::of(array_keys($unfolded)));
            self::assertSame(count($slow), $lens->total());
            $from = mt_rand(0, count($slow) - 1);
            $rows = $lens->rows($from, 30);
            self::assertSame(array_slice($slow, $from, 30), array_map(static fn (Row $row): array => [$row->number(), $row->level], $rows));
            self::assertSame(array_map(static fn (Row $row): string => $row->key, $rows), $lens->keys($from, 30));
            foreach ($rows as $offset => $row) {
                self::assertSame($from + $offset, $lens->position($row->key));
            }
        }
        self::assertNull((new NestingLens($bench, Pick::of()))->position('O500'), 'what is folded away has no place');
    }

    public function test_the_layers_lens_shows_nested_layers_then_their_objects(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->post($this->path('layers'), ['name' => 'Aisle', 'parent' => $seats]);
        $aisle = $this->layer($this->project, 'Aisle');
        $this->post($this->path('file'), ['layer' => $aisle, 'keys' => $this->keys('Seat_Shell_001', 'Seat_Shell_024')]);
        $this->project->refresh();
        $bench = Bench::of($this->project, $this->ida);
        $lens = new LayersLens($bench, [$seats => true, $aisle => true]);

        self::assertSame(39 + 253, $lens->total());
        $at = (int) $lens->position("L$seats");
        self::assertSame(
            [[1, '51 Seats', 253], [2, 'Aisle', 2], [3, 'Seat_Shell_001', null], [3, 'Seat_Shell_024', null], [2, 'Seats', 252]],
            array_map(static fn (Row $row): array => [$row->level, $row->name, $row->count], $lens->rows($at, 5)),
        );
        self::assertCount(39 + 253, array_unique($lens->keys(0, 1000)));
        self::assertSame(39, (new LayersLens($bench, [$aisle => true]))->total() + 1, 'what is inside a folded layer is not on show');
    }

    public function test_a_layer_row_tells_mixed_held_and_picked(): void
    {
        $roof = $this->layer($this->project, '20 Roof');
        $this->post($this->path('rungs'), ['keys' => "L$roof", 'rung' => 2]);
        $this->post($this->path('pick'), ['keys' => $this->keys('Seat_Shell_001', 'Seat_Shell_002'), 'mode' => 'replace']);
        $bench = Bench::of($this->project, $this->ida);
        $rows = [];
        foreach ((new LayersLens($bench, []))->rows(0, 60) as $row) {
            $rows[$row->name] = $row;
        }
        self::assertSame(
            [Rung::Ghost, Rung::Ghost, false],
            [$rows['20 Roof']->own, $rows['20 Roof']->inEffect, $rows['20 Roof']->isHeld()],
        );
        // The roof skin hangs in the roof's group, but membership is each object's own: the roof's layer does not hold it down.
        self::assertSame(
            [Rung::Full, Rung::Full, false],
            [$rows['21 Roof skin']->own, $rows['21 Roof skin']->inEffect, $rows['21 Roof skin']->isHeld()],
        );
        self::assertFalse($rows['30 Glazing']->mixed);
        $this->post($this->path('rungs'), ['keys' => 'O'.$this->number('ROOF'), 'rung' => 2]);
        $bench = Bench::of($this->project, $this->ida);
        foreach ((new LayersLens($bench, []))->rows(0, 60) as $row) {
            $rows[$row->name] = $row;
        }
        // What is set on the group itself does; skylights are only a few of the glazing.
        self::assertSame(
            [Rung::Full, Rung::Ghost, true],
            [$rows['21 Roof skin']->own, $rows['21 Roof skin']->inEffect, $rows['21 Roof skin']->isHeld()],
        );
        self::assertTrue($rows['30 Glazing']->mixed);
        self::assertSame([2, false, 0], [$rows['51 Seats']->picked, $rows['51 Seats']->isPicked, $rows['50 Stands']->picked]);
    }

    public function test_the_pick_card_says_how_many_of_what_and_how_heavy(): void
    {
        $card = function (string $keys): ?PickCard {
            $this->post($this->path('pick'), ['keys' => $keys, 'mode' => 'replace']);

            return PickCard::of(Bench::of($this->project, $this->ida));
        };
        self::assertNull($card(''));
        $one = $card($this->keys('Seat_Shell_017'));
        self::assertSame(['Seat_Shell_017', '51 Seats', 0, 0], [$one?->title, $one?->where, $one?->held, $one?->hidden]);
        $group = $card($this->keys('Block West'));
        self::assertSame(['Block West', 125, 120 * (int) $one?->triangles], [$group?->title, $group?->held, $group?->triangles]);
        $both = $card($this->keys('Block West').','.$this->keys('Seat_Shell_017', 'Lamp 1', 'Hall from the south east'));
        self::assertSame(
            ['1 group, 1 part, 1 light, 1 camera picked', '3 layers', $group?->triangles],
            [$both?->title, $both?->where, $both?->triangles],
        );
        $this->post($this->path('rungs'), ['keys' => $this->keys('Block West'), 'rung' => 0]);
        self::assertSame(2, PickCard::of(Bench::of($this->project, $this->ida))?->hidden);
    }

    public function test_marks_show_effect_and_own_setting_by_shape(): void
    {
        $bars = static function (string $mark): array {
            preg_match_all('~class="(on|own|off|mix)"~', $mark, $found);

            return array_count_values($found[1]);
        };
        self::assertSame(['on' => 5], $bars(Marks::rung(Rung::Full, Rung::Full)));
        self::assertSame(['on' => 2, 'own' => 3], $bars(Marks::rung(Rung::Full, Rung::Ghost)));
        self::assertSame(['off' => 5], $bars(Marks::rung(Rung::Hidden, Rung::Hidden)));
        self::assertSame(['on' => 1, 'off' => 4], $bars(Marks::rung(Rung::Box, Rung::Box)));
        self::assertSame(['mix' => 5], $bars(Marks::rung(Rung::Full, Rung::Full, true)));
        self::assertCount(3, array_unique(array_map(Marks::lock(...), Lock::cases())));
        self::assertSame(
            ['999', '1.2k', '12k', '254k', '1.74M', '11.8M'],
            array_map(Marks::short(...), [999, 1234, 12_345, 254_318, 1_737_184, 11_790_450]),
        );
        self::assertSame(
            ['12 bytes', '556 kB', '1.5 MB', '4.29 GB'],
            array_map(Marks::bytes(...), [12, 556_000, 1_467_392, 4_294_967_296]),
        );
    }

    public function test_edits_are_the_same_after_storing_and_their_reverse_of_the_reverse(): void
    {
        $edits = new Edits([
            new RowEdit('layers', 7, null, ['name' => 'Grün „neu“', 'parent_no' => 0]),
            new ObjectsEdit('layer_no', [1 => [5, 6], 4 => [9]], [7 => [5, 6, 9]]),
            new NameEdit(12, 'a', '<b>'),
            new RowEdit('views', 2, ['rungs' => base64_encode("\0\xFF")], null),
        ]);
        self::assertEquals($edits, Edits::unpack($edits->pack()));
        self::assertEquals($edits, $edits->reversed()->reversed());
        self::assertEquals(new NameEdit(12, '<b>', 'a'), $edits->reversed()->steps[1]);
        self::assertTrue((new Edits([]))->isEmpty());
        $this->expectException(\InvalidArgumentException::class);
        new ObjectsEdit('name', [], []);
    }

    private function keys(string ...$names): string
    {
        return implode(
            ',',
            array_map(fn (string $name): string => 'O'.$this->project->objects()->where('name', $name)->value('no'), $names),
        );
    }

    public function test_a_window_of_held_rows_says_why_with_one_question_for_all_names(): void
    {
        // Many groups hold what is in them down, each its own.
        $parents = DB::table('objects')->where('project_id', $this->project->id)->where('kind', 1)->distinct()->pluck('parent_no');
        $groups = $parents->filter()->take(40)->values();
        self::assertGreaterThan(25, $groups->count());
        foreach ($groups as $group) {
            $this->send('POST', 'rungs', ['keys' => "O$group", 'rung' => 2])->assertOk();
        }
        $this->send('POST', 'ledger', ['lens' => 'objects']);
        $asked = 0;
        DB::listen(static function (QueryExecuted $query) use (&$asked): void {
            $asked += str_contains($query->sql, 'from "objects"') ? 1 : 0;
        });
        $page = (string) $this->get($this->path('ledger?lens=objects&from=0&count=200'))->assertOk()->getContent();
        self::assertLessThan(4, $asked);
        // Each says what "why" says.
        $checked = 0;
        foreach (array_slice(explode('data-key="O', $page), 1) as $row) {
            if (preg_match('~ because the group ([^"]*) is\. Its own~', $row, $found) === 1 && $checked < 8) {
                $this->get($this->path('why/'.(int) $row))->assertSee("because the group $found[1] is", false);
                $checked++;
            }
        }
        self::assertSame(8, $checked);
    }
}
