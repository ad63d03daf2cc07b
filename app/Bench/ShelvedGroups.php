<?php

declare(strict_types=1);

namespace App\Bench;

use VineShelf\Folders\Folder;
use VineShelf\Folders\Holds;
use VineShelf\Scene\Bits;
use VineShelf\Sets\SelectionSet;
use VineShelf\Tags\Tag;

/** Tags, sets and the folders that they lie in, with the objects that belong to each. */
final readonly class ShelvedGroups
{
    private KeptSets $kept;

    public function __construct(private Bench $bench)
    {
        $this->kept = $bench->keptSets();
    }

    /**
     * What lies in a folder, or at the top for 0.
     *
     * @return list<Group>
     */
    public function inside(Holds $holds, int $folder): array
    {
        $tree = Organizer::tree($this->bench, $holds->value);
        $groups = [];
        foreach ($tree->inside($folder) as $key) {
            $number = (int) substr($key, 1);
            $member = $key[0] === 'M' ? $tree->members[$number] : null;
            $groups[] = match (true) {
                $member instanceof Tag => $this->tag($member),
                $member instanceof SelectionSet => $this->set($member),
                default => $this->folder($tree->folders[$number]),
            };
        }

        return $groups;
    }

    /** @param string $key for example "T3", "F2" or "E4" */
    public function named(string $key): ?Group
    {
        $number = (int) substr($key, 1);
        $tags = $this->bench->tags();
        $sets = $this->bench->sets();

        return match (true) {
            $key[0] === 'T' && $tags->has($number) => $this->tag($tags->get($number)),
            $key[0] === 'E' && $sets->has($number) => $this->set($sets->get($number)),
            $key[0] === 'F' && $tags->hasFolder($number) => $this->folder($tags->folder($number)),
            $key[0] === 'F' && $sets->hasFolder($number) => $this->folder($sets->folder($number)),
            default => null,
        };
    }

    public function tag(Tag $tag): Group
    {
        $rows = fn (): Bits => $this->bench->scene()->tagged($tag->number);
        [$count, $triangles] = Weighed::of($this->bench, $this->kept->file("tag.$tag->number"), $rows);

        return new Group("T$tag->number", $tag->name, 'tag', $tag->colour, $count, $triangles, $rows, $tag);
    }

    public function set(SelectionSet $set): Group
    {
        $rows = fn (): Bits => $this->bench->set($set)->rows;
        [$count, $triangles] = Weighed::of($this->bench, $this->kept->stamp($set), $rows);

        return new Group("E$set->number", $set->name, 'set', '', $count, $triangles, $rows, $set);
    }

    /** Its objects are those of what lies in it, at any depth; each counts once. */
    public function folder(Folder $folder): Group
    {
        $tree = Organizer::tree($this->bench, $folder->holds->value);
        $members = array_map(fn (int $number): Tag|SelectionSet => $this->member($tree->members[$number]), $tree->within($folder->number));
        $rows = function () use ($members): Bits {
            $rows = Bits::none($this->bench->scene()->count());
            foreach ($members as $member) {
                $rows = $rows->or(
                    $member instanceof Tag ? $this->bench->scene()->tagged($member->number) : $this->bench->set($member)->rows,
                );
            }

            return $rows;
        };
        $stamps = array_map(
            fn (Tag|SelectionSet $member): string => $member instanceof Tag
                ? $this->kept->file("tag.$member->number")
                : $this->kept->stamp($member),
            $members,
        );
        sort($stamps);
        [$count, $triangles] = Weighed::of($this->bench, hash('xxh128', implode("\n", $stamps)), $rows);

        return new Group("F$folder->number", $folder->name, 'folder', '', $count, $triangles, $rows, $folder);
    }

    private function member(mixed $what): Tag|SelectionSet
    {
        return $what instanceof Tag || $what instanceof SelectionSet ? $what : throw new \LogicException('This holds no objects.');
    }
}
