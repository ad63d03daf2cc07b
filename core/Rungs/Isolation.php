<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Packed;
use VineShelf\Scene\Runs;
use VineShelf\Scene\RunsBuilder;
use VineShelf\Scene\Scene;

/**
 * Looking at some objects alone: they are at Full whatever holds them down, the rest is hidden or at most a ghost. Isolating again
 * goes one step deeper, going back one step out; nothing else on the desk changes.
 */
final readonly class Isolation
{
    /** @param list<array{list<int>, Rung}> $steps object numbers, which count with all that they hold, and the rung of the rest; the deepest last */
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

    /** @return list<int> object numbers of the deepest step */
    public function numbers(): array
    {
        return $this->steps === [] ? [] : $this->steps[count($this->steps) - 1][0];
    }

    public function rest(): Rung
    {
        return $this->steps === [] ? Rung::Full : $this->steps[count($this->steps) - 1][1];
    }

    /** @param list<int> $numbers */
    public function deeper(array $numbers, Rung $rest): self
    {
        return new self([...array_slice($this->steps, -19), [$numbers, $rest]]);
    }

    public function withRest(Rung $rest): self
    {
        return $this->steps === [] ? $this : new self([...array_slice($this->steps, 0, -1), [$this->numbers(), $rest]]);
    }

    public function back(): self
    {
        return new self(array_slice($this->steps, 0, -1));
    }

    /** The rungs in effect while isolating. */
    public function over(Runs $rungs, Scene $scene): Runs
    {
        if ($this->steps === []) {
            return $rungs;
        }
        $rest = $this->rest()->value;
        $rows = $scene->subtrees($scene->rowsOf($this->numbers()));
        $marked = new RunsBuilder;
        $next = 1;
        foreach ($rows as [$first, $last]) {
            if ($first > $next) {
                $marked->run($next, 0);
            }
            $marked->run($first, 1);
            $next = $last + 1;
        }
        if ($next <= $scene->count()) {
            $marked->run($next, 0);
        }
        $build = new RunsBuilder;
        foreach ($rungs->beside($marked->finish($scene->count())) as [$first, , $rung, $isIn]) {
            $build->run($first, $isIn === 1 ? Rung::Full->value : min($rest, $rung));
        }

        return $build->finish($scene->count());
    }

    public function pack(): string
    {
        $raw = '';
        foreach ($this->steps as [$numbers, $rest]) {
            $raw .= pack('CV', $rest->value, count($numbers)).($numbers === [] ? '' : pack('V*', ...$numbers));
        }

        return $raw === '' ? '' : (string) gzdeflate($raw, 1);
    }

    public static function unpack(string $packed): self
    {
        $raw = $packed === '' ? '' : (string) @gzinflate($packed);
        $steps = [];
        for ($at = 0; $at + 5 <= strlen($raw); $at += 5 + 4 * $count) {
            [$count] = Packed::uint32($raw, $at + 1, 1);
            $steps[] = [Packed::uint32($raw, $at + 5, $count), Rung::from(ord($raw[$at]))];
        }

        return new self($steps);
    }
}
