<?php

declare(strict_types=1);

namespace App\Files;

/** Pictures as PNG (W3C, "Portable Network Graphics Specification"): true colour, 8 bits a channel. */
final class Png
{
    /** @param array<int, int> $pixels 0xRRGGBB, line by line from the top */
    public static function of(array $pixels, int $width): string
    {
        $lines = '';
        foreach (array_chunk($pixels, max(1, $width)) as $line) {
            $bytes = pack('N*', ...$line);
            // Of four bytes the first is empty.
            $lines .= "\0".preg_replace('~.(...)~s', '$1', $bytes);
        }

        return "\x89PNG\r\n\x1a\n".
            self::chunk('IHDR', pack('NNCCCCC', $width, intdiv(count($pixels), max(1, $width)), 8, 2, 0, 0, 0)).
            self::chunk('IDAT', (string) gzcompress($lines, 6)).
            self::chunk('IEND', '');
    }

    private static function chunk(string $name, string $bytes): string
    {
        return pack('N', strlen($bytes)).$name.$bytes.pack('N', crc32($name.$bytes));
    }
}
