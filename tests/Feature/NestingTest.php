<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use Illuminate\Support\Facades\DB;
use Tests\Core\Support\ForeignModel;
use VineShelf\Geometry\Affine;
use VineShelf\Layers\SortBy;
use VineShelf\Scene\Packed;

/** Groups, copies and objects that go, as the screens ask for them. */
final class NestingTest extends ProjectTestCase
{
    public function test_a_group_is_made_named_and_taken_apart_and_nothing_moves(): void
    {
        [$a, $b, $c] = $this->three();
        $placements = $this->placements();
        $before = $this->nesting();
        $this->send('POST', 'pick', ['keys' => "O$a,O$b", 'mode' => 'replace']);
        $this->send('POST', 'objects/group', ['name' => ' Front   row '])->assertSee('Group 2 objects as Front row.');
        $group = $this->project->refresh()->next_object - 1;
        $row = DB::table('objects')->where('project_id', $this->project->id)->where('no', $group)->first();
        self::assertSame(['Front row', 0, false], [$row->name, (int) $row->kind, (bool) $row->gone]);
        self::assertSame([$group, $group], [$this->parent($a), $this->parent($b)]);
        self::assertSame($before[$a][0], $this->parent($group), 'it stands where they stood');
        self::assertSame([$group], $this->bench()->pick()->numbers());
        self::assertSame($this->layerOf($a), (int) $row->layer_no);
        self::assertSame($placements, $this->placements());
        $this->assertIndexTrue($this->project);

        // Another one goes in, and one out again.
        $this->send('POST', 'objects/nest', ['keys' => "O$c", 'into' => $group])->assertSee('Move 1 object into Front row.');
        $this->send('POST', 'objects/nest', ['keys' => "O$a", 'into' => 0])->assertSee('Move 1 object to the top.');
        self::assertSame([0, $group, $group], [$this->parent($a), $this->parent($b), $this->parent($c)]);
        self::assertSame($placements, $this->placements());
        $this->send('POST', 'objects/ungroup', ['keys' => "O$group"])->assertSee('Ungroup 1 group.');
        self::assertSame(0, $this->bench()->scene()->row($group));
        self::assertSame($placements, $this->placements());
        $this->assertIndexTrue($this->project);
        for ($undo = 0; $undo < 4; $undo++) {
            $this->send('POST', 'undo')->assertSee('Undone: ');
            self::assertSame($placements, $this->placements());
        }
        self::assertSame($before, array_diff_key($this->nesting(), [$group => 0]));
        for ($redo = 0; $redo < 4; $redo++) {
            $this->send('POST', 'redo')->assertSee('Redone: ');
        }
        self::assertSame($placements, $this->placements());
        $this->assertIndexTrue($this->project);
    }

    public function test_objects_stay_within_a_micrometre_whatever_they_come_to_stand_in(): void
    {
        mt_srand(1121);
        $model = ForeignModel::grow(150);
        $this->project = $this->takeIn($this->ida, $model->write('glb'), SortBy::Unsorted)->project ?? self::fail('no project');
        $placements = $this->placements();
        $numbers = array_keys($this->nesting());
        $moved = 0;
        for ($step = 0; $step < 60; $step++) {
            $keys = implode(',', array_map(static fn (int $at): string => 'O'.$numbers[$at], (array) array_rand($numbers, mt_rand(2, 5))));
            $answer = match (mt_rand(0, 5)) {
                0 => $this->send('POST', 'objects/group', ['keys' => $keys, 'name' => "Group $step"]),
                1 => $this->send('POST', 'objects/ungroup', ['keys' => $keys]),
                2 => $this->send('POST', 'undo'),
                default => $this->send('POST', 'objects/nest', [
                    'keys' => $keys,
                    'into' => mt_rand(0, 3) === 0 ? 0 : $numbers[array_rand($numbers)],
                ]),
            };
            $moved += (int) ($answer->status() === 200);
            if ($step % 10 === 9) {
                self::assertSame($placements, $this->placements(), "step $step");
                $this->assertIndexTrue($this->project);
                $this->assertForest();
            }
        }
        self::assertGreaterThan(30, $moved);
        // What is written to a file is where it was as well.
        $bench = $this->bench();
        $file = sys_get_temp_dir().'/nesting-'.bin2hex(random_bytes(4)).'.glb';
        $rungs = (new \VineShelf\Rungs\InEffect($bench->scene(), $bench->organizers(), \VineShelf\Rungs\Settings::of([], [])))->rungs();
        (new \App\Exporting\Exporting($bench, $rungs))->write(\VineShelf\Scene\Bits::all($bench->scene()->count()), $file);
        $back = $this->takeIn($this->ida, $file, SortBy::Unsorted)->project ?? self::fail('no project');
        unlink($file);
        $boxes = fn (): array => self::boxes($this->bench());
        $here = $boxes();
        $this->project = $back;
        $there = $boxes();
        self::assertGreaterThan(20, count($here));
        foreach ($here as $at => $box) {
            $off = min(
                array_map(
                    static fn (array $other): float => max(array_map(static fn (float $a, float $b): float => abs($a - $b), $box, $other)),
                    $there,
                ),
            );
            self::assertLessThan(1e-4 * (1 + max(array_map(abs(...), $box))), $off, "box $at");
        }
    }

    public function test_siblings_are_put_in_order_by_hand_and_by_name(): void
    {
        [$a, $b, $c] = $this->three();
        $parent = $this->parent($a);
        $order = fn (): array => array_map(
            $this->bench()->scene()->number(...),
            $this->bench()
                ->scene()
                ->children($this->bench()->scene()->row($parent)),
        );
        $first = $order();
        $this->send('POST', 'objects/nest', ['keys' => "O$c", 'where' => 'before', 'mark' => $a])->assertOk();
        self::assertSame([$c, ...array_values(array_diff($first, [$c]))], $order());
        $this->send('POST', 'objects/shift', ['keys' => "O$c", 'by' => 1])->assertOk();
        self::assertSame([$a, $c, $b], array_slice($order(), 0, 3));
        $this->send('POST', 'objects/shift', ['keys' => "O$a", 'by' => -1])->assertSee('It is at the end already.');
        $this->send('POST', 'objects/nest', ['keys' => "O$a,O$b", 'where' => 'after', 'mark' => $first[5]])->assertOk();
        $moved = array_values(array_diff($first, [$a, $b]));
        self::assertSame([$a, $b], array_slice($order(), array_search($first[5], $order(), true) + 1, 2));
        self::assertSame(count($first), count(array_unique($order())));
        $this->send('GET', 'objects/order', ['keys' => "O$parent"])->assertSee('Sort 1 group by name');
        $this->send('POST', 'objects/order', ['keys' => "O$parent"])->assertOk();
        $names = fn (): array => array_map(
            fn (int $number): string => (string) DB::table('objects')
                ->where('project_id', $this->project->id)
                ->where('no', $number)
                ->value('name'),
            $order(),
        );
        $sorted = $names();
        natcasesort($sorted);
        self::assertSame(array_values($sorted), $names());
        $this->send('POST', 'objects/order', ['keys' => "O$parent"])->assertSee('It stands by name already.');
        for ($undo = 0; $undo < 4; $undo++) {
            $this->send('POST', 'undo')->assertSee('Undone: ');
        }
        self::assertSame($first, $order());
        $this->send('POST', 'objects/nest', ['keys' => "O$parent", 'into' => $a])
            ->assertStatus(422)
            ->assertSee('Nothing can stand in itself.');
        $this->send('POST', 'objects/nest', ['keys' => "O$a", 'into' => 999999])
            ->assertStatus(422)
            ->assertSee('no longer there');
    }

    public function test_what_it_means_is_said_before_and_views_go_on_showing_what_they_showed(): void
    {
        [$a, $b, $c] = $this->three();
        $parent = $this->parent($a);
        $this->send('POST', 'rungs', ['keys' => "O$parent", 'rung' => 0]);
        $this->send('POST', 'views', ['name' => 'Without', 'keep_rungs' => 1])->assertOk();
        $this->send('POST', 'locks', ['keys' => "O$parent", 'lock' => 1])->assertOk();
        $means = fn (array $values): string => $this->getJson($this->path('objects/means').'?'.http_build_query($values))->json('says');
        $held =
            $this->bench()
                ->scene()
                ->end($this->bench()->scene()->row($a)) -
            $this->bench()->scene()->row($a) +
            1;
        self::assertStringContainsString(number_format($held).' object', $means(['keys' => "O$a", 'into' => 0]));
        self::assertStringContainsString('will be shown more on your desk', $means(['keys' => "O$a", 'into' => 0]));
        self::assertStringContainsString('by no lock', $means(['keys' => "O$a", 'into' => 0]));
        self::assertStringContainsString('will be shown more', $means(['keys' => "O$parent", 'what' => 'ungroup']));
        self::assertSame('', $means(['keys' => "O$a,O$b", 'what' => 'group']));

        $shown = fn (): string => (string) $this->bench()
            ->scene()
            ->byNumber(
                $this->bench()
                    ->outputs()
                    ->shownIn($this->bench()->project->views()->firstOrFail())
                    ->rungs()
                    ->bytes(),
                "\0",
            );
        $before = $shown();
        $this->send('POST', 'objects/nest', ['keys' => "O$a", 'into' => 0])->assertOk();
        self::assertSame($before, $shown(), 'out of a group that the view hides, it stays hidden there');
        $desk = fn (int $number): int => $this->bench()
            ->inEffect()
            ->rung($this->bench()->scene()->row($number))->value;
        self::assertSame([5, 0], [$desk($a), $desk($b)]);
        $this->send('POST', 'objects/ungroup', ['keys' => "O$parent"])->assertOk();
        self::assertSame($before, substr_replace($shown(), $before[$parent], $parent, 1));
        self::assertSame(5, $desk($c));
        $this->send('POST', 'undo');
        self::assertSame($before, $shown());
        // Into what a view knows to be hidden: that is followed, and said.
        $other = $this->number('Lockers') ?: $this->groupBeside($parent);
        $this->send('POST', 'objects/nest', ['keys' => "O$other", 'into' => $parent])
            ->assertSee('1 view shows something differently now.')
            ->assertDontSee('as before');
    }

    public function test_a_group_around_old_objects_takes_nothing_from_views(): void
    {
        [$a, $b] = $this->three();
        $this->send('POST', 'views', ['name' => 'Before', 'keep_rungs' => 1])->assertOk();
        $view = fn (): \App\Models\View => $this->bench()->project->views()->firstOrFail();
        self::assertSame(0, $this->bench()->newTo()->count($view()));
        $this->send('POST', 'objects/group', ['keys' => "O$a,O$b", 'name' => 'Pair'])->assertOk();
        self::assertSame(0, $this->bench()->newTo()->rows($view())->count());
        self::assertTrue(
            $this->bench()
                ->outputs()
                ->shownIn($view())
                ->rungs()
                ->at($this->bench()->scene()->row($a)) === 5,
        );
        $this->send('POST', 'objects/copy', ['keys' => "O$a"])->assertOk();
        self::assertSame(0, $this->bench()->newTo()->rows($view())->count(), 'a copy is as old as its original');
        self::assertSame(
            5,
            $this->bench()
                ->outputs()
                ->shownIn($view())
                ->rungs()
                ->at($this->bench()->scene()->row($a)),
        );
    }

    public function test_copies_have_all_that_originals_have_and_stand_where_they_should(): void
    {
        $part = $this->number('Seat_Shell_003');
        $parent = $this->parent($part);
        $this->send('POST', 'tags', ['name' => 'Oak'])->assertOk();
        $this->send('POST', 'tag', ['tag' => 1, 'mode' => 'add', 'keys' => "O$part"])->assertOk();
        $this->send('POST', 'own', ['keys' => "O$part", 'property' => 'Client', 'value' => 'Bath club'])->assertOk();
        $this->send('POST', 'own', ['keys' => "O$part", 'property' => '~note', 'value' => 'the good one'])->assertOk();
        $this->send('POST', 'locks', ['keys' => "O$part", 'lock' => 1])->assertOk();
        $this->send('POST', 'rungs', ['keys' => "O$part", 'rung' => 3])->assertOk();
        $bea = $this->person('Bea Lind');
        $this->project->people()->attach($bea, ['role' => 'editor']);
        $this->actingAs($bea)
            ->post($this->path('rungs'), ['keys' => "O$part", 'rung' => 1, 'lens' => 'layers', 'from' => 0, 'count' => 5])
            ->assertOk();
        $this->actingAs($this->ida);
        $objects = $this->bench()->scene()->count();
        $triangles = $this->bench()->scene()->triangles(1, $objects);
        $each = $this->bench()
            ->scene()
            ->triangles($this->bench()->scene()->row($part), $this->bench()->scene()->row($part));
        $meshes = $this->project->meshes()->count();
        $this->send('POST', 'objects/copy', [
            'keys' => "O$part",
            'way' => 'row',
            'count' => 4,
            'x' => '0.5',
            'y' => '-1',
            'z' => '0.25',
        ])->assertSee('Copy 1 object 4 times.');
        $scene = $this->bench()->scene();
        $copies = $this->bench()->pick()->numbers();
        self::assertCount(4, $copies);
        self::assertSame(
            [$objects + 4, $triangles + 4 * $each, $meshes],
            [$scene->count(), $scene->triangles(1, $scene->count()), $this->project->meshes()->count()],
        );
        $at = fn (int $number): array => Affine::unpack(
            $scene->column('placements'),
            96 * Packed::uint32($scene->column('recordAt'), 4 * $scene->row($number), 1)[0],
        );
        $own = $at($part);
        foreach ($copies as $index => $copy) {
            $expected = $own;
            foreach ([3 => 0.5, 7 => -1.0, 11 => 0.25] as $entry => $step) {
                $expected[$entry] += ($index + 1) * $step;
            }
            foreach ($expected as $entry => $value) {
                self::assertEqualsWithDelta($value, $at($copy)[$entry], 1e-9);
            }
            self::assertSame([$parent, $this->layerOf($part)], [$this->parent($copy), $this->layerOf($copy)]);
        }
        $found = fn (string $rule): array => array_map($scene->number(...), $this->bench()->find($rule)->rows?->rows() ?? []);
        foreach (['tag=Oak', 'client="Bath club"', 'note:"good one"', 'is guarded', 'is coarse'] as $rule) {
            $those = $found($rule);
            sort($those);
            self::assertSame([$part, ...$copies], array_values(array_intersect($those, [$part, ...$copies])), $rule);
        }
        $hers = Bench::of($this->project->refresh(), $bea);
        $hersNow = static fn (int $copy): int => $hers->inEffect()->rung($scene->row($copy))->value;
        self::assertSame([1, 1, 1, 1], array_map($hersNow, $copies));
        $names = DB::table('objects')->where('project_id', $this->project->id)->whereIn('no', $copies)->orderBy('no')->pluck('name')->all();
        self::assertSame(count($names), count(array_unique($names)));
        self::assertSame(1, preg_match('~^Seat_Shell_\d{3}$~', $names[0]));
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'undo')->assertSee('Undone: Copy');
        self::assertSame([$objects, $triangles], [$this->bench()->scene()->count(), $this->bench()->scene()->triangles(1, $objects)]);
        $this->send('POST', 'redo')->assertOk();
        self::assertSame([$part, ...$copies], array_values(array_intersect($found('tag=Oak'), [$part, ...$copies])));
        $this->assertIndexTrue($this->project);
        // What copies draw came in the file: it cannot be taken back under them.
        $file = (int) DB::table('changes')->where('project_id', $this->project->id)->where('name', 'like', 'Take in%')->value('no');
        $this->send('POST', 'undo', ['change' => $file])
            ->assertSee('cannot be taken back')
            ->assertSee('is still needed: 4 other objects');
    }

    public function test_copies_in_a_circle_of_a_whole_group_and_too_many_are_refused(): void
    {
        [$a] = $this->three();
        $held =
            $this->bench()
                ->scene()
                ->end($this->bench()->scene()->row($a)) -
            $this->bench()->scene()->row($a) +
            1;
        $count = $this->bench()->scene()->count();
        $this->send('POST', 'objects/copy', [
            'keys' => "O$a",
            'way' => 'circle',
            'count' => 5,
            'around_x' => '3',
            'around_y' => '4',
        ])->assertOk();
        self::assertSame($count + 5 * $held, $this->bench()->scene()->count());
        $middle = static fn (?array $box): array => [($box[0] + $box[3]) / 2, ($box[1] + $box[4]) / 2];
        $bench = $this->bench();
        $far = [];
        foreach ([$a, ...$bench->pick()->numbers()] as $number) {
            $row = $bench->scene()->row($number);
            [$first] = Packed::uint32($bench->scene()->column('recordAt'), 4 * $row, 1);
            $m = Affine::unpack($bench->scene()->column('placements'), 96 * $first);
            $far[] = round(hypot($m[3] - 3, $m[7] - 4), 6);
        }
        self::assertCount(1, array_unique($far), 'all are as far from the middle of the circle');
        $this->assertIndexTrue($this->project);
        $this->refused(['keys' => "O$a", 'way' => 'row', 'count' => 10001]);
        $all = implode(',', array_map(static fn (int $number): string => "O$number", array_slice(array_keys($this->nesting()), 0, 60)));
        $this->send('POST', 'objects/copy', ['keys' => $all, 'way' => 'row', 'count' => 9000])
            ->assertStatus(422)
            ->assertSee('at most 100,000 objects');
        foreach (['x' => 'far', 'count' => '0', 'way' => 'up', 'turn' => '1e99'] as $field => $value) {
            $this->refused(['keys' => "O$a", 'way' => 'row', $field => $value]);
        }
    }

    public function test_objects_are_deleted_but_for_what_is_locked_and_what_that_stands_in(): void
    {
        [$a, $b] = $this->three();
        $parent = $this->parent($a);
        $scene = $this->bench()->scene();
        $all = $scene->end($scene->row($parent)) - $scene->row($parent) + 1;
        $this->send('POST', 'locks', ['keys' => "O$b", 'lock' => 2])->assertOk();
        $locked = $scene->end($scene->row($b)) - $scene->row($b) + 1;
        $this->send('POST', 'objects/delete', ['keys' => "O$parent"])
            ->assertSee('locked')
            ->assertSee('Delete '.number_format($all - $locked - 1).' objects.');
        $scene = $this->bench()->scene();
        self::assertSame([0, true, true], [$scene->row($a), $scene->row($b) > 0, $scene->row($parent) > 0]);
        $this->send('POST', 'objects/delete', ['keys' => "O$b"])
            ->assertStatus(422)
            ->assertSee('All of it is locked');
        $this->assertIndexTrue($this->project);
        $this->send('POST', 'undo')->assertSee('Undone: Delete');
        self::assertGreaterThan(0, $this->bench()->scene()->row($a));
        $this->assertIndexTrue($this->project);
        // Moving and grouping leave alone what is locked, too.
        $this->send('POST', 'objects/nest', ['keys' => "O$b", 'into' => 0])->assertStatus(422);
        $this->send('POST', 'objects/group', ['keys' => "O$a,O$b", 'name' => 'Pair'])->assertSee('1 locked object was left alone.');
        self::assertSame($parent, $this->parent($b));
    }

    public function test_what_stands_in_a_group_keeps_it_and_a_file_whose_meshes_are_copied_stays(): void
    {
        [$a, $b, $c] = $this->three();
        $this->send('POST', 'objects/group', ['keys' => "O$a,O$b", 'name' => 'Pair'])->assertOk();
        $group = $this->project->refresh()->next_object - 1;
        $bea = $this->person('Bea Lind');
        $this->project->people()->attach($bea, ['role' => 'editor']);
        $this->actingAs($bea)
            ->post($this->path('objects/nest'), ['keys' => "O$c", 'into' => $group, 'lens' => 'layers', 'from' => 0, 'count' => 5])
            ->assertOk();
        $this->actingAs($this->ida);
        $change = (int) DB::table('changes')->where('project_id', $this->project->id)->where('name', 'like', 'Group%')->max('no');
        $this->send('POST', 'undo', ['change' => $change])->assertSee('Bea Lind');
        self::assertSame([$group, $group, $group], [$this->parent($a), $this->parent($b), $this->parent($c)]);
    }

    /** @param array<string, string|int> $values */
    private function refused(array $values): void
    {
        $this->postJson($this->path('objects/copy'), $values)->assertStatus(422);
    }

    /** @return list<int> numbers of three groups or parts that stand beside each other in one group, and hold something together */
    private function three(): array
    {
        $scene = $this->bench()->scene();
        foreach ($scene->groups() as $row) {
            $children = $scene->children($row);
            if (
                count($children) >= 8 &&
                count(array_filter($children, static fn (int $child): bool => $scene->triangles($child, $scene->end($child)) > 0)) >= 8
            ) {
                return array_map($scene->number(...), array_slice($children, 0, 3));
            }
        }
        self::fail('The demo has no such group.');
    }

    private function groupBeside(int $number): int
    {
        $scene = $this->bench()->scene();
        foreach ($scene->groups() as $row) {
            if (
                $scene->number($row) !== $number &&
                ! in_array($scene->row($number), [$row, ...$scene->ancestors($row)], true) &&
                ! in_array($row, $scene->ancestors($scene->row($number)), true)
            ) {
                return $scene->number($row);
            }
        }
        self::fail('There is no other group.');
    }

    private function parent(int $number): int
    {
        return (int) DB::table('objects')->where('project_id', $this->project->id)->where('no', $number)->value('parent_no');
    }

    private function layerOf(int $number): int
    {
        return (int) DB::table('objects')->where('project_id', $this->project->id)->where('no', $number)->value('layer_no');
    }

    /** @return array<int, array{int, int}> parent and place by number, of what is there */
    private function nesting(): array
    {
        $nesting = [];
        foreach (
            DB::table('objects')
                ->where('project_id', $this->project->id)
                ->where('gone', false)
                ->orderBy('no')
                ->get(['no', 'parent_no', 'position']) as $object
        ) {
            $nesting[(int) $object->no] = [(int) $object->parent_no, (int) $object->position];
        }

        return $nesting;
    }

    /** @return array<int, string> where everything that draws stands in the world, to the last bit, by number */
    private function placements(): array
    {
        $bench = Bench::of($this->project->refresh(), $this->ida);
        $scene = $bench->scene();
        $placements = [];
        for ($row = 1; $row <= $scene->count(); $row++) {
            [$first, $end] = Packed::uint32($scene->column('recordAt'), 4 * $row, 2);
            if ($end > $first) {
                $placements[$scene->number($row)] = bin2hex(substr($scene->column('placements'), 96 * $first, 96 * ($end - $first)));
            }
        }
        ksort($placements);

        return $placements;
    }

    /** @return list<list<float>> boxes of what draws, in order */
    private static function boxes(Bench $bench): array
    {
        $boxes = [];
        for ($row = 1; $row <= $bench->scene()->count(); $row++) {
            if ($bench->scene()->triangles($row, $row) > 0) {
                $box = $bench->facts()->box($row);
                if ($bench->scene()->end($row) === $row && $box !== null) {
                    $boxes[] = $box;
                }
            }
        }
        usort(
            $boxes,
            static fn (array $a, array $b): int => array_map(static fn (float $value): float => round($value, 3), $a) <=>
                array_map(static fn (float $value): float => round($value, 3), $b),
        );

        return $boxes;
    }

    private function assertForest(): void
    {
        $nesting = $this->nesting();
        foreach ($nesting as $number => [$parent]) {
            for ($at = $parent, $steps = 0; $at !== 0; $at = $nesting[$at][0] ?? self::fail("$number stands in what is gone")) {
                self::assertLessThan(500, $steps++);
            }
        }
    }
}
