<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Levels;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Pick;
use VineShelf\Scene\Scene;

/**
 * Looking at some objects alone: they are at Full whatever holds them down, the rest is hidden or at most a ghost. Isolating again
 * goes one step deeper, going back one step out; nothing else on the desk changes.
 */
final readonly class Isolation
{
    /** @param list<array{Pick, Rung}> $steps objects, which count with all that they hold, and the rung of the rest; the deepest last */
    private function __construct(private array $steps) {}

    public static function none(): self
    {
        return new self([]);
    }

    public function isOn(): bool
    {
        return $this->steps !== [];
    }

    public function depth(): int
    {
        return count($this->steps);
    }

    /** The objects of the deepest step. */
    public function objects(): Pick
    {
        return $this->steps === [] ? Pick::of() : $this->steps[count($this->steps) - 1][0];
    }

    public function rest(): Rung
    {
        return $this->steps === [] ? Rung::Full : $this->steps[count($this->steps) - 1][1];
    }

    public function deeper(Pick $objects, Rung $rest): self
    {
        return new self([...array_slice($this->steps, -19), [$objects, $rest]]);
    }

    public function withRest(Rung $rest): self
    {
        return $this->steps === [] ? $this : new self([...array_slice($this->steps, 0, -1), [$this->objects(), $rest]]);
    }

    public function back(): self
    {
        return new self(array_slice($this->steps, 0, -1));
    }

    /** The rungs in effect while isolating. */
    public function over(Levels $rungs, Scene $scene): Levels
    {
        if ($this->steps === []) {
            return $rungs;
        }
        $full = Rung::Full->value;
        $rest = $rungs->lowest(Levels::constant($rungs->length, $full, $this->rest()->value));

        return $rest->except($this->objects()->withHeld($scene), Levels::constant($rungs->length, $full, $full));
    }

    public function pack(): string
    {
        $packed = '';
        foreach ($this->steps as [$objects, $rest]) {
            $bytes = $objects->pack();
            $packed .= pack('CV', $rest->value, strlen($bytes)).$bytes;
        }

        return $packed;
    }

    public static function unpack(string $packed): self
    {
        $steps = [];
        for ($at = 0; $at + 5 <= strlen($packed); $at += 5 + $size) {
            [$size] = Packed::uint32($packed, $at + 1, 1);
            $steps[] = [Pick::unpack(substr($packed, $at + 5, $size)), Rung::from(ord($packed[$at]))];
        }

        return new self($steps);
    }
}
