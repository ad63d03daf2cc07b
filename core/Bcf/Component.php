<?php

declare(strict_types=1);

namespace VineShelf\Bcf;

/** An object as BCF names it: by its IFC GUID where it has one, else by what the program that made it calls it. */
final readonly class Component
{
    private const IFC = '~^[0-3][0-9A-Za-z_$]{21}$~D';

    private function __construct(
        /** 22 characters, "" for none. */
        public string $ifc,
        /** Where the key comes from, and the key; "" for none. */
        public string $system,
        public string $key,
    ) {}

    /** @param string $key a stable key of an object; "=" before what the file itself calls it @param string $system the file */
    public static function of(string $key, string $system): self
    {
        $ifc = self::ifcOf($key);

        return $ifc === '' ? new self('', $system, $key) : new self($ifc, '', '');
    }

    /** As a file has it; what is no GUID is none. */
    public static function read(string $ifc, string $system, string $key): self
    {
        return new self(self::isIfc($ifc) ? $ifc : '', $system, $key);
    }

    /** The GUID in a stable key: only what the file itself gives as identity is one, not a name of 22 letters. "" where there is none. */
    public static function ifcOf(string $key): string
    {
        $own = str_starts_with($key, '=') ? substr($key, 1) : '';

        return self::isIfc($own) ? $own : '';
    }

    private static function isIfc(string $text): bool
    {
        return preg_match(self::IFC, $text) === 1;
    }
}
