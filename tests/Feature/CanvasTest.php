<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Jobs\DrawProject;
use App\Models\Casts\Bytes;
use App\Models\ProjectObject;
use Illuminate\Support\Facades\Storage;
use Illuminate\Testing\TestResponse;
use Tests\Core\Support\Gltf;
use Tests\Core\Support\Node;
use VineShelf\Geometry\Affine;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Packed;

/** What the canvas is sent, read by the canvas's own code, against what the database says. */
final class CanvasTest extends ProjectTestCase
{
    public function test_the_parts_hold_every_object_that_draws_where_the_file_put_it(): void
    {
        $parts = Packed::uint32($this->records('records?part=0'), 0, 1)[0];
        self::assertSame(1, $parts);
        $found = self::read($this->records('records?part=0'), $this->records('records?part=1'), $this->records('records?part=2'));
        $origin = Packed::float64($this->bench()->scene()->column('origin'), 0, 3);
        $expected = $this->placed();
        self::assertCount(count($expected), $found, 'what comes in several parts is there once');
        foreach ($found as ['object' => $object, 'mesh' => $mesh, 'm' => $m, 'facts' => $facts]) {
            [$wantedMesh, $wanted, $middle, $half] = $expected[$object];
            self::assertSame($wantedMesh, $mesh);
            self::assertEqualsWithDelta($half, array_slice($facts, 3), 1e-4, 'half the sides of its box');
            foreach ([0, 1, 2] as $row) {
                $place = $wanted[$row * 4 + 3];
                foreach ([0, 1, 2] as $axis) {
                    $place += $wanted[$row * 4 + $axis] * $middle[$axis];
                    self::assertEqualsWithDelta($wanted[$row * 4 + $axis], $m[$row * 4 + $axis], 2e-3, "turn of object $object");
                }
                self::assertEqualsWithDelta($place - $origin[$row], $m[$row * 4 + 3], 2e-4, "place of object $object");
            }
        }
    }

    public function test_what_is_hidden_comes_when_it_is_asked_for_after_it_is_shown(): void
    {
        $seats = $this->layer($this->project, '51 Seats');
        $numbers = $this->project->objects()->where('layer_no', $seats)->where('mesh_no', '>', 0)->pluck('no')->all();
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => Rung::Hidden->value])->assertOk();
        $hidden = array_column(self::read($this->records('records?part=0'), $this->records('records?part=1')), 'object');
        // Some may come along between others; the stand as a whole does not.
        self::assertLessThan(count($numbers) / 4, count(array_intersect($numbers, $hidden)));
        self::assertSame([], self::read($this->some($numbers)));
        $this->send('POST', 'rungs', ['keys' => "L$seats", 'rung' => Rung::Full->value])->assertOk();
        $shown = array_column(self::read($this->some($numbers)), 'object');
        self::assertSame([], array_diff($numbers, $shown));
    }

    public function test_odd_questions_for_placements_end_in_words_or_in_nothing(): void
    {
        foreach (['-1', '1.5', 'first', '', '1000001', '9999999999999999999'] as $part) {
            $this->getJson($this->path('records').'?part='.urlencode($part))
                ->assertStatus(422)
                ->assertJsonValidationErrors('part');
        }
        self::assertSame([], self::read($this->records('records?part=1000000')));
        // Half a number, numbers of nothing, the same one twice.
        $seat = $this->number('Seat_Shell_001');
        self::assertSame([], self::read($this->some([])));
        self::assertSame([], self::read($this->some([0, 4_294_967_295, 999_999])));
        self::assertSame([$seat], array_column(self::read($this->some([$seat, $seat], "\x01\x02")), 'object'));
        $this->call('POST', $this->path('records'), content: str_repeat("\0", 4_000_004))->assertStatus(413);
    }

    public function test_cameras_of_the_model_look_where_the_file_lets_them_look(): void
    {
        $origin = Packed::float64($this->bench()->scene()->column('origin'), 0, 3);
        $cameras = $this->getJson($this->path('cameras'))->assertOk()->json();
        self::assertCount(4, $cameras);
        foreach ($cameras as $camera) {
            $object = $this->project->objects()->where('no', $camera['object'])->firstOrFail();
            $m = self::transform($object);
            foreach ([0, 1, 2] as $row) {
                self::assertEqualsWithDelta($m[$row * 4 + 3] - $origin[$row], $camera['eye'][$row], 1e-6);
            }
            $length = static fn (array $way): float => sqrt(array_sum(array_map(static fn (float $part): float => $part ** 2, $way)));
            self::assertEqualsWithDelta(1.0, $length($camera['way']), 1e-6);
            self::assertEqualsWithDelta(1.0, $length($camera['up']), 1e-6);
            $across = array_sum(array_map(static fn (float $a, float $b): float => $a * $b, $camera['way'], $camera['up']));
            self::assertEqualsWithDelta(0.0, $across, 1e-6, 'up is across the way');
            self::assertGreaterThan(5, $camera['fov']);
            self::assertLessThan(170, $camera['fov']);
            self::assertSame($object->name, $camera['name']);
        }
    }

    public function test_the_picture_of_a_project_is_the_first_that_comes(): void
    {
        $png = static fn (int $shade): string => 'data:image/png;base64,'.base64_encode("\x89PNG\r\n\x1a\n".chr($shade));
        $this->get($this->path('picture'))->assertNotFound();
        // One that nobody has opened is drawn without a canvas; what a canvas sends takes its place.
        (new DrawProject($this->project->id, $this->ida->id))->handle();
        $drawn = $this->get($this->path('picture'))->assertOk()->assertHeader('Content-Type', 'image/png');
        $image = imagecreatefromstring((string) Storage::disk('local')->get($this->project->refresh()->picture));
        \assert($image !== false);
        self::assertSame([248, 148], [imagesx($image), imagesy($image)]);
        // The site is green, beside it and above it there is nothing, and it goes from one side nearly to the other.
        $ground = [];
        for ($x = 0; $x < 248; $x++) {
            for ($y = 0; $y < 148; $y++) {
                $colour = imagecolorat($image, $x, $y);
                $colour === 0xe9e4d8 || ($ground[$x] = true);
            }
        }
        self::assertSame(0xe9e4d8, imagecolorat($image, 3, 3));
        self::assertGreaterThan(160, count($ground));
        self::assertSame(0, count(array_intersect(array_keys($ground), [0, 1, 246, 247])));
        self::assertStringContainsString('data-wants-picture="1"', (string) $this->get($this->path(''))->getContent());
        $this->send('POST', 'picture', ['picture' => $png(40)])->assertNoContent();
        $first = $this->get($this->path('picture'))->assertOk()->getContent();
        $this->send('POST', 'picture', ['picture' => $png(200)])->assertNoContent();
        self::assertSame($first, $this->get($this->path('picture'))->assertOk()->getContent(), 'the first one stays');
        $this->get('/projects')->assertSee("/projects/{$this->project->key}/picture", false);

        foreach (
            ['data:image/png;base64,AAAA', 'data:text/html;base64,'.base64_encode('<b>'), 'hall.png', str_repeat('A', 9000)] as $wrong
        ) {
            $this->postJson($this->path('picture'), ['picture' => $wrong])->assertStatus(422);
        }
        self::assertSame($first, $this->get($this->path('picture'))->assertOk()->getContent());
    }

    private function records(string $path): string
    {
        return self::sent($this->get($this->path($path)));
    }

    /** @param list<int> $numbers */
    private function some(array $numbers, string $more = ''): string
    {
        $asked = $numbers === [] ? '' : pack('V*', ...$numbers);

        return self::sent($this->call('POST', $this->path('records'), content: $asked.$more));
    }

    /** The bytes that go out; what the framework hands on to tests is empty where all bytes are 0. */
    private static function sent(TestResponse $answer): string
    {
        $answer->assertOk();
        self::assertSame('application/x-shelf-records', $answer->headers->get('Content-Type'));
        ob_start();
        $answer->baseResponse->sendContent();

        return (string) ob_get_clean();
    }

    /** @return list<array{object: int, mesh: int, facts: list<float>, m: list<float>}> */
    private static function read(string ...$answers): array
    {
        /** @var list<array{object: int, mesh: int, facts: list<float>, m: list<float>}> $found */
        $found = Node::run('placements.mjs', ...array_map(Gltf::keep(...), $answers));

        return $found;
    }

    /** @return array<int, array{int, list<float>, list<float>, list<float>}> mesh, transform, middle and half sides of the mesh's box */
    private function placed(): array
    {
        $boxes = [];
        foreach ($this->project->meshes()->get() as $mesh) {
            $bounds = array_values((array) unpack(strlen($mesh->bounds) === 24 ? 'g6' : 'e6', $mesh->bounds));
            $boxes[$mesh->no] = [
                array_map(static fn (int $axis): float => ($bounds[$axis] + $bounds[$axis + 3]) / 2, [0, 1, 2]),
                array_map(static fn (int $axis): float => ($bounds[$axis + 3] - $bounds[$axis]) / 2, [0, 1, 2]),
            ];
        }
        $placed = [];
        foreach ($this->project->objects()->where('mesh_no', '>', 0)->get() as $object) {
            $placed[$object->no] = [$object->mesh_no, self::transform($object), ...$boxes[$object->mesh_no]];
        }

        return $placed;
    }

    /** @return list<float> */
    private static function transform(ProjectObject $object): array
    {
        return Affine::unpack(Affine::lengthened(Bytes::read($object->getAttributes()['transform'])));
    }
}
