<?php

declare(strict_types=1);

namespace VineShelf\Colours;

/** Colours that can be told apart, from each other and from the colour of the pick. */
final class Palette
{
    /** Nearer than this, two swatches are taken for the same. */
    public const APART = 0.055;

    /** So far apart are the first so many colours of what comes without one: they are told apart on sight, without comparing. */
    private const ON_SIGHT = [12 => 0.12, 24 => 0.09];

    /** So far a colour that a material has is from the pick's; what is coined here keeps farther away. */
    private const FROM_PICK = 0.08;

    /** The accent that the interface keeps for the pick alone, in the light theme and in the dark one. */
    private const PICK = ['#7a3e74', '#e0a6d8'];

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
        $least = self::least(count(array_unique($taken)));
        $taken = self::compared($taken);
        $best = self::FRESH[0];
        $farthest = -1.0;
        foreach (self::FRESH as $colour) {
            $nearest = self::nearest(Oklab::of($colour), $taken);
            if ($nearest >= $least) {
                return $colour;
            }
            if ($nearest > $farthest) {
                [$best, $farthest] = [$colour, $nearest];
            }
        }

        return $least > self::APART ? self::elsewhere($best, $taken, $least) : self::beside($best, $taken);
    }

    /**
     * Colours for what comes without: as near to the wanted ones as they can be and still be told apart on sight.
     *
     * @param list<string> $wanted hexadecimal
     *
     * @return list<string>
     */
    public static function onSight(array $wanted): array
    {
        $few = array_slice($wanted, 0, (int) array_key_last(self::ON_SIGHT));
        $given = [];
        foreach ($few as $colour) {
            $least = self::least(count($given));
            $taken = self::compared($given);
            // A wanted colour gives way to its neighbours, and to the pick's only where it would be taken for that: grey stays grey.
            $there = Oklab::of($colour);
            $isFree =
                self::nearest($there, array_map(Oklab::of(...), $given)) >= $least &&
                self::nearest($there, array_map(Oklab::of(...), self::PICK)) >= self::FROM_PICK;
            $given[] = $isFree ? $colour : self::elsewhere($colour, $taken, $least);
        }

        return [...$given, ...self::apart(array_slice($wanted, count($few)), $given)];
    }

    /** How far apart a colour is to be from those before it. @param int $before how many there are */
    private static function least(int $before): float
    {
        foreach (self::ON_SIGHT as $many => $least) {
            if ($before < $many) {
                return $least;
            }
        }

        return self::APART;
    }

    /**
     * Of all colours that a screen shows well, the nearest one that is far enough from those taken; the farthest from them where none is.
     *
     * @param list<Oklab> $taken
     */
    private static function elsewhere(string $colour, array $taken, float $least): string
    {
        $from = Oklab::of($colour);
        $best = $colour;
        [$closest, $farthest] = [INF, -1.0];
        foreach (self::shown() as $shown => $there) {
            $nearest = self::nearest($there, $taken);
            $reach = $from->distance($there);
            if ($nearest >= $least ? $reach < $closest : $closest === INF && $nearest > $farthest) {
                $best = $shown;
                $nearest >= $least ? ($closest = $reach) : ($farthest = $nearest);
            }
        }

        return $best;
    }

    /** @return array<string, Oklab> colours all over what a screen shows, neither dark nor pale, by hexadecimal */
    private static function shown(): array
    {
        static $shown = [];
        if ($shown === []) {
            for ($lightness = 0.4; $lightness <= 0.86; $lightness += 0.046) {
                for ($a = -0.21; $a <= 0.21; $a += 0.03) {
                    for ($b = -0.21; $b <= 0.21; $b += 0.03) {
                        $colour = (new Oklab($lightness, $a, $b))->hexadecimal();
                        $shown += $colour === null ? [] : [$colour => Oklab::of($colour)];
                    }
                }
            }
        }

        /** @var array<string, Oklab> */
        return $shown;
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
            if (self::nearest(Oklab::of($colour), $near) < self::APART) {
                $colour = self::elsewhere($colour, $near, self::APART);
            }
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
        return array_map(Oklab::of(...), [...self::PICK, ...array_slice(array_values(array_unique($taken)), -self::COMPARED)]);
    }
}
