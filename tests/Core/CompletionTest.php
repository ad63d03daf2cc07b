<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainModel;
use VineShelf\Layers\Contents;
use VineShelf\Rules\Completion;
use VineShelf\Rules\Evaluator;
use VineShelf\Rules\Field;
use VineShelf\Rules\Parser;
use VineShelf\Rules\RuleError;
use VineShelf\Rules\Suggestion;
use VineShelf\Rules\Vocabulary;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Bits;

final class CompletionTest extends TestCase
{
    private PlainModel $model;

    private Completion $completion;

    private Vocabulary $vocabulary;

    protected function setUp(): void
    {
        mt_srand(12);
        $this->model = PlainModel::grow(80);
        $this->vocabulary = new Vocabulary(
            $this->model->facts,
            $this->model->forest->organizers,
            new Contents($this->model->facts->scene, $this->model->forest->layers),
            ['Hall', 'From "above"'],
        );
        $this->completion = new Completion($this->vocabulary, $this->hits(...));
    }

    #[TestWith(['lay|', 'layer:', 'layer:|'])]
    #[TestWith(['tri|', 'triangles', 'triangles > |'])]
    #[TestWith(['seat kind:p|', 'part', 'seat kind:part |'])]
    #[TestWith(['kind:p|art x', 'part', 'kind:part | x'])]
    #[TestWith(['class:fur|', 'Furniture', 'class:Furniture |'])]
    #[TestWith(['material:po|', 'pool tile', 'material:"pool tile" |'])]
    #[TestWith(['material:"po|', 'pool tile', 'material:"pool tile" |'])]
    #[TestWith(['source:|', 'Hall.glb', 'source:Hall.glb |'])]
    #[TestWith(['is |', 'hidden', 'is hidden |'])]
    #[TestWith(['is not lo|', 'locked', 'is not locked |'])]
    #[TestWith(['has |', 'fire rating', 'has "fire rating" |'])]
    #[TestWith(['has no chil|', 'children', 'has no children |'])]
    #[TestWith(['fire|', 'fire rating:', '"fire rating":|'])]
    #[TestWith(['"fire rating":|', 'EI30', '"fire rating":EI30 |'])]
    #[TestWith(['in view Fr|', 'From "above"', 'in view "From \"above\"" |'])]
    #[TestWith(['is not ghost in |', 'From "above"', 'is not ghost in "From \"above\"" |'])]
    #[TestWith(['is newer than |', 'From "above"', 'is newer than "From \"above\"" |'])]
    #[TestWith(['seat |', 'and', 'seat and |'])]
    #[TestWith(['(in|', 'inside', '(inside (|'])]
    #[TestWith(['level:|', 'Pool', 'level:Pool |'])]
    public function test_offers_what_can_come_next(string $typed, string $label, string $after): void
    {
        $cursor = (int) mb_strpos($typed, '|');
        $text = str_replace('|', '', $typed);
        $found = array_values(
            array_filter($this->completion->at($text, $cursor), static fn (Suggestion $suggestion): bool => $suggestion->label === $label),
        );
        self::assertCount(1, $found, "$label is offered");
        $filled = mb_substr($text, 0, $found[0]->at).$found[0]->insert.'|'.mb_substr($text, $found[0]->at + $found[0]->length);
        self::assertSame($after, $filled);
    }

    public function test_counts_are_those_that_the_rule_finds(): void
    {
        foreach ([Field::Kind, Field::ObjectClass, Field::Layer, Field::Material, Field::Source] as $field) {
            $seen = 0;
            foreach ($this->vocabulary->values($field) as $value => $objects) {
                $rule = $field->value.'="'.$value.'"';
                self::assertSame(count($this->model->slowFind(Parser::parse($rule)->tree)), $objects, $rule);
                $seen++;
            }
            self::assertGreaterThan(0, $seen);
        }
        self::assertSame(
            count($this->model->slowFind(Parser::parse('"fire rating"=EI30')->tree)),
            $this->vocabulary->property('Fire Rating')['EI30'],
        );
        self::assertSame(count($this->model->slowFind(Parser::parse('has diameter')->tree)), $this->vocabulary->properties()['diameter']);
    }

    public function test_every_offer_makes_a_rule_or_the_start_of_one(): void
    {
        foreach (['', 'seat ', 'kind:', 'layer:', 'is ', 'has ', '"fire rating":', 'width > ', 'volume > ', 'not '] as $text) {
            foreach ($this->completion->at($text, mb_strlen($text)) as $suggestion) {
                $filled = mb_substr($text, 0, $suggestion->at).$suggestion->insert;
                try {
                    Parser::parse($filled);
                    $this->addToAssertionCount(1);
                } catch (RuleError $error) {
                    self::assertGreaterThanOrEqual(mb_strlen(trim($filled)) - 12, $error->at, "$filled: {$error->getMessage()}");
                }
            }
        }
    }

    public function test_nothing_is_offered_where_nothing_fits_and_no_text_breaks_it(): void
    {
        self::assertSame([], $this->completion->at('kind:zebra', 10));
        foreach (["\xFF", '"', '((((', ':::', 'is newer', str_repeat('x ', 3000)] as $text) {
            self::assertLessThanOrEqual(40, count($this->completion->at($text, 4)));
        }
    }

    public function test_the_count_beside_a_value_is_what_the_rule_then_finds(): void
    {
        $seen = 0;
        foreach (
            ['layer:', 'layer=', 'material:', 'material!=', 'class:', 'kind:', 'source:', 'level:', '"fire rating":', 'finish='] as $start
        ) {
            foreach ($this->completion->at($start, mb_strlen($start)) as $suggestion) {
                $rule = mb_substr($start, 0, $suggestion->at).$suggestion->insert;
                self::assertSame(count($this->model->slowFind(Parser::parse($rule)->tree)), $suggestion->objects, $rule);
                $seen++;
            }
        }
        self::assertGreaterThan(20, $seen);
    }

    private function hits(string $rule): int
    {
        $scene = $this->model->facts->scene;
        $inEffect = new InEffect($scene, $this->model->forest->organizers, $this->model->forest->settings);

        return (new Evaluator($this->model->facts, $this->model->forest->organizers, $inEffect, Bits::none($scene->count())))
            ->find(Parser::parse($rule))
            ->rows->count();
    }
}
