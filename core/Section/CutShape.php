<?php

declare(strict_types=1);

namespace VineShelf\Section;

use VineShelf\Geometry\Affine;
use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;

/**
 * What planes leave of a placed mesh (Sutherland and Hodgman, "Reentrant polygon clipping", 1974). Corners that come with the cut are exact
 * to half a step of the mesh's own places.
 *
 * @phpstan-import-type Transform from Affine
 *
 * @phpstan-type Local array{float, float, float, float}
 */
final class CutShape
{
    /**
     * A plane as the quantized places of a placed mesh see it: a, b, c, d; beyond it is where a x + b y + c z is more than d.
     *
     * @param Transform $m
     *
     * @return Local
     */
    public static function local(Plane $plane, Shape $shape, array $m): array
    {
        [$x, $y, $z] = $plane->normal;
        [$sx, $sy, $sz] = $shape->scale;

        return [
            (($m[0] * $x + $m[4] * $y + $m[8] * $z) * $sx) / Shape::STEPS,
            (($m[1] * $x + $m[5] * $y + $m[9] * $z) * $sy) / Shape::STEPS,
            (($m[2] * $x + $m[6] * $y + $m[10] * $z) * $sz) / Shape::STEPS,
            $plane->distance - $m[3] * $x - $m[7] * $y - $m[11] * $z,
        ];
    }

    /**
     * @param Transform   $placement
     * @param list<Plane> $planes
     */
    public static function of(Shape $shape, array $placement, array $planes): Shape
    {
        $local = array_map(static fn (Plane $plane): array => self::local($plane, $shape, $placement), $planes);
        $pieces = [];
        foreach ($shape->pieces as $piece) {
            $cut = self::piece($piece, $local);
            if ($cut !== null) {
                $pieces[] = $cut;
            }
        }

        return new Shape($shape->scale, $pieces);
    }

    /**
     * @param array{kind: PrimitiveKind, positions: string, indices: string, wide: bool} $piece
     * @param list<Local>                                                                $planes
     *
     * @return array{kind: PrimitiveKind, positions: string, indices: string, wide: bool}|null null when nothing is left
     */
    private static function piece(array $piece, array $planes): ?array
    {
        /** @var array<int, int> $n */
        $n = unpack('s*', $piece['positions']);
        /** @var array<int, int> $corners */
        $corners = unpack($piece['wide'] ? 'V*' : 'v*', $piece['indices']);
        $vertices = intdiv(count($n), 4);
        // Which planes each vertex lies beyond, as bits.
        $beyond = array_fill(0, $vertices, 0);
        foreach ($planes as $bit => [$a, $b, $c, $d]) {
            for ($vertex = 0, $at = 1; $vertex < $vertices; $vertex++, $at += 4) {
                if ($a * $n[$at] + $b * $n[$at + 1] + $c * $n[$at + 2] > $d) {
                    $beyond[$vertex] |= 1 << $bit;
                }
            }
        }
        $size = match ($piece['kind']) {
            PrimitiveKind::Triangles => 3,
            PrimitiveKind::Lines => 2,
            PrimitiveKind::Points => 1,
        };
        $kept = [];
        $added = '';
        for ($at = 1, $count = count($corners); $at + $size - 1 <= $count; $at += $size) {
            $any = 0;
            $all = -1;
            for ($corner = $at; $corner < $at + $size; $corner++) {
                $any |= $beyond[$corners[$corner]];
                $all &= $beyond[$corners[$corner]];
            }
            if ($all !== 0) {
                continue;
            }
            if ($any === 0) {
                for ($corner = $at; $corner < $at + $size; $corner++) {
                    $kept[] = $corners[$corner];
                }

                continue;
            }
            $polygon = [];
            for ($corner = $at; $corner < $at + $size; $corner++) {
                $place = 4 * $corners[$corner] + 1;
                $polygon[] = [(float) $n[$place], (float) $n[$place + 1], (float) $n[$place + 2]];
            }
            $polygon = $size === 2 ? self::line($polygon, $planes) : self::polygon($polygon, $planes, $any);
            if (count($polygon) === 2) {
                array_push($kept, $vertices++, $vertices++);
                $added .= self::packed($polygon[0]).self::packed($polygon[1]);
            }
            for ($corner = 2; $corner < count($polygon); $corner++) {
                array_push($kept, $vertices++, $vertices++, $vertices++);
                $added .= self::packed($polygon[0]).self::packed($polygon[$corner - 1]).self::packed($polygon[$corner]);
            }
        }
        if ($kept === []) {
            return null;
        }

        return self::compact($piece['kind'], $piece['positions'].$added, $kept);
    }

    /**
     * Without the vertices that nothing is made of any more.
     *
     * @param non-empty-list<int> $corners
     *
     * @return array{kind: PrimitiveKind, positions: string, indices: string, wide: bool}
     */
    private static function compact(PrimitiveKind $kind, string $positions, array $corners): array
    {
        $places = [];
        $kept = '';
        foreach ($corners as $at => $corner) {
            if (! isset($places[$corner])) {
                $places[$corner] = count($places);
                $kept .= substr($positions, 8 * $corner, 8);
            }
            $corners[$at] = $places[$corner];
        }
        $wide = count($places) > 65_535;

        return ['kind' => $kind, 'positions' => $kept, 'indices' => pack($wide ? 'V*' : 'v*', ...$corners), 'wide' => $wide];
    }

    /**
     * @param list<array{float, float, float}> $polygon convex
     * @param list<Local>                      $planes
     * @param int                              $which   bits of the planes that cut it
     *
     * @return list<array{float, float, float}>
     */
    private static function polygon(array $polygon, array $planes, int $which): array
    {
        foreach ($planes as $bit => [$a, $b, $c, $d]) {
            if ((($which >> $bit) & 1) === 0) {
                continue;
            }
            $kept = [];
            for ($at = 0, $count = count($polygon); $at < $count; $at++) {
                $from = $polygon[($at + $count - 1) % $count];
                $to = $polygon[$at];
                $was = $a * $from[0] + $b * $from[1] + $c * $from[2] - $d;
                $is = $a * $to[0] + $b * $to[1] + $c * $to[2] - $d;
                if ($was > 0 !== $is > 0) {
                    $kept[] = self::between($from, $to, $was / ($was - $is));
                }
                if ($is <= 0) {
                    $kept[] = $to;
                }
            }
            $polygon = $kept;
        }

        return $polygon;
    }

    /**
     * @param list<array{float, float, float}> $ends   two
     * @param list<Local>                      $planes
     *
     * @return list<array{float, float, float}> two, or none
     */
    private static function line(array $ends, array $planes): array
    {
        [$from, $to] = $ends;
        foreach ($planes as [$a, $b, $c, $d]) {
            $was = $a * $from[0] + $b * $from[1] + $c * $from[2] - $d;
            $is = $a * $to[0] + $b * $to[1] + $c * $to[2] - $d;
            if ($was > 0 && $is > 0) {
                return [];
            }
            $share = $was === $is ? 0.0 : $was / ($was - $is);
            [$from, $to] = [$was > 0 ? self::between($from, $to, $share) : $from, $is > 0 ? self::between($from, $to, $share) : $to];
        }

        return [$from, $to];
    }

    /**
     * @param array{float, float, float} $from
     * @param array{float, float, float} $to
     *
     * @return array{float, float, float}
     */
    private static function between(array $from, array $to, float $share): array
    {
        return [$from[0] + $share * ($to[0] - $from[0]), $from[1] + $share * ($to[1] - $from[1]), $from[2] + $share * ($to[2] - $from[2])];
    }

    /** @param array{float, float, float} $place */
    private static function packed(array $place): string
    {
        $step = static fn (float $value): int => max(-Shape::STEPS, min(Shape::STEPS, (int) round($value)));

        return pack('s4', $step($place[0]), $step($place[1]), $step($place[2]), 0);
    }
}
