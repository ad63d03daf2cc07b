<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;

/** Where the desk and the picture differ. */
final readonly class Difference
{
    public function __construct(private Levels $desk, private Levels $output) {}

    /** Hidden on the desk, but in the picture. */
    public function onlyInPicture(): Bits
    {
        return $this->desk->being(Rung::Hidden->value)->without($this->output->being(Rung::Hidden->value));
    }

    /** Shown on the desk, but not in the picture. */
    public function onlyOnDesk(): Bits
    {
        return $this->output->being(Rung::Hidden->value)->without($this->desk->being(Rung::Hidden->value));
    }

    /** Shown by both, but more of it by one. */
    public function otherwise(): Bits
    {
        $same = Bits::none($this->desk->length);
        foreach (array_keys($this->desk->histogram()) as $rung) {
            $same = $same->or($this->desk->being($rung)->and($this->output->being($rung)));
        }

        return $same->not()->without($this->onlyInPicture())->without($this->onlyOnDesk());
    }

    /** How many objects differ. */
    public function count(): int
    {
        $differing = $this->desk->bytes() ^ $this->output->bytes();

        return strlen($differing) - substr_count($differing, "\0");
    }

    /** @return array{picture: Bits, desk: Bits, other: Bits} */
    public function rows(): array
    {
        return ['picture' => $this->onlyInPicture(), 'desk' => $this->onlyOnDesk(), 'other' => $this->otherwise()];
    }
}
