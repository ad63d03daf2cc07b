<?php

declare(strict_types=1);

namespace VineShelf\Formats;

/**
 * How an object was sorted when it was exported: in its extras, beside the properties of its file, under one key of our own. Whoever has a
 * property "layer" keeps it.
 */
final readonly class SortedExtras
{
    public const KEY = 'vine_shelf';

    /** Added to what people gave where the file has a property of the same name. */
    private const GIVEN = ' (given)';

    /** Levels of layers or folders. */
    private const DEEPEST = 50;

    /**
     * @param list<string>          $layer names from the top to its layer; none for Unsorted
     * @param list<list<string>>    $tags  of each, the names of the folders that it lies in and its own
     * @param array<string, string> $given properties that people gave
     */
    public function __construct(public array $layer, public array $tags, public array $given) {}

    /**
     * @param array<mixed> $properties of the file
     *
     * @return array<mixed> extras
     */
    public function beside(array $properties): array
    {
        $sorted = array_filter(['layer' => $this->layer, 'tags' => $this->tags, 'properties' => $this->given]);

        return ($sorted === [] ? [] : [self::KEY => $sorted]) + array_diff_key($properties, [self::KEY => true]);
    }

    /**
     * What extras say of the sorting, and the properties without that; null where they say nothing of it that could be understood.
     *
     * @param string $json extras
     *
     * @return array{self, string|null}|null
     */
    public static function read(string $json): ?array
    {
        $extras = str_contains($json, '"'.self::KEY.'"') ? json_decode($json, true) : null;
        $sorted = is_array($extras) ? $extras[self::KEY] ?? null : null;
        if (! is_array($extras) || ! is_array($sorted)) {
            return null;
        }
        $tags = is_array($sorted['tags'] ?? null) ? array_values(array_filter(array_map(self::path(...), $sorted['tags']))) : [];
        unset($extras[self::KEY]);
        $given = [];
        foreach (is_array($sorted['properties'] ?? null) ? $sorted['properties'] : [] as $name => $value) {
            if (is_scalar($value)) {
                $given[$name.(isset($extras[$name]) ? self::GIVEN : '')] = (string) $value;
            }
        }
        $rest = $given + $extras;
        $flags = JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE | JSON_PARTIAL_OUTPUT_ON_ERROR;

        return [new self(self::path($sorted['layer'] ?? []), $tags, $given), $rest === [] ? null : (string) json_encode($rest, $flags)];
    }

    /** @return list<string> names; none where one of them is no name */
    private static function path(mixed $path): array
    {
        $names = [];
        foreach (is_array($path) && count($path) <= self::DEEPEST ? $path : [] as $name) {
            $clean = is_string($name) ? trim(preg_replace('~\s+~u', ' ', str_replace("\0", '', mb_scrub($name))) ?? '') : '';
            if ($clean === '') {
                return [];
            }
            $names[] = mb_strimwidth($clean, 0, 200, '…');
        }

        return $names;
    }
}
