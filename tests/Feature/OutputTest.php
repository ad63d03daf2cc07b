<?php

declare(strict_types=1);

namespace Tests\Feature;

use VineShelf\Output\Output;
use VineShelf\Rungs\Rung;

/** What pictures show beside what a desk shows. */
final class OutputTest extends ProjectTestCase
{
    public function test_what_is_hidden_on_the_desk_is_in_the_picture_unless_somebody_said_otherwise(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $count = $this->bench()->contents()->objectsWithNested($seats);
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0])->assertSee(number_format($count).' differ');
        self::assertSame([0 => $count], array_diff_key($this->desk(), [5 => 0]));
        self::assertSame([5 => $this->bench()->scene()->count()], $this->pictures());

        $this->send('POST', 'output', ['keys' => "L$seats", 'output' => '2'])->assertSee('In pictures ghost: 51 Seats.');
        self::assertSame($count, $this->pictures()[2]);
        self::assertSame($count, $this->desk()[0], 'the desk is as it was');
        $this->send('POST', 'undo')->assertSee('Undone: In pictures ghost');
        self::assertSame([5 => $this->bench()->scene()->count()], $this->pictures());
        $this->send('POST', 'redo');

        // It is the project's: others see it, whatever their desk has.
        $otto = $this->person('Otto Quill');
        $this->project->people()->attach($otto, ['role' => 'editor']);
        $this->actingAs($otto)
            ->get($this->path('ledger').'?lens=layers&from=0&count=40')
            ->assertSee('In pictures Ghost', false);
        $this->send('POST', 'output', ['keys' => "L$seats", 'output' => 'none'])->assertSee('Nothing set for pictures: 51 Seats.');
        $this->send('POST', 'output', ['keys' => "L$seats", 'output' => 'none'])->assertSee('It is so already.');
    }

    public function test_a_rung_for_pictures_may_come_as_a_number(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->postJson($this->path('output'), ['keys' => "L$seats", 'output' => 2])->assertOk();
        self::assertSame(2, (int) $this->project->layers()->where('no', $seats)->value('output'));
    }

    public function test_a_view_is_what_pictures_start_from_and_its_own_settings_lie_over_those_of_the_project(): void
    {
        [$seats, $lockers] = [$this->layer($this->project, '51 Seats'), $this->layer($this->project, '61 Lockers')];
        $rung = fn (int $layer): int => (int) $this->bench()->outputs()->side()->settings->layer($layer)?->value;
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 1]);
        $this->send('POST', 'views', ['name' => 'Kept', 'keep_rungs' => 1, "meant_L$seats" => 1]);
        $this->send('POST', 'rungs', ['keys' => "L$seats,L$lockers", 'rung' => 3]);
        self::assertSame([1, 0], [$rung($seats), $rung($lockers)], 'what the view kept, not what the desk has');
        $this->send('POST', 'output', ['keys' => "L$seats", 'output' => '5']);
        self::assertSame(5, $rung($seats));

        // A view that keeps output keeps it, whatever is set for the project later.
        $this->send('POST', 'output', ['keys' => "L$lockers", 'output' => '0']);
        $this->send('POST', 'views', ['name' => 'Own', 'keep_rungs' => 1, 'keep_output' => 1])->assertSee('Keep view Own');
        $this->send('POST', 'output', ['keys' => "L$seats,L$lockers", 'output' => '4']);
        self::assertSame([5, 0], [$rung($seats), $rung($lockers)]);
        $this->send('POST', 'output', ['keys' => "L$seats", 'output' => 'never', 'note' => 'not  ours']);
        self::assertSame([0, 0], [$rung($seats), $rung($lockers)], 'never is never');
        $this->send('POST', 'shows', ['of' => 'none'])->assertSee('Differences are with pictures of no view.');
        self::assertSame([0, 4], [$rung($seats), $rung($lockers)]);
        $this->send('POST', 'shows', ['of' => 'view']);
        $this->send('PATCH', 'views/2', [])->assertSee('Update view Own');
        self::assertSame([0, 4], [$rung($seats), $rung($lockers)], 'updated from what is set now');
    }

    public function test_what_follows_the_desk_follows_that_of_whoever_looks(): void
    {
        $seat = $this->number('Seat_Shell_004');
        $this->send('POST', 'output', ['keys' => "O$seat", 'output' => 'desk'])->assertSee('In pictures as on the desk');
        $at = fn (): int => $this->bench()
            ->outputs()
            ->side()
            ->inEffect->rungs()
            ->at($this->bench()->scene()->row($seat));
        self::assertSame(5, $at());
        $this->send('POST', 'rungs', ['keys' => "O$seat", 'rung' => 1]);
        self::assertSame(1, $at());
        $this->send('POST', 'rungs', ['keys' => "O$seat", 'rung' => 4]);
        self::assertSame(4, $at());
        $this->send('POST', 'pick', ['keys' => "O$seat", 'mode' => 'replace']);
        self::assertMatchesRegularExpression('~value="desk"\s+checked~', (string) $this->get($this->path('output'))->getContent());
    }

    public function test_what_is_locked_is_left_alone_and_siblings_shown_one_at_a_time_are_hidden(): void
    {
        $seat = $this->number('Seat_Shell_004');
        $this->send('POST', 'locks', ['keys' => "O$seat", 'lock' => 2]);
        $this->send('POST', 'output', ['keys' => "O$seat", 'output' => '0'])->assertSee('1 locked object was left alone.');
        foreach (['Oak', 'Slate'] as $name) {
            $this->send('POST', 'tags', ['name' => $name]);
        }
        $this->send('POST', 'folders', ['holds' => 'tags', 'name' => 'Schemes', 'around' => 'T1,T2']);
        $this->send('PATCH', 'rows/F1', ['one_at_a_time' => 1]);
        $this->send('POST', 'output', ['keys' => 'T2', 'output' => '5']);
        self::assertSame([Output::Hidden, Output::Full], [$this->bench()->tags()->get(1)->output, $this->bench()->tags()->get(2)->output]);
        $this->send('POST', 'undo');
        self::assertSame([null, null], [$this->bench()->tags()->get(1)->output, $this->bench()->tags()->get(2)->output]);
        $this->send('POST', 'output', ['keys' => 'F1', 'output' => 'never', 'note' => str_repeat('x', 301)])
            ->assertStatus(422)
            ->assertSee('at most 300');
        $this->send('POST', 'output', ['keys' => 'F1', 'output' => 'never', 'note' => 'drawn by others'])->assertOk();
        $dialog = (string) $this->get($this->path('output').'?keys=F1')
            ->assertSee('drawn by others')
            ->getContent();
        self::assertMatchesRegularExpression('~value="never"\s+checked~', $dialog);
    }

    public function test_what_differs_is_counted_picked_and_tinted(): void
    {
        [$seats, $lockers, $cafe] = array_map(fn (string $name): int => $this->layer($this->project, $name), [
            '51 Seats',
            '61 Lockers',
            '81 Cafe',
        ]);
        $this->send('POST', 'pick/differing', ['which' => 'all', 'mode' => 'replace'])
            ->assertStatus(422)
            ->assertSee('The desk and the picture show the same.');
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0]);
        $this->send('POST', 'output', ['keys' => "L$lockers", 'output' => '0']);
        $this->send('POST', 'rungs', ['keys' => "L$cafe", 'rung' => 2]);
        $of = fn (int $layer): int => $this->bench()->contents()->objectsWithNested($layer);
        foreach (['picture' => $of($seats), 'desk' => $of($lockers), 'other' => $of($cafe)] as $which => $count) {
            $this->send('POST', 'pick/differing', ['which' => $which, 'mode' => 'replace'])->assertSee(
                number_format($count).' objects picked.',
            );
            self::assertSame($count, $this->bench()->pick()->count());
        }
        $all = $of($seats) + $of($lockers) + $of($cafe);
        $this->send('POST', 'pick/differing', ['which' => 'all', 'mode' => 'replace'])->assertSee(number_format($all).' differ');
        self::assertSame($all, $this->bench()->pick()->count());
        $this->send('POST', 'tint', ['by' => 'output'])->assertOk();
        $entries = $this->getJson($this->path('tint'))->json('entries');
        self::assertSame(['Only on the desk', 'Only in the picture', 'Drawn otherwise', 'The same'], array_column($entries, 'label'));
    }

    public function test_why_answers_for_pictures_and_mends_in_every_picture_or_in_those_of_the_view(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $seat = $this->number('Seat_Shell_004');
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 2]);
        $this->send('POST', 'views', ['name' => 'Kept', 'keep_rungs' => 1]);
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 5]);
        $why = fn (string $side = 'output') => $this->get($this->path("why/$seat")."?side=$side");
        $why('desk')->assertSee('is drawn in full')->assertDontSee('in pictures because');
        $why()
            ->assertSee('is a ghost in pictures because view Kept keeps layer 51 Seats so')
            ->assertSee('Full in every picture')
            ->assertSee('Full in this view');
        $mend = fn (array $more) => $this->send(
            'POST',
            "why/$seat",
            ['side' => 'output', 'part' => 'rung', 'what' => 'layer', 'number' => $seats] + $more,
        );
        $mend(['only_in_view' => 1])->assertSee('In pictures of Kept full: 51 Seats.');
        self::assertNull($this->bench()->layers()->get($seats)->output, 'other views are as they were');
        $this->send('POST', 'output', ['keys' => "L$seats", 'output' => 'never', 'note' => 'by others']);
        $why()->assertSee('layer 51 Seats is never in pictures (by others)')->assertDontSee('Full in this view');
        $this->get($this->path("why?keys=L$seats&side=output"))
            ->assertSee('held below Full')
            ->assertSee('Full in every picture');
        $mend([])->assertSee('In pictures full: 51 Seats.');
        self::assertSame(Output::Full, $this->bench()->layers()->get($seats)->output);
        $this->send('POST', 'undo')->assertSee('Undone: In pictures full');
        $this->send('POST', "why?keys=L$seats", ['side' => 'output', 'part' => 'rung', 'what' => 'layer', 'number' => $seats])->assertOk();
        self::assertSame(Output::Full, $this->bench()->layers()->get($seats)->output);

        // Whoever may only look is told why, and mends nothing of the project's.
        $vera = $this->person('Vera Alder');
        $this->project->people()->attach($vera, ['role' => 'viewer']);
        $this->send('POST', 'output', ['keys' => "L$seats", 'output' => '0']);
        $this->actingAs($vera);
        $why()->assertSee('is set so for pictures')->assertDontSee('Full in every picture');
        $mend([])->assertNotFound();
        $this->send('POST', 'output', ['keys' => "L$seats", 'output' => '5'])->assertNotFound();
        $this->send('POST', 'shows', ['side' => 'output'])->assertOk();
    }

    public function test_the_canvas_and_what_is_picked_in_it_follow_the_side_that_is_shown(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0]);
        $shown = fn (): int => $this->bench()->shown()->inEffect->rungs()->histogram()[0] ?? 0;
        self::assertGreaterThan(0, $shown());
        $this->send('POST', 'shows', ['side' => 'output'])->assertSee('Back to the desk');
        self::assertSame(0, $shown());
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 1])->assertSee('You are looking at the output.');
        $this->send('POST', 'isolate', ['keys' => "L$seats"])->assertDontSee('Back to the desk');
        self::assertFalse($this->bench()->desk->shows_output, 'isolating shows on the desk');
    }

    /** @return array<int, int> objects by rung */
    private function desk(): array
    {
        return $this->bench()->inEffect()->rungs()->histogram();
    }

    /** @return array<int, int> objects by rung */
    private function pictures(): array
    {
        return array_filter(
            $this->bench()->outputs()->side()->inEffect->rungs()->histogram(),
            static fn (int $rung): bool => Rung::tryFrom($rung) !== null,
            ARRAY_FILTER_USE_KEY,
        );
    }
}
