<?php

declare(strict_types=1);

namespace App\Bench;

use VineShelf\Facts\Measure;

/** A column of the ledger beside the name. */
final readonly class Column
{
    private const FIXED = [
        'count' => ['Objects', 62, 'objects that it holds'],
        'weigh' => ['Weight', 78, 'triangles of it and all that it holds, as a bar'],
        'desk' => ['Desk', 46, 'the rung on your desk'],
        'output' => ['Output', 54, 'what pictures show'],
        'lock' => ['Lock', 38, 'open, guarded or locked'],
        'drawn' => ['Drawn', 76, 'triangles at the rung in effect, of it and all that it holds'],
        'drawnvertices' => ['Vertices drawn', 84, 'vertices at the rung in effect, of it and all that it holds'],
        'drawncalls' => ['Calls drawn', 76, 'calls at the rung in effect, of it and all that it holds'],
        'drawnbytes' => ['Bytes kept', 84, 'bytes of meshes and pictures at the rung in effect, each once'],
        'kind' => ['Kind', 72, 'group, part, light, camera, curve, points or marker'],
        'class' => ['Class', 104, 'the class that the file gives it'],
        'layer' => ['Layer', 110, 'the layer it is filed under'],
        'material' => ['Material', 110, 'what it is drawn with'],
        'source' => ['Source', 110, 'the file it came in'],
        'sorted' => ['By rules', 104, 'what the sorting rules would do now'],
    ];

    private const NUMBERS = ['count', 'drawn', 'drawnvertices', 'drawncalls', 'drawnbytes'];

    /** The ledger as it is before anybody has arranged it. */
    public const DEFAULT = ['count', 'weigh', 'desk', 'output', 'lock'];

    public const NARROWEST = 36;

    public const WIDEST = 400;

    private function __construct(
        /** For example "count", "height" or "p:fire rating". */
        public string $id,
        public string $label,
        /** Pixels. */
        public int $width,
        public string $meaning,
        public bool $isNumber,
    ) {}

    /** Whether it is there before anybody has arranged the ledger. */
    public function isDefault(): bool
    {
        return in_array($this->id, self::DEFAULT, true);
    }

    /** @param list<string> $properties names of the properties that the files carry */
    public static function named(string $id, array $properties, ?int $width = null): ?self
    {
        if ($width !== null) {
            $width = max(self::NARROWEST, min(self::WIDEST, $width));
        }
        if (isset(self::FIXED[$id])) {
            return new self(
                $id,
                self::FIXED[$id][0],
                $width ?? self::FIXED[$id][1],
                self::FIXED[$id][2],
                in_array($id, self::NUMBERS, true),
            );
        }
        $measure = Measure::tryFrom($id);
        if ($measure !== null && $measure !== Measure::Holds) {
            return new self(
                $id,
                $measure === Measure::Weight ? 'Triangles in all' : $measure->label(),
                $width ?? 84,
                $measure->meaning(),
                true,
            );
        }
        if (str_starts_with($id, 'p:') && in_array(substr($id, 2), $properties, true)) {
            return new self($id, substr($id, 2), $width ?? 96, 'a property of the file', false);
        }

        return null;
    }

    /**
     * @param list<string> $properties
     *
     * @return list<self> every column that there is
     */
    public static function all(array $properties): array
    {
        $ids = [
            ...array_keys(self::FIXED),
            ...array_map(static fn (Measure $measure): string => $measure->value, Measure::cases()),
            ...array_map(static fn (string $name): string => "p:$name", $properties),
        ];

        return array_values(array_filter(array_map(static fn (string $id): ?self => self::named($id, $properties), $ids)));
    }
}
