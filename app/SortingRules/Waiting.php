<?php

declare(strict_types=1);

namespace App\SortingRules;

use App\Bench\Bench;
use App\Bench\Organizer;

/**
 * Layers and tags that sorting rules name and that are made once something goes there. Until then they are told apart by numbers below
 * zero; those that somebody has made meanwhile are found by their paths, whatever the case.
 */
final class Waiting
{
    /** @var array<int, string> paths of layers that are not there yet, by number below zero */
    public array $layers = [];

    /** @var array<int, string> the same for tags */
    public array $tags = [];

    public function __construct(private readonly Bench $bench) {}

    public function complete(StoredLine $line): StoredLine
    {
        return $line->isWaiting()
            ? $line->goingTo(
                $line->layer === 0 && $line->layerPath !== '' ? $this->layer($line->layerPath) : $line->layer,
                array_map(fn (array $tag): array => [$tag[0] === 0 ? $this->tag($tag[1]) : $tag[0], $tag[1]], $line->tags),
            )
            : $line;
    }

    private function layer(string $path): int
    {
        $number = 0;
        foreach (explode(' / ', $path) as $name) {
            $number = Organizer::called($this->bench, 'layers', 'layer', $number, $name);
            if ($number === null) {
                return self::numbered($this->layers, $path);
            }
        }

        return $number;
    }

    private function tag(string $path): int
    {
        $folder = 0;
        $names = explode(' / ', $path);
        $last = array_pop($names);
        foreach ($names as $name) {
            $folder = Organizer::called($this->bench, 'tags', 'folder', $folder, $name);
            if ($folder === null) {
                return self::numbered($this->tags, $path);
            }
        }

        return Organizer::called($this->bench, 'tags', 'tag', $folder, $last) ?? self::numbered($this->tags, $path);
    }

    /** @param array<int, string> $paths */
    private static function numbered(array &$paths, string $path): int
    {
        foreach ($paths as $number => $known) {
            if (mb_strtolower($known) === mb_strtolower($path)) {
                return $number;
            }
        }
        $number = -1 - count($paths);
        $paths[$number] = $path;

        return $number;
    }
}
