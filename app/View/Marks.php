<?php

declare(strict_types=1);

namespace App\View;

use VineShelf\Facts\Measure;
use VineShelf\Locks\Lock;
use VineShelf\Output\Output;
use VineShelf\Rungs\Rung;

/** The rung mark and the lock mark: shape first, never colour alone. */
final class Marks
{
    /** @var array<string, string> */
    private static array $made = [];

    /**
     * Five bars of rising height: filled for what is in effect, outlined for an own setting that is held down, hatched when members differ.
     * Where all is Full the mark is quiet: what differs carries the ink.
     */
    public static function rung(Rung $own, Rung $inEffect, bool $mixed = false): string
    {
        $key = $own->value.'/'.$inEffect->value.($mixed ? 'm' : '');
        if (isset(self::$made[$key])) {
            return self::$made[$key];
        }
        $bars = '';
        for ($bar = 0; $bar < 5; $bar++) {
            $height = 3 + 3 * $bar;
            $x = 5 * $bar;
            [$class, $y, $tall, $left, $wide] = match (true) {
                $bar < $inEffect->value => [$mixed ? 'mix' : 'on', 15 - $height, $height, $x, 4],
                $bar < $own->value => ['own', 15.5 - $height, $height - 1, $x + 0.5, 3],
                default => ['off', 13, 2, $x, 4],
            };
            $bars .= "<rect class=\"$class\" x=\"$left\" y=\"$y\" width=\"$wide\" height=\"$tall\" rx=\".8\"/>";
        }

        $all = $inEffect === Rung::Full && ! $mixed ? ' all' : '';

        return self::$made[$key] = "<svg class=\"rung-mark$all\" viewBox=\"0 0 24 15\" aria-hidden=\"true\">$bars</svg>";
    }

    /**
     * What pictures show: the bars of what is in effect where something is set or holds it down, "=" where nothing is; a screen beside the
     * bars where the desk decides, and its own sign for what is never in pictures.
     */
    public static function output(?Output $own, Rung $inEffect, bool $mixed): string
    {
        return match (true) {
            $own === Output::Never => '<span class="never">'.Icon::svg('image-off').'</span>',
            $own === Output::AsOnDesk => '<span class="as-desk">'.
                Icon::svg('monitor').
                '</span>'.
                self::rung($inEffect, $inEffect, $mixed),
            $own === null && $inEffect === Rung::Full && ! $mixed => '<span class="as-is" aria-hidden="true">=</span>',
            default => self::rung($own === null ? $inEffect : Rung::from($own->value), $inEffect, $mixed),
        };
    }

    public static function lock(Lock $lock): string
    {
        return match ($lock) {
            Lock::Open => '<span class="dot" aria-hidden="true">·</span>',
            Lock::Guarded => Icon::svg('shield'),
            Lock::Locked => Icon::svg('lock'),
        };
    }

    /** 12,345,678 as "12.3M". */
    public static function short(int $number): string
    {
        return match (true) {
            $number >= 10_000_000 => number_format($number / 1_000_000, 1).'M',
            $number >= 1_000_000 => number_format($number / 1_000_000, 2).'M',
            $number >= 10_000 => number_format($number / 1000).'k',
            $number >= 1000 => number_format($number / 1000, 1).'k',
            default => (string) $number,
        };
    }

    /** Bytes in the unit that reads best. */
    public static function bytes(int $bytes): string
    {
        return Measure::bytes($bytes);
    }
}
