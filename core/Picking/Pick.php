<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Scene\Packed;

/** The objects selected now, by number. */
final readonly class Pick
{
    /** @param array<int, int> $numbers object number by itself, in the order of picking */
    private function __construct(private array $numbers) {}

    /** @param iterable<int> $numbers */
    public static function of(iterable $numbers = []): self
    {
        $picked = [];
        foreach ($numbers as $number) {
            $picked[$number] = $number;
        }

        return new self($picked);
    }

    /** @return list<int> */
    public function numbers(): array
    {
        return array_values($this->numbers);
    }

    public function has(int $number): bool
    {
        return isset($this->numbers[$number]);
    }

    public function count(): int
    {
        return count($this->numbers);
    }

    /** @param iterable<int> $numbers */
    public function with(iterable $numbers): self
    {
        $picked = $this->numbers;
        foreach ($numbers as $number) {
            $picked[$number] = $number;
        }

        return new self($picked);
    }

    /** @param iterable<int> $numbers */
    public function without(iterable $numbers): self
    {
        $picked = $this->numbers;
        foreach ($numbers as $number) {
            unset($picked[$number]);
        }

        return new self($picked);
    }

    public function pack(): string
    {
        return $this->numbers === [] ? '' : (string) gzdeflate(pack('V*', ...$this->numbers), 1);
    }

    public static function unpack(string $packed): self
    {
        $raw = $packed === '' ? '' : (string) @gzinflate($packed);

        return self::of(Packed::uint32($raw, 0, intdiv(strlen($raw), 4)));
    }
}
