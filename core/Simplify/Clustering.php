<?php

declare(strict_types=1);

namespace VineShelf\Simplify;

/**
 * The fast kind: of all places in a cell of a grid one stays, the one that matters most (J. Rossignac and P. Borrel, "Multi-resolution 3D
 * approximations for rendering complex scenes", 1993). That is one on a border, or where pieces with other materials meet, then the
 * sharpest; no place moves farther than across a cell. Where a triangle would turn over, its cells are halved.
 */
final class Clustering
{
    /** How often a cell in which triangles would turn over is halved along each axis, before each of its places stands for itself. */
    private const HALVED = 6;

    /** What is sharper than this is kept; elsewhere the place in the middle is. */
    private const SHARP = 0.08;

    /** @param float $cell metres that a cell is wide */
    public static function of(Surface $surface, float $cell): Simplified
    {
        if ($surface->triangles() === 0) {
            return Simplified::of($surface, [], [], 0.0);
        }
        $normals = self::normals($surface);
        $matters = self::matters($surface, $normals);
        $all = array_keys($surface->x);
        $halved = array_fill(0, count($all), 0);
        $cells = self::cells($surface, $cell, $halved, $all, []);
        $stands = self::stands($surface, $cells, $matters, $all, $all);
        $turned = self::turned($surface, $stands, $normals, null);
        while ($turned !== []) {
            $given = [];
            foreach ($turned as $place => $_) {
                $given[$cells[$place]] = true;
            }
            $again = [];
            foreach ($cells as $place => $key) {
                if (isset($given[$key])) {
                    $halved[$place]++;
                    $again[$place] = $place;
                }
            }
            $cells = self::cells($surface, $cell, $halved, $again, $cells);
            $stands = self::stands($surface, $cells, $matters, $again, $stands);
            $turned = self::turned($surface, $stands, $normals, $again);
        }
        [$corners, $kept] = self::triangles($surface, $stands);

        return Simplified::of($surface, $corners, $kept, self::error($surface, $stands));
    }

    /** @return list<float> of each triangle, three numbers, as long as twice its area */
    private static function normals(Surface $surface): array
    {
        [$x, $y, $z, $corners] = [$surface->x, $surface->y, $surface->z, $surface->corners];
        $normals = [];
        for ($at = 0, $count = count($corners); $at < $count; $at += 3) {
            $a = $corners[$at];
            $b = $corners[$at + 1];
            $c = $corners[$at + 2];
            $bx = $x[$b] - $x[$a];
            $by = $y[$b] - $y[$a];
            $bz = $z[$b] - $z[$a];
            $cx = $x[$c] - $x[$a];
            $cy = $y[$c] - $y[$a];
            $cz = $z[$c] - $z[$a];
            $normals[] = $by * $cz - $bz * $cy;
            $normals[] = $bz * $cx - $bx * $cz;
            $normals[] = $bx * $cy - $by * $cx;
        }

        return $normals;
    }

    /**
     * How much each place matters: 0 on a plane, up to 1 at a sharp corner, 2 and more on a border or between pieces.
     *
     * @param list<float> $normals
     *
     * @return list<float>
     */
    private static function matters(Surface $surface, array $normals): array
    {
        $count = count($surface->x);
        $corners = $surface->corners;
        $pieces = $surface->pieces;
        // Around a place that is inside, what comes next and what came before are the same places.
        $turns = array_fill(0, $count, 0);
        $piece = array_fill(0, $count, -1);
        $mixed = [];
        $nx = $ny = $nz = $all = array_fill(0, $count, 0.0);
        for ($triangle = 0, $at = 0, $triangles = count($pieces); $triangle < $triangles; $triangle++, $at += 3) {
            $a = $corners[$at];
            $b = $corners[$at + 1];
            $c = $corners[$at + 2];
            $ha = ($a * 2654435761) & 0xffffffff;
            $hb = ($b * 2654435761) & 0xffffffff;
            $hc = ($c * 2654435761) & 0xffffffff;
            $turns[$a] += $hb - $hc;
            $turns[$b] += $hc - $ha;
            $turns[$c] += $ha - $hb;
            $x = $normals[$at];
            $y = $normals[$at + 1];
            $z = $normals[$at + 2];
            $length = sqrt($x * $x + $y * $y + $z * $z);
            $own = $pieces[$triangle];
            foreach ([$a, $b, $c] as $place) {
                $nx[$place] += $x;
                $ny[$place] += $y;
                $nz[$place] += $z;
                $all[$place] += $length;
                if ($piece[$place] < 0) {
                    $piece[$place] = $own;
                } elseif ($piece[$place] !== $own) {
                    $mixed[$place] = true;
                }
            }
        }
        $matters = [];
        for ($place = 0; $place < $count; $place++) {
            $sum = $nx[$place] * $nx[$place] + $ny[$place] * $ny[$place] + $nz[$place] * $nz[$place];
            $matters[] =
                ($turns[$place] === 0 ? 0.0 : 2.0) +
                (isset($mixed[$place]) ? 2.0 : 0.0) +
                ($all[$place] > 0 ? 1.0 - sqrt($sum) / $all[$place] : 0.0);
        }

        return $matters;
    }

    /**
     * @param array<int, int> $halved how often each place's cell was halved
     * @param array<int, int> $which  the places that are meant
     * @param array<int, int> $cells  of all places, as they were
     *
     * @return array<int, int> the cell of each place
     */
    private static function cells(Surface $surface, float $cell, array $halved, array $which, array $cells): array
    {
        $wide = 1 / max(1e-9, $cell);
        // Places are counted from the middle, as far as the scale.
        [$x0, $y0, $z0] = [-$surface->scale[0], -$surface->scale[1], -$surface->scale[2]];
        foreach ($which as $place) {
            $level = $halved[$place];
            if ($level > self::HALVED) {
                $cells[$place] = -1 - $place;

                continue;
            }
            $by = $wide * (1 << $level);
            $key =
                ($level << 60) |
                (((int) (($surface->x[$place] - $x0) * $by) & 0xfffff) << 40) |
                (((int) (($surface->y[$place] - $y0) * $by) & 0xfffff) << 20) |
                ((int) (($surface->z[$place] - $z0) * $by) & 0xfffff);
            // PHP finds keys by their lowest bits, which all cells at one height would share.
            $key ^= $key >> 40;
            $cells[$place] = $key ^ ($key >> 20);
        }

        return $cells;
    }

    /**
     * The place that stands for each place: of its cell the one that matters most, or where none does the one nearest to their middle.
     *
     * @param array<int, int> $cells
     * @param list<float>     $matters
     * @param array<int, int> $which   the places that are meant: all of each cell
     * @param array<int, int> $stands  as they were
     *
     * @return array<int, int>
     */
    private static function stands(Surface $surface, array $cells, array $matters, array $which, array $stands): array
    {
        [$px, $py, $pz] = [$surface->x, $surface->y, $surface->z];
        $best = $x = $y = $z = $count = [];
        foreach ($which as $place) {
            $cell = $cells[$place];
            if (isset($best[$cell])) {
                $x[$cell] += $px[$place];
                $y[$cell] += $py[$place];
                $z[$cell] += $pz[$place];
                $count[$cell]++;
                if ($matters[$place] > $matters[$best[$cell]]) {
                    $best[$cell] = $place;
                }
            } else {
                $best[$cell] = $place;
                $x[$cell] = $px[$place];
                $y[$cell] = $py[$place];
                $z[$cell] = $pz[$place];
                $count[$cell] = 1;
            }
        }
        $nearest = $least = [];
        foreach ($which as $place) {
            $cell = $cells[$place];
            if ($count[$cell] < 3 || $matters[$best[$cell]] > self::SHARP) {
                continue;
            }
            $by = 1 / $count[$cell];
            $square = ($px[$place] - $x[$cell] * $by) ** 2 + ($py[$place] - $y[$cell] * $by) ** 2 + ($pz[$place] - $z[$cell] * $by) ** 2;
            if (! isset($least[$cell]) || $square < $least[$cell]) {
                $least[$cell] = $square;
                $nearest[$cell] = $place;
            }
        }
        foreach ($which as $place) {
            $stands[$place] = $nearest[$cells[$place]] ?? $best[$cells[$place]];
        }

        return $stands;
    }

    /**
     * The places of triangles that have turned over.
     *
     * @param array<int, int>      $stands
     * @param list<float>          $normals
     * @param array<int, int>|null $changed look only at triangles with one of these places; null for all
     *
     * @return array<int, true>
     */
    private static function turned(Surface $surface, array $stands, array $normals, ?array $changed): array
    {
        [$x, $y, $z, $corners] = [$surface->x, $surface->y, $surface->z, $surface->corners];
        $turned = [];
        for ($at = 0, $count = count($corners); $at < $count; $at += 3) {
            $p = $corners[$at];
            $q = $corners[$at + 1];
            $r = $corners[$at + 2];
            if ($changed !== null && ! isset($changed[$p]) && ! isset($changed[$q]) && ! isset($changed[$r])) {
                continue;
            }
            $a = $stands[$p];
            $b = $stands[$q];
            $c = $stands[$r];
            if ($a === $b || $b === $c || $c === $a || ($a === $p && $b === $q && $c === $r)) {
                continue;
            }
            $bx = $x[$b] - $x[$a];
            $by = $y[$b] - $y[$a];
            $bz = $z[$b] - $z[$a];
            $cx = $x[$c] - $x[$a];
            $cy = $y[$c] - $y[$a];
            $cz = $z[$c] - $z[$a];
            $along =
                ($by * $cz - $bz * $cy) * $normals[$at] +
                ($bz * $cx - $bx * $cz) * $normals[$at + 1] +
                ($bx * $cy - $by * $cx) * $normals[$at + 2];
            if ($along < 0) {
                $turned[$p] = $turned[$q] = $turned[$r] = true;
            }
        }

        return $turned;
    }

    /**
     * Two that come to lie on each other, as of a thin wall, both stay: what was closed is closed.
     *
     * @param array<int, int> $stands
     *
     * @return array{list<int>, list<int>} corners of what is left, and which triangles that is
     */
    private static function triangles(Surface $surface, array $stands): array
    {
        $corners = $kept = [];
        for ($triangle = 0, $at = 0, $count = count($surface->pieces); $triangle < $count; $triangle++, $at += 3) {
            $a = $stands[$surface->corners[$at]];
            $b = $stands[$surface->corners[$at + 1]];
            $c = $stands[$surface->corners[$at + 2]];
            if ($a !== $b && $b !== $c && $c !== $a) {
                $corners[] = $a;
                $corners[] = $b;
                $corners[] = $c;
                $kept[] = $triangle;
            }
        }

        return [$corners, $kept];
    }

    /**
     * How far the farthest place was moved, metres.
     *
     * @param array<int, int> $stands
     */
    private static function error(Surface $surface, array $stands): float
    {
        $most = 0.0;
        foreach ($stands as $place => $stand) {
            if ($stand !== $place) {
                $square =
                    ($surface->x[$place] - $surface->x[$stand]) ** 2 +
                    ($surface->y[$place] - $surface->y[$stand]) ** 2 +
                    ($surface->z[$place] - $surface->z[$stand]) ** 2;
                $most = $square > $most ? $square : $most;
            }
        }

        return sqrt($most);
    }
}
