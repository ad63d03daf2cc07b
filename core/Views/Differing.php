<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Rungs\Difference;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;

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
        if (! self::canDiffer($shift, $known, $before, $now)) {
            return Bits::none($shift->before->count());
        }
        $was = (new InEffect($shift->before, $shift->from, $before, $alone))->rungs();
        $is = (new InEffect($shift->after, $shift->to, $now, $alone))->rungs();
        $difference = new Difference($was, $is);

        return $difference->onlyFirst()->or($difference->onlySecond())->or($difference->otherwise())->and($counted);
    }

    /**
     * Whether anything that changed is held down by the view at all: most views say nothing of most of it, and what went under layers that
     * it does not know is held as it was.
     */
    private static function canDiffer(Shift $shift, Known $known, Settings $before, Settings $now): bool
    {
        $full = Rung::Full->value;
        $alone = array_map($shift->before->rowBits(...), $before->objectsAlone);
        [$was, $is] = [new InEffect($shift->before, $shift->from, $before), new InEffect($shift->after, $shift->to, $now)];
        [$layersBefore, $layersNow] = [$was->layerRungs(), $is->layerRungs()];
        foreach ($shift->filings() as [$from, $to, $rows]) {
            if (! $known->layer($to)) {
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
            if ($known->layer($layer) && $rung !== ($layersBefore[$layer] ?? $rung)) {
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
