<?php

declare(strict_types=1);

namespace VineShelf\Facts;

/** What can be counted or measured of an object. */
enum Measure: string
{
    case Triangles = 'triangles';
    case Weight = 'weight';
    case Vertices = 'vertices';
    case Calls = 'calls';
    case Geometry = 'geometry';
    case Texture = 'texture';
    case Instances = 'instances';
    case Children = 'children';
    case Holds = 'holds';
    case Depth = 'depth';
    case Size = 'size';
    case Width = 'width';
    case Length = 'length';
    case Height = 'height';
    case Volume = 'volume';
    case X = 'x';
    case Y = 'y';
    case Z = 'z';
    case Bottom = 'bottom';
    case Top = 'top';

    public function label(): string
    {
        return ucfirst($this->value);
    }

    /** What the number says, as a sentence's end. */
    public function meaning(): string
    {
        return match ($this) {
            self::Triangles => 'triangles that it draws itself, every instance counted',
            self::Weight => 'triangles of it and all that it holds',
            self::Vertices => 'vertices that it draws itself, every instance counted',
            self::Calls => 'pieces that it draws itself, each of which the graphics card is told to draw, every instance counted',
            self::Geometry => 'bytes of its mesh, which others may share',
            self::Texture => 'bytes of its pictures on the graphics card, which others may share',
            self::Instances => 'how often its mesh is drawn in the whole project',
            self::Children => 'objects directly below it',
            self::Holds => 'objects below it, at any depth',
            self::Depth => 'how deep it is nested: 1 for the top',
            self::Size => 'the largest of its width, length and height',
            self::Width => 'extent along x',
            self::Length => 'extent along y, its depth seen from the front',
            self::Height => 'extent along z, upwards',
            self::Volume => 'volume of its bounding box',
            self::X => 'middle of its bounding box along x',
            self::Y => 'middle of its bounding box along y',
            self::Z => 'middle of its bounding box along z, upwards',
            self::Bottom => 'lowest point along z',
            self::Top => 'highest point along z',
        };
    }

    /**
     * How far a measured value may be off one that is written to count as equal: half a millimetre for lengths, half a thousandth for
     * volumes.
     */
    public function near(float $value): float
    {
        return match ($this->dimension()) {
            0 => 0.0,
            1 => 0.0005,
            default => 0.0005 * abs($value),
        };
    }

    /** A value with its unit, small ones in a unit in which they keep three digits. */
    public function shown(int|float $value): string
    {
        $isPlace = in_array($this, [self::X, self::Y, self::Z, self::Bottom, self::Top], true);

        return match (true) {
            $this === self::Geometry || $this === self::Texture => self::bytes((int) $value),
            $this->dimension() === 0 => number_format($value),
            $this->dimension() === 1 => $isPlace || $value >= 0.01 || $value <= 0.0
                ? number_format($value, 2).' m'
                : self::threeDigits($value * 1e3).' mm',
            $value >= 1.0 || $value <= 0.0 => number_format($value, 1).' m³',
            $value >= 1e-3 => number_format($value, 4).' m³',
            $value >= 1e-6 => self::threeDigits($value * 1e6).' cm³',
            default => self::threeDigits($value * 1e9).' mm³',
        };
    }

    /** In the unit that reads best. */
    public static function bytes(int $bytes): string
    {
        return match (true) {
            $bytes >= 1_000_000_000 => number_format($bytes / 1_000_000_000, 2).' GB',
            $bytes >= 1_000_000 => number_format($bytes / 1_000_000, 1).' MB',
            $bytes >= 1000 => number_format($bytes / 1000).' kB',
            default => $bytes.' bytes',
        };
    }

    private static function threeDigits(float $value): string
    {
        return number_format($value, max(0, 2 - (int) floor(log10($value))));
    }

    /** 0 for a plain number, 1 for metres, 3 for cubic metres. */
    public function dimension(): int
    {
        return match ($this) {
            self::Volume => 3,
            self::Size, self::Width, self::Length, self::Height, self::X, self::Y, self::Z, self::Bottom, self::Top => 1,
            default => 0,
        };
    }
}
