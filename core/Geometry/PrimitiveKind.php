<?php

declare(strict_types=1);

namespace VineShelf\Geometry;

/** The value is the glTF mode of a plain list of it. */
enum PrimitiveKind: int
{
    case Points = 0;
    case Lines = 1;
    case Triangles = 4;
}
