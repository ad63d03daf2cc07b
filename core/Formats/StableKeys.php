<?php

declare(strict_types=1);

namespace VineShelf\Formats;

/**
 * A key for every object of a file by which the next version of the file finds it again: the identity that the file itself gives it, where
 * it gives one that nothing else in it has, otherwise its path of names, from the top down, with the occurrence among siblings of the same
 * name.
 *
 * A path looks like "Hall/Axis 3/Shoe#2"; the second of the unnamed is "#2". In names "~" and "/" are written "~0" and "~1" as in RFC 6901,
 * "#" and "=" are written "~2" and "~3". An own identity starts with "=". A path of more than 400 bytes goes on from a hash of its
 * beginning.
 */
final class StableKeys
{
    /** Names of properties that hold an object's identity, in lower case, the surest first. */
    private const IDENTITIES = ['globalid', 'guid', 'uuid', 'ifcguid', 'uniqueid'];

    private const LONGEST = 400;

    /** @return list<string> by row, entry 0 for the file itself */
    public static function of(TakenObjects $objects): array
    {
        $own = self::identities($objects);
        $keys = [''];
        $seen = [];
        $escaped = [];
        for ($row = 1, $count = $objects->count(); $row <= $count; $row++) {
            $parent = $objects->parents[$row];
            $name = $objects->names[$row];
            $name = $escaped[$name] ??= strtr($name, ['~' => '~0', '/' => '~1', '#' => '~2', '=' => '~3']);
            $occurrence = $seen[$parent][$name] = ($seen[$parent][$name] ?? 0) + 1;
            $path = $keys[$parent];
            if (strlen($path) > self::LONGEST) {
                $path = '~'.hash('xxh128', $path);
            }
            $path .= ($parent === 0 ? '' : '/').$name.($occurrence > 1 || $name === '' ? "#$occurrence" : '');
            $keys[] = isset($own[$row]) ? "=$own[$row]" : $path;
        }

        return $keys;
    }

    /** @return array<int, string> by row: what the file calls the object, only where nothing else is called so */
    private static function identities(TakenObjects $objects): array
    {
        $found = [];
        foreach ($objects->properties as $row => $json) {
            if (preg_match('~"(?:globalid|guid|uuid|ifcguid|uniqueid)"~i', $json) !== 1) {
                continue;
            }
            $properties = json_decode($json, true);
            $properties = array_change_key_case(is_array($properties) ? $properties : []);
            foreach (self::IDENTITIES as $name) {
                $value = $properties[$name] ?? null;
                if (is_string($value) && $value !== '' && strlen($value) <= 200) {
                    $found[$row] = $value;
                    break;
                }
            }
        }
        $times = array_count_values($found);

        return array_filter($found, static fn (string $identity): bool => $times[$identity] === 1);
    }
}
