<?php

declare(strict_types=1);

namespace VineShelf\Facts\Derived;

use VineShelf\Scene\Scene;
use VineShelf\Search\NameIndex;

/** "stem": uint32 per row: which of the project's different names it has once the number at its end is left off, from 1; 0 for no name. */
final class Stems implements Family
{
    public function name(): string
    {
        return 'stem';
    }

    public function has(string $of): bool
    {
        return $of === '';
    }

    public function needs(string $of): array
    {
        return ['names'];
    }

    public function make(Scene $scene, string $of): string
    {
        $codes = [0];
        $known = ['' => 0];
        $names = explode("\n", $scene->column('names'));
        for ($row = 1, $count = $scene->count(); $row <= $count; $row++) {
            $stem = NameIndex::stem($names[$row]);
            $codes[] = $known[$stem] ??= count($known);
        }

        return pack('V*', ...$codes);
    }
}
