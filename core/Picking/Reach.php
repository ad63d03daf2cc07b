<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Facts\Facts;
use VineShelf\Picking\Ways\Asked;
use VineShelf\Picking\Ways\Way;
use VineShelf\Scene\Bits;

/** Ways from a pick to its relatives; what each does stands in the folder Ways. */
enum Reach: string
{
    case Up = 'up';
    case Top = 'top';
    case Down = 'down';
    case Below = 'below';
    case Beside = 'beside';
    case Depth = 'depth';
    case Kind = 'kind';
    case ObjectClass = 'class';
    case Material = 'material';
    case Mesh = 'mesh';
    case Size = 'size';
    case Name = 'name';
    case Layer = 'layer';
    case Properties = 'properties';

    public function label(): string
    {
        return match ($this) {
            self::Up => 'One up',
            self::Top => 'Up to the top',
            self::Down => 'One down',
            self::Below => 'All below',
            self::Beside => 'Beside',
            self::Depth => 'Same depth',
            self::Kind => 'Same kind',
            self::ObjectClass => 'Same class',
            self::Material => 'Same material',
            self::Mesh => 'Same mesh',
            self::Size => 'Same size',
            self::Name => 'Same name',
            self::Layer => 'Same layer',
            self::Properties => 'Same properties',
        };
    }

    public function meaning(): string
    {
        return match ($this) {
            self::Up => 'what directly holds the pick',
            self::Top => 'the topmost groups that hold the pick',
            self::Down => 'what stands directly below the pick',
            self::Below => 'the pick and everything below it',
            self::Beside => 'the pick and what stands under the same parents',
            self::Depth => 'what is nested as deep, wherever it is',
            self::Kind => 'everything of the same kind',
            self::ObjectClass => 'everything of the same class',
            self::Material => 'everything drawn with one of its materials',
            self::Mesh => 'every instance of its meshes',
            self::Size => 'everything whose width, length and height are the same, turned or not',
            self::Name => 'everything with the same name, up to its number',
            self::Layer => 'everything in the same layers',
            self::Properties => 'everything that has the values which all of the pick share',
        };
    }

    /** The objects that the pick leads to. @param Bits $pick rows */
    public function of(Bits $pick, Facts $facts, Asked $asked = new Asked, Scope $scope = Scope::Project): Bits
    {
        return $this->way()
            ->of($pick, $facts, $asked)
            ->and($scope->around($pick, $facts)->or($pick));
    }

    private function way(): Way
    {
        return match ($this) {
            self::Up => new Ways\Up,
            self::Top => new Ways\Top,
            self::Down => new Ways\Down,
            self::Below => new Ways\Below,
            self::Beside => new Ways\Beside,
            self::Depth => new Ways\SameDepth,
            self::Kind => new Ways\SameKind,
            self::ObjectClass => new Ways\SameClass,
            self::Material => new Ways\SameMaterial,
            self::Mesh => new Ways\SameMesh,
            self::Size => new Ways\SameSize,
            self::Name => new Ways\SameName,
            self::Layer => new Ways\SameLayer,
            self::Properties => new Ways\SameProperties,
        };
    }
}
