<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** How far a rule has been read, and where in its text its conditions stand. */
final class Reading
{
    private int $next = 0;

    /** @var \WeakMap<Node, array{int, int}> first character and length */
    public readonly \WeakMap $places;

    /** @param list<Token> $tokens the last one is the end */
    public function __construct(private readonly array $tokens)
    {
        $this->places = new \WeakMap;
    }

    /** Whether the word here is followed by an operator, so that it names a field. */
    public function isField(): bool
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
    public function placed(Node $node, Token $from, Token $to): Node
    {
        $this->places[$node] = [$from->at, $to->end() - $from->at];

        return $node;
    }

    public function here(): Token
    {
        return $this->tokens[$this->next];
    }

    public function after(): Token
    {
        return $this->tokens[$this->next + 1] ?? $this->tokens[$this->next];
    }

    public function take(): Token
    {
        $token = $this->tokens[$this->next];
        if ($token->kind !== TokenKind::End) {
            $this->next++;
        }

        return $token;
    }
}
