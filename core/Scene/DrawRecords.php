<?php

declare(strict_types=1);

namespace VineShelf\Scene;

use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Box;
use VineShelf\Geometry\Hulls;

/**
 * What the canvas needs to know to draw each object, as columns of the scene index.
 *
 * | column     | what                                                                                             |
 * |------------|--------------------------------------------------------------------------------------------------|
 * | records    | per placement, in row order, 56 bytes: object number, mesh number, 12 floats of its transform    |
 * | recordAt   | uint32 per row: records of the rows before it; one entry more at the end                          |
 * | placements | per record: its transform as the file has it, 12 doubles                                          |
 * | meshrows   | per mesh by number, 40 bytes: number, pack, triangles, colour, 6 floats of its box; 0 if unknown  |
 * | hulls      | per mesh that has one: mesh number, bytes, then the points that can lie outermost, 3 floats each  |
 * | shapes     | {@see \VineShelf\Geometry\ShapeIndex}: where each mesh stands in its pack                          |
 * | biggest    | uint32: the rows of the largest objects, largest first                                            |
 * | origin     | 3 doubles: what was taken off all places so that floats stay exact, metres                       |
 *
 * In records and mesh rows the middle of a mesh's box is its zero: floats stay exact however far from its own zero a mesh was drawn.
 */
final class DrawRecords
{
    public const RECORD = 56;

    public const MESH = 40;

    private const BIGGEST = 6000;

    /**
     * @param list<int>                                                              $order      object number by row, entry 0 unused
     * @param array<int, int>                                                        $meshes     mesh number by object number
     * @param array<int, int>                                                        $placed     byte offset of its first placement by
     *     object number
     * @param string                                                                 $placements packed transforms, 96 bytes each, an
     *     object's own in a row
     * @param array<int, array{pack: int, triangles: int, colour: int, box: Box}> $facts      by mesh number
     * @param string                                                                 $hulls      entries of {@see Hulls}
     * @param array{float, float, float}|null                                        $origin     where that is settled
     *
     * @return array<string, string>
     */
    public static function columns(
        array $order,
        array $meshes,
        array $placed,
        string $placements,
        array $facts,
        string $hulls = '',
        ?array $origin = null,
    ): array {
        $ends = [];
        $before = null;
        foreach ($placed as $number => $offset) {
            if ($before !== null) {
                $ends[$before] = $offset;
            }
            $before = $number;
        }
        $origin ??= Origin::of(self::someMiddles($meshes, $placed, $placements, $facts));
        $records = '';
        // Placements that lie in the order of rows, as of one file, need no second copy.
        $exact = null;
        $inOrder = 0;
        $recordAt = [0];
        $count = 0;
        $sizes = $sides = $middles = [];
        [$ox, $oy, $oz] = $origin;
        foreach ($order as $row => $number) {
            if ($row > 0) {
                $recordAt[] = $count;
            }
            $mesh = $meshes[$number] ?? 0;
            if ($row === 0 || $mesh === 0 || ! isset($facts[$mesh])) {
                continue;
            }
            $box = $facts[$mesh]['box'];
            [$wide, $deep, $tall] = $sides[$mesh] ??= [$box->maxX - $box->minX, $box->maxY - $box->minY, $box->maxZ - $box->minZ];
            [$x, $y, $z] = $middles[$mesh] ??= $box->middle();
            $most = 0.0;
            if ($exact === null && $placed[$number] !== $inOrder) {
                $exact = substr($placements, 0, $inOrder);
            }
            for ($at = $placed[$number], $end = $ends[$number] ?? strlen($placements); $at < $end; $at += 96) {
                /** @var array<int, float> $m */
                $m = unpack('e12', $placements, $at);
                $records .= pack(
                    'V2g12',
                    $number,
                    $mesh,
                    $m[1],
                    $m[2],
                    $m[3],
                    $m[1] * $x + $m[2] * $y + $m[3] * $z + $m[4] - $ox,
                    $m[5],
                    $m[6],
                    $m[7],
                    $m[5] * $x + $m[6] * $y + $m[7] * $z + $m[8] - $oy,
                    $m[9],
                    $m[10],
                    $m[11],
                    $m[9] * $x + $m[10] * $y + $m[11] * $z + $m[12] - $oz,
                );
                if ($exact === null) {
                    $inOrder += 96;
                } else {
                    $exact .= substr($placements, $at, 96);
                }
                $count++;
                $size =
                    $wide * (abs($m[1]) + abs($m[5]) + abs($m[9])) +
                    $deep * (abs($m[2]) + abs($m[6]) + abs($m[10])) +
                    $tall * (abs($m[3]) + abs($m[7]) + abs($m[11]));
                $most = $size > $most ? $size : $most;
            }
            $sizes[$row] = $most;
        }
        $recordAt[] = $count;
        arsort($sizes);

        return [
            'records' => $records,
            'recordAt' => pack('V*', ...$recordAt),
            'placements' => $exact ?? ($inOrder === strlen($placements) ? $placements : substr($placements, 0, $inOrder)),
            'hulls' => $hulls.self::boxHulls($facts, Hulls::unpack($hulls)),
            'meshrows' => self::meshRows($facts),
            'biggest' => pack('V*', ...array_slice(array_keys($sizes), 0, self::BIGGEST)),
            'origin' => pack('e3', ...$origin),
        ];
    }

    /** @return array{float, float, float} half the sides of a mesh's box, metres */
    public static function halves(Scene $scene, int $mesh): array
    {
        [$x, $y, $z] = Packed::float32($scene->column('meshrows'), $mesh * self::MESH + 28, 3);

        return [$x, $y, $z];
    }

    /** @param list<float> $linear red, green, blue, alpha, 0 to 1, linear */
    public static function colour(array $linear): int
    {
        $bytes = [];
        foreach ([0, 1, 2] as $channel) {
            $value = max(0.0, min(1.0, $linear[$channel] ?? 1.0));
            $bytes[] = (int) round(255 * ($value <= 0.0031308 ? 12.92 * $value : 1.055 * $value ** (1 / 2.4) - 0.055));
        }

        return $bytes[0] | ($bytes[1] << 8) | ($bytes[2] << 16) | ((int) round(255 * max(0.0, min(1.0, $linear[3] ?? 1.0))) << 24);
    }

    /**
     * What stands for points that are not known, as of files that were taken in long ago.
     *
     * @param array<int, array{pack: int, triangles: int, colour: int, box: Box}> $facts
     */
    private static function boxHulls(array $facts, Hulls $known): string
    {
        $packed = '';
        foreach ($facts as $mesh => $fact) {
            $packed .= $known->has($mesh) ? '' : Hulls::entryOfBox($mesh, $fact['box']);
        }

        return $packed;
    }

    /** @param array<int, array{pack: int, triangles: int, colour: int, box: Box}> $facts */
    private static function meshRows(array $facts): string
    {
        $rows = $facts === [] ? '' : str_repeat("\0", (max(array_keys($facts)) + 1) * self::MESH);
        ksort($facts);
        $packed = '';
        $next = 0;
        foreach ($facts as $number => $fact) {
            $packed .= substr($rows, 0, ($number - $next) * self::MESH);
            $box = $fact['box'];
            [$x, $y, $z] = $box->isEmpty() ? [-INF, -INF, -INF] : $box->halves();
            $packed .= pack('V4g6', $number, $fact['pack'], $fact['triangles'], $fact['colour'], -$x, -$y, -$z, $x, $y, $z);
            $next = $number + 1;
        }

        return $packed;
    }

    /**
     * Where some of the objects are, evenly chosen among them.
     *
     * @param array<int, int>                                                        $meshes
     * @param array<int, int>                                                        $placed
     * @param array<int, array{pack: int, triangles: int, colour: int, box: Box}> $facts
     *
     * @return list<array{float, float, float}>
     */
    private static function someMiddles(array $meshes, array $placed, string $placements, array $facts): array
    {
        $middles = [];
        $numbers = array_keys($placed);
        for ($at = 0, $step = Origin::step(count($numbers)); $at < count($numbers); $at += $step) {
            $mesh = $meshes[$numbers[$at]] ?? 0;
            if (isset($facts[$mesh])) {
                $middles[] = $facts[$mesh]['box']->middleOf(Affine::unpack($placements, $placed[$numbers[$at]]));
            }
        }

        return $middles;
    }
}
