<?php

declare(strict_types=1);

namespace VineShelf\Lines;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;

/**
 * What a list of lines does to a model, worked out on sets of rows before anything is changed.
 *
 * Every line looks at the model as it was before the run, so that the order of the list decides who comes first and nothing else. An object
 * goes down the list until a line that takes it does not go on. It gets its layer from the first line that takes it and gives one, its name
 * likewise, and the tags of all lines that take it.
 */
final readonly class Run
{
    /**
     * @param list<Took>       $took    by line
     * @param Bits             $untaken objects that no line takes
     * @param array<int, Bits> $filed   objects that move, by the layer that they go under
     * @param array<int, Bits> $tagged  objects that get a tag, by tag
     * @param list<Fight>      $fights
     */
    private function __construct(
        public array $took,
        public Bits $untaken,
        public array $filed,
        public array $tagged,
        public array $fights,
    ) {}

    /**
     * @param list<Line>       $lines
     * @param Bits             $locked  rows that nothing may change
     * @param array<int, Bits> $members rows that have a tag now, by tag
     * @param Bits|null        $among   only these rows are looked at; null for all
     */
    public static function of(Scene $scene, array $lines, Bits $locked, array $members, ?Bits $among = null): self
    {
        $none = Bits::none($scene->count());
        $all = $among ?? Bits::all($scene->count());
        $reaching = $all;
        $homed = $named = $taken = $none;
        $filed = $tagged = $took = [];
        foreach ($lines as $line) {
            $rows = $line->matched->and($reaching);
            $free = $rows->without($locked);
            $taken = $taken->or($rows);
            $homes = $line->layer === 0 ? $none : $free->without($homed);
            $moving = $homes->without($scene->layers()->rowsOf([$line->layer => true]));
            $naming = $line->name === '' ? $none : $free->without($named);
            $tagging = [];
            foreach (array_unique($line->tags) as $tag) {
                $there = ($members[$tag] ?? $none)->or($tagged[$tag] ?? $none);
                $tagging[$tag] = $free->without($there);
                $tagged[$tag] = ($tagged[$tag] ?? $none)->or($tagging[$tag]);
            }
            $homed = $homed->or($homes);
            $named = $named->or($naming);
            if (! $moving->isEmpty()) {
                $filed[$line->layer] = ($filed[$line->layer] ?? $none)->or($moving);
            }
            $took[] = new Took($rows, $rows->and($locked), $moving, $scene->layers()->histogram($moving), $tagging, $naming);
            $reaching = $line->goesOn ? $reaching : $reaching->without($rows);
        }

        return new self(
            $took,
            $all->without($taken),
            $filed,
            array_filter($tagged, static fn (Bits $rows): bool => ! $rows->isEmpty()),
            self::fights($lines, $all),
        );
    }

    /** Objects that get another layer or a tag; new names are not looked at. */
    public function changed(): Bits
    {
        $changed = Bits::none($this->untaken->length);
        foreach ([...$this->filed, ...$this->tagged] as $rows) {
            $changed = $changed->or($rows);
        }

        return $changed;
    }

    /** Objects that some line takes and that are locked. */
    public function left(): Bits
    {
        $left = Bits::none($this->untaken->length);
        foreach ($this->took as $took) {
            $left = $left->or($took->left);
        }

        return $left;
    }

    /**
     * @param list<Line> $lines
     *
     * @return list<Fight> in the order of the list
     */
    private static function fights(array $lines, Bits $all): array
    {
        $fights = [];
        foreach ($lines as $winner => $line) {
            for ($other = $winner + 1, $count = count($lines); $line->layer !== 0 && $other < $count; $other++) {
                if ($lines[$other]->layer === 0 || $lines[$other]->layer === $line->layer) {
                    continue;
                }
                $rows = $line->matched->and($lines[$other]->matched)->and($all);
                if (! $rows->isEmpty()) {
                    $fights[] = new Fight($winner, $other, $rows);
                }
            }
        }

        return $fights;
    }
}
