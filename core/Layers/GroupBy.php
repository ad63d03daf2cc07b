<?php

declare(strict_types=1);

namespace VineShelf\Layers;

/** What several layers are made by at once, from some objects. */
enum GroupBy: string
{
    case Object = 'object';
    case Kind = 'kind';
    case ObjectClass = 'class';
    case Material = 'material';
    case Level = 'level';
    case SourceLayer = 'source-layer';

    public function label(): string
    {
        return match ($this) {
            self::Object => 'one per picked object, named after it',
            self::Kind => 'one per kind',
            self::ObjectClass => 'one per class of the file',
            self::Material => 'one per material',
            self::Level => 'one per level',
            self::SourceLayer => 'one per layer of the source',
        };
    }
}
