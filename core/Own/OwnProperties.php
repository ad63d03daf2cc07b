<?php

declare(strict_types=1);

namespace VineShelf\Own;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;

/**
 * The properties that people gave objects, beside those of the files: of each its values, and who has them as one set of rows a value. An
 * object has one value of a property at most.
 */
final class OwnProperties
{
    /** @var array<string, array<int, OwnValue>> by name of the property, by number */
    private array $byName = [];

    /** @var array<string, string> name as it is written, by the name in lower case */
    private array $known = [];

    /** @param iterable<OwnValue> $values */
    public function __construct(iterable $values = [])
    {
        foreach ($values as $value) {
            $this->byName[$value->property][$value->number] = $value;
            $this->known[mb_strtolower($value->property)] = $value->property;
        }
    }

    /** @return list<string> names of the properties that people gave, as they are written */
    public function names(): array
    {
        $names = array_filter(array_map(strval(...), array_keys($this->byName)), static fn (string $name): bool => $name[0] !== '~');
        natcasesort($names);

        return array_values($names);
    }

    /** @return list<OwnValue> every value of every property that people named */
    public function all(): array
    {
        return array_merge(...array_map($this->values(...), $this->names()));
    }

    /** @return list<OwnValue> every value of everything that people gave objects, notes and settings among them */
    public function everything(): array
    {
        return array_merge(...array_map(array_values(...), array_values($this->byName)));
    }

    /** A property's name as it is written, whatever the case it is asked for in; null when there is none. */
    public function named(string $name): ?string
    {
        return $this->known[mb_strtolower($name)] ?? null;
    }

    /** @return list<OwnValue> the values of a property, by value */
    public function values(string $property): array
    {
        $values = array_values($this->byName[$property] ?? []);
        usort($values, static fn (OwnValue $a, OwnValue $b): int => strnatcasecmp($a->value, $b->value));

        return $values;
    }

    /** The value of a property of the object in a row, null where it has none. */
    public function at(Scene $scene, int $row, string $property): ?string
    {
        foreach ($this->byName[$property] ?? [] as $value) {
            if ($scene->valued($value->number)->has($row)) {
                return $value->value;
            }
        }

        return null;
    }

    /**
     * The rows whose value of a property is meant.
     *
     * @param (\Closure(OwnValue): bool)|null $isMeant null for all that have one
     */
    public function rows(Scene $scene, string $property, ?\Closure $isMeant = null): Bits
    {
        $rows = Bits::none($scene->count());
        foreach ($this->byName[$property] ?? [] as $value) {
            if ($isMeant === null || $isMeant($value)) {
                $rows = $rows->or($scene->valued($value->number));
            }
        }

        return $rows;
    }
}
