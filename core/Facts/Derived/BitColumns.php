<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/**
 * "bits.W": {@see Bits} of the rows that hold others (groups), have no name (unnamed), have material, textures, properties, or a mesh that
 * other rows draw as well (shared).
 */
final class BitColumns implements Family
{
    private const NEEDS = [
        'groups' => ['groups'],
        'unnamed' => ['names'],
        'properties' => ['properties'],
        'shared' => ['mesh'],
        'material' => ['surfaces', 'surfaces.lists'],
        'textures' => ['surfaces', 'surfaces.lists', 'materials'],
    ];

    public function name(): string
    {
        return 'bits';
    }

    public function has(string $of): bool
    {
        return isset(self::NEEDS[$of]);
    }

    public function needs(string $of): array
    {
        return self::NEEDS[$of];
    }

    public function make(Scene $scene, string $of): string
    {
        $facts = new Facts($scene);
        $rows = match ($of) {
            'groups' => $scene->groupBits(),
            'unnamed' => self::unnamed($scene),
            'properties' => self::withProperties($facts),
            'shared' => self::sharing($scene),
            default => self::drawnWith($facts, $of === 'textures'),
        };

        return $rows->bytes;
    }

    private static function unnamed(Scene $scene): Bits
    {
        $rows = [];
        foreach (explode("\n", $scene->column('names')) as $row => $name) {
            if ($name === '' && $row > 0 && $row <= $scene->count()) {
                $rows[] = $row;
            }
        }

        return Bits::ofRows($scene->count(), $rows);
    }

    private static function sharing(Scene $scene): Bits
    {
        $meshes = Packed::uint32($scene->column('mesh'), 0, $scene->count() + 1);
        $users = array_count_values($meshes);
        $rows = [];
        foreach ($meshes as $row => $mesh) {
            if ($row > 0 && $mesh > 0 && $users[$mesh] > 1) {
                $rows[] = $row;
            }
        }

        return Bits::ofRows($scene->count(), $rows);
    }

    private static function withProperties(Facts $facts): Bits
    {
        $rows = Bits::none($facts->scene->count());
        foreach ($facts->properties() as [$index]) {
            $rows = $rows->or($facts->ranked("property.$index")->present());
        }

        return $rows;
    }

    private static function drawnWith(Facts $facts, bool $textured): Bits
    {
        $isTextured = static fn (int $material): bool => $facts->materials()[$material][1] ?? false;
        $codes = [];
        foreach ($facts->surfaceLists() as $code => $list) {
            if ($textured ? array_filter($list, $isTextured) !== [] : $list !== []) {
                $codes[] = $code;
            }
        }

        return $facts->ranked('surfaces')->in($codes);
    }
}
