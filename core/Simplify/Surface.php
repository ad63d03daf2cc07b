<?php

declare(strict_types=1);

namespace VineShelf\Simplify;

use VineShelf\Geometry\PrimitiveKind;
use VineShelf\Geometry\Shape;

/**
 * The triangles of a mesh over places instead of vertices: vertices at the same place are one, triangles without an area and those that are
 * there twice are gone, whichever way they face. So exporters' soup has neighbours as well.
 */
final readonly class Surface
{
    /**
     * @param list<float> $x       of each place, metres
     * @param list<float> $y
     * @param list<float> $z
     * @param list<int>   $corners three places for each triangle
     * @param list<int>   $pieces  which piece of the shape each triangle is of
     * @param list<int>   $vertices the vertex of its piece that each corner is
     * @param list<int>   $steps   the quantized places, three numbers each
     * @param array{float, float, float} $scale as that of the shape
     */
    private function __construct(
        public array $x,
        public array $y,
        public array $z,
        public array $corners,
        public array $pieces,
        public array $vertices,
        public array $steps,
        public array $scale,
    ) {}

    public static function of(Shape $shape): self
    {
        $places = $corners = $pieces = $vertices = $steps = $known = [];
        foreach ($shape->pieces as $piece => ['kind' => $kind, 'positions' => $positions, 'indices' => $indices, 'wide' => $wide]) {
            if ($kind !== PrimitiveKind::Triangles) {
                continue;
            }
            /** @var array<int, int> $n */
            $n = unpack('s*', $positions);
            $at = [];
            for ($next = 1, $count = count($n); $next < $count; $next += 4) {
                $key = (($n[$next] + 32768) << 32) | (($n[$next + 1] + 32768) << 16) | ($n[$next + 2] + 32768);
                // PHP finds keys by their lowest bits, which all places at one height would share.
                $key ^= $key >> 32;
                $key ^= $key >> 16;
                if (! isset($places[$key])) {
                    $places[$key] = count($places);
                    $steps[] = $n[$next];
                    $steps[] = $n[$next + 1];
                    $steps[] = $n[$next + 2];
                }
                $at[] = $places[$key];
            }
            /** @var array<int, int> $order */
            $order = unpack($wide ? 'V*' : 'v*', $indices);
            for ($next = 1, $count = count($order) - 2; $next <= $count; $next += 3) {
                $a = $at[$order[$next]];
                $b = $at[$order[$next + 1]];
                $c = $at[$order[$next + 2]];
                if ($a === $b || $b === $c || $c === $a) {
                    continue;
                }
                // 2,000,000 places of one mesh are more than a pack holds.
                $low = $a < $b ? ($a < $c ? $a : $c) : ($b < $c ? $b : $c);
                $high = $a > $b ? ($a > $c ? $a : $c) : ($b > $c ? $b : $c);
                $key = ($low << 42) | (($a + $b + $c - $low - $high) << 21) | $high;
                if (! isset($known[$key])) {
                    $known[$key] = true;
                    $corners[] = $a;
                    $corners[] = $b;
                    $corners[] = $c;
                    $vertices[] = $order[$next];
                    $vertices[] = $order[$next + 1];
                    $vertices[] = $order[$next + 2];
                    $pieces[] = $piece;
                }
            }
        }
        $x = $y = $z = [];
        [$sx, $sy, $sz] = [$shape->scale[0] / Shape::STEPS, $shape->scale[1] / Shape::STEPS, $shape->scale[2] / Shape::STEPS];
        for ($at = 0, $count = count($steps); $at < $count; $at += 3) {
            $x[] = $steps[$at] * $sx;
            $y[] = $steps[$at + 1] * $sy;
            $z[] = $steps[$at + 2] * $sz;
        }

        return new self($x, $y, $z, $corners, $pieces, $vertices, $steps, $shape->scale);
    }

    public function triangles(): int
    {
        return count($this->pieces);
    }

    /**
     * Some of the triangles, or others over the same places, as a shape: only the places that they need.
     *
     * @param list<int> $corners
     * @param list<int> $pieces  of each triangle
     *
     * @return array{Shape, list<int>} and the piece that each of its pieces comes from
     */
    public function shape(array $corners, array $pieces): array
    {
        $made = $from = [];
        $by = [];
        foreach ($pieces as $triangle => $piece) {
            $by[$piece][] = $triangle;
        }
        foreach ($by as $piece => $triangles) {
            $places = [];
            $positions = '';
            $order = [];
            foreach ($triangles as $triangle) {
                for ($at = 3 * $triangle; $at < 3 * $triangle + 3; $at++) {
                    $place = $corners[$at];
                    if (! isset($places[$place])) {
                        $places[$place] = count($places);
                        $positions .= pack('s4', $this->steps[3 * $place], $this->steps[3 * $place + 1], $this->steps[3 * $place + 2], 0);
                    }
                    $order[] = $places[$place];
                }
            }
            $wide = count($places) > 65_535;
            $made[] = [
                'kind' => PrimitiveKind::Triangles,
                'positions' => $positions,
                'indices' => pack($wide ? 'V*' : 'v*', ...$order),
                'wide' => $wide,
            ];
            $from[] = $piece;
        }

        return [new Shape($this->scale, $made), $from];
    }
}
