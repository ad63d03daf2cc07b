<?php

declare(strict_types=1);

namespace App\Lighten;

use VineShelf\Rungs\Settings;

/** Rungs that would fit a budget, what that does, and how it looks. */
final readonly class Proposal
{
    /**
     * @param Settings $settings the rungs that are proposed; those of objects by number
     * @param array{
     *     before: array{triangles: int, calls: int, bytes: int}, after: array{triangles: int, calls: int, bytes: int},
     *     loss: float, bound: float, differs: float|null, pictured: int|null,
     *     lowered: array<int, int>, unseen: int, locked: int, kept: int, unready: int,
     *     layers: list<array{layer: int, name: string, rungs: array<int, int>, saves: int, loss: float}>
     * } $report loss: part of the pictures that is lost, 0 to 1; bound: what no choice can lose less than, 0 where that is not known;
     *     differs: part of the pixels that look different, where that was drawn; pictured: the camera of the pictures; lowered: objects by
     *     rung; unready: meshes that may yet get coarser versions
     * @param array<string, string> $pictures PNG by what it shows: "before", "after" and "lost"
     */
    public function __construct(public Settings $settings, public array $report, public array $pictures = []) {}

    public function isNothing(): bool
    {
        return $this->report['lowered'] === [];
    }
}
