<?php

declare(strict_types=1);

namespace VineShelf\Bcf;

/**
 * What BCF says of a view: camera, what is visible, selected and coloured, and planes that cut.
 *
 * @phpstan-type Vector array{float, float, float}
 * @phpstan-type Camera array{eye: Vector, way: Vector, up: Vector, fov?: float, tall?: float, aspect: float}
 * @phpstan-type Cut array{Vector, Vector}
 */
final readonly class Viewpoint
{
    /**
     * @param string                                  $guid     lower case, with dashes
     * @param Camera|null                             $camera   metres, z up; fov, upright in degrees, for perspective, tall for parallel
     * @param bool                                    $shows    whether what is not excepted is visible
     * @param list<Component>                         $excepted
     * @param list<Component>                         $selected
     * @param list<array{string, list<Component>}>    $colours  "RRGGBB" and what has it
     * @param list<Cut>                               $cuts     where a plane goes through, and where it points: to what is gone
     * @param string                                  $snapshot bytes of a PNG, "" for none
     */
    public function __construct(
        public string $guid,
        public ?array $camera = null,
        public bool $shows = true,
        public array $excepted = [],
        public array $selected = [],
        public array $colours = [],
        public array $cuts = [],
        public string $snapshot = '',
    ) {}
}
