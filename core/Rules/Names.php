<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Facts\Facts;
use VineShelf\Organizers\Organizers;
use VineShelf\Own\OwnValue;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Scene;
use VineShelf\Search\NameIndex;
use VineShelf\Sets\SelectionSet;

/** What the words of a condition stand for in a project: the one place where names become rows. */
final readonly class Names
{
    private Scene $scene;

    public function __construct(private Facts $facts, private Organizers $organizers)
    {
        $this->scene = $facts->scene;
    }

    /** @return Bits|null the rows that a condition on a field means; null when nothing is called so */
    public function rows(TextIs $node): ?Bits
    {
        $pattern = new Pattern($node);

        return match (Field::from($node->field)) {
            Field::Name => $this->named($pattern),
            Field::Kind => $this->facts
                ->ranked('kind')
                ->in(array_keys(array_filter(Kind::cases(), static fn (Kind $kind): bool => $pattern->resembles($kind->label())))),
            Field::ObjectClass => $this->coded('class', $this->facts->words('class.words'), $pattern),
            Field::Layer => $this->filed($pattern),
            Field::Material => $this->drawnWith($pattern),
            Field::Source => $this->cameIn($pattern),
            Field::Level => $this->onLevel($pattern),
            Field::Tag => $this->tagged($pattern),
            Field::Note => $this->noted($pattern),
            Field::Set => null,
        };
    }

    /** @return Bits|null the rows whose property number $index is as the condition says; null when none is */
    public function having(int $index, TextIs $node): ?Bits
    {
        return $this->coded("property.$index", $this->facts->words("property.$index.words"), new Pattern($node));
    }

    /** @return int|null the number of a property of the files, by which its columns are called; null when there is none of that name */
    public function property(string $name): ?int
    {
        $known = $this->facts->propertyNamed($name);

        return $known === null ? null : $this->facts->properties()[$known][0];
    }

    private function named(Pattern $pattern): Bits
    {
        return match (true) {
            $pattern->regular() !== null => NameIndex::like($this->scene, $pattern->regular()),
            $pattern->whole => NameIndex::being($this->scene, $pattern->words()),
            default => NameIndex::having($this->scene, strtr($pattern->words(), "\n\r", '  ')),
        };
    }

    /** @param list<int|float|string> $words by code, entry 0 for none */
    private function coded(string $column, array $words, Pattern $pattern): ?Bits
    {
        $codes = [];
        foreach ($words as $code => $word) {
            if ($code > 0 && $pattern->resembles(mb_strtolower((string) $word))) {
                $codes[] = $code;
            }
        }

        return $codes === [] ? null : $this->facts->ranked($column)->in($codes);
    }

    private function filed(Pattern $pattern): ?Bits
    {
        $numbers = [];
        foreach ($this->organizers->layers->walk() as [$layer]) {
            if (isset($numbers[$layer->parent]) || $pattern->resembles(mb_strtolower($layer->name))) {
                $numbers[$layer->number] = true;
            }
        }

        return $numbers === [] ? null : $this->scene->layers()->rowsOf($numbers);
    }

    private function noted(Pattern $pattern): ?Bits
    {
        $rows = $this->organizers->own->rows(
            $this->scene,
            OwnValue::NOTE,
            static fn (OwnValue $note): bool => $pattern->resembles(mb_strtolower($note->value)),
        );

        return $rows->isEmpty() ? null : $rows;
    }

    /** The name of a property that people gave objects, as it is written; null when there is none, or one of that name in the files. */
    public function own(string $name): ?string
    {
        return $this->facts->propertyNamed($name) === null ? $this->organizers->own->named($name) : null;
    }

    /** @return Bits|null the rows whose own property is as the condition says; null when none is */
    public function havingOwn(string $property, TextIs $node): ?Bits
    {
        $pattern = new Pattern($node);
        $isNumber = ! $node->quoted && is_numeric($node->words);
        $rows = $this->organizers->own->rows(
            $this->scene,
            $property,
            static fn (OwnValue $value): bool => $isNumber && $value->isNumber()
                ? (float) $value->value === (float) $node->words
                : $pattern->resembles(mb_strtolower($value->value)),
        );

        return $rows->isEmpty() ? null : $rows;
    }

    /** A folder's name stands for the tags in it, at any depth. */
    private function tagged(Pattern $pattern): ?Bits
    {
        $rows = null;
        foreach ($this->tags($pattern) as $tag) {
            // A folder without tags is there, and holds nothing.
            $these = $tag === 0 ? Bits::none($this->scene->count()) : $this->scene->tagged($tag);
            $rows = $rows?->or($these) ?? $these;
        }

        return $rows;
    }

    /** @return list<int> numbers of the tags that are called so, or lie in a folder that is; a folder alone is number 0 */
    public function tags(Pattern $pattern): array
    {
        $tree = $this->organizers->tags->tree;
        $numbers = $within = [];
        foreach ($tree->outline->walk() as [$key]) {
            $key = (string) $key;
            $number = (int) substr($key, 1);
            $name = $key[0] === 'F' ? $tree->folders[$number]->name : $tree->members[$number]->name;
            $isMeant = isset($within[$tree->outline->parent($key)]) || $pattern->resembles(mb_strtolower($name));
            if ($isMeant && $key[0] === 'F') {
                $within[$key] = true;
            }
            if ($isMeant) {
                $numbers[] = $key[0] === 'F' ? 0 : $number;
            }
        }

        return $numbers;
    }

    /** @return list<SelectionSet>|null the sets that a condition means, those of a folder that it names as well; null for neither */
    public function sets(TextIs $node): ?array
    {
        return $this->organizers->sets->called((new Pattern($node))->resembles(...));
    }

    private function drawnWith(Pattern $pattern): ?Bits
    {
        $materials = [];
        foreach ($this->facts->materials() as $number => [$name]) {
            if ($pattern->resembles(mb_strtolower($name))) {
                $materials[$number] = true;
            }
        }

        return $materials === []
            ? null
            : $this->facts
                ->ranked('surfaces')
                ->in(
                    array_keys(
                        array_filter(
                            $this->facts->surfaceLists(),
                            static fn (array $list): bool => array_intersect_key(array_flip($list), $materials) !== [],
                        ),
                    ),
                );
    }

    private function cameIn(Pattern $pattern): ?Bits
    {
        $numbers = array_filter($this->facts->sourceNames(), static fn (string $name): bool => $pattern->resembles(mb_strtolower($name)));

        return $numbers === [] ? null : $this->facts->sources()->rowsOf($numbers);
    }

    /** An object stands on the level that it names, or the nearest object above it that names one. */
    private function onLevel(Pattern $pattern): ?Bits
    {
        $own = [];
        foreach (['level', 'storey'] as $name) {
            $property = $this->facts->propertyNamed($name);
            if ($property === null) {
                continue;
            }
            $index = $this->facts->properties()[$property][0];
            $words = $this->facts->words("property.$index.words");
            $right = array_map(static fn (int|float|string $word): bool => $pattern->resembles(mb_strtolower((string) $word)), $words);
            foreach (
                $this->facts
                    ->ranked("property.$index")
                    ->present()
                    ->rows() as $row
            ) {
                $own[$row] ??= $right[$this->facts->codes($index)->at($row)];
            }
        }
        ksort($own);

        return in_array(true, $own, true) ? Bits::ofRanges($this->scene->count(), $this->stretches($own)) : null;
    }

    /**
     * @param array<int, bool> $own by row, ascending: whether what it holds is in, as far as nothing in it says otherwise
     *
     * @return list<array{int, int}>
     */
    private function stretches(array $own): array
    {
        $ranges = [];
        $ends = [];
        $kept = [];
        $from = 1;
        $isIn = false;
        $own[$this->scene->count() + 1] = false;
        foreach ($own as $row => $next) {
            // Subtrees that end before this row give back to what holds them.
            while ($ends !== [] && end($ends) < $row) {
                $end = array_pop($ends);
                if ($isIn && $end >= $from) {
                    $ranges[] = [$from, $end];
                }
                $from = max($from, $end + 1);
                $isIn = array_pop($kept) ?? false;
            }
            if ($isIn && $row > $from) {
                $ranges[] = [$from, $row - 1];
            }
            $from = $row;
            $kept[] = $isIn;
            $isIn = $next;
            $ends[] = $row > $this->scene->count() ? $row : $this->scene->end($row);
        }

        return $ranges;
    }
}
