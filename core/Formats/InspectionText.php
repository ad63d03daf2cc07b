<?php

declare(strict_types=1);

namespace VineShelf\Formats;

/** An inspection as lines for a person. */
final class InspectionText
{
    /** @param array<string, mixed> $found as {@see Inspection::of} gives it */
    public static function of(array $found): string
    {
        $text = '';
        foreach ($found as $name => $value) {
            if (is_int($value)) {
                $text .= sprintf("%-10s %s\n", $name, number_format($value));
            } elseif (is_string($value)) {
                $text .= sprintf("%-10s %s\n", $name, $value);
            }
        }
        $bounds = $found['bounds'] ?? null;
        if (is_array($bounds) && is_array($bounds['min'] ?? null) && is_array($bounds['max'] ?? null)) {
            $corner = static fn (array $point): string => implode(
                ', ',
                array_map(static fn (mixed $value): string => is_numeric($value) ? number_format((float) $value, 3) : '', $point),
            );
            $text .= sprintf("%-10s from (%s) to (%s) metres, z up\n", 'bounds', $corner($bounds['min']), $corner($bounds['max']));
        }
        foreach (is_array($found['warnings'] ?? null) ? $found['warnings'] : [] as $warning) {
            $text .= is_string($warning) ? "note       $warning\n" : '';
        }

        return $text;
    }
}
