<?php

declare(strict_types=1);

namespace App\View;

/** The sign of each kind of object, so that kinds are told apart at a glance; parts and groups have their swatches. */
final class KindIcon
{
    private const ICONS = ['light' => 'lightbulb', 'camera' => 'video', 'curve' => 'spline', 'points' => 'grip', 'marker' => 'diamond'];

    /** @param string $kind as {@see \VineShelf\Scene\Kind::label()} has it @return string the sign, or "" for kinds that have none */
    public static function of(string $kind): string
    {
        return isset(self::ICONS[$kind]) ? Icon::svg(self::ICONS[$kind]) : '';
    }

    public static function isThere(string $kind): bool
    {
        return isset(self::ICONS[$kind]);
    }
}
