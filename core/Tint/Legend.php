<?php

declare(strict_types=1);

namespace VineShelf\Tint;

use VineShelf\Facts\Facts;
use VineShelf\Layers\LayerTree;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;

/** Which objects get which colour. Only what draws something is coloured, each object by one entry at most. */
final readonly class Legend
{
    /** Colours that shuffled objects get. */
    private const SHUFFLED = 24;

    /** Steps from the lightest to the heaviest, each twice as heavy as the one before. */
    private const STEPS = 16;

    /** @param list<LegendEntry> $entries */
    private function __construct(public array $entries) {}

    /**
     * @param int       $seed another number shuffles anew
     * @param Bits|null $only rows to colour, null for all
     */
    public static function of(TintBy $by, Facts $facts, LayerTree $layers, InEffect $inEffect, int $seed = 1, ?Bits $only = null): self
    {
        $draws = $facts->ranked('instances')->between(1, INF);
        if ($only !== null) {
            $draws = $draws->and($only);
        }
        $entries = match ($by) {
            TintBy::Own => [],
            TintBy::Layer => self::layers($facts, $layers),
            TintBy::Kind => self::kinds($facts),
            TintBy::Material => self::materials($facts),
            TintBy::Source => self::sources($facts),
            TintBy::Weight => self::weights($facts),
            TintBy::Lock => self::locks($inEffect),
            TintBy::Shuffle => self::shuffled($draws, $seed),
        };
        /** @var list<LegendEntry> $kept */
        $kept = [];
        $left = $draws;
        foreach ($entries as [$label, $colour, $rows]) {
            $rows = $rows->and($left);
            if (! $rows->isEmpty()) {
                $kept[] = new LegendEntry($label, $colour, $rows);
                $left = $left->without($rows);
            }
        }

        if ($by === TintBy::Weight) {
            // The scale goes from the lightest to the heaviest that there is.
            $last = max(1, count($kept) - 1);
            $kept = array_map(
                static fn (LegendEntry $entry, int $index): LegendEntry => new LegendEntry(
                    $entry->label,
                    self::between([222, 226, 196], [150, 160, 84], [168, 60, 30], 1 - $index / $last),
                    $entry->rows,
                ),
                $kept,
                array_keys($kept),
            );
        }

        return new self($kept);
    }

    /** @return string two bytes per row, row 0 first: the entry that colours it, counted from 1, 0 for none */
    public function codes(int $rows): string
    {
        $codes = str_repeat("\0\0", $rows + 1);
        $pieces = [];
        foreach ($this->entries as $index => $entry) {
            foreach ($entry->rows->ranges() as [$first, $last]) {
                $pieces[$first] = [$last, pack('v', $index + 1)];
            }
        }
        ksort($pieces);
        $made = '';
        $at = 0;
        foreach ($pieces as $first => [$last, $code]) {
            $made .= substr($codes, 0, ($first - $at) * 2).str_repeat($code, $last - $first + 1);
            $at = $last + 1;
        }

        return $made.substr($codes, 0, ($rows + 1 - $at) * 2);
    }

    /** @return list<array{string, string, Bits}> */
    private static function layers(Facts $facts, LayerTree $layers): array
    {
        return array_map(
            static fn (array $entry): array => [
                $entry[0]->name,
                $entry[0]->colour,
                $facts->scene->layers()->rowsOf([$entry[0]->number => true]),
            ],
            $layers->walk(),
        );
    }

    /**
     * By the class that the file gives, and by kind where it gives none.
     *
     * @return list<array{string, string, Bits}>
     */
    private static function kinds(Facts $facts): array
    {
        $classes = array_filter(
            array_map(strval(...), $facts->words('class.words')),
            static fn (int $code): bool => $code > 0,
            ARRAY_FILTER_USE_KEY,
        );
        asort($classes, SORT_NATURAL | SORT_FLAG_CASE);
        $all = count($classes) + 7;
        $entries = [];
        foreach ($classes as $code => $class) {
            $entries[] = [$class, self::colour(count($entries), $all), $facts->ranked('class')->in([$code])];
        }
        foreach (Kind::cases() as $kind) {
            $entries[] = [ucfirst($kind->plural()), self::colour(count($entries), $all), $facts->ranked('kind')->in([$kind->value])];
        }

        return $entries;
    }

    /** @return list<array{string, string, Bits}> */
    private static function materials(Facts $facts): array
    {
        $codes = [];
        foreach ($facts->surfaceLists() as $code => $list) {
            // An object with several materials counts for the first one.
            $codes[$list[0] ?? 0][] = $code;
        }
        ksort($codes);
        $entries = [];
        foreach ($codes as $material => $some) {
            $entries[] = [
                $material === 0 ? 'No material' : $facts->materials()[$material][0] ?? '',
                $material === 0 ? '#9a958a' : self::colour(count($entries), count($codes)),
                $material === 0
                    ? $facts
                        ->ranked('instances')
                        ->between(1, INF)
                        ->without($facts->bits('material'))
                    : $facts->ranked('surfaces')->in($some),
            ];
        }

        return $entries;
    }

    /** @return list<array{string, string, Bits}> */
    private static function sources(Facts $facts): array
    {
        $entries = [];
        foreach ($facts->sourceNames() as $number => $name) {
            $entries[] = [$name, self::colour(count($entries), count($facts->sourceNames())), $facts->sources()->rowsOf([$number => true])];
        }

        return $entries;
    }

    /** @return list<array{string, string, Bits}> */
    private static function weights(Facts $facts): array
    {
        $entries = [];
        $low = 0;
        for ($step = 1; $step <= self::STEPS; $step++) {
            $high = $step === self::STEPS ? PHP_INT_MAX : 12 * 2 ** $step;
            $label =
                $step === self::STEPS
                    ? number_format($low + 1).' triangles and more'
                    : ($step === 1 ? 'Up to ' : number_format($low + 1).' to ').number_format($high).' triangles';
            $entries[] = [$label, '', $facts->ranked('triangles')->between($low, $high, $step === 1)];
            $low = $high;
        }

        return array_reverse($entries);
    }

    /** @return list<array{string, string, Bits}> */
    private static function locks(InEffect $inEffect): array
    {
        return array_map(
            static fn (Lock $lock): array => [
                $lock->label(),
                ['#cfd6c4', '#d9a441', '#9c3a23'][$lock->value],
                $inEffect->locks()->being($lock->value),
            ],
            Lock::cases(),
        );
    }

    /** @return list<array{string, string, Bits}> */
    private static function shuffled(Bits $draws, int $seed): array
    {
        $rows = [];
        foreach ($draws->rows() as $row) {
            // The finalizer of MurmurHash3, in the public domain, spreads neighbours apart.
            $hash = ($row * 0x9e3779b1 + $seed * 0x85ebca6b) & 0xffffffff;
            $hash = (($hash ^ ($hash >> 16)) * 0x45d9f3b) & 0xffffffff;
            $rows[($hash ^ ($hash >> 15)) % self::SHUFFLED][] = $row;
        }
        $entries = [];
        foreach ($rows as $colour => $some) {
            $entries[] = ['Colour '.($colour + 1), self::colour($colour, self::SHUFFLED), Bits::ofRows($draws->length, $some)];
        }

        return $entries;
    }

    /** One of a number of colours that are told apart well: hues by the golden angle, in three lightnesses, but none of the pick's. */
    private static function colour(int $index, int $of): string
    {
        $hue = fmod(0.96 + 0.74 * fmod(0.36 + $index * 0.381966, 1.0), 1.0);
        [$saturation, $value] = [[0.5, 0.78], [0.62, 0.58], [0.34, 0.88]][intdiv($index, max(1, min(9, $of))) % 3];
        $channel = static function (float $n) use ($hue, $saturation, $value): int {
            $k = fmod($n + $hue * 6, 6.0);

            return (int) round(255 * ($value - $value * $saturation * max(0.0, min($k, 4 - $k, 1.0))));
        };

        return sprintf('#%02x%02x%02x', $channel(5), $channel(3), $channel(1));
    }

    /**
     * @param array{int, int, int} $from
     * @param array{int, int, int} $over
     * @param array{int, int, int} $to
     */
    private static function between(array $from, array $over, array $to, float $share): string
    {
        [$a, $b, $t] = $share < 0.5 ? [$from, $over, $share * 2] : [$over, $to, $share * 2 - 1];

        return sprintf('#%02x%02x%02x', ...array_map(static fn (int $x, int $y): int => (int) round($x + ($y - $x) * $t), $a, $b));
    }
}
