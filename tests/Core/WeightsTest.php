<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Facts\Facts;
use VineShelf\Facts\FactsBuilder;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Box;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Coded;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Levels;
use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\MeshWeights;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;
use VineShelf\Weights\Cost;
use VineShelf\Weights\GroupWeights;
use VineShelf\Weights\Weight;
use VineShelf\Weights\Weights;

/** Weights of any sets of rows against counting them one by one. */
final class WeightsTest extends TestCase
{
    private const PICTURES = [
        3 => ['bytes' => 4000, 'width' => 50, 'height' => 20],
        4 => ['bytes' => 400, 'width' => 10, 'height' => 10],
        9 => ['bytes' => 4, 'width' => 1, 'height' => 1],
    ];

    private const MATERIALS = [
        1 => ['Steel', false, '#888888', 1, []],
        2 => ['Tiles', true, '#ffffff', 1, [3]],
        5 => ['Wood', true, '#aa8844', 1, [3, 4]],
    ];

    /** @var array<int, array{triangles: int, vertices: int, pieces: int, bytes: int, materials: list<int>}> by mesh */
    private array $meshes = [];

    /** @var array<int, array{triangles: int, vertices: int, bytes: int}> at Coarse, of those that have a version */
    private array $coarse = [];

    /** @var array<int, int> mesh by object */
    private array $meshOf = [];

    /** @var array<int, int> placements by object */
    private array $times = [];

    private Facts $facts;

    public function test_any_set_weighs_what_its_objects_do_counted_one_by_one(): void
    {
        mt_srand(11);
        for ($round = 0; $round < 12; $round++) {
            $count = [0, 1, 2, 40, 300][$round % 5];
            $this->grow($count);
            $weights = new Weights($this->facts);
            for ($try = 0; $try < 8; $try++) {
                $share = [0, 10, 100, mt_rand(1, 99)][$try % 4];
                $numbers = self::some($count, $share);
                $rungs = array_map(static fn (): int => $try < 2 ? 5 : mt_rand(0, 5), array_fill(0, $count + 1, 0));
                $rows = Bits::ofRows($count, $numbers);
                self::assertEquals($this->slow($numbers, null), $weights->full($rows));
                $levels = self::levels($count, $rungs);
                $slow = $this->slow($numbers, $rungs);
                self::assertEquals($slow, $weights->inEffect($rows, $levels));
                self::assertSame($slow->triangles, $weights->drawn($rows, $levels));
            }
            $this->assertEach($weights, $count);
            $this->assertGroups($count);
        }
    }

    /** Groups in groups, few and more than have a code of one byte. */
    private function assertGroups(int $count): void
    {
        foreach ([3, 20, 400] as $most) {
            $parents = [];
            for ($group = 1; $group <= $most; $group++) {
                $parents[$group] = mt_rand(0, 2) === 0 ? 0 : mt_rand(0, $group - 1);
            }
            $of = array_map(static fn (): int => mt_rand(1, $most), array_fill(0, $count, 0));
            $rungs = array_map(static fn (): int => mt_rand(0, 5), array_fill(0, $count + 1, 0));
            $all = (new GroupWeights($this->facts))->all(Coded::fromValues($of), $parents, self::levels($count, $rungs));
            foreach ($most > 100 ? array_rand($parents, 12) : array_keys($parents) as $group) {
                $within = [];
                foreach ($of as $at => $there) {
                    for ($above = $there; $above > 0 && $above !== $group; $above = $parents[$above]);
                    $above === 0 || ($within[] = $at + 1);
                }
                self::assertEquals($this->slow($within, $rungs), $all[$group], "$count objects, $most groups, group $group");
            }
        }
    }

    private function assertEach(Weights $weights, int $count): void
    {
        $rungs = array_map(static fn (): int => mt_rand(0, 5), array_fill(0, $count + 1, 0));
        foreach (Cost::cases() as $cost) {
            $each = $weights->each($cost, self::levels($count, $rungs));
            self::assertCount($count, $each);
            foreach ($each as $number => $value) {
                // One in five objects holds those up to the next that does.
                $held = $cost === Cost::Bytes ? [$number] : range($number, $this->facts->scene->end($number));
                self::assertSame($cost->of($this->slow($held, $rungs)), $value, "$cost->value of $number");
            }
        }
    }

    public function test_by_hand_shared_meshes_and_pictures_count_once_boxes_take_no_call_and_plain_has_no_pictures(): void
    {
        $this->meshes = [
            1 => ['triangles' => 100, 'vertices' => 60, 'pieces' => 2, 'bytes' => 900, 'materials' => [2, 5]],
            2 => ['triangles' => 10, 'vertices' => 8, 'pieces' => 1, 'bytes' => 70, 'materials' => [1]],
        ];
        $this->coarse = [1 => ['triangles' => 20, 'vertices' => 14, 'bytes' => 200]];
        $this->meshOf = [1 => 1, 2 => 1, 3 => 2, 4 => 0];
        $this->times = [1 => 3, 2 => 1, 3 => 1, 4 => 0];
        $this->build(4);
        $weights = new Weights($this->facts);
        $all = Bits::all(4);
        $at = static fn (int ...$rungs): Levels => self::levels(4, [5, ...$rungs]);
        self::assertEquals(new Weight(410, 248, 9, 970, 4400), $weights->full($all));
        self::assertEquals($weights->full($all), $weights->inEffect($all, $at(5, 5, 5, 5)));
        self::assertEquals(new Weight(410, 248, 9, 970, 0), $weights->inEffect($all, $at(4, 4, 4, 4)));
        self::assertEquals(new Weight(60 + 100 + 10, 42 + 60 + 8, 9, 900 + 200 + 70, 4400), $weights->inEffect($all, $at(3, 5, 3, 5)));
        self::assertEquals(new Weight(36 + 12 + 10, 72 + 24 + 8, 1, 70, 0), $weights->inEffect($all, $at(1, 1, 2, 2)));
        self::assertEquals(new Weight, $weights->inEffect($all, $at(0, 0, 0, 5)));
        self::assertSame(5370, $weights->full($all)->bytes());
    }

    /**
     * @param list<int>            $numbers
     * @param array<int, int>|null $rungs   null for Full
     */
    private function slow(array $numbers, ?array $rungs): Weight
    {
        $triangles = $vertices = $calls = 0;
        $geometry = $textures = [];
        foreach ($numbers as $number) {
            [$mesh, $times, $rung] = [$this->meshOf[$number], $this->times[$number], $rungs[$number] ?? 5];
            if ($mesh === 0 || $rung === 0) {
                continue;
            }
            if ($rung === 1) {
                $triangles += 12 * $times;
                $vertices += 24 * $times;

                continue;
            }
            $about = $this->meshes[$mesh];
            $calls += $times * $about['pieces'];
            $isCoarse = $rung < 4 && isset($this->coarse[$mesh]);
            $drawn = $isCoarse ? $this->coarse[$mesh] : $about;
            $triangles += $times * $drawn['triangles'];
            $vertices += $times * $drawn['vertices'];
            $geometry[$mesh.($isCoarse ? ' coarse' : '')] = $drawn['bytes'];
            foreach ($rung === 5 ? $about['materials'] : [] as $material) {
                foreach (self::MATERIALS[$material][4] as $picture) {
                    $textures[$picture] = self::PICTURES[$picture]['bytes'];
                }
            }
        }

        return new Weight($triangles, $vertices, $calls, array_sum($geometry), array_sum($textures));
    }

    private function grow(int $count): void
    {
        $this->meshes = $this->coarse = $this->meshOf = $this->times = [];
        for ($mesh = 1; $mesh <= 30; $mesh += mt_rand(1, 3)) {
            $triangles = mt_rand(1, 500);
            $this->meshes[$mesh] = [
                'triangles' => $triangles,
                'vertices' => mt_rand(3, 900),
                'pieces' => mt_rand(1, 4),
                'bytes' => mt_rand(10, 9000),
                'materials' => array_values(array_filter([1, 2, 5], static fn (): bool => mt_rand(0, 1) === 1)),
            ];
            if (mt_rand(0, 1) === 1) {
                $this->coarse[$mesh] = ['triangles' => intdiv($triangles, 2), 'vertices' => mt_rand(3, 100), 'bytes' => mt_rand(5, 800)];
            }
        }
        $numbers = array_keys($this->meshes);
        for ($number = 1; $number <= $count; $number++) {
            // Some meshes have one user, some many.
            $this->meshOf[$number] = mt_rand(0, 3) === 0 ? 0 : $numbers[mt_rand(0, mt_rand(0, count($numbers) - 1))];
            $this->times[$number] = $this->meshOf[$number] === 0 ? 0 : mt_rand(1, 3);
        }
        $this->build($count);
    }

    private function build(int $count): void
    {
        $parents = $layers = $kinds = $triangles = $placed = [];
        $placements = '';
        for ($number = 1; $number <= $count; $number++) {
            [$layers[$number], $kinds[$number]] = [1, $this->meshOf[$number] === 0 ? 0 : 1];
            $parents[$number] = $number % 5 === 1 ? 0 : $number - (($number - 1) % 5);
            if ($this->meshOf[$number] > 0) {
                $triangles[$number] = $this->times[$number] * $this->meshes[$this->meshOf[$number]]['triangles'];
                $placed[$number] = strlen($placements);
                $placements .= str_repeat(Affine::pack([1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0]), $this->times[$number]);
            }
        }
        $columns = SceneBuilder::columns($parents, $layers, $kinds, [], $triangles);
        $facts = new FactsBuilder(
            $count,
            array_map(static fn (array $mesh): array => $mesh['materials'], $this->meshes),
            self::MATERIALS,
            [1 => 'Hall.glb'],
            self::PICTURES,
        );
        $order = array_values((array) unpack('V*', $columns['no']));
        foreach ($order as $row => $number) {
            if ($row > 0) {
                $vertices = $this->times[$number] * ($this->meshes[$this->meshOf[$number]]['vertices'] ?? 0);
                $facts->add($row, $this->meshOf[$number], $vertices, 1, '', null);
            }
        }
        $meshes = array_map(
            static fn (array $mesh): array => $mesh + ['pack' => 1, 'colour' => 0, 'box' => new Box(0, 0, 0, 1, 1, 1)],
            $this->meshes,
        );
        $entries = '';
        foreach ($this->coarse as $mesh => ['triangles' => $some, 'vertices' => $vertices, 'bytes' => $bytes]) {
            $entries .= MeshVersions::entry($mesh, $some, $vertices, 0.1, $bytes, true);
            $entries .= MeshVersions::entry($mesh, $some + 1, 999, 0.05, 999, false);
        }
        $columns += $facts->columns() +
            DrawRecords::columns($order, $this->meshOf, $placed, $placements, $meshes) + [
                'meshweights' => MeshWeights::pack($this->meshes),
                'versions' => MeshVersions::column([7 => $entries]),
            ];
        $this->facts = new Facts(new Scene(new DerivedColumns(new ColumnsInMemory($columns))));
    }

    /** @return list<int> about so many of a hundred */
    private static function some(int $count, int $share): array
    {
        return array_values(array_filter($count === 0 ? [] : range(1, $count), static fn (): bool => mt_rand(1, 100) <= $share));
    }

    /** @param array<int, int> $rungs by row, entry 0 for no row */
    private static function levels(int $count, array $rungs): Levels
    {
        return Levels::fromValues(5, array_slice($rungs, 1, $count));
    }
}
