<?php

declare(strict_types=1);

namespace App\View;

/** Icons that stand in the page itself, so that they take the text's colour. From the Lucide set, ISC licence. */
final class Icon
{
    /** @var array<string, string> */
    private static array $read = [];

    public static function svg(string $name): string
    {
        return self::$read[$name] ??=
            '<span class="icon" aria-hidden="true">'.trim((string) file_get_contents(resource_path("icons/$name.svg"))).'</span>';
    }
}
