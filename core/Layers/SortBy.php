<?php

declare(strict_types=1);

namespace VineShelf\Layers;

/** What the first layers of a source are made from. */
enum SortBy: string
{
    case Best = 'best';
    case Groups = 'groups';
    case Property = 'property';
    case Material = 'material';
    case Kind = 'kind';
    case Unsorted = 'unsorted';

    public function label(): string
    {
        return match ($this) {
            self::Best => 'what the file carries',
            self::Groups => 'top groups',
            self::Property => 'a property',
            self::Material => 'material',
            self::Kind => 'kind',
            self::Unsorted => 'nothing: all in Unsorted',
        };
    }
}
