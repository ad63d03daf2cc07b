<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use Illuminate\Testing\TestResponse;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Bits;
use VineShelf\Section\Section;

/** The section of a desk, as the screens ask for it. */
final class SectionTest extends ProjectTestCase
{
    public function test_a_section_is_kept_turned_off_and_on_and_what_is_no_section_is_refused(): void
    {
        $this->cut(['on' => true, 'box' => [-5, -30, -6, 22, 40, 20], 'planes' => [[[0, 0, 2], 1.5]]])->assertOk();
        $section = $this->bench()->cutting()->section;
        self::assertSame([0.0, 0.0, 1.0], $section->single[0]->normal);
        self::assertTrue($section->cuts());
        $this->cut(['on' => false] + $section->toArray())->assertOk();
        self::assertFalse($this->bench()->cutting()->section->cuts());
        self::assertEquals($section->box, $this->bench()->cutting()->section->box);
        foreach (
            [
                'nothing',
                '{"box":[1,2,3]}',
                '{"planes":[[[0,0,0],1]]}',
                '{"planes":[[[1,0,0],"far"]]}',
                '{"planes":"many"}',
                '{"box":{"x":1},"planes":7}',
                (string) json_encode(['planes' => array_fill(0, Section::MOST_PLANES + 1, [[1, 0, 0], 1])]),
            ] as $odd
        ) {
            $this->send('POST', 'section', ['section' => $odd])->assertStatus(422);
        }
        self::assertEquals($section->box, $this->bench()->cutting()->section->box, 'what was refused changed nothing');
    }

    public function test_what_is_cut_away_is_not_caught_weighs_nothing_and_says_so(): void
    {
        $this->send('POST', 'pick', ['found' => 1, 'words' => 'layer:Lockers', 'mode' => 'replace']);
        $full = self::drawn($this->bench(), $this->bench()->seen());
        $this->send('POST', 'section/around', ['margin' => 0.01])->assertSee('A section box around the pick.');
        $bench = $this->bench();
        $picked = $bench->pickedBits();
        self::assertTrue($picked->and($bench->cutting()->gone())->isEmpty());
        self::assertLessThan($full / 3, self::drawn($bench, $bench->seen()));
        self::assertSame($full, self::drawn($bench, $bench->inEffect()), 'what is set is as it was');
        // A region over everything catches nothing that is cut away.
        $region = json_encode([
            'shape' => 'rectangle',
            'inside' => false,
            'points' => [[-9000, -9000], [9000, 9000]],
            'radius' => 20,
            'width' => 800,
            'height' => 600,
            'eye' => [40, -250, 200],
            'target' => [0, 0, 1],
            'up' => [0, 0, 1],
            'fov' => 40,
            'near' => 0.05,
        ]);
        $this->send('POST', 'pick/region', ['region' => $region, 'mode' => 'replace'])->assertSee('caught.');
        $caught = $this->bench()->pickedBits();
        self::assertTrue($caught->and($this->bench()->cutting()->gone())->isEmpty());
        self::assertSame($this->counted('layer:Lockers kind:part'), $caught->and($picked)->count(), 'and all that is left');
        $seat = $this->number('Seat_Shell_004');
        $this->get($this->path("why/$seat"))->assertSee('The section cuts it away.')->assertSee('Turn the section off');
        $this->send('POST', 'pick', ['mode' => 'replace']);
        $this->send('POST', 'section/around')->assertStatus(422)->assertSee('Nothing is picked');
    }

    public function test_cut_faces_come_as_triangles_of_the_objects_that_are_cut_in_the_colours_of_their_layers(): void
    {
        self::assertSame(pack('V2', 8, 0), $this->get($this->path('section/faces'))->getContent());
        $this->cut(['on' => true, 'planes' => [[[0, 0, 1], 1.2]]]);
        $bytes = (string) $this->get($this->path('section/faces'))->assertOk()->getContent();
        $count = unpack('V2', $bytes)[2] ?? 0;
        self::assertGreaterThan(500, $count);
        self::assertSame(8 + 44 * $count, strlen($bytes));
        /** @var array<int, int> $numbers */
        $numbers = unpack("V$count", $bytes, 8);
        /** @var array<int, int> $colours */
        $colours = unpack("V$count", $bytes, 8 + 4 * $count);
        $bench = $this->bench();
        $origin = $bench->facts()->origin();
        foreach ([1, 7, $count >> 1, $count] as $at) {
            $row = $bench->scene()->row($numbers[$at]);
            self::assertTrue($bench->cutting()->across()->has($row));
            self::assertSame(hexdec(ltrim($bench->layers()->get($bench->scene()->layers()->at($row))->colour, '#')), $colours[$at]);
            $corners = array_values((array) unpack('g9', $bytes, 8 + 8 * $count + 36 * ($at - 1)));
            foreach ([2, 5, 8] as $z) {
                self::assertEqualsWithDelta(1.2, $corners[$z] + $origin[2], 1e-4);
            }
        }
        // What is hidden, and what is a ghost, has no faces.
        $this->send('POST', 'rungs/ceiling', ['rung' => 2]);
        self::assertSame(pack('V2', 8, 0), $this->get($this->path('section/faces'))->getContent());
    }

    public function test_levels_are_where_most_of_what_stands_on_them_has_its_feet(): void
    {
        $levels = array_column((array) $this->getJson($this->path('section/levels'))->json(), 'floor', 'name');
        self::assertEqualsWithDelta(0.0, $levels['Pool level'], 0.06);
        self::assertLessThan(-1.5, $levels['Plant level']);
        self::assertSame($levels, array_replace([], $levels));
        self::assertSame(min($levels), reset($levels), 'from the lowest up');
    }

    private function counted(string $rule): int
    {
        return (int) $this->bench()->find($rule)->rows?->count();
    }

    /** @param array<string, mixed> $section */
    private function cut(array $section): TestResponse
    {
        return $this->send('POST', 'section', ['section' => json_encode($section)]);
    }

    private static function drawn(Bench $bench, InEffect $inEffect): int
    {
        return $bench->weights()->drawn(Bits::all($bench->scene()->count()), $inEffect->rungs());
    }
}
