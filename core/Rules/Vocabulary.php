<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Facts\Facts;
use VineShelf\Layers\Contents;
use VineShelf\Organizers\Organizers;
use VineShelf\Own\OwnValue;
use VineShelf\Scene\Kind;

/** What a project has to offer to a rule: the values of each field, and how many objects have them. */
final readonly class Vocabulary
{
    /** @param list<string> $views names of the views */
    public function __construct(
        private Facts $facts,
        private Organizers $organizers,
        private Contents $contents,
        private array $views = [],
    ) {}

    /** @return iterable<string, int> objects by value */
    public function values(Field $field): iterable
    {
        return match ($field) {
            Field::Kind => $this->kinds(),
            Field::ObjectClass => $this->coded('class', $this->facts->words('class.words')),
            Field::Layer => $this->layers(),
            Field::Material => $this->materials(),
            Field::Source => $this->sources(),
            Field::Level => [...$this->property('level'), ...$this->property('storey')],
            Field::Tag => $this->tags(),
            Field::Set => $this->sets(),
            Field::Note => $this->own(OwnValue::NOTE),
            Field::Name => [],
        };
    }

    /** @return array<string, int> objects by value of a property */
    public function property(string $name): array
    {
        $own = $this->facts->propertyNamed($name) === null ? $this->organizers->own->named($name) : null;
        if ($own !== null) {
            return $this->own($own);
        }
        $known = $this->facts->propertyNamed($name);
        $index = $known === null ? null : $this->facts->properties()[$known][0];

        return $index === null ? [] : $this->coded("property.$index", $this->facts->words("property.$index.words"));
    }

    /** @return array<string, int> objects by name of a property */
    public function properties(): array
    {
        $own = [];
        foreach ($this->organizers->own->names() as $name) {
            $own[$name] = $this->organizers->own->rows($this->facts->scene, $name)->count();
        }

        return array_map(static fn (array $property): int => $property[1], $this->facts->properties()) + $own;
    }

    /** @return array<string, int> objects by value of a property that people gave them, or by note */
    private function own(string $property): array
    {
        $values = [];
        foreach ($this->organizers->own->values($property) as $value) {
            $values[$value->value] = $this->facts->scene->valued($value->number)->count();
        }

        return $values;
    }

    /** @return list<string> */
    public function views(): array
    {
        return $this->views;
    }

    /** @return array<string, int> */
    private function kinds(): array
    {
        $kinds = [];
        foreach (Kind::cases() as $kind) {
            $kinds[$kind->label()] = $this->facts->ranked('kind')->count($kind->value);
        }

        return array_filter($kinds);
    }

    /**
     * @param list<int|float|string> $words by code, entry 0 for none
     *
     * @return array<string, int>
     */
    private function coded(string $column, array $words): array
    {
        $ranked = $this->facts->ranked($column);
        $values = [];
        foreach ($words as $code => $word) {
            if ($code > 0) {
                $values[(string) $word] = $ranked->count($code);
            }
        }

        return $values;
    }

    /** @return array<string, int> */
    private function layers(): array
    {
        $layers = [];
        foreach ($this->organizers->layers->walk() as [$layer]) {
            $layers[$layer->name] = ($layers[$layer->name] ?? 0) + $this->contents->objectsWithNested($layer->number);
        }

        return $layers;
    }

    /** @return array<string, int> */
    private function tags(): array
    {
        $tags = [];
        foreach ($this->organizers->tags->tree->folders as $folder) {
            $tags[$folder->name] = 0;
        }
        foreach ($this->organizers->tags->all() as $tag) {
            $tags[$tag->name] = ($tags[$tag->name] ?? 0) + $this->facts->scene->tagged($tag->number)->count();
        }

        return $tags;
    }

    /** @return array<string, int> */
    private function sets(): array
    {
        $sets = [];
        foreach ($this->organizers->sets->tree->folders as $folder) {
            $sets[$folder->name] = 0;
        }
        foreach ($this->organizers->sets->all() as $set) {
            $sets[$set->name] = $set->members;
        }

        return $sets;
    }

    /** @return array<string, int> */
    private function materials(): array
    {
        $materials = [];
        $ranked = $this->facts->ranked('surfaces');
        foreach ($this->facts->surfaceLists() as $code => $list) {
            foreach ($list as $material) {
                $name = $this->facts->materials()[$material][0] ?? '';
                $materials[$name] = ($materials[$name] ?? 0) + $ranked->count($code);
            }
        }
        unset($materials['']);

        return $materials;
    }

    /** @return array<string, int> */
    private function sources(): array
    {
        $rows = $this->facts->sources()->histogram();
        $sources = [];
        foreach ($this->facts->sourceNames() as $number => $name) {
            $sources[$name] = ($sources[$name] ?? 0) + ($rows[$number] ?? 0);
        }

        return $sources;
    }
}
