<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Organizers\Organizers;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;

/** What a change did to the sorting: what objects were filed and tagged under, and where that stood, before and after. */
final class Shift
{
    /** @var list<array{int, int, Bits}>|null */
    private ?array $filings = null;

    /** @var array<int, array{int, int}>|null */
    private ?array $layers = null;

    /** @var array<string, array{int, int}>|null */
    private ?array $tags = null;

    /** @var array<int, Bits> by layer: every view asks the same */
    private array $under = [];

    /**
     * @param Bits      $refiled rows whose layer became another one
     * @param Bits      $gone    rows that went with the change
     * @param list<int> $tagged  tags that were there, and that objects came to or left
     */
    public function __construct(
        public readonly Scene $before,
        public readonly Organizers $from,
        public readonly Scene $after,
        public readonly Organizers $to,
        private readonly Bits $refiled,
        public readonly Bits $gone,
        private readonly array $tagged,
    ) {}

    /** @return list<array{int, int, Bits}> layer before, layer after, rows; none that is gone */
    public function filings(): array
    {
        if ($this->filings !== null) {
            return $this->filings;
        }
        $this->filings = [];
        $rows = $this->refiled->without($this->gone);
        foreach (array_keys($this->before->layers()->histogram($rows)) as $from) {
            $leaving = $rows->and($this->before->layers()->rowsOf([$from => true]));
            foreach (array_keys($this->after->layers()->histogram($leaving)) as $to) {
                if ($to !== $from) {
                    $this->filings[] = [$from, $to, $leaving->and($this->after->layers()->rowsOf([$to => true]))];
                }
            }
        }

        return $this->filings;
    }

    /** @return array<int, array{int, int}> what layers lay in before and lie in now, 0 at the top, by number; only those that moved */
    public function movedLayers(): array
    {
        if ($this->layers === null) {
            $this->layers = [];
            foreach ($this->to->layers->walk() as [$layer]) {
                if ($this->from->layers->has($layer->number)) {
                    $was = $this->from->layers->get($layer->number)->parent;
                    if ($was !== $layer->parent) {
                        $this->layers[$layer->number] = [$was, $layer->parent];
                    }
                }
            }
        }

        return $this->layers;
    }

    /** @return array<string, array{int, int}> folder that tags and folders lay in before, and lie in now, by "M3" or "F2"; if they moved */
    public function movedTags(): array
    {
        if ($this->tags === null) {
            $this->tags = [];
            [$from, $to] = [$this->from->tags->tree, $this->to->tags->tree];
            foreach ($to->members as $number => $tag) {
                if (isset($from->members[$number]) && $from->members[$number]->folder !== $tag->folder) {
                    $this->tags["M$number"] = [$from->members[$number]->folder, $tag->folder];
                }
            }
            foreach ($to->folders as $number => $folder) {
                if (isset($from->folders[$number]) && $from->folders[$number]->parent !== $folder->parent) {
                    $this->tags["F$number"] = [$from->folders[$number]->parent, $folder->parent];
                }
            }
        }

        return $this->tags;
    }

    /** @return list<int> tags that are there no more */
    public function goneTags(): array
    {
        return array_keys(array_diff_key($this->from->tags->tree->members, $this->to->tags->tree->members));
    }

    /** @return list<int> tags that objects came to or left, new ones among them */
    public function tagged(): array
    {
        $new = array_diff_key($this->to->tags->tree->members, $this->from->tags->tree->members);

        return array_values(array_unique([...$this->tagged, ...array_keys($new)]));
    }

    /** Rows that lie right under a layer now. */
    public function under(int $layer): Bits
    {
        return $this->under[$layer] ??= $this->after->layers()->rowsOf([$layer => true]);
    }

    /** Whether there is nothing in it that what views show could follow. */
    public function isEmpty(): bool
    {
        return $this->filings() === [] &&
            $this->movedLayers() === [] &&
            $this->movedTags() === [] &&
            $this->tagged() === [] &&
            $this->goneTags() === [];
    }
}
