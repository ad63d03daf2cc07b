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

    /** @return list<SelectionSet> in the order on screen */
    public function all(): array
    {
        return $this->tree->inOrder();
    }
}
