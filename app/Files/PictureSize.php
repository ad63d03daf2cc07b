<?php

declare(strict_types=1);

namespace App\Files;

/** How large a kept picture is. */
final class PictureSize
{
    /** @return array{int, int, int} width and height in pixels, and bytes of the file; zeros where it is none */
    public static function of(string $file): array
    {
        $bytes = Kept::get($file) ?? '';
        $size = $bytes === '' ? false : @getimagesizefromstring($bytes);

        return [$size[0] ?? 0, $size[1] ?? 0, strlen($bytes)];
    }
}
