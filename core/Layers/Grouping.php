<?php

declare(strict_types=1);

namespace VineShelf\Layers;

use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;

/** Some objects in groups that are called after what they have in common. What has nothing of that kind is in no group. */
final class Grouping
{
    /**
     * @param Bits $rows what is grouped
     * @param Bits                                    $chosen those of them that were chosen themselves, for {@see GroupBy::Object}
     * @param \Closure(list<int>): array<int, string> $names  what some rows are called, by row, as people wrote it
     *
     * @return array<string, Bits> rows by name, in the order in which the names come up
     */
    public static function of(Facts $facts, GroupBy $by, Bits $rows, Bits $chosen, \Closure $names): array
    {
        return match ($by) {
            GroupBy::Object => self::byObject($facts, $rows, $chosen, $names),
            GroupBy::Level => self::inherited($facts, ['level', 'storey'], $rows),
            GroupBy::SourceLayer => self::inherited($facts, ['layer'], $rows),
            default => self::byName(
                $rows,
                match ($by) {
                    GroupBy::Kind => static fn (int $row): string => ucfirst($facts->scene->kind($row)->plural()),
                    GroupBy::ObjectClass => $facts->className(...),
                    default => static fn (int $row): string => $facts->materials()[$facts->materialsOf($row)[0] ?? 0][0] ?? '',
                },
            ),
        };
    }

    /**
     * @param \Closure(list<int>): array<int, string> $names
     *
     * @return array<string, Bits> each chosen object with what it holds, but for what is chosen itself
     */
    private static function byObject(Facts $facts, Bits $rows, Bits $chosen, \Closure $names): array
    {
        $scene = $facts->scene;
        $found = [];
        $open = [];
        foreach ($rows->rows() as $row) {
            while ($open !== [] && $scene->end($open[count($open) - 1]) < $row) {
                array_pop($open);
            }
            if ($chosen->has($row)) {
                $open[] = $row;
            }
            if ($open !== []) {
                $found[$open[count($open) - 1]][] = $row;
            }
        }
        $named = [];
        $called = $names(array_keys($found));
        foreach ($found as $owner => $some) {
            $name = $called[$owner] ?? '' ?: 'Unnamed '.$scene->kind($owner)->label();
            $named[$name] = [...$named[$name] ?? [], ...$some];
        }

        return self::sets($rows, $named);
    }

    /**
     * @param \Closure(int): string $name of what a row belongs to; "" for nothing
     *
     * @return array<string, Bits>
     */
    private static function byName(Bits $rows, \Closure $name): array
    {
        $named = [];
        foreach ($rows->rows() as $row) {
            $named[$name($row)][] = $row;
        }
        unset($named['']);

        return self::sets($rows, $named);
    }

    /**
     * By a property that an object has itself, or the nearest one above it.
     *
     * @param list<string> $properties
     *
     * @return array<string, Bits>
     */
    private static function inherited(Facts $facts, array $properties, Bits $rows): array
    {
        $known = array_values(array_filter(array_map($facts->propertyNamed(...), $properties)));
        $values = [];
        $own = static function (int $row) use ($facts, $known): string {
            foreach ($known as $property) {
                $value = $facts->property($row, $property);
                if ($value !== null && (string) $value !== '') {
                    return (string) $value;
                }
            }

            return '';
        };
        $value = static function (int $row) use (&$value, &$values, $own, $facts): string {
            if ($row === 0) {
                return '';
            }

            return $values[$row] ??= $own($row) ?: $value($facts->scene->parent($row));
        };

        return $known === [] ? [] : self::byName($rows, $value);
    }

    /**
     * @param array<string, list<int>> $named
     *
     * @return array<string, Bits>
     */
    private static function sets(Bits $rows, array $named): array
    {
        $sets = [];
        foreach ($named as $name => $some) {
            sort($some);
            $sets[(string) $name] = Bits::ofRows($rows->length, $some);
        }

        return $sets;
    }
}
