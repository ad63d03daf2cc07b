<?php

declare(strict_types=1);

namespace VineShelf\Colours;

/**
 * A colour by lightness, 0 to 1, and two axes of colour, in which equal distances look about equally different. The matrices are those that
 * Björn Ottosson published for Oklab in 2020, in the public domain.
 */
final readonly class Oklab
{
    public function __construct(public float $lightness, public float $a, public float $b) {}

    /** @param string $colour hexadecimal, for example "#3f7a63" */
    public static function of(string $colour): self
    {
        [$red, $green, $blue] = array_map(
            static fn (string $pair): float => self::linear(hexdec($pair) / 255),
            str_split(substr($colour, 1, 6), 2) + ['00', '00', '00'],
        );
        $l = (0.4122214708 * $red + 0.5363325363 * $green + 0.0514459929 * $blue) ** (1 / 3);
        $m = (0.2119034982 * $red + 0.6806995451 * $green + 0.1073969566 * $blue) ** (1 / 3);
        $s = (0.0883024619 * $red + 0.2817188376 * $green + 0.6299787005 * $blue) ** (1 / 3);

        return new self(
            0.2104542553 * $l + 0.793617785 * $m - 0.0040720468 * $s,
            1.9779984951 * $l - 2.428592205 * $m + 0.4505937099 * $s,
            0.0259040371 * $l + 0.7827717662 * $m - 0.808675766 * $s,
        );
    }

    public function distance(self $other): float
    {
        return sqrt(($this->lightness - $other->lightness) ** 2 + ($this->a - $other->a) ** 2 + ($this->b - $other->b) ** 2);
    }

    /** Hexadecimal; null when no screen shows the colour. */
    public function hexadecimal(): ?string
    {
        $l = ($this->lightness + 0.3963377774 * $this->a + 0.2158037573 * $this->b) ** 3;
        $m = ($this->lightness - 0.1055613458 * $this->a - 0.0638541728 * $this->b) ** 3;
        $s = ($this->lightness - 0.0894841775 * $this->a - 1.291485548 * $this->b) ** 3;
        $text = '#';
        foreach (
            [
                4.0767416621 * $l - 3.3077115913 * $m + 0.2309699292 * $s,
                -1.2684380046 * $l + 2.6097574011 * $m - 0.3413193965 * $s,
                -0.0041960863 * $l - 0.7034186147 * $m + 1.707614701 * $s,
            ] as $channel
        ) {
            if ($channel < -0.0005 || $channel > 1.0005) {
                return null;
            }
            $text .= sprintf('%02x', (int) round(255 * self::curved(max(0.0, min(1.0, $channel)))));
        }

        return $text;
    }

    private static function linear(float $value): float
    {
        return $value <= 0.04045 ? $value / 12.92 : (($value + 0.055) / 1.055) ** 2.4;
    }

    private static function curved(float $value): float
    {
        return $value <= 0.0031308 ? 12.92 * $value : 1.055 * $value ** (1 / 2.4) - 0.055;
    }
}
