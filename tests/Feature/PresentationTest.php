<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Presenting\Presentation;
use VineShelf\Rungs\Rung;

/** Views one after the other, on nobody's desk. */
final class PresentationTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    private const CAMERA = '{"eye":[4,0,2],"target":[0,0,0],"fov":40,"aspect":1.5}';

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

    public function test_the_page_is_told_what_each_step_shows_and_nothing_of_what_none_does(): void
    {
        [$roof, $seats] = [$this->layer($this->project, '20 Roof'), $this->layer($this->project, '51 Seats')];
        $this->send('POST', 'views', ['name' => 'All', 'keep_rungs' => 1, 'camera' => self::CAMERA, 'keep_camera' => 1]);
        $this->send('POST', 'rungs', ['keys' => "L$roof", 'rung' => 2]);
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0]);
        $this->send('POST', 'tint', ['by' => 'layer']);
        $this->send('POST', 'views', ['name' => 'No seats', 'note' => 'As agreed.', 'keep_rungs' => 1, 'keep_tint' => 1]);
        $this->send('POST', 'rungs', ['keys' => "L$roof", 'rung' => 0]);
        $this->send('POST', 'folders', ['holds' => 'views', 'name' => 'Client', 'around' => 'V2']);
        $desk = fn (): array => [$this->bench()->desk->revision, $this->bench()->desk->facets(), $this->bench()->settings()->pack()];
        $before = $desk();
        $this->get($this->path('walk/all'))->assertOk()->assertSee('2 / 2 · No seats');
        $first = $this->getJson($this->path('walk/all/steps/0'))->assertOk()->json();
        $second = $this->getJson($this->path('walk/all/steps/1'))->assertOk()->json();
        self::assertSame(['All', '', null], [$first['name'], $first['note'], $first['tint']]);
        self::assertSame(['No seats', 'As agreed.', 40], [$second['name'], $second['note'], $second['camera']['fov']]);
        $scene = $this->bench()->scene();
        $states = static fn (array $step): string => (string) gzinflate((string) base64_decode($step['states'], true));
        $codes = array_values((array) unpack('v*', (string) gzinflate((string) base64_decode($second['tint']['codes'], true))));
        foreach (
            $scene
                ->layers()
                ->rowsOf([$seats => true])
                ->rows() as $row
        ) {
            $number = $scene->number($row);
            self::assertSame([5, 0, 0], [ord($states($first)[$number]), ord($states($second)[$number]), $codes[$number]]);
        }
        foreach (
            $scene
                ->layers()
                ->rowsOf([$roof => true])
                ->rows() as $row
        ) {
            self::assertSame(2, ord($states($second)[$scene->number($row)]));
        }
        // A folder where all of its views hide the seats does without them.
        $sent = fn (string $views): int => array_sum(
            array_map(
                fn (int $part): int => strlen((string) $this->get($this->path("walk/$views/records?part=$part"))->assertOk()->getContent()),
                [0, 1],
            ),
        );
        self::assertLessThan($sent('all'), $sent('F1'));
        $this->get($this->path('walk/F1/steps/1'))->assertNotFound();
        $this->get($this->path('walk/F1/faces/0'))->assertOk();
        foreach (['V99', 'F9', 'L1', 'V1,,', '%27', 'V99999999999999999999'] as $odd) {
            $this->get($this->path("walk/$odd"))->assertStatus(422);
        }
        self::assertSame($before, $desk(), 'nothing is done to the desk');
        $this->actingAs($this->person('Otto Brandt'))->get($this->path('walk/all'))->assertNotFound();
    }

    public function test_where_there_are_no_views_there_is_nothing_to_walk_through(): void
    {
        $this->get($this->path('walk/all'))->assertNotFound();
    }
}
