<?php

declare(strict_types=1);

namespace App\Models;

/**
 * Numbers of revisions: milliseconds since 1970, one more where that has been given out already. So none comes twice, also where a database
 * was restored to an earlier hour: what was kept under the later ones is not taken for what is made since, and what a transaction made that
 * was rolled back is never found.
 */
final class Revision
{
    public static function after(int $revision): int
    {
        return max($revision + 1, (int) floor(microtime(true) * 1000));
    }
}
