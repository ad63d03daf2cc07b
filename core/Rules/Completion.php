<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Facts\Measure;

/** Says how a rule can go on at the cursor: fields, values with counts, states, relatives. */
final readonly class Completion
{
    private const MOST = 40;

    /** @param \Closure(string): int $count how many objects a rule finds */
    public function __construct(private Vocabulary $vocabulary, private \Closure $count) {}

    /**
     * @param int $cursor in characters from the start
     *
     * @return list<Suggestion>
     */
    public function at(string $text, int $cursor): array
    {
        $cursor = max(0, min(mb_strlen($text), $cursor));
        [$tokens, $typed, $at] = self::before(mb_substr($text, 0, $cursor));
        $after = mb_substr($text, $cursor);
        // A word that goes on behind the cursor is replaced whole.
        $rest = preg_match('~^[^\s"():=<>!]+~u', $after, $found) === 1 ? mb_strlen($found[0]) : 0;
        $length = $cursor - $at + $rest;
        $last = $tokens[count($tokens) - 1] ?? null;
        $field = $tokens[count($tokens) - 2] ?? null;
        $found = match (true) {
            $last?->kind === TokenKind::Operator && $field !== null => $this->values($field, $last->text),
            $last !== null && $last->isWord('is') => self::states('is', false),
            $last !== null && $last->isWord('has') => [...self::states('has', false), ...$this->ownProperties()],
            $last !== null && $last->isWord('no') && $field?->isWord('has') === true => [
                ...self::states('has', true),
                ...$this->ownProperties(),
            ],
            $last !== null && $last->isWord('not') && $field?->isWord('is') === true => self::states('is', true),
            $last !== null && $last->isWord('newer') => [['than', 'than ', '', null]],
            $last !== null && ($last->isWord('than') || self::asksForView($tokens[count($tokens) - 3] ?? null, $field, $last)) => array_map(
                static fn (string $view): array => [$view, Printer::quoted($view).' ', 'a view', null],
                $this->vocabulary->views(),
            ),
            $typed === '' && $last !== null && ! $last->isWord('and', 'or', 'not') && $last->kind !== TokenKind::Open => [
                ['and', 'and ', 'both', null],
                ['or', 'or ', 'one of both', null],
                ...$this->starts(),
            ],
            default => $this->starts(),
        };

        return $this->fitting($found, $typed, $at, $length);
    }

    /** Whether a view's name comes next: after "in view", or "in" after a rung. */
    private static function asksForView(?Token $first, ?Token $before, Token $last): bool
    {
        if ($before === null) {
            return false;
        }
        $isRung = $first?->isWord('is', 'not') === true && State::named('is', $before->text)?->rung() !== null;

        return ($last->isWord('view') && $before->isWord('in')) || ($last->isWord('in') && $isRung);
    }

    /** @return array{list<Token>, string, int} the tokens before the cursor without the word at it, that word, and where it starts */
    private static function before(string $text): array
    {
        try {
            $tokens = Lexer::tokens($text);
        } catch (RuleError $error) {
            // Quotes that are still open: what stands in them is the word at the cursor.
            if ($error->length > 0 && mb_substr($text, $error->at, 1) === '"') {
                $tokens = Lexer::tokens(mb_substr($text, 0, $error->at));
                array_pop($tokens);

                return [$tokens, mb_substr($text, $error->at + 1), $error->at];
            }

            return [[], '', mb_strlen($text)];
        }
        $end = array_pop($tokens);
        $last = $tokens[count($tokens) - 1] ?? null;
        if ($last !== null && $last->kind === TokenKind::Word && $end !== null && ! $end->apart) {
            array_pop($tokens);

            return [$tokens, $last->text, $last->at];
        }

        return [$tokens, '', mb_strlen($text)];
    }

    /**
     * @return list<array{0: string, 1: string, 2: string, 3: int|null, 4?: string}> label, text, meaning, objects, and the whole condition
     */
    private function values(Token $field, string $operator): array
    {
        $name = mb_strtolower($field->text);
        $known = $field->kind === TokenKind::Word ? Field::tryFrom($name) : null;
        if ($known === null && $field->kind === TokenKind::Word && Measure::tryFrom($name) !== null) {
            $like = [['1000', '1000 ', 'a plain number', null], ['1000..', '1000.. ', 'a range, open at one end', null]];

            return [
                $like,
                [['1m', '1m ', 'metres; also mm, cm, in, ft', null], ['1m..2m', '1m..2m ', 'a range', null]],
                [],
                [['1m3', '1m3 ', 'cubic metres; also l, ft3', null]],
            ][Measure::from($name)->dimension()];
        }
        $before = ($field->kind === TokenKind::Word ? $field->text : Printer::quoted($field->text)).$operator;
        $values = [];
        foreach ($known !== null ? $this->vocabulary->values($known) : $this->vocabulary->property($field->text) as $value => $objects) {
            $values[] = [(string) $value, Printer::word((string) $value).' ', '', $objects, $before.Printer::word((string) $value)];
        }
        usort($values, static fn (array $a, array $b): int => [$b[3], $a[0]] <=> [$a[3], $b[0]]);

        return $values;
    }

    /** @return list<array{string, string, string, int|null}> */
    private static function states(string $verb, bool $negated): array
    {
        $states = [];
        foreach (State::cases() as $state) {
            if ($state->verb() === $verb) {
                $states[] = [$state->word(), $state->word().' ', $state->meaning(), null];
            }
        }
        if ($verb === 'is') {
            $states[] = ['newer than', 'newer than ', 'came after a view was kept', null];
        }

        return $negated
            ? $states
            : [...$states, $verb === 'is' ? ['not', 'not ', 'turns it around', null] : ['no', 'no ', 'turns it around', null]];
    }

    /** @return list<array{string, string, string, int|null}> */
    private function ownProperties(): array
    {
        $properties = [];
        foreach ($this->vocabulary->properties() as $name => $objects) {
            $properties[] = [(string) $name, Printer::word((string) $name).' ', 'a property of the file', $objects];
        }

        return $properties;
    }

    /** @return list<array{string, string, string, int|null}> */
    private function starts(): array
    {
        $starts = [];
        foreach (Field::cases() as $field) {
            $starts[] = ["$field->value:", "$field->value:", $field->meaning(), null];
        }
        foreach (Measure::cases() as $measure) {
            $starts[] = [$measure->value, "$measure->value > ", $measure->meaning(), null];
        }
        $starts[] = ['is', 'is ', 'a state: shown, hidden, locked, picked …', null];
        $starts[] = ['has', 'has ', 'children, textures, a property …', null];
        $starts[] = ['not', 'not ', 'turns the next condition around', null];
        foreach (Relation::cases() as $relation) {
            $starts[] = [$relation->value, "$relation->value (", $relation->meaning(), null];
        }
        foreach ($this->vocabulary->properties() as $name => $objects) {
            $property = Printer::property((string) $name);
            // What a field says already is not offered twice.
            if (Field::tryFrom(mb_strtolower((string) $name)) === null) {
                $starts[] = [$property === '"'.$name.'"' ? "$name:" : "$property:", "$property:", 'a property of the file', $objects];
            }
        }

        return $starts;
    }

    /**
     * @param list<array{0: string, 1: string, 2: string, 3: int|null, 4?: string}> $found label, text, meaning, objects, and for a value
     *     the whole condition
     *
     * @return list<Suggestion>
     */
    private function fitting(array $found, string $typed, int $at, int $length): array
    {
        $typed = mb_strtolower($typed);
        $starting = $holding = [];
        foreach ($found as $entry) {
            $place = $typed === '' ? 0 : mb_stripos($entry[0], $typed);
            if ($place !== false) {
                $place === 0 ? ($starting[] = $entry) : ($holding[] = $entry);
            }
        }
        $suggestions = [];
        foreach (array_slice([...$starting, ...$holding], 0, self::MOST) as $entry) {
            [$label, $insert, $meaning, $objects] = $entry;
            // What is offered with a value is what the rule then finds, nested layers and names that hold others included.
            $objects = isset($entry[4]) ? ($this->count)($entry[4]) : $objects;
            $suggestions[] = new Suggestion($label, $insert, $at, $length, $meaning, $objects, $entry[4] ?? '');
        }

        return $suggestions;
    }
}
