<?php

declare(strict_types=1);

namespace VineShelf\Lighten;

/** Where two pictures of the same size differ by more than an eye lets pass. */
final readonly class Apart
{
    /** Of 255, in any of red, green and blue. */
    private const UNSEEN = 20;

    private const MARK = 0xd98b12;

    /** Part of the pixels that differ, 0 to 1. */
    public float $share;

    /**
     * The second picture with what differs marked, 0xRRGGBB.
     *
     * @var array<int, int>
     */
    public array $marked;

    /**
     * @param array<int, int> $before 0xRRGGBB
     * @param array<int, int> $after
     */
    public function __construct(array $before, array $after)
    {
        $differ = 0;
        $marked = $after;
        foreach ($before as $pixel => $colour) {
            $other = $after[$pixel];
            if (
                $colour !== $other &&
                (abs(($colour >> 16) - ($other >> 16)) > self::UNSEEN ||
                    abs((($colour >> 8) & 255) - (($other >> 8) & 255)) > self::UNSEEN ||
                    abs(($colour & 255) - ($other & 255)) > self::UNSEEN)
            ) {
                $differ++;
                $marked[$pixel] = self::MARK;
            }
        }
        $this->marked = $marked;
        $this->share = $before === [] ? 0.0 : $differ / count($before);
    }
}
