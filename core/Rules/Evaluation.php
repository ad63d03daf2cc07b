<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Facts\Facts;
use VineShelf\Facts\Measure;
use VineShelf\Layers\Layer;
use VineShelf\Locks\Lock;
use VineShelf\Organizers\Organizers;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;
use VineShelf\Scene\Scene;
use VineShelf\Sets\SelectionSet;

/**
 * One rule being evaluated: the rows of each part, and remarks as they turn up.
 *
 * @implements Visitor<Bits>
 */
final class Evaluation implements Visitor
{
    /** @var list<Remark> what the rule names in vain */
    public array $remarks = [];

    private readonly Scene $scene;

    private readonly Names $names;

    /**
     * @param Bits            $picked rows of the pick
     * @param \Closure(): list<KnownView> $views
     * @param \Closure(SelectionSet): Evaluated $set
     */
    public function __construct(
        private readonly Facts $facts,
        private readonly Organizers $organizers,
        private readonly InEffect $inEffect,
        private readonly Bits $picked,
        private readonly \Closure $views,
        private readonly Parsed $rule,
        private readonly \Closure $set,
    ) {
        $this->scene = $facts->scene;
        $this->names = new Names($facts, $organizers);
    }

    public function allOf(AllOf $node): Bits
    {
        // "without" saves turning all bits around for every "not".
        $rows = null;
        $not = [];
        foreach ($node->parts as $part) {
            if ($part instanceof NoneOf) {
                $not[] = $part->part->accept($this);
            } else {
                $these = $part->accept($this);
                $rows = $rows?->and($these) ?? $these;
            }
        }
        $rows ??= Bits::all($this->scene->count());
        foreach ($not as $these) {
            $rows = $rows->without($these);
        }

        return $rows;
    }

    public function anyOf(AnyOf $node): Bits
    {
        $rows = $node->parts[0]->accept($this);
        foreach (array_slice($node->parts, 1) as $part) {
            $rows = $rows->or($part->accept($this));
        }

        return $rows;
    }

    public function noneOf(NoneOf $node): Bits
    {
        return $node->part->accept($this)->not();
    }

    public function related(Related $node): Bits
    {
        $rows = $node->part->accept($this);

        return match ($node->relation) {
            Relation::Inside => Relatives::inside($this->scene, $rows),
            Relation::Holding => Relatives::holding($this->scene, $rows),
            Relation::Beside => Relatives::beside($this->scene, $rows),
        };
    }

    public function textIs(TextIs $node): Bits
    {
        if ($node->isProperty) {
            return $this->property($node);
        }
        $rows =
            ($node->field === Field::Set->value ? $this->sets($node) : $this->names->rows($node)) ??
            $this->missing($node, Field::from($node->field)->missing($node->words));

        return $node->test === TextTest::IsNot ? $rows->not() : $rows;
    }

    /** @return Bits|null the rows of the sets that a condition means; null when no set is called so */
    private function sets(TextIs $node): ?Bits
    {
        $sets = $this->names->sets($node);
        if ($sets === null) {
            return null;
        }
        // A folder without sets is there, and holds nothing.
        $rows = Bits::none($this->facts->scene->count());
        foreach ($sets as $set) {
            $found = ($this->set)($set);
            $rows = $rows->or($found->rows);
            [$at, $length] = $this->rule->place($node);
            foreach ($found->remarks as $remark) {
                $this->remarks[] = new Remark("In the set “{$set->name}”: $remark->sentence", $at, $length);
            }
        }

        return $rows;
    }

    private function property(TextIs $node): Bits
    {
        $own = $this->names->own($node->field);
        if ($own !== null) {
            $rows = $this->names->havingOwn($own, $node) ?? $this->missing($node, "No object has “{$node->words}” as its “{$own}”");

            return $node->test === TextTest::IsNot ? $rows->not() : $rows;
        }
        $index = $this->names->property($node->field);
        if ($index === null) {
            return $this->unknownProperty($node, $node->field, $node->test === TextTest::IsNot);
        }
        $isNumber = $this->facts->properties()[$this->facts->propertyNamed($node->field) ?? ''][2] ?? false;
        $rows =
            $isNumber && ! $node->quoted && is_numeric($node->words)
                ? $this->facts->ranked("number.$index")->between((float) $node->words, (float) $node->words)
                : $this->names->having($index, $node) ??
                    $this->missing($node, "No object has “{$node->words}” as its “{$node->field}”");

        return $node->test === TextTest::IsNot ? $rows->not() : $rows;
    }

    public function numberIs(NumberIs $node): Bits
    {
        $measure = $node->isProperty ? null : Measure::from($node->field);
        $column = $measure?->value;
        $own = $measure === null ? $this->names->own($node->field) : null;
        if ($own !== null) {
            return $this->ownNumber($own, $node);
        }
        if ($measure === null) {
            $index = $this->names->property($node->field);
            if ($index === null) {
                return $this->unknownProperty($node, $node->field, false);
            }
            $column = "number.$index";
        }
        $ranked = $this->facts->ranked((string) $column);
        $low = $node->number?->value() ?? -INF;
        $high = $node->upTo?->value() ?? INF;
        $near = static fn (float $end): float => $measure?->near($end) ?? 0.0;
        $span = $node->test->span($low, $high, $near($low), $near($high));
        $in = $ranked->between($span->from, $span->to, $span->withFrom, $span->withTo);

        return $span->isOutside ? $ranked->present()->without($in) : $in;
    }

    /** A property that people gave objects, compared as a number; what is no number is in no comparison. */
    private function ownNumber(string $property, NumberIs $node): Bits
    {
        $span = $node->test->span($node->number?->value() ?? -INF, $node->upTo?->value() ?? INF);

        return $this->organizers->own->rows(
            $this->scene,
            $property,
            static fn (OwnValue $value): bool => $value->isNumber() && $span->has((float) $value->value),
        );
    }

    public function stateIs(StateIs $node): Bits
    {
        $state = $node->state;
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
            State::Tagged => $this->tagged(),
            State::Untouched => $this->scene
                ->layers()
                ->rowsOf([Layer::UNSORTED => true])
                ->without($this->tagged()),
            State::HasGeometry => $this->facts->ranked('instances')->between(1, INF),
            State::HasMaterial => $this->facts->bits('material'),
            State::HasTextures => $this->facts->bits('textures'),
            State::HasChildren => $this->facts->bits('groups'),
            State::HasParent => $this->facts->ranked('depth')->between(2, INF),
            State::HasClass => $this->facts->ranked('class')->present(),
            default => $this->facts->bits('properties'),
        };
    }

    private function tagged(): Bits
    {
        $rows = Bits::none($this->scene->count());
        foreach ($this->organizers->tags->all() as $tag) {
            $rows = $rows->or($this->scene->tagged($tag->number));
        }

        return $rows;
    }

    public function hasProperty(HasProperty $node): Bits
    {
        $own = $this->names->own($node->name);
        if ($own !== null) {
            return $this->organizers->own->rows($this->scene, $own);
        }
        $index = $this->names->property($node->name);

        return $index === null ? $this->unknownProperty($node, $node->name, false) : $this->facts->ranked("property.$index")->present();
    }

    public function newerThan(NewerThan $node): Bits
    {
        $view = $this->view($node->view);

        return $view === null ? $this->missing($node, "There is no view called “{$node->view}”") : ($view->newer)();
    }

    public function isInView(IsInView $node): Bits
    {
        $view = $this->view($node->view);
        if ($view === null) {
            return $this->missing($node, "There is no view called “{$node->view}”");
        }
        $rung = $node->state->rung();

        return $rung === null ? ($view->rungs)()->atLeast(Rung::Box->value) : ($view->rungs)()->being($rung->value);
    }

    /** The first view of a name; case does not matter. */
    private function view(string $name): ?KnownView
    {
        foreach (($this->views)() as $view) {
            if (mb_strtolower($view->name) === mb_strtolower($name)) {
                return $view;
            }
        }

        return null;
    }

    private function unknownProperty(Node $node, string $name, bool $all): Bits
    {
        $none = $this->missing($node, "Neither a field nor a property of these files is called “{$name}”");

        return $all ? $none->not() : $none;
    }

    /** Remarks that a condition is about nothing. @return Bits no rows */
    private function missing(Node $node, string $sentence): Bits
    {
        [$at, $length] = $this->rule->place($node);
        $this->remarks[] = new Remark("$sentence.", $at, $length);

        return Bits::none($this->scene->count());
    }
}
