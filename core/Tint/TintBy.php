<?php

declare(strict_types=1);

namespace VineShelf\Tint;

/** What the canvas colours objects by. Tints are laid over materials and never change them. */
enum TintBy: string
{
    case Own = 'own';
    case Layer = 'layer';
    case Kind = 'kind';
    case Material = 'material';
    case Source = 'source';
    case Weight = 'weight';
    case Lock = 'lock';
    case Shuffle = 'shuffle';

    public function label(): string
    {
        return match ($this) {
            self::Own => 'Own materials',
            self::Shuffle => 'Shuffled colours',
            default => ucfirst($this->value),
        };
    }
}
