<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Bits;

/** Output settings with which a picture has other own rungs than it has. */
final class GivenOutput
{
    /**
     * @param Settings $has   what a picture has by these settings, as {@see OutputSettings::over()} gives it
     * @param Settings $wants what it is to have
     */
    public static function by(OutputSettings $is, Settings $has, Settings $wants): OutputSettings
    {
        $objects = self::changed($has->objects, $wants->objects);
        $layers = self::given($is->layers, $has->layers, $wants->layers);
        // What is set takes the place of what the view's rungs held alone.
        $has = $has->withLayersAlone(array_keys(array_diff_key($layers, $is->layers, $is->layersAlone)), null);
        foreach ($objects as $numbers) {
            foreach ($is->objectsAlone as $held) {
                $numbers = $numbers->less($held);
            }
            $has = $has->withObjectsAlone($numbers, null);
        }

        return new OutputSettings(
            $layers,
            self::given($is->tags, $has->tags, $wants->tags),
            self::given($is->folders, $has->folders, $wants->folders),
            self::withChanged($is->objects, $objects),
            self::given($is->layersAlone, $has->layersAlone, $wants->layersAlone),
            self::withChanged($is->objectsAlone, self::changed($has->objectsAlone, $wants->objectsAlone)),
        );
    }

    /**
     * @param array<int, int> $values
     * @param array<int, int> $has
     * @param array<int, int> $wants
     *
     * @return array<int, int>
     */
    private static function given(array $values, array $has, array $wants): array
    {
        foreach ($has + $wants as $number => $_) {
            $rung = $wants[$number] ?? Rung::Full->value;
            if ($rung !== ($has[$number] ?? Rung::Full->value)) {
                $values[$number] = $rung;
            }
        }

        return $values;
    }

    /**
     * @param array<int, Bits> $has
     * @param array<int, Bits> $wants
     *
     * @return array<int, Bits> object numbers that are wanted at another rung, by that
     */
    private static function changed(array $has, array $wants): array
    {
        $none = Bits::none(0);
        $full = Rung::Full->value;
        $changed = [];
        foreach (Rung::cases() as $rung) {
            $changed[$rung->value] = ($wants[$rung->value] ?? $none)->less($has[$rung->value] ?? $none);
        }
        foreach ($has as $numbers) {
            foreach ($wants as $those) {
                $numbers = $numbers->less($those);
            }
            $changed[$full] = $changed[$full]->with($numbers);
        }

        return $changed;
    }

    /**
     * @param array<int, Bits> $values
     * @param array<int, Bits> $changed
     *
     * @return array<int, Bits>
     */
    private static function withChanged(array $values, array $changed): array
    {
        foreach ($changed as $value => $numbers) {
            $values = OutputSettings::set($values, $numbers, $value);
        }

        return $values;
    }
}
