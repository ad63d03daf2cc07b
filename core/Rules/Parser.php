<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Facts\Measure;
use VineShelf\Scene\Kind;

/**
 * Reads a rule. The grammar, from loose to tight:
 *
 *     rule      = all { "or" all }
 *     all       = one { [ "and" ] one }
 *     one       = "not" one | ( "inside" | "holding" | "beside" ) one | "(" rule ")" | condition
 *     condition = field ( ":" | "=" | "!=" | "<" | "<=" | ">" | ">=" ) value
 *               | "is" [ "not" ] state | "is" [ "not" ] "newer" "than" view | "has" [ "no" ] ( thing | property )
 *               | words
 *
 * docs/rules.md describes it for people.
 */
final class Parser
{
    public const RESERVED = ['and', 'or', 'not', 'is', 'has', 'inside', 'holding', 'beside'];

    /** Other ways to write a measure. */
    public const ALIASES = ['depth-extent' => Measure::Length];

    private const DEEPEST = 100;

    /** Conditions, and words that lead to one, in a rule: more would keep a large model busy for seconds. */
    private const MOST = 120;

    private int $next = 0;

    private int $conditions = 0;

    private int $depth = 0;

    /** @var \WeakMap<Node, array{int, int}> */
    private \WeakMap $places;

    /** @param list<Token> $tokens */
    private function __construct(private readonly array $tokens)
    {
        $this->places = new \WeakMap;
    }

    /** @throws RuleError */
    public static function parse(string $text): Parsed
    {
        $parser = new self(Lexer::tokens($text));
        if ($parser->here()->kind === TokenKind::End) {
            throw RuleError::at($parser->here(), 'The rule is empty; write part of a name, or a condition like kind:part.');
        }
        $tree = $parser->any();
        $left = $parser->here();
        if ($left->kind === TokenKind::Close) {
            throw RuleError::at($left, 'This parenthesis closes nothing; take it out, or open one before it.');
        }
        if ($left->kind !== TokenKind::End) {
            throw RuleError::at($left, "“{$left->text}” belongs to nothing here; put words that hold it in quotes.");
        }

        return new Parsed($tree, $parser->places);
    }

    /** @phpstan-impure */
    private function any(): Node
    {
        $parts = [$this->all()];
        while ($this->here()->isWord('or')) {
            $this->take();
            $parts[] = $this->all();
        }

        return count($parts) === 1 ? $parts[0] : new AnyOf($parts);
    }

    private function all(): Node
    {
        $parts = [$this->one()];
        while (true) {
            $here = $this->here();
            if ($here->isWord('and')) {
                $this->take();
            } elseif (in_array($here->kind, [TokenKind::End, TokenKind::Close, TokenKind::Operator], true) || $here->isWord('or')) {
                return count($parts) === 1 ? $parts[0] : new AllOf($parts);
            }
            $parts[] = $this->one();
        }
    }

    private function one(): Node
    {
        $here = $this->here();
        if (++$this->depth > self::DEEPEST) {
            throw RuleError::at($here, 'Conditions are nested more than '.self::DEEPEST.' deep here; split the rule.');
        }
        if (++$this->conditions > self::MOST) {
            throw RuleError::at(
                $here,
                'A rule has at most '.self::MOST.' conditions; pick what the first ones find, then go on from the pick.',
            );
        }
        $node = match (true) {
            $here->kind === TokenKind::Open => $this->enclosed(),
            $here->kind === TokenKind::Word && ! $this->isField() => $this->fromWord($here),
            $here->kind === TokenKind::Word, $here->kind === TokenKind::Quoted => $this->condition(),
            default => throw $this->misplaced($here),
        };
        $this->depth--;

        return $node;
    }

    private function fromWord(Token $word): Node
    {
        return match (mb_strtolower($word->text)) {
            'not' => $this->negated(),
            'inside', 'holding', 'beside' => $this->related($word),
            'is' => $this->state(),
            'has' => $this->having(),
            'and', 'or' => throw $this->misplaced($word),
            default => $this->condition(),
        };
    }

    private function enclosed(): Node
    {
        $open = $this->take();
        if ($this->here()->kind === TokenKind::Close) {
            throw RuleError::at($this->here(), 'There is nothing between these parentheses; write a condition there.');
        }
        $node = $this->any();
        if ($this->here()->kind === TokenKind::Operator) {
            throw $this->misplaced($this->here());
        }
        if ($this->here()->kind !== TokenKind::Close) {
            throw RuleError::at($open, 'The parenthesis that opens here is never closed; put a ) at the end.');
        }
        $this->take();

        return $node;
    }

    private function negated(): NoneOf
    {
        $this->take();

        return new NoneOf($this->one());
    }

    private function related(Token $word): Related
    {
        $this->take();
        $next = $this->here();
        if ($next->kind === TokenKind::End || $next->kind === TokenKind::Close) {
            throw RuleError::at(
                $word,
                "After “{$word->text}” comes what it is {$word->text}, for example {$word->text} (layer:Stands). "
                    .'To look for the word itself, put it in quotes.',
            );
        }

        return new Related(Relation::from(mb_strtolower($word->text)), $this->one());
    }

    private function state(): Node
    {
        $verb = $this->take();
        $not = $this->here()->isWord('not');
        if ($not) {
            $this->take();
        }
        $word = $this->here();
        if ($word->isWord('newer')) {
            $node = $this->newer();
        } else {
            $state = $word->kind === TokenKind::Word ? State::named('is', $word->text) : null;
            if ($state === null) {
                $states = implode(
                    ', ',
                    array_map(
                        static fn (State $state): string => $state->word(),
                        array_filter(State::cases(), static fn (State $state): bool => $state->verb() === 'is'),
                    ),
                );
                throw RuleError::at(
                    $word->kind === TokenKind::End ? $verb : $word,
                    "After “is” comes one of: $states, newer than a view. To look for the word “is”, put it in quotes.",
                );
            }
            $this->take();
            $node = new StateIs($state);
        }

        return $not ? new NoneOf($node) : $node;
    }

    private function newer(): NewerThan
    {
        $this->take();
        if (! $this->here()->isWord('than')) {
            throw RuleError::at($this->here(), 'It is written: is newer than "the view\'s name".');
        }
        $this->take();
        $view = $this->here();
        if ($view->kind !== TokenKind::Word && $view->kind !== TokenKind::Quoted) {
            throw RuleError::at($view, 'After “is newer than” comes a view\'s name.');
        }
        $this->take();

        return $this->placed(new NewerThan($view->text), $view, $view);
    }

    private function having(): Node
    {
        $verb = $this->take();
        $not = $this->here()->isWord('no') && in_array($this->after()->kind, [TokenKind::Word, TokenKind::Quoted], true);
        if ($not) {
            $this->take();
        }
        $thing = $this->here();
        if ($thing->kind !== TokenKind::Word && $thing->kind !== TokenKind::Quoted) {
            throw RuleError::at(
                $thing->kind === TokenKind::End ? $verb : $thing,
                'After “has” comes geometry, material, textures, children, parent, class, properties, '
                    .'or the name of a property. To look for the word “has”, put it in quotes.',
            );
        }
        $this->take();
        $state = $thing->kind === TokenKind::Word ? State::named('has', $thing->text) : null;
        $node = $state !== null ? new StateIs($state) : $this->placed(new HasProperty($thing->text), $thing, $thing);

        return $not ? new NoneOf($node) : $node;
    }

    private function condition(): Node
    {
        $first = $this->take();
        if ($this->here()->kind !== TokenKind::Operator) {
            return $this->placed(
                new TextIs(Field::Name->value, TextTest::Has, $first->text, $first->kind === TokenKind::Quoted),
                $first,
                $first,
            );
        }
        $operator = $this->take();
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
        $value = $this->here();
        if ($value->kind !== TokenKind::Word && $value->kind !== TokenKind::Quoted) {
            throw RuleError::at(
                $value->kind === TokenKind::End ? $operator : $value,
                "After {$field->value}{$operator->text} comes {$field->meaning()}; quotes hold several words together.",
            );
        }
        $this->take();
        $node = $this->placed(new TextIs($field->value, $test, $value->text, $value->kind === TokenKind::Quoted), $value, $value);
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
        $value = $this->here();
        if ($test === null || ($value->kind === TokenKind::Word && str_contains($value->text, '..'))) {
            return $this->number($name->text, 0, $operator, true);
        }
        if ($value->kind !== TokenKind::Word && $value->kind !== TokenKind::Quoted) {
            throw RuleError::at(
                $value->kind === TokenKind::End ? $operator : $value,
                "After “{$name->text}” {$operator->text} comes a word, a number, or several words in quotes.",
            );
        }
        $this->take();

        return $this->placed(new TextIs($name->text, $test, $value->text, $value->kind === TokenKind::Quoted, true), $name, $value);
    }

    private function number(string $field, int $dimension, Token $operator, bool $isProperty): NumberIs
    {
        $value = $this->here();
        $like = ['1000', '1.5m', '', '0.2m3'][$dimension];
        if ($value->kind !== TokenKind::Word) {
            throw RuleError::at(
                $value->kind === TokenKind::End ? $operator : $value,
                "After {$field} {$operator->text} comes a number, for example $like, or a range like ".
                    ['100..500', '1m..2m', '', '1m3..2m3'][$dimension].
                    '.',
            );
        }
        $this->take();
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

            return $this->placed(
                new NumberIs($field, $operator->text === '!=' ? NumberTest::NotWithin : NumberTest::Within, $low, $high, $isProperty),
                $value,
                $value,
            );
        }
        $quantity = $this->quantity($value->text, $value, $dimension, $isProperty);
        $unit = $this->here();
        if (
            $quantity->unit === '' &&
            $unit->kind === TokenKind::Word &&
            $unit->apart &&
            isset(self::units($dimension)[$unit->text]) &&
            $dimension > 0
        ) {
            $quantity = new Quantity($quantity->digits, $this->take()->text);
        }
        $test = NumberTest::from($operator->text === ':' ? '=' : $operator->text);

        return $this->placed(new NumberIs($field, $test, $quantity, null, $isProperty), $value, $value);
    }

    private function quantity(string $text, Token $token, int $dimension, bool $isProperty): Quantity
    {
        if (preg_match('~^([+-]?(?:\d{1,15}(?:\.\d{1,12})?|\.\d{1,12}))(.*)$~s', $text, $found) !== 1) {
            throw RuleError::at(
                $token,
                "“{$text}” is not a number; write one like ".['1000 or 25k', '1.5m or 40mm', '', '0.2m3'][$dimension].'.',
            );
        }
        $units = $isProperty ? Quantity::MANY : self::units($dimension);
        if ($found[2] !== '' && ! isset($units[$found[2]])) {
            $known = implode(', ', array_keys($units));
            throw RuleError::at(
                $token,
                $isProperty
                    ? "“{$found[2]}” cannot be a unit here: a property's numbers are compared as the file has them."
                    : "“{$found[2]}” is not a unit here; units are $known.",
            );
        }

        return new Quantity($found[1], $found[2]);
    }

    /** @return array<string, float> */
    private static function units(int $dimension): array
    {
        return [Quantity::MANY, Quantity::UNITS, [], Quantity::VOLUMES][$dimension];
    }

    private function misplaced(Token $token): RuleError
    {
        return RuleError::at(
            $token,
            match (true) {
                $token->kind === TokenKind::End => 'The rule ends too early; a condition comes here.',
                $token->kind === TokenKind::Close => 'A condition comes before this parenthesis.',
                $token->kind === TokenKind::Operator => "What is “{$token->text}” to compare? "
                    .'Put a field before it, like name or triangles; words that hold it go in quotes.',
                default => "“{$token->text}” stands between two conditions; to look for the word itself, put it in quotes.",
            },
        );
    }

    /** Whether the word here is followed by an operator, so that it names a field. */
    private function isField(): bool
    {
        return $this->after()->kind === TokenKind::Operator;
    }

    /**
     * @template T of Node
     *
     * @param T $node
     *
     * @return T
     */
    private function placed(Node $node, Token $from, Token $to): Node
    {
        $this->places[$node] = [$from->at, $to->end() - $from->at];

        return $node;
    }

    private function here(): Token
    {
        return $this->tokens[$this->next];
    }

    private function after(): Token
    {
        return $this->tokens[$this->next + 1] ?? $this->tokens[$this->next];
    }

    private function take(): Token
    {
        $token = $this->tokens[$this->next];
        if ($token->kind !== TokenKind::End) {
            $this->next++;
        }

        return $token;
    }
}
