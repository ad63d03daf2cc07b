<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Refused;
use VineShelf\Layers\LayerTree;

/** What a layer may be called. */
final class LayerNames
{
    public const LENGTH = 200;

    /** @throws Refused */
    public static function check(string $name): string
    {
        $name = trim((string) preg_replace('~\s+~u', ' ', $name));
        if ($name === '') {
            throw new Refused('A layer needs a name.', 'name');
        }
        if (mb_strlen($name) > self::LENGTH) {
            throw new Refused('A layer name has at most '.self::LENGTH.' characters; this one has '.mb_strlen($name).'.', 'name');
        }

        return $name;
    }

    /** @throws Refused when a sibling has the name already */
    public static function checkFree(string $name, LayerTree $tree, int $parent, int $except = 0): void
    {
        foreach ($tree->inside($parent) as $sibling) {
            if ($sibling !== $except && mb_strtolower($tree->get($sibling)->name) === mb_strtolower($name)) {
                throw new Refused("There is a layer \"{$tree->get($sibling)->name}\" here already; choose another name.", 'name');
            }
        }
    }
}
