<?php

declare(strict_types=1);

namespace VineShelf\Tags;

use VineShelf\Formats\TakenObjects;
use VineShelf\Formats\UnreadableFile;

/**
 * Which tags the objects of a new source get from one of its properties: one tag per value, in a folder called like the property. Several
 * values in one are taken apart; what has none goes by the nearest group above it that has. Without a property, those that objects had when
 * they were exported.
 */
final readonly class TaggingPlan
{
    /** Tags that one property may make. */
    private const MOST = 500;

    private const LENGTH = 200;

    /**
     * @param string             $from    the property that they come from; "" where there is none
     * @param list<string>       $names   of the tags, in the order they should stand
     * @param list<list<int>>    $rows    by tag, ascending
     * @param list<list<string>> $folders by tag, names of the folders that it lies in, from the top
     */
    private function __construct(public string $from, public array $names, public array $rows, public array $folders) {}

    /**
     * @param string $property  name of the property, whatever the case; "" for those of an export
     * @param string $separator what stands between several values in one; "" where a value is always one
     *
     * @throws UnreadableFile when there are too many values
     */
    public static function of(TakenObjects $objects, string $property, string $separator): self
    {
        $property = trim($property);
        if ($property === '') {
            return self::asExported($objects);
        }
        $values = [];
        foreach ($objects->property($property) as $row => $value) {
            $values[$row] = self::apart($value, $separator, $property);
        }
        $rows = $names = [];
        foreach ($objects->parents as $row => $parent) {
            if ($row === 0) {
                continue;
            }
            $values[$row] ??= $values[$parent] ?? [];
            foreach ($values[$row] as $name) {
                $key = mb_strtolower($name);
                $names[$key] ??= $name;
                $rows[$key][] = $row;
            }
        }
        if (count($names) > self::MOST) {
            throw UnreadableFile::because(
                "The property \"$property\" would make ".
                    number_format(count($names)).
                    ' tags, and at most '.
                    self::MOST.
                    ' fit; choose another property to make tags from.',
            );
        }
        natcasesort($names);
        $keys = array_keys($names);

        $folder = self::label($property);

        return new self(
            $folder,
            array_values($names),
            array_map(static fn (int|string $key): array => $rows[$key], $keys),
            array_fill(0, count($names), [$folder]),
        );
    }

    /** The tags that objects had when they were exported, in the order in which they come. */
    private static function asExported(TakenObjects $objects): self
    {
        $names = $rows = $folders = [];
        foreach ($objects->sorted as $row => $sorted) {
            foreach ($sorted->tags as $path) {
                $key = mb_strtolower(implode("\0", $path));
                if (! isset($rows[$key]) && count($rows) >= self::MOST) {
                    throw UnreadableFile::because('The file has more than '.self::MOST.' tags from its export, and no more fit.');
                }
                if (! isset($rows[$key])) {
                    $names[] = $path[count($path) - 1];
                    $folders[] = array_slice($path, 0, -1);
                }
                $rows[$key][$row] = $row;
            }
        }

        return new self('', $names, array_map(array_values(...), array_values($rows)), $folders);
    }

    /** @return list<string> the names that a value stands for; a property that is only said to be there stands for itself */
    private static function apart(mixed $value, string $separator, string $property): array
    {
        $names = [];
        foreach (is_array($value) ? $value : [$value] as $one) {
            $texts = match (true) {
                $one === true => [$property],
                is_string($one) => $separator === '' ? [$one] : explode($separator, $one),
                is_int($one), is_float($one) => [(string) $one],
                default => [],
            };
            foreach ($texts as $text) {
                $name = self::label($text);
                if ($name !== '') {
                    $names[mb_strtolower($name)] ??= $name;
                }
            }
        }

        return array_values($names);
    }

    private static function label(string $text): string
    {
        $clean = str_replace("\0", '', mb_scrub($text));

        return mb_strimwidth(trim(preg_replace('~\s+~u', ' ', $clean) ?? ''), 0, self::LENGTH, '…');
    }
}
