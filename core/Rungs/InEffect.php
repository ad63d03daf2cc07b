<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Layers\LayerTree;
use VineShelf\Locks\Lock;
use VineShelf\Scene\Runs;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SubtreeCauses;

/** Rung and lock in effect for every object of a scene, as one desk sees it. */
final class InEffect
{
    private ?Runs $rungs = null;

    private ?Runs $locks = null;

    public function __construct(
        private readonly Scene $scene,
        private readonly LayerTree $layers,
        private readonly Settings $settings,
        private readonly ?Isolation $isolation = null,
    ) {}

    /** Rung per row. */
    public function rungs(): Runs
    {
        if ($this->rungs === null) {
            $own = [];
            foreach ($this->settings->objects as $number => $rung) {
                $row = $this->scene->row($number);
                if ($row !== 0) {
                    $own[$row] = $rung;
                }
            }
            $rungs = $this->resolve($this->layers->rungs($this->settings), $own, Rung::Full->value);
            $this->rungs = $this->isolation?->over($rungs, $this->scene) ?? $rungs;
        }

        return $this->rungs;
    }

    /** Lock per row. */
    public function locks(): Runs
    {
        if ($this->locks === null) {
            // The highest lock wins, so the same sweep runs on how open a row is.
            $openness = static fn (int $lock): int => Lock::Locked->value - $lock;
            $own = [];
            $locks = $this->scene->locks();
            foreach ($locks->values as $index => $lock) {
                if ($lock !== Lock::Open->value) {
                    for ($row = $locks->starts[$index]; $row <= $locks->end($index); $row++) {
                        $own[$row] = $openness($lock);
                    }
                }
            }
            $this->locks = $this->resolve(array_map($openness, $this->layers->locks()), $own, Lock::Locked->value)->map($openness);
        }

        return $this->locks;
    }

    public function rung(int $row): Rung
    {
        return Rung::from($this->rungs()->at($row));
    }

    public function lock(int $row): Lock
    {
        return Lock::from($this->locks()->at($row));
    }

    /** @return array{triangles: int, drawn: int} triangles at Full, and triangles drawn at the rungs in effect */
    public function weight(): array
    {
        $drawn = 0;
        $kinds = $this->scene->column('kind');
        foreach ($this->rungs()->starts as $index => $start) {
            $rung = $this->rungs()->values[$index];
            $end = $this->rungs()->end($index);
            if ($rung >= Rung::Ghost->value) {
                $drawn += $this->scene->triangles($start, $end);
            } elseif ($rung === Rung::Box->value) {
                $drawn += 12 * substr_count(substr($kinds, $start, $end - $start + 1), "\1");
            }
        }

        return ['triangles' => $this->scene->count() === 0 ? 0 : $this->scene->triangles(1, $this->scene->count()), 'drawn' => $drawn];
    }

    /**
     * @param array<int, int> $layerValue
     * @param array<int, int> $own
     */
    private function resolve(array $layerValue, array $own, int $most): Runs
    {
        return SubtreeCauses::resolve($this->scene->layers(), $this->scene->column('parent'), $this->scene->column('end'), $layerValue, $own, $most);
    }
}
