<?php

declare(strict_types=1);

namespace Tests\Feature;

use PHPUnit\Framework\Attributes\TestWith;
use VineShelf\Colours\Line;
use VineShelf\Colours\Oklab;

/** What works on one row works on several, and on what is nested in them when asked for. */
final class SeveralRowsTest extends ProjectTestCase
{
    public function test_colour_edges_and_notes_reach_all_chosen_rows_and_what_is_left_out_is_named(): void
    {
        $this->send('POST', 'rows/move', ['keys' => 'L4', 'where' => 'into', 'mark' => 'L2']);
        $this->send('POST', 'locks', ['keys' => 'L5', 'lock' => 2]);
        $this->send('PATCH', 'rows', ['keys' => 'L2,L3,L5', 'colour' => '#336699'])
            ->assertSee('Colour 2 layers.')
            ->assertSee('Left alone: ')
            ->assertSee('20 Roof is locked');
        $colour = fn (int $layer): string => $this->bench()->layers()->get($layer)->colour;
        self::assertSame(['#336699', '#336699'], [$colour(2), $colour(3)]);
        self::assertNotSame('#336699', $colour(4));
        $this->send('PATCH', 'rows', ['keys' => 'L2', 'nested' => 1, 'line' => Line::Dashed->value])->assertSee('2 layers.');
        self::assertSame(Line::Dashed, $this->bench()->layers()->get(4)->line);
        $this->send('PATCH', 'rows', ['keys' => 'L2,L3', 'note' => 'As agreed'])->assertSee('Note on 2 layers.');
        self::assertSame('As agreed', $this->bench()->layers()->get(3)->note);
        $this->get($this->path('rows/L2/note?keys=L2,L3'))->assertSee('Note on 2 rows');
        $this->send('POST', 'undo');
        self::assertSame('', $this->bench()->layers()->get(2)->note);
        $this->get($this->path('rows/L2/hold-back?keys=L2,L3&nested=1'))
            ->assertSee('what is in 2 layers')
            ->assertSee('name="nested"', false);
        $this->send('PATCH', 'rows', ['keys' => 'L2,L5', 'nested' => 1, 'held_back' => 'By others'])
            ->assertSee('Keep out of exports 2 layers.');
        $back = fn (): array => array_map(fn (int $layer): string => $this->bench()->layers()->get($layer)->heldBack, [2, 3, 4, 5]);
        self::assertSame(['By others', '', 'By others', ''], $back());
        $this->send('PATCH', 'rows', ['keys' => 'L2,L4', 'held_back' => ''])->assertSee('Let exports have again 2 layers.');
        self::assertSame(['', '', '', ''], $back());
        $this->send('PATCH', 'rows', ['keys' => 'L5', 'colour' => '#336699'])->assertSee('20 Roof is locked');
        $this->json('PATCH', $this->path('rows'), ['keys' => 'L2'])->assertStatus(422);
        $this->json('PATCH', $this->path('rows'), ['keys' => 'L2', 'colour' => 'red'])->assertStatus(422);
    }

    public function test_colours_anew_are_told_apart_from_each_other_and_from_the_rest(): void
    {
        $this->send('PATCH', 'rows', ['keys' => 'L2,L3,L4,L5,L6', 'colour' => '#8a6a86']);
        $this->send('PATCH', 'rows', ['keys' => 'L2,L3,L4,L5,L6', 'anew' => 1])->assertSee('Colour anew 5 layers.');
        $colours = array_map(fn (int $layer): string => $this->bench()->layers()->get($layer)->colour, [2, 3, 4, 5, 6]);
        foreach ($colours as $at => $colour) {
            foreach (array_slice($colours, 0, $at) as $other) {
                self::assertGreaterThan(0.05, Oklab::of($colour)->distance(Oklab::of($other)));
            }
        }
    }

    /** @param array<int, int> $homes where the objects of a layer are filed then */
    #[TestWith(['above', [2 => 3, 5 => 1]])]
    #[TestWith(['7', [2 => 7, 5 => 7]])]
    #[TestWith(['delete', []])]
    public function test_several_layers_are_deleted_and_their_objects_go_where_it_was_said(string $target, array $homes): void
    {
        $this->send('POST', 'rows/move', ['keys' => 'L2', 'where' => 'into', 'mark' => 'L3']);
        $this->send('POST', 'rows/move', ['keys' => 'L4', 'where' => 'into', 'mark' => 'L2']);
        $members = [];
        foreach ([2, 5] as $layer) {
            $members[$layer] = $this->project->objects()->where('layer_no', $layer)->where('gone', false)->pluck('no')->all();
        }
        $this->get($this->path('layers/delete?keys=L2,L5'))->assertSee('Delete 2 layers')->assertSee('And what is nested in them: 1');
        $this->send('POST', 'landing', ['layer' => 5]);
        $this->send('DELETE', 'layers', ['keys' => 'L2,L5', 'target' => $target])->assertSee('Delete 2 layers');
        $bench = $this->bench();
        self::assertSame([false, false, true], [$bench->layers()->has(2), $bench->layers()->has(5), $bench->layers()->has(4)]);
        self::assertSame(3, $bench->layers()->get(4)->parent, 'what was nested stands where it stood');
        foreach ($homes as $layer => $home) {
            self::assertSame([$home], $this->project->objects()->whereIn('no', $members[$layer])->distinct()->pluck('layer_no')->all());
        }
        // What they hold cannot stay without them.
        $left = $this->project->objects()->where('gone', false)->whereIn('no', [...$members[2], ...$members[5]])->count();
        self::assertSame($target === 'delete' ? 0 : count($members[2]) + count($members[5]), $left);
        self::assertSame($target === '7' ? 7 : 1, $bench->desk->landing_layer);
        $this->assertIndexTrue($this->project->refresh());
        $this->send('POST', 'undo')->assertSee('Undone: Delete 2 layers');
        foreach ($members as $layer => $numbers) {
            self::assertSame([$layer], $this->project->objects()->whereIn('no', $numbers)->distinct()->pluck('layer_no')->all());
        }
        $this->assertIndexTrue($this->project->refresh());
    }

    public function test_what_is_nested_goes_too_when_asked_for_and_locked_ones_and_unsorted_are_refused_by_name(): void
    {
        $this->send('POST', 'rows/move', ['keys' => 'L4', 'where' => 'into', 'mark' => 'L2']);
        $this->send('DELETE', 'layers', ['keys' => 'L2', 'target' => 'above', 'nested' => 1])->assertSee('Delete 2 layers.');
        self::assertFalse($this->bench()->layers()->has(4));
        $this->send('POST', 'locks', ['keys' => 'L5', 'lock' => 2]);
        $refused = ['L3,L5' => '20 Roof is locked; open it first.', 'L1,L3' => 'Unsorted is always there', 'L77' => 'no longer there'];
        foreach ($refused as $keys => $says) {
            $this->json('DELETE', $this->path('layers'), ['keys' => $keys])->assertStatus(422)->assertSee($says);
        }
        $this->json('DELETE', $this->path('layers'), ['keys' => 'L3,L6', 'target' => '6'])->assertStatus(422)->assertSee('one that stays');
        $this->json('DELETE', $this->path('layers'), ['keys' => 'L3', 'target' => 'x'])->assertStatus(422);
    }
}
