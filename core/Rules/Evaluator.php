<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Facts\Facts;
use VineShelf\Layers\LayerTree;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Bits;

/** Finds the objects that a rule picks. A slow evaluator over plain objects stands in the tests and must agree. */
final readonly class Evaluator
{
    /**
     * @param Bits            $picked rows of the pick
     * @param list<KnownView> $views
     */
    public function __construct(
        private Facts $facts,
        private LayerTree $layers,
        private InEffect $inEffect,
        private Bits $picked,
        private array $views = [],
    ) {}

    public function find(Parsed $rule): Evaluated
    {
        $evaluation = new Evaluation($this->facts, $this->layers, $this->inEffect, $this->picked, $this->views, $rule);
        $rows = $rule->tree->accept($evaluation);

        return new Evaluated($rows, $evaluation->remarks);
    }
}
