<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use RecursiveDirectoryIterator;
use RecursiveIteratorIterator;

/** The folders of core/ and of app/ stand on floors: each knows lower ones only, as the map shows them. */
final class FloorsTest extends TestCase
{
    private const ROOT = __DIR__.'/../../';

    #[TestWith(['core', 'VineShelf'])]
    #[TestWith(['app', 'App'])]
    public function test_folders_know_lower_floors_only_and_the_map_shows_them(string $folder, string $namespace): void
    {
        $known = self::known($folder, $namespace);
        $floors = self::floors($known);
        $shown = self::shown($folder);
        self::assertSame(
            array_map(self::sorted(...), $floors),
            array_map(self::sorted(...), $shown),
            "the floors of $folder/, lowest first",
        );
    }

    public function test_a_circle_is_found(): void
    {
        self::assertSame([['Scene'], ['Picking', 'Rungs']], self::floors(['Rungs' => ['Scene'], 'Picking' => ['Scene'], 'Scene' => []]));
        $this->expectExceptionMessage('circle among Rungs, Scene');
        self::floors(['Rungs' => ['Scene'], 'Scene' => ['Rungs'], 'Geometry' => []]);
    }

    /** @return array<string, list<string>> by folder: the other folders that its files name, in code or in docblocks */
    private static function known(string $root, string $namespace): array
    {
        $known = [];
        foreach (self::files($root) as $path => $text) {
            $folder = strtok(substr($path, strlen($root) + 1), '/');
            \assert(is_string($folder));
            $known[$folder] ??= [];
            preg_match_all('~(?<![\w\\\\])\\\\?'.$namespace.'\\\\(\w+)\\\\~', $text, $found);
            foreach (array_unique($found[1]) as $other) {
                if ($other !== $folder && ! in_array($other, $known[$folder], true)) {
                    $known[$folder][] = $other;
                }
            }
        }

        return $known;
    }

    /**
     * @param array<string, list<string>> $known
     *
     * @return list<list<string>> the lowest floor first
     */
    private static function floors(array $known): array
    {
        $floors = $done = [];
        while (count($done) < count($known)) {
            $floor = [];
            foreach ($known as $folder => $others) {
                if (! isset($done[$folder]) && array_diff($others, array_keys($done)) === []) {
                    $floor[] = $folder;
                }
            }
            if ($floor === []) {
                $left = self::sorted(self::inCircles(array_diff_key($known, $done)));
                throw new \LogicException('There is a circle among '.implode(', ', $left).'.');
            }
            $done += array_fill_keys($floor, true);
            $floors[] = self::sorted($floor);
        }

        return $floors;
    }

    /**
     * @param array<string, list<string>> $known
     *
     * @return list<string> folders that something in a circle, or between two circles, knows
     */
    private static function inCircles(array $known): array
    {
        do {
            $before = count($known);
            $named = array_merge(...array_values($known));
            $known = array_filter($known, static fn (string $folder): bool => in_array($folder, $named, true), ARRAY_FILTER_USE_KEY);
        } while (count($known) < $before);

        return array_keys($known);
    }

    /** @return list<list<string>> as the map shows them, the lowest first; it draws the highest on top */
    private static function shown(string $root): array
    {
        $map = (string) file_get_contents(self::ROOT.'ARCHITECTURE.md');
        self::assertSame(
            1,
            preg_match('~^### Floors of '.$root.'/\s+```\n(.+?)```~ms', $map, $found),
            "the map shows no floors of $root/",
        );
        $floors = [];
        foreach (explode("\n", trim($found[1])) as $line) {
            $floors[] = preg_split('~\s+~', trim($line)) ?: [];
        }

        return array_reverse($floors);
    }

    /**
     * @param list<string> $folders
     *
     * @return list<string>
     */
    private static function sorted(array $folders): array
    {
        sort($folders);

        return $folders;
    }

    /** @return iterable<string, string> text by path from the project's folder */
    private static function files(string $root): iterable
    {
        $files = new RecursiveIteratorIterator(new RecursiveDirectoryIterator(self::ROOT.$root, RecursiveDirectoryIterator::SKIP_DOTS));
        foreach ($files as $file) {
            \assert($file instanceof \SplFileInfo);
            if ($file->getExtension() === 'php') {
                $path = substr($file->getPathname(), strlen(self::ROOT));
                yield $path => (string) file_get_contents($file->getPathname());
            }
        }
    }
}
