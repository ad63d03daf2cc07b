<?php

declare(strict_types=1);

namespace VineShelf\Tags;

use VineShelf\Folders\Folder;
use VineShelf\Folders\FolderTree;
use VineShelf\Locks\Lock;

/** The tags of a project in their folders. Folders gate what is in them; what their members had been set to is not forgotten. */
final readonly class TagTree
{
    /** @var FolderTree<Tag> */
    public FolderTree $tree;

    /**
     * @param iterable<Folder> $folders
     * @param iterable<Tag>    $tags
     */
    public function __construct(iterable $folders = [], iterable $tags = [])
    {
        $this->tree = new FolderTree($folders, $tags);
    }

    public function has(int $number): bool
    {
        return isset($this->tree->members[$number]);
    }

    public function hasFolder(int $number): bool
    {
        return isset($this->tree->folders[$number]);
    }

    public function get(int $number): Tag
    {
        return $this->tree->members[$number] ?? throw UnknownTag::numbered($number);
    }

    public function folder(int $number): Folder
    {
        return $this->tree->folders[$number] ?? throw UnknownTag::folder($number);
    }

    public function count(): int
    {
        return count($this->tree->members);
    }

    /** @return list<Tag> in the order on screen */
    public function all(): array
    {
        return $this->tree->inOrder();
    }

    /**
     * The lowest of each row's own rung and those of the folders above it.
     *
     * @param array<int, int> $tags    own rung by tag number
     * @param array<int, int> $folders own rung by folder number
     *
     * @return array<string, int> by "M7" for a tag and "F3" for a folder
     */
    public function lowest(array $tags, array $folders, int $otherwise): array
    {
        /** @var array<string, int> */
        return $this->tree->outline->lowest(self::keyed($tags, $folders), $otherwise);
    }

    /** @return array<string, int> lock in effect by "M7" for a tag and "F3" for a folder */
    public function locks(): array
    {
        /** @var array<string, int> */
        return $this->tree->outline->highest(
            self::keyed(
                array_map(static fn (Tag $tag): int => $tag->lock->value, $this->tree->members),
                array_map(static fn (Folder $folder): int => $folder->lock->value, $this->tree->folders),
            ),
            Lock::Open->value,
        );
    }

    /**
     * @param array<int, int> $tags
     * @param array<int, int> $folders
     *
     * @return array<string, int>
     */
    private static function keyed(array $tags, array $folders): array
    {
        $keyed = [];
        foreach (['M' => $tags, 'F' => $folders] as $letter => $values) {
            foreach ($values as $number => $value) {
                $keyed[$letter.$number] = $value;
            }
        }

        return $keyed;
    }
}
