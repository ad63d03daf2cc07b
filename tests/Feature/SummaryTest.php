<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Overview\Earlier;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;

/** How a project is sorted, now and on an earlier day. */
final class SummaryTest extends SequenceTestCase
{
    protected function tearDown(): void
    {
        Carbon::setTestNow();
        parent::tearDown();
    }

    public function test_earlier_days_are_told_as_they_were_whatever_was_changed_and_taken_back_since(): void
    {
        mt_srand(2160);
        $start = Carbon::parse('2031-03-01 08:00:00');
        $kept = [];
        $turned = 0;
        for ($step = 0; $step < 160; $step++) {
            Carbon::setTestNow($start->copy()->addHours($step));
            $bench = Bench::of($this->project->refresh(), mt_rand(0, 1) === 0 ? $this->ida : $this->bea);
            try {
                if (mt_rand(0, 4) === 0) {
                    $turned += (int) ((mt_rand(0, 2) > 0 ? $this->history->undo($bench) : $this->history->redo($bench))->change !== null);
                } else {
                    $this->history->carryOut($bench, $this->some(...));
                }
            } catch (Refused) {
            }
            $kept[$step] = $this->counts();
        }
        self::assertGreaterThan(10, $turned);
        $bench = $this->bench();
        foreach ($kept as $step => $counts) {
            self::assertEquals(
                $counts,
                self::without(Earlier::counts($bench, $start->copy()->addHours($step)->addMinutes(30))),
                "step $step",
            );
        }
    }

    public function test_the_page_and_the_file_say_what_is_where(): void
    {
        $layer = $this->layer($this->project, 'Layer 1');
        $this->send('PATCH', "rows/L$layer", ['note' => '=cmd|calc'])->assertOk();
        $this->send('PATCH', "rows/L$layer", ['name' => 'Layer <b>1</b>'])->assertOk();
        $this->send('POST', 'tags', ['name' => 'Wet'])->assertOk();
        $this->send('POST', 'tag', ['tag' => 1, 'mode' => 'add', 'keys' => 'O1,O2'])->assertOk();
        $this->send('POST', 'sets', ['of' => 'rule', 'rule' => 'seat or pump', 'name' => 'Both'])->assertOk();
        $page = $this->get($this->path('summary'))->assertOk();
        $page->assertSee('Layer <b>1</b>')->assertSee('seat or pump')->assertSee('45 objects');
        $lines = array_map(
            static fn (string $line): array => str_getcsv($line, escape: ''),
            explode("\n", trim((string) $this->get($this->path('summary.csv'))->assertOk()->getContent())),
        );
        self::assertSame("\u{FEFF}What", $lines[0][0]);
        $by = array_column($lines, null, 1);
        self::assertSame("'=cmd|calc", $by['Layer <b>1</b>'][8]);
        self::assertSame(['Tag', 'Wet'], array_slice($by['Wet'], 0, 2));
        self::assertSame(
            (string) $this->bench()
                ->find('seat or pump')
                ->rows?->count(),
            $by['Both'][2],
        );
        $sum = array_sum(array_map(static fn (array $line): int => $line[0] === 'Layer' ? (int) $line[2] : 0, $lines));
        self::assertSame(45, $sum, 'every object is in one layer');
        Carbon::setTestNow(now()->addDays(2));
        $yesterday = now()->subDay()->format('Y-m-d');
        $this->send('POST', 'file', ['layer' => $layer, 'keys' => 'O1'])->assertOk();
        $this->get($this->path("summary?since=$yesterday"))->assertOk()->assertSee('Since ');
        foreach (['tomorrow', '2031-13-01', '9999-01-01', '0000-01-01', '0001-01-01'] as $odd) {
            $this->getJson($this->path("summary?since=$odd"))->assertStatus(422);
        }
    }

    /** @return array{array<int, int>, array<int, int>, array<int, int>} by layer, tag and fixed set, in the slow and obvious way */
    private function counts(): array
    {
        $there = DB::table('objects')->where('project_id', $this->project->id)->where('gone', false)->pluck('layer_no', 'no')->all();
        $members = function (string $table) use ($there): array {
            $counts = [];
            foreach (DB::table($table)->where('project_id', $this->project->id)->orderBy('no')->pluck('no')->all() as $number) {
                $those = \App\Changes\Edits\MembersEdit::members($this->project, $table, (int) $number)?->rows() ?? [];
                $counts[(int) $number] = count(array_intersect($those, array_keys($there)));
            }

            return $counts;
        };
        $layers = array_count_values($there);

        return self::without([$layers, $members('tags'), $members('sets')]);
    }

    /**
     * @param array{array<int, int>, array<int, int>, array<int, int>} $counts
     *
     * @return array{array<int, int>, array<int, int>, array<int, int>}
     */
    private static function without(array $counts): array
    {
        foreach ($counts as &$those) {
            ksort($those);
        }

        return $counts;
    }
}
