<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\SortingRules\StoredLine;

/** Two tags become one; and tags and layers along a path are made where they are missing. */
final class MergeTagsTest extends ProjectTestCase
{
    public function test_tags_and_layers_are_asked_for_alike_with_what_each_holds(): void
    {
        foreach (['Oak' => 'O5,O6', 'Slate' => 'O7'] as $name => $keys) {
            $this->tag($name, $keys);
        }
        $asked = [
            ['tags/merge?keys=T2,T1', 'T2,T1', ['Slate' => 1, 'Oak' => 2], 'kind-tag'],
            ['layers/merge?keys=L5,L7', 'L5,L7', [], 'swatch'],
        ];
        foreach ([5, 7] as $layer) {
            $name = (string) $this->project->layers()->where('no', $layer)->value('name');
            $asked[1][2][$name] = $this->project->objects()->where('layer_no', $layer)->count();
        }
        foreach ($asked as [$path, $keys, $rows, $swatch]) {
            $html = (string) $this->get($this->path($path))->assertOk()->assertSee($swatch)->getContent();
            self::assertStringContainsString("value=\"$keys\"", $html);
            self::assertSame(1, substr_count($html, ' checked'), 'one is chosen to begin with');
            preg_match_all('~class="label">([^<]+)</span>\s*<small>([\d,]+)</small>~', $html, $found);
            self::assertSame($rows, array_combine($found[1], array_map(intval(...), $found[2])));
        }
        $this->get($this->path('tags/merge?keys=T1'))->assertStatus(422);
        $this->get($this->path('layers/merge?keys=L5,L999'))->assertStatus(422);
    }

    public function test_members_come_together_rules_follow_and_everything_is_taken_back_at_once(): void
    {
        $this->tag('Wet', 'O12,O14,O15');
        $this->tag('Damp', 'O15,O16');
        $this->tag('Moist', 'O17');
        $this->send('PATCH', 'rows/T2', ['colour' => '#336699']);
        $this->send('POST', 'sets', ['of' => 'rule', 'rule' => 'tag=Damp or tag:Moist', 'name' => 'Kept'])->assertOk();
        $this->send('POST', 'sorting-rules', ['rule' => 'tag:damp', 'tags' => 'Damp'])->assertOk();
        $this->send('POST', 'pins', ['what' => 'T2', 'on' => 1]);
        $this->send('POST', 'rungs', ['keys' => 'T2', 'rung' => 0]);
        $this->get($this->path('tags/merge?keys=T1,T2'))
            ->assertSee('Make one of 2 tags')
            ->assertSee('Damp has Hidden on your desk; its objects get what Wet has: nothing set.');
        $this->send('POST', 'tags/merge', ['keys' => 'T1,T2,T3', 'into' => 1])->assertSee('Merge 2 tags into Wet.');
        self::assertSame([12, 14, 15, 16, 17], $this->members(1));
        self::assertSame(['Wet'], array_map(static fn ($tag): string => $tag->name, $this->bench()->tags()->all()));
        self::assertSame('tag="Wet" or tag="Wet"', $this->bench()->sets()->get(1)->rule);
        $line = StoredLine::all($this->project)[0];
        self::assertSame(['tag="Wet"', [[1, 'Wet']]], [$line->rule, $line->tags]);
        self::assertSame(['T1'], $this->bench()->desk->pins);
        $this->assertIndexTrue($this->project->refresh());
        $this->send('POST', 'undo')->assertSee('Undone: Merge 2 tags into Wet.');
        self::assertSame([[12, 14, 15], [15, 16], [17]], [$this->members(1), $this->members(2), $this->members(3)]);
        self::assertSame('tag=Damp or tag:Moist', $this->bench()->sets()->get(1)->rule);
        self::assertSame('#336699', $this->bench()->tags()->get(2)->colour);
        $this->assertIndexTrue($this->project->refresh());
    }

    public function test_what_is_locked_keeps_its_tag_and_is_named(): void
    {
        $this->tag('Wet', 'O12');
        $this->tag('Damp', 'O15,O16');
        $this->send('POST', 'locks', ['keys' => 'O16', 'lock' => 2]);
        $this->send('POST', 'tags/merge', ['keys' => 'T1,T2'])
            ->assertSee('Merge tag Damp into Wet.')
            ->assertSee('1 locked object was left alone. Damp stays with them.');
        self::assertSame([[12, 15], [16]], [$this->members(1), $this->members(2)]);
        $this->send('POST', 'locks', ['keys' => 'T2', 'lock' => 2]);
        $this->json('POST', $this->path('tags/merge'), ['keys' => 'T1,T2'])->assertStatus(422)->assertSee('Damp is locked; open it first.');
        $this->json('POST', $this->path('tags/merge'), ['keys' => 'T1'])->assertStatus(422);
        $this->json('POST', $this->path('tags/merge'), ['keys' => 'T1,T9'])->assertStatus(422);
        $this->json('POST', $this->path('tags/merge'), ['keys' => 'T1,T2', 'into' => 9])->assertStatus(422);
    }

    public function test_views_show_what_they_showed_and_scripts_merge_by_path(): void
    {
        $this->tag('Wet', 'O12');
        $this->tag('Damp', 'O15,O16');
        $this->send('POST', 'rungs', ['keys' => 'T2', 'rung' => 0]);
        $this->send('POST', 'views', ['name' => 'Dry', 'keep_rungs' => 1], count: 0);
        $shown = fn (): string => $this->bench()->outputs()->shownIn($this->project->views()->firstOrFail())->rungs()->bytes();
        $before = $shown();
        $this->artisan("shelf:merge {$this->project->key} tag:Wet tag:Damp --person={$this->ida->email}")
            ->expectsOutputToContain('Merge tag Damp into Wet.')
            ->assertExitCode(0);
        self::assertSame($before, $shown());
        self::assertSame([12, 15, 16], $this->members(1));
        foreach (['tag:Wet tag:Nowhere', 'tag:Wet layer:Roof', 'object:1 object:2', 'tag:Wet tag:Wet'] as $words) {
            $this->artisan("shelf:merge {$this->project->key} $words --person={$this->ida->email}")->assertExitCode(2);
        }
        $layers = "'layer:12 Steel' 'layer:20 Roof'";
        $this->artisan("shelf:merge {$this->project->key} $layers --person={$this->ida->email}")->assertExitCode(0);
        self::assertSame(0, $this->project->layers()->where('name', '20 Roof')->count());
    }

    public function test_file_under_and_tag_make_what_is_missing_along_a_path(): void
    {
        $this->send('POST', 'pick', ['keys' => 'O12,O14', 'mode' => 'replace']);
        $this->send('POST', 'file/along', ['name' => 'Plant / Pumps', 'with_held' => 0])->assertSee('File 2 objects under Pumps.');
        $pumps = $this->project->layers()->where('name', 'Pumps')->firstOrFail();
        self::assertSame('Plant', $this->project->layers()->where('no', $pumps->parent_no)->value('name'));
        $this->send('POST', 'file/along', ['name' => 'plant / PUMPS', 'keys' => 'O15'])->assertSee('File 1 object under Pumps.');
        self::assertSame(1, $this->project->layers()->where('name', 'Pumps')->count());
        $this->send('POST', 'undo');
        $this->send('POST', 'undo')->assertSee('Undone: File 2 objects under Pumps.');
        self::assertSame(0, $this->project->layers()->whereIn('name', ['Plant', 'Pumps'])->count());
        $this->send('POST', 'tags', ['name' => 'Phases / First', 'from_pick' => 1, 'with_held' => 0])->assertSee('Tag 2 objects First.');
        self::assertSame('Phases', $this->bench()->tags()->folder($this->bench()->tags()->get(1)->folder)->name);
        foreach (['', ' / ', 'Plant / ', str_repeat('x', 500)] as $path) {
            $this->json('POST', $this->path('file/along'), ['name' => $path])->assertStatus(422);
        }
        $this->get($this->path('file'))->assertSee('data-or-new="/file/along"', false);
    }

    private function tag(string $name, string $keys): void
    {
        $this->send('POST', 'tags', ['name' => $name])->assertOk();
        $number = (int) $this->project->refresh()->next_tag - 1;
        $this->send('POST', 'tag', ['tag' => $number, 'mode' => 'add', 'keys' => $keys, 'with_held' => 0])->assertOk();
    }

    /** @return list<int> */
    private function members(int $tag): array
    {
        $scene = $this->bench()->scene();

        return $scene->numbersIn($scene->tagged($tag)->ranges());
    }
}
