<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Changes\History;
use App\Models\View;
use PHPUnit\Framework\Attributes\TestWith;
use Tests\Core\Support\Gltf;
use VineShelf\Layers\SortBy;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Pick;

/** Views keep what was ticked and nothing else, know what was there, and are changed one or many at once. */
final class ViewsTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    private const PICTURE =
        'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';

    private const CAMERA = '{"eye":[30,-30,20],"target":[0,0,3],"fov":40,"tall":12,"up":[0,0,1],"aspect":1.6}';

    public function test_each_facet_is_given_back_as_it_was_and_what_is_not_kept_is_left_alone(): void
    {
        $cut = '{"on":true,"box":[0,0,0,9,9,3],"planes":[[[0,0,1],2]]}';
        $this->send('POST', 'tint', ['by' => 'layer']);
        $this->send('POST', 'section', ['section' => $cut]);
        $this->send('POST', 'isolate', ['found' => 1, 'words' => 'lifering']);
        $this->send('POST', 'rungs', ['keys' => 'L3', 'rung' => 2]);
        $all = ['keep_camera' => 1, 'keep_rungs' => 1, 'keep_output' => 1, 'keep_tint' => 1, 'keep_section' => 1, 'keep_isolation' => 1];
        $this->send('POST', 'views', ['name' => 'All', 'camera' => self::CAMERA] + $all)->assertSee('Keep view All.');
        $this->send('POST', 'views', ['name' => 'Tint alone', 'keep_tint' => 1]);
        self::assertSame(['camera' => 1.6, 'facets' => 6], [
            'camera' => $this->saved('All')->camera['aspect'] ?? 0,
            'facets' => count($this->saved('All')->facets()),
        ]);
        $kept = $this->bench()->desk->facets();

        $this->send('POST', 'tint', ['by' => 'kind']);
        $this->send('POST', 'section', ['section' => '{"on":false}']);
        $this->send('POST', 'isolate/back', ['all' => 1]);
        $this->send('POST', 'rungs', ['keys' => 'L3', 'rung' => 5]);
        $before = $this->bench()->desk->facets();
        $this->send('POST', 'views/2/apply')->assertOk();
        self::assertSame(['layer', [3 => 5]], [$this->bench()->desk->tint['by'] ?? '', $this->bench()->settings()->layers]);
        self::assertSame($before['section'], $this->bench()->desk->section);
        $this->send('POST', 'views/1/apply')->assertSee('&quot;eye&quot;:[30,-30,20]', false);
        $this->send('POST', 'views/1/apply')->assertOk();
        self::assertSame(['view' => 1] + $kept, ['view' => 1] + $this->bench()->desk->facets());
        self::assertSame(Rung::Ghost, $this->bench()->settings()->layer(3));
        $this->send('POST', 'desk/undo')->assertSee('Taken back: Apply view All.');
        $this->send('POST', 'desk/undo')->assertSee('Taken back: Apply view Tint alone.');
        self::assertSame($before, $this->bench()->desk->facets());
        $this->send('POST', 'desk/redo');
        $this->send('POST', 'desk/redo');
        self::assertSame(Rung::Ghost, $this->bench()->settings()->layer(3));
        self::assertSame($kept['isolated'], $this->bench()->desk->facets()['isolated']);
    }

    public function test_the_dot_says_how_the_desk_differs_in_what_the_view_keeps(): void
    {
        $this->send('POST', 'views', ['name' => 'Hall', 'keep_rungs' => 1, 'keep_section' => 1, 'keep_isolation' => 1]);
        $this->send('POST', 'tint', ['by' => 'layer'])->assertDontSee('The desk differs');
        $this->send('POST', 'section', ['section' => '{"on":true,"box":[0,0,0,9,9,3]}'])->assertSee('The desk differs: another section');
        $this->send('POST', 'isolate', ['keys' => 'O12'])->assertSee('another section; something isolated');
        $this->send('POST', 'rungs', ['keys' => 'L3,O9,O8', 'rung' => 2])->assertSee('1 layer and 2 objects at other rungs');
        $this->send('POST', 'views/1/apply')->assertDontSee('The desk differs');
    }

    public function test_many_views_begin_and_cease_to_keep_something_in_one_change(): void
    {
        foreach (['One', 'Two', 'Three'] as $name) {
            $this->send('POST', 'views', ['name' => $name, 'keep_rungs' => 1]);
        }
        $this->send('POST', 'folders', ['holds' => 'views', 'name' => 'Client', 'around' => 'V1,V3']);
        $this->get($this->path('views/facets?keys=F1'))->assertOk()->assertSee('What 2 views keep');
        $this->send('POST', 'views/facets', ['keys' => 'F1', 'keep_camera' => 1, 'keep_rungs' => 0, 'camera' => self::CAMERA])
            ->assertSee('2 views with camera, without rungs.');
        $facets = fn (string $name): array => array_column($this->saved($name)->facets(), 'value');
        self::assertSame([['camera'], ['rungs'], ['camera']], array_map($facets, ['One', 'Two', 'Three']));
        $this->send('POST', 'views/facets', ['keys' => 'V1,V2', 'keep_camera' => 0])
            ->assertStatus(422)
            ->assertSee('One would keep nothing any more; delete it instead.');
        $this->send('POST', 'undo');
        self::assertSame([['rungs'], ['rungs'], ['rungs']], array_map($facets, ['One', 'Two', 'Three']));
        $this->send('POST', 'views/facets', ['keys' => 'F1'])->assertStatus(422);
        $this->send('POST', 'views/facets', ['keys' => 'V1', 'keep_camera' => 1, 'camera' => 'no'])->assertStatus(422);
        $this->send('POST', 'views/duplicate', ['keys' => 'V1,V2'])->assertSee('Duplicate 2 views.');
        $this->send('POST', 'views/duplicate', ['keys' => 'V1'])->assertSee('Duplicate view One.');
        self::assertSame(['One 2', 'One 3'], $this->project->views()->where('name', 'like', 'One _')->pluck('name')->all());
        $this->send('DELETE', 'views', ['keys' => 'V1,V2'])->assertSee('Delete 2 views.');
        $this->send('POST', 'undo');
        self::assertSame(6, $this->project->views()->count());
    }

    #[TestWith(['POST', 'views/facets', ['keys' => 'L3', 'keep_tint' => 1]])]
    #[TestWith(['POST', 'views/facets', ['keys' => 'V9', 'keep_tint' => 1]])]
    #[TestWith(['POST', 'views/facets', ['keys' => 'V1', 'keep_tint' => 'x']])]
    #[TestWith(['POST', 'views/newcomers', ['keys' => 'V1', 'newcomers' => 3]])]
    #[TestWith(['POST', 'views/newcomers', ['keys' => '', 'newcomers' => 5]])]
    #[TestWith(['POST', 'views/as-they-were', ['change' => 'x']])]
    #[TestWith(['POST', 'views/as-they-were', ['change' => 99]])]
    #[TestWith(['POST', 'views/1/picture', []])]
    #[TestWith(['POST', 'views/1/picture', ['picture' => 'data:image/png;base64,AAAA']])]
    #[TestWith(['DELETE', 'views', ['keys' => 'V1,V99999999999']])]
    #[TestWith(['PATCH', 'views/1', ['camera' => '{"eye":[1e999,0,0]}']])]
    public function test_odd_values_are_refused_where_they_were_given(string $method, string $path, array $given): void
    {
        $this->send('POST', 'views', ['name' => 'Hall', 'keep_rungs' => 1]);
        $row = $this->saved('Hall')->getAttributes();
        self::assertContains($this->send($method, $path, $given)->getStatusCode(), [302, 422]);
        self::assertEquals($row['kept_at'], $this->saved('Hall')->getAttributes()['kept_at']);
    }

    public function test_newcomers_are_objects_and_get_what_the_view_says_until_they_are_reviewed(): void
    {
        $this->send('POST', 'views', ['name' => 'Before', 'keep_rungs' => 1, 'keep_isolation' => 1]);
        $this->send('POST', 'layers', ['name' => 'Late'])->assertDontSee('1 new');
        [$first, $count] = [$this->project->refresh()->next_object, $this->bench()->scene()->count()];
        $this->takeIn($this->ida, Gltf::file(self::benches()), SortBy::Groups, 'benches.gltf', into: $this->project);
        $new = range($first, $first + 2);
        $this->send('POST', 'views/1/apply')->assertSee('3 new');
        $shown = fn (): array => array_map(
            fn (int $number): int => $this->bench()->inEffect()->rungs()->at($this->bench()->scene()->row($number)),
            $new,
        );
        self::assertSame([0, 0, 0], $shown());
        self::assertSame($count, $this->bench()->inEffect()->rungs()->histogram()[5]);
        $this->send('POST', 'rungs', ['keys' => "O$first", 'rung' => 4])->assertSee('Plain');
        self::assertSame([4, 0, 0], $shown(), 'what a person sets takes the place of what the view gave');
        $this->send('POST', 'views/newcomers', ['keys' => 'V1', 'newcomers' => -1]);
        $this->send('POST', 'views/1/apply');
        self::assertSame([4, 0, 0], $shown(), 'as the desk has them');
        $this->send('POST', 'views/1/apply')->assertDontSee('The desk differs');
        $this->get($this->path('views/review'))->assertOk()->assertSee('What is new to Before')->assertSee('3 objects came since');
        $this->send('POST', 'views/newcomers', ['keys' => 'V1', 'newcomers' => 5]);
        $this->send('POST', 'views/1/apply');
        self::assertSame([5, 5, 5], $shown());
        $this->send('POST', 'views/newcomers', ['keys' => 'V1', 'newcomers' => 0]);
        $this->send('POST', 'views/review', ['keys' => 'V1'])->assertSee('Review view Before.')->assertDontSee('3 new');
        $this->send('POST', 'views/1/apply');
        self::assertSame([0, 0, 0], $shown(), 'reviewed, they stay at what they got');
        $this->get($this->path('views/review'))->assertSee('Nothing is new to these views');
        $this->send('POST', 'undo')->assertSee('3 new');
    }

    public function test_copies_are_not_new_to_views_that_show_what_they_are_copies_of(): void
    {
        [$shown, $hidden] = $this->project->objects()->where('kind', 1)->orderByDesc('no')->limit(2)->pluck('no')->all();
        $this->send('POST', 'rungs', ['keys' => "O$hidden", 'rung' => 0]);
        $this->send('POST', 'views', ['name' => 'Before', 'keep_rungs' => 1]);
        $this->send('POST', 'rungs', ['keys' => "O$hidden", 'rung' => 5]);
        $first = $this->project->refresh()->next_object;
        $new = fn (): int => $this->bench()->newTo()->count($this->saved('Before'));
        $this->send('POST', 'objects/copy', ['keys' => "O$shown"])->assertOk();
        self::assertSame(0, $new());
        $this->send('POST', 'objects/copy', ['keys' => "O$first,O$hidden", 'way' => 'row', 'count' => 3, 'x' => 1])->assertOk();
        self::assertSame(3, $new(), 'copies of what the view hides');
        $this->send('POST', 'views/1/apply')->assertSee('3 new');
        $rungs = fn (): array => array_map(
            fn (int $number): int => $this->bench()->inEffect()->rungs()->at($this->bench()->scene()->row($number)),
            range($first, $this->project->refresh()->next_object - 1),
        );
        self::assertEqualsCanonicalizing([5, 5, 5, 5, 0, 0, 0], $rungs());
        // Taken back, kept anew meanwhile, and done again: the view still knows what it is a copy of.
        $this->send('POST', 'undo');
        $this->send('POST', 'undo');
        self::assertSame(0, $new());
        $this->send('POST', 'redo');
        $this->send('POST', 'redo');
        self::assertSame(3, $new());
        // What stands apart from copies is new as before.
        $this->send('POST', 'objects/group', ['keys' => "O$first", 'name' => 'Row']);
        self::assertSame(3, $new());
        $this->assertIndexTrue($this->project);
    }

    public function test_views_that_keep_output_or_isolation_alone_hold_and_count_too(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $roof = $this->layer($this->project, '20 Roof');
        $this->send('POST', 'output', ['keys' => "L$seats", 'output' => '0']);
        $this->send('POST', 'views', ['name' => 'Pictures', 'keep_output' => 1]);
        $this->send('POST', 'output', ['keys' => "L$seats", 'output' => 'none']);
        $found = fn (string $words): Bits => $this->bench()->find($words)->rows ?? Bits::none(0);
        $inPicture = fn (string $words): int => $this->bench()
            ->outputs()
            ->ofAnybody($this->saved('Pictures'))
            ->atLeast(Rung::Box->value)
            ->and($found($words))
            ->count();
        self::assertSame(0, $inPicture('seat_shell_00*'));
        $this->send('POST', 'pick', ['found' => 1, 'words' => 'seat_shell_00*', 'mode' => 'replace']);
        $this->send('POST', 'layers', ['name' => 'Cushions', 'from_pick' => 1])->assertDontSee('differently');
        self::assertSame(0, $inPicture('seat_shell_00*'), 'a layer that was made later changes no picture');
        $this->send('POST', 'file', ['layer' => $roof])
            ->assertSee('1 view shows something differently now.')
            ->assertSee('Keep it as before');
        self::assertSame(9, $inPicture('seat_shell_00*'));
        $change = $this->project->refresh()->next_change - 1;
        $this->send('POST', 'views/as-they-were', ['change' => $change])->assertSee('Keep 1 view as before');
        self::assertSame(0, $inPicture('seat_shell_00*'));
        $this->send('POST', 'undo');
        $this->send('POST', 'undo');
        self::assertSame(0, $inPicture('seat_shell_00*'));

        $seat = $this->bench()->scene()->number($found('seat_shell_01*')->rows()[0]);
        $this->send('POST', 'objects/group', ['keys' => "O$seat", 'name' => 'Alone']);
        $group = $this->project->refresh()->next_object - 1;
        $this->send('POST', 'isolate', ['keys' => "O$group"]);
        $this->send('POST', 'tint', ['by' => 'shuffle', 'pick' => 1]);
        $this->send('POST', 'views', ['name' => 'Alone', 'keep_isolation' => 1, 'keep_tint' => 1]);
        $this->send('POST', 'objects/ungroup', ['keys' => "O$group"])->assertDontSee('differently');
        self::assertSame([$group, $seat], $this->saved('Alone')->isolation()?->objects()->numbers());
        $tinted = Pick::unpack((string) base64_decode($this->saved('Alone')->tint['pick'] ?? '', true));
        self::assertSame([$group, $seat], $tinted->numbers());
        $this->send('POST', 'undo');
        self::assertSame([$group], $this->saved('Alone')->isolation()?->objects()->numbers());
        $this->send('POST', 'redo');
        self::assertSame([$group, $seat], $this->saved('Alone')->isolation()?->objects()->numbers());
    }

    public function test_filing_under_what_a_view_knows_is_counted_and_can_be_kept_as_before(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0]);
        $this->send('POST', 'views', ['name' => 'No seats', 'keep_rungs' => 1, 'picture' => self::PICTURE]);
        $this->send('POST', 'views', ['name' => 'Camera', 'keep_camera' => 1, 'camera' => self::CAMERA]);
        $this->send('POST', 'pick', ['found' => 1, 'words' => 'seat_shell_00*', 'mode' => 'replace']);
        $this->send('POST', 'layers', ['name' => 'Cushions', 'from_pick' => 1])->assertDontSee('differently');
        self::assertSame(0, $this->shownIn('No seats', 'seat_shell_00*'), 'a layer that was made later changes nothing');
        $this->send('POST', 'file', ['layer' => $this->layer($this->project, '20 Roof')])
            ->assertSee('1 view shows something differently now.')
            ->assertSee('Keep it as before');
        self::assertSame([9, true], [$this->shownIn('No seats', 'seat_shell_00*'), $this->saved('No seats')->isPictureOld()]);
        $change = $this->project->refresh()->next_change - 1;
        $this->send('POST', 'views/as-they-were', ['change' => $change])->assertSee('Keep 1 view as before');
        self::assertSame(0, $this->shownIn('No seats', 'seat_shell_00*'));
        self::assertSame(0, $this->shownIn('No seats', 'seat_shell_01*'));
        $this->send('POST', 'views/as-they-were', ['change' => $change])->assertSee('1 view was changed meanwhile and left alone.');
        $this->send('POST', 'undo');
        $this->send('POST', 'undo');
        self::assertSame([0, false], [$this->shownIn('No seats', 'seat_shell_00*'), $this->saved('No seats')->isPictureOld()]);
        $this->send('POST', 'views/as-they-were', ['change' => $change])->assertStatus(422);
    }

    public function test_what_comes_back_is_new_to_a_view_that_was_kept_while_it_was_away(): void
    {
        $bea = $this->person('Bea Lind');
        $this->project->people()->attach($bea, ['role' => 'editor']);
        $seats = $this->layer($this->project, '51 Seats');
        $this->takeIn($this->ida, Gltf::file(self::benches()), SortBy::Groups, 'benches.gltf', into: $this->project);
        $this->send('POST', 'pick', ['found' => 1, 'words' => 'seat_shell_00*', 'mode' => 'replace']);
        $this->send('POST', 'layers', ['name' => 'Cushions', 'from_pick' => 1]);
        $this->send('POST', 'undo');
        $this->send('POST', 'undo')->assertSee('Undone: Take in');
        $this->actingAs($bea);
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0]);
        $this->send('POST', 'views', ['name' => 'Hers', 'keep_rungs' => 1]);
        $history = $this->app->make(History::class);
        self::assertNotNull($history->redo(Bench::of($this->project->refresh(), $this->ida))->change);
        self::assertNotNull($history->redo(Bench::of($this->project->refresh(), $this->ida))->change);
        self::assertSame([0, 0], [$this->shownIn('Hers', 'deckchair*'), $this->shownIn('Hers', 'seat_shell_00*')]);
        self::assertSame(3, $this->bench()->newTo()->rows($this->saved('Hers'))->count());
        self::assertNotNull($history->undo(Bench::of($this->project->refresh(), $this->ida))->change);
        self::assertNotNull($history->redo(Bench::of($this->project->refresh(), $this->ida))->change);
        self::assertSame(0, $this->shownIn('Hers', 'seat_shell_00*'));
        $this->assertIndexTrue($this->project->refresh());
    }

    /** How many of what a rule finds a view shows. */
    private function shownIn(string $view, string $rule): int
    {
        $bench = $this->bench();
        $rows = $bench->find($rule)->rows;
        self::assertNotNull($rows);

        return $bench->asIn($this->saved($view))->rungs()->atLeast(Rung::Box->value)->and($rows)->count();
    }

    private function saved(string $name): View
    {
        return $this->project->views()->where('name', $name)->firstOrFail();
    }

    /** @return array<string, mixed> a file with three benches */
    private static function benches(): array
    {
        $gltf = Gltf::triangle();
        $gltf['nodes'] = array_map(static fn (int $number): array => ['name' => "Deckchair_$number", 'mesh' => 0], [1, 2, 3]);
        $gltf['scenes'] = [['nodes' => [0, 1, 2]]];

        return $gltf;
    }
}
