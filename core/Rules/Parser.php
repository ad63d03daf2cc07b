<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/**
 * Reads a rule. The grammar, from loose to tight:
 *
 *     rule      = all { "or" all }
 *     all       = one { [ "and" ] one }
 *     one       = "not" one | ( "inside" | "holding" | "beside" ) one | "(" rule ")" | condition
 *     condition = field ( ":" | "=" | "!=" | "<" | "<=" | ">" | ">=" ) value
 *               | "is" [ "not" ] state [ "in" view ] | "is" [ "not" ] "newer" "than" view | "in" "view" view
 *               | "has" [ "no" ] ( thing | property )
 *               | words
 *
 * docs/rules.md describes it for people.
 */
final class Parser
{
    public const RESERVED = ['and', 'or', 'not', 'is', 'has', 'inside', 'holding', 'beside', 'in'];

    private const DEEPEST = 100;

    /** Conditions, and words that lead to one, in a rule: more would keep a large model busy for seconds. */
    private const MOST = 120;

    private int $conditions = 0;

    private int $depth = 0;

    private readonly Comparisons $comparisons;

    private function __construct(private readonly Reading $reading)
    {
        $this->comparisons = new Comparisons($reading);
    }

    /** @throws RuleError */
    public static function parse(string $text): Parsed
    {
        $parser = new self(new Reading(Lexer::tokens($text)));
        if ($parser->reading->here()->kind === TokenKind::End) {
            throw RuleError::at($parser->reading->here(), 'The rule is empty; write part of a name, or a condition like kind:part.');
        }
        $tree = $parser->any();
        $left = $parser->reading->here();
        if ($left->kind === TokenKind::Close) {
            throw RuleError::at($left, 'This parenthesis closes nothing; take it out, or open one before it.');
        }
        if ($left->kind !== TokenKind::End) {
            throw RuleError::at($left, "“{$left->text}” belongs to nothing here; put words that hold it in quotes.");
        }

        return new Parsed($tree, $parser->reading->places);
    }

    /** @phpstan-impure */
    private function any(): Node
    {
        $parts = [$this->all()];
        while ($this->reading->here()->isWord('or')) {
            $this->reading->take();
            $parts[] = $this->all();
        }

        return count($parts) === 1 ? $parts[0] : new AnyOf($parts);
    }

    private function all(): Node
    {
        $parts = [$this->one()];
        while (true) {
            $here = $this->reading->here();
            if ($here->isWord('and')) {
                $this->reading->take();
            } elseif (in_array($here->kind, [TokenKind::End, TokenKind::Close, TokenKind::Operator], true) || $here->isWord('or')) {
                return count($parts) === 1 ? $parts[0] : new AllOf($parts);
            }
            $parts[] = $this->one();
        }
    }

    private function one(): Node
    {
        $here = $this->reading->here();
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
            $here->kind === TokenKind::Word && ! $this->reading->isField() => $this->fromWord($here),
            $here->kind === TokenKind::Word, $here->kind === TokenKind::Quoted => $this->comparisons->read(),
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
            'in' => $this->reading->after()->isWord('view') ? $this->inView() : $this->comparisons->read(),
            'and', 'or' => throw $this->misplaced($word),
            default => $this->comparisons->read(),
        };
    }

    private function enclosed(): Node
    {
        $open = $this->reading->take();
        if ($this->reading->here()->kind === TokenKind::Close) {
            throw RuleError::at($this->reading->here(), 'There is nothing between these parentheses; write a condition there.');
        }
        $node = $this->any();
        if ($this->reading->here()->kind === TokenKind::Operator) {
            throw $this->misplaced($this->reading->here());
        }
        if ($this->reading->here()->kind !== TokenKind::Close) {
            throw RuleError::at($open, 'The parenthesis that opens here is never closed; put a ) at the end.');
        }
        $this->reading->take();

        return $node;
    }

    private function negated(): NoneOf
    {
        $this->reading->take();

        return new NoneOf($this->one());
    }

    private function related(Token $word): Related
    {
        $this->reading->take();
        $next = $this->reading->here();
        if ($next->kind === TokenKind::End || $next->kind === TokenKind::Close) {
            throw RuleError::at(
                $word,
                "After “{$word->text}” comes what it is {$word->text}, for example {$word->text} (layer:Stands). ".
                    'To look for the word itself, put it in quotes.',
            );
        }

        return new Related(Relation::from(mb_strtolower($word->text)), $this->one());
    }

    private function state(): Node
    {
        $verb = $this->reading->take();
        $not = $this->reading->here()->isWord('not');
        if ($not) {
            $this->reading->take();
        }
        $word = $this->reading->here();
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
            $this->reading->take();
            $node =
                $this->reading->here()->isWord('in') && ($state === State::Shown || $state->rung() !== null)
                    ? $this->stateIn($state)
                    : new StateIs($state);
        }

        return $not ? new NoneOf($node) : $node;
    }

    private function newer(): NewerThan
    {
        $this->reading->take();
        if (! $this->reading->here()->isWord('than')) {
            throw RuleError::at($this->reading->here(), 'It is written: is newer than "the view\'s name".');
        }
        $this->reading->take();
        $view = $this->view('is newer than');

        return $this->reading->placed(new NewerThan($view->text), $view, $view);
    }

    private function inView(): IsInView
    {
        $this->reading->take();
        $this->reading->take();
        $view = $this->view('in view');

        return $this->reading->placed(new IsInView($view->text), $view, $view);
    }

    private function stateIn(State $state): IsInView
    {
        $this->reading->take();
        $view = $this->view($state->value.' in');

        return $this->reading->placed(new IsInView($view->text, $state), $view, $view);
    }

    private function view(string $after): Token
    {
        $view = $this->reading->here();
        if ($view->kind !== TokenKind::Word && $view->kind !== TokenKind::Quoted) {
            throw RuleError::at($view, "After “{$after}” comes a view's name.");
        }

        return $this->reading->take();
    }

    private function having(): Node
    {
        $verb = $this->reading->take();
        $not = $this->reading->here()->isWord('no') && in_array($this->reading->after()->kind, [TokenKind::Word, TokenKind::Quoted], true);
        if ($not) {
            $this->reading->take();
        }
        $thing = $this->reading->here();
        if ($thing->kind !== TokenKind::Word && $thing->kind !== TokenKind::Quoted) {
            throw RuleError::at(
                $thing->kind === TokenKind::End ? $verb : $thing,
                'After “has” comes geometry, material, textures, children, parent, class, properties, '.
                    'or the name of a property. To look for the word “has”, put it in quotes.',
            );
        }
        $this->reading->take();
        $state = $thing->kind === TokenKind::Word ? State::named('has', $thing->text) : null;
        $node = $state !== null ? new StateIs($state) : $this->reading->placed(new HasProperty($thing->text), $thing, $thing);

        return $not ? new NoneOf($node) : $node;
    }

    private function misplaced(Token $token): RuleError
    {
        return RuleError::at(
            $token,
            match (true) {
                $token->kind === TokenKind::End => 'The rule ends too early; a condition comes here.',
                $token->kind === TokenKind::Close => 'A condition comes before this parenthesis.',
                $token->kind === TokenKind::Operator => "What is “{$token->text}” to compare? ".
                    'Put a field before it, like name or triangles; words that hold it go in quotes.',
                default => "“{$token->text}” stands between two conditions; to look for the word itself, put it in quotes.",
            },
        );
    }
}
