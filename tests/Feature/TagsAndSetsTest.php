<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Landing;
use App\Bench\Pins;
use Illuminate\Testing\TestResponse;

/** Tags, folders, sets and what is done with them, as the screens ask for it. */
final class TagsAndSetsTest extends ProjectTestCase
{
    public function test_the_card_shows_which_tags_none_some_or_all_have_and_a_click_changes_it_for_all(): void
    {
        $this->tag('North face', 'layer:Seats');
        $this->send('POST', 'pins', ['what' => 'T1', 'on' => 1])->assertSee('Pinned beside the slots.');
        $this->pick('layer:Lockers');
        $this->send('POST', 'pick', ['mode' => 'add'])->assertSee('is-none', false);
        $this->pick('layer:Seats or layer:Lockers')->assertSee('is-some', false);
        $toggle = fn (): TestResponse => $this->send('POST', 'tag', ['tag' => 1, 'mode' => 'toggle']);
        $toggle()->assertSee('is-all', false);
        self::assertSame(0, $this->counted('(layer:Seats or layer:Lockers) not tag:"North face"'));
        $toggle()->assertSee('is-none', false);
        self::assertSame(0, $this->counted('tag:"North face"'));
        $this->send('POST', 'undo')->assertSee('Undone: Take North face off');
        self::assertSame($this->counted('layer:Seats or layer:Lockers'), $this->counted('tag:"North face"'));
    }

    public function test_a_folder_gates_its_tags_without_forgetting_theirs_and_shows_members_one_at_a_time_in_one_step(): void
    {
        foreach (['Oak' => 'layer:"Finishes A"', 'Slate' => 'layer:"Finishes B"'] as $tag => $rule) {
            $this->tag($tag, $rule);
        }
        $this->send('POST', 'folders', ['holds' => 'tags', 'name' => 'Schemes', 'around' => 'T1,T2'])->assertSee('around 2 rows');
        $this->send('POST', 'rungs', ['keys' => 'T1', 'rung' => 3]);
        $this->send('POST', 'rungs', ['keys' => 'F1', 'rung' => 1]);
        $finishes = $this->counted('layer:"Finishes A" or layer:"Finishes B"');
        self::assertSame($finishes, $this->counted('is box (layer:"Finishes A" or layer:"Finishes B")'));
        $this->send('POST', 'rungs', ['keys' => 'F1', 'rung' => 5]);
        self::assertSame([3, null], [$this->bench()->settings()->tag(1)?->value, $this->bench()->settings()->tag(2)?->value]);

        // Of both that are shown the first stays, and the answer says so.
        $this->send('PATCH', 'rows/F1', ['one_at_a_time' => 1])
            ->assertOk()
            ->assertSee('Oak stays shown on your desk, the other is hidden.')
            ->assertSee('data-command="undo-both"', false);
        self::assertSame([3, 0], [$this->bench()->settings()->tag(1)?->value, $this->bench()->settings()->tag(2)?->value]);
        $this->send('POST', 'rungs', ['keys' => 'T1,T2', 'rung' => 4])->assertSee('One at a time: of them Oak stays.');
        $this->send('POST', 'desk/undo');
        $this->send('POST', 'rungs', ['keys' => 'T2', 'rung' => 5])->assertOk()->assertDontSee('One at a time');
        self::assertSame([0, 5], [$this->bench()->settings()->tag(1)?->value, $this->bench()->settings()->tag(2)?->value]);
        $this->send('POST', 'rungs/turn', ['row' => 'T2', 'way' => 1])->assertSee('Schemes: Oak.');
        self::assertSame([5, 0], [$this->bench()->settings()->tag(1)?->value, $this->bench()->settings()->tag(2)?->value]);
        // Each was one step of the desk.
        $this->send('POST', 'desk/undo');
        $this->send('POST', 'desk/undo');
        self::assertSame([3, 0], [$this->bench()->settings()->tag(1)?->value, $this->bench()->settings()->tag(2)?->value]);
        $this->send('POST', 'desk/undo');
        self::assertSame([3, null], [$this->bench()->settings()->tag(1)?->value, $this->bench()->settings()->tag(2)?->value]);
        // Where at most one is shown, it stays as it is.
        $this->send('POST', 'rungs', ['keys' => 'T1', 'rung' => 0]);
        $this->send('PATCH', 'rows/F1', ['one_at_a_time' => 0])->assertDontSee('stays shown');
        $this->send('PATCH', 'rows/F1', ['one_at_a_time' => 1])->assertDontSee('stays shown');
        $this->send('POST', 'rungs/turn', ['row' => 'L5'])->assertSee('is shown one at a time');
    }

    public function test_a_rule_is_put_together_by_clicks_with_the_count_after_each_and_kept_as_a_set_that_grows(): void
    {
        $this->tag('Client', 'layer:Seats');
        $words = '';
        foreach ([['layer=Cafe', 'and'], ['tag=Client', 'or'], ['kind:part', 'and'], ['material=oak', 'without']] as [$by, $way]) {
            $answer = $this->getJson(
                $this->path('find/narrow').'?'.http_build_query(['words' => $words, 'by' => $by, 'way' => $way]),
            )->json();
            $words = $answer['words'];
            self::assertSame($this->counted($words), $answer['count'], $words);
        }
        self::assertSame('(layer=Cafe or tag=Client) and kind:part and not material=oak', $words);
        $this->send('POST', 'sets', ['of' => 'rule', 'rule' => $words, 'name' => 'For the client'])->assertSee('Keep live set');
        $before = $this->counted('set:"For the client"');
        self::assertSame($this->counted($words), $before);
        $this->pick('layer:Lockers kind:part');
        $this->send('POST', 'tag', ['tag' => 1, 'mode' => 'add']);
        self::assertSame($before + $this->counted('layer:Lockers kind:part not material=oak'), $this->counted('set:"For the client"'));

        // A set of sets; one that would lead back is refused with the way.
        $this->send('POST', 'sets', ['of' => 'rule', 'rule' => 'set:"For the client" is shown', 'name' => 'Shown'])->assertOk();
        $this->send('PATCH', 'rows/E1', ['rule' => 'set:Shown or layer:Cafe'])
            ->assertStatus(422)
            ->assertSee('For the client → Shown → For the client');
        $this->send('DELETE', 'rows', ['keys' => 'E1'])->assertOk();
        self::assertSame(0, $this->counted('set:Shown'));
        $this->get($this->path('ledger').'?lens=sets&from=0&count=20')->assertSee('There is no set with “For the client”');
    }

    public function test_sets_are_joined_to_a_set_and_a_folder_of_sets_stands_for_any_of_them(): void
    {
        foreach (['Seats' => 'layer:Seats kind:part', 'Lockers' => 'layer:Lockers', 'Coats' => 'layer:Changing'] as $name => $rule) {
            $this->send('POST', 'sets', ['of' => 'rule', 'rule' => $rule, 'name' => $name])->assertOk();
        }
        $this->pick('layer:Cafe');
        $this->send('POST', 'sets', ['of' => 'pick', 'name' => 'Picked'])->assertOk();
        $rule = fn (int $set): ?string => $this->bench()->sets()->get($set)->rule;
        $rooms = $this->counted('layer:Lockers or layer:Changing');

        // A folder of sets is any of them, in rules, rows and words that are offered.
        $this->send('POST', 'folders', ['holds' => 'sets', 'name' => 'Rooms', 'around' => 'E2,E3'])->assertOk();
        self::assertSame($rooms, $this->counted('set:Rooms'));
        self::assertSame($this->counted('layer:Seats kind:part'), $this->counted('set:Seats not set:Rooms'));
        $this->get($this->path('ledger').'?lens=sets&from=0&count=20')->assertSee('data-condition="set=&quot;Rooms&quot;"', false);
        $this->send('PATCH', 'rows/F1', ['name' => 'Dry rooms'])->assertOk();
        self::assertSame($rooms, $this->counted('set="Dry rooms"'));
        $this->send('POST', 'folders', ['holds' => 'sets', 'name' => 'Empty'])->assertOk();
        self::assertSame(0, $this->counted('set:Empty'));
        self::assertSame([], $this->bench()->find('set:Empty')->remarks);

        // Joined to a live set by its rule, to a fixed one as they are now, or with it in a new one.
        $this->get($this->path('sets/1/join').'?keys=F1')
            ->assertOk()
            ->assertSee('widen Seats by it')
            ->assertSee('layer:Seats and kind:part or set="Dry rooms"')
            ->assertDontSee('list what');
        $this->send('POST', 'sets/1/join', ['keys' => 'F1', 'way' => 'or'])->assertSee('New rule for set Seats.');
        self::assertSame(
            $this->counted('(layer:Seats kind:part) or layer:Lockers or layer:Changing'),
            $this->counted('set=Seats'),
            (string) $rule(1),
        );
        $this->send('POST', 'sets/2/join', ['keys' => 'E4', 'way' => 'without'])->assertOk();
        self::assertSame('layer:Lockers and not set="Picked"', $rule(2));
        $this->send('POST', 'undo')->assertSee('Undone: New rule for set Lockers.');
        $this->send('POST', 'sets/2/join', ['keys' => 'E4,E3', 'way' => 'and'])->assertOk();
        self::assertSame('layer:Lockers and (set="Picked" or set="Coats")', $rule(2));
        $this->send('POST', 'undo');
        $cafe = $this->counted('set=Picked');
        $this->get($this->path('sets/4/join').'?keys=E2')->assertSee('list what Lockers holds now in Picked')->assertDontSee('widen');
        $this->send('POST', 'sets/4/join', ['keys' => 'E2', 'way' => 'listed'])->assertSee('Set Picked: add');
        self::assertSame($cafe + $this->counted('layer:Lockers'), $this->counted('set=Picked'));
        $this->send('POST', 'sets/4/join', ['keys' => 'E2,E3', 'way' => 'new', 'name' => 'All of it'])
            ->assertSee('Keep live set All of it.');
        self::assertSame('set="Picked" or set="Lockers" or set="Coats"', $rule(5));

        // What would lead back is refused, whichever way it would come about: by rule, by moving, by name, by taking back.
        $back = 'A set would lead back to itself';
        $this->send('POST', 'sets/2/join', ['keys' => 'E1', 'way' => 'or'])->assertStatus(422)->assertSee('lead back to itself');
        $this->send('POST', 'rows/move', ['keys' => 'E1', 'where' => 'into', 'mark' => 'F1'])->assertStatus(422)->assertSee($back);
        $this->send('POST', 'folders', ['holds' => 'sets', 'name' => 'Around', 'around' => 'E1'])->assertOk();
        $this->send('PATCH', 'rows/F3', ['name' => 'dry rooms'])->assertStatus(422);
        $this->send('POST', 'rows/move', ['keys' => 'F3', 'where' => 'into', 'mark' => 'F1'])->assertStatus(422)->assertSee($back);
        $this->send('PATCH', 'rows/E1', ['rule' => 'layer:Seats'])->assertOk();
        $this->send('POST', 'rows/move', ['keys' => 'F3', 'where' => 'into', 'mark' => 'F1'])->assertOk();
        $this->send('POST', 'undo', ['change' => $this->project->changes()->where('name', 'New rule for set Seats')->max('no')])
            ->assertDontSee('Undone: New rule');

        // Nothing that is no set is joined, nor a set to itself, nor in a way that it has not.
        foreach (
            [
                ['sets/1/join', ['keys' => 'L5', 'way' => 'or']],
                ['sets/1/join', ['keys' => 'E1', 'way' => 'or']],
                ['sets/1/join', ['keys' => '', 'way' => 'or']],
                ['sets/1/join', ['keys' => 'E4', 'way' => 'listed']],
                ['sets/4/join', ['keys' => 'E1', 'way' => 'or']],
                ['sets/4/join', ['keys' => 'E1', 'way' => 'new', 'name' => '']],
                ['sets/99/join', ['keys' => 'E1', 'way' => 'new']],
            ] as [$path, $values]
        ) {
            $this->send('POST', $path, $values)->assertStatus(422);
        }
    }

    public function test_forty_objects_come_to_three_tags_and_a_set_in_one_change(): void
    {
        foreach (['One', 'Two', 'Three'] as $tag) {
            $this->send('POST', 'tags', ['name' => $tag]);
        }
        $this->send('POST', 'sets', ['of' => 'nothing', 'name' => 'Kept']);
        $forty = array_slice($this->found('layer:Seats kind:part'), 20, 40);
        $keys = implode(',', array_map(static fn (int $number): string => "O$number", $forty));
        $this->send('POST', 'memberships', ['keys' => $keys, 'columns' => 'T1,T2,T3,E1', 'on' => 1])->assertSee('4 tags and sets');
        foreach (['tag:One', 'tag:Two', 'tag:Three', 'set:Kept'] as $rule) {
            self::assertSame($forty, $this->found($rule));
        }
        $this->send('POST', 'undo');
        self::assertSame(0, $this->counted('is tagged or set:Kept'));
        // Ranges are meant as the rows stand.
        $this->send('POST', 'ledger', ['lens' => 'objects', 'sort' => 'triangles', 'down' => 1]);
        $this->call('POST', $this->path('memberships'), [
            'lens' => 'objects',
            'from' => 0,
            'count' => 60,
            'span' => '3-7',
            'columns' => 'T2',
            'on' => 1,
        ])->assertOk();
        $heaviest = $this->project->objects()->orderByDesc('triangles')->orderBy('no')->limit(8)->pluck('no')->all();
        self::assertEqualsCanonicalizing(array_slice($heaviest, 3), $this->found('tag:Two'));
        $this->send('POST', 'sets', ['of' => 'rule', 'rule' => 'kind:part', 'name' => 'Live']);
        $this->send('POST', 'memberships', ['keys' => 'O9', 'columns' => 'E2', 'on' => 1])->assertSee('is a live set');
        $this->send('POST', 'memberships', ['keys' => 'O9', 'columns' => 'T9', 'on' => 1])->assertSee('no longer there');
    }

    public function test_why_of_a_row_counts_what_each_cause_holds_and_mends_it(): void
    {
        $this->tag('Wet', 'layer:Water or layer:Seats');
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0]);
        $hidden = $this->counted('tag:Wet is hidden');
        $this->get($this->path('why?keys=T1'))->assertOk()->assertSee(number_format($hidden));
        $this->send('POST', 'why?keys=T1', ['what' => 'layer', 'number' => $seats, 'part' => 'rung'])->assertOk();
        self::assertSame(0, $this->counted('tag:Wet is hidden'));
        $this->send('POST', 'why?keys=T1', ['what' => 'layer', 'number' => $seats, 'part' => 'rung'])->assertSee('any more');
        $this->send('POST', 'locks', ['keys' => "L$seats", 'lock' => 2]);
        $this->send('POST', 'why?keys=T1', ['what' => 'layer', 'number' => $seats, 'part' => 'lock'])->assertOk();
        self::assertSame(0, $this->counted('is locked'));
    }

    public function test_what_is_here_names_what_cannot_be_seen_and_by_what(): void
    {
        $this->send('POST', 'rungs', [
            'keys' => 'L'.$this->layer($this->project, '20 Roof').',L'.$this->layer($this->project, '21 Roof skin'),
            'rung' => 0,
        ]);
        $region = json_encode([
            'shape' => 'rectangle',
            'inside' => false,
            'points' => [[250, 290], [300, 350]],
            'width' => 780,
            'height' => 644,
            'eye' => [0, 0, 90],
            'target' => [0, 0.1, 0],
            'up' => [0, 0, 1],
            'fov' => 40,
            'near' => 0.05,
        ]);
        $html = (string) $this->post($this->path('here'), ['region' => $region])
            ->assertOk()
            ->getContent();
        self::assertMatchesRegularExpression('~\d+ objects are here~', $html);
        self::assertStringContainsString('Roof', $html);
        self::assertStringContainsString('8 hidden, 0 guarded or locked', (string) preg_replace('~\s+~', ' ', $html));
        self::assertStringContainsString('is hidden because layer 21 Roof skin is', $html);
    }

    public function test_details_say_what_is_shared_and_take_what_people_add(): void
    {
        $this->pick('layer:Seats kind:part');
        $seats = $this->counted('layer:Seats kind:part');
        $this->get($this->path('details'))->assertOk()->assertSee('51 Seats')->assertSee('values');
        $this->send('POST', 'own', ['property' => 'fire', 'value' => 'F30'])->assertSee("Set fire to F30 on $seats objects");
        self::assertSame($seats, $this->counted('fire:F30'));
        $this->send('POST', 'sets', ['of' => 'rule', 'rule' => 'fire:F90', 'name' => 'Ninety'])->assertOk();
        self::assertSame(0, $this->counted('set:Ninety'));
        $this->send('POST', 'own', ['property' => 'Fire', 'value' => 'F90', 'keys' => 'O'.$this->number('Seat_Shell_001')])->assertOk();
        self::assertSame([1, 1, $seats - 1], [$this->counted('fire:F90'), $this->counted('set:Ninety'), $this->counted('fire:F30')]);
        $this->get($this->path('details'))->assertSee('2 values');
        $this->send('POST', 'own', ['property' => 'layer', 'value' => 'x'])->assertStatus(422);
        foreach (['Set fire to F90 on 1 object', 'Keep live set Ninety', "Set fire to F30 on $seats objects"] as $change) {
            $this->send('POST', 'undo')->assertSee("Undone: $change.");
        }
        self::assertSame(0, $this->counted('has fire'));
        $this->send('POST', 'pick', ['mode' => 'replace']);
        $this->get($this->path('details'))->assertOk();
    }

    public function test_landing_unseen_is_said_deleting_it_asks_and_new_layers_may_take_it_over(): void
    {
        $this->send('POST', 'layers', ['name' => 'Arrivals']);
        $arrivals = $this->layer($this->project, 'Arrivals');
        $this->send('POST', 'landing', ['layer' => $arrivals])->assertSee('New objects land in Arrivals.');
        $this->send('POST', 'rungs', ['keys' => "L$arrivals", 'rung' => 0])->assertSee('New objects will land unseen in Arrivals');
        $this->send('POST', 'locks', ['keys' => "L$arrivals", 'lock' => 2])->assertSee('will land unseen and locked in Arrivals');
        $this->send('POST', 'locks', ['keys' => "L$arrivals", 'lock' => 0]);
        $this->get($this->path("layers/$arrivals/delete"))->assertSee('New objects land in');
        $this->send('DELETE', "layers/$arrivals", ['target' => 1, 'landing' => $arrivals])->assertStatus(422);
        $roof = $this->layer($this->project, '20 Roof');
        $this->send('DELETE', "layers/$arrivals", ['target' => 1, 'landing' => $roof])->assertOk();
        self::assertSame([$roof, ''], [Landing::of($this->bench())->layer->number, Landing::of($this->bench())->asWhat]);

        $this->send('POST', 'landing', ['layer' => $roof, 'asked' => 1, 'in_new' => 1]);
        $this->send('POST', 'layers', ['name' => 'Newest']);
        self::assertSame('Newest', Landing::of($this->bench())->layer->name);
        $this->send('POST', 'undo');
        self::assertSame('Unsorted', Landing::of($this->bench())->layer->name, 'what is gone takes nothing in');
    }

    public function test_pins_keep_their_order_and_what_is_gone_makes_room(): void
    {
        $this->tag('Wet', 'layer:Water');
        foreach (['T1', 'rule:kind:part width > 2m', 'T1'] as $what) {
            $this->send('POST', 'pins', ['what' => $what, 'on' => 1])->assertOk();
        }
        self::assertSame(['T1', 'rule:kind:part width > 2m'], array_column(Pins::of($this->bench()), 'what'));
        foreach (
            [
                'T9' => 'no longer there',
                'L1' => 'Tags, sets and rules',
                'rule:' => 'empty',
                'rule:width >' => 'number',
                'x' => 'no longer',
            ] as $what => $said
        ) {
            $this->send('POST', 'pins', ['what' => $what, 'on' => 1])
                ->assertStatus(422)
                ->assertSee($said);
        }
        for ($n = 1; $n <= 10; $n++) {
            $this->send('POST', 'pins', ['what' => "rule:width > {$n}m", 'on' => 1])->assertOk();
        }
        $this->send('POST', 'pins', ['what' => 'rule:height > 1m', 'on' => 1])
            ->assertStatus(422)
            ->assertSee('room for 12 pins');
        $this->send('DELETE', 'rows', ['keys' => 'T1'])->assertOk();
        $this->send('POST', 'pins', ['what' => 'rule:height > 1m', 'on' => 1])->assertOk();
        $this->send('POST', 'pins', ['what' => 'rule:width > 3m', 'on' => 0])->assertOk();
        self::assertCount(11, Pins::of($this->bench()));
    }

    public function test_rows_say_in_which_slots_they_are_parked(): void
    {
        $this->tag('Seats', 'layer:Seats');
        $this->pick('layer:Seats');
        $this->send('POST', 'parked/4');
        $this->get($this->path('ledger').'?lens=tags&from=0&count=9')->assertSee('Parked in slot 4');
        $this->get($this->path('ledger').'?lens=objects&from=0&count=9&words=Seat_Shell_001')->assertSee('Parked in slot 4');
        $this->send('POST', 'tag', ['tag' => 1, 'mode' => 'remove', 'keys' => 'O'.$this->number('Seat_Shell_001')]);
        $this->get($this->path('ledger').'?lens=tags&from=0&count=9')->assertDontSee('Parked in slot 4');
    }

    public function test_views_stand_in_folders_and_come_out_of_them(): void
    {
        foreach (['One', 'Two', 'Three'] as $name) {
            $this->send('POST', 'views', ['name' => $name, 'keep_rungs' => 1])->assertOk();
        }
        $this->send('POST', 'folders', ['holds' => 'views', 'name' => 'Client', 'around' => 'V1,V3'])->assertSee(
            'Create folder Client around 2 rows',
        );
        self::assertSame(['Client', ' One', ' Three', 'Two'], $this->shelf());
        $this->send('POST', 'rows/move', ['keys' => 'V2', 'where' => 'after', 'mark' => 'V1'])->assertOk();
        self::assertSame(['Client', ' One', ' Two', ' Three'], $this->shelf());
        $this->send('POST', 'folders', ['holds' => 'views', 'name' => 'Inner', 'parent' => 1])->assertOk();
        $this->send('POST', 'rows/move', ['keys' => 'V3', 'where' => 'into', 'mark' => 'F2'])->assertOk();
        $this->send('POST', 'rows/move', ['keys' => 'F1', 'where' => 'into', 'mark' => 'F2'])->assertStatus(422);
        self::assertSame(['Client', ' One', ' Two', ' Inner', '  Three'], $this->shelf());
        $this->send('POST', 'views/3/apply')->assertOk();
        $this->send('DELETE', 'rows', ['keys' => 'F1', 'with_content' => 0])->assertOk();
        self::assertSame(['One', 'Two', 'Inner', ' Three'], $this->shelf());
        $this->send('DELETE', 'rows', ['keys' => 'F2', 'with_content' => 1])->assertOk();
        self::assertSame(['One', 'Two'], $this->shelf());
        for ($step = 0; $step < 6; $step++) {
            $this->send('POST', 'undo')->assertOk();
        }
        self::assertSame(['One', 'Two', 'Three'], $this->shelf());
        $this->get($this->path('rows/V1/note'))->assertOk();
        $this->send('PATCH', 'rows/V1', ['note' => 'For the client.'])->assertSee('Note on view One.');
        self::assertSame('For the client.', $this->project->views()->where('no', 1)->value('note'));
    }

    public function test_a_move_is_not_done_again_when_it_would_put_a_layer_into_itself(): void
    {
        $bea = $this->person('Bea Lind');
        $this->project->people()->attach($bea, ['role' => 'editor']);
        [$roof, $site] = [$this->layer($this->project, '20 Roof'), $this->layer($this->project, '90 Site')];
        $move = fn (int $layer, int $into): TestResponse => $this->send('POST', 'rows/move', [
            'keys' => "L$layer",
            'where' => 'into',
            'mark' => "L$into",
        ]);
        $move($roof, $site)->assertOk();
        $this->send('POST', 'undo')->assertSee('Undone');
        $this->actingAs($bea);
        $move($site, $roof)->assertOk();
        $this->actingAs($this->ida);
        $this->send('POST', 'redo')->assertSee('The order of the layers');
        $layers = $this->bench()->layers();
        self::assertSame([0, $roof], [$layers->get($roof)->parent, $layers->get($site)->parent]);
    }

    public function test_a_folder_around_a_row_and_what_it_lies_in_goes_around_that(): void
    {
        $this->tag('Oak', 'layer:Cafe');
        $this->send('POST', 'folders', ['holds' => 'tags', 'name' => 'Inner', 'around' => 'T1'])->assertOk();
        $this->send('POST', 'folders', ['holds' => 'tags', 'name' => 'Outer', 'around' => 'T1,F1'])->assertOk();
        $tags = $this->bench()->tags();
        self::assertSame([0, 2, 1], [$tags->folder(2)->parent, $tags->folder(1)->parent, $tags->get(1)->folder]);
    }

    /** @return list<string> names on the shelf, what lies in a folder indented */
    private function shelf(): array
    {
        return array_map(
            static fn (array $entry): string => str_repeat(' ', count($entry[1])).$entry[0]->name,
            $this->bench()->shelf()->walk(),
        );
    }

    private function tag(string $name, string $rule): void
    {
        $this->pick($rule);
        $this->send('POST', 'tags', ['name' => $name, 'from_pick' => 1])->assertOk();
    }

    private function pick(string $rule): TestResponse
    {
        return $this->send('POST', 'pick', ['mode' => 'replace', 'found' => 1, 'words' => $rule, 'lens' => 'objects'])->assertOk();
    }

    private function counted(string $rule): int
    {
        return $this->bench()->find($rule)->rows?->count() ?? -1;
    }

    /** @return list<int> object numbers, ascending */
    private function found(string $rule): array
    {
        $scene = $this->bench()->scene();
        $numbers = array_map($scene->number(...), $this->bench()->find($rule)->rows?->rows() ?? []);
        sort($numbers);

        return $numbers;
    }
}
