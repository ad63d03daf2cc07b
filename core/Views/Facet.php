<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Views\Follows\Follows;
use VineShelf\Views\Follows\Isolation;
use VineShelf\Views\Follows\Nothing;
use VineShelf\Views\Follows\Output;
use VineShelf\Views\Follows\Rungs;
use VineShelf\Views\Follows\Tint;

/** One part of a state that a view keeps or leaves alone. */
enum Facet: string
{
    case Camera = 'camera';
    case Rungs = 'rungs';
    case Output = 'output';
    case Tint = 'tint';
    case Section = 'section';
    case Isolation = 'isolation';

    public function label(): string
    {
        return match ($this) {
            self::Camera => 'Camera',
            self::Rungs => 'Rungs',
            self::Output => 'Output',
            self::Tint => 'Tint',
            self::Section => 'Section',
            self::Isolation => 'Isolation',
        };
    }

    /** What it keeps, as the end of "It keeps …". */
    public function inWords(): string
    {
        return match ($this) {
            self::Camera => 'the camera',
            self::Rungs => 'the rungs: what is shown, ghosted, boxed or hidden',
            self::Output => 'what pictures show',
            self::Tint => 'the tint',
            self::Section => 'the section',
            self::Isolation => 'what is isolated',
        };
    }

    /** How it follows in old views while people sort. */
    public function follows(): Follows
    {
        return match ($this) {
            self::Rungs => new Rungs,
            self::Output => new Output,
            self::Tint => new Tint,
            self::Isolation => new Isolation,
            self::Camera, self::Section => new Nothing,
        };
    }
}
