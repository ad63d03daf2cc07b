<?php

declare(strict_types=1);

namespace VineShelf\Section;

use VineShelf\Geometry\Box;

/**
 * What of a model is kept by a box along the axes, by single planes, or by both: what lies on the kept side of all of them.
 *
 * @phpstan-type Kept array{on?: bool, box?: list<float>|null, planes?: list<array{0: list<float>, 1: float}>}
 */
final readonly class Section
{
    public const MOST_PLANES = 6;

    /** What a box or a block of boxes is to the section. */
    public const OUT = 0;

    public const ACROSS = 1;

    public const IN = 2;

    /**
     * @param bool         $isOn   whether it cuts; one that is off keeps what it is
     * @param Box|null     $box    metres
     * @param list<Plane>  $single
     */
    private function __construct(public bool $isOn, public ?Box $box, public array $single) {}

    public static function none(): self
    {
        return new self(false, null, []);
    }

    /** @param list<Plane> $single at most {@see self::MOST_PLANES} */
    public static function of(?Box $box, array $single = [], bool $isOn = true): self
    {
        return new self($isOn, $box, array_slice($single, 0, self::MOST_PLANES));
    }

    public function isEmpty(): bool
    {
        return $this->box === null && $this->single === [];
    }

    /** Whether anything is cut now. */
    public function cuts(): bool
    {
        return $this->isOn && ! $this->isEmpty();
    }

    public function turned(bool $on): self
    {
        return new self($on, $this->box, $this->single);
    }

    /** @return list<Plane> all planes that cut: those of the box first, in pairs along x, y and z, the lower one first */
    public function planes(): array
    {
        $planes = [];
        if ($this->box !== null) {
            [$x0, $y0, $z0, $x1, $y1, $z1] = $this->box->toList();
            foreach ([[[1.0, 0.0, 0.0], $x0, $x1], [[0.0, 1.0, 0.0], $y0, $y1], [[0.0, 0.0, 1.0], $z0, $z1]] as [$normal, $least, $most]) {
                $planes[] = Plane::of($normal, $least)->flipped();
                $planes[] = Plane::of($normal, $most);
            }
        }

        return [...$planes, ...$this->single];
    }

    /**
     * What a box along the axes is to the planes.
     *
     * @param list<Plane> $planes
     * @param float       $x0     least x, and so on
     */
    public static function side(array $planes, float $x0, float $y0, float $z0, float $x1, float $y1, float $z1): int
    {
        $is = self::IN;
        foreach ($planes as $plane) {
            [$a, $b, $c] = $plane->normal;
            $most = ($a > 0 ? $a * $x1 : $a * $x0) + ($b > 0 ? $b * $y1 : $b * $y0) + ($c > 0 ? $c * $z1 : $c * $z0);
            if ($most <= $plane->distance) {
                continue;
            }
            $least = ($a > 0 ? $a * $x0 : $a * $x1) + ($b > 0 ? $b * $y0 : $b * $y1) + ($c > 0 ? $c * $z0 : $c * $z1);
            if ($least > $plane->distance) {
                return self::OUT;
            }
            $is = self::ACROSS;
        }

        return $is;
    }

    /** @return Kept */
    public function toArray(): array
    {
        return [
            'on' => $this->isOn,
            'box' => $this->box?->toList(),
            'planes' => array_map(static fn (Plane $plane): array => [$plane->normal, $plane->distance], $this->single),
        ];
    }

    /** @param array<string, mixed> $kept as {@see toArray()} gives it; what cannot be read is left out */
    public static function fromArray(array $kept): self
    {
        $numbers = static function (mixed $list, int $count): ?array {
            if (! is_array($list) || count($list) !== $count) {
                return null;
            }
            foreach ($list as $number) {
                if ((! is_int($number) && ! is_float($number)) || ! is_finite((float) $number) || abs($number) > 1e9) {
                    return null;
                }
            }

            return array_map(floatval(...), array_values($list));
        };
        $sides = $numbers($kept['box'] ?? null, 6);
        $planes = [];
        foreach (is_array($kept['planes'] ?? null) ? $kept['planes'] : [] as $plane) {
            $normal = is_array($plane) ? $numbers($plane[0] ?? null, 3) : null;
            $distance = $normal === null ? null : $numbers([$plane[1] ?? null], 1);
            if ($normal !== null && $distance !== null && hypot($normal[0], hypot($normal[1], $normal[2])) > 1e-9) {
                $planes[] = Plane::of([$normal[0], $normal[1], $normal[2]], $distance[0]);
            }
        }

        return self::of(
            $sides === null
                ? null
                : new Box(
                    min($sides[0], $sides[3]),
                    min($sides[1], $sides[4]),
                    min($sides[2], $sides[5]),
                    max($sides[0], $sides[3]),
                    max($sides[1], $sides[4]),
                    max($sides[2], $sides[5]),
                ),
            $planes,
            ($kept['on'] ?? false) === true,
        );
    }
}
