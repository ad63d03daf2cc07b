<?php

declare(strict_types=1);

namespace VineShelf\Search;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** Finds names by any part of them, at memory speed: all names stand in one lower-case text, one line per row. */
final class NameIndex
{
    /**
     * @param list<string> $names by row, entry 0 unused
     *
     * @return array<string, string> packed column by name
     */
    public static function columns(array $names): array
    {
        $text = '';
        $offsets = [];
        foreach ($names as $name) {
            $offsets[] = strlen($text);
            $text .= self::line($name);
        }

        return ['names' => $text, 'nameAt' => pack('V*', ...$offsets, ...[strlen($text)])];
    }

    /** @return array<string, string> the columns with one row's name changed */
    public static function renamed(Scene $scene, int $row, string $name): array
    {
        $text = $scene->column('names');
        $offsets = $scene->column('nameAt');
        $start = Packed::uint32At($offsets, $row);
        $end = Packed::uint32At($offsets, $row + 1);
        $line = self::line($name);
        $longer = strlen($line) - ($end - $start);
        $after = [];
        foreach (Packed::uint32($offsets, ($row + 1) * 4, intdiv(strlen($offsets), 4) - $row - 1) as $offset) {
            $after[] = $offset + $longer;
        }

        return [
            'names' => substr_replace($text, $line, $start, $end - $start),
            'nameAt' => substr($offsets, 0, ($row + 1) * 4).pack('V*', ...$after),
        ];
    }

    /**
     * @param array<int, string> $names new names by row
     *
     * @return array<string, string> the columns with many names changed
     */
    public static function renamedMany(Scene $scene, array $names): array
    {
        $lines = explode("\n", $scene->column('names'));
        foreach ($names as $row => $name) {
            $lines[$row] = substr(self::line($name), 0, -1);
        }
        $offsets = [0];
        $at = 0;
        for ($row = 0, $count = $scene->count(); $row <= $count; $row++) {
            $offsets[] = $at += strlen($lines[$row]) + 1;
        }

        return ['names' => implode("\n", $lines), 'nameAt' => pack('V*', ...$offsets)];
    }

    private static function line(string $name): string
    {
        return strtr(mb_strtolower($name), "\n\r", '  ')."\n";
    }

    /**
     * Case does not matter, accents do. Several words must all be in the name.
     *
     * @return list<int> rows, ascending
     */
    public static function find(Scene $scene, string $words): array
    {
        $needles = preg_split('~\s+~u', trim(mb_strtolower($words)), -1, PREG_SPLIT_NO_EMPTY) ?: [];
        usort($needles, static fn (string $a, string $b): int => strlen($b) <=> strlen($a));
        $first = array_shift($needles);
        if ($first === null) {
            return [];
        }
        $text = $scene->column('names');
        $offsets = $scene->column('nameAt');
        $rows = [];
        $count = $scene->count();
        $row = 0;
        $at = Packed::uint32At($offsets, 1);
        while (($found = strpos($text, $first, $at)) !== false) {
            $row = self::rowAt($offsets, $found, $row, $count);
            $start = Packed::uint32At($offsets, $row);
            $end = Packed::uint32At($offsets, $row + 1);
            $matches = true;
            if ($needles !== []) {
                $name = substr($text, $start, $end - $start);
                foreach ($needles as $needle) {
                    $matches = $matches && str_contains($name, $needle);
                }
            }
            if ($matches) {
                $rows[] = $row;
            }
            $at = $end;
            if ($row >= $count) {
                break;
            }
        }

        return $rows;
    }

    /** The rows whose names hold the text. @param string $lower in lower case, on one line */
    public static function having(Scene $scene, string $lower): Bits
    {
        if ($lower === '') {
            return Bits::all($scene->count());
        }
        // Between two places where the text stands, the ends of lines tell how many rows lie between them.
        $rows = [];
        $row = 0;
        $pieces = explode($lower, $scene->column('names'));
        array_pop($pieces);
        foreach ($pieces as $piece) {
            if ($piece !== '') {
                $row += substr_count($piece, "\n");
            }
            $rows[] = $row;
        }

        return Bits::ofRows($scene->count(), $rows);
    }

    /** The rows whose names are the text. @param string $lower in lower case, on one line */
    public static function being(Scene $scene, string $lower): Bits
    {
        $rows = [];
        $row = 0;
        $pieces = explode("\n$lower", $scene->column('names'));
        $after = count($pieces) - 1;
        for ($at = 0; $at < $after; $at++) {
            $row += substr_count($pieces[$at], "\n") + 1;
            $next = $pieces[$at + 1];
            // What follows is the end of the line, or the same name once more.
            if ($row <= $scene->count() && ($next === '' ? $at + 1 < $after : $next[0] === "\n")) {
                $rows[] = $row;
            }
        }

        return Bits::ofRows($scene->count(), $rows);
    }

    /** The rows whose names start with the text. @param string $lower in lower case, on one line */
    public static function starting(Scene $scene, string $lower): Bits
    {
        $rows = [];
        $row = 0;
        $pieces = explode("\n$lower", $scene->column('names'));
        array_pop($pieces);
        foreach ($pieces as $piece) {
            $row += substr_count($piece, "\n") + 1;
            if ($row <= $scene->count()) {
                $rows[] = $row;
            }
        }

        return Bits::ofRows($scene->count(), $rows);
    }

    /**
     * The rows whose names fit a regular expression in which ^ and $ stand for the ends of a line; it must fit whole lines.
     *
     * Should PHP give up on the whole text, each name is looked at by itself: a search that was cut short must not look like one that found
     * nothing.
     */
    public static function like(Scene $scene, string $expression): Bits
    {
        $text = $scene->column('names');
        $offsets = $scene->column('nameAt');
        $rows = [];
        $row = 0;
        $count = $scene->count();
        $at = 1;
        $end = strlen($text) - 1;
        while ($at < $end + 1) {
            $fits = @preg_match($expression, $text, $found, PREG_OFFSET_CAPTURE, $at);
            if ($fits === false) {
                return self::likeOneByOne($scene, $expression);
            }
            if ($fits === 0 || $found[0][1] > $end) {
                break;
            }
            $row = self::rowAt($offsets, $found[0][1], $row, $count);
            $rows[] = $row;
            $at = Packed::uint32At($offsets, $row + 1);
        }

        return Bits::ofRows($count, $rows);
    }

    /** Whether one line fits an expression. @throws \RuntimeException when PHP gives up on it */
    public static function matches(string $expression, string $line): bool
    {
        $fits = @preg_match($expression, $line);

        return $fits === false ? throw new \RuntimeException('A pattern cannot be matched: '.preg_last_error_msg()) : $fits === 1;
    }

    private static function likeOneByOne(Scene $scene, string $expression): Bits
    {
        $rows = [];
        foreach (explode("\n", $scene->column('names')) as $row => $name) {
            if ($row > 0 && $row <= $scene->count() && self::matches($expression, $name)) {
                $rows[] = $row;
            }
        }

        return Bits::ofRows($scene->count(), $rows);
    }

    private static function rowAt(string $offsets, int $position, int $low, int $high): int
    {
        // Hits are near each other more often than not: gallop before halving.
        $step = 1;
        while ($low + $step <= $high && Packed::uint32At($offsets, $low + $step) <= $position) {
            $low += $step;
            $step *= 2;
        }
        $high = min($high, $low + $step);
        while ($low < $high) {
            $middle = ($low + $high + 1) >> 1;
            if (Packed::uint32At($offsets, $middle) <= $position) {
                $low = $middle;
            } else {
                $high = $middle - 1;
            }
        }

        return $low;
    }

    /** A name without the number at its end: "seat_shell_017" and "seat_shell_1" are both "seat_shell". */
    public static function stem(string $name): string
    {
        $stem = (string) preg_replace('~[\s._#(\[-]*\d+[)\]]?$~D', '', $name);

        return $stem === '' ? $name : $stem;
    }
}
