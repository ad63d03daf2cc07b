<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Models\Desk;
use App\Models\View;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Settings;
use VineShelf\Views\Applied;

/** A view is applied to a person's desk, and to nothing else: what it keeps, and nothing of what it leaves alone. */
final class ViewOnDesk
{
    /** @return bool whether the desk changed in anything that can be taken back */
    public static function apply(Bench $bench, View $view): bool
    {
        $newcomers = $bench->newTo()->rows($view);
        $apply = static fn (Settings $desk): Settings => Applied::rungs(
            $view->settings(),
            $desk,
            $bench->scene(),
            $newcomers,
            $view->newcomers,
            static fn (): InEffect => $bench->inEffect()->under($desk, null),
        );

        $changed = DeskSteps::take(
            $bench,
            "Apply view $view->name",
            static fn (Settings $desk): Settings => $view->keepsRungs() ? $apply($desk) : $desk,
            facets: static fn (Desk $desk) => $desk->putView($view),
        );
        $bench->met($view);

        return $changed;
    }
}
