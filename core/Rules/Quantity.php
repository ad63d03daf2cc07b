<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** A number as it was written, with its unit. */
final readonly class Quantity
{
    /** Metres in one unit. The foot and the inch are those of the international yard and pound agreement of 1959. */
    public const UNITS = ['mm' => 0.001, 'cm' => 0.01, 'm' => 1.0, 'in' => 0.0254, 'ft' => 0.3048];

    public const VOLUMES = ['mm3' => 1e-9, 'cm3' => 1e-6, 'm3' => 1.0, 'in3' => 0.0254 ** 3, 'ft3' => 0.3048 ** 3, 'l' => 0.001];

    public const MANY = ['k' => 1e3, 'M' => 1e6];

    public function __construct(
        /** As written, for example "1.5". */
        public string $digits,
        /** As written, "" for none. */
        public string $unit = '',
    ) {}

    /** In metres, cubic metres, or as a plain number. */
    public function value(): float
    {
        return (float) $this->digits * (self::UNITS[$this->unit] ?? (self::VOLUMES[$this->unit] ?? (self::MANY[$this->unit] ?? 1.0)));
    }
}
