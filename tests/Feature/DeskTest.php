<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Models\Desk;
use App\Models\View;
use Illuminate\Support\Facades\Storage;
use VineShelf\Rungs\Rung;

final class DeskTest extends ProjectTestCase
{
    private const CAMERA = '{"eye":[30,-30,20],"target":[0,0,1],"fov":40}';

    private const PICTURE =
        'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGA'.'WjR9awAAAABJRU5ErkJggg==';

    public function test_rungs_are_set_and_taken_back_apart_from_the_projects_history(): void
    {
        $roof = $this->layer($this->project, '20 Roof');
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'rungs', ['keys' => "L$roof,L$seats", 'rung' => 2])->assertSee('2 layers: Ghost.');
        $this->send('POST', 'layers', ['name' => 'Meanwhile']);
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0])->assertSee('51 Seats: Hidden.');
        self::assertSame([Rung::Ghost, Rung::Hidden], [$this->settings()->layer($roof), $this->settings()->layer($seats)]);
        $this->send('POST', 'desk/undo')->assertSee('Taken back: Hidden: 51 Seats.');
        $this->send('POST', 'desk/undo');
        self::assertSame([], $this->settings()->layers);
        self::assertNotSame(0, $this->layer($this->project, 'Meanwhile'), 'the sorting stays');
        $this->send('POST', 'desk/redo')->assertSee('Done again: Ghost: 2 layers.');
        self::assertSame(Rung::Ghost, $this->settings()->layer($seats));
        $this->send('POST', 'undo');
        self::assertSame(Rung::Ghost, $this->settings()->layer($seats), 'and the desk stays when the sorting is taken back');
        $this->send('POST', 'rungs', ['keys' => 'L2', 'rung' => 9])->assertStatus(302);
    }

    public function test_a_row_shows_what_is_in_effect_and_its_own_setting(): void
    {
        $seat = (int) $this->project->objects()->where('name', 'Seat_Shell_017')->value('no');
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'ledger', ['fold' => "L$seats", 'unfold' => 1]);
        $this->send('POST', 'rungs', ['keys' => "O$seat", 'rung' => 1], count: 47)->assertSee(
            '51 Seats holds objects at different rungs.',
        );
        $answer = $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0], count: 200);
        $answer
            ->assertSee('Seat_Shell_017 is hidden because layer 51 Seats is. Its own setting is Box.')
            ->assertSee('Seat_Shell_016 is hidden because layer 51 Seats is. Its own setting is Full.');
    }

    public function test_why_says_every_cause_and_mends_one_or_all(): void
    {
        $seat = (int) $this->project->objects()->where('name', 'Seat_Shell_017')->value('no');
        $block = (int) $this->project->objects()->where('name', 'Block West')->value('no');
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'rungs', ['keys' => "O$block", 'rung' => 1]);
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 2]);
        $this->send('POST', 'locks', ['keys' => "L$seats", 'lock' => 1]);
        $this->get($this->path("why/$seat"))
            ->assertOk()
            ->assertSeeInOrder([
                'Seat_Shell_017 is drawn as a box because the group Block West is',
                'Its own setting is Full.',
                'guarded',
                'The group Block West',
                'Box',
                'Layer 51 Seats',
                'Ghost',
                'Open it',
                'Mend all',
            ]);
        $this->send('POST', "why/$seat", ['what' => 'object', 'number' => $block, 'part' => 'rung'])->assertSee(
            'Seat_Shell_017 now is a ghost.',
        );
        $this->send('POST', "why/$seat", ['what' => 'all'])->assertSee('Seat_Shell_017 now is drawn in full.');
        $this->get($this->path("why/$seat"))
            ->assertSee('Seat_Shell_017 is drawn in full')
            ->assertSee('It is open')
            ->assertDontSee('Mend all');
        $this->get($this->path('why/999999'))->assertNotFound();
    }

    public function test_a_view_is_kept_applied_updated_renamed_and_deleted(): void
    {
        $roof = $this->layer($this->project, '20 Roof');
        $this->send('POST', 'rungs', ['keys' => "L$roof", 'rung' => 2]);
        $this->send('POST', 'views', [
            'name' => 'Hall, roof ghosted',
            'keep_camera' => 1,
            'keep_rungs' => 1,
            'camera' => self::CAMERA,
            'picture' => self::PICTURE,
        ])->assertSee('Keep view Hall, roof ghosted.');
        $view = $this->saved(1);
        self::assertSame([[30, -30, 20], 40], [$view->camera['eye'] ?? null, $view->camera['fov'] ?? null]);
        self::assertTrue(Storage::disk('local')->exists($view->picture));
        $this->get($this->path('views/1/picture'))->assertOk()->assertHeader('Content-Type', 'image/png');

        $this->send('POST', 'rungs', ['keys' => "L$roof", 'rung' => 0])->assertSee('The desk differs: 1 layer at other rungs');
        $this->send('POST', 'views/1/apply')
            ->assertSee('Hall, roof ghosted applied.')
            ->assertSee('&quot;eye&quot;:[30,-30,20]', false)
            ->assertDontSee('The desk differs');
        self::assertSame(Rung::Ghost, $this->settings()->layer($roof));
        $this->send('POST', 'desk/undo');
        self::assertSame(Rung::Hidden, $this->settings()->layer($roof), 'applying a view can be taken back');

        $this->get($this->path('views/1/update'))->assertOk()->assertSee('1 layer at other rungs')->assertSee('Ghost to Hidden');
        $this->send('PATCH', 'views/1', ['keep_camera' => 1, 'camera' => str_replace('30,-30', '9,-9', self::CAMERA)]);
        self::assertSame([Rung::Hidden, 9], [$this->saved(1)->settings()->layer($roof), $this->saved(1)->camera['eye'][0] ?? null]);
        $this->send('PATCH', 'views/1', ['name' => 'Hall, open'])->assertSee('Rename view Hall, roof ghosted to Hall, open.');
        $this->send('PATCH', 'views/1', ['name' => ' '])
            ->assertStatus(422)
            ->assertSee('A view needs a name.');
        $this->send('DELETE', 'views/1')->assertSee('Delete view Hall, open.');
        self::assertSame(0, $this->project->views()->count());
        $this->send('POST', 'undo');
        $this->send('POST', 'undo');
        $this->send('POST', 'undo');
        self::assertSame(
            ['Hall, roof ghosted', Rung::Ghost, 30],
            [$this->saved(1)->name, $this->saved(1)->settings()->layer($roof), $this->saved(1)->camera['eye'][0] ?? null],
        );
    }

    public function test_a_view_keeps_only_the_facets_that_were_ticked(): void
    {
        $this->send('POST', 'rungs', ['keys' => 'L3', 'rung' => 0]);
        $this->send('POST', 'views', ['name' => 'Only rungs', 'keep_rungs' => 1]);
        $this->send('POST', 'views', ['name' => 'Only camera', 'keep_camera' => 1, 'camera' => self::CAMERA]);
        self::assertSame([null, true, false], [$this->saved(1)->camera, $this->saved(1)->keepsRungs(), $this->saved(2)->keepsRungs()]);
        $this->send('POST', 'rungs', ['keys' => 'L3', 'rung' => 5]);
        $this->send('POST', 'views/2/apply')->assertOk();
        self::assertSame(Rung::Full, $this->settings()->layer(3), 'a view without rungs leaves them alone');
        $this->send('POST', 'views/1/apply')->assertDontSee('&quot;camera&quot;', false);
        self::assertSame(Rung::Hidden, $this->settings()->layer(3));
        $this->send('POST', 'views', ['name' => 'Nothing'])
            ->assertStatus(422)
            ->assertSee('A view keeps at least one thing');
        $this->send('POST', 'views', ['name' => 'Bad', 'keep_camera' => 1, 'camera' => '{"eye":[1,2]}'])
            ->assertStatus(422)
            ->assertSee('The camera could not be read');
        $this->send('POST', 'views', [
            'name' => 'Bad',
            'keep_rungs' => 1,
            'picture' => 'data:image/png;base64,'.base64_encode('no picture'),
        ])->assertStatus(422);
    }

    public function test_picks_are_replaced_added_taken_away_and_ranged(): void
    {
        $picked = fn (): array => Desk::of($this->project, $this->ida)->pick()->numbers();
        $this->send('POST', 'pick', ['keys' => 'O10', 'mode' => 'replace']);
        $this->send('POST', 'pick', ['keys' => 'O12,O14', 'mode' => 'add']);
        $this->send('POST', 'pick', ['keys' => 'O12', 'mode' => 'remove']);
        $this->send('POST', 'pick', ['keys' => 'O14,O999999', 'mode' => 'toggle']);
        self::assertSame([10], $picked());
        $this->send('POST', 'ledger', ['lens' => 'nesting', 'all' => 1, 'unfold' => 1]);
        $this->send('POST', 'pick', ['span' => '104-100', 'mode' => 'replace', 'lens' => 'nesting']);
        self::assertSame([101, 102, 103, 104, 105], $picked());
        $this->send('POST', 'pick', ['found' => 1, 'words' => 'seat_shell_01', 'mode' => 'replace']);
        self::assertCount(10, $picked());
        $this->send('POST', 'pick', ['mode' => 'replace'])->assertDontSee('class="card"', false);
        self::assertSame([], $picked());
    }

    public function test_ledger_windows_join_into_the_whole_list(): void
    {
        $this->send('POST', 'ledger', ['lens' => 'nesting', 'all' => 1, 'unfold' => 1]);
        foreach (['layers' => 38, 'nesting' => 3197] as $lens => $total) {
            $keys = [];
            for ($from = 0; $from < $total; $from += 173) {
                $page = (string) $this->get($this->path("ledger?lens=$lens&from=$from&count=173"))
                    ->assertOk()
                    ->assertSee("data-total=\"$total\"", false)
                    ->getContent();
                preg_match_all('~data-key="([LO]\d+)"~', $page, $found);
                array_push($keys, ...$found[1]);
            }
            self::assertCount($total, array_unique($keys));
        }
        self::assertSame(
            range(1, 3197),
            array_map(static fn (string $key): int => (int) substr($key, 1), $keys),
            'nesting is depth first, as the file has it',
        );
        $bench = Bench::of($this->project, $this->ida);
        self::assertSame(1701, $this->getJson($this->path('ledger/place?lens=nesting&key=O1702'))->json('place'));
        $home =
            'L'.
            $bench
                ->scene()
                ->layers()
                ->at($bench->scene()->row(1702));
        self::assertSame(
            $home,
            $this->getJson($this->path('ledger/place?lens=layers&key=O1702'))->json('key'),
            'an object that is folded away is found at its layer',
        );
        $this->send('POST', 'landing', ['layer' => 16])->assertSee('New objects land in 51 Seats.');
    }

    private function settings(): \VineShelf\Rungs\Settings
    {
        return Desk::of($this->project, $this->ida)->settings();
    }

    private function saved(int $number): View
    {
        return $this->project->views()->where('no', $number)->firstOrFail();
    }

    public function test_a_project_gets_its_picture_when_it_is_first_opened_and_a_view_s_is_better(): void
    {
        $card = fn (): string => (string) $this->get('/projects')->getContent();
        self::assertStringNotContainsString('<img', $card());
        $this->get($this->path(''))->assertSee('data-wants-picture="1"', false);
        $this->get($this->path('picture'))->assertNotFound();
        $this->send('POST', 'picture', ['picture' => 'data:image/png;base64,AAAA'])->assertStatus(422);
        $this->send('POST', 'picture', ['picture' => ''])->assertNoContent();
        self::assertSame('', $this->project->refresh()->picture);

        $this->send('POST', 'picture', ['picture' => self::PICTURE])->assertNoContent();
        $first = $this->project->refresh()->picture;
        $this->get($this->path('picture'))->assertOk()->assertHeader('Content-Type', 'image/png');
        self::assertStringContainsString("/projects/{$this->project->key}/picture?", $card());
        $this->get($this->path(''))->assertSee('data-wants-picture="0"', false);
        // Whoever comes second, with an older page, changes nothing.
        $other = 'data:image/png;base64,'.base64_encode(base64_decode(substr(self::PICTURE, 22), true).'more');
        $this->send('POST', 'picture', ['picture' => $other])->assertNoContent();
        self::assertSame($first, $this->project->refresh()->picture);

        $this->send('POST', 'views', ['name' => 'Hall', 'keep_rungs' => 1, 'picture' => self::PICTURE]);
        self::assertStringContainsString("/projects/{$this->project->key}/views/1/picture?", $card());
    }
}
