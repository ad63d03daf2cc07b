<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;

/** What a view makes of a desk. */
final class Applied
{
    /** What newcomers get: nothing of them is shown, all of it is, or what the desk has. */
    public const HIDDEN = 0;

    public const FULL = 5;

    public const AS_ON_DESK = -1;

    /**
     * The rungs of a desk after a view was applied to it.
     *
     * @param Bits                $newcomers rows of the view's newcomers
     * @param int                 $get       what those get, one of the constants
     * @param \Closure(): ?InEffect $onDesk the desk before, without isolation, for newcomers as it has them; null gives them Full
     */
    public static function rungs(Settings $view, Settings $desk, Scene $scene, Bits $newcomers, int $get, \Closure $onDesk): Settings
    {
        // A ceiling keeps the desk fast, whatever is looked at.
        return self::withNewcomers($view->withCeiling(Rung::from($desk->ceiling)), $scene, $newcomers, $get, $onDesk);
    }

    /**
     * What a view sets, with what it gives to newcomers said object by object.
     *
     * @param Bits                $newcomers rows
     * @param \Closure(): ?InEffect $onDesk
     */
    public static function withNewcomers(Settings $view, Scene $scene, Bits $newcomers, int $get, \Closure $onDesk): Settings
    {
        if ($get === self::FULL || $newcomers->isEmpty()) {
            return $view;
        }
        if ($get === self::HIDDEN) {
            $whole = $newcomers->without(self::holdingOthers($scene, $newcomers));

            return $view
                ->withObjects($scene->numberBits($whole), Rung::Hidden)
                ->withObjectsAlone($scene->numberBits($newcomers->without($whole)), Rung::Hidden);
        }
        $desk = $onDesk();
        if ($desk === null) {
            return $view;
        }
        [$there, $shown] = [$desk->rungs(), $desk->under($view, null)->rungs()];
        for ($rung = 0; $rung < Rung::Full->value; $rung++) {
            // What the view lowers further needs no holding.
            $rows = $there->being($rung)->and($newcomers)->and($shown->atLeast($rung + 1));
            $view = $rows->isEmpty() ? $view : $view->withObjectsAlone($scene->numberBits($rows), Rung::from($rung));
        }

        return $view;
    }

    /** Those of the rows that hold what is not among them: a rung on such a group would reach it. */
    private static function holdingOthers(Scene $scene, Bits $rows): Bits
    {
        $holding = [];
        foreach ($rows->and($scene->groupBits())->rows() as $row) {
            $end = $scene->end($row);
            if ($rows->countBetween($row, $end) <= $end - $row) {
                $holding[] = $row;
            }
        }

        return Bits::ofRows($scene->count(), $holding);
    }
}
