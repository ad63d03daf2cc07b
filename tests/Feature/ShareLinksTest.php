<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Http\Controllers\ShownController;
use App\Models\GuestComment;
use App\Models\ShareLink;
use Illuminate\Routing\Route;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route as Routes;
use Illuminate\Support\Facades\Storage;
use Illuminate\Testing\TestResponse;
use VineShelf\Geometry\PackReader;
use VineShelf\Scene\Packed;

/** People without an account see by a link what its views show, and nothing else. */
final class ShareLinksTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    private int $seats;

    protected function setUp(): void
    {
        parent::setUp();
        $this->seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'views', ['name' => 'Everything inside', 'keep_rungs' => 1, 'note' => 'Not for guests.']);
        $this->send('POST', 'rungs', ['keys' => "L$this->seats", 'rung' => 0]);
        $this->send('POST', 'views', ['name' => 'Empty hall', 'keep_rungs' => 1, 'note' => 'As agreed.']);
        $this->send('POST', 'views', ['name' => 'Empty hall, later', 'keep_rungs' => 1]);
        $this->send('POST', 'folders', ['holds' => 'views', 'name' => 'Client', 'around' => 'V2,V3']);
    }

    public function test_a_guest_gets_what_the_views_show_and_nothing_else(): void
    {
        $link = $this->link(['keys' => 'F1']);
        $this->leave();
        $page = (string) $this->get($link)->assertOk()->getContent();
        foreach (['Empty hall', 'Empty hall, later'] as $name) {
            self::assertStringContainsString($name, $page);
        }
        $answers = [$page];
        foreach ([0, 1] as $step) {
            $answers[] = (string) $this->getJson("$link/steps/$step")
                ->assertOk()
                ->getContent();
            $answers[] = (string) $this->get("$link/faces/$step")
                ->assertOk()
                ->getContent();
        }
        $this->getJson("$link/steps/2")->assertNotFound();
        // Nothing that is hidden in both: no placement, no mesh that it alone has, no name.
        $scene = $this->bench()->scene();
        $hidden = array_map(
            $scene->number(...),
            $scene
                ->layers()
                ->rowsOf([$this->seats => true])
                ->rows(),
        );
        $records = '';
        foreach ([0, 1, 2] as $part) {
            $records .= $answers[] = (string) $this->get("$link/records?part=$part")
                ->assertOk()
                ->getContent();
        }
        $sent = $this->numbersIn((string) $this->get("$link/records?part=1")->getContent());
        self::assertSame([], array_intersect($hidden, $sent));
        self::assertNotSame([], $sent);
        $mine = array_diff(
            DB::table('objects')->where('project_id', $this->project->id)->whereIn('no', $hidden)->pluck('mesh_no')->all(),
            DB::table('objects')->where('project_id', $this->project->id)->whereNotIn('no', $hidden)->pluck('mesh_no')->all(),
        );
        self::assertNotSame([], $mine, 'some meshes are drawn by what is hidden alone');
        $packs = 0;
        $materials = [];
        foreach ($this->project->packs()->get() as $pack) {
            $answer = $this->get("$link/packs/$pack->no");
            if ($answer->status() === 404) {
                continue;
            }
            $packs++;
            $reader = new PackReader((string) $answer->assertOk()->getContent());
            $held = array_column($reader->holds(), 0);
            foreach ($reader->holds() as [$mesh, $version]) {
                $materials = [...$materials, ...array_column($reader->packed($mesh, $version)->pieces ?? [], 'material')];
            }
            self::assertSame([], array_intersect($mine, $held));
            $answers[] = (string) $answer->getContent();
        }
        self::assertGreaterThan(0, $packs);
        preg_match('~<script type="application/json" id="materials">(.*?)</script>~s', $page, $json);
        $told = array_keys((array) json_decode($json[1] ?? '', true));
        self::assertEqualsCanonicalizing(array_diff(array_unique($materials), [0]), $told, 'materials of what is shown, and no others');
        self::assertLessThan($this->project->materials()->count(), count($told));
        $versions = (string) $this->get("$link/versions")
            ->assertOk()
            ->getContent();
        foreach ($versions === '' ? [] : str_split($versions, 24) as $entry) {
            self::assertNotContains(Packed::uint32($entry, 0, 1)[0], $mine);
        }
        $names = DB::table('objects')->where('project_id', $this->project->id)->whereIn('no', $hidden)->pluck('name')->all();
        foreach (
            [...array_unique($names), 'Everything inside', 'Not for guests', '51 Seats', $this->project->key, $this->ida->email] as $name
        ) {
            foreach ($answers as $answer) {
                self::assertFalse(is_string($name) && $name !== '' && str_contains($answer, $name), "$name is given away");
            }
        }
        // Names of objects are not said, and nothing is taken.
        $this->getJson("$link/steps/0/objects/{$sent[0]}")->assertNotFound();
        $this->postJson("$link/comments", ['step' => 0, 'by' => 'A guest', 'words' => 'Hm'])->assertNotFound();
        self::assertSame(0, GuestComment::query()->count());
    }

    public function test_of_what_is_shown_as_boxes_a_guest_gets_boxes(): void
    {
        $this->send('POST', 'rungs', ['keys' => "L$this->seats", 'rung' => 1]);
        $this->send('POST', 'output', ['keys' => "L$this->seats", 'output' => '1']);
        $this->send('POST', 'views', ['name' => 'Seats as boxes', 'keep_rungs' => 1]);
        $link = $this->link(['keys' => 'V4']);
        $this->leave();
        $of = fn (string $sign): array => DB::table('objects')
            ->where('project_id', $this->project->id)
            ->where('layer_no', $sign, $this->seats)
            ->where('mesh_no', '>', 0)
            ->pluck('mesh_no', 'no')
            ->all();
        $boxed = array_diff($of('='), $of('<>'));
        self::assertNotSame([], $boxed);
        $placed = [];
        foreach ([1, 2, 3] as $part) {
            $placed = [...$placed, ...$this->numbersIn((string) $this->get("$link/records?part=$part")->getContent())];
        }
        self::assertSame([], array_diff(array_keys($boxed), $placed), 'their places are there');
        $packs = 0;
        foreach ($this->project->packs()->get() as $pack) {
            $answer = $this->get("$link/packs/$pack->no");
            if ($answer->status() !== 404) {
                $packs++;
                $held = array_column((new PackReader((string) $answer->assertOk()->getContent()))->holds(), 0);
                self::assertSame([], array_intersect($boxed, $held), 'what they look like is not');
            }
        }
        self::assertGreaterThan(0, $packs);
    }

    public function test_a_guest_reaches_no_other_address_and_no_link_that_is_not_open(): void
    {
        $open = $this->link(['keys' => 'F1']);
        $revoked = $this->link(['keys' => 'F1']);
        $ended = $this->link(['keys' => 'F1']);
        $number = (int) ShareLink::query()->orderBy('id')->skip(1)->value('id');
        $this->postJson($this->path("share-links/$number/revoke"))->assertOk();
        $this->postJson($this->path("share-links/$number/revoke"))->assertStatus(422);
        ShareLink::query()
            ->orderByDesc('id')
            ->firstOrFail()
            ->update(['ends_at' => now()->subSecond()]);
        $this->leave();
        $none = preg_replace('~[^/]+$~', str_repeat('x', 32), $open);
        $said = (string) $this->get((string) $none)->assertNotFound()->getContent();
        $tried = 0;
        foreach (Routes::getRoutes()->getRoutes() as $route) {
            \assert($route instanceof Route);
            $method = $route->methods()[0];
            $path = '/'.preg_replace('~\{\w+\}~', '1', str_replace('{project}', $this->project->key, $route->uri()));
            if ($route->getControllerClass() === ShownController::class) {
                foreach ([$revoked, $ended, $none] as $closed) {
                    $answer = $this->call($method, str_replace('/shown/1', (string) $closed, $path));
                    self::assertSame([404, $said], [$answer->status(), $answer->getContent()], $path);
                }
            } elseif (str_contains($route->uri(), '{project}')) {
                // Some numbers in addresses have letters before them; without, they are none.
                $answer = $this->call($method, $path);
                self::assertContains($answer->status(), [302, 404], $path);
                $tried += $answer->status() === 302 ? 1 : 0;
            }
        }
        self::assertGreaterThan(60, $tried);
        $this->get($open)->assertOk();
        // Whoever made it may not see the project any more.
        $this->project->people()->detach($this->ida);
        $this->project->people()->attach($this->person('Otto Quill'), ['role' => 'owner']);
        $this->get($open)->assertNotFound();
    }

    public function test_a_link_follows_its_views_as_they_are_moved_deleted_and_brought_back(): void
    {
        $link = $this->link(['keys' => 'V2,V3', 'may_comment' => 1]);
        $names = function () use ($link): array {
            $this->leave();
            $this->flushSession();
            $page = $this->get($link);
            preg_match_all('~<option value="\d+">\d+ / \d+ · ([^<]+)</option>~', (string) $page->getContent(), $found);
            $this->actingAs($this->ida);

            return [$page->getStatusCode(), $found[1]];
        };
        self::assertSame([200, ['Empty hall', 'Empty hall, later']], $names());
        $this->send('POST', 'rows/move', ['keys' => 'V3', 'where' => 'before', 'mark' => 'V2'])->assertOk();
        self::assertSame([200, ['Empty hall, later', 'Empty hall']], $names());
        // Said on a page that was loaded before: it stays with the view that was looked at.
        $say = fn (int $view): TestResponse => $this->postJson("$link/comments", ['view' => $view, 'by' => 'A guest', 'words' => 'Lower?']);
        $say(2)->assertCreated();
        self::assertSame(2, GuestComment::query()->value('view_no'));
        $this->send('DELETE', 'rows', ['keys' => 'V2'])->assertOk();
        self::assertSame([200, ['Empty hall, later']], $names());
        $say(2)->assertStatus(422);
        self::assertStringNotContainsString('of guests on', (string) $this->get($this->path(''))->getContent());
        $this->send('DELETE', 'rows', ['keys' => 'V3'])->assertOk();
        self::assertSame([404, []], $names());
        $this->send('POST', 'undo')->assertOk();
        $this->send('POST', 'undo')->assertOk();
        self::assertSame([200, ['Empty hall, later', 'Empty hall']], $names());
        self::assertStringContainsString('1 comment of guests on Empty hall', (string) $this->get($this->path(''))->getContent());
        $this->send('POST', 'rungs', ['keys' => "L$this->seats", 'rung' => 5]);
        $before = $this->getJson("$link/steps/1")->json('states');
        $this->send('PATCH', 'views/2', ['keep_rungs' => 1])->assertOk();
        self::assertNotSame($before, $this->getJson("$link/steps/1")->json('states'), 'a link shows its views as they are now');
        $this->send('POST', 'undo')->assertOk();
        self::assertSame($before, $this->getJson("$link/steps/1")->json('states'));
    }

    public function test_a_password_is_asked_for_and_guessing_is_slow(): void
    {
        $link = $this->link(['keys' => 'V2', 'password' => 'warm water']);
        $this->leave();
        $this->get($link)->assertOk()->assertSee('A password, please')->assertDontSee('Empty hall');
        foreach (['records?part=1', 'steps/0', 'packs/1', 'versions', 'faces/0', 'textures/1'] as $path) {
            $this->get("$link/$path")->assertStatus(403);
        }
        $this->post($link, ['password' => 'cold water'])->assertRedirect($link);
        $this->get($link)->assertSee('This is not the password');
        $this->post($link, ['password' => 'warm water'])->assertRedirect($link);
        $this->get($link)->assertOk()->assertSee('Empty hall');
        $this->get("$link/steps/0")->assertOk();
        self::assertStringNotContainsString('warm', (string) ShareLink::query()->value('password'));
        $statuses = array_map(fn (): int => $this->post($link, ['password' => 'x'])->status(), range(1, 12));
        self::assertContains(429, $statuses);
    }

    public function test_signing_in_uses_up_no_openings_of_a_link_nor_one_link_those_of_another(): void
    {
        $links = [$this->link(['keys' => 'V2', 'password' => 'warm water']), $this->link(['keys' => 'V2', 'password' => 'warm water'])];
        $this->leave();
        for ($times = 0; $times < 11; $times++) {
            $this->post('/sign-in', ['email' => "nobody$times@marlpit.example", 'password' => 'x']);
            self::assertSame($times < 10 ? 302 : 429, $this->post($links[0], ['password' => 'x'])->status());
        }
        $this->post($links[1], ['password' => 'warm water'])->assertRedirect($links[1]);
        // The address is a secret: it goes nowhere else, however it is answered.
        foreach ([$links[1], $links[0], substr($links[0], 0, -3).'xyz', "$links[0]/records?part=1"] as $address) {
            $this->get($address)->assertHeader('Referrer-Policy', 'no-referrer');
        }
    }

    public function test_visits_are_counted_once_a_session_and_names_and_comments_are_given_where_they_are_allowed(): void
    {
        $link = $this->link(['keys' => 'V2', 'may_pick' => 1, 'may_comment' => 1]);
        $this->leave();
        $this->get($link)->assertOk();
        $this->get($link)->assertOk();
        self::assertSame(1, ShareLink::query()->value('visits'));
        $this->flushSession();
        $this->get($link)->assertOk();
        self::assertSame(2, ShareLink::query()->value('visits'));
        $scene = $this->bench()->scene();
        $roof = $scene->number(
            $scene
                ->layers()
                ->rowsOf([$this->layer($this->project, '20 Roof') => true])
                ->rows()[0],
        );
        $seat = $scene->number(
            $scene
                ->layers()
                ->rowsOf([$this->seats => true])
                ->rows()[0],
        );
        $name = DB::table('objects')->where('project_id', $this->project->id)->where('no', $roof)->value('name');
        $this->getJson("$link/steps/0/objects/$roof")
            ->assertOk()
            ->assertExactJson(['name' => $name]);
        $this->getJson("$link/steps/0/objects/$seat")->assertNotFound();
        $this->getJson("$link/steps/0/objects/999999")->assertNotFound();
        $say = fn (array $with): TestResponse => $this->postJson(
            "$link/comments",
            $with + ['view' => 2, 'by' => 'A guest', 'words' => 'Could this be <b>lower</b>?', 'place' => '1,2.5,-3'],
        );
        $say([])->assertCreated();
        foreach (
            [
                ['view' => 1],
                ['view' => 5],
                ['view' => ''],
                ['view' => '2; 3'],
                ['by' => ''],
                ['words' => ''],
                ['words' => str_repeat('x', 1001)],
                ['place' => '1,2'],
                ['place' => 'here'],
                ['place' => [1, 2, 3]],
            ] as $odd
        ) {
            $say($odd)->assertStatus(422);
        }
        $comment = GuestComment::query()->firstOrFail();
        self::assertEquals([2, 'A guest', [1, 2.5, -3]], [$comment->view_no, $comment->by, $comment->place]);
        $this->actingAs($this->ida)->get($this->path('comments?view=2'))->assertOk()->assertSee('Could this be <b>lower</b>?');
        self::assertStringContainsString('1 comment of guests on Empty hall', (string) $this->get($this->path(''))->getContent());
        $this->postJson($this->path("comments/$comment->id/settle"), ['done' => 1])->assertOk();
        self::assertStringNotContainsString('of guests on', (string) $this->get($this->path(''))->getContent());
        self::assertTrue($comment->refresh()->done);
        $this->postJson($this->path('comments/999999/settle'), ['done' => 1])->assertStatus(422);
    }

    public function test_a_link_is_shown_when_made_comments_come_later_and_revoking_is_taken_back(): void
    {
        $link = $this->link(['keys' => 'F1', 'may_comment' => '']);
        $id = (int) ShareLink::query()->value('id');
        $this->get($this->path("share-links?made=$id"))->assertOk()->assertSee($link.'" readonly', false);
        $this->get($this->path('share-links?made=999999'))->assertOk()->assertDontSee('made-link');
        $words = ['step' => 0, 'view' => 2, 'by' => 'A guest', 'words' => 'Lower, please'];
        $this->postJson("$link/comments", $words)->assertNotFound();
        $this->postJson($this->path("share-links/$id/change"), ['may_comment' => '1'])->assertOk();
        $this->postJson("$link/comments", $words)->assertSuccessful();
        $this->postJson($this->path("share-links/$id/change"), ['may_comment' => ''])->assertOk();
        $this->postJson("$link/comments", $words)->assertNotFound();
        self::assertSame(1, GuestComment::query()->count());

        $this->postJson($this->path("share-links/$id/revoke"), ['back' => 1])->assertStatus(422);
        $this->postJson($this->path("share-links/$id/revoke"))->assertOk();
        $this->get($link)->assertNotFound();
        $this->get($this->path('share-links'))->assertSee('Open again');
        $this->postJson($this->path("share-links/$id/revoke"), ['back' => 1])->assertOk();
        $this->get($link)->assertOk();

        // What has ended stays so.
        $this->postJson($this->path("share-links/$id/revoke"))->assertOk();
        ShareLink::query()->update(['ends_at' => now()->subSecond()]);
        $this->postJson($this->path("share-links/$id/revoke"), ['back' => 1])->assertStatus(422);
        $this->get($this->path('share-links'))->assertDontSee('Open again');
        $this->postJson($this->path('share-links/999999/change'), ['may_comment' => '1'])->assertStatus(422);
    }

    public function test_links_are_listed_and_odd_values_are_refused(): void
    {
        $this->get($this->path('share-links?keys=F1'))->assertOk()->assertSee('Share 2 views')->assertDontSee('Links of this project');
        $link = $this->link(['name' => 'For the client', 'keys' => 'F1']);
        $this->get($this->path('share-links'))->assertSee('For the client')->assertSee($link);
        foreach (
            [
                ['name' => ''],
                ['name' => str_repeat('x', 121)],
                ['keys' => 'V99'],
                ['keys' => 'L1'],
                ['keys' => ''],
                ['ends' => '2001-01-01'],
            ] as $odd
        ) {
            $this->make($odd)->assertStatus(422);
        }
        foreach (['9999-01-01', 'soon', '2030-13-40'] as $odd) {
            $this->make(['ends' => $odd])->assertStatus(422);
        }
        self::assertSame(1, ShareLink::query()->count());
        $file = $this->project->packs()->value('file');
        Storage::disk('local')->put(is_string($file) ? $file : '', 'cut');
        $this->leave();
        $this->get($link)->assertOk();
        $this->get("$link/packs/{$this->project->packs()->value('no')}")->assertNotFound();
    }

    /** @param array<string, mixed> $values @return string its address */
    private function link(array $values): string
    {
        return (string) parse_url((string) $this->make($values)->assertCreated()->json('address'), PHP_URL_PATH);
    }

    /** @param array<string, mixed> $values */
    private function make(array $values): TestResponse
    {
        return $this->postJson(
            $this->path('share-links'),
            $values + ['name' => 'Client', 'keys' => 'all', 'ends' => now()->addDay()->toDateString()],
        );
    }

    private function leave(): void
    {
        $this->app['auth']->logout();
        $this->flushSession();
    }

    /** @return list<int> object numbers of what is placed */
    private function numbersIn(string $records): array
    {
        [, $meshes, $forms, $count] = Packed::uint32($records, 0, 4);
        $numbers = [];
        $start = 16 + 28 * $meshes + 40 * $forms;
        for ($at = 0; $at < $count; $at++) {
            $number = 0;
            for ($byte = 0; $byte < 4; $byte++) {
                $number |= ord($records[$start + $byte * $count + $at]) << (8 * $byte);
            }
            $numbers[] = $number;
        }

        return $numbers;
    }
}
