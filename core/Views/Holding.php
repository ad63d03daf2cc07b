<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Layers\LayerTree;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;

/**
 * Keeps what a view shows as it was while people sort by what the view does not know.
 *
 * A layer that was made later gets in the view the highest rung that any object in it had there from its former layer; objects that were
 * lower are held alone. So whatever is filed under it looks as it did, also where it lies in a layer that the view lowers: that one is
 * raised then, and what else lies in it is lowered instead. Layers, tags and folders that move to the top, or into what the view does not
 * know, take along what held them from above. What goes under a layer that the view knows follows what the view says of that layer.
 *
 * What is held this way, and what follows, is worked out for every object in the tests by going up every chain.
 */
final class Holding
{
    private const FULL = Rung::Full->value;

    private readonly LayerTree $layers;

    /** @var array<int, int> what the objects right under a layer had from it and from above, by layer before */
    private readonly array $had;

    /** @var array<int, int> what the view said of layers and of those above them before, up to the first unknown one, by number */
    private readonly array $hadAbove;

    private readonly Bits $counted;

    /** @var array<int, Bits> rows that were held alone before, by rung */
    private readonly array $alone;

    private Settings $settings;

    /** @var array<int, array<int, Bits>> rows right under a layer that the view does not know, by what they had, by layer */
    private array $lying = [];

    /**
     * @param Settings $before what the view kept before the change
     * @param Settings $now    what it keeps now: the same, unless the change itself was about the view
     * @param Bits     $counted rows that the view has something to say about: no newcomers, nothing that is gone
     */
    public function __construct(
        private readonly Shift $shift,
        private readonly Known $known,
        Settings $before,
        private readonly Settings $now,
        Bits $counted,
    ) {
        $this->layers = $shift->to->layers;
        $this->had = (new InEffect($shift->before, $shift->from, $before))->layerRungs();
        $this->hadAbove = self::above($shift->from->layers, $known, $before);
        $this->counted = $counted;
        $this->alone = array_map($shift->before->rowBits(...), $before->objectsAlone);
        $this->settings = $now;
    }

    /** @return array<int, int> */
    private static function above(LayerTree $layers, Known $known, Settings $before): array
    {
        $above = [];
        foreach ($layers->walk() as [$layer]) {
            $above[$layer->number] = $known->layer($layer->number)
                ? min($above[$layer->parent] ?? self::FULL, $before->layers[$layer->number] ?? self::FULL)
                : self::FULL;
        }

        return $above;
    }

    /** What the view is to keep from now on. */
    public function settings(): Settings
    {
        $this->takeAlongLayers();
        $this->takeAlongTags();
        $this->followKnown();
        $values = $this->values();
        foreach ($this->layers->walk() as [$layer]) {
            if (isset($values[$layer->number])) {
                $this->raiseAbove($layer->number, $values[$layer->number]);
                $this->settings = $this->settings->withLayerRungs([
                    $layer->number => $values[$layer->number] === self::FULL ? null : $values[$layer->number],
                ]);
            }
        }
        foreach ($this->lying as $layer => $rows) {
            if ($rows !== []) {
                $this->hold($layer, $rows);
            }
        }
        $this->holdWithoutTags();

        return $this->settings;
    }

    /** Layers that went to the top, out of a layer that is no more, or into one that the view does not know, take along what held them. */
    private function takeAlongLayers(): void
    {
        foreach ($this->shift->movedLayers() as $number => [$from, $to]) {
            $follows = $to !== 0 && $this->known->layer($to);
            $held = $follows && $this->layers->has($from) ? self::FULL : $this->hadAbove[$from] ?? self::FULL;
            if ($follows && $this->known->layer($number)) {
                // Of a layer that was raised for what the view does not know, this is what the view still says.
                $held = min($held, $this->settings->layersAlone[$to] ?? self::FULL);
            }
            if ($held < ($this->settings->layers[$number] ?? self::FULL)) {
                $this->settings = $this->settings->withLayerRungs([$number => $held]);
            }
        }
    }

    /** The same for tags and folders. */
    private function takeAlongTags(): void
    {
        $tags = $this->shift->from->tags;
        $had = $tags->lowest($this->settings->tags, $this->settings->folders, self::FULL);
        foreach ($this->shift->movedTags() as $key => [$from, $to]) {
            $held = $had["F$from"] ?? self::FULL;
            $number = (int) substr($key, 1);
            if ($held === self::FULL || ($to !== 0 && $this->known->folder($to) && $this->shift->to->tags->hasFolder($from))) {
                continue;
            }
            $this->settings =
                $key[0] === 'M'
                    ? $this->settings->withTags([$number], Rung::from(min($held, $this->settings->tags[$number] ?? self::FULL)))
                    : $this->settings->withFolders([$number], Rung::from(min($held, $this->settings->folders[$number] ?? self::FULL)));
        }
    }

    /** Objects of tags that are no more are held alone. */
    private function holdWithoutTags(): void
    {
        $had = $this->shift->from->tags->lowest($this->now->tags, $this->now->folders, self::FULL);
        foreach ($this->shift->goneTags() as $tag) {
            $held = $had["M$tag"] ?? self::FULL;
            if ($held < self::FULL) {
                $this->lower($this->shift->before->tagged($tag)->and($this->counted), $held);
            }
        }
    }

    /** Objects that went under a layer that the view knows are no longer held for where they came from. */
    private function followKnown(): void
    {
        foreach ($this->shift->filings() as [, $to, $rows]) {
            if ($this->known->layer($to) && $this->settings->objectsAlone !== []) {
                $this->settings = $this->settings->withObjectsAlone($this->shift->after->numberBits($rows), null);
            }
        }
    }

    /** @return array<int, int> rungs of the layers that the view does not know and that hold anything, by number */
    private function values(): array
    {
        $values = [];
        foreach (array_reverse($this->layers->walk()) as [$layer]) {
            $number = $layer->number;
            if ($this->known->layer($number)) {
                continue;
            }
            $this->lying[$number] = array_filter($this->lyingIn($number), static fn (Bits $rows): bool => ! $rows->isEmpty());
            $needs = array_keys($this->lying[$number]);
            foreach ($this->layers->inside($number) as $nested) {
                if (isset($values[$nested])) {
                    $needs[] = $values[$nested];
                } elseif ($this->known->layer($nested) && $this->holdsAny($nested)) {
                    $needs[] = $this->settings->layers[$nested] ?? self::FULL;
                }
            }
            if ($needs !== []) {
                $own = $this->settings->layers[$number] ?? self::FULL;
                $values[$number] = $this->heldAny($number) ? max($own, ...$needs) : max($needs);
            }
        }

        return $values;
    }

    /** @return array<int, Bits> rows that lie right under a layer now, by the rung that they had from where they lay */
    private function lyingIn(int $layer): array
    {
        $rows = $this->shift->under($layer)->and($this->counted);
        $lying = [];
        foreach ($this->shift->filings() as [$from, $to, $those]) {
            if ($to === $layer) {
                $this->sort($lying, $those->and($rows), $this->had[$from] ?? self::FULL);
                $rows = $rows->without($those);
            }
        }
        $this->sort($lying, $rows, $this->had[$layer] ?? self::FULL);

        return $lying;
    }

    /** @param array<int, Bits> $lying by rung */
    private function sort(array &$lying, Bits $rows, int $had): void
    {
        foreach ($this->alone as $rung => $held) {
            if ($rung < $had) {
                $lying[$rung] = ($lying[$rung] ?? Bits::none($rows->length))->or($rows->and($held));
                $rows = $rows->without($held);
            }
        }
        $lying[$had] = ($lying[$had] ?? Bits::none($rows->length))->or($rows);
    }

    /** Whether anything that counts lies in a layer or in those nested in it. */
    private function holdsAny(int $layer): bool
    {
        $layers = array_fill_keys($this->layers->withNested($layer), true);

        return ! $this->shift->after->layers()->rowsOf($layers)->and($this->counted)->isEmpty();
    }

    /** Whether anything that counts lay in a layer before. */
    private function heldAny(int $layer): bool
    {
        if (! $this->shift->from->layers->has($layer)) {
            return false;
        }
        $layers = array_fill_keys($this->shift->from->layers->withNested($layer), true);

        return ! $this->shift->before->layers()->rowsOf($layers)->and($this->counted)->isEmpty();
    }

    /** Layers above that would hold a layer down are raised, and what else lies in them is lowered instead. */
    private function raiseAbove(int $number, int $to): void
    {
        foreach (array_slice(array_reverse($this->layers->chain($number)), 0, -1) as $above) {
            $held = $this->settings->layers[$above->number] ?? self::FULL;
            if ($held < $to) {
                $this->settings = self::raised($this->settings, $this->layers, $above->number, $to);
            }
        }
    }

    /** The settings with a layer raised, and all that lies in it lowered to what it was at instead. */
    public static function raised(Settings $settings, LayerTree $layers, int $number, int $to): Settings
    {
        $held = $settings->layers[$number] ?? self::FULL;
        $rungs = [$number => $to === self::FULL ? null : $to];
        foreach ($layers->inside($number) as $nested) {
            $rungs[$nested] = min($held, $settings->layers[$nested] ?? self::FULL);
        }
        $alone = min($held, $settings->layersAlone[$number] ?? self::FULL);

        return $settings->withLayerRungs($rungs)->withLayersAlone([$number], Rung::from($alone));
    }

    /**
     * What lies right under a layer is held alone where it was lower than the layer is.
     *
     * @param non-empty-array<int, Bits> $lying rows by rung
     */
    private function hold(int $layer, array $lying): void
    {
        if (($this->settings->layersAlone[$layer] ?? self::FULL) < max(array_keys($lying))) {
            $this->settings = $this->settings->withLayersAlone([$layer], null);
        }
        $now = self::FULL;
        foreach ($this->layers->chain($layer) as $link) {
            $now = min($now, $this->settings->layers[$link->number] ?? self::FULL);
        }
        $now = min($now, $this->settings->layersAlone[$layer] ?? self::FULL);
        foreach ($lying as $rung => $rows) {
            if ($rung < $now || $this->settings->objectsAlone !== []) {
                $numbers = $this->shift->after->numberBits($rows);
                $this->settings = $this->settings->withObjectsAlone($numbers, $rung < $now ? Rung::from($rung) : null);
            }
        }
    }

    /** Objects are held alone at a rung at most. */
    private function lower(Bits $rows, int $rung): void
    {
        foreach ($this->settings->objectsAlone as $held => $numbers) {
            $rows = $held <= $rung ? $rows->without($this->shift->after->rowBits($numbers)) : $rows;
        }
        $this->settings = $this->settings->withObjectsAlone($this->shift->after->numberBits($rows), Rung::from($rung));
    }
}
