<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Facts\Facts;
use VineShelf\Organizers\Organizers;
use VineShelf\Sets\SelectionSet;

/** What the objects that a rule picks follow from: as long as none of it changes, neither do they. */
final class Stands
{
    /** What the files say, and where things are: the same for as long as no objects come or go. */
    public const BUILD = 'build';

    /** What layers are called and how they nest; the same for tags, with their folders, and for sets. */
    public const LAYERS = 'layers';

    public const TAGS = 'tags';

    public const SETS = 'sets';

    /** Which properties people gave objects, and their values; who has a value is in the column of it. */
    public const OWN = 'own';

    /** Whatever anybody changes in the project. */
    public const PROJECT = 'project';

    /** Whatever the person changes on the desk. */
    public const DESK = 'desk';

    private readonly Names $names;

    /** @var array<int, true> sets that have been looked at */
    private array $seen = [];

    /** @var array<string, true> */
    private array $on = [self::BUILD => true];

    private function __construct(private readonly Facts $facts, private readonly Organizers $organizers)
    {
        $this->names = new Names($facts, $organizers);
    }

    /** @return list<string> one of the constants, or the name of a column of the scene */
    public static function on(SelectionSet $set, Facts $facts, Organizers $organizers): array
    {
        $stands = new self($facts, $organizers);
        $stands->set($set);
        $on = array_keys($stands->on);
        sort($on);

        return $on;
    }

    private function set(SelectionSet $set): void
    {
        if (isset($this->seen[$set->number])) {
            return;
        }
        $this->seen[$set->number] = true;
        if ($set->rule === null) {
            $this->on["set.$set->number"] = true;

            return;
        }
        try {
            array_map($this->leaf(...), Leaves::of(Parser::parse($set->rule)->tree));
        } catch (RuleError) {
            // It stands on nothing, and holds nothing.
        }
    }

    private function leaf(Node $leaf): void
    {
        if ($leaf instanceof NewerThan || $leaf instanceof IsInView) {
            $this->on[self::PROJECT] = true;
        } elseif ($leaf instanceof StateIs) {
            $this->state($leaf->state);
        } elseif ($leaf instanceof HasProperty) {
            $this->property($leaf->name);
        } elseif (($leaf instanceof TextIs || $leaf instanceof NumberIs) && $leaf->isProperty) {
            $this->property($leaf->field);
        } elseif ($leaf instanceof TextIs) {
            $this->text($leaf);
        }
    }

    private function state(State $state): void
    {
        match (true) {
            $state->rung() !== null, in_array($state, [State::Shown, State::Picked], true) => ($this->on += [
                self::DESK => true,
                self::PROJECT => true,
            ]),
            in_array($state, [State::Open, State::Guarded, State::Locked], true) => ($this->on[self::PROJECT] = true),
            $state === State::Unnamed => ($this->on['names'] = true),
            $state === State::Tagged, $state === State::Untouched => $this->tagged($state),
            default => null,
        };
    }

    /** What the files have no property for, people may give a value today or tomorrow. */
    private function property(string $name): void
    {
        if ($this->facts->propertyNamed($name) !== null) {
            return;
        }
        $own = $this->organizers->own;
        $this->on[self::OWN] = true;
        foreach ($own->values($own->named($name) ?? '') as $value) {
            $this->on["value.$value->number"] = true;
        }
    }

    private function tagged(State $state): void
    {
        $this->on += [self::TAGS => true];
        foreach ($this->organizers->tags->all() as $tag) {
            $this->on["tag.$tag->number"] = true;
        }
        if ($state === State::Untouched) {
            $this->on['layer'] = true;
        }
    }

    private function text(TextIs $node): void
    {
        $pattern = new Pattern($node);
        match (Field::from($node->field)) {
            Field::Name => ($this->on['names'] = true),
            Field::Layer => ($this->on += [self::LAYERS => true, 'layer' => true]),
            Field::Note => ($this->on[self::PROJECT] = true),
            Field::Tag => ($this->on +=
                [self::TAGS => true] +
                array_fill_keys(array_map(static fn (int $tag): string => "tag.$tag", array_filter($this->names->tags($pattern))), true)),
            Field::Set => $this->sets($node),
            default => null,
        };
    }

    private function sets(TextIs $node): void
    {
        $this->on[self::SETS] = true;
        array_map($this->set(...), $this->names->sets($node) ?? []);
    }
}
