<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Ledger\Ledger;
use App\Ledger\Row;
use App\Models\Texture;
use App\Weighing\Cell;
use App\Weighing\Lists;
use App\Weighing\Parts;
use App\Weighing\Pictures;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use VineShelf\Facts\Measure;
use VineShelf\Scene\Bits;
use VineShelf\Scene\MeshVersions;
use VineShelf\Weights\Weight;

/** What things cost to draw, in the ledger and beside it, against counting objects one by one in the database. */
final class WeightTest extends ProjectTestCase
{
    protected const IS_COARSE = true;

    private const COLUMNS = [
        'triangles',
        'vertices',
        'calls',
        'geometry',
        'texture',
        'drawn',
        'drawnvertices',
        'drawncalls',
        'drawnbytes',
        'desk',
    ];

    private ?Bench $seen = null;

    /** @var array<string, mixed> */
    private array $known = [];

    protected function setUp(): void
    {
        parent::setUp();
        foreach (['51 Seats' => 3, '41 Lane ropes' => 2, '40 Basins' => 1, '10 Structure' => 4] as $name => $rung) {
            $this->send('POST', 'rungs', ['keys' => 'L'.$this->layer($this->project, $name), 'rung' => $rung])->assertOk();
        }
        $this->send('POST', 'rungs', ['keys' => 'K2', 'rung' => 0])->assertOk();
        $columns = array_map(static fn (string $id): array => [$id, 80], self::COLUMNS);
        $this->send('POST', 'ledger', ['columns' => json_encode($columns)])->assertOk();
    }

    public function test_every_row_of_a_lens_weighs_what_its_objects_do(): void
    {
        foreach (['layers', 'kinds', 'materials', 'sources', 'nesting'] as $lens) {
            $this->assertWeighs($lens);
        }
    }

    private function assertWeighs(string $lens): void
    {
        $checked = 0;
        foreach ($this->rows($lens) as $row) {
            $numbers = $this->numbersOf($row);
            $full = $this->slow($numbers, false);
            $drawn = $this->slow($numbers, true);
            // In the nesting, a group says what it draws itself, as the rules do; what is drawn counts what it holds.
            $own = $row->isObject() ? $this->slow([$row->number()], false) : $full;
            $ownBytes = $row->isObject() ? $this->slow([$row->number()], true)->bytes() : $drawn->bytes();
            self::assertSame(
                [
                    number_format($own->triangles),
                    number_format($own->vertices),
                    number_format($own->calls),
                    Measure::bytes($own->geometry),
                    Measure::bytes($own->textures),
                    number_format($drawn->triangles),
                    number_format($drawn->vertices),
                    number_format($drawn->calls),
                    Measure::bytes($ownBytes),
                ],
                array_map(static fn (string $id): string => $row->cells[$id], array_slice(self::COLUMNS, 0, 9)),
                "$lens: $row->name",
            );
            $checked++;
        }
        self::assertGreaterThan(0, $checked);
    }

    public function test_rows_are_sorted_by_what_they_cost(): void
    {
        foreach (['drawn', 'drawnbytes', 'calls'] as $column) {
            $this->assertSorted($column);
        }
    }

    private function assertSorted(string $column): void
    {
        $value = static fn (Row $row): float => self::plain($row->cells[$column]);
        foreach (['layers', 'kinds', 'objects'] as $lens) {
            foreach ([1, 0] as $down) {
                $this->send('POST', 'ledger', ['lens' => $lens, 'sort' => $column, 'down' => $down])->assertOk();
                $rows = array_filter($this->rows($lens, 40), static fn (Row $row): bool => $row->level === 1 && $row->key !== 'L1');
                $values = array_map($value, array_values($rows));
                $sorted = $values;
                $down === 1 ? rsort($sorted) : sort($sorted);
                self::assertSame($sorted, $values, "$lens by $column");
            }
        }
    }

    public function test_the_meter_counts_what_is_coarse_as_it_is_drawn(): void
    {
        $bench = $this->bench();
        $all = Bits::all($bench->scene()->count());
        $drawn = $this->slow($this->project->objects()->pluck('no')->all(), true)->triangles;
        self::assertSame($drawn, $bench->weights()->drawn($all, $bench->seen()->rungs()));
        self::assertLessThan($this->slow($this->project->objects()->pluck('no')->all(), false)->triangles, $drawn);
        $this->send('GET', '')
            ->assertOk()
            ->assertSee('has '.number_format($drawn).' triangles, at Full 254,318.');
    }

    public function test_the_parts_of_a_map_make_up_what_they_are_parts_of_whichever_way_it_is_divided(): void
    {
        $parts = new Parts($this->bench());
        $all = $this->bench()->weights()->full(Bits::all($this->bench()->scene()->count()));
        foreach (array_keys(Parts::BY) as $by) {
            [$at, $whole, $depth] = ['', $all->triangles, 0];
            // Down to the bottom, always into the heaviest.
            do {
                $cells = $parts->inside($by, $at);
                $triangles = array_map(static fn (Cell $cell): int => $cell->weight->triangles, $cells);
                // A part may have several materials.
                $by === 'materials' && $at === ''
                    ? self::assertGreaterThanOrEqual($whole, array_sum($triangles))
                    : self::assertSame($whole, array_sum($triangles), "$by inside $at");
                foreach ($cells as $cell) {
                    $rows = $parts->rows($cell->key);
                    $count = $by !== 'nesting' && $cell->key[0] === 'O' ? 1 : $rows->count();
                    self::assertSame($cell->objects, $count, "$by: $cell->key");
                }
                $deep = array_filter($cells, static fn (Cell $cell): bool => $cell->isDeep);
                usort($deep, static fn (Cell $a, Cell $b): int => $b->weight->triangles <=> $a->weight->triangles);
                [$at, $whole] = $deep === [] ? ['', 0] : [$deep[0]->key, $deep[0]->weight->triangles];
            } while ($deep !== [] && ++$depth < 12);
            self::assertGreaterThan(0, $depth);
        }
    }

    public function test_everything_there_picks(): void
    {
        $picked = fn (): int => $this->bench()->pickedBits()->count();
        $site = $this->layer($this->project, '51 Seats');
        $this->send('POST', 'weight/pick', ['key' => "L$site", 'mode' => 'replace'])->assertOk();
        self::assertSame($this->bench()->contents()->objectsWithNested($site), $picked());
        $repeat = (new Lists($this->bench()))->repeats()[0];
        $this->send('POST', 'weight/pick', ['key' => $repeat['key'], 'mode' => 'replace'])->assertOk();
        $meshes = $this->project->meshes()->where('name', $repeat['name'])->value('hash');
        $numbers = $this->project->meshes()->where('hash', $meshes)->pluck('no');
        self::assertSame($this->project->objects()->whereIn('mesh_no', $numbers)->count(), $picked());
        $this->send('POST', 'weight/pick', ['key' => 'meshes:+', 'mode' => 'replace'])->assertOk();
        self::assertGreaterThan(0, $picked());
        $this->send('POST', 'weight/pick', ['key' => 'P1', 'mode' => 'add'])->assertOk();
        foreach (['', 'Q3', 'L99999999999', 'L4 or 1', 'nonsense:+', 'L999', 'O999999', 'M77'] as $odd) {
            $status = $this->send('POST', 'weight/pick', ['key' => $odd, 'mode' => 'replace'])->getStatusCode();
            self::assertContains($status, [302, 422], $odd);
        }
    }

    public function test_the_lists_say_what_the_database_does(): void
    {
        foreach (['map', 'heaviest', 'repeats', 'pictures', 'total'] as $show) {
            $this->get($this->path("weight?show=$show"))->assertOk();
        }
        $lists = new Lists($this->bench());
        $heaviest = $lists->heaviest();
        $most = $this->project->objects()->orderByDesc('triangles')->limit(100)->pluck('triangles')->all();
        self::assertSame($most, array_column($heaviest, 'triangles'));
        [$stored, $once] = $lists->sharing();
        self::assertSame((int) $this->project->meshes()->sum('bytes'), $stored);
        self::assertSame($stored - array_sum(array_column($lists->repeats(), 'saves')), $once);
        self::assertSame([10, 560], [$lists->repeats()[0]['times'], $lists->repeats()[0]['triangles']]);
        $bytes = (int) $this->project->textures()->get()->sum(static fn (Texture $texture): int => 4 * $texture->width * $texture->height);
        self::assertGreaterThan(0, $bytes);
        self::assertSame($bytes, array_sum(array_column((new Pictures($this->bench()))->all(), 'bytes')));
        self::assertSame([254_318], array_column($lists->history(), 'triangles'));
        $this->send('POST', 'undo')->assertOk();
        self::assertSame([0], array_column((new Lists($this->bench()))->history(), 'triangles'));
        $this->get($this->path('weight'))->assertOk()->assertSee('Nothing here draws anything.');
    }

    public function test_views_weigh_what_they_draw_and_are_sorted_by_it(): void
    {
        $names = ['As it is' => null, 'Without seats' => '51 Seats', 'Without planting' => '91 Planting'];
        $weights = [];
        foreach ($names as $name => $layer) {
            $layer === null ||
                $this->send('POST', 'rungs', ['keys' => 'L'.$this->layer($this->project, $layer), 'rung' => 0])->assertOk();
            $this->send('POST', 'views', ['name' => $name, 'keep_rungs' => 1])->assertOk();
            $this->seen = null;
            $weights[$name] = $this->slow($this->project->objects()->pluck('no')->all(), true);
        }
        foreach (['triangles', 'vertices', 'calls', 'geometry', 'textures', 'pictures', 'name'] as $sort) {
            $views = (new Lists($this->bench()))->views($sort);
            self::assertEqualsCanonicalizing(array_keys($names), array_column($views, 'name'));
            foreach ($views as $view) {
                self::assertEquals($weights[$view['name']], $view['weight'], $view['name']);
            }
            $values = match ($sort) {
                'name' => array_column($views, 'name'),
                'pictures' => array_column($views, 'pictures'),
                default => array_map(static fn (array $view): int => $view['weight']->{$sort}, $views),
            };
            $sorted = $values;
            $sort === 'name' ? sort($sorted) : rsort($sorted);
            self::assertSame($sorted, $values, $sort);
        }
        $this->get($this->path('weight').'?show=views&sort=calls')
            ->assertOk()
            ->assertSeeInOrder(['As it is', number_format($weights['As it is']->triangles), 'Without seats']);
    }

    public function test_a_picture_that_is_seen_small_is_said_to_be_larger_than_it_shows(): void
    {
        self::assertSame([0], array_unique(array_column((new Pictures($this->bench()))->all(), 'saves')), '128 pixels, without views');
        $camera = ['eye' => [0, -40_000, 10], 'target' => [0, 0, 0], 'fov' => 40];
        $this->send('POST', 'views', ['name' => 'From afar', 'keep_camera' => 1, 'camera' => json_encode($camera)])->assertOk();
        foreach ((new Pictures($this->bench()))->all() as $picture) {
            // 100 metres of site from 40 kilometres, 800 pixels over 40 degrees.
            self::assertLessThan(4, $picture['shown']);
            self::assertSame([8, true], [max(8, $picture['enough']), $picture['saves'] > 0.9 * $picture['bytes']]);
        }
    }

    public function test_what_is_seen_of_a_picture_does_not_depend_on_where_in_the_world_the_model_stands(): void
    {
        foreach ([[], ['tall' => 5_000]] as $parallel) {
            $shown = [];
            foreach ([[self::demoFile(), [0, 0, 0]], [self::farDemoFile(), [420_000, 51_000, 30]]] as [$path, $there]) {
                $this->project = $this->takeIn($this->ida, $path)->project ?? self::fail('not taken in');
                $origin = $this->bench()->facts()->origin();
                $eye = array_map(static fn (int $axis): float => [60, -60, 30][$axis] + $there[$axis] - $origin[$axis], [0, 1, 2]);
                $camera = json_encode(['eye' => $eye, 'target' => [0, 0, 0], 'fov' => 40] + $parallel);
                $this->send('POST', 'views', ['name' => 'Corner', 'keep_camera' => 1, 'camera' => $camera])->assertOk();
                $seen = array_column((new Pictures($this->bench()))->all(), 'shown', 'name');
                ksort($seen);
                $shown[] = $seen;
            }
            self::assertGreaterThan(100_000, abs($origin[0]));
            self::assertSame($shown[0], $shown[1]);
            self::assertGreaterThan($parallel === [] ? 100 : 2, max($shown[0]));
        }
    }

    /** @return list<Row> */
    private function rows(string $lens, int $count = 60): array
    {
        $request = Request::create('/', 'GET', ['lens' => $lens, 'from' => 0, 'count' => $count]);

        return Ledger::asked($this->bench(), $request)->lens()->rows(0, $count);
    }

    /** @return list<int> */
    private function numbersOf(Row $row): array
    {
        $objects = DB::table('objects')->where('project_id', $this->project->id);
        $number = $row->number();
        $meshes = DB::table('meshes')
            ->where('project_id', $this->project->id)
            ->get(['no', 'material_no', 'materials']);
        $has = static fn (object $mesh): bool => in_array($number, json_decode($mesh->materials, true) ?: [(int) $mesh->material_no], true);

        return match ($row->key[0]) {
            'L' => $objects
                ->whereIn('layer_no', $this->bench()->layers()->withNested($number))
                ->pluck('no')
                ->all(),
            'K' => $objects->where('kind', $number)->pluck('no')->all(),
            'M' => $objects
                ->whereIn('mesh_no', $meshes->filter($has)->pluck('no'))
                ->pluck('no')
                ->all(),
            'S' => $objects->where('source_id', $number)->pluck('no')->all(),
            default => $this->below($number),
        };
    }

    /** @return list<int> */
    private function below(int $number): array
    {
        $all = [$number];
        for ($at = 0; $at < count($all); $at++) {
            array_push($all, ...$this->project->objects()->where('parent_no', $all[$at])->pluck('no')->all());
        }

        return $all;
    }

    /** @param array<int> $numbers */
    private function slow(array $numbers, bool $inEffect): Weight
    {
        $bench = $this->seen ??= $this->bench();
        $coarse = $this->known['coarse'] ??= MeshVersions::coarse($bench->scene());
        $meshes = $this->known['meshes'] ??= DB::table('meshes')->where('project_id', $this->project->id)->get()->keyBy('no')->all();
        $objects = $this->known['objects'] ??= DB::table('objects')
            ->where('project_id', $this->project->id)
            ->get(['no', 'mesh_no', 'triangles'])
            ->keyBy('no')
            ->all();
        [$triangles, $vertices, $calls, $geometry] = [0, 0, 0, []];
        foreach ($numbers as $number) {
            $object = $objects[$number];
            $mesh = $meshes[$object->mesh_no] ?? null;
            $rung = $inEffect
                ? $bench
                    ->seen()
                    ->rungs()
                    ->at($bench->scene()->row($number))
                : 5;
            if ($mesh === null || $rung === 0) {
                continue;
            }
            $times = $mesh->triangles > 0 ? intdiv($object->triangles, $mesh->triangles) : 1;
            $drawn = $rung < 4 && isset($coarse[$mesh->no]) ? (object) $coarse[$mesh->no] : $mesh;
            $triangles += $times * ($rung === 1 ? 12 : $drawn->triangles);
            $vertices += $times * ($rung === 1 ? 24 : $drawn->vertices);
            $calls += $rung === 1 ? 0 : $times * $mesh->pieces;
            if ($rung > 1) {
                $geometry["$mesh->no $drawn->triangles"] = $drawn->bytes;
            }
        }

        return new Weight($triangles, $vertices, $calls, (int) array_sum($geometry), $this->textures($numbers, $inEffect));
    }

    /** @param array<int> $numbers */
    private function textures(array $numbers, bool $inEffect): int
    {
        $bench = $this->seen ??= $this->bench();
        $surfaces = $this->known['surfaces'] ??= $this->project->materials()->get()->keyBy('no');
        $seen = [];
        foreach ($numbers as $number) {
            $row = $bench->scene()->row($number);
            if ($inEffect && $bench->seen()->rungs()->at($row) < 5) {
                continue;
            }
            foreach ($bench->facts()->materialsOf($row) as $material) {
                $surface = $surfaces[$material]->surface;
                $seen += array_fill_keys(array_filter([$surface['texture'], $surface['normalMap'] ?? null]), true);
            }
        }
        $bytes = 0;
        foreach ($this->project->textures()->whereIn('no', array_keys($seen))->get() as $texture) {
            $bytes += 4 * $texture->width * $texture->height;
        }

        return $bytes;
    }

    /** A number as it is shown. */
    private static function plain(string $shown): float
    {
        [$number, $unit] = explode(' ', $shown.' ');

        return (float) str_replace(',', '', $number) * (['kB' => 1e3, 'MB' => 1e6, 'GB' => 1e9][$unit] ?? 1);
    }
}
