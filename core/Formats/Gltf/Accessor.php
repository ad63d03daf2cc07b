<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

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

    /** Bytes of one element. */
    public function size(): int
    {
        return self::BYTES[$this->componentType] * $this->components;
    }
}
