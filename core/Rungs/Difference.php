<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;

/** Where two states differ: the desk and the picture, two views, or a view and the desk. */
final readonly class Difference
{
    public function __construct(private Levels $first, private Levels $second) {}

    /** Hidden in the first, but not in the second. */
    public function onlySecond(): Bits
    {
        return $this->first->being(Rung::Hidden->value)->without($this->second->being(Rung::Hidden->value));
    }

    /** Shown by the first, but not by the second. */
    public function onlyFirst(): Bits
    {
        return $this->second->being(Rung::Hidden->value)->without($this->first->being(Rung::Hidden->value));
    }

    /** Shown by both. */
    public function both(): Bits
    {
        return $this->first->being(Rung::Hidden->value)->or($this->second->being(Rung::Hidden->value))->not();
    }

    /** Shown by both, but more of it by one. */
    public function otherwise(): Bits
    {
        $same = Bits::none($this->first->length);
        foreach (array_keys($this->first->histogram()) as $rung) {
            $same = $same->or($this->first->being($rung)->and($this->second->being($rung)));
        }

        return $same->not()->without($this->onlySecond())->without($this->onlyFirst());
    }

    /** How many objects differ. */
    public function count(): int
    {
        $differing = $this->first->bytes() ^ $this->second->bytes();

        return strlen($differing) - substr_count($differing, "\0");
    }

    /** @return array{picture: Bits, desk: Bits, other: Bits} of the desk and the picture */
    public function rows(): array
    {
        return ['picture' => $this->onlySecond(), 'desk' => $this->onlyFirst(), 'other' => $this->otherwise()];
    }
}
