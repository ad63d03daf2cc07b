<?php

declare(strict_types=1);

namespace VineShelf\Weights;

use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** How often meshes are drawn. */
final class MeshUse
{
    /** @return array<int, int> placements by mesh number, of all that are drawn at least once */
    public static function of(Scene $scene): array
    {
        $count = $scene->count();
        $ends = Packed::uint32($scene->column('recordAt'), 0, $count + 2);
        $times = [];
        foreach (Packed::uint32($scene->column('mesh'), 0, $count + 1) as $row => $mesh) {
            if ($mesh > 0 && $ends[$row + 1] > $ends[$row]) {
                $times[$mesh] = ($times[$mesh] ?? 0) + $ends[$row + 1] - $ends[$row];
            }
        }

        return $times;
    }
}
