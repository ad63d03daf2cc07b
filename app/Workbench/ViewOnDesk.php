<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Models\Desk;
use App\Models\View;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Settings;
use VineShelf\Views\Applied;

/** A view is applied to a person's desk, and to nothing else. */
final class ViewOnDesk
{
    /** @return bool whether any rung changed */
    public static function apply(Bench $bench, View $view): bool
    {
        $layers = $bench->layers();

        return DeskSteps::take(
            $bench,
            "Apply view $view->name",
            static fn (Settings $desk): Settings => $view->keepsRungs()
                ? Applied::rungs($view->settings(), $desk, $layers, $view->known_layer, $view->newcomers)
                : $desk,
            static function (Desk $desk) use ($view): void {
                $desk->view_no = $view->no;
                // A view shows what it shows: isolating ends with it.
                $desk->putIsolation(Isolation::none());
            },
        );
    }
}
