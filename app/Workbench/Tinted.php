<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Bench\Compared;
use VineShelf\Rungs\Difference;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Pick;
use VineShelf\Sets\SelectionSet;
use VineShelf\Tint\Legend;
use VineShelf\Tint\TintBy;

/** The tint that a person's desk has. */
final readonly class Tinted
{
    private function __construct(private Bench $bench, public TintBy $by, private int $seed, private string $pick) {}

    public static function of(Bench $bench): self
    {
        return self::as($bench, $bench->desk->tint);
    }

    /**
     * As a view keeps it.
     *
     * @param array{by?: string, seed?: int, pick?: string, first?: string, second?: string} $tint
     */
    public static function as(Bench $bench, array $tint): self
    {
        return new self($bench, TintBy::tryFrom($tint['by'] ?? '') ?? TintBy::Own, $tint['seed'] ?? 1, $tint['pick'] ?? '');
    }

    /** Changes whenever the colours may have changed. */
    public function stamp(): string
    {
        return $this->by === TintBy::Own
            ? ''
            : "{$this->by->value} $this->seed ".
                    substr(md5($this->pick), 0, 8).
                    ' '.
                    $this->bench->project->revision.
                    // What follows the desk changes with it.
                    (in_array($this->by, [TintBy::Output, TintBy::Compare], true) ? ' '.$this->bench->desk->revision : '');
    }

    /** @return array{difference?: Difference, labels?: list<string>} */
    private function compared(): array
    {
        if ($this->by === TintBy::Output) {
            return ['difference' => $this->bench->outputs()->difference()];
        }
        $compared = $this->by === TintBy::Compare ? Compared::onDesk($this->bench) : null;

        return $compared === null ? [] : ['difference' => $compared->difference(), 'labels' => $compared->labels()];
    }

    public function legend(): Legend
    {
        $only = null;
        if ($this->pick !== '') {
            $only = Pick::unpack((string) base64_decode($this->pick, true))->withHeld($this->bench->scene());
        }

        return Legend::of(
            $this->by,
            $this->bench->facts(),
            $this->bench->organizers(),
            $this->bench->inEffect(),
            $this->seed,
            $only,
            fn (SelectionSet $set): Bits => $this->bench->set($set)->rows,
            ...$this->compared(),
        );
    }
}
