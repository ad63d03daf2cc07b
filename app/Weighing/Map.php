<?php

declare(strict_types=1);

namespace App\Weighing;

use VineShelf\Weights\TreeMap;
use VineShelf\Weights\Weight;

/** Parts laid out as a map: as large as they are heavy in one way, coloured as they are or by how heavy they are in one. */
final readonly class Map
{
    public const SIZES = ['triangles' => 'Triangles', 'bytes' => 'Bytes', 'calls' => 'Calls'];

    public const COLOURS = ['own' => 'own colours', 'triangles' => 'triangles', 'bytes' => 'bytes'];

    /** From the lightest to the heaviest. */
    private const SCALE = ['#dfe6d3', '#b9cba6', '#8fae80', '#64905f', '#3f7249', '#265738', '#123c27'];

    /** @param list<Cell> $cells */
    public function __construct(private array $cells, private string $size, private string $colour) {}

    /**
     * @return list<array{cell: Cell, left: float, top: float, width: float, height: float, value: int, fill: string, ink: string}> the
     *     heaviest first
     */
    public function laid(float $width, float $height): array
    {
        $values = array_map(fn (Cell $cell): int => self::value($cell->weight, $this->size), $this->cells);
        $shades = array_map(fn (Cell $cell): int => self::value($cell->weight, $this->colour), $this->cells);
        $most = max([1, ...$shades]);
        $laid = [];
        foreach (TreeMap::of($values, $width, $height) as $at => [$left, $top, $wide, $tall]) {
            $shade = self::SCALE[(int) round((count(self::SCALE) - 1) * sqrt($shades[$at] / $most))];
            $fill = $this->colour === 'own' ? $this->cells[$at]->colour : $shade;
            $laid[] = [
                'cell' => $this->cells[$at],
                'left' => round($left, 1),
                'top' => round($top, 1),
                'width' => round($wide, 1),
                'height' => round($tall, 1),
                'value' => $values[$at],
                'fill' => $fill,
                'ink' => self::isLight($fill) ? '#1c241f' : '#ffffff',
            ];
        }

        return $laid;
    }

    public static function value(Weight $weight, string $what): int
    {
        return match ($what) {
            'bytes' => $weight->bytes(),
            'calls' => $weight->calls,
            default => $weight->triangles,
        };
    }

    /** Whether dark words are easier to read on a colour than white ones: above where both have the same contrast (WCAG 2.2). */
    private static function isLight(string $colour): bool
    {
        $linear = static function (int $at) use ($colour): float {
            $value = hexdec(substr($colour, $at, 2)) / 255;

            return $value <= 0.04045 ? $value / 12.92 : (($value + 0.055) / 1.055) ** 2.4;
        };

        return 0.2126 * $linear(1) + 0.7152 * $linear(3) + 0.0722 * $linear(5) > 0.179;
    }
}
