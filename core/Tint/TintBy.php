<?php

declare(strict_types=1);

namespace VineShelf\Tint;

/** What the canvas colours objects by. Tints are laid over materials and never change them. */
enum TintBy: string
{
    case Own = 'own';
    case Layer = 'layer';
    case Tag = 'tag';
    case TagCount = 'tags';
    case WithoutTags = 'without-tags';
    case Set = 'set';
    case Kind = 'kind';
    case Material = 'material';
    case Source = 'source';
    case Weight = 'weight';
    case Lock = 'lock';
    case Output = 'output';
    case Compare = 'compare';
    case Shuffle = 'shuffle';

    public function label(): string
    {
        return match ($this) {
            self::Own => 'Own materials',
            self::Shuffle => 'Shuffled colours',
            self::TagCount => 'How many tags',
            self::WithoutTags => 'What has no tag',
            self::Output => 'Desk and output',
            self::Compare => 'Compared',
            default => ucfirst($this->value),
        };
    }

    /** The end of a sentence, for example "tinted by layer". */
    public function inWords(): string
    {
        return match ($this) {
            self::TagCount => 'by how many tags objects have',
            self::Output => 'by what the desk and pictures show differently',
            self::Compare => 'by what only one of two states shows',
            self::WithoutTags => 'so that what has no tag stands out',
            default => "by $this->value",
        };
    }
}
