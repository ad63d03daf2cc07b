<?php

declare(strict_types=1);

namespace Tests\Feature;

use PHPUnit\Framework\Attributes\TestWith;
use VineShelf\Output\Output;
use VineShelf\Rungs\Rung;

/** What a click on a rung mark does: it hides, and gives back; on the desk, in pictures and in views. */
final class RungMarksTest extends ProjectTestCase
{
    public function test_a_click_hides_and_the_next_gives_back_what_was_set_before(): void
    {
        $this->send('POST', 'tags', ['name' => 'Wet', 'keys' => 'O5,O6']);
        $rung = fn (): ?Rung => $this->bench()->settings()->layer(4);
        foreach ([[null, null], [2, Rung::Ghost], [5, Rung::Full]] as [$set, $back]) {
            if ($set !== null) {
                $this->send('POST', 'rungs', ['keys' => 'L4', 'rung' => $set]);
            }
            $this->send('POST', 'rungs', ['keys' => 'L4', 'rung' => 'hide'])->assertSee('12 Steel: Hidden.');
            self::assertSame(Rung::Hidden, $rung());
            $this->send('POST', 'rungs', ['keys' => 'L4', 'rung' => 'hide']);
            $this->send('POST', 'rungs', ['keys' => 'L4', 'rung' => 'back'])->assertSee('12 Steel: Shown again.');
            self::assertSame($back, $rung());
        }
        // One request for several, each its own; one step of the desk.
        $this->send('POST', 'rungs', ['keys' => 'L2,O12', 'rung' => 3]);
        $this->send('POST', 'rungs', ['keys' => 'L2,L3,O12,T1', 'rung' => 'hide']);
        $settings = $this->bench()->settings();
        self::assertSame([0, 0, 0, 0], [
            ...array_values(array_intersect_key($settings->layers, [2 => 0, 3 => 0])),
            $settings->object(12)?->value,
            $settings->tag(1)?->value,
        ]);
        $this->send('POST', 'rungs', ['keys' => 'L2,L3,O12,T1', 'rung' => 'back']);
        $settings = $this->bench()->settings();
        self::assertSame(
            [3, null, 3, null],
            [$settings->layer(2)?->value, $settings->layer(3)?->value, $settings->object(12)?->value, $settings->tag(1)?->value],
        );
        $this->send('POST', 'desk/undo');
        self::assertSame(Rung::Hidden, $this->bench()->settings()->layer(2));
        $this->send('POST', 'desk/redo');
        self::assertSame(Rung::Coarse, $this->bench()->settings()->layer(2));
    }

    public function test_what_a_view_or_the_whole_desk_hid_comes_back_as_it_was_as_well(): void
    {
        $this->send('POST', 'rungs', ['keys' => 'L4', 'rung' => 0]);
        $this->send('POST', 'views', ['name' => 'Without', 'keep_rungs' => 1], count: 0);
        $this->send('POST', 'rungs', ['keys' => 'L4', 'rung' => 1]);
        $this->send('POST', 'views/1/apply');
        self::assertSame(Rung::Hidden, $this->bench()->settings()->layer(4));
        $this->send('POST', 'rungs', ['keys' => 'L4', 'rung' => 'back']);
        self::assertSame(Rung::Box, $this->bench()->settings()->layer(4));
        $this->send('POST', 'pick', ['keys' => 'O12,O14', 'mode' => 'replace']);
        $this->send('POST', 'rungs', ['on' => 'pick', 'rung' => 2]);
        $this->send('POST', 'rungs', ['on' => 'pick', 'rung' => 'hide']);
        $this->send('POST', 'rungs', ['on' => 'pick', 'rung' => 'back'])->assertSee('2 objects: Shown again.');
        self::assertSame(Rung::Ghost, $this->bench()->settings()->object(14));
    }

    public function test_one_at_a_time_a_member_that_comes_back_hides_the_one_that_was_shown(): void
    {
        $this->send('POST', 'folders', ['name' => 'Schemes', 'holds' => 'tags']);
        $this->send('POST', 'tags', ['name' => 'Slate', 'folder' => 1, 'keys' => 'O5']);
        $this->send('POST', 'tags', ['name' => 'Steel', 'folder' => 1, 'keys' => 'O6']);
        $this->send('PATCH', 'rows/F1', ['one_at_a_time' => 1]);
        $this->send('POST', 'rungs', ['keys' => 'T1', 'rung' => 5]);
        $tags = fn (): array => [$this->bench()->settings()->tag(1)?->value, $this->bench()->settings()->tag(2)?->value];
        self::assertSame(0, $tags()[1]);
        // What was hidden when it began comes back as it was before: nothing set.
        $this->send('POST', 'rungs', ['keys' => 'T2', 'rung' => 'back']);
        self::assertSame([0, null], $tags());
        // Setting nothing shows nothing that was hidden, and hides nothing.
        $this->send('POST', 'rungs', ['keys' => 'T1', 'rung' => 'none']);
        self::assertSame([null, null], $tags());
        // Nor does giving back what is not hidden.
        foreach (['T1', 'T2', 'T1,T2'] as $keys) {
            $this->send('POST', 'rungs', ['keys' => $keys, 'rung' => 'back']);
            $this->send('POST', 'output', ['keys' => $keys, 'output' => 'back']);
        }
        $settings = $this->bench()->outputs()->settings();
        self::assertSame([[null, null], []], [$tags(), $settings->tags]);
        $this->send('POST', 'output', ['keys' => 'T1', 'output' => 'hide']);
        $this->send('POST', 'output', ['keys' => 'T1', 'output' => 'back']);
        self::assertSame([2 => Output::Hidden->value], $this->bench()->outputs()->settings()->tags);
    }

    public function test_pictures_are_hidden_and_given_back_as_one_change_each_for_rows_of_every_kind(): void
    {
        $this->send('POST', 'tags', ['name' => 'Wet', 'keys' => 'O5']);
        $this->send('POST', 'output', ['keys' => 'L4,O12', 'output' => '2']);
        $this->send('POST', 'output', ['keys' => 'O14', 'output' => 'never', 'note' => 'stands in']);
        $this->send('POST', 'output', ['keys' => 'O15', 'output' => 'desk']);
        $outputs = function (): array {
            $settings = $this->bench()->outputs()->settings();

            return array_map(
                static fn (?Output $output): ?string => $output?->word(),
                [
                    $settings->value('layer', 4),
                    $settings->value('tag', 1),
                    $settings->value('object', 12),
                    $settings->value('object', 13),
                    $settings->value('object', 14),
                    $settings->value('object', 15),
                ],
            );
        };
        $before = $outputs();
        self::assertSame(['2', null, '2', null, 'never', 'desk'], $before);
        $next = $this->project->refresh()->next_change;
        $this->send('POST', 'output', ['keys' => 'L4,T1,O12,O13,O14,O15', 'output' => 'hide'])->assertSee('In pictures hidden: ');
        self::assertSame(['0', '0', '0', '0', 'never', '0'], $outputs());
        self::assertSame($next + 1, $this->project->refresh()->next_change);
        // Somebody else gives it back: what it was is the project's, not one person's.
        $bea = $this->person('Bea Lind');
        $this->project->people()->attach($bea, ['role' => 'editor']);
        $this->actingAs($bea);
        $this->send('POST', 'output', ['keys' => 'L4,T1,O12,O13,O14,O15', 'output' => 'back'])->assertSee('Shown again in pictures');
        self::assertSame($before, $outputs());
        $this->send('POST', 'undo');
        self::assertSame(['0', '0', '0', '0', 'never', '0'], $outputs());
        $this->send('POST', 'output', ['keys' => 'O14', 'output' => 'hide'])->assertSee('It is so already.');
    }

    public function test_cells_of_views_give_back_what_the_view_kept(): void
    {
        foreach ([1, 2] as $number) {
            $this->send('POST', 'views', ['name' => "View $number", 'keep_rungs' => 1], count: 0);
        }
        $cells = fn (): array => array_map(
            fn (int $view): ?int => $this->project->views()->where('no', $view)->firstOrFail()->settings()->layer(4)?->value,
            [1, 2],
        );
        $this->send('POST', 'grid', ['keys' => 'L4', 'columns' => 'V1', 'rung' => 3]);
        $this->send('POST', 'grid', ['keys' => 'L4,L5', 'columns' => 'V1,V2', 'rung' => 'hide'])->assertSee('Hidden in 2 views: 2 layers.');
        self::assertSame([0, 0], $cells());
        $this->send('POST', 'ledger', ['views' => '[0,"",""]'])->assertSee('data-back="3"', false);
        $this->send('POST', 'grid', ['keys' => 'L4,L5', 'columns' => 'V1,V2', 'rung' => 'back'])->assertSee('Shown again in 2 views');
        self::assertSame([3, null], $cells());
        $this->send('POST', 'undo');
        $this->send('POST', 'undo');
        $this->send('POST', 'undo');
        self::assertSame([null, null], $cells());
        $this->send('POST', 'undo')->assertSee('Undone: Keep view View 2.');
    }

    public function test_only_this_and_all_again(): void
    {
        $this->send('POST', 'isolate', ['keys' => 'L4', 'turn' => 1])->assertSee('isolated');
        self::assertTrue($this->bench()->isolation()->isOn());
        $this->send('POST', 'isolate', ['keys' => 'O12', 'turn' => 1]);
        self::assertSame(2, $this->bench()->isolation()->depth());
        $this->send('POST', 'isolate', ['keys' => 'O12', 'turn' => 1])->assertSee('One step back.');
        $this->send('POST', 'isolate', ['keys' => 'L4', 'turn' => 1])->assertSee('Everything is back as it was.');
        self::assertFalse($this->bench()->isolation()->isOn());
    }

    #[TestWith(['rungs', 'rung', '6'])]
    #[TestWith(['rungs', 'rung', '-1'])]
    #[TestWith(['rungs', 'rung', 'HIDE'])]
    #[TestWith(['output', 'output', 'hidden'])]
    #[TestWith(['grid', 'rung', 'forth'])]
    public function test_other_words_are_refused(string $path, string $field, string $word): void
    {
        $this->json('POST', $this->path($path), ['keys' => 'L4', 'columns' => 'D', $field => $word])->assertStatus(422);
    }
}
