<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Facts\Facts;
use VineShelf\Facts\Measure;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Relatives;
use VineShelf\Scene\Scene;
use VineShelf\Search\NameIndex;

/** Finds the objects that a rule picks. A slow evaluator over plain objects stands in the tests and must agree. */
final class Evaluator
{
    /** @var list<Remark> */
    private array $remarks = [];

    private readonly Scene $scene;

    /**
     * @param Bits            $picked rows of the pick
     * @param list<KnownView> $views
     */
    public function __construct(
        private readonly Facts $facts,
        private readonly LayerTree $layers,
        private readonly InEffect $inEffect,
        private readonly Bits $picked,
        private readonly array $views = [],
    ) {
        $this->scene = $facts->scene;
    }

    public function find(Parsed $rule): Bits
    {
        $this->remarks = [];

        return $this->rows($rule->tree, $rule);
    }

    /** @return list<Remark> what the rule that was last evaluated names in vain */
    public function remarks(): array
    {
        return $this->remarks;
    }

    private function rows(Node $node, Parsed $rule): Bits
    {
        return match (true) {
            $node instanceof AllOf => $this->all($node, $rule),
            $node instanceof AnyOf => array_reduce(
                array_slice($node->parts, 1),
                fn (Bits $rows, Node $part): Bits => $rows->or($this->rows($part, $rule)),
                $this->rows($node->parts[0], $rule),
            ),
            $node instanceof NoneOf => $this->rows($node->part, $rule)->not(),
            $node instanceof Related => $this->related($node->relation, $this->rows($node->part, $rule)),
            $node instanceof TextIs => $node->isProperty ? $this->property($node, $rule) : $this->text($node, $rule),
            $node instanceof NumberIs => $this->number($node, $rule),
            $node instanceof StateIs => $this->state($node->state),
            $node instanceof HasProperty => $this->having($node, $rule),
            $node instanceof NewerThan => $this->newer($node, $rule),
            default => throw new \LogicException('A rule has no part of the type '.$node::class.'.'),
        };
    }

    private function all(AllOf $node, Parsed $rule): Bits
    {
        // "without" saves turning all bits around for every "not".
        $rows = null;
        $not = [];
        foreach ($node->parts as $part) {
            if ($part instanceof NoneOf) {
                $not[] = $this->rows($part->part, $rule);
            } else {
                $these = $this->rows($part, $rule);
                $rows = $rows?->and($these) ?? $these;
            }
        }
        $rows ??= Bits::all($this->scene->count());
        foreach ($not as $these) {
            $rows = $rows->without($these);
        }

        return $rows;
    }

    private function text(TextIs $node, Parsed $rule): Bits
    {
        $pattern = new Pattern($node);
        $rows = match (Field::from($node->field)) {
            Field::Name => $this->named($pattern),
            Field::Kind => $this->facts
                ->ranked('kind')
                ->in(array_keys(array_filter(Kind::cases(), static fn (Kind $kind): bool => $pattern->resembles($kind->label())))),
            Field::ObjectClass => $this->coded('class', $this->facts->words('class.words'), $pattern, $node, $rule),
            Field::Layer => $this->filed($pattern, $node, $rule),
            Field::Material => $this->drawnWith($pattern, $node, $rule),
            Field::Source => $this->cameIn($pattern, $node, $rule),
            Field::Level => $this->onLevel($pattern, $node, $rule),
            Field::Tag, Field::Set, Field::Note => $this->missing($node, $rule),
        };

        return $node->test === TextTest::IsNot ? $rows->not() : $rows;
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
    private function coded(string $column, array $words, Pattern $pattern, TextIs $node, Parsed $rule): Bits
    {
        $codes = [];
        foreach ($words as $code => $word) {
            if ($code > 0 && $pattern->resembles(mb_strtolower((string) $word))) {
                $codes[] = $code;
            }
        }

        return $codes === [] ? $this->missing($node, $rule) : $this->facts->ranked($column)->in($codes);
    }

    private function filed(Pattern $pattern, TextIs $node, Parsed $rule): Bits
    {
        $numbers = [];
        foreach ($this->layers->walk() as [$layer]) {
            if (isset($numbers[$layer->parent]) || $pattern->resembles(mb_strtolower($layer->name))) {
                $numbers[$layer->number] = true;
            }
        }

        return $numbers === [] ? $this->missing($node, $rule) : $this->scene->layers()->rowsOf($numbers);
    }

    private function drawnWith(Pattern $pattern, TextIs $node, Parsed $rule): Bits
    {
        $materials = [];
        foreach ($this->facts->materials() as $number => [$name]) {
            if ($pattern->resembles(mb_strtolower($name))) {
                $materials[$number] = true;
            }
        }

        return $materials === []
            ? $this->missing($node, $rule)
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

    private function cameIn(Pattern $pattern, TextIs $node, Parsed $rule): Bits
    {
        $numbers = array_filter($this->facts->sourceNames(), static fn (string $name): bool => $pattern->resembles(mb_strtolower($name)));

        return $numbers === [] ? $this->missing($node, $rule) : $this->facts->sources()->rowsOf($numbers);
    }

    /** An object stands on the level that it names, or the nearest object above it that names one. */
    private function onLevel(Pattern $pattern, TextIs $node, Parsed $rule): Bits
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

        return in_array(true, $own, true) ? Bits::ofRanges($this->scene->count(), $this->stretches($own)) : $this->missing($node, $rule);
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

    private function property(TextIs $node, Parsed $rule): Bits
    {
        $name = $this->facts->propertyNamed($node->field);
        if ($name === null) {
            return $this->unknownProperty($node, $node->field, $rule, $node->test === TextTest::IsNot);
        }
        [$index, , $numbers] = $this->facts->properties()[$name];
        if ($numbers && ! $node->quoted && is_numeric($node->words)) {
            $rows = $this->facts->ranked("number.$index")->between((float) $node->words, (float) $node->words);
        } else {
            $rows = $this->coded("property.$index", $this->facts->words("property.$index.words"), new Pattern($node), $node, $rule);
        }

        return $node->test === TextTest::IsNot ? $rows->not() : $rows;
    }

    private function unknownProperty(Node $node, string $name, Parsed $rule, bool $all): Bits
    {
        [$at, $length] = $rule->place($node);
        $this->remarks[] = new Remark("Neither a field nor a property of these files is called “{$name}”.", $at, $length);

        return $all ? Bits::all($this->scene->count()) : Bits::none($this->scene->count());
    }

    private function number(NumberIs $node, Parsed $rule): Bits
    {
        $measure = $node->isProperty ? null : Measure::from($node->field);
        $column = $measure?->value;
        if ($measure === null) {
            $name = $this->facts->propertyNamed($node->field);
            if ($name === null) {
                return $this->unknownProperty($node, $node->field, $rule, false);
            }
            $column = "number.{$this->facts->properties()[$name][0]}";
        }
        $ranked = $this->facts->ranked((string) $column);
        $low = $node->number?->value() ?? -INF;
        $high = $node->upTo?->value() ?? INF;
        $near = $measure?->near($low === -INF ? 0.0 : $low) ?? 0.0;

        return match ($node->test) {
            NumberTest::Is => $ranked->between($low - $near, $low + $near),
            NumberTest::IsNot => $ranked->present()->without($ranked->between($low - $near, $low + $near)),
            NumberTest::Below => $ranked->between(-INF, $low, true, false),
            NumberTest::AtMost => $ranked->between(-INF, $low),
            NumberTest::Above => $ranked->between($low, INF, false),
            NumberTest::AtLeast => $ranked->between($low, INF),
            NumberTest::Within => $ranked->between($low, $high),
            NumberTest::NotWithin => $ranked->present()->without($ranked->between($low, $high)),
        };
    }

    private function state(State $state): Bits
    {
        $count = $this->scene->count();
        $rung = $state->rung();
        if ($rung !== null) {
            return $this->inEffect->rungs()->being($rung->value);
        }

        return match ($state) {
            State::Shown => $this->inEffect->rungs()->atLeast(Rung::Box->value),
            State::Open => $this->inEffect->locks()->being(Lock::Open->value),
            State::Guarded => $this->inEffect->locks()->atLeast(Lock::Guarded->value),
            State::Locked => $this->inEffect->locked(),
            State::Picked => $this->picked,
            State::Unnamed => $this->facts->bits('unnamed'),
            State::Tagged => Bits::none($count),
            State::Untouched => $this->scene->layers()->rowsOf([Layer::UNSORTED => true]),
            State::HasGeometry => $this->facts->ranked('instances')->between(1, INF),
            State::HasMaterial => $this->facts->bits('material'),
            State::HasTextures => $this->facts->bits('textures'),
            State::HasChildren => $this->facts->bits('groups'),
            State::HasParent => $this->facts->ranked('depth')->between(2, INF),
            State::HasClass => $this->facts->ranked('class')->present(),
            default => $this->facts->bits('properties'),
        };
    }

    private function having(HasProperty $node, Parsed $rule): Bits
    {
        $name = $this->facts->propertyNamed($node->name);

        return $name === null
            ? $this->unknownProperty($node, $node->name, $rule, false)
            : $this->facts->ranked("property.{$this->facts->properties()[$name][0]}")->present();
    }

    private function newer(NewerThan $node, Parsed $rule): Bits
    {
        foreach ($this->views as $view) {
            if (mb_strtolower($view->name) !== mb_strtolower($node->view)) {
                continue;
            }
            $layers = [];
            foreach ($this->layers->walk() as [$layer]) {
                if ($layer->number > $view->layer) {
                    $layers[$layer->number] = true;
                }
            }
            $rows = [];
            $known = $this->scene->column('rows');
            foreach (Packed::uint32($known, ($view->object + 1) * 4, max(0, intdiv(strlen($known), 4) - $view->object - 1)) as $row) {
                if ($row > 0) {
                    $rows[] = $row;
                }
            }
            sort($rows);

            return $this->scene->layers()->rowsOf($layers)->or(Bits::ofRows($this->scene->count(), $rows));
        }
        [$at, $length] = $rule->place($node);
        $this->remarks[] = new Remark("There is no view called “{$node->view}”.", $at, $length);

        return Bits::none($this->scene->count());
    }

    private function related(Relation $relation, Bits $rows): Bits
    {
        return match ($relation) {
            Relation::Inside => Relatives::inside($this->scene, $rows),
            Relation::Holding => Relatives::holding($this->scene, $rows),
            Relation::Beside => Relatives::beside($this->scene, $rows),
        };
    }

    private function missing(TextIs $node, Parsed $rule): Bits
    {
        [$at, $length] = $rule->place($node);
        $sentence = $node->isProperty
            ? "No object has “{$node->words}” as its “{$node->field}”"
            : Field::from($node->field)->missing($node->words);
        $this->remarks[] = new Remark("$sentence.", $at, $length);

        return Bits::none($this->scene->count());
    }
}
