<?php

declare(strict_types=1);

namespace VineShelf\Formats;

/** Reads files of one format. */
interface Reader
{
    /**
     * Whether a file is of the format, by what is in it and not by what it is called.
     *
     * @param string $start its first bytes
     */
    public static function knows(string $start): bool;

    /**
     * @param (callable(int, float): void)|null $progress called now and then with the number of objects read so far, and how much of the
     *     whole that is, up to 1; may throw to stop
     * @param bool                       $beside   whether the file may use others in its own folder or below it
     *
     * @throws UnreadableFile
     */
    public static function read(string $path, Limits $limits = new Limits, ?callable $progress = null, bool $beside = false): Intake;
}
