<?php

declare(strict_types=1);

namespace App\Bench;

use App\Database\ReadSnapshot;
use VineShelf\Scene\Bits;

/**
 * How many objects some rows are and how many triangles they draw at Full, in the memory that the processes of this machine share. What is
 * weighed is called by what it follows from, so it need not be forgotten.
 */
final class Weighed
{
    /** Seconds that it is remembered. */
    private const REMEMBERED = 3600;

    /**
     * @param string          $stamp changes whenever the rows may have changed
     * @param \Closure(): Bits $rows
     *
     * @return array{int, int} objects and triangles
     */
    public static function of(Bench $bench, string $stamp, \Closure $rows): array
    {
        $entry = "weighed.{$bench->project->key}.$stamp";
        $known = apcu_enabled() ? apcu_fetch($entry) : false;
        if (is_array($known) && is_int($known[0] ?? null) && is_int($known[1] ?? null)) {
            return [$known[0], $known[1]];
        }
        $those = $rows();
        $count = $those->count();
        $weighed = [$count, $count === 0 ? 0 : $bench->scene()->trianglesOf($those)];
        apcu_enabled() && ReadSnapshot::isOn() && apcu_store($entry, $weighed, self::REMEMBERED);

        return $weighed;
    }
}
