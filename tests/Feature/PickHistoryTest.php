<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\PickHistory;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\TestWith;

/** The pick before and the pick after: one history per person and project. */
final class PickHistoryTest extends ProjectTestCase
{
    public function test_picks_come_back_in_their_order_and_what_was_cleared_first(): void
    {
        foreach (['O1', 'O2,O3', 'L4'] as $keys) {
            $this->pick($keys);
        }
        self::assertSame(53, $this->picked());
        $this->send('POST', 'pick', ['mode' => 'replace']);
        self::assertSame([0, 53, 2, 1, 1], $this->stepped(-1, 5));
        $this->send('POST', 'pick/step', ['way' => -1])->assertSee('Nothing was picked before.');
        self::assertSame([1, 2, 53, 53], $this->stepped(1, 4));
        $this->send('POST', 'pick/step', ['way' => 1])->assertSee('Nothing was picked after.');
        // Who goes on from an earlier one leaves the later ones behind; the same once more is no other pick.
        $this->send('POST', 'pick/step', ['way' => -1]);
        $this->pick('O7');
        $this->pick('O7');
        self::assertSame([1, 2, 1, 1], $this->stepped(-1, 4));
        self::assertSame([1, 2, 1, 1], $this->stepped(1, 4));
    }

    public function test_the_depth_is_fifty_and_each_person_has_their_own(): void
    {
        for ($number = 1; $number <= 60; $number++) {
            $this->pick("O$number");
        }
        self::assertSame(PickHistory::DEPTH, DB::table('picks')->count());
        $this->stepped(-1, 80);
        self::assertSame([11], $this->bench()->pick()->numbers());
        $bea = $this->person('Bea Lind');
        $this->project->people()->attach($bea, ['role' => 'viewer']);
        $this->actingAs($bea);
        $this->send('POST', 'pick/step', ['way' => -1])->assertSee('Nothing was picked before.');
        $this->send('POST', 'pick/step', ['way' => 1])->assertSee('Nothing was picked after.');
        $this->actingAs($this->ida);
        $this->project->delete();
        self::assertSame(0, DB::table('picks')->count());
    }

    #[TestWith([3])]
    #[TestWith([29])]
    public function test_a_list_on_paper_says_the_same_of_eighty_random_picks_and_steps(int $seed): void
    {
        mt_srand($seed);
        $paper = $now = [];
        $at = -1;
        for ($round = 0; $round < 80; $round++) {
            if (mt_rand(0, 2) === 0) {
                $way = mt_rand(0, 1) === 0 ? -1 : 1;
                $this->send('POST', 'pick/step', ['way' => $way])->assertOk();
                for ($next = $way < 0 && $now === [] ? $at : $at + $way; isset($paper[$next]); $next += $way) {
                    if ($paper[$next] !== $now) {
                        [$at, $now] = [$next, $paper[$next]];
                        break;
                    }
                }
            } else {
                $picked = mt_rand(0, 4) === 0 ? [] : array_values(array_unique([mt_rand(1, 4), mt_rand(1, 4)]));
                sort($picked);
                $keys = implode(',', array_map(static fn (int $number): string => "O$number", $picked));
                $this->send('POST', 'pick', ['keys' => $keys, 'mode' => 'replace'])->assertOk();
                if ($picked !== [] && $picked !== ($paper[$at] ?? null)) {
                    $paper = array_slice([...array_slice($paper, 0, $at + 1), $picked], -PickHistory::DEPTH);
                    $at = count($paper) - 1;
                }
                $now = $picked;
            }
            self::assertSame($now, $this->bench()->pick()->numbers(), "round $round");
        }
        self::assertGreaterThan(10, count($paper));
    }

    public function test_what_is_gone_from_the_project_is_passed_over_and_what_regions_and_sets_pick_counts_as_well(): void
    {
        $this->send('POST', 'sets', ['name' => 'Two', 'of' => 'nothing', 'keys' => '']);
        $this->pick('O12,O14');
        $this->pick('O15');
        $this->pick('O15,O16');
        $this->send('POST', 'objects/delete', ['keys' => 'O15']);
        $this->pick('O20');
        self::assertSame([1, 1, 2, 2], $this->stepped(-1, 4));
        self::assertSame([12, 14], $this->bench()->pick()->numbers());
        $this->send('POST', 'pick/step', ['way' => 1])->assertSee('1 picked after.');
        self::assertSame([16], $this->bench()->pick()->numbers());
        $this->send('POST', 'parked/1');
        $this->pick('O30');
        $this->send('POST', 'parked/1/recall', ['mode' => 'replace']);
        self::assertSame([1, 1, 1], $this->stepped(-1, 3));
        foreach (['0', '2', 'x', ''] as $way) {
            $this->json('POST', $this->path('pick/step'), ['way' => $way])->assertStatus(422);
        }
    }

    public function test_keys_of_a_stretch_of_rows_leave_objects_out(): void
    {
        $this->send('POST', 'ledger', ['fold' => 'L3', 'unfold' => 1]);
        $keys = $this->getJson($this->path('ledger/keys?lens=layers&span=1-20'))->json('keys');
        self::assertSame(['L2', 'L3', 'L4', 'L5', 'L6'], array_slice((array) $keys, 0, 5));
        self::assertSame(['L1'], $this->getJson($this->path('ledger/keys?lens=layers&span=x'))->json('keys'));
        self::assertSame([], $this->getJson($this->path('ledger/keys?lens=layers&span=900000-999999999'))->json('keys'));
    }

    private function pick(string $keys): void
    {
        $this->send('POST', 'pick', ['keys' => $keys, 'mode' => 'replace']);
    }

    private function picked(): int
    {
        return $this->bench()->pick()->count();
    }

    /** @return list<int> how many were picked before each step */
    private function stepped(int $way, int $steps): array
    {
        $counts = [];
        for ($step = 0; $step < $steps; $step++) {
            $counts[] = $this->picked();
            $this->send('POST', 'pick/step', ['way' => $way]);
        }

        return $counts;
    }
}
