<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/**
 * A set of scene rows as one bit each: row r is bit r & 7 of byte r >> 3, and bit 0 belongs to no row.
 *
 * PHP's `& | ^ ~` work on whole strings at memory speed, so putting sets of 200,000 rows together takes microseconds.
 */
final readonly class Bits
{
    private function __construct(public int $length, public string $bytes) {}

    public static function none(int $length): self
    {
        return new self($length, str_repeat("\0", ($length >> 3) + 1));
    }

    public static function all(int $length): self
    {
        return $length === 0 ? self::none(0) : self::ofRanges($length, [[1, $length]]);
    }

    /**
     * @internal for what computes on the bytes directly
     *
     * @param string $bytes ($length >> 3) + 1 bytes, without bits beyond the length
     */
    public static function ofBytes(int $length, string $bytes): self
    {
        return new self($length, $bytes);
    }

    /** @param iterable<array{int, int}> $ranges first and last row of each range, ascending; they may touch or overlap */
    public static function ofRanges(int $length, iterable $ranges): self
    {
        $bytes = '';
        $at = 0;
        $open = 0;
        foreach ($ranges as [$first, $last]) {
            $from = $first >> 3;
            $to = $last >> 3;
            if ($from > $at) {
                $bytes .= chr($open).str_repeat("\0", $from - $at - 1);
                $at = $from;
                $open = 0;
            }
            if ($to < $at) {
                continue;
            }
            $start = $from < $at ? 0 : $first & 7;
            if ($to === $at) {
                $open |= (0xff << $start) & ((2 << ($last & 7)) - 1) & 0xff;

                continue;
            }
            $bytes .= chr(($open | (0xff << $start)) & 0xff).str_repeat("\xFF", $to - $at - 1);
            $at = $to;
            $open = (2 << ($last & 7)) - 1;
        }

        return new self($length, str_pad($bytes.chr($open), ($length >> 3) + 1, "\0"));
    }

    /** @param list<int> $rows ascending; repeats do no harm */
    public static function ofRows(int $length, array $rows): self
    {
        $bytes = '';
        $at = 0;
        $open = 0;
        foreach ($rows as $row) {
            $byte = $row >> 3;
            if ($byte !== $at) {
                $bytes .= chr($open);
                if ($byte > $at + 1) {
                    $bytes .= str_repeat("\0", $byte - $at - 1);
                }
                $at = $byte;
                $open = 0;
            }
            $open |= 1 << ($row & 7);
        }

        return new self($length, str_pad($bytes.chr($open), ($length >> 3) + 1, "\0"));
    }

    /**
     * @param string $mask one byte per row, byte 0 for none: the rows whose byte is 1; no byte may be above 1
     */
    public static function ofMask(int $length, string $mask): self
    {
        $bytes = strtr(str_pad($mask, (($length >> 3) + 1) << 3, "\0"), self::gathering());

        return new self($length, $bytes);
    }

    /** One byte per row, byte 0 for none: 255 in the rows of the set, 0 elsewhere. */
    public function mask(): string
    {
        return substr(strtr($this->bytes, self::spreading()), 0, $this->length + 1);
    }

    /**
     * PHP's own strtr goes through a set three times as fast as a loop does.
     *
     * @return array<array-key, string> eight bytes, 255 or 0, for the eight bits of every byte
     */
    private static function spreading(): array
    {
        /** @var array<array-key, string> $eights */
        static $eights = [];
        for ($byte = count($eights); $byte < 256; $byte++) {
            $eights[chr($byte)] = strtr(strrev(sprintf('%08b', $byte)), '01', "\0\xFF");
        }

        return $eights;
    }

    /** @return array<array-key, string> a byte for every eight bytes that are 1 or 0 */
    private static function gathering(): array
    {
        /** @var array<array-key, string> $bytes */
        static $bytes = [];
        for ($byte = count($bytes); $byte < 256; $byte++) {
            $bytes[strtr(strrev(sprintf('%08b', $byte)), '01', "\0\1")] = chr($byte);
        }

        return $bytes;
    }

    public function and(self $other): self
    {
        return new self($this->length, $this->bytes & $other->bytes);
    }

    public function or(self $other): self
    {
        return new self($this->length, $this->bytes | $other->bytes);
    }

    public function without(self $other): self
    {
        return new self($this->length, $this->bytes & ~$other->bytes);
    }

    /** Both sets together, also when one reaches further than the other. */
    public function with(self $other): self
    {
        return $this->length >= $other->length
            ? new self($this->length, $this->bytes | $other->bytes)
            : new self($other->length, $this->bytes | $other->bytes);
    }

    /** This set without the other, also when one reaches further than the other. */
    public function less(self $other): self
    {
        return new self($this->length, $this->bytes & ~str_pad($other->bytes, strlen($this->bytes), "\0"));
    }

    /** What both sets have, also when one reaches further than the other. */
    public function shared(self $other): self
    {
        return new self($this->length, str_pad($this->bytes & $other->bytes, strlen($this->bytes), "\0"));
    }

    public function not(): self
    {
        if ($this->length === 0) {
            return $this;
        }
        $bytes = ~$this->bytes;
        $bytes[0] = chr(ord($bytes[0]) & 0xfe);
        $last = $this->length >> 3;
        $bytes[$last] = chr(ord($bytes[$last]) & ((2 << ($this->length & 7)) - 1) & 0xff);

        return new self($this->length, $bytes);
    }

    public function has(int $row): bool
    {
        return ((ord($this->bytes[$row >> 3]) >> ($row & 7)) & 1) === 1;
    }

    public function isEmpty(): bool
    {
        return strspn($this->bytes, "\0") === strlen($this->bytes);
    }

    public function count(): int
    {
        return self::counted($this->bytes);
    }

    /** @return list<int> the rows, ascending */
    public function rows(): array
    {
        return $this->slice(0, PHP_INT_MAX);
    }

    /**
     * Some of the rows in their order.
     *
     * @param int $offset how many rows to pass over
     *
     * @return list<int>
     */
    public function slice(int $offset, int $count): array
    {
        $rows = [];
        $bytes = $this->bytes;
        $size = strlen($bytes);
        $at = 0;
        while ($offset > 0 && $at + 1024 < $size && ($here = self::counted(substr($bytes, $at, 1024))) <= $offset) {
            $offset -= $here;
            $at += 1024;
        }
        $left = $count;
        while ($left > 0 && ($at += strspn($bytes, "\0", $at)) < $size) {
            $byte = ord($bytes[$at]);
            for ($bit = 0; $byte !== 0; $bit++, $byte >>= 1) {
                if (($byte & 1) === 0 || $offset-- > 0) {
                    continue;
                }
                if ($left-- <= 0) {
                    break;
                }
                $rows[] = ($at << 3) + $bit;
            }
            $at++;
        }

        return $rows;
    }

    /** How many of the rows are from $first to $last. */
    public function countBetween(int $first, int $last): int
    {
        $from = $first >> 3;
        $bytes = substr($this->bytes, $from, ($last >> 3) - $from + 1);
        if ($bytes === '') {
            return 0;
        }
        $bytes[0] = chr(ord($bytes[0]) & (0xff << ($first & 7)) & 0xff);
        $end = strlen($bytes) - 1;
        $bytes[$end] = chr(ord($bytes[$end]) & ((2 << ($last & 7)) - 1) & 0xff);

        return self::counted($bytes);
    }

    /** @return list<int> a few of the rows from all over, ascending; none only where there are none */
    public function some(int $most): array
    {
        $rows = [];
        $length = strlen($this->bytes);
        $stride = max(1, intdiv($length, max(1, $most)));
        for ($from = 0; $from < $length; $from = max($at + 1, $from + $stride)) {
            $at = $from + strspn($this->bytes, "\0", $from);
            if ($at >= $length) {
                break;
            }
            for ($bit = 0, $byte = ord($this->bytes[$at]); $bit < 8; $bit++) {
                if (($byte >> $bit) & 1) {
                    $rows[] = ($at << 3) | $bit;
                    break;
                }
            }
        }

        return $rows;
    }

    /** How many of the rows are before $row. */
    public function rank(int $row): int
    {
        $whole = $row >> 3;
        $rest = ord($this->bytes[$whole]) & ((1 << ($row & 7)) - 1);

        return self::counted(substr($this->bytes, 0, $whole)) + self::counted(chr($rest));
    }

    /** @return list<array{int, int}> first and last row of each stretch of rows */
    public function ranges(): array
    {
        $ranges = [];
        $first = 0;
        $bytes = $this->bytes;
        $size = strlen($bytes);
        for ($at = 0; $at < $size; $at++) {
            $byte = ord($bytes[$at]);
            if ($byte === 0) {
                if ($first > 0) {
                    $ranges[] = [$first, ($at << 3) - 1];
                    $first = 0;
                }
                $at += strspn($bytes, "\0", $at) - 1;
            } elseif ($byte === 255) {
                $first = $first ?: $at << 3;
                $at += strspn($bytes, "\xFF", $at) - 1;
            } else {
                for ($bit = 0; $bit < 8; $bit++) {
                    if ((($byte >> $bit) & 1) === 1) {
                        $first = $first ?: ($at << 3) + $bit;
                    } elseif ($first > 0) {
                        $ranges[] = [$first, ($at << 3) + $bit - 1];
                        $first = 0;
                    }
                }
            }
        }
        if ($first > 0) {
            $ranges[] = [$first, $this->length];
        }

        return $ranges;
    }

    /** How many bits of the bytes are set. */
    public static function counted(string $bytes): int
    {
        /** @var list<int> $ones */
        static $ones = [];
        for ($byte = count($ones); $byte < 256; $byte++) {
            $ones[] = $byte === 0 ? 0 : $ones[$byte >> 1] + ($byte & 1);
        }
        $count = 0;
        /** @var array<int, int> $seen */
        $seen = count_chars($bytes, 1);
        foreach ($seen as $byte => $times) {
            $count += $ones[$byte] * $times;
        }

        return $count;
    }
}
