<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VineShelf\Colours\Line;
use VineShelf\Folders\Folder;
use VineShelf\Folders\Holds;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;
use VineShelf\Tags\Tag;
use VineShelf\Tags\TagTree;
use VineShelf\Views\Applied;
use VineShelf\Views\Known;
use VineShelf\Views\Shift;

/**
 * A project in plain arrays that is sorted at random, and what an old view of it is to show: each object by itself, as the rules say it in
 * words. It shares nothing with what it is compared with.
 */
final class PlainView
{
    /** @var array<int, int> parent by object */
    public array $parents;

    /** @var array<int, int> layer by object */
    public array $layerOf;

    /** @var array<int, int> what layers lie in, by layer; 1 is Unsorted */
    public array $layers;

    /** @var array<int, int> what folders of tags lie in */
    public array $folders;

    /** @var array<int, int> what tags lie in */
    public array $tags;

    /** @var array<int, array<int, true>> objects by tag */
    public array $tagged;

    /** What the view was kept with. */
    public Settings $settings;

    public Known $known;

    /** @var array<int, int> what the view says of layers that it knows */
    private array $says;

    /** @var array<int, int> what it says of what is filed right under them */
    private array $saysAlone;

    /** @var array<int, int> what it says of single objects, without what they hold */
    private array $alone;

    /** @var array<int, int> own rungs of objects */
    private array $own;

    /** @var array<int, int> what objects in layers that it does not know had from where they came from */
    private array $had = [];

    /** @var array<int, int> */
    private array $saysTags;

    /** @var array<int, int> */
    private array $saysFolders;

    private int $next = 100;

    public function __construct(int $objects)
    {
        foreach (range(1, $objects) as $number) {
            $this->parents[$number] = mt_rand(0, 2) === 0 || $number === 1 ? 0 : mt_rand(max(1, $number - 8), $number - 1);
        }
        $this->layers = [1 => 0];
        foreach (range(2, mt_rand(2, 6)) as $layer) {
            $this->layers[$layer] = mt_rand(0, 1) === 0 || $layer === 2 ? 0 : mt_rand(2, $layer - 1);
        }
        $this->folders = $this->tags = $this->tagged = [];
        for ($folder = 1; $folder <= mt_rand(0, 4); $folder++) {
            $this->folders[$folder] = mt_rand(0, 1) === 0 ? 0 : mt_rand(0, $folder - 1);
        }
        for ($tag = 1; $tag <= mt_rand(0, 5); $tag++) {
            $this->tags[$tag] = $this->folders === [] ? 0 : mt_rand(0, count($this->folders));
            $this->tagged[$tag] = array_fill_keys(self::some(array_keys($this->parents), 3), true);
        }
        foreach (array_keys($this->parents) as $number) {
            $this->layerOf[$number] = array_rand($this->layers);
        }
        $rungs = static fn (array $keys, int $one): array => array_map(
            static fn (): int => mt_rand(0, 4),
            array_flip(array_values(array_filter($keys, static fn (): bool => mt_rand(1, $one) === 1))),
        );
        $this->says = $rungs(array_keys($this->layers), 2);
        $this->saysAlone = $rungs(array_keys($this->layers), 8);
        $this->saysTags = $rungs(array_keys($this->tags), 3);
        $this->saysFolders = $rungs(array_keys($this->folders), 3);
        $this->own = $rungs(array_keys($this->parents), 9);
        $this->alone = $rungs(array_keys($this->parents), 9);
        $this->settings = RandomForest::settings(
            $this->says,
            $this->own,
            $this->saysTags,
            $this->saysFolders,
            $this->saysAlone,
            $this->alone,
        );
        // Setting an object takes away what held it alone.
        $all = static fn (array $of): array => array_fill_keys(array_keys($of), true);
        $this->known = new Known($all($this->layers), $all($this->folders), $objects, Bits::none(0));
    }

    /**
     * @param list<int> $of
     *
     * @return list<int> about one in so many of them
     */
    public static function some(array $of, int $one): array
    {
        return array_values(array_filter($of, static fn (): bool => mt_rand(1, $one) === 1));
    }

    public function scene(): Scene
    {
        $columns = SceneBuilder::columns($this->parents, $this->layerOf, array_map(static fn (): int => 1, $this->parents), [], []);
        $scene = new Scene(new ColumnsInMemory($columns));
        foreach ($this->tagged as $tag => $objects) {
            $numbers = array_keys($objects);
            sort($numbers);
            $columns["tag.$tag"] = $numbers === [] ? '' : Bits::ofRows($scene->count(), $scene->rowsOf($numbers))->bytes;
        }

        return new Scene(new ColumnsInMemory($columns));
    }

    public function organizers(): Organizers
    {
        $layers = $tags = $folders = [];
        foreach ($this->layers as $number => $parent) {
            $layers[] = new Layer($number, $parent, $number, "Layer $number", '#3f7a63');
        }
        foreach ($this->folders as $number => $parent) {
            $folders[] = new Folder($number, Holds::Tags, $parent, $number, "Folder $number");
        }
        foreach ($this->tags as $number => $folder) {
            $tags[] = new Tag($number, $folder, $number, "Tag $number", '#3f7a63', Line::None);
        }

        return new Organizers(new LayerTree($layers), new TagTree($folders, $tags));
    }

    /**
     * What was sorted otherwise since.
     *
     * @param array<int, int>              $at     layers by object before
     * @param array<int, array<int, true>> $tagged objects by tag before
     */
    public function since(Scene $before, Organizers $from, array $at, array $tagged): Shift
    {
        $after = $this->scene();
        // What is new stands in no row of the scene before: the sorting is compared on the objects of both.
        $before = $after->count() === $before->count() ? $before : $after;
        $numbers = array_keys(array_diff_assoc(array_intersect_key($this->layerOf, $at), $at));
        $isOther = fn (int $tag): bool => isset($tagged[$tag]) && $tagged[$tag] != $this->tagged[$tag];
        $tags = array_filter(array_keys($this->tags), $isOther);

        return new Shift(
            $before,
            $from,
            $after,
            $this->organizers(),
            Bits::ofRows($before->count(), $before->rowsOf($numbers)),
            Bits::none($before->count()),
            array_values($tags),
        );
    }

    /** Something is sorted otherwise. */
    public function sort(): string
    {
        $objects = self::some(array_keys($this->parents), mt_rand(1, 6));

        switch (mt_rand(0, 13)) {
            case 0:
            case 1:
                $layer = $this->next++;
                $into = mt_rand(0, 1) === 0 ? 0 : $this->oneOf(array_diff(array_keys($this->layers), [1]));
                $this->layers[$layer] = $into;
                $this->file($objects, $layer);

                return "new layer $layer in $into";
            case 2:
            case 3:
            case 4:
                $layer = array_rand($this->layers);
                $this->file($objects, $layer);

                return "file under $layer";
            case 5:
            case 6:
                return $this->moveLayer();
            case 7:
                return $this->deleteLayer();
            case 8:
                $tag = $this->next++;
                $this->tags[$tag] = $this->oneOf([0, ...array_keys($this->folders)]);
                $this->tagged[$tag] = array_fill_keys($objects, true);

                return "new tag $tag";
            case 9:
                $tag = $this->oneOf(array_keys($this->tags));
                if ($tag !== 0) {
                    $those = array_fill_keys($objects, true);
                    $this->tagged[$tag] = mt_rand(0, 1) === 0 ? $this->tagged[$tag] + $those : array_diff_key($this->tagged[$tag], $those);
                }

                return "tag $tag";
            case 10:
                return $this->deleteTag();
            case 11:
                $tag = $this->oneOf(array_keys($this->tags));
                if ($tag !== 0) {
                    $this->moveTag($tag, $this->oneOf([0, ...array_keys($this->folders)]));
                }

                return "move tag $tag";
            case 12:
                return $this->folders();
            default:
                return $this->newcomer();
        }
    }

    /** @return array<int, int> rung of each object in the view */
    public function rungs(): array
    {
        $rungs = [];
        foreach (array_keys($this->parents) as $object) {
            if ($object > $this->known->object) {
                $rungs[$object] = 0;
                continue;
            }
            $rung = min($this->ofLayer($object), $this->alone[$object] ?? 5);
            for ($link = $object; $link !== 0; $link = $this->parents[$link]) {
                $rung = min($rung, $this->own[$link] ?? 5);
            }
            foreach ($this->tagged as $tag => $objects) {
                $rung = isset($objects[$object]) ? min($rung, $this->ofTag($tag)) : $rung;
            }
            $rungs[$object] = $rung;
        }

        return $rungs;
    }

    /**
     * What a layer was held at from above goes with it where something that the view does not know lay in it: objects stay as they were
     * then, though they could follow. That is as good as what the rules say, and rare; the rules cannot be followed any further from there.
     *
     * @param array<int, int> $is    what the rules say, by object
     * @param array<int, int> $was   before
     * @param array<int, int> $shown
     */
    public function staysWithLayer(string $did, array $is, array $was, array $shown): bool
    {
        $other = array_diff_assoc($shown, $is);

        return $other !== [] && str_starts_with($did, 'move layer') && array_intersect_key($was, $other) === $other;
    }

    /**
     * What the view shows with some settings, newcomers hidden.
     *
     * @return array<int, int> rung by object number
     */
    public function shown(Scene $scene, Organizers $organizers, Settings $settings): array
    {
        $newcomers = $this->known->newcomerRows($scene, $settings);
        $none = static fn (): ?InEffect => null;
        $applied = Applied::withNewcomers($settings, $scene, $newcomers, Applied::HIDDEN, $none);
        $rungs = (new InEffect($scene, $organizers, $applied))->rungs();
        $shown = [];
        foreach (array_keys($this->parents) as $object) {
            $shown[$object] = $rungs->at($scene->row($object));
        }

        return $shown;
    }

    /** @param list<int> $objects */
    private function file(array $objects, int $layer): void
    {
        foreach ($objects as $object) {
            if ($this->layerOf[$object] === $layer) {
                continue;
            }
            if ($this->known->layer($layer)) {
                unset($this->had[$object], $this->alone[$object]);
            } else {
                $this->had[$object] = $this->ofLayer($object);
            }
            $this->layerOf[$object] = $layer;
        }
    }

    private function ofLayer(int $object): int
    {
        if (! $this->known->layer($this->layerOf[$object])) {
            return $this->had[$object];
        }

        return min($this->saysAlone[$this->layerOf[$object]] ?? 5, $this->down($this->layerOf[$object]));
    }

    /** What the view says of a layer and of those above it, up to the first that it does not know. */
    private function down(int $layer): int
    {
        $rung = 5;
        for (; $layer !== 0 && $this->known->layer($layer); $layer = $this->layers[$layer]) {
            $rung = min($rung, $this->says[$layer] ?? 5);
        }

        return $rung;
    }

    private function ofTag(int $tag): int
    {
        return min($this->saysTags[$tag] ?? 5, $this->ofFolder($this->tags[$tag]));
    }

    private function ofFolder(int $folder): int
    {
        $rung = 5;
        for (; $folder !== 0; $folder = $this->folders[$folder]) {
            $rung = min($rung, $this->saysFolders[$folder] ?? 5);
        }

        return $rung;
    }

    private function moveLayer(): string
    {
        $layer = $this->oneOf(array_diff(array_keys($this->layers), [1]));
        if ($layer === 0) {
            return 'nothing to move';
        }
        $into = $this->oneOf([0, 0, ...array_diff(array_keys($this->layers), [1])]);
        for ($above = $into; $above !== 0; $above = $this->layers[$above]) {
            if ($above === $layer) {
                return "layer $layer stays";
            }
        }
        $this->put($layer, $into, false);

        return "move layer $layer into $into";
    }

    private function put(int $layer, int $into, bool $fromIsGone): void
    {
        $from = $this->layers[$layer];
        if ($from !== $into && $this->known->layer($layer) && ($into === 0 || ! $this->known->layer($into) || $fromIsGone)) {
            $this->says[$layer] = min($this->says[$layer] ?? 5, $this->down($from));
        }
        if ($from !== $into && $this->known->layer($layer) && $this->known->layer($into) && isset($this->saysAlone[$into])) {
            $this->says[$layer] = min($this->says[$layer] ?? 5, $this->saysAlone[$into]);
        }
        $this->layers[$layer] = $into;
    }

    private function deleteLayer(): string
    {
        $layer = $this->oneOf(array_diff(array_keys($this->layers), [1]));
        $others = array_diff(array_keys($this->layers), [$layer]);
        if ($layer === 0) {
            return 'nothing to delete';
        }
        $to = $this->oneOf($others);
        $this->file(array_keys($this->layerOf, $layer, true), $to);
        foreach (array_keys($this->layers, $layer, true) as $nested) {
            $this->put($nested, $this->layers[$layer], true);
        }
        unset($this->layers[$layer]);

        return "delete layer $layer, objects to $to";
    }

    private function deleteTag(): string
    {
        $tag = $this->oneOf(array_keys($this->tags));
        if ($tag === 0) {
            return 'no tag';
        }
        foreach (array_keys($this->tagged[$tag]) as $object) {
            if ($object <= $this->known->object && $this->ofTag($tag) < 5) {
                $this->alone[$object] = min($this->alone[$object] ?? 5, $this->ofTag($tag));
            }
        }
        unset($this->tags[$tag], $this->tagged[$tag]);

        return "delete tag $tag";
    }

    private function moveTag(int $tag, int $into): void
    {
        if ($into !== $this->tags[$tag] && ($into === 0 || ! $this->known->folder($into))) {
            $this->saysTags[$tag] = min($this->saysTags[$tag] ?? 5, $this->ofFolder($this->tags[$tag]));
        }
        $this->tags[$tag] = $into;
    }

    private function folders(): string
    {
        if (mt_rand(0, 1) === 0 || $this->folders === []) {
            $folder = $this->next++;
            $this->folders[$folder] = $this->oneOf([0, ...array_keys($this->folders)]);
            $tag = $this->oneOf(array_keys($this->tags));
            if ($tag !== 0) {
                $this->moveTag($tag, $folder);
            }

            return "new folder $folder around $tag";
        }
        $folder = $this->oneOf(array_keys($this->folders));
        $into = $this->folders[$folder];
        foreach (array_keys($this->tags, $folder, true) as $tag) {
            $this->saysTags[$tag] = min($this->saysTags[$tag] ?? 5, $this->ofFolder($folder));
            $this->tags[$tag] = $into;
        }
        foreach (array_keys($this->folders, $folder, true) as $nested) {
            $this->saysFolders[$nested] = min($this->saysFolders[$nested] ?? 5, $this->ofFolder($folder));
            $this->folders[$nested] = $into;
        }
        unset($this->folders[$folder]);

        return "delete folder $folder";
    }

    private function newcomer(): string
    {
        $object = count($this->parents) + 1;
        $this->parents[$object] = $this->oneOf([0, ...array_keys($this->parents)]);
        $this->layerOf[$object] = array_rand($this->layers);
        $this->had[$object] = 5;

        return "object $object comes";
    }

    /** @param array<int> $of @return int 0 where there is none */
    private function oneOf(array $of): int
    {
        return $of === [] ? 0 : $of[array_rand($of)];
    }
}
