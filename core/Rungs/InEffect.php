<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Locks\Lock;
use VineShelf\Organizers\Organizers;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Relatives;
use VineShelf\Scene\Scene;

/**
 * Rung and lock in effect for every object of a scene, as one desk sees it.
 *
 * A row's rung is the lowest of its own, those of the groups above it, and what its layer and its tags have in effect; its lock the highest
 * along the same chain. Layers and tags hold by membership, row by row; only what is set on a group itself reaches down. A slow walk up
 * every chain stands in the tests.
 */
final class InEffect
{
    private ?Levels $rungs = null;

    private ?Levels $locks = null;

    public function __construct(
        private readonly Scene $scene,
        private readonly Organizers $organizers,
        private readonly Settings $settings,
        private readonly ?Isolation $isolation = null,
    ) {}

    /** The same objects under other settings; locks do not depend on those. */
    public function under(Settings $settings, ?Isolation $isolation): self
    {
        $other = new self($this->scene, $this->organizers, $settings, $isolation);
        $other->locks = $this->locks;

        return $other;
    }

    /** The same with some rows hidden, as those that a section cuts away. */
    public function without(Bits $rows): self
    {
        return $this->known($this->rungs()->except($rows, Levels::constant($this->scene->count(), Rung::Full->value, Rung::Hidden->value)));
    }

    /** With rungs that were worked out from the same settings before. */
    public function known(Levels $rungs): self
    {
        $other = $this->under($this->settings, $this->isolation);
        $other->rungs = $rungs;

        return $other;
    }

    /** Rung per row. */
    public function rungs(): Levels
    {
        if ($this->rungs === null) {
            $full = Rung::Full->value;
            $rungs = Levels::byValue($this->scene->layers(), $this->layerRungs(), $full, $full);
            $held = Bits::none($this->scene->count());
            foreach ($this->tagged($this->tagRungs(), $full) as $rung => $rows) {
                $rungs = $rungs->lowest(Levels::within($rows, $full, $rung, $full));
            }
            foreach ($this->settings->objects as $rung => $numbers) {
                if ($rung < $full) {
                    // What a lower rung holds down already need not be looked at again.
                    $rows = Relatives::within($this->scene, $this->scene->rowBits($numbers))->without($held);
                    $held = $held->or($rows);
                    $rungs = $rungs->lowest(Levels::within($rows, $full, $rung, $full));
                }
            }
            foreach ($this->settings->objectsAlone as $rung => $numbers) {
                if ($rung < $full) {
                    $rungs = $rungs->lowest(Levels::within($this->scene->rowBits($numbers), $full, $rung, $full));
                }
            }
            if ($this->settings->ceiling < $full) {
                $rungs = $rungs->lowest(Levels::constant($rungs->length, $full, $this->settings->ceiling));
            }
            $this->rungs = $this->isolation?->over($rungs, $this->scene) ?? $rungs;
        }

        return $this->rungs;
    }

    /** Lock per row. */
    public function locks(): Levels
    {
        if ($this->locks === null) {
            $most = Lock::Locked->value;
            $locks = Levels::byValue($this->scene->layers(), $this->organizers->layers->locks(), $most, Lock::Open->value);
            foreach ($this->tagged($this->organizers->tags->locks(), Lock::Open->value) as $lock => $rows) {
                $locks = $locks->highest(Levels::within($rows, $most, $lock, Lock::Open->value));
            }
            foreach ([Lock::Guarded->value, Lock::Locked->value] as $lock) {
                $rows = $this->scene->locks()->rowsOf([$lock => true]);
                if (! $rows->isEmpty()) {
                    $locks = $locks->highest(Levels::within(Relatives::within($this->scene, $rows), $most, $lock, Lock::Open->value));
                }
            }
            $this->locks = $locks;
        }

        return $this->locks;
    }

    /** @return array<int, int> by layer number: what its own objects, not those of the layers nested in it, have from it and from above */
    public function layerRungs(): array
    {
        $rungs = $this->organizers->layers->lowest($this->settings->layers, Rung::Full->value);
        foreach ($this->settings->layersAlone as $layer => $rung) {
            $rungs[$layer] = min($rung, $rungs[$layer] ?? Rung::Full->value);
        }

        return $rungs;
    }

    /** @return array<string, int> rung in effect by "M7" for a tag and "F3" for a folder, as {@see \VineShelf\Tags\TagTree} has them */
    public function tagRungs(): array
    {
        return $this->organizers->tags->lowest($this->settings->tags, $this->settings->folders, Rung::Full->value);
    }

    /**
     * @param array<string, int> $steps what tags and folders have in effect
     *
     * @return array<int, Bits> the rows that have tags at a step, by step
     */
    private function tagged(array $steps, int $but): array
    {
        $rows = [];
        foreach ($steps as $key => $step) {
            if ($step !== $but && $key[0] === 'M') {
                $those = $this->scene->tagged((int) substr($key, 1));
                $rows[$step] = isset($rows[$step]) ? $rows[$step]->or($those) : $those;
            }
        }

        return $rows;
    }

    public function rung(int $row): Rung
    {
        return Rung::from($this->rungs()->at($row));
    }

    public function lock(int $row): Lock
    {
        return Lock::from($this->locks()->at($row));
    }

    /** Rows that refuse every command. */
    public function locked(): Bits
    {
        return $this->locks()->being(Lock::Locked->value);
    }
}
