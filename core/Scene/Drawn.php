<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/**
 * Placements as they travel to the canvas, small because most of what 48 bytes of floats can say is never said.
 *
 * A transform is a place and a form, the nine floats that turn, scale and mirror. A place is three whole numbers of 1/8192 metre from the
 * origin; floats where it is farther off than 262 km. A form that many share is sent once. One that a single small part has, as most
 * scattered parts do, becomes a turn (a quaternion without its largest component, 16 bits each) and three scales (as the half sides of
 * the scaled box, tenths of a millimetre). Places are then true to 0.11 mm, such turned and scaled parts, none of which reaches farther
 * than 2 m from its middle, to 0.4 mm. All bytes of a kind stand together, so that those that hardly ever change compress to nothing.
 */
final class Drawn
{
    /** Bytes per placement: object, mesh, form; place; turn; scales. */
    public const BYTES = 36;

    public const MESH = 28;

    /** Steps in a metre of a place. */
    private const STEPS = 8192.0;

    /** Forms below this are turns without their component of that number. */
    private const SHARED = 4;

    private const FAR = 0x80000000;

    /** Half sides are not taken to be shorter than this, metres, so that flat parts keep their scale. */
    private const THIN = 0.05;

    private const REACH = 2.0;

    /** Placements that nobody asked for travel along when so few stand between those that were: less work than cutting them out. */
    private const GAP = 16;

    /**
     * @param string $records  column "records" of {@see DrawRecords}
     * @param string $meshRows column "meshrows"
     *
     * @return string counts of placements and shared forms; mesh, then form, uint32 per placement; the shared forms, 36 bytes each; then
     *     for
     *     each of the bytes of a placement that byte of all
     */
    public static function pack(string $records, string $meshRows): string
    {
        $count = intdiv(strlen($records), DrawRecords::RECORD);
        $uses = [];
        for ($at = 0, $end = strlen($records); $at < $end; $at += DrawRecords::RECORD) {
            $form = self::form($records, $at);
            $uses[$form] = isset($uses[$form]) ? 2 : 1;
        }
        $halves = $known = [];
        $meshes = $forms = $shared = $packed = '';
        for ($at = 0; $at < $end; $at += DrawRecords::RECORD) {
            [$object, $mesh] = Packed::uint32($records, $at, 2);
            /** @var array<int, float> $m */
            $m = unpack('g12', $records, $at + 8);
            $form = self::form($records, $at);
            $index = $known[$form] ?? null;
            $own = null;
            if ($index === null) {
                if ($uses[$form] === 1) {
                    $halves[$mesh] ??= Packed::float32($meshRows, $mesh * DrawRecords::MESH + 28, 3);
                    $own = self::own($m, $halves[$mesh]);
                }
                $index = $own[0] ?? ($known[$form] = count($known) + self::SHARED);
                $shared .= $own === null ? $form : '';
            }
            [$x, $y, $z] = [$m[4] * self::STEPS, $m[8] * self::STEPS, $m[12] * self::STEPS];
            $place = pack('V3', (int) round($x) & 0xffffffff, (int) round($y) & 0xffffffff, (int) round($z) & 0xffffffff);
            if (! (max(abs($x), abs($y), abs($z)) < 2147483647.0)) {
                $index |= self::FAR;
                $place = pack('g3', $m[4], $m[8], $m[12]);
            }
            $meshes .= pack('V', $mesh);
            $forms .= pack('V', $index);
            $packed .= pack('V3', $object, $mesh, $index).$place.($own[1] ?? "\0\0\0\0\0\0\0\0\0\0\0\0");
        }
        unset($uses);

        return pack('VV', $count, count($known)).$meshes.$forms.$shared.self::planes($packed);
    }

    /**
     * What the canvas must hear of the given rows, and perhaps of some between them: the meshes that they draw, the forms that they share,
     * then their placements.
     *
     * @param iterable<array{int, int}> $ranges first and last row of each range, ascending
     * @param int                       $gap    placements at most that travel along between two ranges; 0 where nobody may have them
     *
     * @return string three counts; mesh rows of 28 bytes: number, pack, triangles, colour, 3 floats of half its box; forms of 40 bytes:
     *     number, 9 floats; then byte after byte of all placements
     */
    public static function of(Scene $scene, iterable $ranges, int $gap = self::GAP): string
    {
        $drawn = $scene->column('drawn');
        $recordAt = $scene->column('recordAt');
        $meshRows = $scene->column('meshrows');
        [$count, $shared] = Packed::uint32($drawn, 0, 2);
        $spans = [];
        $last = -1;
        foreach ($ranges as [$first, $until]) {
            $from = Packed::uint32At($recordAt, $first);
            $to = Packed::uint32At($recordAt, $until + 1);
            if ($from === $to) {
                continue;
            }
            if ($last >= 0 && $from - $spans[$last][1] <= $gap) {
                $spans[$last][1] = $to;
            } else {
                $spans[++$last] = [$from, $to];
            }
        }
        $meshes = $forms = '';
        $chosen = 0;
        foreach ($spans as [$from, $to]) {
            $meshes .= substr($drawn, 8 + 4 * $from, 4 * ($to - $from));
            $forms .= substr($drawn, 8 + 4 * ($count + $from), 4 * ($to - $from));
            $chosen += $to - $from;
        }
        $rows = $table = '';
        $meshCount = $formCount = 0;
        foreach (array_flip(Packed::uint32($meshes, 0, $chosen)) as $mesh => $_) {
            $row = substr($meshRows, $mesh * DrawRecords::MESH, DrawRecords::MESH);
            $rows .= substr($row, 0, 16).substr($row, 28);
            $meshCount++;
        }
        $seen = [];
        foreach (array_flip(Packed::uint32($forms, 0, $chosen)) as $form => $_) {
            $index = $form & ~self::FAR;
            if ($index >= self::SHARED && ! isset($seen[$index])) {
                $seen[$index] = true;
                $table .= pack('V', $index).substr($drawn, 8 + 8 * $count + 36 * ($index - self::SHARED), 36);
                $formCount++;
            }
        }
        $planes = '';
        for ($byte = 0, $at = 8 + 8 * $count + 36 * $shared; $byte < self::BYTES; $byte++, $at += $count) {
            foreach ($spans as [$from, $to]) {
                $planes .= substr($drawn, $at + $from, $to - $from);
            }
        }

        return pack('V3', $meshCount, $formCount, $chosen).$rows.$table.$planes;
    }

    /** The nine floats of a record that are not its place. */
    private static function form(string $records, int $at): string
    {
        return substr($records, $at + 8, 12).substr($records, $at + 24, 12).substr($records, $at + 40, 12);
    }

    /**
     * @param array<int, float> $m    the transform, from 1 on, row by row
     * @param list<float>       $half half the sides of the mesh's box, metres
     *
     * @return array{int, string}|null which component is left out, 0 to 3, and turn and scales; null for what they cannot say well
     */
    private static function own(array $m, array $half): ?array
    {
        $scales = $codes = [];
        $reach = 0.0;
        foreach ([0, 1, 2] as $axis) {
            $scales[$axis] = sqrt($m[$axis + 1] ** 2 + $m[$axis + 5] ** 2 + $m[$axis + 9] ** 2);
            $reach += ($scales[$axis] * $half[$axis]) ** 2;
        }
        [$a, $b, $c] = $scales;
        $turned =
            $m[1] * ($m[6] * $m[11] - $m[7] * $m[10]) - $m[2] * ($m[5] * $m[11] - $m[7] * $m[9]) + $m[3] * ($m[5] * $m[10] - $m[6] * $m[9]);
        if (! ($reach <= self::REACH ** 2) || ! (abs($turned) > 0.0)) {
            return null;
        }
        $skewed = max(
            abs($m[1] * $m[2] + $m[5] * $m[6] + $m[9] * $m[10]) / ($a * $b),
            abs($m[1] * $m[3] + $m[5] * $m[7] + $m[9] * $m[11]) / ($a * $c),
            abs($m[2] * $m[3] + $m[6] * $m[7] + $m[10] * $m[11]) / ($b * $c),
        );
        if ($skewed > 1e-5) {
            return null;
        }
        $a = $turned < 0 ? -$a : $a;
        foreach ([$a, $b, $c] as $axis => $scale) {
            $codes[$axis] = (int) round($scale * max($half[$axis], self::THIN) * 1e4);
            if (abs($codes[$axis]) < 200 || abs($codes[$axis]) > 32767) {
                return null;
            }
        }
        [$r00, $r10, $r20] = [$m[1] / $a, $m[5] / $a, $m[9] / $a];
        [$r01, $r11, $r21] = [$m[2] / $b, $m[6] / $b, $m[10] / $b];
        [$r02, $r12, $r22] = [$m[3] / $c, $m[7] / $c, $m[11] / $c];
        $squares = [1 + $r00 - $r11 - $r22, 1 - $r00 + $r11 - $r22, 1 - $r00 - $r11 + $r22, 1 + $r00 + $r11 + $r22];
        $largest = (int) array_search(max($squares), $squares, true);
        // Four times the largest component.
        $four = 2 * sqrt($squares[$largest]);
        $others = match ($largest) {
            0 => [$r01 + $r10, $r02 + $r20, $r21 - $r12],
            1 => [$r01 + $r10, $r12 + $r21, $r02 - $r20],
            2 => [$r02 + $r20, $r12 + $r21, $r10 - $r01],
            default => [$r21 - $r12, $r02 - $r20, $r10 - $r01],
        };
        foreach ($others as $other) {
            $turn[] = max(-32767, min(32767, (int) round(($other / $four) * M_SQRT2 * 32767)));
        }

        return [$largest, pack('v6', ...array_map(static fn (int $code): int => $code & 0xffff, [...$turn, ...$codes]))];
    }

    private static function planes(string $packed): string
    {
        $planes = array_fill(0, self::BYTES, '');
        foreach ($packed === '' ? [] : str_split($packed, self::BYTES * 1024) as $window) {
            for ($byte = 0, $end = strlen($window); $byte < self::BYTES; $byte++) {
                $plane = '';
                for ($at = $byte; $at < $end; $at += self::BYTES) {
                    $plane .= $window[$at];
                }
                $planes[$byte] .= $plane;
            }
        }

        return implode('', $planes);
    }
}
