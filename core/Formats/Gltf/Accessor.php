<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\UnreadableFile;

/** Typed elements in a buffer view. */
final readonly class Accessor
{
    public const COMPONENTS = ['SCALAR' => 1, 'VEC2' => 2, 'VEC3' => 3, 'VEC4' => 4, 'MAT2' => 4, 'MAT3' => 9, 'MAT4' => 16];

    public const BYTES = [5120 => 1, 5121 => 1, 5122 => 2, 5123 => 2, 5125 => 4, 5126 => 4];

    /** @param array{count: int, indexView: int, indexOffset: int, indexType: int, valueView: int, valueOffset: int}|null $sparse */
    public function __construct(
        public ?int $view,
        public int $offset,
        public int $componentType,
        public int $components,
        public int $count,
        public bool $normalized,
        public ?array $sparse,
    ) {}

    /** @throws UnreadableFile */
    public static function read(Entry $entry): self
    {
        $type = $entry->required('componentType');
        $components =
            self::COMPONENTS[$entry->text('type')] ??
            throw UnreadableFile::because(
                "\"type\" of $entry->place is not one of ".implode(', ', array_keys(self::COMPONENTS)).'.',
            );
        if (! isset(self::BYTES[$type])) {
            throw UnreadableFile::because("\"componentType\" of $entry->place is $type, which glTF does not have.");
        }
        $sparse = $entry->entry('sparse');
        $indices = $sparse?->entry('indices');
        $values = $sparse?->entry('values');

        return new self(
            $entry->index('bufferView'),
            $entry->whole('byteOffset', 0),
            $type,
            $components,
            $entry->required('count'),
            $entry->flag('normalized'),
            $sparse === null || $indices === null || $values === null
                ? null
                : [
                    'count' => $sparse->required('count'),
                    'indexView' => $indices->required('bufferView'),
                    'indexOffset' => $indices->whole('byteOffset', 0),
                    'indexType' => $indices->required('componentType'),
                    'valueView' => $values->required('bufferView'),
                    'valueOffset' => $values->whole('byteOffset', 0),
                ],
        );
    }

    /** Bytes of one element. */
    public function size(): int
    {
        return self::BYTES[$this->componentType] * $this->components;
    }
}
