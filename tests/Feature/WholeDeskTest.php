<?php

declare(strict_types=1);

namespace Tests\Feature;

use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;

/** What is done to the desk as a whole, each in one step that says what it did and can be taken back. */
final class WholeDeskTest extends ProjectTestCase
{
    public function test_show_only_show_all_again_invert_and_everything_to_full(): void
    {
        $all = $this->bench()->scene()->count();
        $seats = $this->counted('layer:Seats');
        $this->pick('layer:Seats');
        $this->send('POST', 'rungs', ['keys' => 'L'.$this->layer($this->project, '51 Seats'), 'rung' => 0]);
        $this->send('POST', 'rungs/whole', ['act' => 'only'])
            ->assertSee('hidden.')
            ->assertSee('data-command="desk-undo"', false);
        self::assertSame($seats, $this->counted('layer:Seats is shown'));
        self::assertSame(0, $this->counted('kind:part is shown not layer:Seats'));
        $this->send('POST', 'desk/undo')->assertSee('Taken back: Show only the pick.');
        self::assertSame($seats, $this->counted('is hidden'));
        $this->send('POST', 'rungs/whole', ['act' => 'invert'])->assertSee('Inverted:');
        self::assertSame($this->counted('layer:Seats kind:part'), $this->counted('kind:part is shown'));
        $this->send('POST', 'rungs/whole', ['act' => 'shown'])->assertSee('shown again.');
        self::assertSame($all, $this->counted('is shown'));
        $this->send('POST', 'rungs/whole', ['act' => 'shown'])->assertSee('It is so already.');
        $this->send('POST', 'rungs', ['keys' => 'L2', 'rung' => 2]);
        $this->send('POST', 'rungs/ceiling', ['rung' => 3])
            ->assertSee('Nothing on the desk is drawn above Coarse now.')
            ->assertSee('Ceiling: Coarse');
        $this->send('POST', 'isolate');
        self::assertSame($seats, $this->counted('is full'), 'isolating lifts the pick above the ceiling');
        $this->send('POST', 'rungs/whole', ['act' => 'full'])
            ->assertSee('Everything is at Full.')
            ->assertDontSee('Ceiling: Coarse');
        self::assertSame($all, $this->counted('is full'));
        self::assertFalse($this->bench()->isolation()->isOn());
    }

    public function test_a_ceiling_says_why_is_lifted_there_and_is_not_kept_by_views(): void
    {
        $seat = $this->number('Seat_Shell_004');
        $this->send('POST', 'rungs/ceiling', ['rung' => 1]);
        $this->send('POST', 'views', ['name' => 'Under it', 'keep_rungs' => 1]);
        $this->get($this->path("why/$seat"))->assertSee('is drawn as a box because the ceiling of the desk is')->assertSee('Lift it');
        $this->get($this->path('why?keys=L2'))->assertSee('The ceiling of the desk');
        $this->send('POST', 'views/1/apply');
        self::assertSame(1, $this->bench()->settings()->ceiling, 'the desk keeps it');
        self::assertSame([5 => $this->bench()->scene()->count()], $this->bench()->outputs()->side()->inEffect->rungs()->histogram());
        $this->send('POST', "why/$seat", ['what' => 'ceiling', 'number' => 0, 'part' => 'rung'])->assertSee('is drawn in full');
        self::assertSame(5, $this->bench()->settings()->ceiling);
        $this->send('POST', 'desk/undo');
        $this->send('POST', 'why?keys=L2', ['what' => 'ceiling', 'part' => 'rung'])->assertOk();
        self::assertSame(5, $this->bench()->settings()->ceiling);
        foreach ([0, 6, 'x'] as $odd) {
            $this->postJson($this->path('rungs/ceiling'), ['rung' => $odd])->assertStatus(422);
        }
    }

    public function test_one_rung_lower_and_higher_for_rows_and_for_the_pick(): void
    {
        $this->send('POST', 'rungs', ['keys' => 'L2', 'rung' => 3]);
        $this->send('POST', 'rungs/step', ['keys' => 'L2,L3', 'way' => -1])->assertSee('One rung lower: 2 layers.');
        self::assertSame([2, 4], [$this->bench()->settings()->layer(2)?->value, $this->bench()->settings()->layer(3)?->value]);
        $this->pick('layer:Seats kind:part');
        $this->send('POST', 'rungs/step', ['way' => -1]);
        $this->send('POST', 'rungs/step', ['way' => -1]);
        self::assertSame($this->bench()->pick()->count(), $this->counted('is picked is coarse'));
        $this->send('POST', 'rungs/step', ['way' => 1])->assertSee('One rung higher');
        $this->send('POST', 'rungs/step', ['way' => 1]);
        $this->send('POST', 'rungs/step', ['way' => 1])->assertSee('It is at Full already.');
        $this->postJson($this->path('rungs/step'), ['way' => 3])->assertStatus(422);
    }

    public function test_guard_all_but_the_pick_and_open_all_are_one_change_each(): void
    {
        $this->pick('layer:Seats kind:part');
        $this->send('POST', 'locks/whole', ['act' => 'others'])->assertSee('Guard all but');
        self::assertSame($this->counted('is picked'), $this->counted('is picked not is guarded'));
        self::assertSame(0, $this->counted('kind:part not is picked not is guarded'));
        $this->send('POST', 'undo')->assertSee('Undone: Guard all but');
        self::assertSame(0, $this->counted('is guarded'));
        $this->send('POST', 'redo');
        $this->send('POST', 'locks', ['keys' => 'L2', 'lock' => 2]);
        $this->send('POST', 'locks/whole', ['act' => 'open'])->assertSee('Open');
        self::assertSame(0, $this->counted('is guarded or is locked'));
        $this->send('POST', 'locks/whole', ['act' => 'open'])->assertSee('Everything is so already.');
    }

    public function test_a_backdrop_is_ghost_and_guarded_at_once_and_no_more_at_once(): void
    {
        $this->send('POST', 'locks', ['keys' => 'L3', 'lock' => 2]);
        $this->send('POST', 'backdrop', ['keys' => 'L2,L3'])
            ->assertSee('2 layers is a backdrop')
            ->assertSee('data-command="undo-both"', false);
        self::assertSame([Rung::Ghost, Rung::Ghost], [$this->bench()->settings()->layer(2), $this->bench()->settings()->layer(3)]);
        self::assertSame([Lock::Guarded, Lock::Locked], [$this->bench()->layers()->get(2)->lock, $this->bench()->layers()->get(3)->lock]);
        $this->send('POST', 'backdrop', ['keys' => 'L2,L3'])->assertSee('no backdrop any more');
        self::assertSame([null, null], [$this->bench()->settings()->layer(2), $this->bench()->settings()->layer(3)]);
        self::assertSame([Lock::Open, Lock::Locked], [$this->bench()->layers()->get(2)->lock, $this->bench()->layers()->get(3)->lock]);
        $this->pick('layer:Seats kind:part');
        $this->send('POST', 'backdrop', ['on' => 1]);
        self::assertSame($this->counted('is picked'), $this->counted('is picked is ghost is guarded'));
        $this->send('POST', 'backdrop');
        self::assertSame(0, $this->counted('(is ghost or is guarded) not is locked'));
    }

    public function test_each_layer_alone_goes_round_and_back_leads_out(): void
    {
        $holding = array_values(
            array_filter(
                array_map(static fn (array $entry): int => $entry[0]->number, $this->bench()->layers()->walk()),
                fn (int $layer): bool => $this->bench()->contents()->objectsWithNested($layer) > 0,
            ),
        );
        $this->pick('layer:Lockers');
        $this->send('POST', 'isolate');
        $this->send('POST', 'isolate/layer', ['way' => 1, 'layer' => $holding[1]]);
        $seen = [];
        foreach ($holding as $_) {
            $layer = $this->bench()->desk->alone_layer;
            $seen[] = $layer;
            $expected = array_fill_keys($this->bench()->layers()->withNested($layer), true);
            $parts = $this->bench()->find('kind:part')->rows;
            self::assertSame(
                $parts?->and($this->bench()->scene()->layers()->rowsOf($expected))->rows(),
                $parts?->and($this->bench()->inEffect()->rungs()->being(5))->rows(),
            );
            $this->send('POST', 'isolate/layer', ['way' => 1])->assertSee(' alone, ');
        }
        self::assertSame([...array_slice($holding, 1), $holding[0]], $seen);
        $this->send('POST', 'isolate/back', ['rest' => 'box'])->assertSee('Rest: box');
        $this->send('POST', 'isolate/layer', ['way' => -1]);
        self::assertSame($holding[0], $this->bench()->desk->alone_layer);
        self::assertSame(Rung::Box, $this->bench()->isolation()->rest());
        $this->send('POST', 'isolate/back')->assertSee('One step back');
        self::assertSame([1, 0], [$this->bench()->isolation()->depth(), $this->bench()->desk->alone_layer]);
    }

    public function test_how_edges_are_drawn_is_kept_with_the_desk(): void
    {
        $this->send('POST', 'edges', ['edges' => 'only'])
            ->assertSee('Edges only.')
            ->assertSee('data-edge-mode="only"', false);
        $this->get("/projects/{$this->project->key}")->assertSee('data-edge-mode="only"', false);
        $this->postJson($this->path('edges'), ['edges' => 'wavy'])->assertStatus(422);
    }

    private function pick(string $words): void
    {
        $this->send('POST', 'pick', ['found' => 1, 'words' => $words, 'mode' => 'replace'])->assertOk();
    }

    private function counted(string $rule): int
    {
        return (int) $this->bench()->find($rule)->rows?->count();
    }
}
