<?php

declare(strict_types=1);

namespace VineShelf\Facts;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/**
 * All rows of a scene in an order, with a checkpoint at every fiftieth part: the set of the rows so far. Which of some rows stand where is
 * then found by counting bits, and only one stretch between two checkpoints is looked at row by row. Packed: rows, rows per stretch,
 * checkpoints; then the rows; then the checkpoints; then the place of every row, row 0 first.
 */
final readonly class Ordered
{
    private const CHECKPOINTS = 50;

    private const HEAD = 12;

    private function __construct(private string $packed, public int $length, private int $step, private int $checkpoints) {}

    /** @param list<int> $rows all rows of the scene, in their order */
    public static function pack(array $rows): string
    {
        $length = count($rows);
        $step = max(64, (int) ceil($length / self::CHECKPOINTS));
        $checkpoints = '';
        $count = 0;
        $soFar = Bits::none($length)->bytes;
        $places = array_fill(0, $length + 1, 0);
        foreach ($rows as $at => $row) {
            $places[$row] = $at;
            $soFar[$row >> 3] = chr(ord($soFar[$row >> 3]) | (1 << ($row & 7)));
            if (($at + 1) % $step === 0) {
                $checkpoints .= $soFar;
                $count++;
            }
        }

        return pack('VVV', $length, $step, $count).($rows === [] ? '' : pack('V*', ...$rows)).$checkpoints.pack('V*', ...$places);
    }

    public static function unpack(string $packed): self
    {
        [$length, $step, $checkpoints] = Packed::uint32($packed, 0, 3);

        return new self($packed, $length, $step, $checkpoints);
    }

    /** @return list<int> some of the rows in the order */
    public function slice(int $offset, int $count): array
    {
        $count = max(0, min($count, $this->length - $offset));

        return Packed::uint32($this->packed, self::HEAD + 4 * $offset, $count);
    }

    /**
     * Some of the rows that are in a set, in the order.
     *
     * @return list<int>
     */
    public function sliceOf(Bits $among, int $offset, int $count): array
    {
        // The last checkpoint that does not hold more of the set than is to be passed over.
        $low = 0;
        $high = $this->checkpoints;
        while ($low < $high) {
            $middle = ($low + $high + 1) >> 1;
            if ($this->upTo($middle)->and($among)->count() <= $offset) {
                $low = $middle;
            } else {
                $high = $middle - 1;
            }
        }
        $offset -= $low === 0 ? 0 : $this->upTo($low)->and($among)->count();
        $bytes = $among->bytes;
        $kept = [];
        for ($at = $low * $this->step; $at < $this->length && count($kept) < $count; $at += $this->step) {
            foreach ($this->slice($at, $this->step) as $row) {
                if (((ord($bytes[$row >> 3]) >> ($row & 7)) & 1) === 1 && $offset-- <= 0) {
                    $kept[] = $row;
                    if (count($kept) === $count) {
                        break;
                    }
                }
            }
        }

        return $kept;
    }

    /** Where a row stands in the order, counted from 0; among those of a set when there is one. */
    public function place(int $row, ?Bits $among = null): int
    {
        [$place] = Packed::uint32(
            $this->packed,
            self::HEAD + 4 * $this->length + $this->checkpoints * (($this->length >> 3) + 1) + 4 * $row,
            1,
        );
        if ($among === null) {
            return $place;
        }
        $checkpoint = min($this->checkpoints, intdiv($place, $this->step));
        $before = $checkpoint === 0 ? 0 : $this->upTo($checkpoint)->and($among)->count();
        $start = $checkpoint * $this->step;
        foreach ($this->slice($start, $place - $start) as $other) {
            $before += $among->has($other) ? 1 : 0;
        }

        return $before;
    }

    private function upTo(int $checkpoint): Bits
    {
        if ($checkpoint === 0) {
            return Bits::none($this->length);
        }
        $size = ($this->length >> 3) + 1;

        return Bits::ofBytes($this->length, substr($this->packed, self::HEAD + 4 * $this->length + ($checkpoint - 1) * $size, $size));
    }
}
