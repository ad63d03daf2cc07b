<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Geometry\Box;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** "blocks": six 32-bit floats each: the box around what rows 0 to 63 draw, 64 to 127, and so on. */
final class Blocks implements Family
{
    /** Rows that one of them is around. */
    public const ROWS = 64;

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
        return ['box', 'recordAt'];
    }

    public function make(Scene $scene, string $of): string
    {
        $boxes = $scene->column('box');
        $count = $scene->count();
        $records = Packed::uint32($scene->column('recordAt'), 0, $count + 2);
        $packed = '';
        for ($first = 0; $first <= $count; $first += self::ROWS) {
            $block = new Box;
            for ($row = max(1, $first), $last = min($count, $first + self::ROWS - 1); $row <= $last; $row++) {
                if ($records[$row + 1] > $records[$row]) {
                    $block = $block->with(new Box(...Packed::float32($boxes, $row * 24, 6)));
                }
            }
            $packed .= pack('g6', $block->minX, $block->minY, $block->minZ, $block->maxX, $block->maxY, $block->maxZ);
        }

        return $packed;
    }
}
