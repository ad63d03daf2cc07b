<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Changes\Lowered;
use App\Models\View;
use App\Presenting\Presentation;
use VineShelf\Rungs\Rung;

/** Pictures contain what is meant: of what a view keeps, what was hidden or ghosted, and not what was only thinned to work. */
final class MeantForPicturesTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    public function test_what_is_hidden_or_ghosted_is_meant_and_what_is_thinned_to_work_is_not_unless_it_is_turned(): void
    {
        $this->lower();
        $this->get($this->path('views/new'))
            ->assertSeeInOrder(['Hidden', '20 Roof', 'Box', '51 Seats', 'Ghost', '12 Steel', 'Plain', '1 object'])
            ->assertSee('name="meant_L16"', false);
        $this->keep('As proposed');
        self::assertSame(['0', '2', '5', '5'], $this->pictured(1));
        self::assertSame([0, 2, 1, 4], $this->kept(1));
        // Applied, the desk gets all of it.
        $this->send('POST', 'rungs/whole', ['act' => 'full']);
        $this->send('POST', 'views/1/apply');
        self::assertSame(Rung::Box, $this->bench()->settings()->layer(16));
        // Turned, each on its own; what was chosen last is remembered for what is lowered alike.
        $this->keep('Turned', ['meant_L5' => 0, 'meant_L16' => 1]);
        self::assertSame(['5', '2', '1', '5'], $this->pictured(2));
        $this->keep('As turned');
        self::assertSame(['5', '2', '1', '5'], $this->pictured(3));
    }

    public function test_it_can_be_said_later_and_cells_that_are_set_by_hand_are_meant(): void
    {
        $this->lower();
        $this->keep('View 1');
        $this->get($this->path('views/1/meant'))->assertSee('What pictures of View 1 take over')->assertSee('51 Seats');
        $this->send('POST', 'views/1/meant', ['meant_L16' => 1, 'meant_L5' => 0])->assertSee('What pictures of View 1 take over.');
        self::assertSame(['5', '2', '1', '5'], $this->pictured(1));
        self::assertSame([0, 2, 1, 4], $this->kept(1), 'what the desk gets stays');
        $this->send('POST', 'undo');
        self::assertSame(['0', '2', '5', '5'], $this->pictured(1));
        $this->send('POST', 'grid', ['keys' => 'L16', 'columns' => 'V1', 'rung' => 1]);
        self::assertSame(['0', '2', '1', '5'], $this->pictured(1));
        $this->send('POST', 'grid', ['keys' => 'L16,L5', 'columns' => 'V1', 'rung' => 'hide']);
        $this->send('POST', 'grid', ['keys' => 'L16,L5', 'columns' => 'V1', 'rung' => 'back']);
        self::assertSame(['5', '2', '1', '5'], $this->pictured(1));
        // Updating asks again, and knows what is asked for.
        $this->get($this->path('views/1/update'))->assertSee('name="meant_L16"', false);
        $this->send('PATCH', 'views/1', ['meant_L16' => 0]);
        self::assertSame(['0', '2', '5', '5'], $this->pictured(1));
        $this->send('POST', 'views/duplicate', ['keys' => 'V1']);
        self::assertSame(['0', '2', '5', '5'], $this->pictured(2));
        $this->send('POST', 'views/facets', ['keys' => 'V2', 'rungs' => 'leave', 'tint' => 'keep']);
        $this->send('POST', 'views/9/meant', [])->assertSee('no longer there');
    }

    public function test_a_view_without_a_word_means_all_and_scripts_choose(): void
    {
        $this->lower();
        $person = '--person='.$this->ida->email;
        $this->artisan("shelf:view {$this->project->key} keep All --pictures=all $person")->assertExitCode(0);
        self::assertSame(['0', '2', '1', '4'], $this->pictured(1));
        $this->artisan("shelf:view {$this->project->key} keep Some --pictures=meant $person")->assertExitCode(0);
        self::assertSame(['0', '2', '5', '5'], $this->pictured(2));
        $this->artisan("shelf:view {$this->project->key} update Some --pictures=all $person")->assertExitCode(0);
        self::assertSame(['0', '2', '1', '4'], $this->pictured(2));
        $this->artisan("shelf:view {$this->project->key} keep Other --pictures=some $person")->assertExitCode(2);
        // Kept before anybody could say: all of it.
        View::query()->where('no', 1)->update(['meant' => null]);
        self::assertSame(['0', '2', '1', '4'], $this->pictured(1));
    }

    public function test_what_lighten_has_set_is_only_to_work_for_as_long_as_it_is_in_force(): void
    {
        $lightening = \App\Models\Lightening::query()->create([
            'key' => 'lightened',
            'project_id' => $this->project->id,
            'user_id' => $this->ida->id,
            'wanted' => ['side' => 'desk'],
            'state' => 'done',
        ]);
        $numbers = fn (): \VineShelf\Scene\Bits => \VineShelf\Scene\Bits::ofRows(30, [12, 14, 15]);
        $did = new \VineShelf\Rungs\Settings([], [0 => $numbers()]);
        \App\Workbench\DeskSteps::take($this->bench(), 'Lighten', static fn ($desk) => $did->over($desk));
        $lightening->did($did, ['layers' => [], 'objects' => []]);
        $this->send('POST', 'rungs', ['keys' => 'O16,O14', 'rung' => 0]);
        $lines = [];
        foreach (Lowered::onDesk($this->bench())->lines as $line) {
            $lines[$line->id] = [$line->what(), $line->isMeant];
        }
        self::assertSame(['O0' => ['1 object', true], 'W0' => ['3 objects by Lighten', false]], $lines);
        $this->keep('Light');
        $outputs = $this->bench()->outputs()->of($this->keptView(1));
        self::assertSame(
            [5, 5, 5, 0],
            array_map(fn (int $number): int => $outputs->inEffect->rungs()->at($this->bench()->scene()->row($number)), [12, 14, 15, 16]),
        );
        $lightening->update(['given_back_at' => now()]);
        self::assertSame(['O0'], array_map(static fn ($line): string => $line->id, Lowered::onDesk($this->bench())->lines));
    }

    public function test_the_card_says_how_much_more_pictures_show_and_a_picture_what_it_leaves_out(): void
    {
        $this->send('POST', 'rungs', ['keys' => 'L16,L5', 'rung' => 0]);
        $this->keep('Work', ['meant_L16' => 0]);
        $seats = $this->project->objects()->where('layer_no', 16)->count();
        $roof = $this->project->objects()->where('layer_no', 5)->count();
        $this->get($this->path(''))->assertSee("Pictures of it show $seats objects that the desk hides", false);
        $still = $this->getJson($this->path('stills/1?of=output'))->json('leaves');
        $all = number_format($this->bench()->scene()->count());
        self::assertSame("It leaves out $roof of the model's $all objects.", $still['says'] ?? null);
        self::assertSame([['20 Roof', $roof]], $still['layers'] ?? null);
        $still = $this->getJson($this->path('stills/1?of=desk'))->json('leaves');
        self::assertCount(2, $still['layers'] ?? []);
        $this->send('POST', 'output', ['keys' => 'L5', 'output' => '5']);
        $says = $this->getJson($this->path('stills/1?of=output'))->json('leaves.says');
        self::assertSame("It leaves out nothing: all $all objects are in it.", $says);
    }

    public function test_a_presentation_begins_with_what_is_meant_and_of_no_desk_for_guests(): void
    {
        $this->lower();
        $this->keep('First');
        $this->send('POST', 'output', ['keys' => 'L5', 'output' => 'desk']);
        // What follows the desk is as if nothing were set: whoever made the link has it hidden.
        $page = $this->getJson($this->path('walk/all/steps/0'))->json('states');
        $kept = $this->getJson($this->path('walk/desk,all/steps/0'))->json('states');
        self::assertNotSame($page, $kept);
        $shown = new Presentation($this->bench(), [1], asPictures: true);
        $rungs = $shown->at(0)->shown()->inEffect->rungs();
        $of = fn (int $layer): int => $rungs->at(
            $this->bench()->scene()->row((int) $this->project->objects()->where('layer_no', $layer)->orderByDesc('no')->value('no')),
        );
        self::assertSame([5, 2, 5], [$of(5), $of(4), $of(16)]);
        $this->send('POST', 'share-links', ['keys' => 'V1', 'name' => 'For the client', 'ends' => now()->addDays(3)->toDateString()]);
        $this->send('POST', 'share-links', ['keys' => 'V1', 'name' => 'Kept', 'ends' => now()->addDays(3)->toDateString(), 'as_kept' => 1]);
        self::assertSame([true, false], \App\Models\ShareLink::query()->orderBy('id')->pluck('as_pictures')->all());
        $this->getJson($this->path('walk/desk,V9'))->assertStatus(422);
    }

    /** Roof hidden, steel ghosts, seats boxes, one object plain. */
    private function lower(): void
    {
        foreach ([['L5', 0], ['L4', 2], ['L16', 1], ['O12', 4]] as [$keys, $rung]) {
            $this->send('POST', 'rungs', ['keys' => $keys, 'rung' => $rung]);
        }
    }

    /** @param array<string, int> $meant */
    private function keep(string $name, array $meant = []): void
    {
        $this->send('POST', 'views', ['name' => $name, 'keep_rungs' => 1, ...$meant], count: 0)->assertOk();
    }

    private function keptView(int $number): View
    {
        return $this->project->views()->where('no', $number)->firstOrFail();
    }

    /** @return list<int|null> what the view keeps of roof, steel, seats and one object */
    private function kept(int $number): array
    {
        $kept = $this->keptView($number)->settings();

        return [$kept->layer(5)?->value, $kept->layer(4)?->value, $kept->layer(16)?->value, $kept->object(12)?->value];
    }

    /** @return list<string> rungs of them in pictures of a view, as they are set there */
    private function pictured(int $number): array
    {
        $settings = $this->bench()->outputs()->of($this->keptView($number))->settings;

        return array_map(
            static fn (?Rung $rung): string => (string) ($rung->value ?? 5),
            [$settings->layer(5), $settings->layer(4), $settings->layer(16), $settings->object(12)],
        );
    }
}
