<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Bits;
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
    /** Added to the rung of the rest where the objects count without what they hold. */
    private const EXACTLY = 128;

    /** @param list<array{Pick, Rung, bool}> $steps objects, rung of the rest, whether what they hold is not meant; the deepest last */
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

    /** Rows of what is isolated in the deepest step. */
    public function rows(Scene $scene): Bits
    {
        return $this->isExact() ? $this->objects()->rows($scene) : $this->objects()->withHeld($scene);
    }

    /**
     * Whether what stands in groups is shown alone with them.
     *
     * @param list<int> $groups numbers
     */
    public function reachesInto(array $groups): bool
    {
        return ! $this->isExact() && array_filter($groups, $this->objects()->has(...)) !== [];
    }

    /**
     * The same with other objects in each step that reaches what its objects hold; itself where those stay.
     *
     * @param \Closure(Pick): Pick $other
     */
    public function reaching(\Closure $other): self
    {
        $steps = [];
        foreach ($this->steps as [$objects, $rest, $exactly]) {
            $steps[] = [$exactly ? $objects : $other($objects), $rest, $exactly];
        }

        return $steps === $this->steps ? $this : new self($steps);
    }

    private function isExact(): bool
    {
        return $this->steps !== [] && $this->steps[count($this->steps) - 1][2];
    }

    public function rest(): Rung
    {
        return $this->steps === [] ? Rung::Full : $this->steps[count($this->steps) - 1][1];
    }

    /** @param bool $exactly whether the objects are meant without what they hold */
    public function deeper(Pick $objects, Rung $rest, bool $exactly = false): self
    {
        return new self([...array_slice($this->steps, -19), [$objects, $rest, $exactly]]);
    }

    public function withRest(Rung $rest): self
    {
        return $this->steps === [] ? $this : new self([...array_slice($this->steps, 0, -1), [$this->objects(), $rest, $this->isExact()]]);
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

        return $rest->except($this->rows($scene), Levels::constant($rungs->length, $full, $full));
    }

    public function pack(): string
    {
        $packed = '';
        foreach ($this->steps as [$objects, $rest, $exactly]) {
            $bytes = $objects->pack();
            $packed .= pack('CV', $rest->value + ($exactly ? self::EXACTLY : 0), strlen($bytes)).$bytes;
        }

        return $packed;
    }

    public static function unpack(string $packed): self
    {
        $steps = [];
        for ($at = 0; $at + 5 <= strlen($packed); $at += 5 + $size) {
            [$size] = Packed::uint32($packed, $at + 1, 1);
            $rest = ord($packed[$at]);
            $steps[] = [Pick::unpack(substr($packed, $at + 5, $size)), Rung::from($rest & 127), $rest >= self::EXACTLY];
        }

        return new self($steps);
    }
}
