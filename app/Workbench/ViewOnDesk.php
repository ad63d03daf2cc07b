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
        $newcomers = $bench->newcomers($view);
        $apply = static fn (Settings $desk): Settings => Applied::rungs(
            $view->settings(),
            $desk,
            $bench->scene(),
            $newcomers,
            $view->newcomers,
            static fn (): InEffect => $bench->inEffect()->under($desk, null),
        );

        return DeskSteps::take(
            $bench,
            "Apply view $view->name",
            static fn (Settings $desk): Settings => $view->keepsRungs() ? $apply($desk) : $desk,
            facets: static function (Desk $desk) use ($view): void {
                $desk->view_no = $view->no;
                $desk->tint = $view->tint ?? $desk->tint;
                $desk->section = $view->section ?? $desk->section;
                $isolation = $view->isolation();
                if ($isolation !== null) {
                    $desk->putIsolation($isolation);
                }
            },
        );
    }
}
