<?php

declare(strict_types=1);

namespace VineShelf\Folders;

use VineShelf\Outline\Outline;

/**
 * Folders and what lies in them, as people arranged it. Rows of the outline are called "F3" for a folder and "M7" for a member.
 *
 * @template T of Shelved
 */
final class FolderTree
{
    /** @var array<int, Folder> */
    public readonly array $folders;

    /** @var array<int, T> */
    public readonly array $members;

    public readonly Outline $outline;

    /**
     * @param iterable<Folder> $folders
     * @param iterable<T>      $members
     */
    public function __construct(iterable $folders, iterable $members)
    {
        $byNumber = $rows = $those = [];
        foreach ($folders as $folder) {
            $byNumber[$folder->number] = $folder;
            $rows["F$folder->number"] = [self::key($folder->parent), $folder->position, 2 * $folder->number];
        }
        foreach ($members as $member) {
            $those[$member->number()] = $member;
            $rows["M{$member->number()}"] = [self::key($member->folder()), $member->position(), 2 * $member->number() + 1];
        }
        $this->folders = $byNumber;
        $this->members = $those;
        $this->outline = new Outline($rows);
    }

    /** @return list<string> what lies directly in a folder, or at the top for 0: "F3", "M7" */
    public function inside(int $folder): array
    {
        return array_map(strval(...), $this->outline->inside(self::key($folder)));
    }

    /** @return list<int> numbers of the members in a folder, nested ones included, in the order on screen */
    public function within(int $folder): array
    {
        $order = [];
        $stack = array_reverse($this->inside($folder));
        while (($key = array_pop($stack)) !== null) {
            if ($key[0] === 'M') {
                $order[] = (int) substr($key, 1);
            }
            array_push($stack, ...array_reverse(array_map(strval(...), $this->outline->inside($key))));
        }

        return $order;
    }

    /** @return list<int> numbers of the folder itself and those nested in it */
    public function foldersWithin(int $folder): array
    {
        $keys = array_filter(
            array_map(strval(...), $this->outline->withNested("F$folder")),
            static fn (string $key): bool => $key[0] === 'F',
        );

        return array_values(array_map(static fn (string $key): int => (int) substr($key, 1), $keys));
    }

    /** @return list<Folder> the folder and those above it, nearest first */
    public function chain(int $folder): array
    {
        return array_map(
            fn (int|string $key): Folder => $this->folders[(int) substr((string) $key, 1)],
            isset($this->folders[$folder]) ? $this->outline->chain("F$folder") : [],
        );
    }

    /**
     * Folders and members in the order on screen, each with the numbers of the folders around it, outermost first.
     *
     * @return list<array{Folder|T, list<int>}>
     */
    public function walk(): array
    {
        $walk = [];
        foreach ($this->outline->walk() as [$key]) {
            $number = (int) substr((string) $key, 1);
            $what = ((string) $key)[0] === 'F' ? $this->folders[$number] : $this->members[$number];
            $chain = $this->chain($what instanceof Folder ? $what->parent : $what->folder());
            $walk[] = [$what, array_map(static fn (Folder $folder): int => $folder->number, array_reverse($chain))];
        }

        return $walk;
    }

    /** @return list<T> the members in the order on screen */
    public function inOrder(): array
    {
        return array_map(fn (int $number): Shelved => $this->members[$number], $this->within(0));
    }

    /** The names from the top down, for example "Phases › First". */
    public function path(Folder|Shelved $what): string
    {
        [$folder, $name] = $what instanceof Folder ? [$what->parent, $what->name] : [$what->folder(), $what->name()];
        $names = array_map(static fn (Folder $above): string => $above->name, array_reverse($this->chain($folder)));

        return implode(' › ', [...$names, $name]);
    }

    private static function key(int $folder): ?string
    {
        return $folder === 0 ? null : "F$folder";
    }
}
