<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\UnreadableFile;

/**
 * Unpacks buffer views that are compressed as the glTF extension EXT_meshopt_compression describes: vertex attributes,
 * triangle lists and index lists, and the three filters.
 */
final class Meshopt
{
    /**
     * @param string $mode   "ATTRIBUTES", "TRIANGLES" or "INDICES"
     * @param string $filter "NONE", "OCTAHEDRAL", "QUATERNION" or "EXPONENTIAL"
     *
     * @return string `count * stride` bytes
     */
    public static function decode(string $data, int $count, int $stride, string $mode, string $filter): string
    {
        return match ($mode) {
            'ATTRIBUTES' => self::filtered(self::attributes($data, $count, $stride), $count, $stride, $filter),
            'TRIANGLES' => self::triangles($data, $count, $stride),
            'INDICES' => self::sequence($data, $count, $stride),
            default => throw UnreadableFile::because("A compressed buffer view has the unknown mode \"$mode\"."),
        };
    }

    private static function attributes(string $data, int $count, int $stride): string
    {
        if ($stride < 1 || $stride > 256 || $stride % 4 !== 0) {
            throw UnreadableFile::because(
                "A compressed buffer view has elements of $stride bytes; they must be a multiple of 4, up to 256.",
            );
        }
        if ($data === '' || ord($data[0]) !== 0xa0) {
            throw UnreadableFile::because('A compressed buffer view does not start as compressed vertices do.');
        }
        $tail = max(32, $stride);
        $end = strlen($data) - $tail;
        if ($end < 1) {
            throw UnreadableFile::endsEarly('a compressed buffer view', 1 + $tail, strlen($data));
        }
        $last = array_values((array) unpack('C*', substr($data, -$stride)));
        $perBlock = min(intdiv(8192, $stride) & ~15, 256);
        $at = 1;
        $output = '';
        for ($done = 0; $done < $count; $done += $perBlock) {
            $elements = min($perBlock, $count - $done);
            $columns = [];
            for ($byte = 0; $byte < $stride; $byte++) {
                $value = is_int($last[$byte]) ? $last[$byte] : 0;
                $column = [];
                foreach (self::deltas($data, $at, $end, $elements) as $delta) {
                    $value = ($value + (-($delta & 1) ^ ($delta >> 1))) & 255;
                    $column[] = $value;
                }
                $last[$byte] = $value;
                $columns[] = $column;
            }
            $bytes = [];
            for ($element = 0; $element < $elements; $element++) {
                foreach ($columns as $column) {
                    $bytes[] = $column[$element];
                }
            }
            $output .= pack('C*', ...$bytes);
        }

        return $output;
    }

    /** @return list<int> one delta per element */
    private static function deltas(string $data, int &$at, int $end, int $elements): array
    {
        $groups = intdiv($elements + 15, 16);
        $header = $at;
        $at += intdiv($groups + 3, 4);
        $deltas = [];
        for ($group = 0; $group < $groups; $group++) {
            if ($at > $end) {
                throw UnreadableFile::endsEarly('a compressed buffer view', $at, $end);
            }
            $bits = [0, 2, 4, 8][(ord($data[$header + ($group >> 2)]) >> (($group & 3) * 2)) & 3];
            $wanted = min(16, $elements - $group * 16);
            $packed = $at;
            $at += 2 * $bits;
            if ($at > $end) {
                throw UnreadableFile::endsEarly('a compressed buffer view', $at, $end);
            }
            for ($index = 0; $index < 16; $index++) {
                if ($bits === 0) {
                    $delta = 0;
                } elseif ($bits === 8) {
                    $delta = ord($data[$packed + $index]);
                } else {
                    $bit = $index * $bits;
                    $delta = (ord($data[$packed + ($bit >> 3)]) >> (8 - $bits - ($bit & 7))) & ((1 << $bits) - 1);
                    if ($delta === (1 << $bits) - 1) {
                        $delta = ord($data[$at++] ?? "\0");
                    }
                }
                if ($index < $wanted) {
                    $deltas[] = $delta;
                }
            }
        }

        return $deltas;
    }

    private static function triangles(string $data, int $count, int $stride): string
    {
        if ($data === '' || (ord($data[0]) & 0xf0) !== 0xe0 || (ord($data[0]) & 15) > 1 || $count % 3 !== 0) {
            throw UnreadableFile::because('A compressed buffer view does not start as compressed triangles do.');
        }
        $steps = (ord($data[0]) & 15) >= 1 ? 13 : 15;
        $triangles = intdiv($count, 3);
        $table = strlen($data) - 16;
        $at = 1 + $triangles;
        if ($table < $at) {
            throw UnreadableFile::endsEarly('a compressed buffer view', $at + 16, strlen($data));
        }
        $edges = array_fill(0, 16, [0, 0]);
        $recent = array_fill(0, 16, 0);
        $edge = $vertex = $next = $last = 0;
        $indices = [];
        for ($triangle = 0; $triangle < $triangles; $triangle++) {
            $code = ord($data[1 + $triangle]);
            if ($at > $table) {
                throw UnreadableFile::endsEarly('a compressed buffer view', $at, $table);
            }
            if ($code < 0xf0) {
                [$a, $b] = $edges[($edge - 1 - ($code >> 4)) & 15];
                $step = $code & 15;
                if ($step < $steps) {
                    $c = $step === 0 ? $next++ : $recent[($vertex - 1 - $step) & 15];
                    $keep = $step === 0;
                } else {
                    $last = $c = $step !== 15 ? $last + ($step - ($step ^ 3)) : self::index($data, $at, $last);
                    $keep = true;
                }
                if ($keep) {
                    $recent[$vertex] = $c;
                    $vertex = ($vertex + 1) & 15;
                }
                $edges[$edge] = [$c, $b];
                $edges[($edge + 1) & 15] = [$a, $c];
                $edge = ($edge + 2) & 15;
            } else {
                $explicit = $code >= 0xfe;
                $pair = ord($explicit ? $data[$at++] : $data[$table + ($code & 15)]);
                $stepB = $pair >> 4;
                $stepC = $pair & 15;
                if ($explicit && $pair === 0) {
                    $next = 0;
                }
                $a = $code === 0xff ? 0 : $next++;
                $b = $stepB === 0 ? $next++ : $recent[($vertex - $stepB) & 15];
                $c = $stepC === 0 ? $next++ : $recent[($vertex - $stepC) & 15];
                if ($code === 0xff) {
                    $last = $a = self::index($data, $at, $last);
                }
                if ($explicit && $stepB === 15) {
                    $last = $b = self::index($data, $at, $last);
                }
                if ($explicit && $stepC === 15) {
                    $last = $c = self::index($data, $at, $last);
                }
                $keepB = $stepB === 0 || ($explicit && $stepB === 15);
                $keepC = $stepC === 0 || ($explicit && $stepC === 15);
                foreach ([[$a, true], [$b, $keepB], [$c, $keepC]] as [$index, $keep]) {
                    $recent[$vertex] = $index;
                    $vertex = ($vertex + ($keep ? 1 : 0)) & 15;
                }
                foreach ([[$b, $a], [$c, $b], [$a, $c]] as $pair) {
                    $edges[$edge] = $pair;
                    $edge = ($edge + 1) & 15;
                }
            }
            $indices[] = $a;
            $indices[] = $b;
            $indices[] = $c;
        }

        return self::packed($indices, $stride);
    }

    private static function sequence(string $data, int $count, int $stride): string
    {
        if ($data === '' || ord($data[0]) >> 4 !== 0xd) {
            throw UnreadableFile::because('A compressed buffer view does not start as compressed indices do.');
        }
        $at = 1;
        $end = strlen($data) - 4;
        $last = [0, 0];
        $indices = [];
        for ($index = 0; $index < $count; $index++) {
            if ($at >= $end) {
                throw UnreadableFile::endsEarly('a compressed buffer view', $at + 5, strlen($data));
            }
            $value = self::variable($data, $at);
            $which = $value & 1;
            $value >>= 1;
            $last[$which] = ($last[$which] + (($value >> 1) ^ -($value & 1))) & 0xffffffff;
            $indices[] = $last[$which];
        }

        return self::packed($indices, $stride);
    }

    /** @param list<int> $indices */
    private static function packed(array $indices, int $stride): string
    {
        $packed = '';
        foreach (array_chunk($indices, 32768) as $some) {
            $packed .= pack(
                match ($stride) {
                    2 => 'v*',
                    4 => 'V*',
                    default => throw UnreadableFile::because("Compressed indices of $stride bytes are not possible; they have 2 or 4."),
                },
                ...$some,
            );
        }

        return $packed;
    }

    private static function index(string $data, int &$at, int $last): int
    {
        $value = self::variable($data, $at);

        return ($last + (($value >> 1) ^ -($value & 1))) & 0xffffffff;
    }

    private static function variable(string $data, int &$at): int
    {
        $value = 0;
        for ($shift = 0; $shift < 35; $shift += 7) {
            $byte = ord($data[$at++] ?? "\0");
            $value |= ($byte & 127) << $shift;
            if ($byte < 128) {
                break;
            }
        }

        return $value;
    }

    private static function filtered(string $bytes, int $count, int $stride, string $filter): string
    {
        return match ($filter) {
            'NONE' => $bytes,
            'OCTAHEDRAL' => self::octahedral($bytes, $count, $stride),
            'QUATERNION' => self::quaternion($bytes, $count, $stride),
            'EXPONENTIAL' => self::exponential($bytes),
            default => throw UnreadableFile::because("A compressed buffer view has the unknown filter \"$filter\"."),
        };
    }

    private static function octahedral(string $bytes, int $count, int $stride): string
    {
        [$format, $most] = match ($stride) {
            4 => ['c*', 127],
            8 => ['s*', 32767],
            default => throw UnreadableFile::because("The octahedral filter needs elements of 4 or 8 bytes, not $stride."),
        };
        /** @var array<int, int> $numbers */
        $numbers = unpack($format, $bytes);
        for ($at = 1, $end = $count * 4; $at <= $end; $at += 4) {
            $one = max(1, $numbers[$at + 2]);
            $x = $numbers[$at] / $one;
            $y = $numbers[$at + 1] / $one;
            $z = 1.0 - abs($x) - abs($y);
            $fold = min($z, 0.0);
            $x += $x >= 0 ? $fold : -$fold;
            $y += $y >= 0 ? $fold : -$fold;
            $scale = $most / max(1e-12, sqrt($x * $x + $y * $y + $z * $z));
            $numbers[$at] = (int) round($x * $scale);
            $numbers[$at + 1] = (int) round($y * $scale);
            $numbers[$at + 2] = (int) round($z * $scale);
        }

        return pack($format, ...$numbers);
    }

    private static function quaternion(string $bytes, int $count, int $stride): string
    {
        if ($stride !== 8) {
            throw UnreadableFile::because("The quaternion filter needs elements of 8 bytes, not $stride.");
        }
        /** @var array<int, int> $numbers */
        $numbers = unpack('s*', $bytes);
        for ($at = 1, $end = $count * 4; $at <= $end; $at += 4) {
            $code = $numbers[$at + 3];
            $scale = 1 / sqrt(2) / ($code | 3);
            $x = $numbers[$at] * $scale;
            $y = $numbers[$at + 1] * $scale;
            $z = $numbers[$at + 2] * $scale;
            $w = sqrt(max(0.0, 1 - $x * $x - $y * $y - $z * $z));
            $which = $code & 3;
            foreach ([$w, $x, $y, $z] as $turn => $value) {
                $numbers[$at + (($which + $turn) & 3)] = (int) round($value * 32767);
            }
        }

        return pack('s*', ...$numbers);
    }

    private static function exponential(string $bytes): string
    {
        /** @var array<int, int> $numbers */
        $numbers = unpack('V*', $bytes);
        $floats = [];
        foreach ($numbers as $number) {
            $exponent = $number >> 24;
            $mantissa = $number & 0xffffff;
            $floats[] =
                ($mantissa >= 0x800000 ? $mantissa - 0x1000000 : $mantissa) * 2.0 ** ($exponent >= 128 ? $exponent - 256 : $exponent);
        }

        return pack('g*', ...$floats);
    }
}
