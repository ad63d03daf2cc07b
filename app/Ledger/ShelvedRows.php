<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Bench\Group;
use VineShelf\Folders\Folder;
use VineShelf\Folders\Holds;
use VineShelf\Locks\Lock;
use VineShelf\Output\Output;
use VineShelf\Rungs\Rung;
use VineShelf\Sets\SelectionSet;
use VineShelf\Tags\Tag;

/** What tags, folders and sets have beside kinds and materials: rungs and locks of their own, and what their rows say of themselves. */
final readonly class ShelvedRows
{
    public function __construct(private Bench $bench) {}

    /** The rung that is set on it; null where nothing is, or nothing can be. */
    public function own(Group $group): ?Rung
    {
        return match (true) {
            $group->of instanceof Tag => $this->bench->settings()->tag($group->of->number),
            $group->of instanceof Folder => $this->bench->settings()->folder($group->of->number),
            default => null,
        };
    }

    /** What it and the folders above it come to, whatever else holds its objects down. */
    public function inEffect(Group $group): Rung
    {
        $key = $this->key($group);

        return $key === '' ? Rung::Full : Rung::from($this->bench->inEffect()->tagRungs()[$key]);
    }

    /** What pictures are to show of it; null where nothing is set, or nothing can be. */
    public function output(Group $group): ?Output
    {
        return $group->of instanceof Tag || $group->of instanceof Folder ? $group->of->output : null;
    }

    public function outputNote(Group $group): string
    {
        return $group->of instanceof Tag || $group->of instanceof Folder ? $group->of->outputNote : '';
    }

    /** What it and the folders above it come to in pictures. */
    public function inPictures(Group $group): Rung
    {
        $key = $this->key($group);

        return $key === '' ? Rung::Full : Rung::from($this->bench->outputs()->side()->inEffect->tagRungs()[$key]);
    }

    /** @return array{Lock, Lock} its own lock, and that in effect on it */
    public function locks(Group $group): array
    {
        $key = $this->key($group);
        $own = $group->of instanceof Tag || $group->of instanceof Folder ? $group->of->lock : Lock::Open;

        return [$own, $key === '' ? $own : Lock::from($this->bench->tags()->locks()[$key])];
    }

    public function about(Group $group): ?About
    {
        $of = $group->of;

        return match (true) {
            $of instanceof Tag => new About($of->note, $of->line, isShown: $this->isShown($of->folder, $group)),
            $of instanceof SelectionSet => $this->aboutSet($of, $group),
            $of instanceof Folder => new About(
                oneAtATime: $of->oneAtATime,
                isShown: $this->isShown($of->holds === Holds::Tags ? $of->parent : 0, $group),
                holds: $of->holds->value,
            ),
            default => null,
        };
    }

    private function aboutSet(SelectionSet $set, Group $group): About
    {
        $remarks = $set->isLive() ? $this->bench->set($set)->remarks : [];

        return new About(
            $set->note,
            rule: $set->rule,
            remark: implode(' ', array_map(static fn ($remark): string => $remark->sentence, $remarks)),
            missing: $set->isLive() ? 0 : max(0, $set->members - $group->count),
        );
    }

    private function isShown(int $folder, Group $group): ?bool
    {
        $isOne = $folder > 0 && $this->bench->tags()->hasFolder($folder) && $this->bench->tags()->folder($folder)->oneAtATime;

        return $isOne ? $this->own($group) !== Rung::Hidden : null;
    }

    /** As {@see \VineShelf\Tags\TagTree} calls it; "" for what has no rung and no lock. */
    private function key(Group $group): string
    {
        return match (true) {
            $group->of instanceof Tag => "M{$group->of->number}",
            $group->of instanceof Folder && $group->of->holds === Holds::Tags => "F{$group->of->number}",
            default => '',
        };
    }
}
