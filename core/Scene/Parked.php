<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** Nine slots in which a person parks picks to recall them. */
final readonly class Parked
{
    public const SLOTS = 9;

    /** @param array<int, Pick> $picks by slot, from 1; only those that hold something */
    private function __construct(private array $picks) {}

    public function pick(int $slot): Pick
    {
        return $this->picks[$slot] ?? Pick::of();
    }

    /** An empty pick clears the slot. */
    public function with(int $slot, Pick $pick): self
    {
        if ($slot < 1 || $slot > self::SLOTS) {
            throw new \OutOfRangeException("There is no slot $slot.");
        }
        $picks = $this->picks;
        unset($picks[$slot]);

        return new self($pick->count() === 0 ? $picks : [$slot => $pick] + $picks);
    }

    public function pack(): string
    {
        $packed = '';
        foreach ($this->picks as $slot => $pick) {
            $bytes = $pick->pack();
            $packed .= pack('CV', $slot, strlen($bytes)).$bytes;
        }

        return $packed;
    }

    public static function unpack(string $packed): self
    {
        $picks = [];
        for ($at = 0; $at + 5 <= strlen($packed); $at += 5 + $size) {
            [$size] = Packed::uint32($packed, $at + 1, 1);
            $picks[ord($packed[$at])] = Pick::unpack(substr($packed, $at + 5, $size));
        }

        return new self($picks);
    }
}
