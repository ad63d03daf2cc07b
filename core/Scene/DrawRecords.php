<?php

declare(strict_types=1);

namespace VineShelf\Scene;

use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Box;

/**
 * What the canvas needs to know to draw each object, as columns of the scene index.
 *
 * | column   | what                                                                                             |
 * |----------|--------------------------------------------------------------------------------------------------|
 * | records  | per placement, in row order, 56 bytes: object number, mesh number, 12 floats of its transform    |
 * | recordAt | uint32 per row: records of the rows before it; one entry more at the end                          |
 * | meshrows | per mesh by number, 40 bytes: number, pack, triangles, colour, 6 floats of its box; 0 if unknown  |
 * | biggest  | uint32: the rows of the largest objects, largest first                                            |
 * | origin   | 3 doubles: what was taken off all places so that floats stay exact, metres                       |
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
     *
     * @return array<string, string>
     */
    public static function columns(array $order, array $meshes, array $placed, string $placements, array $facts): array
    {
        $ends = [];
        $before = null;
        foreach ($placed as $number => $offset) {
            if ($before !== null) {
                $ends[$before] = $offset;
            }
            $before = $number;
        }
        $origin = self::origin($placements);
        $records = '';
        $recordAt = [0];
        $count = 0;
        $sizes = $sides = [];
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
            $most = 0.0;
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
                    $m[4] - $ox,
                    $m[5],
                    $m[6],
                    $m[7],
                    $m[8] - $oy,
                    $m[9],
                    $m[10],
                    $m[11],
                    $m[12] - $oz,
                );
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
            'meshrows' => self::meshRows($facts),
            'biggest' => pack('V*', ...array_slice(array_keys($sizes), 0, self::BIGGEST)),
            'origin' => pack('e3', ...$origin),
        ];
    }

    /**
     * What the canvas must hear of the given rows: the meshes that they draw, then their records.
     *
     * @param iterable<array{int, int}> $ranges first and last row of each range
     *
     * @return string two counts, then mesh rows, then records
     */
    public static function of(Scene $scene, iterable $ranges): string
    {
        $records = $scene->column('records');
        $recordAt = $scene->column('recordAt');
        $meshRows = $scene->column('meshrows');
        $chosen = '';
        foreach ($ranges as [$first, $last]) {
            $from = Packed::uint32At($recordAt, $first);
            $to = Packed::uint32At($recordAt, $last + 1);
            $chosen .= substr($records, $from * self::RECORD, ($to - $from) * self::RECORD);
        }
        $seen = [];
        for ($at = 4, $end = strlen($chosen); $at < $end; $at += self::RECORD) {
            $seen[substr($chosen, $at, 4)] = true;
        }
        $rows = '';
        foreach (array_keys($seen) as $packed) {
            $rows .= substr($meshRows, Packed::uint32At((string) $packed, 0) * self::MESH, self::MESH);
        }

        return pack('VV', intdiv(strlen($rows), self::MESH), intdiv(strlen($chosen), self::RECORD)).$rows.$chosen;
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
            $packed .= pack(
                'V4g6',
                $number,
                $fact['pack'],
                $fact['triangles'],
                $fact['colour'],
                $box->minX,
                $box->minY,
                $box->minZ,
                $box->maxX,
                $box->maxY,
                $box->maxZ,
            );
            $next = $number + 1;
        }

        return $packed;
    }

    /**
     * Places far from zero lose their millimetres as floats; then whole kilometres are taken off.
     *
     * @return array{float, float, float}
     */
    private static function origin(string $placements): array
    {
        if ($placements === '') {
            return [0.0, 0.0, 0.0];
        }
        $first = Affine::unpack($placements);
        if (max(abs($first[3]), abs($first[7]), abs($first[11])) < 20_000) {
            return [0.0, 0.0, 0.0];
        }

        return [round($first[3], -3), round($first[7], -3), round($first[11], -3)];
    }
}
