<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Organizer;
use App\Bench\Refused;

/** What layers, tags, folders, sets and views may be called. */
final class RowNames
{
    public const LENGTH = 200;

    /**
     * @param string $what "layer", "tag", "folder", "set" or "view"
     *
     * @throws Refused
     */
    public static function check(string $name, string $what): string
    {
        $name = trim((string) preg_replace('~\s+~u', ' ', $name));
        if ($name === '') {
            throw new Refused("A $what needs a name.", 'name');
        }
        if (mb_strlen($name) > self::LENGTH) {
            throw new Refused("A $what name has at most ".self::LENGTH.' characters; this one has '.mb_strlen($name).'.', 'name');
        }

        return $name;
    }

    /**
     * @param list<Organizer> $beside what lies beside it
     * @param string          $except key of the row itself
     *
     * @throws Refused when one of the same kind has the name already; views may be called the same
     */
    public static function checkFree(string $name, string $what, array $beside, string $except = ''): void
    {
        foreach ($beside as $other) {
            if (
                $what !== 'view' &&
                $other->kind->word() === $what &&
                $other->key() !== $except &&
                mb_strtolower($other->name) === mb_strtolower($name)
            ) {
                throw new Refused("There is a $what \"$other->name\" here already; choose another name.", 'name');
            }
        }
    }
}
