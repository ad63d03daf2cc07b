<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/**
 * Cuts a rule into words, quoted words, operators and parentheses. A backslash inside quotes takes the next character as it is.
 */
final class Lexer
{
    public const LONGEST = 4000;

    private const TOKEN = '~(?<space>\s+)|(?<quoted>"(?:[^"\\\\]|\\\\.)*+(?<closed>")?)|(?<operator><=|>=|!=|[:=<>])'
        .'|(?<open>\()|(?<close>\))|(?<word>(?:[^\s"():=<>!]|!(?!=))+)~us';

    /**
     * @return list<Token> the last one is the end
     *
     * @throws RuleError
     */
    public static function tokens(string $text): array
    {
        if (! mb_check_encoding($text, 'UTF-8')) {
            throw new RuleError('The rule is not written in UTF-8.', 0, 1);
        }
        $length = mb_strlen($text);
        if ($length > self::LONGEST) {
            throw new RuleError(
                'A rule has at most '.number_format(self::LONGEST).' characters; this one has '.number_format($length).'.',
                self::LONGEST,
                $length - self::LONGEST,
            );
        }
        preg_match_all(self::TOKEN, $text, $found, PREG_SET_ORDER | PREG_UNMATCHED_AS_NULL);
        $tokens = [];
        $at = 0;
        $apart = false;
        foreach ($found as $match) {
            $size = mb_strlen((string) $match[0]);
            if ($match['space'] === null) {
                if ($match['quoted'] !== null && $match['closed'] === null) {
                    throw new RuleError('The quotes that open here are never closed; put a " at the end of the name.', $at, $size);
                }
                $tokens[] = match (true) {
                    $match['quoted'] !== null => new Token(
                        TokenKind::Quoted,
                        (string) preg_replace('~\\\\(.)~us', '$1', mb_substr($match['quoted'], 1, -1)),
                        $at,
                        $size,
                        $apart,
                    ),
                    $match['operator'] !== null => new Token(TokenKind::Operator, $match['operator'], $at, $size, $apart),
                    $match['open'] !== null => new Token(TokenKind::Open, '(', $at, $size, $apart),
                    $match['close'] !== null => new Token(TokenKind::Close, ')', $at, $size, $apart),
                    default => new Token(TokenKind::Word, (string) $match['word'], $at, $size, $apart),
                };
            }
            $apart = $match['space'] !== null;
            $at += $size;
        }
        $tokens[] = new Token(TokenKind::End, '', $at, 1, $apart);

        return $tokens;
    }
}
