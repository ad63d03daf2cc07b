<?php

declare(strict_types=1);

namespace VineShelf\Simplify;

/**
 * Triangles in a tree of bounding boxes, for the one that is nearest to a point. The tree is flat and balanced: triangles stand in the
 * order of a curve through space (G. Morton, 1966), each leaf holds a few that follow each other, and the node n lies above 2n + 1 and
 * 2n + 2.
 *
 * @phpstan-type Triangle array{array{float, float, float}, array{float, float, float}, array{float, float, float}}
 */
final readonly class TriangleTree
{
    private const LEAF = 4;

    /** Steps of the curve along each axis. */
    private const STEPS = 1023;

    /**
     * @param list<Triangle> $triangles corners, metres
     * @param list<float> $boxes  lowest x, y, z and highest x, y, z of each node, metres
     * @param int         $leaves how many; the first of them is the node before which so many less one stand
     */
    private function __construct(public array $triangles, private array $boxes, private int $leaves) {}

    /**
     * @param list<float> $x       of each place, metres
     * @param list<float> $y
     * @param list<float> $z
     * @param list<int>   $corners three places for each triangle
     */
    public static function of(array $x, array $y, array $z, array $corners): self
    {
        $triangles = [];
        foreach (self::order($x, $y, $z, $corners) as $at) {
            [$a, $b, $c] = [$corners[3 * $at], $corners[3 * $at + 1], $corners[3 * $at + 2]];
            $triangles[] = [[$x[$a], $y[$a], $z[$a]], [$x[$b], $y[$b], $z[$b]], [$x[$c], $y[$c], $z[$c]]];
        }
        $leaves = 1;
        while ($leaves * self::LEAF < count($triangles)) {
            $leaves *= 2;
        }

        return new self($triangles, self::boxes($triangles, $leaves), $leaves);
    }

    /**
     * @param array{float, float, float} $point metres
     * @param int                        $hint  a triangle that may be near, -1 for none
     *
     * @return array{float, int} square of the distance, and the triangle; INF and -1 where there is none
     */
    public function nearest(array $point, int $hint = -1): array
    {
        [$x, $y, $z] = $point;
        [$triangles, $boxes, $count, $inner] = [$this->triangles, $this->boxes, count($this->triangles), $this->leaves - 1];
        [$least, $nearest] = $hint < 0 ? [INF, -1] : [Distance::square($point, ...$triangles[$hint]), $hint];
        $stack = [0];
        $farAway = [0.0];
        while ($stack !== []) {
            $node = array_pop($stack);
            if (array_pop($farAway) >= $least) {
                continue;
            }
            if ($node >= $inner) {
                $from = ($node - $inner) * self::LEAF;
                for ($at = $from, $end = min($count, $from + self::LEAF); $at < $end; $at++) {
                    $square = Distance::square($point, $triangles[$at][0], $triangles[$at][1], $triangles[$at][2]);
                    if ($square < $least) {
                        [$least, $nearest] = [$square, $at];
                    }
                }

                continue;
            }
            $squares = [];
            for ($child = 2 * $node + 1; $child <= 2 * $node + 2; $child++) {
                $box = 6 * $child;
                $dx = max($boxes[$box] - $x, 0.0, $x - $boxes[$box + 3]);
                $dy = max($boxes[$box + 1] - $y, 0.0, $y - $boxes[$box + 4]);
                $dz = max($boxes[$box + 2] - $z, 0.0, $z - $boxes[$box + 5]);
                $squares[] = $dx * $dx + $dy * $dy + $dz * $dz;
            }
            // The nearer box is looked into first.
            $right = $squares[1] < $squares[0] ? 0 : 1;
            array_push($stack, 2 * $node + 1 + $right, 2 * $node + 2 - $right);
            array_push($farAway, $squares[$right], $squares[1 - $right]);
        }

        return [$least, $nearest];
    }

    /**
     * @param list<float> $x
     * @param list<float> $y
     * @param list<float> $z
     * @param list<int>   $corners
     *
     * @return list<int> triangles along the curve
     */
    private static function order(array $x, array $y, array $z, array $corners): array
    {
        if ($corners === [] || $x === [] || $y === [] || $z === []) {
            return [];
        }
        $lowest = [min($x), min($y), min($z)];
        $step = max(max($x) - $lowest[0], max($y) - $lowest[1], max($z) - $lowest[2], 1e-9) * 3 / self::STEPS;
        $codes = [];
        for ($at = 0, $count = count($corners); $at < $count; $at += 3) {
            [$a, $b, $c] = [$corners[$at], $corners[$at + 1], $corners[$at + 2]];
            $codes[] = self::spread((int) (($x[$a] + $x[$b] + $x[$c] - 3 * $lowest[0]) / $step))
                | self::spread((int) (($y[$a] + $y[$b] + $y[$c] - 3 * $lowest[1]) / $step)) << 1
                | self::spread((int) (($z[$a] + $z[$b] + $z[$c] - 3 * $lowest[2]) / $step)) << 2;
        }
        asort($codes);

        return array_keys($codes);
    }

    /** Ten bits, with two that are free after each. */
    private static function spread(int $bits): int
    {
        $bits = ($bits | $bits << 16) & 0x030000FF;
        $bits = ($bits | $bits << 8) & 0x0300F00F;
        $bits = ($bits | $bits << 4) & 0x030C30C3;

        return ($bits | $bits << 2) & 0x09249249;
    }

    /**
     * @param list<Triangle> $triangles
     *
     * @return list<float>
     */
    private static function boxes(array $triangles, int $leaves): array
    {
        // What holds nothing is infinitely far away.
        $boxes = array_fill(0, 6 * (2 * $leaves - 1), INF);
        foreach ($triangles as $at => [$a, $b, $c]) {
            $box = 6 * ($leaves - 1 + intdiv($at, self::LEAF));
            $isFirst = $at % self::LEAF === 0;
            for ($axis = 0; $axis < 3; $axis++) {
                $low = min($a[$axis], $b[$axis], $c[$axis]);
                $high = max($a[$axis], $b[$axis], $c[$axis]);
                $boxes[$box + $axis] = $isFirst ? $low : min($boxes[$box + $axis], $low);
                $boxes[$box + 3 + $axis] = $isFirst ? $high : max($boxes[$box + 3 + $axis], $high);
            }
        }
        for ($node = $leaves - 2; $node >= 0; $node--) {
            [$box, $left, $right] = [6 * $node, 6 * (2 * $node + 1), 6 * (2 * $node + 2)];
            for ($axis = 0; $axis < 3; $axis++) {
                $boxes[$box + $axis] = min($boxes[$left + $axis], $boxes[$right + $axis]);
                $boxes[$box + 3 + $axis] = $boxes[$right] === INF
                    ? $boxes[$left + 3 + $axis]
                    : max($boxes[$left + 3 + $axis], $boxes[$right + 3 + $axis]);
            }
        }

        return array_values($boxes);
    }
}
