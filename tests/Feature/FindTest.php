<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Ledger\GroupsLens;
use App\Ledger\LayersLens;
use App\Ledger\NestingLens;
use App\Ledger\ObjectsLens;
use App\Ledger\Row;
use App\Ledger\Sorting;
use App\Models\LedgerLayout;
use App\Scenes\MeshShapes;
use App\Scenes\SceneStore;
use Illuminate\Support\Facades\DB;
use VineShelf\Facts\Order;
use VineShelf\Picking\Ray;
use VineShelf\Scene\Pick;

/** Finding by rule, the lenses of the ledger, columns, sorting and layouts. */
final class FindTest extends ProjectTestCase
{
    public function test_a_rule_narrows_the_ledger_and_says_what_it_names_in_vain(): void
    {
        $this->get($this->path('ledger?lens=objects&words='.urlencode('kind:part layer:"51 Seats"')))
            ->assertOk()
            ->assertSee('data-hits="240"', false)
            ->assertSee('Seat_Shell_001')
            ->assertDontSee('Deck panel');
        $this->get($this->path('ledger?lens=layers&words='.urlencode('layer:Attic or lifering')))
            ->assertOk()
            ->assertSee('data-hits="4"', false)
            ->assertSee('There is no layer with “Attic” in its name.');
        $this->get($this->path('ledger?lens=layers&words='.urlencode('"fire rating":EI30 kind:group')))
            ->assertOk()
            ->assertSee('data-hits="', false)
            ->assertSee('32 Doors');
        $this->get($this->path('ledger?lens=layers&words='.urlencode('seat kind:chair')))
            ->assertStatus(422)
            ->assertHeader('HX-Reswap', 'none')
            ->assertSee('“chair” is not a kind')
            ->assertSee('>chair</mark', false)
            ->assertSee('data-at="10"', false);
        $this->get($this->path('ledger?lens=layers&words='.urlencode(str_repeat('x ', 2500))))
            ->assertStatus(422)
            ->assertSee('at most 4,000 characters');
        // A page whose rule no longer parses still shows its ledger.
        $this->send('POST', 'rungs', ['keys' => 'L2', 'rung' => 2, 'words' => 'layer:'])
            ->assertOk()
            ->assertSee('After layer: comes');
    }

    public function test_states_in_a_rule_follow_the_desk_at_once(): void
    {
        $hits = fn (string $rule): int => (int) preg_replace(
            '~.*?data-hits="(\d*)".*~s',
            '$1',
            (string) $this->get($this->path('ledger?lens=objects&words='.urlencode($rule)))->assertOk()->getContent(),
        );
        self::assertSame(0, $hits('is hidden'));
        $this->send('POST', 'rungs', ['keys' => 'L'.$this->layer($this->project, '51 Seats'), 'rung' => 0]);
        self::assertSame(253, $hits('is hidden'));
        self::assertSame(3197, $hits('is hidden') + $hits('is shown'));
        $this->send('POST', 'locks', ['keys' => 'L'.$this->layer($this->project, '32 Doors'), 'lock' => 2]);
        self::assertSame($hits('layer:"32 Doors"'), $hits('is locked layer:"32 Doors"'));
        $this->send('POST', 'pick', ['found' => 1, 'mode' => 'replace', 'words' => 'seat_shell_00?']);
        self::assertSame(9, $hits('is picked'));
        $this->send('POST', 'views', ['name' => 'Before', 'keep_rungs' => 1]);
        $this->send('POST', 'rungs', ['keys' => 'L'.$this->layer($this->project, '51 Seats'), 'rung' => 2]);
        self::assertSame(
            [0, 0, 253, 3197 - 253, 253],
            array_map($hits, [
                'is newer than Before',
                'is hidden',
                'is hidden in Before',
                'in view "Before"',
                'is ghost is hidden in before',
            ]),
        );
    }

    public function test_steps_go_round_through_the_hits_in_the_order_of_the_ledger(): void
    {
        $step = fn (int $from, int $way, string $words = 'lifering'): array => (array) $this->getJson(
            $this->path("find/step?lens=objects&words=$words&object=$from&way=$way"),
        )
            ->assertOk()
            ->json();
        $first = $step(0, 1);
        self::assertSame([1, 4], [$first['place'], $first['total']]);
        self::assertCount(6, $first['box']);
        $second = $step($first['object'], 1);
        $last = $step($first['object'], -1);
        self::assertSame([2, 4], [$second['place'], $last['place']]);
        self::assertSame(1, $step($last['object'], 1)['place'], 'after the last comes the first');
        self::assertSame(0, $step(0, 1, 'nothingiscalledthis')['total']);
        $this->send('POST', 'ledger', ['sort' => 'name', 'down' => 1]);
        self::assertSame($last['object'], $step(0, 1)['object'], 'in the order of the sorting');
        $this->getJson($this->path('find/step?words=&object=0&way=1'))->assertStatus(422);
    }

    public function test_a_hit_that_stands_under_several_tags_is_stepped_to_once_and_one_that_stands_nowhere_at_last(): void
    {
        $words = 'lifering or seat_shell_00?';
        foreach (
            ['One' => 'seat_shell_00? or lifering', 'Two' => 'seat_shell_004 or seat_shell_002', 'Three' => '"lifering (1)"'] as $tag => $of
        ) {
            $this->send('POST', 'pick', ['found' => 1, 'words' => $of, 'mode' => 'replace']);
            $this->send('POST', 'tags', ['name' => $tag, 'from_pick' => 1]);
        }
        // The first tag has fewer then: some hits have none.
        $this->send('POST', 'pick', ['found' => 1, 'words' => 'lifering or seat_shell_004', 'mode' => 'replace']);
        $this->send('POST', 'tag', ['tag' => 1, 'mode' => 'remove']);
        foreach (['' => 0, 'name' => 1] as $sort => $down) {
            $this->send('POST', 'ledger', ['lens' => 'tags', 'sort' => $sort, 'down' => $down]);
            $answer = (string) $this->get(
                $this->path('ledger?'.http_build_query(['lens' => 'tags', 'words' => $words, 'count' => 200])),
            )->getContent();
            preg_match_all('~data-key="O(\d+)"~', $answer, $rows);
            $found = array_map($this->bench()->scene()->number(...), $this->bench()->find($words)->rows?->rows() ?? []);
            $expected = array_values(array_unique(array_map(intval(...), $rows[1])));
            self::assertNotSame(count($rows[1]), count($expected), 'some stand under two tags');
            self::assertGreaterThan(count($expected), count($found), 'some stand under none');
            $seen = [];
            for ($object = 0, $step = 1; $step <= count($found); $step++) {
                $hit = (array) $this->getJson(
                    $this->path('find/step?'.http_build_query(['lens' => 'tags', 'words' => $words, 'object' => $object, 'way' => 1])),
                )->json();
                self::assertSame([$step, count($found)], [$hit['place'], $hit['total']]);
                $seen[] = $object = $hit['object'];
            }
            self::assertSame($expected, array_slice($seen, 0, count($expected)));
            sort($seen);
            sort($found);
            self::assertSame($found, $seen, 'each of them once');
        }
    }

    public function test_a_hit_is_looked_at_from_where_nothing_stands_in_front_of_it(): void
    {
        $bench = $this->bench();
        $scene = $bench->scene();
        $shapes = new MeshShapes($this->project, $scene);
        [$ox, $oy, $oz] = $bench->facts()->origin();
        $moved = $kept = 0;
        foreach ($bench->find('seat_shell kind:part')->rows?->slice(0, 40) ?? [] as $row) {
            $box = $bench->facts()->box($row) ?? self::fail('a seat is nowhere');
            $middle = [($box[0] + $box[3]) / 2, ($box[1] + $box[4]) / 2, ($box[2] + $box[5]) / 2];
            // From the south east, through columns and the seats in front.
            $wanted = [$middle[0] + 4.1 - $ox, $middle[1] - 5.2 - $oy, $middle[2] + 0.8 - $oz];
            $eye = (array) $this->getJson(
                $this->path('find/sight?'.http_build_query(['object' => $scene->number($row), 'eye' => $wanted])),
            )
                ->assertOk()
                ->json('eye');
            if ($eye === []) {
                continue;
            }
            $same = abs($eye[0] - $wanted[0]) + abs($eye[1] - $wanted[1]) + abs($eye[2] - $wanted[2]) < 1e-6;
            $same ? $kept++ : $moved++;
            $way = [$middle[0] - $ox - $eye[0], $middle[1] - $oy - $eye[1], $middle[2] - $oz - $eye[2]];
            self::assertEqualsWithDelta(
                sqrt(4.1 ** 2 + 5.2 ** 2 + 0.8 ** 2),
                sqrt($way[0] ** 2 + $way[1] ** 2 + $way[2] ** 2),
                1e-3,
                'as far away',
            );
            $met = (new Ray([$eye[0] + $ox, $eye[1] + $oy, $eye[2] + $oz], [$way[0], $way[1], $way[2]]))->meet(
                $bench->facts(),
                $bench->inEffect(),
                $shapes,
            );
            self::assertTrue($met === null || $met['row'] === $row || $met['distance'] > 0.85, 'nothing stands in front');
        }
        self::assertGreaterThan(0, $moved);
        self::assertGreaterThan(0, $kept + $moved);
        $seat = $this->number('Seat_Shell_003');
        $this->send('POST', 'rungs', ['keys' => "O$seat", 'rung' => 0]);
        self::assertNull(
            $this->getJson($this->path("find/sight?object=$seat&eye[]=1&eye[]=2&eye[]=3"))->assertOk()->json('eye'),
            'what is hidden cannot be seen from anywhere',
        );
        self::assertNull($this->getJson($this->path('find/sight?object=999999&eye[]=1&eye[]=2&eye[]=3'))->assertOk()->json('eye'));
        foreach (
            ['object=5', 'object=5&eye[]=1&eye[]=2', 'object=five&eye[]=1&eye[]=2&eye[]=3', 'object=5&eye[]=1&eye[]=2&eye[]=1e99'] as $bad
        ) {
            $this->getJson($this->path("find/sight?$bad"))->assertStatus(422);
        }
    }

    public function test_a_rule_is_narrowed_by_clicking_and_completed_while_typing(): void
    {
        $narrow = fn (string $words, string $by, string $way): string => (string) $this->getJson(
            $this->path('find/narrow?'.http_build_query(['words' => $words, 'by' => $by, 'way' => $way])),
        )
            ->assertOk()
            ->json('words');
        self::assertSame('kind:part', $narrow('', 'kind:part', 'only'));
        self::assertSame(
            'seat and kind:light',
            $narrow('seat kind:part', 'kind:light', 'only'),
            'another kind takes the place of the one before',
        );
        self::assertSame('seat and not kind:part', $narrow('seat', 'kind:part', 'without'));
        self::assertSame('(seat or pump) and class="Pump"', $narrow('seat or pump', 'class="Pump"', 'only'));
        $this->getJson($this->path('find/narrow?words=layer:&by=kind:part&way=only'))->assertStatus(422);
        $offers = $this->getJson($this->path('find/complete?words='.urlencode('layer:sea').'&at=9'))->assertOk()->json();
        self::assertSame(
            ['51 Seats', '"51 Seats" ', 253, 6, 3],
            [$offers[0]['label'], $offers[0]['insert'], $offers[0]['objects'], $offers[0]['at'], $offers[0]['length']],
        );
    }

    public function test_names_of_everything_are_found_for_the_command_box_and_rows_by_typing_ahead(): void
    {
        $this->send('POST', 'views', ['name' => 'Seats from above', 'keep_rungs' => 1]);
        $names = $this->getJson($this->path('find/names?q=SEAT'))->assertOk()->json();
        self::assertSame(['layer' => '51 Seats', 'view' => 'Seats from above'], array_column(array_slice($names, 0, 2), 'name', 'what'));
        self::assertContains('object', array_column($names, 'what'));
        self::assertSame([], $this->getJson($this->path('find/names?q=%20'))->json());
        $ahead = fn (string $lens, string $starts, int $after): ?int => $this->getJson(
            $this->path("ledger/ahead?lens=$lens&starts=$starts&after=$after"),
        )
            ->assertOk()
            ->json('place');
        $bench = Bench::of($this->project->refresh(), $this->ida);
        $pools = array_values(
            array_filter(
                array_map(
                    static fn (Row $row): ?string => str_starts_with($row->name, '4') ? $row->key : null,
                    (new LayersLens($bench, []))->rows(0, 60),
                ),
            ),
        );
        $place = (new LayersLens($bench, []))->position($pools[0]);
        self::assertSame($place, $ahead('layers', '4', -1));
        self::assertSame((new LayersLens($bench, []))->position($pools[1]), $ahead('layers', '4', (int) $place));
        self::assertSame($place, $ahead('layers', '4', 3000), 'from the top again');
        self::assertNull($ahead('layers', 'zzz', -1));
        self::assertSame(1, $ahead('kinds', 'part', -1));
    }

    public function test_every_sorting_shows_the_rows_that_sorting_all_of_them_gives(): void
    {
        $bench = Bench::of($this->project, $this->ida);
        $scene = $bench->scene();
        $facts = $bench->facts();
        $names = $this->project->objects()->pluck('name', 'no')->all();
        $all = range(1, $scene->count());
        $values = [
            'name' => static fn (int $row): ?string => $names[$scene->number($row)] === ''
                ? null
                : Order::sortKey($names[$scene->number($row)]),
            'height' => static fn (int $row): ?float => ($box = $facts->box($row)) === null ? null : round($box[5] - $box[2], 4),
            'triangles' => static fn (int $row): int => $scene->triangles($row, $row),
            'count' => static fn (int $row): int => $scene->end($row) - $row,
            'class' => static fn (int $row): ?string => $facts->className($row) === '' ? null : Order::sortKey($facts->className($row)),
            'layer' => static fn (int $row): int => (int) array_search(
                $scene->layers()->at($row),
                array_map(static fn (array $entry): int => $entry[0]->number, $bench->layers()->walk()),
                true,
            ),
            'p:diameter' => static fn (int $row): int|float|string|null => $facts->property($row, 'diameter'),
        ];
        foreach ($values as $by => $value) {
            foreach ([false, true] as $down) {
                $with = array_values(array_filter($all, static fn (int $row): bool => $value($row) !== null));
                $keys = array_map($value, $with);
                array_multisort($keys, $down ? SORT_DESC : SORT_ASC, is_string($keys[0]) ? SORT_STRING : SORT_REGULAR, $with);
                $slow = [...$with, ...array_values(array_filter($all, static fn (int $row): bool => $value($row) === null))];
                $order = (new Sorting($bench))->order($by, $down);
                $lens = new ObjectsLens($bench, $order, null);
                foreach ([0, 1700, 3150] as $from) {
                    $expected = array_map(static fn (int $row): string => 'O'.$scene->number($row), array_slice($slow, $from, 60));
                    self::assertSame($expected, $lens->keys($from, 60), "$by from $from");
                    self::assertSame($from, $lens->position($expected[0]));
                }
                $found = $bench->find('kind:part triangles > 50')->rows ?? self::fail('nothing found');
                $kept = array_values(array_filter($slow, $found->has(...)));
                $narrowed = new ObjectsLens($bench, $order, $found);
                self::assertSame(count($kept), $narrowed->total());
                self::assertSame(
                    array_map(static fn (int $row): string => 'O'.$scene->number($row), array_slice($kept, 200, 60)),
                    $narrowed->keys(200, 60),
                    "$by narrowed",
                );
                self::assertSame(200, $narrowed->position('O'.$scene->number($kept[200])));
            }
        }
    }

    public function test_a_sorted_nesting_keeps_its_levels(): void
    {
        $bench = Bench::of($this->project, $this->ida);
        $scene = $bench->scene();
        $unfolded = [];
        mt_srand(9);
        foreach ($scene->groups() as $group) {
            if (mt_rand(0, 2) > 0) {
                $unfolded[$scene->number($group)] = true;
            }
        }
        foreach ([null, $bench->find('seat or pump')->rows] as $found) {
            $plain = new NestingLens($bench, Pick::of(array_keys($unfolded)), null, $found);
            $shown = array_flip($plain->keys(0, 5000));
            $order = (new Sorting($bench))->order('weigh', true);
            $sorted = new NestingLens($bench, Pick::of(array_keys($unfolded)), $order, $found);
            $slow = [];
            $walk = static function (int $parent) use (&$walk, &$slow, $scene, $shown): void {
                $children = array_filter($scene->children($parent), static fn (int $row): bool => isset($shown['O'.$scene->number($row)]));
                usort(
                    $children,
                    static fn (int $a, int $b): int => [$scene->triangles($b, $scene->end($b)), $a] <=> [
                        $scene->triangles($a, $scene->end($a)),
                        $b,
                    ],
                );
                foreach ($children as $row) {
                    $slow[] = 'O'.$scene->number($row);
                    $walk($row);
                }
            };
            $walk(0);
            self::assertSame($plain->total(), $sorted->total());
            self::assertSame($slow, $sorted->keys(0, 5000));
            for ($try = 0; $try < 30; $try++) {
                $at = mt_rand(0, count($slow) - 1);
                self::assertSame(array_slice($slow, $at, 20), $sorted->keys($at, 20));
                self::assertSame($at, $sorted->position($slow[$at]));
            }
        }
    }

    public function test_the_condition_of_a_row_finds_what_the_row_stands_for_whatever_it_is_called(): void
    {
        $odd = 'Quo"te\\ and not (seat* or <b>?';
        $this->send('PATCH', 'rows/L16', ['name' => $odd])->assertOk();
        DB::table('materials')
            ->where('project_id', $this->project->id)
            ->where('no', 3)
            ->update(['name' => "$odd or"]);
        DB::table('sources')
            ->where('project_id', $this->project->id)
            ->update(['name' => "$odd.glb"]);
        $this->app->make(SceneStore::class)->forget($this->project);
        $bench = $this->bench();
        $seen = [];
        foreach (['kinds', 'materials', 'sources'] as $what) {
            $open = $what === 'kinds' ? ['K0' => true, 'K1' => true] : [];
            array_push($seen, ...(new GroupsLens($bench, $what, $open, null, null))->rows(0, 400));
        }
        array_push($seen, ...(new LayersLens($bench, [], null, null))->rows(0, 400));
        $checked = 0;
        foreach ($seen as $row) {
            // A class beside others of its kind, and materials that share a name, are found by name with the others.
            if ($row->condition() === '' || $row->kind === 'class' || $row->count === 0) {
                continue;
            }
            $found = $bench->find($row->condition());
            self::assertNull($found->error, $row->condition());
            self::assertSame($row->count, $found->rows?->count(), $row->condition());
            $checked++;
        }
        self::assertGreaterThan(60, $checked);
        self::assertSame('layer="Quo\"te\\\\ and not (seat* or <b>?"', $this->rowNamed($seen, $odd)->condition());
        // The page says it, and the menu's way narrows by it.
        $page = (string) $this->send('GET', 'ledger', count: 47)->getContent();
        self::assertStringContainsString('data-condition="'.e($this->rowNamed($seen, $odd)->condition()).'"', $page);
        $by = urlencode($this->rowNamed($seen, $odd)->condition());
        $words = $this->getJson($this->path("find/narrow?words=seat&by=$by&way=without"))->assertOk()->json('words');
        self::assertSame(0, $bench->find("($words) and layer:Quo")->rows?->count());
        // Offered values bring the whole condition.
        $offered = $this->getJson($this->path('find/complete?words=class%3D&at=6'))->json();
        self::assertNotSame([], $offered);
        foreach ($offered as $offer) {
            self::assertSame($offer['objects'], $bench->find($offer['condition'])->rows?->count(), $offer['condition']);
        }
    }

    /** @param list<Row> $rows */
    private function rowNamed(array $rows, string $name): Row
    {
        return array_values(array_filter($rows, static fn (Row $row): bool => $row->name === $name))[0];
    }

    public function test_kinds_materials_and_sources_hold_what_a_rule_says_they_hold(): void
    {
        $bench = Bench::of($this->project, $this->ida);
        $count = static fn (string $rule): int => (int) $bench->find($rule)->rows?->count();
        $rows = static fn (string $what, array $open = [], string $rule = ''): array => (new GroupsLens(
            $bench,
            $what,
            $open,
            null,
            $rule === '' ? null : $bench->find($rule)->rows,
        ))->rows(0, 400);
        foreach (['kinds' => 'kind:', 'materials' => 'material=', 'sources' => 'source='] as $what => $field) {
            $seen = 0;
            foreach ($rows($what) as $row) {
                $rule = match (true) {
                    $row->key === 'M0' => 'has geometry has no material',
                    $what === 'kinds' => 'kind:'.($row->name === 'Point sets' ? 'points' : strtolower(rtrim($row->name, 's'))),
                    default => $field.'"'.$row->name.'"',
                };
                self::assertSame($count($rule), $row->count, $row->name);
                $seen++;
            }
            self::assertGreaterThan(0, $seen);
        }
        $isClass = static fn (Row $row): bool => str_starts_with($row->key, 'K1.');
        $parts = array_values(array_filter($rows('kinds', ['K1' => true]), $isClass));
        self::assertSame(
            $count('kind:part class="Column"'),
            array_values(array_filter($parts, static fn (Row $row): bool => $row->name === 'Column'))[0]->count,
        );
        $lens = new GroupsLens($bench, 'kinds', ['K1' => true, $parts[0]->key => true], null, null);
        $keys = $lens->keys(0, 5000);
        self::assertCount($lens->total(), array_unique($keys));
        foreach ([5, 100, 900] as $place) {
            self::assertSame($place, $lens->position($keys[$place]));
        }
        $narrowed = $rows('materials', [], 'seat');
        self::assertNotSame([], array_filter($narrowed, static fn (Row $row): bool => $row->isObject()), 'what is found is unfolded');
        self::assertSame(
            $count('seat has material'),
            count(
                array_unique(
                    array_map(
                        static fn (Row $row): string => $row->key,
                        array_filter(
                            (new GroupsLens($bench, 'materials', [], null, $bench->find('seat')->rows))->rows(0, 4000),
                            static fn (Row $row): bool => $row->isObject() &&
                                (int) $bench->facts()->materialsOf($bench->scene()->row($row->number())) >= 0,
                        ),
                    ),
                ),
            ) - $count('seat has geometry has no material'),
        );
    }

    public function test_rows_of_groups_are_picked_set_and_isolated_like_layers(): void
    {
        $this->send('POST', 'ledger', ['lens' => 'kinds']);
        $this->send('POST', 'pick', ['keys' => 'K2', 'mode' => 'replace'])->assertSee('picked');
        $lights = $this->bench()->pick()->count();
        self::assertSame((int) $this->bench()->find('kind:light')->rows?->count(), $lights);
        $this->send('POST', 'rungs', ['keys' => 'K2', 'rung' => 0])->assertSee("$lights objects: Hidden.");
        self::assertSame($lights, $this->bench()->find('kind:light is hidden')->rows?->count());
        $this->send('POST', 'pick', ['span' => '0-1', 'mode' => 'replace', 'lens' => 'kinds']);
        self::assertSame(
            (int) $this->bench()->find('kind:group or kind:part')->rows?->count(),
            $this->bench()->pick()->count(),
            'a stretch of groups picks what they hold',
        );
        $this->send('POST', 'pick', ['keys' => 'K99,M5000,S7,X1,K1.77', 'mode' => 'replace'])->assertOk();
        self::assertSame(0, $this->bench()->pick()->count());
    }

    public function test_the_ledger_is_unfolded_to_a_depth_all_or_one_row_deep(): void
    {
        $total = fn (array $values): int => (int) preg_replace(
            '~.*?data-total="(\d+)".*~s',
            '$1',
            (string) $this->send('POST', 'ledger', ['lens' => 'nesting'] + $values)
                ->assertOk()
                ->getContent(),
        );
        $bench = $this->bench();
        self::assertSame($total(['all' => 1, 'unfold' => 1]), 3197);
        $roots = count($bench->scene()->children(0));
        self::assertSame($roots, $total(['all' => 1, 'unfold' => 0]));
        self::assertSame((int) $bench->find('depth <= 3')->rows?->count(), $total(['depth' => 2, 'unfold' => 1]));
        $stands = $this->number('Seats');
        $total(['depth' => 20, 'unfold' => 1]);
        $folded = $total(['deep' => "O$stands", 'unfold' => 0]);
        self::assertSame(3197 - ($bench->scene()->end($bench->scene()->row($stands)) - $bench->scene()->row($stands)), $folded);
        self::assertSame(3197, $total(['deep' => "O$stands", 'unfold' => 1]));
        self::assertGreaterThan(
            40,
            (int) preg_replace(
                '~.*?data-total="(\d+)".*~s',
                '$1',
                (string) $this->send('POST', 'ledger', ['lens' => 'kinds', 'depth' => 2, 'unfold' => 1])->getContent(),
            ),
        );
    }

    public function test_columns_are_chosen_ordered_sized_and_kept_as_a_layout_that_opens_new_projects(): void
    {
        $columns = [['height', 90], ['p:fire rating', 5000], ['desk', 46], ['nonsense', 80], ['p:unheard of', 80], ['height', 70]];
        $answer = $this->send('POST', 'ledger', ['lens' => 'objects', 'columns' => json_encode($columns), 'sort' => 'height', 'down' => 1]);
        $answer
            ->assertSee('minmax(150px, 1fr) 70px 400px 46px 28px', false)
            ->assertSee('aria-sort="descending"', false)
            ->assertSee('fire rating')
            ->assertDontSee('nonsense');
        self::assertMatchesRegularExpression('~\d+\.\d\d m~', (string) $answer->getContent());
        $this->get($this->path('ledger/columns'))->assertOk()->assertSee('property of the file')->assertSee('Triangles');
        $this->send('POST', 'layouts', ['name' => '  ', 'default' => 1])
            ->assertStatus(422)
            ->assertSee('needs a name');
        $this->send('POST', 'layouts', ['name' => 'Doors', 'default' => 1, 'words' => 'layer:Doors'])
            ->assertOk()
            ->assertSee('Layout Doors is kept.');
        $this->send('POST', 'ledger', ['lens' => 'layers', 'columns' => json_encode([['count', 62]]), 'sort' => '']);
        $this->send('POST', 'layouts/1/apply')
            ->assertOk()
            ->assertSee('data-rule="layer:Doors"', false)
            ->assertSee('data-lens="objects"', false)
            ->assertSee('400px');
        self::assertSame(
            [['no' => 1, 'name' => 'Doors', 'isDefault' => true, 'isOpen' => true]],
            $this->getJson($this->path('layouts'))->json(),
        );

        $other = $this->baths($this->ida);
        $this->get("/projects/$other->key")
            ->assertOk()
            ->assertSee('400px')
            ->assertSee('data-lens="objects"', false);
        $this->send('PATCH', 'layouts/1', ['default' => 0])->assertSee('open as they come');
        $third = $this->baths($this->ida);
        $this->get("/projects/$third->key")
            ->assertOk()
            ->assertSee('data-lens="layers"', false);
        $this->send('DELETE', 'layouts/1')->assertOk();
        self::assertSame(0, LedgerLayout::query()->count());
        $this->send('POST', 'layouts/1/apply')->assertNotFound();
        $this->actingAs($this->person('Vera Moss'));
        $this->getJson($this->path('layouts'))->assertNotFound();
    }

    public function test_a_rule_is_asked_from_the_command_line(): void
    {
        $this->artisan('shelf:rule', ['project' => $this->project->key, 'rule' => 'lifering', '--json' => true])
            ->expectsOutputToContain('"kind": "part"')
            ->assertExitCode(0);
        $this->artisan('shelf:rule', ['project' => $this->project->key, 'rule' => 'kind:chair'])
            ->expectsOutputToContain('“chair” is not a kind')
            ->assertExitCode(2);
        $this->artisan('shelf:rule', ['project' => 'nowhere', 'rule' => 'seat'])->assertExitCode(2);
        $this->artisan('shelf:rule', [
            'project' => $this->project->key,
            'rule' => 'seat',
            '--person' => 'stranger@marlpit.example',
        ])->assertExitCode(2);
    }

    public function test_following_the_pick_is_a_switch(): void
    {
        self::assertStringContainsString('data-follow="1"', (string) $this->get($this->path('ledger?lens=layers'))->getContent());
        $this->send('POST', 'ledger', ['follow' => 0])->assertSee('data-follow="0"', false);
        $before = $this->bench()->arrangement()->toArray();
        $this->send('POST', 'pick', ['keys' => 'O500', 'mode' => 'replace']);
        self::assertSame($before, $this->bench()->arrangement()->toArray(), 'picking never folds or unfolds');
    }
}
