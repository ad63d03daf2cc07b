<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VineShelf\Colours\Line;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Folders\Folder;
use VineShelf\Folders\Holds;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Locks\Lock;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;
use VineShelf\Tags\Tag;
use VineShelf\Tags\TagTree;

/** A random project in plain arrays, with the slow and obvious way to each answer. */
final class RandomForest
{
    public Organizers $organizers;

    /**
     * @param array<int, int> $parents
     * @param array<int, int> $layerOf
     * @param array<int, int> $kinds
     * @param array<int, int> $locks
     * @param array<int, int> $triangles
     * @param array<int, int> $own
     */
    private function __construct(
        public array $parents,
        public array $layerOf,
        public array $kinds,
        public array $locks,
        public array $triangles,
        public LayerTree $layers,
        public Settings $settings,
        /** Own rung by object number. */
        public array $own = [],
        public TagTree $tags = new TagTree,
        /** @var array<int, list<int>> object numbers by tag */
        public array $tagged = [],
        /** @var array<int, int> rung of an object without what it holds, by number */
        public array $alone = [],
    ) {
        $this->organizers = new Organizers($layers, $tags);
    }

    /**
     * One that is written down.
     *
     * @param array<int, int> $parents
     * @param array<int, int> $layerOf
     * @param array<int, int> $kinds
     * @param list<Layer>     $layers
     * @param array<int, int> $rungs   own rung by layer number
     * @param array<int, int> $own     own rung by object number
     */
    public static function of(array $parents, array $layerOf, array $kinds, array $layers, array $rungs, array $own): self
    {
        return new self($parents, $layerOf, $kinds, [], [], new LayerTree($layers), Settings::of($rungs, $own), $own);
    }

    public static function grow(int $count): self
    {
        $layers = [new Layer(1, 0, 0, 'Unsorted', '#b9b3a2')];
        $layerCount = mt_rand(1, 8);
        for ($number = 2; $number <= $layerCount; $number++) {
            $layers[] = new Layer(
                $number,
                $number === 2 || mt_rand(0, 2) === 0 ? 0 : mt_rand(2, $number - 1),
                mt_rand(0, 9),
                "Layer $number",
                '#3f7a63',
                Lock::from(mt_rand(0, 9) < 7 ? 0 : mt_rand(1, 2)),
            );
        }
        $parents = $layerOf = $kinds = $locks = $triangles = $own = $layerRungs = [];
        $numbers = range(1, $count * 2);
        shuffle($numbers);
        $numbers = array_slice($numbers, 0, $count);
        $sticky = mt_rand(1, 10);
        foreach ($numbers as $index => $number) {
            $parents[$number] = $index === 0 || mt_rand(0, 4) === 0 ? 0 : $numbers[mt_rand(max(0, $index - 6), $index - 1)];
            $layerOf[$number] = $index > 0 && mt_rand(0, 10) < $sticky ? $layerOf[$numbers[$index - 1]] : mt_rand(1, $layerCount);
            $kinds[$number] = mt_rand(0, 1);
            if (mt_rand(0, 9) === 0) {
                $locks[$number] = mt_rand(1, 2);
            }
            if ($kinds[$number] === 1) {
                $triangles[$number] = mt_rand(1, 500);
            }
            if (mt_rand(0, 7) === 0) {
                $own[$number] = mt_rand(0, 4);
            }
        }
        for ($number = 1; $number <= $layerCount; $number++) {
            if (mt_rand(0, 2) === 0) {
                $layerRungs[$number] = mt_rand(0, 4);
            }
        }

        [$tags, $tagged, $tagRungs, $folderRungs] = self::tags($numbers);
        [$alone, $layersAlone] = [[], []];
        foreach (mt_rand(0, 2) === 0 ? $numbers : [] as $number) {
            if (mt_rand(0, 9) === 0) {
                $alone[$number] = mt_rand(0, 4);
            }
        }
        for ($number = 1; $number <= $layerCount; $number++) {
            if (mt_rand(0, 7) === 0) {
                $layersAlone[$number] = mt_rand(0, 4);
            }
        }

        return new self(
            $parents,
            $layerOf,
            $kinds,
            $locks,
            $triangles,
            new LayerTree($layers),
            self::settings($layerRungs, $own, $tagRungs, $folderRungs, $layersAlone, $alone),
            $own,
            $tags,
            $tagged,
            $alone,
        );
    }

    /**
     * @param array<int, int> $layers
     * @param array<int, int> $objects
     * @param array<int, int> $tags
     * @param array<int, int> $folders
     * @param array<int, int> $layersAlone
     * @param array<int, int> $objectsAlone
     */
    public static function settings(
        array $layers,
        array $objects,
        array $tags,
        array $folders,
        array $layersAlone,
        array $objectsAlone,
    ): Settings {
        $settings = Settings::of($layers, $objects, $tags, $folders);
        foreach ($layersAlone as $number => $rung) {
            $settings = $settings->withLayersAlone([$number], Rung::from($rung));
        }
        foreach ($objectsAlone as $number => $rung) {
            $settings = $settings->withObjectsAlone(Bits::ofRows($number, [$number]), Rung::from($rung));
        }

        return $settings;
    }

    /**
     * Tags on a few or on many objects, in nested folders; some have a rung, and some a lock.
     *
     * @param list<int> $numbers of the objects
     *
     * @return array{TagTree, array<int, list<int>>, array<int, int>, array<int, int>} and rungs by tag and by folder
     */
    private static function tags(array $numbers): array
    {
        $lock = static fn (): Lock => Lock::from(mt_rand(0, 9) < 8 ? 0 : mt_rand(1, 2));
        $folders = $tags = $tagged = $tagRungs = $folderRungs = [];
        $folderCount = mt_rand(0, 4);
        for ($folder = 1; $folder <= $folderCount; $folder++) {
            $folders[] = new Folder($folder, Holds::Tags, mt_rand(0, $folder - 1), mt_rand(0, 5), "Folder $folder", $lock());
            if (mt_rand(0, 3) === 0) {
                $folderRungs[$folder] = mt_rand(0, 5);
            }
        }
        $tagCount = mt_rand(0, 5);
        for ($tag = 1; $tag <= $tagCount; $tag++) {
            $tags[] = new Tag($tag, mt_rand(0, $folderCount), mt_rand(0, 5), "Tag $tag", '#3f7a63', Line::None, $lock());
            $tagged[$tag] = array_values(array_filter($numbers, static fn (): bool => mt_rand(0, 3) === 0));
            if (mt_rand(0, 2) === 0) {
                $tagRungs[$tag] = mt_rand(0, 5);
            }
        }

        return [new TagTree($folders, $tags), $tagged, $tagRungs, $folderRungs];
    }

    /** @return array<string, string> */
    public function tagColumns(Scene $scene): array
    {
        $columns = [];
        foreach ($this->tagged as $tag => $numbers) {
            $columns["tag.$tag"] = $numbers === [] ? '' : Bits::ofRows($scene->count(), $scene->rowsOf($numbers))->bytes;
        }

        return $columns;
    }

    public function scene(): Scene
    {
        $columns = SceneBuilder::columns($this->parents, $this->layerOf, $this->kinds, $this->locks, $this->triangles);
        // Every part is drawn once.
        $placed = [0, 0];
        foreach (str_split(substr($columns['kind'], 1)) as $kind) {
            $placed[] = $placed[count($placed) - 1] + ($kind === "\1" ? 1 : 0);
        }

        $columns += $this->tagColumns(new Scene(new ColumnsInMemory($columns)));

        return new Scene(new DerivedColumns(new ColumnsInMemory($columns + ['recordAt' => pack('V*', ...$placed)])));
    }

    /** The lowest of its own, those of the groups above it, its layer's and those of the layers above that. */
    public function slowRung(int $number): int
    {
        $lowest = min($this->alone[$number] ?? 5, $this->settings->layersAlone[$this->layerOf[$number]] ?? 5);
        for ($layer = $this->layerOf[$number]; $layer !== 0; $layer = $this->layers->get($layer)->parent) {
            $lowest = min($lowest, $this->settings->layers[$layer] ?? 5);
        }
        for ($link = $number; $link !== 0; $link = $this->parents[$link]) {
            $lowest = min($lowest, $this->own[$link] ?? 5);
        }
        foreach ($this->tagsOf($number) as $tag) {
            $lowest = min($lowest, $this->settings->tags[$tag->number] ?? 5);
            for ($folder = $tag->folder; $folder !== 0; $folder = $this->tags->folder($folder)->parent) {
                $lowest = min($lowest, $this->settings->folders[$folder] ?? 5);
            }
        }

        return $lowest;
    }

    /** The highest along the same chain. */
    public function slowLock(int $number): int
    {
        $highest = 0;
        for ($layer = $this->layerOf[$number]; $layer !== 0; $layer = $this->layers->get($layer)->parent) {
            $highest = max($highest, $this->layers->get($layer)->lock->value);
        }
        for ($link = $number; $link !== 0; $link = $this->parents[$link]) {
            $highest = max($highest, $this->locks[$link] ?? 0);
        }
        foreach ($this->tagsOf($number) as $tag) {
            $highest = max($highest, $tag->lock->value);
            for ($folder = $tag->folder; $folder !== 0; $folder = $this->tags->folder($folder)->parent) {
                $highest = max($highest, $this->tags->folder($folder)->lock->value);
            }
        }

        return $highest;
    }

    /** @return list<Tag> */
    public function tagsOf(int $number): array
    {
        return array_values(array_filter($this->tags->all(), fn (Tag $tag): bool => in_array($number, $this->tagged[$tag->number], true)));
    }
}
