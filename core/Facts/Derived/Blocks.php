<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Geometry\Box;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/**
 * "blocks.64", "blocks.8", "blocks.1": six 32-bit floats each: the box around the first so many rows of "near", around the next so many,
 * and so on.
 */
final class Blocks implements Family
{
    /** Rows that one of them is around; each size is so many times the next. */
    public const SIZES = [64, 8, 1];

    /** Blocks that one of the next size is around. */
    public const STEP = 8;

    public function name(): string
    {
        return 'blocks';
    }

    public function has(string $of): bool
    {
        return in_array($of, array_map(strval(...), self::SIZES), true);
    }

    public function needs(string $of): array
    {
        return $of === '1' ? ['box', 'near'] : ['blocks.'.intdiv((int) $of, self::STEP)];
    }

    public function make(Scene $scene, string $of): string
    {
        return $of === '1' ? self::ofRows($scene) : self::around($scene->column($this->needs($of)[0]));
    }

    /** @return array<int, int> the rows that a block is around, counted from 1 */
    public static function rows(string $near, int $size, int $block): array
    {
        $count = min($size, intdiv(strlen($near), 4) - $block * $size);

        /** @var array<int, int> */
        return $count < 1 ? [] : unpack("V$count", $near, $block * $size * 4);
    }

    private static function ofRows(Scene $scene): string
    {
        $boxes = $scene->column('box');
        $near = $scene->column('near');
        $packed = '';
        for ($at = 0, $count = intdiv(strlen($near), 4); $at < $count; $at++) {
            $packed .= substr($boxes, Packed::uint32At($near, $at) * 24, 24);
        }

        return $packed;
    }

    private static function around(string $blocks): string
    {
        $packed = '';
        for ($at = 0, $count = intdiv(strlen($blocks), 24); $at < $count; $at += self::STEP) {
            $around = new Box;
            for ($block = $at; $block < min($count, $at + self::STEP); $block++) {
                $around = $around->with(new Box(...Packed::float32($blocks, $block * 24, 6)));
            }
            $packed .= pack('g6', $around->minX, $around->minY, $around->minZ, $around->maxX, $around->maxY, $around->maxZ);
        }

        return $packed;
    }
}
