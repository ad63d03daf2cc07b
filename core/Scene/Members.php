<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** Objects of a tag or a fixed set, by number, as they are kept: one bit each, deflated. Objects that are gone may be among them. */
final class Members
{
    /** @param Bits $numbers one bit per object number */
    public static function pack(Bits $numbers): string
    {
        $bytes = rtrim($numbers->bytes, "\0");

        return $bytes === '' ? '' : (string) gzdeflate($bytes, 3);
    }

    /** @return Bits one bit per object number */
    public static function unpack(string $packed): Bits
    {
        $bytes = $packed === '' ? '' : (string) @gzinflate($packed);

        return $bytes === '' ? Bits::none(0) : Bits::ofBytes((strlen($bytes) << 3) - 1, $bytes);
    }

    /** The column of a scene that says which rows they are. */
    public static function column(Scene $scene, Bits $numbers): string
    {
        $rows = $scene->rowBits($numbers);

        return $rows->isEmpty() ? '' : $rows->bytes;
    }
}
