<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Facts\Measure;
use VineShelf\Scene\Kind;

/** Reads what a rule compares: words alone, or a field, an operator and a value. */
final readonly class Comparisons
{
    /** Other ways to write a measure. */
    public const ALIASES = ['depth-extent' => Measure::Length];

    public function __construct(private Reading $reading) {}

    /** @throws RuleError */
    public function read(): Node
    {
        $first = $this->reading->take();
        if ($this->reading->here()->kind !== TokenKind::Operator) {
            return $this->reading->placed(
                new TextIs(Field::Name->value, TextTest::Has, $first->text, $first->kind === TokenKind::Quoted),
                $first,
                $first,
            );
        }
        $operator = $this->reading->take();
        if ($first->text === '') {
            throw RuleError::at($first, 'A field needs a name, for example "fire rating":EI30.');
        }
        if ($first->kind === TokenKind::Word) {
            $name = mb_strtolower($first->text);
            $field = Field::tryFrom($name);
            if ($field !== null) {
                return $this->textField($field, $operator);
            }
            $measure = Measure::tryFrom($name) ?? (self::ALIASES[$name] ?? null);
            if ($measure !== null) {
                return $this->number($measure->value, $measure->dimension(), $operator, false);
            }
        }

        return $this->property($first, $operator);
    }

    private function textField(Field $field, Token $operator): TextIs
    {
        $test =
            TextTest::tryFrom($operator->text) ??
            throw RuleError::at(
                $operator,
                "“{$field->value}” holds words; compare it with : for part of them, or with = or != for all of them.",
            );
        $value = $this->reading->here();
        if ($value->kind !== TokenKind::Word && $value->kind !== TokenKind::Quoted) {
            throw RuleError::at(
                $value->kind === TokenKind::End ? $operator : $value,
                "After {$field->value}{$operator->text} comes {$field->meaning()}; quotes hold several words together.",
            );
        }
        $this->reading->take();
        $node = $this->reading->placed(new TextIs($field->value, $test, $value->text, $value->kind === TokenKind::Quoted), $value, $value);
        if ($field === Field::Kind) {
            $kinds = array_map(static fn (Kind $kind): string => $kind->label(), Kind::cases());
            if (array_filter($kinds, (new Pattern($node))->matches(...)) === []) {
                throw RuleError::at($value, "“{$value->text}” is not a kind; the kinds are ".implode(', ', $kinds).'.');
            }
        }

        return $node;
    }

    private function property(Token $name, Token $operator): Node
    {
        $test = TextTest::tryFrom($operator->text);
        $value = $this->reading->here();
        if ($test === null || ($value->kind === TokenKind::Word && str_contains($value->text, '..'))) {
            return $this->number($name->text, 0, $operator, true);
        }
        if ($value->kind !== TokenKind::Word && $value->kind !== TokenKind::Quoted) {
            throw RuleError::at(
                $value->kind === TokenKind::End ? $operator : $value,
                "After “{$name->text}” {$operator->text} comes a word, a number, or several words in quotes.",
            );
        }
        $this->reading->take();

        return $this->reading->placed(
            new TextIs($name->text, $test, $value->text, $value->kind === TokenKind::Quoted, true),
            $name,
            $value,
        );
    }

    private function number(string $field, int $dimension, Token $operator, bool $isProperty): NumberIs
    {
        $value = $this->reading->here();
        $like = ['1000', '1.5m', '', '0.2m3'][$dimension];
        if ($value->kind !== TokenKind::Word) {
            throw RuleError::at(
                $value->kind === TokenKind::End ? $operator : $value,
                "After {$field} {$operator->text} comes a number, for example $like, or a range like ".
                    ['100..500', '1m..2m', '', '1m3..2m3'][$dimension].
                    '.',
            );
        }
        $this->reading->take();
        $ends = explode('..', $value->text, 2);
        if (count($ends) === 2) {
            if (! in_array($operator->text, [':', '=', '!='], true)) {
                throw RuleError::at($operator, "A range is compared with : = or !=, not with {$operator->text}.");
            }
            if ($ends === ['', '']) {
                throw RuleError::at($value, 'A range needs a number on at least one side of the two dots.');
            }
            [$low, $high] = array_map(
                fn (string $end): ?Quantity => $end === '' ? null : $this->quantity($end, $value, $dimension, $isProperty),
                $ends,
            );
            if ($low !== null && $high !== null && $low->value() > $high->value()) {
                throw RuleError::at($value, 'This range ends before it begins; turn its ends around.');
            }

            return $this->reading->placed(
                new NumberIs($field, $operator->text === '!=' ? NumberTest::NotWithin : NumberTest::Within, $low, $high, $isProperty),
                $value,
                $value,
            );
        }
        $quantity = $this->quantity($value->text, $value, $dimension, $isProperty);
        $unit = $this->reading->here();
        if (
            $quantity->unit === '' &&
            $unit->kind === TokenKind::Word &&
            $unit->apart &&
            isset(self::units($dimension)[self::plainUnit($unit->text)]) &&
            $dimension > 0
        ) {
            $quantity = new Quantity($quantity->digits, self::plainUnit($this->reading->take()->text));
        }
        $test = NumberTest::from($operator->text === ':' ? '=' : $operator->text);

        return $this->reading->placed(new NumberIs($field, $test, $quantity, null, $isProperty), $value, $value);
    }

    private function quantity(string $text, Token $token, int $dimension, bool $isProperty): Quantity
    {
        // A number may be grouped as cells show it: 1,234.5.
        $number = '[+-]?(?:(?:\d{1,3}(?:,\d{3}){1,4}(?!,?\d)|\d{1,15})(?:\.\d{1,12})?|\.\d{1,12})';
        if (preg_match("~^($number)(.*)$~s", $text, $found) !== 1) {
            throw RuleError::at(
                $token,
                "“{$text}” is not a number; write one like ".['1000 or 25k', '1.5m or 40mm', '', '0.2m3'][$dimension].'.',
            );
        }
        $units = $isProperty ? Quantity::MANY : self::units($dimension);
        $unit = self::plainUnit($found[2]);
        if ($unit !== '' && ! isset($units[$unit])) {
            $known = implode(', ', array_keys($units));
            throw RuleError::at(
                $token,
                $isProperty
                    ? "“{$found[2]}” cannot be a unit here: a property's numbers are compared as the file has them."
                    : "“{$found[2]}” is not a unit here; units are $known.",
            );
        }

        return new Quantity(str_replace(',', '', $found[1]), $unit);
    }

    /** Cubic units may be written as they are shown, with a raised 3. */
    private static function plainUnit(string $unit): string
    {
        return str_replace('³', '3', $unit);
    }

    /** @return array<string, float> */
    private static function units(int $dimension): array
    {
        return [Quantity::MANY, Quantity::UNITS, [], Quantity::VOLUMES][$dimension];
    }
}
