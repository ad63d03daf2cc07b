<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use VineShelf\Scene\Bits;

/** What a change wrote and goes by, told once, so that many later ones can be asked whether they stand on it. */
final readonly class Ground
{
    /** @var array<string, Bits> what it writes, done or taken back */
    private array $written;

    /** @var array<string, Bits> what has to be there to take it back */
    private array $needed;

    public function __construct(Edits $edits)
    {
        $back = $edits->reversed();
        $written = $edits->written();
        foreach ($back->written() as $what => $numbers) {
            $written[$what] = isset($written[$what]) ? $written[$what]->with($numbers) : $numbers;
        }
        [$this->written, $this->needed] = [$written, $back->needed()];
    }

    /** Whether others, which came later, stand on it: so that it cannot be taken back. */
    public function bears(Edits $later): bool
    {
        return $later->write($this->written) || $later->need($this->written) || $later->write($this->needed);
    }
}
