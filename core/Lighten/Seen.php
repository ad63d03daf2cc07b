<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

/** What is seen of each row in one small picture; areas in its pixels, 0 for rows that are not in it. All lists by row. */
final class Seen
{
    /** How much of it is to be seen. @var list<float> */
    public array $seen;

    /** How much it would cover if nothing stood in front. @var list<float> */
    public array $covered;

    /** How much the box around it would cover. @var list<float> */
    public array $boxed;

    /** Pixels that a metre is seen in where it stands. @var list<float> */
    public array $perMetre;

    public function __construct(public readonly Raster $raster, int $count)
    {
        $this->seen = $this->covered = $this->boxed = $this->perMetre = array_fill(0, $count + 1, 0.0);
    }

    /** Pixels of the picture. */
    public function pixels(): int
    {
        return $this->raster->width * $this->raster->height;
    }
}
