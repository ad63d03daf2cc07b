<?php

declare(strict_types=1);

namespace VineShelf\Sets;

use VineShelf\Folders\Folder;
use VineShelf\Folders\FolderTree;

/** The selection sets of a project in their folders. */
final readonly class SetTree
{
    /** @var FolderTree<SelectionSet> */
    public FolderTree $tree;

    /**
     * @param iterable<Folder>       $folders
     * @param iterable<SelectionSet> $sets
     */
    public function __construct(iterable $folders = [], iterable $sets = [])
    {
        $this->tree = new FolderTree($folders, $sets);
    }

    public function has(int $number): bool
    {
        return isset($this->tree->members[$number]);
    }

    public function hasFolder(int $number): bool
    {
        return isset($this->tree->folders[$number]);
    }

    public function get(int $number): SelectionSet
    {
        return $this->tree->members[$number] ?? throw UnknownSet::numbered($number);
    }

    public function folder(int $number): Folder
    {
        return $this->tree->folders[$number] ?? throw UnknownSet::folder($number);
    }

    /**
     * The sets that are called so, or lie in a folder that is, at any depth.
     *
     * @param \Closure(string): bool $is asked with names in lower case
     *
     * @return list<SelectionSet>|null null where neither a set nor a folder is called so
     */
    public function called(\Closure $is): ?array
    {
        $found = null;
        $within = [];
        foreach ($this->tree->outline->walk() as [$key]) {
            $key = (string) $key;
            $number = (int) substr($key, 1);
            $row = $key[0] === 'F' ? $this->tree->folders[$number] : $this->tree->members[$number];
            if (! isset($within[$this->tree->outline->parent($key)]) && ! $is(mb_strtolower($row->name))) {
                continue;
            }
            $found ??= [];
            if ($row instanceof SelectionSet) {
                $found[] = $row;
            } else {
                $within[$key] = true;
            }
        }

        return $found;
    }

    /** @return list<SelectionSet> in the order on screen */
    public function all(): array
    {
        return $this->tree->inOrder();
    }
}
