<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Facts\Facts;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Bits;
use VineShelf\Sets\SelectionSet;

/** Finds the objects that a rule picks. A slow evaluator over plain objects stands in the tests and must agree. */
final class Evaluator
{
    /** @var array<int, Evaluated> by number of a live set */
    private array $sets = [];

    /** @var array<int, true> live sets that are being evaluated */
    private array $open = [];

    /**
     * @param Bits            $picked rows of the pick
     * @param list<KnownView>|\Closure(): list<KnownView> $views asked for when a rule needs them
     * @param KnownSets|null  $known  what live sets were found to hold before
     */
    public function __construct(
        private readonly Facts $facts,
        private readonly Organizers $organizers,
        private readonly InEffect $inEffect,
        private readonly Bits $picked,
        private array|\Closure $views = [],
        private readonly ?KnownSets $known = null,
    ) {}

    public function find(Parsed $rule): Evaluated
    {
        $evaluation = new Evaluation(
            $this->facts,
            $this->organizers,
            $this->inEffect,
            $this->picked,
            $this->views(...),
            $rule,
            $this->set(...),
        );
        $rows = $rule->tree->accept($evaluation);

        return new Evaluated($rows, $evaluation->remarks);
    }

    /** What a set holds now. A live set that leads back to itself, which no command makes, holds nothing of itself. */
    public function set(SelectionSet $set): Evaluated
    {
        if ($set->rule === null) {
            return new Evaluated($this->facts->scene->chosen($set->number), []);
        }
        $nothing = Bits::none($this->facts->scene->count());
        if (isset($this->open[$set->number])) {
            return new Evaluated($nothing, []);
        }
        if (! isset($this->sets[$set->number])) {
            $this->open[$set->number] = true;
            try {
                $this->sets[$set->number] = $this->known?->get($set) ?? $this->evaluated($set, $set->rule);
            } catch (RuleError $error) {
                $this->sets[$set->number] = new Evaluated($nothing, [new Remark($error->getMessage(), $error->at, $error->length)]);
            } finally {
                unset($this->open[$set->number]);
            }
        }

        return $this->sets[$set->number];
    }

    /** @return list<KnownView> */
    private function views(): array
    {
        return $this->views = $this->views instanceof \Closure ? ($this->views)() : $this->views;
    }

    /** @throws RuleError */
    private function evaluated(SelectionSet $set, string $rule): Evaluated
    {
        $found = $this->find(Parser::parse($rule));
        $this->known?->put($set, $found);

        return $found;
    }
}
