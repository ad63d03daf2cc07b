<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

use VineShelf\Facts\Facts;
use VineShelf\Geometry\Shape;
use VineShelf\Picking\Camera;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Packed;
use VineShelf\Section\CutShape;
use VineShelf\Section\Plane;

/**
 * Draws a scene as a small picture, to know what is seen and how much of it. The largest in the picture first, each in the coarsest version
 * that is off by less than half a pixel; what is smaller than a pixel, or comes after as many triangles as there is time for, is asked
 * about at its middle or at a few of its places only. What is see-through hides nothing, and counts half.
 */
final class Drawing
{
    /** Pixels that versions may be off. */
    private const OFF = 0.5;

    /** Pixels below which a thing is a dot. */
    private const DOT = 1.0;

    /** Rows whose boxes are read at once. */
    private const CHUNK = 4096;

    private readonly Raster $raster;

    private readonly Projected $projected;

    /** @var array<int, Shape> by mesh */
    private array $boxes = [];

    /**
     * @param Camera      $camera    whose picture is that wide and high
     * @param list<Plane> $planes    that cut
     * @param Bits|null   $across    rows that they go through; what lies beyond them is hidden already
     * @param int         $triangles that may be drawn
     */
    public function __construct(
        private readonly Facts $facts,
        private readonly Camera $camera,
        int $width,
        int $height,
        private readonly VersionedShapes $shapes,
        private readonly array $planes = [],
        private readonly ?Bits $across = null,
        private int $triangles = 250_000,
    ) {
        $this->raster = new Raster($width, $height, $camera->scale, $camera->isParallel);
        $this->projected = new Projected($camera, $this->raster);
    }

    public function of(Levels $rungs): Seen
    {
        $scene = $this->facts->scene;
        $seen = new Seen($scene->count(), $this->raster->height, $this->raster);
        [$large, $small] = $this->sizes($rungs, $seen);
        arsort($large);
        $steps = $rungs->translated(range(0, Rung::Full->value));
        $clear = $front = [];
        foreach ($large as $row => $size) {
            if ($this->triangles <= 0) {
                $small[$row] = $size;

                continue;
            }
            [$colour, $opaque] = $this->look($row, ord($steps[$row]));
            if ($opaque < 1.0) {
                $clear[$row] = [$colour, $opaque];
            } else {
                $seen->covered[$row] = (float) $this->draw($seen, $row, ord($steps[$row]), $colour, 1.0)[0];
            }
        }
        foreach ($small as $row => $size) {
            $this->ask($seen, $row, $size, $this->look($row, ord($steps[$row])));
        }
        foreach ($clear as $row => [$colour, $opaque]) {
            [$covered, $pixels] = $this->draw($seen, $row, ord($steps[$row]), $colour, $opaque);
            $seen->covered[$row] = (float) $covered;
            $front[$row] = $pixels / 2;
        }
        foreach ($this->raster->counts() as $row => $pixels) {
            // A dot is as large as it was measured, not as the pixel that it stands in.
            $seen->seen[$row] = $row === 0 || isset($small[$row]) ? $seen->seen[$row] : (float) $pixels;
        }
        foreach ($front as $row => $pixels) {
            $seen->seen[$row] += $pixels;
        }

        return $seen;
    }

    /** As if nothing were in front of anything: only how large everything is. A guess, for while it is being drawn. */
    public function sized(Levels $rungs): Seen
    {
        $seen = new Seen($this->facts->scene->count(), $this->raster->height, $this->raster);
        foreach ($this->sizes($rungs, $seen) as $rows) {
            foreach ($rows as $row => $_) {
                $seen->seen[$row] = $seen->covered[$row] = $seen->boxed[$row] * Seen::FILLS;
            }
        }

        return $seen;
    }

    /**
     * How large everything is in the picture that is in it.
     *
     * @return array{array<int, float>, array<int, float>} pixels that the ball around it is wide, by row: those to be drawn, and the dots
     */
    private function sizes(Levels $rungs, Seen $seen): array
    {
        $scene = $this->facts->scene;
        $count = $scene->count();
        $boxes = $scene->column('box');
        $recordAt = Packed::uint32($scene->column('recordAt'), 0, $count + 2);
        [$ox, $oy, $oz] = $this->facts->origin();
        [$m0, $m1, $m2, $m3, $m4, $m5, $m6, $m7] = $this->camera->rows;
        [$h0, $h1, $h2, $h3] = $this->camera->ahead;
        [$near, $scale, $parallel] = [$this->camera->near, $this->camera->scale, $this->camera->isParallel];
        [$width, $height] = [$this->raster->width, $this->raster->height];
        $shown = $rungs->atLeast(Rung::Box->value)->mask();
        $large = $small = [];
        for ($from = 1; $from <= $count; $from += self::CHUNK) {
            $until = min($count, $from + self::CHUNK - 1);
            /** @var array<int, float> $b */
            $b = unpack('g'. 6 * ($until - $from + 1), $boxes, $from * 24);
            for ($row = $from, $at = 1; $row <= $until; $row++, $at += 6) {
                if ($shown[$row] === "\0" || $recordAt[$row] === $recordAt[$row + 1] || $b[$at] > $b[$at + 3]) {
                    continue;
                }
                $hx = ($b[$at + 3] - $b[$at]) / 2;
                $hy = ($b[$at + 4] - $b[$at + 1]) / 2;
                $hz = ($b[$at + 5] - $b[$at + 2]) / 2;
                $x = $b[$at] + $hx + $ox;
                $y = $b[$at + 1] + $hy + $oy;
                $z = $b[$at + 2] + $hz + $oz;
                $w = $h0 * $x + $h1 * $y + $h2 * $z + $h3;
                $reach = sqrt($hx * $hx + $hy * $hy + $hz * $hz);
                if ($parallel) {
                    $perMetre = $scale;
                    $u = $m0 * $x + $m1 * $y + $m2 * $z + $m3;
                    $v = $m4 * $x + $m5 * $y + $m6 * $z + $m7;
                } else {
                    if ($w + $reach < $near) {
                        continue;
                    }
                    $away = $w > $reach / 2 + $near ? $w : $reach / 2 + $near;
                    $perMetre = $scale / $away;
                    $u = ($m0 * $x + $m1 * $y + $m2 * $z + $m3) / $away;
                    $v = ($m4 * $x + $m5 * $y + $m6 * $z + $m7) / $away;
                }
                $pixels = $reach * $perMetre;
                $isAround = ! $parallel && $w < 2 * $reach;
                if (! $isAround && ($u + $pixels < 0 || $v + $pixels < 0 || $u - $pixels > $width || $v - $pixels > $height)) {
                    continue;
                }
                $seen->perMetre[$row] = $perMetre;
                // A box seen from far away along the camera's way.
                $boxed = 4 * ($hy * $hz * abs($h0) + $hx * $hz * abs($h1) + $hx * $hy * abs($h2)) * $perMetre * $perMetre;
                $seen->boxed[$row] = min($boxed, (float) ($width * $height));
                if ($pixels * 2 < self::DOT) {
                    $small[$row] = $pixels * 2;
                } else {
                    $large[$row] = $pixels * 2;
                }
            }
        }

        return [$large, $small];
    }

    /** @return array{int, int} pixels covered, and those in front if it is see-through */
    private function draw(Seen $seen, int $row, int $rung, int $colour, float $opaque): array
    {
        $scene = $this->facts->scene;
        [$first, $last] = Packed::uint32($scene->column('recordAt'), $row * 4, 2);
        [$ox, $oy, $oz] = $this->facts->origin();
        $covered = $front = 0;
        $this->raster->next();
        for ($record = $first; $record < $last; $record++) {
            /** @var array{mesh: int, 1: float, 2: float, 3: float, 4: float, 5: float, 6: float, 7: float, 8: float, 9: float, 10: float,
             *     11: float, 12: float} $m */
            $m = unpack('Vmesh/g12', $scene->column('records'), $record * DrawRecords::RECORD + 4);
            $placement = [$m[1], $m[2], $m[3], $m[4] + $ox, $m[5], $m[6], $m[7], $m[8] + $oy, $m[9], $m[10], $m[11], $m[12] + $oz];
            $size = sqrt(
                max($m[1] ** 2 + $m[5] ** 2 + $m[9] ** 2, $m[2] ** 2 + $m[6] ** 2 + $m[10] ** 2, $m[3] ** 2 + $m[7] ** 2 + $m[11] ** 2),
            );
            $shape = $this->shape($m['mesh'], $rung, self::OFF / max(1e-12, $seen->perMetre[$row] * $size));
            if ($shape !== null && $this->across?->has($row) === true) {
                $shape = CutShape::of($shape, $placement, $this->planes);
            }
            if ($shape !== null) {
                [$more, $moreFront, $triangles] = $this->projected->draw($row, $shape, $placement, $colour, $opaque);
                $covered += $more;
                $front += $moreFront;
                $this->triangles -= $triangles + 4;
            }
        }

        return [$covered, $front];
    }

    private function shape(int $mesh, int $rung, float $error): ?Shape
    {
        if ($rung === Rung::Box->value) {
            return $this->boxes[$mesh] ??= Shape::ofBox(DrawRecords::halves($this->facts->scene, $mesh));
        }

        return $rung >= Rung::Plain->value ? $this->shapes->within($mesh, $error) : $this->shapes->coarse($mesh);
    }

    /** @return array{int, float} colour, 0xRRGGBB, and how much it hides */
    private function look(int $row, int $rung): array
    {
        $mesh = Packed::uint32At($this->facts->scene->column('mesh'), $row);
        $packed = Packed::uint32($this->facts->scene->column('meshrows'), $mesh * DrawRecords::MESH + 12, 1)[0];
        $opaque = $rung === Rung::Ghost->value ? 0.3 : (($packed >> 24) & 255) / 255;

        return [(($packed & 255) << 16) | ($packed & 0xff00) | (($packed >> 16) & 255), $opaque > 0.97 ? 1.0 : $opaque];
    }

    /**
     * Whether something is seen that is not drawn.
     *
     * @param array{int, float} $look
     */
    private function ask(Seen $seen, int $row, float $size, array $look): void
    {
        $box = $this->facts->box($row);
        if ($box === null) {
            return;
        }
        $fills = $seen->boxed[$row] * Seen::FILLS;
        $seen->covered[$row] = $fills;
        $places = [[($box[0] + $box[3]) / 2, ($box[1] + $box[4]) / 2, ($box[2] + $box[5]) / 2]];
        for ($corner = 0; $size > 3 && $corner < 8; $corner++) {
            $at = static fn (int $axis): float => $box[$axis] +
                ($box[$axis + 3] - $box[$axis]) * ((($corner >> $axis) & 1) === 1 ? 0.8 : 0.2);
            $places[] = [$at(0), $at(1), $at(2)];
        }
        $found = 0;
        $reach = 1.5 / max(1e-12, $seen->perMetre[$row]) + ($size > 3 ? $size / max(1e-12, $seen->perMetre[$row]) / 2 : 0);
        foreach ($places as [$x, $y, $z]) {
            $found += $this->isSeenAt($row, $x, $y, $z, $reach, $look, $size < 2 * self::DOT) ? 1 : 0;
        }
        $seen->seen[$row] = (($fills * $found) / count($places)) * ($look[1] < 1.0 ? 0.5 : 1.0);
    }

    /** @param array{int, float} $look */
    private function isSeenAt(int $row, float $x, float $y, float $z, float $reach, array $look, bool $paints): bool
    {
        $m = $this->camera->rows;
        $h = $this->camera->ahead;
        $w = $h[0] * $x + $h[1] * $y + $h[2] * $z + $h[3];
        if (! $this->camera->isParallel && $w < $this->camera->near) {
            return false;
        }
        $by = $this->camera->isParallel ? 1.0 : $w;

        return $this->raster->dot(
            $row,
            ($m[0] * $x + $m[1] * $y + $m[2] * $z + $m[3]) / $by,
            ($m[4] * $x + $m[5] * $y + $m[6] * $z + $m[7]) / $by,
            $this->camera->isParallel ? -$w : 1 / $w,
            $reach,
            $look[0],
            $paints && $look[1] >= 1.0,
        );
    }
}
