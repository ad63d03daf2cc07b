<?php

declare(strict_types=1);

namespace VineShelf\Export;

use VineShelf\Geometry\Affine;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Kind;

/**
 * An object as it goes into a file.
 *
 * @phpstan-import-type Transform from Affine
 */
final readonly class Part
{
    /**
     * @param int                   $parent     index of the one that holds it among those that were added, -1 for none
     * @param list<Transform>       $placements metres, z up
     * @param array<string, mixed>  $extras     layer, tags and properties
     * @param array<string, mixed>  $about      what a light or a camera is like, as files say it
     * @param bool                  $holds      whether others stand in it
     */
    public function __construct(
        public int $parent,
        public string $name,
        public Kind $kind,
        public int $mesh,
        public Rung $rung,
        public array $placements,
        public array $extras,
        public array $about = [],
        public bool $holds = false,
    ) {}
}
