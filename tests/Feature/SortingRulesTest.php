<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Jobs\SortWhatCame;
use App\Models\Change;
use App\SortingRules\StoredLine;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Queue;
use VineShelf\Exchange\SortingLine;
use VineShelf\Exchange\SortingRules;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/** The list of rules by which a project is sorted, as the screens ask for it. */
final class SortingRulesTest extends ProjectTestCase
{
    public function test_a_list_is_written_tried_run_and_taken_back(): void
    {
        $seats = $this->held('seat*');
        $this->add(['rule' => 'seat*', 'layer' => 'Stands / All seats', 'tags' => 'Phases / First; Loose'])->assertSee(
            'Add the sorting rule seat*.',
        );
        $this->add(['rule' => 'class:Pump', 'layer' => 'Plant room', 'name' => '{layer} {number}', 'goes_on' => 1]);
        $this->add(['rule' => 'kind:part seat', 'tags' => 'Wooden', 'only' => 1]);
        $screen = $this->get($this->path('sorting-rules'))->assertOk();
        $screen->assertSee('Stands / All seats')->assertSee('Phases / First')->assertSee('{layer} {number}');
        $screen->assertSee(number_format($seats->count()).'</button', false);
        self::assertSame(0, $this->rows('layer:"All seats"')->count(), 'nothing is sorted by writing rules');
        $before = $this->sorting();
        $this->send('POST', 'sorting-rules/pick', ['what' => 'taken', 'line' => 1, 'mode' => 'replace'])->assertOk();
        self::assertSame($seats->rows(), $this->bench()->pickedBits()->rows());

        $this->send('POST', 'sorting-rules/run')->assertSee('by rules.')->assertSee('Undo');
        self::assertSame($seats->rows(), $this->rows('layer="All seats"')->rows());
        self::assertSame($seats->rows(), $this->rows('tag=First tag=Loose')->rows());
        $pumps = $this->rows('layer="Plant room"');
        self::assertGreaterThan(0, $pumps->count());
        $names = DB::table('objects')->where('project_id', $this->project->id)->where('name', 'like', 'Plant room %')->pluck('name')->all();
        $numbered = array_map(static fn (int $at): string => 'Plant room '.($at + 1), range(0, $pumps->count() - 1));
        sort($names);
        sort($numbered);
        self::assertSame($numbered, $names);
        // Seats stopped at the first rule.
        self::assertSame(0, $this->rows('tag=Wooden')->count());
        $this->send('POST', 'sorting-rules/run')->assertSee('All of it is sorted so already.');
        $this->assertIndexTrue($this->project);

        $sorted = $this->sorting();
        $this->send('POST', 'undo')->assertSee('Undone: Sort');
        self::assertSame($before, $this->sorting());
        $this->send('POST', 'redo')->assertOk();
        self::assertSame($sorted, $this->sorting());
        $this->assertIndexTrue($this->project);
    }

    public function test_layers_and_tags_that_rules_name_come_with_the_sorting_and_go_when_it_is_taken_back(): void
    {
        $count = fn (): array => [$this->project->layers()->count(), DB::table('tags')->where('project_id', $this->project->id)->count()];
        $layer = fn (): array => array_map(static fn (StoredLine $line): int => $line->layer, StoredLine::all($this->project));
        $before = $count();
        $this->add(['rule' => 'seat*', 'layer' => 'Rows / All seats', 'tags' => 'Phases / First']);
        $this->add(['rule' => 'kind:part seat', 'layer' => 'rows / all seats', 'goes_on' => 1]);
        $this->add(['rule' => 'name=nothing-is-called-so', 'layer' => 'Never', 'tags' => 'Not at all; Phases / First']);
        self::assertSame([$before, [0, 0, 0]], [$count(), $layer()], 'they come before anything goes there');
        $this->get($this->path('sorting-rules'))->assertSee('Rows / All seats')->assertSee('>new</span>', false);

        $this->send('POST', 'sorting-rules/run')->assertSee('by rules.');
        $made = (int) $this->project->layers()->where('name', 'All seats')->value('no');
        self::assertSame([[$before[0] + 2, $before[1] + 1], [$made, $made, 0]], [$count(), $layer()]);
        // The rule goes on to the same layer, whatever it is called.
        $this->send('PATCH', "rows/L$made", ['name' => 'Chairs']);
        $this->send('POST', 'sorting-rules/run')->assertSee('All of it is sorted so already.');
        $this->send('POST', 'undo')->assertSee('Rename');
        $this->send('POST', 'undo')->assertSee('Undone: Sort');
        self::assertSame([$before, [0, 0, 0]], [$count(), $layer()]);
        $this->send('POST', 'redo')->assertSee('Sort');
        self::assertSame([[$before[0] + 2, $before[1] + 1], [$made, $made, 0]], [$count(), $layer()]);
        $this->send('POST', 'undo');

        // What somebody made meanwhile is taken, in any case of letters.
        $this->send('POST', 'layers', ['name' => 'ROWS']);
        $this->send('POST', 'sorting-rules/run')->assertSee('by rules.');
        self::assertSame(1, $this->project->layers()->whereIn('name', ['ROWS', 'Rows'])->count());
        self::assertSame($this->held('seat*')->rows(), $this->rows('layer="All seats" tag=First')->rows());
        $this->assertIndexTrue($this->project);
        $again = SortingRules::read((string) $this->get($this->path('sorting-rules/file'))->getContent());
        self::assertSame([['ROWS', 'All seats'], ['ROWS', 'All seats'], ['Never']], array_column($again->lines, 'layer'));
    }

    public function test_lines_move_are_turned_off_duplicated_changed_and_deleted_and_each_is_taken_back(): void
    {
        foreach (['seat*', 'pump*', 'roof*'] as $rule) {
            $this->add(['rule' => $rule, 'layer' => 'Sorted']);
        }
        $steps = [
            ['POST', 'sorting-rules/3/up', [], ['seat*', 'roof*', 'pump*']],
            ['POST', 'sorting-rules/3/up', [], ['roof*', 'seat*', 'pump*']],
            ['POST', 'sorting-rules/1/duplicate', [], ['roof*', 'seat*', 'seat*', 'pump*']],
            ['POST', 'sorting-rules/3/move', ['by' => 1000], ['seat*', 'seat*', 'pump*', 'roof*']],
            ['POST', 'sorting-rules/2/off', [], ['seat*', 'seat*', '-pump*', 'roof*']],
            ['PATCH', 'sorting-rules/1', ['rule' => 'glass', 'name' => '{name}'], ['glass', 'seat*', '-pump*', 'roof*']],
            ['POST', 'sorting-rules/4/delete', [], ['glass', '-pump*', 'roof*']],
            ['POST', 'sorting-rules/2/on', [], ['glass', 'pump*', 'roof*']],
        ];
        $lists = [$this->rules()];
        foreach ($steps as [$method, $path, $values, $expected]) {
            $this->send($method, $path, $values)->assertOk();
            self::assertSame($expected, $this->rules(), $path);
            $lists[] = $expected;
        }
        foreach (array_reverse(array_slice($lists, 0, -1)) as $list) {
            $this->send('POST', 'undo')->assertOk();
            self::assertSame($list, $this->rules());
        }
        foreach (array_slice($lists, 1) as $list) {
            $this->send('POST', 'redo')->assertOk();
            self::assertSame($list, $this->rules());
        }
        $this->send('POST', 'sorting-rules/99/up')->assertStatus(422)->assertSee('no longer there');
    }

    public function test_what_is_wrong_with_a_line_is_said_where_it_is_written_and_where_it_stands(): void
    {
        foreach (
            [
                [['rule' => ''], 'A sorting rule needs a rule.', 'rule'],
                [['rule' => '(seat'], 'It is at character', 'rule'],
                [['rule' => 'seat', 'layer' => 'A /  / B'], 'has a name that is empty', 'layer'],
                [['rule' => 'seat', 'tags' => str_repeat('a', 201)], 'longer than 200', 'tags'],
                [['rule' => 'seat', 'name' => str_repeat('a', 501)], 'longer than 500', 'name'],
            ] as [$values, $sentence, $field]
        ) {
            $this->add($values)
                ->assertStatus(422)
                ->assertSee($sentence)
                ->assertSee("data-field=\"$field\"", false);
        }
        self::assertSame([], $this->rules());

        // A layer that goes leaves its line in trouble; other lines are not kept from their work.
        $this->send('POST', 'layers', ['name' => 'Short-lived']);
        $this->add(['rule' => 'seat*', 'layer' => 'Short-lived']);
        $this->add(['rule' => 'pump*', 'tags' => 'Wet']);
        $this->send('DELETE', 'layers/'.$this->layer($this->project, 'Short-lived'), ['target' => '1'])->assertOk();
        $this->get($this->path('sorting-rules'))->assertSee('The layer Short-lived is no longer there.');
        $this->send('POST', 'sorting-rules/run')->assertSee('by rules.');
        self::assertSame($this->held('pump*')->count(), $this->rows('tag=Wet')->count());
        $this->send('POST', 'sorting-rules/run', ['line' => 1])
            ->assertStatus(422)
            ->assertSee('Short-lived is no longer there');
        // Changed, it makes the layer again.
        $this->send('PATCH', 'sorting-rules/1', ['rule' => 'seat*', 'layer' => 'Short-lived'])->assertOk();
        $this->send('POST', 'sorting-rules/run', ['line' => 1])->assertOk();
        self::assertGreaterThan(0, $this->rows('layer=Short-lived')->count());
    }

    public function test_locked_objects_and_fights_are_said_before_and_kept_to(): void
    {
        $seats = $this->rows('seat*');
        $rows = $seats->rows();
        $last = $this->bench()->scene()->number($rows[count($rows) - 1]);
        $this->send('POST', 'locks', ['keys' => "O$last", 'lock' => 2])->assertOk();
        $this->add(['rule' => 'seat*', 'layer' => 'One', 'only' => 1]);
        $this->add(['rule' => 'kind:part seat', 'layer' => 'Two', 'only' => 1]);
        $both = $seats->and($this->rows('kind:part seat'));
        $this->get($this->path('sorting-rules'))->assertSee('rule&nbsp;2&nbsp;for&nbsp;'.$both->count(), false);
        $this->send('POST', 'sorting-rules/pick', ['what' => 'fight', 'line' => 1, 'other' => 2, 'mode' => 'replace']);
        self::assertSame($both->rows(), $this->bench()->pickedBits()->rows());
        $this->send('POST', 'sorting-rules/pick', ['what' => 'untaken', 'mode' => 'replace']);
        self::assertSame(0, $this->bench()->pickedBits()->and($seats)->count());
        $this->send('POST', 'sorting-rules/run')->assertSee('1 locked object was left alone.');
        self::assertSame($seats->count() - $this->rows('is locked')->and($seats)->count(), $this->rows('layer=One')->count());
    }

    public function test_the_ledger_shows_what_would_come_and_go(): void
    {
        $this->send('POST', 'layers', ['name' => 'Elsewhere']);
        $this->add(['rule' => 'layer="51 Seats"', 'layer' => 'Elsewhere', 'only' => 1]);
        $many = $this->rows('layer="51 Seats"')->count();
        self::assertGreaterThan(10, $many);
        $this->send('POST', 'ledger', ['columns' => '[["sorted",104]]'], count: 47)
            ->assertSee('−'.number_format($many))
            ->assertSee('+'.number_format($many));
        $this->send('POST', 'ledger', ['turn' => 'objects', 'lens' => 'objects', 'sort' => 'sorted'])->assertSee('→ Elsewhere');
        foreach (['tags', 'kinds', 'nesting', 'materials'] as $lens) {
            $this->get($this->path("ledger?lens=$lens&from=0&count=40"))->assertOk();
        }
    }

    public function test_a_list_goes_to_another_project_and_what_is_not_there_is_made_or_mapped(): void
    {
        $this->add(['rule' => 'seat*', 'layer' => 'Stands / All seats', 'tags' => 'Phases / First']);
        $this->add(['rule' => 'class:Pump', 'layer' => 'Plant / Pumps', 'note' => 'as agreed']);
        $file = $this->get($this->path('sorting-rules/file'))->assertOk()->getContent();
        $other = $this->baths($this->ida);
        $this->project = $other;
        $this->send('POST', 'sorting-rules/ask-read', ['list' => $file])
            ->assertSee('Stands / All seats')
            ->assertSee('Phases / First');
        $this->send('POST', 'sorting-rules/read', [
            'list' => $file,
            'layer-0' => '51 Seats',
            'tag-0' => '',
            'layer-1' => 'Plant / Pumps',
        ])->assertSee('Read 2 sorting rules.');
        [$first, $second] = StoredLine::all($this->project->refresh());
        self::assertSame([$this->layer($this->project, '51 Seats'), []], [$first->layer, $first->tags]);
        self::assertSame(['class:Pump', 'Plant / Pumps', 'as agreed'], [$second->rule, $second->layerPath, $second->note]);
        $this->send('POST', 'undo')->assertOk();
        self::assertSame(0, $this->project->layers()->where('name', 'Plant')->count());
        $this->send('POST', 'redo')->assertOk();
        $this->send('POST', 'sorting-rules/read', ['list' => $file, 'way' => 'replace'])->assertOk();
        self::assertSame(['seat*', 'class:Pump'], $this->rules());
        $again = SortingRules::read((string) $this->get($this->path('sorting-rules/file'))->getContent());
        self::assertEquals(SortingRules::read((string) $file), $again);
        $this->send('POST', 'sorting-rules/read', ['list' => 'no list'])
            ->assertStatus(422)
            ->assertSee('is not JSON');
        $this->send('POST', 'sorting-rules/ask-read', [
            'list' => '{"format":"vine-shelf sorting rules","version":1,"lines":[{"rule":"("}]}',
        ])->assertOk();
        $this->send('POST', 'sorting-rules/read', ['list' => '{"format":"vine-shelf sorting rules","version":1,"lines":[{"rule":"("}]}'])
            ->assertStatus(422)
            ->assertSee('Line 1: ');
    }

    public function test_rules_read_off_the_model_file_it_as_it_is(): void
    {
        $html = (string) $this->get($this->path('sorting-rules/proposed'))->assertOk()->getContent();
        self::assertSame(1, preg_match('~<textarea name="list"[^>]*>(.*?)</textarea>~s', $html, $found));
        $list = SortingRules::read(html_entity_decode($found[1], ENT_QUOTES));
        self::assertGreaterThan(5, count($list->lines));
        // The file says of each object what its layer is called: that explains everything, and nothing of another model.
        self::assertStringContainsString('Without “layer” of the file', $html);
        self::assertStringNotContainsString('"layer"=', $list->write());
        $repeating = html_entity_decode((string) $this->get($this->path('sorting-rules/proposed?repeating=1'))->getContent(), ENT_QUOTES);
        self::assertStringContainsString('\"layer\"=\"51 Seats\"', $repeating);
        $ticked = array_fill_keys(array_map(static fn (int $at): string => "line-$at", array_keys($list->lines)), 1);
        unset($ticked['line-1']);
        $this->send('POST', 'sorting-rules/read', ['list' => $list->write(), 'chosen' => 1] + $ticked)->assertOk();
        $rules = array_map(static fn (SortingLine $line): string => $line->rule, $list->lines);
        array_splice($rules, 1, 1);
        self::assertSame($rules, $this->rules());
        $this->send('POST', 'undo');
        $this->send('POST', 'sorting-rules/read', ['list' => $list->write()])->assertOk();
        $filed = $this->sorting();
        // Everything is thrown out of its layer, and finds back but for what the rules have as exceptions.
        $numbers = $this->bench()->scene()->count();
        $this->send('POST', 'pick', ['found' => 1, 'words' => 'kind:part or kind:group', 'mode' => 'replace']);
        $this->send('POST', 'file', ['layer' => 1])->assertOk();
        $this->send('POST', 'sorting-rules/run')->assertOk();
        $same = count(array_intersect_assoc($filed['layers'], $this->sorting()['layers']));
        self::assertGreaterThan(0.95 * $numbers, $same);
    }

    public function test_what_comes_in_is_sorted_when_the_project_says_so(): void
    {
        $this->add(['rule' => 'seat*', 'layer' => 'New seats', 'only' => 1]);
        $this->send('POST', 'sorting-rules/coming', ['on' => 1])->assertSee('Sort what comes in by rules.');
        $old = $this->rows('seat*');
        $this->takeIn($this->ida, self::demoFile(), into: $this->project);
        Queue::assertPushed(SortWhatCame::class);
        $job = Queue::pushed(SortWhatCame::class)[0];
        app()->call([$job, 'handle']);
        $new = $this->rows('seat*')->count() - $old->count();
        self::assertSame($old->count(), $new);
        self::assertSame($new, $this->rows('layer="New seats"')->count());
        $sorts = Change::query()->where('project_id', $this->project->id)->orderByDesc('no')->first();
        self::assertStringContainsString('by rules', (string) $sorts?->name);
        app()->call([$job, 'handle']);
        self::assertSame($sorts?->no, Change::query()->where('project_id', $this->project->id)->max('no'), 'nothing is left to sort');
        $this->send('POST', 'undo');
        self::assertSame(0, $this->rows('layer="New seats"')->count());
        $this->send('POST', 'undo')->assertSee('Undone: Take in');
        $this->send('POST', 'undo')->assertSee('Undone: Sort what comes in');
        self::assertFalse($this->project->refresh()->sorts_what_comes);
    }

    /** @param array<string, mixed> $line */
    private function add(array $line): \Illuminate\Testing\TestResponse
    {
        return $this->send('POST', 'sorting-rules', $line);
    }

    /** @return list<string> the rules in their order, those that are off with a dash */
    private function rules(): array
    {
        return array_map(
            static fn (StoredLine $line): string => ($line->isOff ? '-' : '').$line->rule,
            StoredLine::all($this->project->refresh()),
        );
    }

    /** What a rule finds, with what that holds. */
    private function held(string $rule): Bits
    {
        return Relatives::within($this->bench()->scene(), $this->rows($rule));
    }

    private function rows(string $rule): Bits
    {
        $bench = $this->bench();

        return $bench->find($rule)->rows ?? Bits::none($bench->scene()->count());
    }

    /** @return array<string, mixed> layers, names and tags of all objects */
    private function sorting(): array
    {
        return [
            'layers' => DB::table('objects')->where('project_id', $this->project->id)->orderBy('no')->pluck('layer_no', 'no')->all(),
            'names' => DB::table('objects')->where('project_id', $this->project->id)->orderBy('no')->pluck('name', 'no')->all(),
            'tags' => array_map(
                fn (int $tag): array => $this->bench()->scene()->tagged($tag)->rows(),
                array_map(intval(...), DB::table('tags')->where('project_id', $this->project->id)->orderBy('no')->pluck('no')->all()),
            ),
        ];
    }
}
