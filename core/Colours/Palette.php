<?php

declare(strict_types=1);

namespace VineShelf\Colours;

/** Colours that can be told apart, from each other and from the colour of the pick. */
final class Palette
{
    /** Nearer than this, two swatches are taken for the same. */
    public const APART = 0.055;

    /** The accent that the interface keeps for the pick alone. */
    private const PICK = '#7a3b72';

    /** Among more colours than these nobody tells all apart. */
    private const COMPARED = 80;

    /** Of many colours each is told from so many before it. */
    private const NEIGHBOURS = 12;

    /** Tried in this order for what has no colour to be near to. */
    private const FRESH = [
        '#3f7a63',
        '#c98f4a',
        '#4f7d9a',
        '#d26b4f',
        '#7f9c6a',
        '#8a5a3c',
        '#5db0a8',
        '#d8b94f',
        '#6d7d8b',
        '#a94f3f',
        '#9bb7d0',
        '#5b6f2f',
        '#e0a58a',
        '#2f5f8a',
        '#b9b06a',
        '#3d8f4f',
        '#a8866b',
        '#7a8fd0',
        '#cf8a2f',
        '#5a4a3a',
        '#8fc48a',
        '#c4604a',
        '#3f6f7a',
        '#d8c48f',
    ];

    /**
     * A colour for something new.
     *
     * @param list<string> $taken colours of what stands beside it, hexadecimal
     */
    public static function next(array $taken): string
    {
        $taken = self::compared($taken);
        $best = self::FRESH[0];
        $farthest = -1.0;
        foreach (self::FRESH as $colour) {
            $nearest = self::nearest(Oklab::of($colour), $taken);
            if ($nearest >= 2 * self::APART) {
                return $colour;
            }
            if ($nearest > $farthest) {
                [$best, $farthest] = [$colour, $nearest];
            }
        }

        return $farthest >= self::APART ? $best : self::beside($best, $taken);
    }

    /**
     * The same colours, but those that cannot be told from one before them moved aside, as little as it takes.
     *
     * @param list<string> $wanted hexadecimal
     * @param list<string> $taken  colours that are there already
     *
     * @return list<string>
     */
    public static function apart(array $wanted, array $taken = []): array
    {
        $given = self::compared($taken);
        $apart = [];
        $compared = count($wanted) > self::COMPARED ? self::NEIGHBOURS : self::COMPARED;
        foreach ($wanted as $colour) {
            $near = array_slice($given, -$compared);
            $colour = self::nearest(Oklab::of($colour), $near) >= self::APART ? $colour : self::beside($colour, $near);
            $apart[] = $colour;
            $given[] = Oklab::of($colour);
        }

        return $apart;
    }

    /**
     * The nearest colour to one that is apart from those taken, or the farthest from them there is.
     *
     * @param list<Oklab> $taken
     */
    private static function beside(string $colour, array $taken): string
    {
        $from = Oklab::of($colour);
        $best = $colour;
        $farthest = self::nearest($from, $taken);
        for ($ring = 1; $ring <= 7; $ring++) {
            $reach = $ring * self::APART * 0.8;
            foreach (self::around($from, $reach) as $there) {
                $shown = $there->hexadecimal();
                if ($shown === null || $there->lightness < 0.32 || $there->lightness > 0.92) {
                    continue;
                }
                $nearest = self::nearest(Oklab::of($shown), $taken);
                if ($nearest >= self::APART) {
                    return $shown;
                }
                if ($nearest > $farthest) {
                    [$best, $farthest] = [$shown, $nearest];
                }
            }
        }

        return $best;
    }

    /** @return \Generator<Oklab> colours at a distance: lighter and darker first, then other hues */
    private static function around(Oklab $from, float $reach): \Generator
    {
        foreach ([1, -1, 0, 0.7, -0.7] as $up) {
            $out = sqrt(max(0.0, 1 - $up * $up)) * $reach;
            $steps = $out < 1e-9 ? 1 : 12;
            for ($step = 0; $step < $steps; $step++) {
                $angle = (2 * M_PI * $step) / $steps;
                yield new Oklab($from->lightness + $up * $reach, $from->a + $out * cos($angle), $from->b + $out * sin($angle));
            }
        }
    }

    /** @param list<Oklab> $taken */
    private static function nearest(Oklab $colour, array $taken): float
    {
        $nearest = INF;
        foreach ($taken as $other) {
            $nearest = min($nearest, $colour->distance($other));
        }

        return $nearest;
    }

    /**
     * @param list<string> $taken
     *
     * @return list<Oklab>
     */
    private static function compared(array $taken): array
    {
        return array_map(Oklab::of(...), [self::PICK, ...array_slice(array_values(array_unique($taken)), -self::COMPARED)]);
    }
}
