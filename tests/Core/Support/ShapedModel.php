<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VineShelf\Facts\DerivedColumns;
use VineShelf\Facts\Facts;
use VineShelf\Facts\FactsBuilder;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Box;
use VineShelf\Geometry\PackReader;
use VineShelf\Geometry\PackWriter;
use VineShelf\Geometry\Primitive;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;
use VineShelf\Geometry\Shapes;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;
use VineShelf\Search\NameIndex;

/** A random project whose parts have random triangles, lines and points, written to a pack and read back as the application does. */
final class ShapedModel implements Shapes
{
    /** @var array<int, int> mesh by object number */
    public array $meshes = [];

    /** @var array<int, list<array{float, float, float, float, float, float, float, float, float, float, float, float}>> */
    public array $placements = [];

    public Facts $facts;

    /** @var array<int, Shape> */
    private array $shapes = [];

    /** @var array<int, Box> */
    public array $boxes = [];

    private function __construct(public RandomForest $forest) {}

    public static function grow(int $count): self
    {
        $model = new self(RandomForest::grow($count));
        $pack = new PackWriter;
        foreach (range(1, 6) as $mesh) {
            $primitives = [];
            foreach (range(1, mt_rand(1, 2)) as $_) {
                $kind = [PrimitiveKind::Triangles, PrimitiveKind::Triangles, PrimitiveKind::Lines, PrimitiveKind::Points][mt_rand(0, 3)];
                $vertices = mt_rand(3, 9);
                $places = array_map(static fn (): float => mt_rand(-300, 300) / 100, range(1, 3 * $vertices));
                $corners = array_map(static fn (): int => mt_rand(0, $vertices - 1), range(1, 6 * mt_rand(1, 3)));
                $primitives[] = new Primitive($kind, pack('g*', ...$places), pack('V*', ...$corners));
            }
            $model->boxes[$mesh] = $pack->add($mesh, $primitives, [])->box;
        }
        $model->shapes = PackReader::shapes($pack->finish());
        foreach ($model->forest->parents as $number => $_) {
            $model->meshes[$number] = $model->forest->kinds[$number] === 1 ? mt_rand(1, 6) : 0;
            $model->placements[$number] =
                $model->meshes[$number] === 0
                    ? []
                    : array_map(
                        static fn (): array => Affine::compose(
                            [mt_rand(-1200, 1200) / 100, mt_rand(-1200, 1200) / 100, mt_rand(-400, 400) / 100],
                            [mt_rand(-9, 9) / 10, mt_rand(-9, 9) / 10, mt_rand(-9, 9) / 10, mt_rand(1, 9) / 10],
                            [mt_rand(2, 15) / 10, mt_rand(2, 15) / 10, mt_rand(2, 15) / 10],
                        ),
                        range(1, mt_rand(1, 2)),
                    );
        }
        $model->facts = new Facts(new Scene(new DerivedColumns(new ColumnsInMemory($model->columns()))));

        return $model;
    }

    /**
     * A placement of the object for places that are counted from the middle of its mesh.
     *
     * @param list<float> $m
     *
     * @return list<float>
     */
    public function aroundMiddle(int $number, array $m): array
    {
        $box = $this->boxes[$this->meshes[$number]] ?? new Box(0, 0, 0, 0, 0, 0);
        foreach ([3, 7, 11] as $at) {
            $m[$at] += ($m[$at - 3] * ($box->minX + $box->maxX)) / 2 + ($m[$at - 2] * ($box->minY + $box->maxY)) / 2;
            $m[$at] += ($m[$at - 1] * ($box->minZ + $box->maxZ)) / 2;
        }

        return $m;
    }

    /** The box of the object's mesh, whose middle is zero. */
    public function boxOf(int $number): Shape
    {
        $box = $this->boxes[$this->meshes[$number]];

        return Shape::ofBox([($box->maxX - $box->minX) / 2, ($box->maxY - $box->minY) / 2, ($box->maxZ - $box->minZ) / 2]);
    }

    public function shape(int $mesh): ?Shape
    {
        return $this->shapes[$mesh] ?? null;
    }

    /** @return array<string, string> */
    private function columns(): array
    {
        $forest = $this->forest;
        $columns = SceneBuilder::columns($forest->parents, $forest->layerOf, $forest->kinds, $forest->locks, $forest->triangles);
        $order = array_values((array) unpack('V*', $columns['no']));
        $placements = '';
        $placed = [];
        $facts = new FactsBuilder(count($order) - 1, [], [], []);
        foreach ($order as $row => $number) {
            if ($row > 0) {
                $placed[$number] = strlen($placements);
                foreach ($this->placements[$number] as $m) {
                    $placements .= Affine::pack($m);
                }
                $facts->add($row, $this->meshes[$number], 0, 1, '', null);
            }
        }
        $placed = array_filter($placed, fn (int $number): bool => $this->meshes[$number] > 0, ARRAY_FILTER_USE_KEY);

        return $columns +
            $facts->columns() +
            $forest->tagColumns(new Scene(new ColumnsInMemory($columns))) +
            NameIndex::columns(array_map(static fn (int $number): string => "Object $number", $order)) +
            DrawRecords::columns(
                $order,
                $this->meshes,
                $placed,
                $placements,
                array_map(
                    static fn (Box $box): array => ['pack' => 1, 'triangles' => 1, 'colour' => 0xff6080a0, 'box' => $box],
                    $this->boxes,
                ),
            );
    }
}
