<?php

declare(strict_types=1);

namespace App\Queue;

/** A job that somebody waits for. */
interface Owned
{
    /** @return int id of the person, 0 where they are gone */
    public function owner(): int;
}
