<?php

declare(strict_types=1);

namespace VineShelf\Formats\Gltf;

use VineShelf\Formats\UnreadableFile;

/** One object of the JSON, read with the types that the format demands; anything else is an error that names the place. */
final readonly class Entry
{
    /** @param array<mixed> $members */
    public function __construct(private array $members, public string $place) {}

    public static function of(mixed $value, string $place): self
    {
        if (! is_array($value)) {
            throw UnreadableFile::because(ucfirst($place).' is not an object.');
        }

        return new self($value, $place);
    }

    public function has(string $name): bool
    {
        return isset($this->members[$name]);
    }

    public function raw(string $name): mixed
    {
        return $this->members[$name] ?? null;
    }

    public function text(string $name, string $default = ''): string
    {
        $value = $this->members[$name] ?? $default;

        return is_scalar($value) ? (string) $value : throw $this->wrong($name, 'a text');
    }

    public function index(string $name): ?int
    {
        $value = $this->members[$name] ?? null;
        if ($value === null || (is_int($value) && $value >= 0)) {
            return $value;
        }

        return self::asWhole($value) ?? throw $this->wrong($name, 'a whole number from 0 on');
    }

    /** Some exporters write whole numbers as 1.0. */
    private static function asWhole(mixed $value): ?int
    {
        if (is_float($value) && floor($value) === $value && abs($value) < 2 ** 53) {
            $value = (int) $value;
        }

        return is_int($value) && $value >= 0 ? $value : null;
    }

    public function whole(string $name, int $default): int
    {
        return $this->index($name) ?? $default;
    }

    public function required(string $name): int
    {
        return $this->index($name) ?? throw UnreadableFile::because(ucfirst($this->place)." has no \"$name\".");
    }

    public function number(string $name, float $default): float
    {
        $value = $this->members[$name] ?? $default;

        return is_int($value) || is_float($value) ? (float) $value : throw $this->wrong($name, 'a number');
    }

    public function flag(string $name): bool
    {
        return ($this->members[$name] ?? false) === true;
    }

    /**
     * @param list<float> $default
     *
     * @return list<float> as many as the default has
     */
    public function numbers(string $name, array $default): array
    {
        $values = $this->members[$name] ?? $default;
        if (! is_array($values) || count($values) !== count($default)) {
            throw $this->wrong($name, count($default).' numbers');
        }
        $numbers = [];
        foreach ($values as $value) {
            // JSON has no number that is not finite but those that are too large for one: they decode to infinity.
            if (! is_float($value) && ! is_int($value) || $value === INF || $value === -INF) {
                throw $this->wrong($name, count($default).' numbers');
            }
            $numbers[] = (float) $value;
        }

        return $numbers;
    }

    /** @return list<int> */
    public function indices(string $name): array
    {
        $indices = [];
        foreach ($this->entriesRaw($name) as $value) {
            $indices[] = self::asWhole($value) ?? throw $this->wrong($name, 'a list of whole numbers');
        }

        return $indices;
    }

    /** @return list<string> */
    public function texts(string $name): array
    {
        $texts = [];
        foreach ($this->entriesRaw($name) as $value) {
            $texts[] = is_string($value) ? $value : throw $this->wrong($name, 'a list of texts');
        }

        return $texts;
    }

    /** @return list<self> */
    public function entries(string $name, string $each): array
    {
        $entries = [];
        foreach (array_values($this->entriesRaw($name)) as $index => $value) {
            $entries[] = self::of($value, "$each $index");
        }

        return $entries;
    }

    public function entry(string $name): ?self
    {
        return isset($this->members[$name]) ? self::of($this->members[$name], "$name of $this->place") : null;
    }

    public function extension(string $name): ?self
    {
        return $this->entry('extensions')?->entry($name);
    }

    /** @return array<mixed> */
    public function entriesRaw(string $name): array
    {
        $value = $this->members[$name] ?? [];

        return is_array($value) ? $value : throw $this->wrong($name, 'a list');
    }

    private function wrong(string $name, string $expected): UnreadableFile
    {
        return UnreadableFile::because("\"$name\" of $this->place must be $expected.");
    }
}
