<?php

declare(strict_types=1);

namespace App\Lighten;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Files\Png;
use VineShelf\Facts\Facts;
use VineShelf\Lighten\Apart;
use VineShelf\Lighten\Chosen;
use VineShelf\Lighten\Drawing;
use VineShelf\Lighten\LayersChoice;
use VineShelf\Lighten\Losses;
use VineShelf\Lighten\Options;
use VineShelf\Lighten\Raster;
use VineShelf\Lighten\Seen;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Relatives;
use VineShelf\Scene\Scene;

/** Works out which rungs fit a budget and lose as little as possible of what is seen. */
final class Proposing
{
    /** Pixels that a picture is wide, of one camera and of several. */
    private const WIDE = [480, 240];

    /** Triangles drawn for a picture, of one camera and of all of several. */
    private const TRIANGLES = [250_000, 500_000];

    /** Cameras for which what comes of it is drawn as well. */
    private const DRAWN_TWICE = 4;

    /** Layers that are listed. */
    private const LISTED = 60;

    private readonly Facts $facts;

    private readonly Scene $scene;

    /** As it stands. */
    private readonly Levels $base;

    private readonly Bits $free;

    private int $locked;

    private int $kept;

    private ?KeptVersions $shapes = null;

    /**
     * @param (\Closure(int): void)|null $told hears now and then how far it is, in percent
     *
     * @throws Refused where rungs would do nothing
     */
    public function __construct(private readonly Bench $bench, private readonly Asked $asked, private readonly ?\Closure $told = null)
    {
        if ($asked->side === 'desk' && $bench->isolation()->isOn()) {
            throw new Refused('Some objects are looked at alone, whatever their rungs are. Go back first.', 'side');
        }
        $this->facts = $bench->facts();
        $this->scene = $bench->scene();
        $this->base = $asked->side === 'desk' ? $bench->seen()->rungs() : $bench->outputs()->side()->inEffect->rungs();
        $locked = $bench->inEffect()->locked();
        $keep =
            $asked->keep === null
                ? Bits::none($this->scene->count())
                : Relatives::within($this->scene, $this->scene->rowBits($asked->keep));
        $drawn = $this->parts()->and($this->base->atLeast(Rung::Box->value));
        $this->free = $locked->or($keep)->not();
        $this->locked = $locked->and($drawn)->count();
        $this->kept = $keep->and($drawn)->count();
    }

    /** From how large everything is alone; within a second on the largest models, and of weights the triangles only. @throws Refused */
    public function quick(): Proposal
    {
        $seen =
            $this->asked->cameras === []
                ? [Seen::fromEverywhere($this->facts, $this->base)]
                : array_map(fn (int $at): Seen => $this->drawing($at)->sized($this->base), array_keys($this->asked->cameras));

        return $this->proposal($seen, [], true);
    }

    /** From what is to be seen. @throws Refused when it cannot fit */
    public function whole(): Proposal
    {
        $cameras = array_keys($this->asked->cameras);
        $steps = 2 * count($cameras) + 2;
        $seen = [];
        foreach ($cameras as $at) {
            $seen[] = $this->drawing($at)->of($this->base);
            $this->tell(($at + 1) / $steps);
        }
        $this->shapes = null;

        return $this->proposal(
            $seen === [] ? [Seen::fromEverywhere($this->facts, $this->base)] : $seen,
            array_slice($cameras, 0, count($cameras) > self::DRAWN_TWICE ? 1 : null),
        );
    }

    private function parts(): Bits
    {
        return $this->facts->ranked('kind')->in([Kind::Part->value]);
    }

    private function tell(float $share): void
    {
        $this->told === null || ($this->told)((int) (100 * $share));
    }

    /**
     * @param list<Seen> $seen
     * @param list<int>  $again cameras for which what comes of it is drawn
     *
     * @throws Refused
     */
    private function proposal(array $seen, array $again, bool $isGuess = false): Proposal
    {
        $losses = new Losses($this->facts, $this->base, $this->free, $seen, $this->asked->hides);
        $budget = $this->asked->triangles - $losses->fixed;
        $chosen = $this->asked->by === 'objects' ? $losses->nested()->within($budget, $isGuess) : null;
        $layers = $this->asked->by === 'layers' ? $this->layers($losses) : [];
        if ($this->asked->by === 'layers' && $layers !== null) {
            $chosen = $this->ofLayers($losses, $layers);
        }
        if ($chosen === null || $layers === null) {
            throw new Refused($this->tooLittle($losses), 'triangles');
        }
        $this->tell((count($seen) + 1) / (2 * count($seen) + 2));
        $after = $isGuess ? $this->base : $this->after($losses, $chosen, $layers);
        [$pictures, $differs, $pictured] = $this->pictures($seen, $again, $after);

        return new Proposal(
            $this->settings($losses, $chosen, $layers),
            $this->report($losses, $chosen, $isGuess ? null : $after) + ['differs' => $differs, 'pictured' => $pictured],
            $pictures,
        );
    }

    private function tooLittle(Losses $losses): string
    {
        $least = number_format($losses->fixed + $losses->nested()->least());
        $reasons = [];
        $this->locked > 0 && ($reasons[] = number_format($this->locked).' locked');
        $this->kept > 0 && ($reasons[] = number_format($this->kept).' to be kept');
        $asked = number_format($this->asked->triangles);

        return $this->asked->by === 'layers'
            ? "Layers alone do not bring it down to $asked triangles: none is lowered that holds what is locked or to be kept."
            : "It does not come down to $asked triangles: the least is $least".
                    ($reasons === [] ? '.' : ', since '.implode(' and ', $reasons).' objects stay as they are.');
    }

    private function drawing(int $at): Drawing
    {
        $isOne = count($this->asked->cameras) === 1;
        $section = $this->asked->side === 'desk' ? $this->bench->cutting() : null;

        return Looking::from(
            $this->facts,
            $this->asked->cameras[$at],
            self::WIDE[$isOne ? 0 : 1],
            $this->shapes ??= new KeptVersions($this->bench),
            $section?->section->planes() ?? [],
            $section?->across(),
            $isOne ? self::TRIANGLES[0] : intdiv(self::TRIANGLES[1], count($this->asked->cameras)),
        );
    }

    /**
     * @return array<int, int>|null rung by layer
     */
    private function layers(Losses $losses): ?array
    {
        /** @var array<int, array<int, int>> $costs */
        $costs = [];
        /** @var array<int, array<int, float>> $lost */
        $lost = [];
        $parents = [];
        foreach ($this->bench->layers()->walk() as [$layer]) {
            $parents[$layer->number] = $layer->parent;
            $costs[$layer->number] = array_fill_keys(LayersChoice::CAPS, 0);
            $lost[$layer->number] = array_fill_keys(LayersChoice::CAPS, 0.0);
        }
        $layerOf = $this->scene->layers();
        $options = $losses->options;
        foreach ($losses->rows as $at => $row) {
            $layer = $layerOf->at($row);
            $now = $this->base->at($row);
            [$cost, $loss] = [$options->costs[$at], 0.0];
            $costs[$layer][5] += $cost;
            foreach (Options::RUNGS as $rung) {
                if ($now > $rung) {
                    $there = $options->lossesAt[$rung][$at];
                    [$cost, $loss] = [$options->costsAt[$rung][$at], $there < 0 ? INF : $there];
                }
                $costs[$layer][$rung] += $cost;
                $lost[$layer][$rung] += $loss;
            }
        }
        // A layer is not lowered that holds something that stays as it is.
        foreach ($this->free->not()->and($this->parts())->rows() as $row) {
            foreach (Options::RUNGS as $rung) {
                if ($this->base->at($row) > $rung) {
                    $lost[$layerOf->at($row)][$rung] = INF;
                }
            }
        }

        return (new LayersChoice($parents, $costs, $lost))->within($this->asked->triangles - $losses->fixed);
    }

    /**
     * What rungs of layers do to objects.
     *
     * @param array<int, int> $layers
     */
    private function ofLayers(Losses $losses, array $layers): Chosen
    {
        $caps = $this->bench->layers()->lowest($layers, Rung::Full->value);
        $options = $losses->options;
        $rungs = [];
        [$cost, $loss] = [$options->cost(), 0.0];
        foreach ($losses->rows as $at => $row) {
            $cap = $caps[$this->scene->layers()->at($row)] ?? Rung::Full->value;
            if ($cap < $this->base->at($row)) {
                $rungs[$at] = $cap;
                $cost += $options->costsAt[$cap][$at] - $options->costs[$at];
                $loss += max(0.0, $options->lossesAt[$cap][$at]);
            }
        }

        return new Chosen($rungs, $cost, $loss, 0.0);
    }

    /** @param array<int, int> $layers */
    private function after(Losses $losses, Chosen $chosen, array $layers): Levels
    {
        $after = $this->base;
        $full = Rung::Full->value;
        if ($layers !== []) {
            return $after->lowest(Levels::byValue($this->scene->layers(), $this->bench->layers()->lowest($layers, $full), $full, $full));
        }
        foreach ($this->rows($losses, $chosen) as $rung => $rows) {
            $after = $after->lowest(Levels::within($rows, $full, $rung, $full));
        }

        return $after;
    }

    /** @return array<int, Bits> rows by rung that they are lowered to */
    private function rows(Losses $losses, Chosen $chosen): array
    {
        $by = [];
        foreach ($chosen->rungs as $at => $rung) {
            $by[$rung][] = $losses->rows[$at];
        }
        ksort($by);

        return array_map(fn (array $rows): Bits => Bits::ofRows($this->scene->count(), $rows), $by);
    }

    /** @param array<int, int> $layers */
    private function settings(Losses $losses, Chosen $chosen, array $layers): Settings
    {
        return $layers !== []
            ? new Settings($layers)
            : new Settings([], array_map($this->scene->numberBits(...), $this->rows($losses, $chosen)));
    }

    /**
     * @param list<Seen> $seen
     * @param list<int>  $again
     *
     * @return array{array<string, string>, float|null, int|null} pictures of the camera that loses most, the part of all their pixels that
     *     differ, and which camera that is
     */
    private function pictures(array $seen, array $again, Levels $after): array
    {
        $pictures = [];
        $differs = 0.0;
        $most = -1.0;
        $pictured = null;
        foreach ($again as $at) {
            $before = $seen[$at]->raster;
            $then = $this->drawing($at)->of($after)->raster;
            if (! ($before instanceof Raster) || ! ($then instanceof Raster)) {
                continue;
            }
            $apart = new Apart($before->colours, $then->colours);
            $differs += $apart->share / count($again);
            if ($apart->share > $most) {
                [$most, $pictured] = [$apart->share, $at];
                $pictures = array_map(static fn (array $pixels): string => Png::of($pixels, $before->width), [
                    'before' => $before->colours,
                    'after' => $then->colours,
                    'lost' => $apart->marked,
                ]);
            }
            $this->tell((count($seen) + 2 + $at) / (2 * count($seen) + 2));
        }

        return [$pictures, $again === [] ? null : $differs, $pictured];
    }

    /**
     * @return array{
     *     before: array{triangles: int, calls: int, bytes: int}, after: array{triangles: int, calls: int, bytes: int},
     *     loss: float, bound: float, lowered: array<int, int>, unseen: int, locked: int, kept: int, unready: int,
     *     layers: list<array{layer: int, name: string, rungs: array<int, int>, saves: int, loss: float}>
     * }
     */
    private function report(Losses $losses, Chosen $chosen, ?Levels $after): array
    {
        $options = $losses->options;
        $layers = $lowered = [];
        $unseen = 0;
        foreach ($chosen->rungs as $at => $rung) {
            $layer = $this->scene->layers()->at($losses->rows[$at]);
            $layers[$layer] ??= ['layer' => $layer, 'name' => '', 'rungs' => [], 'saves' => 0, 'loss' => 0.0];
            $layers[$layer]['rungs'][$rung] = ($layers[$layer]['rungs'][$rung] ?? 0) + 1;
            $layers[$layer]['saves'] += $options->costs[$at] - $options->costsAt[$rung][$at];
            $layers[$layer]['loss'] += max(0.0, $options->lossesAt[$rung][$at]);
            $lowered[$rung] = ($lowered[$rung] ?? 0) + 1;
            $unseen += max($options->lossesAt[0][$at], $options->lossesAt[1][$at]) <= 0.0 ? 1 : 0;
        }
        usort($layers, static fn (array $a, array $b): int => $b['saves'] <=> $a['saves']);
        krsort($lowered);
        $listed = [];
        foreach (array_slice($layers, 0, self::LISTED) as $layer) {
            ksort($layer['rungs']);
            $listed[] = ['name' => $this->bench->layers()->path($layer['layer'])] + $layer;
        }

        return [
            'before' => $after === null ? self::triangles($losses->fixed + $options->cost()) : $this->weight($this->base),
            'after' => $after === null ? self::triangles($losses->fixed + $chosen->cost) : $this->weight($after),
            'loss' => $chosen->loss,
            'bound' => $chosen->bound,
            'lowered' => $lowered,
            'unseen' => $unseen,
            'locked' => $this->locked,
            'kept' => $this->kept,
            'unready' => $after === null ? 0 : Coarsening::left($this->bench->project),
            'layers' => $listed,
        ];
    }

    /** @return array{triangles: int, calls: int, bytes: int} */
    private static function triangles(int $triangles): array
    {
        return ['triangles' => $triangles, 'calls' => 0, 'bytes' => 0];
    }

    /** @return array{triangles: int, calls: int, bytes: int} */
    private function weight(Levels $rungs): array
    {
        $weight = $this->bench->weights()->inEffect(Bits::all($this->scene->count()), $rungs);

        return ['triangles' => $weight->triangles, 'calls' => $weight->calls, 'bytes' => $weight->bytes()];
    }
}
