<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Targets;
use App\Changes\Edits\Edits;
use VineShelf\Output\Output;
use VineShelf\Rungs\OutputSettings;

/** What holds something down in pictures goes to Full: in every picture, or in those of the view that is looked at. */
final class RaiseInPictures extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    public function __construct(Bench $bench, Targets $targets, bool $onlyInView)
    {
        $view = $bench->outputs()->view();
        $own = $view?->output();
        $numbers = $bench->scene()->numberBits($targets->rows);
        if ($view !== null && $onlyInView) {
            $raised = ($own ?? new OutputSettings)->with($targets->layers, $targets->tags, $targets->folders, $numbers, Output::Full);
            $steps = ChangeViews::output($bench, $view->no, $raised)->edits()->steps;
        } else {
            $set = new SetOutput($bench, $targets, Output::Full);
            $this->leftAlone = $set->leftAlone;
            $steps = $set->edits()->steps;
            if ($view !== null && $own !== null) {
                // What the view says itself would go on holding it down.
                $less = $own->with($targets->layers, $targets->tags, $targets->folders, $numbers, null);
                $steps = [...$steps, ...ChangeViews::output($bench, $view->no, $less)->edits()->steps];
            }
        }
        $this->edits = new Edits($steps);
        $this->title =
            ($onlyInView && $view !== null ? "In pictures of $view->name full: " : 'In pictures full: ').$targets->inWords($bench);
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
