<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Scenes\MeshShapes;
use VineShelf\Geometry\Shape;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Packed;
use VineShelf\Section\CutFaces;

/** The cut faces of what the canvas shows, as triangles in the colours of layers, for the canvas to draw. */
final class CutDrawing
{
    /** Triangles at most; of what is biggest first. */
    private const MOST = 150_000;

    /** Objects with small triangles are looked at as long as this many are not reached. */
    private const MOST_OBJECTS = 30_000;

    /** @var list<int> */
    private array $numbers = [];

    /** @var list<int> red, green and blue in one number */
    private array $colours = [];

    private string $places = '';

    private readonly MeshShapes $shapes;

    /** Objects that a plane goes through and that were not looked at. */
    public int $left = 0;

    public function __construct(private readonly Bench $bench)
    {
        $section = $bench->cutting()->section;
        $this->shapes = new MeshShapes($bench->project, $bench->scene());
        if (! $section->cuts()) {
            return;
        }
        $rungs = $bench->shown()->inEffect->rungs();
        $solid = $rungs->atLeast(Rung::Coarse->value)->or($rungs->being(Rung::Box->value));
        $rows = $this->biggestFirst($bench->cutting()->across()->and($solid)->rows());
        $faces = new CutFaces($section->planes());
        foreach ($rows as $at => $row) {
            if (count($this->numbers) >= self::MOST || $at >= self::MOST_OBJECTS) {
                $this->left = count($rows) - $at;
                break;
            }
            $this->add($row, $faces, $rungs->at($row) === Rung::Box->value);
        }
    }

    /** 32-bit numbers: 8; how many triangles; the object of each; its colour; and nine floats of its corners, as the canvas counts. */
    public function bytes(): string
    {
        $count = count($this->numbers);

        return pack('V2', 8, $count).($count === 0 ? '' : pack('V*', ...$this->numbers).pack('V*', ...$this->colours).$this->places);
    }

    private function add(int $row, CutFaces $faces, bool $asBox): void
    {
        $scene = $this->bench->scene();
        $records = $scene->column('records');
        $recordAt = $scene->column('recordAt');
        [$ox, $oy, $oz] = $this->bench->facts()->origin();
        [$first, $last] = [Packed::uint32At($recordAt, $row), Packed::uint32At($recordAt, $row + 1)];
        $number = $scene->number($row);
        $colour = $this->colour($row);
        for ($record = $first; $record < $last; $record++) {
            /** @var array{mesh: int, 1: float, 2: float, 3: float, 4: float, 5: float, 6: float, 7: float, 8: float, 9: float, 10: float,
             *     11: float, 12: float} $m */
            $m = unpack('Vmesh/g12', $records, $record * DrawRecords::RECORD + 4);
            $shape = $asBox ? Shape::ofBox(DrawRecords::halves($scene, $m['mesh'])) : $this->shapes->shape($m['mesh']);
            if ($shape === null) {
                continue;
            }
            $placement = [$m[1], $m[2], $m[3], $m[4] + $ox, $m[5], $m[6], $m[7], $m[8] + $oy, $m[9], $m[10], $m[11], $m[12] + $oz];
            foreach ($faces->of($shape, $placement) as $polygons) {
                foreach ($polygons as $p) {
                    for ($at = 3, $count = count($p); $at + 5 < $count; $at += 3) {
                        $this->numbers[] = $number;
                        $this->colours[] = $colour;
                        $this->places .= pack(
                            'g9',
                            $p[0] - $ox,
                            $p[1] - $oy,
                            $p[2] - $oz,
                            $p[$at] - $ox,
                            $p[$at + 1] - $oy,
                            $p[$at + 2] - $oz,
                            $p[$at + 3] - $ox,
                            $p[$at + 4] - $oy,
                            $p[$at + 5] - $oz,
                        );
                    }
                }
            }
        }
    }

    /** The object's own colour where it has one, else its layer's. */
    private function colour(int $row): int
    {
        $own = $this->bench->organizers()->own->at($this->bench->scene(), $row, OwnValue::COLOUR);
        $colour = $own ?? $this->bench->layers()->get($this->bench->scene()->layers()->at($row))->colour;

        return (int) hexdec(ltrim($colour, '#'));
    }

    /**
     * @param list<int> $rows
     *
     * @return list<int>
     */
    private function biggestFirst(array $rows): array
    {
        $boxes = $this->bench->scene()->column('box');
        $sizes = [];
        foreach ($rows as $row) {
            $b = Packed::float32($boxes, $row * 24, 6);
            $sizes[$row] = $b[3] - $b[0] + $b[4] - $b[1] + $b[5] - $b[2];
        }
        arsort($sizes);

        return array_keys($sizes);
    }
}
