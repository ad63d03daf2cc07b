<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Geometry\Box;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** "blocks": six 32-bit floats each: the box around the first 32 rows of "near", around the next 32, and so on. */
final class Blocks implements Family
{
    /** Rows that one of them is around. */
    public const ROWS = 32;

    public function name(): string
    {
        return 'blocks';
    }

    public function has(string $of): bool
    {
        return $of === '';
    }

    public function needs(string $of): array
    {
        return ['box', 'near'];
    }

    public function make(Scene $scene, string $of): string
    {
        $boxes = $scene->column('box');
        $packed = '';
        foreach (self::rows($scene) as $rows) {
            $block = new Box;
            foreach ($rows as $row) {
                $block = $block->with(new Box(...Packed::float32($boxes, $row * 24, 6)));
            }
            $packed .= pack('g6', $block->minX, $block->minY, $block->minZ, $block->maxX, $block->maxY, $block->maxZ);
        }

        return $packed;
    }

    /** @return iterable<int, list<int>> the rows of each block */
    public static function rows(Scene $scene): iterable
    {
        $near = $scene->column('near');
        for ($block = 0, $count = intdiv(strlen($near), 4); $block * self::ROWS < $count; $block++) {
            yield $block => self::of($near, $block);
        }
    }

    /** @return list<int> the rows of a block */
    public static function of(string $near, int $block): array
    {
        return Packed::uint32($near, $block * self::ROWS * 4, min(self::ROWS, intdiv(strlen($near), 4) - $block * self::ROWS));
    }
}
