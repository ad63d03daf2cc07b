<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use PHPUnit\Framework\Attributes\TestWith;

/** Each view by itself on the desk of whoever wants its picture. */
final class PicturesTest extends ProjectTestCase
{
    private const CAMERA = '{"eye":[4,0,2],"target":[0,0,0],"fov":40,"aspect":1.5}';

    /** @return array<string, mixed> */
    private function still(int $view, string $of = 'desk'): array
    {
        return $this->getJson($this->path("stills/$view?of=$of"))->assertOk()->json();
    }

    /** @param array<string, mixed> $still @return list<int> the rung of each object, by number */
    private static function rungs(array $still): array
    {
        return array_values((array) unpack('C*', (string) gzinflate((string) base64_decode($still['states'], true))));
    }

    /** @return list<int> what the canvas shows, by number */
    private function canvas(): array
    {
        $bench = $this->bench();
        $numbers = array_map(fn (int $row): int => $bench->scene()->number($row), range(1, $bench->scene()->count()));
        $rungs = array_fill(0, max($numbers) + 1, 0);
        foreach ($numbers as $at => $number) {
            $rungs[$number] = $bench->shown()->inEffect->rung($at + 1)->value;
        }

        return $rungs;
    }

    public function test_a_picture_shows_what_the_canvas_would_once_the_view_was_applied_whatever_comes_before_it(): void
    {
        mt_srand(11);
        $layers = array_map(static fn (array $each): int => $each[0]->number, $this->bench()->layers()->walk());
        $keeps = [['keep_rungs'], ['keep_section'], ['keep_isolation'], ['keep_rungs', 'keep_output'], ['keep_rungs', 'keep_isolation']];
        foreach ($keeps as $at => $facets) {
            foreach (range(1, 3) as $ignored) {
                $this->send('POST', 'rungs', ['keys' => 'L'.$layers[array_rand($layers)], 'rung' => mt_rand(0, 5)])->assertOk();
                $this->send('POST', 'output', [
                    'keys' => 'L'.$layers[array_rand($layers)],
                    'output' => ['none', 'never', '3', '5'][mt_rand(0, 3)],
                ])->assertOk();
            }
            $this->send('POST', 'pick', ['keys' => 'L'.$layers[array_rand($layers)], 'mode' => 'replace']);
            $this->send('POST', 'isolate', []);
            $this->send('POST', 'views', ['name' => "View $at", ...array_fill_keys($facets, 1)])->assertOk();
        }
        $this->send('POST', 'isolate/back', []);
        $before = [$this->bench()->desk->revision, $this->bench()->settings()->pack()];
        $stills = [];
        foreach (array_reverse(array_keys($keeps)) as $at) {
            foreach (['desk', 'output'] as $of) {
                $still = $this->still($at + 1, $of);
                $stills[$at][$of] = self::rungs($still);
                self::assertSame("View $at", $still['name']);
            }
        }
        self::assertSame($before, [$this->bench()->desk->revision, $this->bench()->settings()->pack()], 'nothing is done to the desk');
        foreach (array_keys($keeps) as $at) {
            $this->send('POST', 'views/'.($at + 1).'/apply')->assertOk();
            foreach (['desk', 'output'] as $of) {
                $this->send('POST', 'shows', ['side' => $of])->assertOk();
                self::assertSame($this->canvas(), $stills[$at][$of], "view $at, $of");
            }
            $this->send('POST', 'shows', ['side' => 'desk']);
            $this->send('POST', 'desk/undo')->assertOk();
        }
        self::assertGreaterThan(3, count(array_unique(array_map(serialize(...), array_merge(...array_map(array_values(...), $stills))))));
    }

    public function test_the_page_lists_what_is_asked_for_and_says_where_a_view_has_no_camera(): void
    {
        $this->send('POST', 'views', ['name' => 'Hall <b>', 'keep_rungs' => 1, 'camera' => self::CAMERA, 'keep_camera' => 1]);
        $this->send('POST', 'views', ['name' => 'Roof', 'keep_rungs' => 1]);
        $this->send('POST', 'folders', ['holds' => 'views', 'name' => 'Client', 'around' => 'V2']);
        $this->get($this->path('pictures/all'))
            ->assertOk()
            ->assertSeeInOrder(['Hall <b>', 'Roof', 'from here'])
            ->assertSee('data-together="'.$this->project->name.'"', false);
        $this->get($this->path('pictures/F1'))->assertOk()->assertSee('data-together="Client"', false)->assertDontSee('Hall');
        self::assertSame(40, $this->still(1)['camera']['fov']);
        self::assertNull($this->still(2)['camera'], 'the camera of the view before it is not its own');
        $this->get($this->path('stills/1/faces?of=desk'))->assertOk();
        $this->actingAs($this->person('Otto Brandt'))->get($this->path('pictures/all'))->assertNotFound();
    }

    public function test_a_view_is_drawn_on_the_desk_of_the_one_who_asks(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'views', ['name' => 'From above', 'camera' => self::CAMERA, 'keep_camera' => 1]);
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => 0]);
        $other = $this->person('Vera Moss');
        $this->project->people()->attach($other, ['role' => 'viewer']);
        $mine = self::rungs($this->still(1));
        $this->actingAs($other);
        $theirs = self::rungs($this->still(1));
        $scene = Bench::of($this->project->refresh(), $other)->scene();
        $rows = $scene
            ->layers()
            ->rowsOf([$seats => true])
            ->rows();
        self::assertNotSame([], $rows);
        foreach ($rows as $row) {
            self::assertSame([0, 5], [$mine[$scene->number($row)], $theirs[$scene->number($row)]]);
        }
    }

    #[TestWith(['pictures/V99', 422])]
    #[TestWith(['pictures/F9', 422])]
    #[TestWith(['pictures/L1', 422])]
    #[TestWith(['pictures/%27', 422])]
    #[TestWith(['stills/2?of=desk', 404])]
    #[TestWith(['stills/99999999999999999999?of=desk', 404])]
    #[TestWith(['stills/-1?of=desk', 404])]
    #[TestWith(['stills/V1?of=desk', 404])]
    #[TestWith(['stills/1', 422])]
    #[TestWith(['stills/1?of=both', 422])]
    #[TestWith(['stills/1?of[]=desk', 422])]
    #[TestWith(['stills/1/faces?of=', 422])]
    #[TestWith(['stills/7/faces?of=output', 404])]
    public function test_what_is_not_there_is_said(string $path, int $status): void
    {
        $this->send('POST', 'views', ['name' => 'Hall', 'keep_rungs' => 1]);
        $this->getJson($this->path($path))->assertStatus($status);
    }

    public function test_where_there_are_no_views_there_are_no_pictures(): void
    {
        $this->get($this->path('pictures/all'))->assertNotFound();
    }
}
