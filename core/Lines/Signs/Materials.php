<?php

declare(strict_types=1);

namespace VineShelf\Lines\Signs;

use VineShelf\Facts\Facts;
use VineShelf\Rules\Printer;
use VineShelf\Scene\Packed;

/** The one material that they draw with, by its name. */
final class Materials implements Sign
{
    /** @var array<string, int> code by name */
    private array $names = ['' => 0];

    public function __construct(private readonly Facts $facts) {}

    public function codes(): array
    {
        $materials = $this->facts->materials();
        $ofSurface = [];
        foreach ($this->facts->surfaceLists() as $surface => $list) {
            $name = mb_strtolower(count($list) === 1 ? $materials[$list[0]][0] ?? '' : '');
            $ofSurface[$surface] = $this->names[$name] ??= count($this->names);
        }
        $surfaces = Packed::uint32($this->facts->scene->column('surfaces'), 0, $this->facts->scene->count() + 1);

        return array_map(static fn (int $surface): int => $ofSurface[$surface] ?? 0, $surfaces);
    }

    public function rule(int $code): string
    {
        return 'material='.Printer::word((string) array_search($code, $this->names, true));
    }

    public function isOwn(): bool
    {
        return true;
    }
}
