<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Rungs\Difference;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;

/** What a view shows differently after a change of the sorting. */
final class Differing
{
    /**
     * @param Settings  $before  what the view kept before
     * @param Settings  $now     what it keeps now
     * @param Isolation $alone   what it shows alone
     * @param Bits      $counted rows that the view has something to say about
     *
     * @return Bits rows that are at another rung in it
     */
    public static function rows(Shift $shift, Known $known, Settings $before, Settings $now, Isolation $alone, Bits $counted): Bits
    {
        if (! self::canDiffer($shift, $before, $now, $known)) {
            return Bits::none($shift->before->count());
        }
        $was = (new InEffect($shift->before, $shift->from, $before, $alone))->rungs();
        $is = (new InEffect($shift->after, $shift->to, $now, $alone))->rungs();

        return self::between($was, $is)->and($counted);
    }

    /**
     * @param KeptState $before what the view kept before
     * @param KeptState $now    what it keeps now
     *
     * @return Bits rows that are at another rung in its pictures
     */
    public static function inPictures(Resorting $change, KeptState $before, KeptState $now, Bits $counted): Bits
    {
        $shift = $change->shift;
        if (! self::canDiffer($shift, $before->inPictures($change->from), $now->inPictures($change->to), null)) {
            return Bits::none($shift->before->count());
        }
        $was = $before->pictured($change->from, $shift->before, $shift->from);
        $is = $now->withIsolation($before->alone())->pictured($change->to, $shift->after, $shift->to);

        return self::between($was, $is)->and($counted);
    }

    private static function between(Levels $was, Levels $is): Bits
    {
        $difference = new Difference($was, $is);

        return $difference->onlyFirst()->or($difference->onlySecond())->or($difference->otherwise());
    }

    /**
     * Whether anything that changed is held down by the view at all: most views say nothing of most of it, and what went under layers that
     * it does not know is held as it was.
     *
     * @param Known|null $known null where what went under such layers need not be held
     */
    private static function canDiffer(Shift $shift, Settings $before, Settings $now, ?Known $known): bool
    {
        $full = Rung::Full->value;
        $alone = array_map($shift->before->rowBits(...), $before->objectsAlone);
        [$was, $is] = [new InEffect($shift->before, $shift->from, $before), new InEffect($shift->after, $shift->to, $now)];
        [$layersBefore, $layersNow] = [$was->layerRungs(), $is->layerRungs()];
        foreach ($shift->filings() as [$from, $to, $rows]) {
            if ($known?->layer($to) === false) {
                continue;
            }
            if (($layersBefore[$from] ?? $full) !== ($layersNow[$to] ?? $full)) {
                return true;
            }
            foreach ($alone as $held) {
                if (! $held->and($rows)->isEmpty()) {
                    return true;
                }
            }
        }
        foreach ($layersNow as $layer => $rung) {
            if ($known?->layer($layer) !== false && $rung !== ($layersBefore[$layer] ?? $rung)) {
                return true;
            }
        }
        [$tagsBefore, $tagsNow] = [$was->tagRungs(), $is->tagRungs()];
        foreach ($tagsBefore as $key => $rung) {
            if ($rung !== ($tagsNow[$key] ?? $full)) {
                return true;
            }
        }
        foreach ($shift->tagged() as $tag) {
            if (($tagsNow["M$tag"] ?? $full) < $full || ($tagsBefore["M$tag"] ?? $full) < $full) {
                return true;
            }
        }

        return false;
    }
}
