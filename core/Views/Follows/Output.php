<?php

declare(strict_types=1);

namespace VineShelf\Views\Follows;

use VineShelf\Scene\Bits;
use VineShelf\Views\Holding;
use VineShelf\Views\KeptState;
use VineShelf\Views\Known;
use VineShelf\Views\Resorting;

/**
 * What pictures show is held as rungs are, over all that decides on it: the project's settings, the rungs that the view means for pictures,
 * and its own settings, which take up what is to be held. What follows a desk goes on following it where nothing has to be held.
 */
final readonly class Output implements Follows
{
    public function held(KeptState $before, KeptState $kept, Resorting $change, Known $known, Bits $counted): KeptState
    {
        if ($kept->output === null) {
            return $kept;
        }
        $holding = new Holding($change->shift, $known, $before->inPictures($change->from), $before->inPictures($change->to), $counted);


        return $kept->withOutput($kept->output->giving(
            $kept->inPictures($change->to),
            $change->regrouping->held($holding->settings()),
        ));
    }
}
