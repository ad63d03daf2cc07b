<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** "instances": uint32 per row: how often its mesh is drawn in the project. */
final class Instances implements Family
{
    public function name(): string
    {
        return 'instances';
    }

    public function has(string $of): bool
    {
        return $of === '';
    }

    public function needs(string $of): array
    {
        return ['recordAt', 'mesh'];
    }

    public function make(Scene $scene, string $of): string
    {
        $count = $scene->count();
        $records = Packed::uint32($scene->column('recordAt'), 0, $count + 2);
        $meshes = Packed::uint32($scene->column('mesh'), 0, $count + 1);
        $drawn = [];
        foreach ($meshes as $row => $mesh) {
            if ($mesh > 0) {
                $drawn[$mesh] = ($drawn[$mesh] ?? 0) + $records[$row + 1] - $records[$row];
            }
        }

        return pack('V*', ...array_map(static fn (int $mesh): int => $drawn[$mesh] ?? 0, $meshes));
    }
}
