<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Models\User;
use PHPUnit\Framework\Attributes\DataProvider;

/** Histories of three people, taken back by each of them until nothing is left: the project is as it came, whatever the order. */
final class TakenBackTest extends SequenceTestCase
{
    /** @var list<User> */
    private array $people;

    protected function setUp(): void
    {
        parent::setUp();
        $this->people = [$this->ida, $this->bea, $this->person('Cleo Marsh')];
        $this->project->people()->attach($this->people[2], ['role' => 'editor']);
    }

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, (int) (getenv('TAKEN_BACK_SEEDS') ?: 4)) as $seed) {
            yield "history $seed" => [$seed + (int) getenv('TAKEN_BACK_FROM')];
        }
    }

    #[DataProvider('seeds')]
    public function test_every_change_is_taken_back_in_the_end(int $seed): void
    {
        mt_srand($seed);
        $came = $this->state();
        $made = $turned = 0;
        for ($step = 0; $step < 70; $step++) {
            $bench = Bench::of($this->project->refresh(), $this->people[mt_rand(0, 2)]);
            $way = mt_rand(0, 9);
            if ($way < 3) {
                $meant = mt_rand(0, 1) === 0 ? null : mt_rand(2, max(2, $made + 1));
                $turn = mt_rand(0, 1) === 0 ? $this->history->undo($bench, $meant) : $this->history->redo($bench, $meant);
                $turned += (int) ($turn->change !== null);
                // The file itself is to stay.
                if ($turn->change?->no === 1) {
                    $this->history->redo(Bench::of($this->project->refresh(), $bench->person), 1);
                }
                $this->assertNoCircles();
                continue;
            }
            try {
                $made += (int) ($this->history->carryOut($bench, $this->some(...))->change !== null);
            } catch (Refused) {
                continue;
            }
        }
        self::assertGreaterThan(15, $made);
        $this->takeAllBack($seed);
        self::assertSame(self::lines($came), self::lines($this->state()), "seed $seed");
        $this->assertIndexTrue($this->project->refresh());
        $this->assertNoCircles();
    }

    #[DataProvider('seeds')]
    public function test_going_back_over_many_is_the_same_as_taking_them_back_one_after_the_other(int $seed): void
    {
        $own = $this->happened($seed);
        $times = 0;
        while ($times < count($own) && $this->history->undo($this->bench(), $own[$times])->change !== null) {
            $times++;
        }
        $oneByOne = self::timeless($this->state());

        $this->project = $this->baths($this->ida);
        foreach (array_slice($this->people, 1) as $person) {
            $this->project->people()->attach($person, ['role' => 'editor']);
        }
        self::assertSame($own, $this->happened($seed));
        if ($times > 0) {
            self::assertNotNull($this->history->backTo($this->bench(), $own[$times - 1])->change);
        }
        self::assertSame($oneByOne, self::timeless($this->state()));
        $this->assertIndexTrue($this->project->refresh());
    }

    /** @return list<int> the changes that Ida made of some that she and Bea made, the last first */
    private function happened(int $seed): array
    {
        mt_srand($seed);
        for ($step = 0; $step < 30; $step++) {
            try {
                $this->history->carryOut(Bench::of($this->project->refresh(), $this->people[mt_rand(0, 1)]), $this->some(...));
            } catch (Refused) {
                continue;
            }
        }
        $own = $this->project->changes()->where('user_id', $this->ida->id)->where('no', '>', 1);

        return array_map(intval(...), $own->orderByDesc('no')->pluck('no')->all());
    }

    /** @return list<string> without what says when and where something was written */
    private static function timeless(string $state): array
    {
        $is = '~"(project_id|source_id|kept_at|pictured|created_at|updated_at)":("[^"]*"|\d+|null),?~';

        return array_map(static fn (string $line): string => (string) preg_replace($is, '', $line), self::lines($state));
    }

    /** Each change by its person, in any order, for as long as something can be taken back. */
    private function takeAllBack(int $seed): void
    {
        do {
            $left = $this->project->changes()->where('undone', false)->where('no', '>', 1)->get();
            $said = [];
            $went = 0;
            foreach ($left->shuffle($seed) as $change) {
                $by = array_search($change->user_id, array_column($this->people, 'id'), true);
                $bench = Bench::of($this->project->refresh(), $this->people[$by]);
                $turned = $this->history->undo($bench, $change->no);
                $went += (int) ($turned->change !== null);
                $said[] = "$change->no (turn $change->turn): $turned->sentence";
                $this->assertNoCircles();
            }
        } while ($went > 0);
        self::assertCount(0, $left, "seed $seed: ".implode("\n", $said));
    }

    /** @return list<string> so that what differs can be told */
    private static function lines(string $state): array
    {
        $lines = [];
        foreach ((array) json_decode($state, true) as $table => $rows) {
            foreach ((array) $rows as $row) {
                // Empty views of what never was and none at all are the same.
                $lines[] = "$table ".json_encode($row);
            }
        }

        return $lines;
    }
}
