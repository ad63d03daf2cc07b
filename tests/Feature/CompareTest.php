<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Compared;
use PHPUnit\Framework\Attributes\TestWith;
use VineShelf\Rungs\Rung;

/** Two states side by side: what only one shows, by object, in words, in the canvas and in the pick. */
final class CompareTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    protected function setUp(): void
    {
        parent::setUp();
        $seats = $this->layer($this->project, '51 Seats');
        $roof = $this->layer($this->project, '20 Roof');
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0]);
        $this->send('POST', 'views', ['name' => 'No seats', 'keep_rungs' => 1]);
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 5]);
        $this->send('POST', 'rungs', ['keys' => "L$roof", 'rung' => 2]);
        $this->send('POST', 'rungs', ['keys' => 'O12', 'rung' => 0]);
        $this->send('POST', 'views', ['name' => 'Roof ghosted', 'keep_rungs' => 1]);
    }

    public function test_objects_are_counted_object_by_object_whichever_two_are_compared(): void
    {
        $this->send('POST', 'rungs', ['keys' => 'O20', 'rung' => 1]);
        $digits = function (string $key): string {
            $bench = $this->bench();
            $view = ctype_digit(substr($key, 1)) ? $bench->project->views()->where('no', (int) substr($key, 1))->first() : null;
            $inEffect = match ($key) {
                'D' => $bench->inEffect(),
                'O' => $bench->outputs()->side()->inEffect,
                default => $bench->asIn($view),
            };

            return implode('', array_map($inEffect->rungs()->at(...), range(1, $bench->scene()->count())));
        };
        foreach ([['V1', 'V2'], ['V2', 'V1'], ['V1', 'D'], ['D', 'O'], ['V2', 'V2']] as [$first, $second]) {
            [$here, $there] = [$digits($first), $digits($second)];
            $counts = ['first' => 0, 'second' => 0, 'other' => 0];
            for ($at = 0; $at < strlen($here); $at++) {
                if ($here[$at] !== $there[$at]) {
                    $counts[$there[$at] === '0' ? 'first' : ($here[$at] === '0' ? 'second' : 'other')]++;
                }
            }
            $compared = Compared::of($this->bench(), $first, $second);
            self::assertNotNull($compared);
            self::assertSame($counts, array_map(static fn ($rows): int => $rows->count(), $compared->rows()), "$first and $second");
            $together = $compared->together()->rungs();
            for ($row = 1; $row <= strlen($here); $row += 37) {
                self::assertSame(max((int) $here[$row - 1], (int) $there[$row - 1]), $together->at($row));
            }
        }
    }

    public function test_rows_that_differ_are_named_and_what_only_one_shows_is_picked(): void
    {
        $this->get($this->path('compare?first=V1&second=V2'))
            ->assertOk()
            ->assertSee('Only in No seats')
            ->assertSee('Hidden to full')
            ->assertSee('Nothing set to ghost')
            ->assertSee('51 Seats');
        $this->send('POST', 'compare/pick', ['first' => 'V1', 'second' => 'V2', 'which' => 'second', 'mode' => 'replace'])->assertSee(
            '253 objects picked.',
        );
        $this->send('POST', 'compare/pick', ['first' => 'V1', 'second' => 'V1', 'which' => 'first', 'mode' => 'replace'])->assertStatus(
            422,
        );
        $this->get($this->path('compare'))->assertOk()->assertSee('Only in Roof ghosted')->assertSee('Only on the desk');
    }

    public function test_the_canvas_shows_what_either_shows_and_its_legend_says_whose_it_is(): void
    {
        $desk = $this->bench()->settings();
        $this->send('POST', 'compare', ['first' => 'V1', 'second' => 'V2'])->assertSee('No seats and Roof ghosted compared.');
        self::assertSame(0, $this->bench()->shown()->inEffect->rungs()->histogram()[Rung::Hidden->value] ?? 0);
        self::assertTrue($desk->same($this->bench()->settings()), 'the desk is untouched');
        $tint = (array) $this->getJson($this->path('tint'))->assertOk()->json();
        self::assertSame(
            ['Only in No seats', 'Only in Roof ghosted', 'In both, drawn otherwise', 'In both alike'],
            array_column((array) $tint['entries'], 'label'),
        );
        $this->send('POST', 'tint/pick', ['entry' => 1, 'mode' => 'replace']);
        self::assertSame($tint['entries'][1]['objects'], $this->bench()->pick()->count());
        $this->send('DELETE', 'views/1');
        self::assertNull(Compared::onDesk($this->bench()), 'where one of them is gone, the canvas shows the desk');
        self::assertSame(1, $this->bench()->shown()->inEffect->rungs()->histogram()[Rung::Hidden->value] ?? 0);
        $this->getJson($this->path('tint'))->assertOk();
        $this->send('POST', 'tint', ['by' => 'own'])->assertSee('Own materials.');
    }

    #[TestWith(['GET', 'compare?first=V9'])]
    #[TestWith(['GET', 'compare?first=x&second=D'])]
    #[TestWith(['POST', 'compare?first=V1&second='])]
    #[TestWith(['POST', 'compare/pick?first=V1&second=V2&which=all&mode=replace'])]
    #[TestWith(['POST', 'tint?by=compare'])]
    public function test_odd_pairs_are_refused(string $method, string $path): void
    {
        self::assertContains($this->call($method, $this->path($path))->getStatusCode(), [302, 422]);
        self::assertNull(Compared::onDesk($this->bench()));
    }
}
