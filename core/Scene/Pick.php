<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/**
 * Some objects, by number: those that are selected now, parked, or looked at alone.
 *
 * A few are kept in the order in which they were picked, which new names may count by; many are kept as one bit each, so that a pick of
 * a hundred thousand costs little more than a pick of one.
 */
final readonly class Pick
{
    private const MOST_IN_ORDER = 2000;

    /** The first byte of the zlib format, which never begins what is packed in order. */
    private const PACKED_BITS = "\x78";

    /**
     * @param array<int, int>|null $numbers object number by itself, in the order of picking; null for many
     * @param string               $bytes   many: object n is bit n & 7 of byte n >> 3
     */
    private function __construct(private ?array $numbers, private string $bytes, private int $count) {}

    /** @param iterable<int> $numbers */
    public static function of(iterable $numbers = []): self
    {
        $picked = [];
        foreach ($numbers as $number) {
            $picked[$number] = $number;
        }

        return self::made($picked);
    }

    /** @param Bits $numbers one bit per object number */
    public static function ofBits(Bits $numbers): self
    {
        $count = $numbers->count();
        if ($count <= self::MOST_IN_ORDER) {
            $rows = $numbers->rows();

            return new self(array_combine($rows, $rows), '', $count);
        }

        return new self(null, $numbers->bytes, $count);
    }

    /** @return list<int> in the order of picking where it is kept, else ascending */
    public function numbers(): array
    {
        return $this->numbers !== null ? array_values($this->numbers) : $this->bits()->rows();
    }

    public function has(int $number): bool
    {
        return $this->numbers !== null
            ? isset($this->numbers[$number])
            : $number > 0 && $number >> 3 < strlen($this->bytes) && $this->bits()->has($number);
    }

    public function count(): int
    {
        return $this->count;
    }

    /** One bit per object number. */
    public function bits(): Bits
    {
        if ($this->numbers === null) {
            return Bits::ofBytes((strlen($this->bytes) << 3) - 1, $this->bytes);
        }
        $numbers = $this->numbers;
        sort($numbers);

        return Bits::ofRows($numbers === [] ? 0 : $numbers[count($numbers) - 1], $numbers);
    }

    /** Rows of the objects, as far as the scene has them. */
    public function rows(Scene $scene): Bits
    {
        return $this->numbers !== null ? Bits::ofRows($scene->count(), $scene->rowsOf($this->numbers)) : $scene->rowBits($this->bits());
    }

    /** Rows of the objects and of everything that they hold. */
    public function withHeld(Scene $scene): Bits
    {
        return Relatives::within($scene, $this->rows($scene));
    }

    /** @param iterable<int> $numbers */
    public function with(iterable $numbers): self
    {
        if ($this->numbers === null) {
            return $this->withBits(self::of($numbers)->bits());
        }
        $picked = $this->numbers;
        foreach ($numbers as $number) {
            $picked[$number] = $number;
        }

        return self::made($picked);
    }

    /** @param iterable<int> $numbers */
    public function without(iterable $numbers): self
    {
        if ($this->numbers === null) {
            return $this->withoutBits(self::of($numbers)->bits());
        }
        $picked = $this->numbers;
        foreach ($numbers as $number) {
            unset($picked[$number]);
        }

        return self::made($picked);
    }

    /** @param Bits $numbers one bit per object number */
    public function withBits(Bits $numbers): self
    {
        $bytes = $this->bits()->bytes;
        $size = max(strlen($bytes), strlen($numbers->bytes));

        return self::ofBits(Bits::ofBytes(($size << 3) - 1, str_pad($bytes, $size, "\0") | str_pad($numbers->bytes, $size, "\0")));
    }

    /** @param Bits $numbers one bit per object number */
    public function withoutBits(Bits $numbers): self
    {
        $bytes = $this->bits()->bytes;

        return self::ofBits(Bits::ofBytes((strlen($bytes) << 3) - 1, $bytes & ~str_pad($numbers->bytes, strlen($bytes), "\0")));
    }

    public function pack(): string
    {
        return match (true) {
            $this->count === 0 => '',
            $this->numbers === null => (string) gzcompress($this->bytes, 1),
            default => (string) gzdeflate(pack('V*', ...$this->numbers), 1),
        };
    }

    public static function unpack(string $packed): self
    {
        if (str_starts_with($packed, self::PACKED_BITS)) {
            $bytes = (string) @gzuncompress($packed);

            return self::ofBits(Bits::ofBytes(max(0, (strlen($bytes) << 3) - 1), $bytes === '' ? "\0" : $bytes));
        }
        $raw = $packed === '' ? '' : (string) @gzinflate($packed);

        return self::of(Packed::uint32($raw, 0, intdiv(strlen($raw), 4)));
    }

    /** @param array<int, int> $picked */
    private static function made(array $picked): self
    {
        if (count($picked) <= self::MOST_IN_ORDER) {
            return new self($picked, '', count($picked));
        }
        $numbers = array_values($picked);
        sort($numbers);

        return self::ofBits(Bits::ofRows($numbers[count($numbers) - 1], $numbers));
    }
}
