<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/**
 * A box along the axes. An empty box has its minimum above its maximum.
 *
 * @phpstan-import-type Transform from Affine
 */
final readonly class Box
{
    public function __construct(
        public float $minX = INF,
        public float $minY = INF,
        public float $minZ = INF,
        public float $maxX = -INF,
        public float $maxY = -INF,
        public float $maxZ = -INF,
    ) {}

    public function isEmpty(): bool
    {
        return $this->minX > $this->maxX;
    }

    /** @return array{float, float, float} */
    public function middle(): array
    {
        return $this->isEmpty()
            ? [0.0, 0.0, 0.0]
            : [($this->minX + $this->maxX) / 2, ($this->minY + $this->maxY) / 2, ($this->minZ + $this->maxZ) / 2];
    }

    /** @return array{float, float, float} half of its sides */
    public function halves(): array
    {
        return [($this->maxX - $this->minX) / 2, ($this->maxY - $this->minY) / 2, ($this->maxZ - $this->minZ) / 2];
    }

    /**
     * Where its middle is after the transform.
     *
     * @param Transform $m
     *
     * @return array{float, float, float}
     */
    public function middleOf(array $m): array
    {
        [$x, $y, $z] = $this->middle();

        return [
            $m[0] * $x + $m[1] * $y + $m[2] * $z + $m[3],
            $m[4] * $x + $m[5] * $y + $m[6] * $z + $m[7],
            $m[8] * $x + $m[9] * $y + $m[10] * $z + $m[11],
        ];
    }

    public function with(self $other): self
    {
        return new self(
            min($this->minX, $other->minX),
            min($this->minY, $other->minY),
            min($this->minZ, $other->minZ),
            max($this->maxX, $other->maxX),
            max($this->maxY, $other->maxY),
            max($this->maxZ, $other->maxZ),
        );
    }

    /**
     * The box around this box after the transform; never smaller than the box around what was in it.
     *
     * @param Transform $m
     */
    public function transformed(array $m): self
    {
        if ($this->isEmpty()) {
            return $this;
        }
        [$hx, $hy, $hz] = $this->halves();
        [$x, $y, $z] = $this->middleOf($m);
        $ex = abs($m[0]) * $hx + abs($m[1]) * $hy + abs($m[2]) * $hz;
        $ey = abs($m[4]) * $hx + abs($m[5]) * $hy + abs($m[6]) * $hz;
        $ez = abs($m[8]) * $hx + abs($m[9]) * $hy + abs($m[10]) * $hz;

        return new self($x - $ex, $y - $ey, $z - $ez, $x + $ex, $y + $ey, $z + $ez);
    }

    /** @return array{float, float, float, float, float, float} least x, y, z, then greatest */
    public function toList(): array
    {
        return [$this->minX, $this->minY, $this->minZ, $this->maxX, $this->maxY, $this->maxZ];
    }

    /** @return array{min: array{float, float, float}, max: array{float, float, float}}|null null when empty */
    public function toArray(): ?array
    {
        return $this->isEmpty()
            ? null
            : ['min' => [$this->minX, $this->minY, $this->minZ], 'max' => [$this->maxX, $this->maxY, $this->maxZ]];
    }

    /** The box around packed 32-bit floats, three per point. */
    public static function around(string $positions): self
    {
        $box = new self;
        foreach (str_split($positions, 98_304) as $window) {
            /** @var array<int, float> $n */
            $n = unpack('g*', $window);
            $minX = $minY = $minZ = INF;
            $maxX = $maxY = $maxZ = -INF;
            for ($at = 1, $end = count($n); $at < $end; $at += 3) {
                $x = $n[$at];
                $y = $n[$at + 1];
                $z = $n[$at + 2];
                if ($x < $minX) {
                    $minX = $x;
                }
                if ($x > $maxX) {
                    $maxX = $x;
                }
                if ($y < $minY) {
                    $minY = $y;
                }
                if ($y > $maxY) {
                    $maxY = $y;
                }
                if ($z < $minZ) {
                    $minZ = $z;
                }
                if ($z > $maxZ) {
                    $maxZ = $z;
                }
            }
            $box = $box->with(new self($minX, $minY, $minZ, $maxX, $maxY, $maxZ));
        }

        return $box;
    }

    /**
     * The box around packed 32-bit floats after the transform, exact to the points.
     *
     * @param Transform $m
     */
    public static function aroundTransformed(string $positions, array $m): self
    {
        [$a, $b, $c, $d, $e, $f, $g, $h, $i, $j, $k, $l] = $m;
        $minX = $minY = $minZ = INF;
        $maxX = $maxY = $maxZ = -INF;
        foreach (str_split($positions, 98_304) as $window) {
            /** @var array<int, float> $n */
            $n = unpack('g*', $window);
            for ($at = 1, $end = count($n); $at < $end; $at += 3) {
                $x = $a * $n[$at] + $b * $n[$at + 1] + $c * $n[$at + 2] + $d;
                $y = $e * $n[$at] + $f * $n[$at + 1] + $g * $n[$at + 2] + $h;
                $z = $i * $n[$at] + $j * $n[$at + 1] + $k * $n[$at + 2] + $l;
                $minX = $x < $minX ? $x : $minX;
                $maxX = $x > $maxX ? $x : $maxX;
                $minY = $y < $minY ? $y : $minY;
                $maxY = $y > $maxY ? $y : $maxY;
                $minZ = $z < $minZ ? $z : $minZ;
                $maxZ = $z > $maxZ ? $z : $maxZ;
            }
        }

        return new self($minX, $minY, $minZ, $maxX, $maxY, $maxZ);
    }
}
