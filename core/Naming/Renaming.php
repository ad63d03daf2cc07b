<?php

declare(strict_types=1);

namespace VineShelf\Naming;

/**
 * How many objects get new names at once: find and replace, or a pattern, then what goes before and after.
 *
 * A pattern may hold `{name}`, `{number}`, `{layer}`, `{parent}` and `{kind}`; numbers count up in the order of the objects.
 */
final readonly class Renaming
{
    public const PLACES = ['{name}', '{number}', '{layer}', '{parent}', '{kind}'];

    public const LONGEST = 500;

    /**
     * @param string $find    part of the name, with * and ? as wildcards; empty to leave the name as it is
     * @param string $replace what stands there instead; $1, $2 are what the wildcards stood for
     * @param string $pattern a whole new name; empty to keep the name
     * @param int    $digits  at least this many digits in a number, 1 to 9
     */
    public function __construct(
        public string $find = '',
        public string $replace = '',
        public string $pattern = '',
        public string $prefix = '',
        public string $suffix = '',
        public int $start = 1,
        public int $step = 1,
        public int $digits = 1,
    ) {}

    /**
     * @param int $index place of the object among those that are renamed, from 0
     */
    public function of(string $name, int $index, string $layer, string $parent, string $kind): string
    {
        $number = (string) ($this->start + $index * $this->step);
        $number = (str_starts_with($number, '-') ? '-' : '').str_pad(ltrim($number, '-'), $this->digits, '0', STR_PAD_LEFT);
        $values = [$this->found($name), $number, $layer, $parent, $kind];
        $new = $this->pattern === '' ? $values[0] : self::filled($this->pattern, $values);

        return trim(
            (string) preg_replace('~\s+~u', ' ', self::filled($this->prefix, $values).$new.self::filled($this->suffix, $values)),
        );
    }

    /** @param array{string, string, string, string, string} $values */
    private static function filled(string $pattern, array $values): string
    {
        return strtr($pattern, array_combine(self::PLACES, $values));
    }

    private function found(string $name): string
    {
        if ($this->find === '') {
            return $name;
        }
        $hasWildcards = strpbrk($this->find, '*?') !== false;
        $expression = '~'.strtr(preg_quote($this->find, '~'), ['\*' => '(.*)', '\?' => '(.)']).'~iu';

        return (string) preg_replace_callback(
            $expression,
            function (array $parts): string {
                return (string) preg_replace_callback(
                    '~\$(\d)~',
                    static fn (array $which): string => $parts[(int) $which[1]] ?? '',
                    $this->replace,
                );
            },
            $name,
            $hasWildcards ? 1 : -1,
        );
    }
}
