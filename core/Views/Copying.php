<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Scene\Packed;

/** Objects that were copied together, once or several times: the copies have numbers one after the other, in the order of the originals. */
final readonly class Copying
{
    /** @param string $originals their numbers, four bytes each, lowest first */
    public function __construct(public int $first, public int $last, private string $originals) {}

    /**
     * @param int $number of an object
     *
     * @return array<int, int> number of what each is a copy of, by the numbers of the copies that came after
     */
    public function after(int $number): array
    {
        $originals = Packed::uint32($this->originals, 0, intdiv(strlen($this->originals), 4));
        $copies = [];
        for ($copy = max($this->first, $number + 1), $count = count($originals); $copy <= $this->last; $copy++) {
            $copies[$copy] = $originals[($copy - $this->first) % $count];
        }

        return $copies;
    }
}
