<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Presenting\Presentation;
use VineShelf\Rungs\Rung;

/** Views one after the other, on nobody's desk. */
final class PresentationTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    public function test_a_step_shows_what_a_fresh_desk_shows_after_the_views_were_applied_in_order(): void
    {
        mt_srand(7);
        $layers = array_map(static fn (array $each): int => $each[0]->number, $this->bench()->layers()->walk());
        $objects = fn (): string => 'O'.$this->bench()->scene()->number(mt_rand(1, $this->bench()->scene()->count()));
        foreach (range(1, 8) as $number) {
            foreach (range(1, 3) as $ignored) {
                $this->send('POST', 'rungs', ['keys' => 'L'.$layers[array_rand($layers)], 'rung' => mt_rand(0, 5)])->assertOk();
                $this->send('POST', 'rungs', ['keys' => $objects(), 'rung' => mt_rand(0, 4)])->assertOk();
            }
            if ($number % 3 === 0) {
                $this->send('POST', 'pick', ['keys' => $objects(), 'mode' => 'replace']);
                $this->send('POST', 'isolate', []);
            }
            $keeps = array_filter(['keep_rungs' => 1, 'keep_isolation' => 1, 'keep_section' => 1], static fn (): bool => mt_rand(0, 2) > 0);
            $keeps = $keeps === [] ? ['keep_rungs' => 1] : $keeps;
            $this->send('POST', 'views', ['name' => "Step $number", ...$keeps])->assertOk();
        }
        // Another person, whose desk nothing was done to, applies them one by one.
        $presentation = new Presentation($this->bench(), range(1, 8));
        $other = $this->person('Vera Moss');
        $this->project->people()->attach($other, ['role' => 'viewer']);
        $this->actingAs($other);
        $shown = [];
        foreach (range(1, 8) as $number) {
            $this->send('POST', "views/$number/apply")->assertOk();
            $rungs = \App\Bench\Bench::of($this->project->refresh(), $other)->shown()->inEffect->rungs();
            self::assertSame(
                $rungs->bytes(),
                $presentation
                    ->at($number - 1)
                    ->shown()
                    ->inEffect->rungs()
                    ->bytes(),
                "step $number",
            );
            $shown = [...$shown, ...$rungs->atLeast(Rung::Box->value)->rows()];
        }
        $shown = array_values(array_unique($shown));
        sort($shown);
        self::assertSame($shown, $presentation->shown()->rows());
        // A step is the same however one comes to it.
        $again = new Presentation($this->bench(), range(1, 8));
        foreach ([5, 0, 7, 3] as $step) {
            self::assertSame(
                $presentation->at($step)->shown()->inEffect->rungs()->bytes(),
                $again->at($step)->shown()->inEffect->rungs()->bytes(),
            );
        }
    }
}
