<?php

declare(strict_types=1);

namespace VineShelf\Lines\Signs;

use VineShelf\Facts\Facts;
use VineShelf\Rules\Printer;

/** The name of the group that they stand in, at one depth from the top. */
final class Holders implements Sign
{
    /** @var array<string, int> code by name */
    private array $known = ['' => 0];

    /** @param int $depth 1 for the outermost groups */
    public function __construct(private readonly Facts $facts, private readonly int $depth) {}

    public function codes(): array
    {
        $scene = $this->facts->scene;
        $codes = array_fill(0, $scene->count() + 1, 0);
        $names = explode("\n", $scene->column('names'));
        foreach ($scene->groups() as $row) {
            if ($names[$row] === '' || $scene->depth($row) !== $this->depth) {
                continue;
            }
            $code = $this->known[$names[$row]] ??= count($this->known);
            for ($held = $row, $end = $scene->end($row); $held <= $end; $held++) {
                $codes[$held] = $code;
            }
        }

        return $codes;
    }

    public function rule(int $code): string
    {
        return 'name='.Printer::quoted((string) array_search($code, $this->known, true));
    }

    public function isOwn(): bool
    {
        return false;
    }
}
