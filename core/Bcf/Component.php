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
        $own = ltrim($key, '=');

        return self::isIfc($own) ? new self($own, '', '') : new self('', $system, $key);
    }

    /** As a file has it; what is no GUID is none. */
    public static function read(string $ifc, string $system, string $key): self
    {
        return new self(self::isIfc($ifc) ? $ifc : '', $system, $key);
    }

    public static function isIfc(string $text): bool
    {
        return preg_match(self::IFC, $text) === 1;
    }
}
