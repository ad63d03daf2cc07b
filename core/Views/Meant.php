<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Rungs\Rows;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;

/**
 * Of the rungs that a view keeps, those that are meant for its pictures too: settings of their own beside those that the desk gets when the
 * view is applied.
 */
final class Meant
{
    /** What is kept, less rows that were lowered only to work. */
    public static function without(Settings $kept, Rows $forWork): Settings
    {
        return $forWork->put($kept, null);
    }

    /**
     * What is meant once other rungs are kept: rows that changed are meant as they are kept now, the others stay.
     *
     * @param Settings $before what was kept
     * @param Settings $after  what is kept now
     */
    public static function following(Settings $meant, Settings $before, Settings $after): Settings
    {
        $numbers = self::changed($before->objects, $after->objects)->with(self::changed($before->objectsAlone, $after->objectsAlone));
        $layers = self::keys($before->layers, $after->layers) + self::keys($before->layersAlone, $after->layersAlone);
        $rows = new Rows(
            array_keys($layers),
            array_keys(self::keys($before->tags, $after->tags)),
            array_keys(self::keys($before->folders, $after->folders)),
            $numbers,
        );

        return $rows->copied($after, $meant);
    }

    /**
     * @param array<int, int> $before
     * @param array<int, int> $after
     *
     * @return array<int, true> numbers whose rung is another, as keys
     */
    private static function keys(array $before, array $after): array
    {
        $changed = [];
        foreach ($before + $after as $number => $_) {
            if (($before[$number] ?? null) !== ($after[$number] ?? null)) {
                $changed[$number] = true;
            }
        }

        return $changed;
    }

    /**
     * @param array<int, Bits> $before
     * @param array<int, Bits> $after
     */
    private static function changed(array $before, array $after): Bits
    {
        $none = $changed = Bits::none(0);
        foreach (Rung::cases() as $rung) {
            [$was, $is] = [$before[$rung->value] ?? $none, $after[$rung->value] ?? $none];
            $changed = $changed->with($was->less($is))->with($is->less($was));
        }

        return $changed;
    }
}
