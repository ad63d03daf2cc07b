<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Models\View;
use VineShelf\Layers\Layer;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;

/** What came since views were kept: objects that each of them does not know, and layers that were made since. */
final class Newcomers
{
    /** @var array<string, Bits> rows by what the view knows: most views know the same */
    private array $rows = [];

    /** @var list<View> */
    public readonly array $views;

    /** @param array<int> $numbers of the views, in the order on the shelf */
    public function __construct(private readonly Bench $bench, array $numbers)
    {
        $this->views = array_values(
            array_filter(
                $bench->shelf()->inOrder(),
                static fn (View $view): bool => in_array($view->no, $numbers, true) && $view->keepsRungs(),
            ),
        );
    }

    /** Rows of the objects that a view does not know. */
    public function of(View $view): Bits
    {
        $key =
            $view->known_object.
            ' '.
            md5($view->strangers()->bytes).
            ' '.
            md5($view->settings()->objects === [] ? '' : (string) $view->no);

        return $this->rows[$key] ??= $this->bench->newTo()->rows($view);
    }

    /** Rows of the objects that any of the views does not know. */
    public function all(): Bits
    {
        $rows = Bits::none($this->bench->scene()->count());
        foreach ($this->views as $view) {
            $rows = $rows->or($this->of($view));
        }

        return $rows;
    }

    /** @return list<array{string, int}> path of the layer and how many of the newcomers lie in it, most first */
    public function byLayer(): array
    {
        $counts = $this->bench->scene()->layers()->histogram($this->all());
        arsort($counts);
        $layers = [];
        foreach ($counts as $layer => $count) {
            $layers[] = [$this->bench->layers()->path($layer), $count];
        }

        return $layers;
    }

    /** @return list<array{Layer, Rung, int}> layers made since a view was kept: what it has them at, and how many objects it holds lower */
    public function layersSince(View $view): array
    {
        $known = $this->bench->newTo()->known($view);
        $settings = $view->settings();
        $layers = [];
        foreach ($this->bench->layers()->walk() as [$layer]) {
            if (! $known->layer($layer->number)) {
                $rows = $this->bench
                    ->scene()
                    ->layers()
                    ->rowsOf([$layer->number => true]);
                $lower = 0;
                foreach ($settings->objectsAlone as $numbers) {
                    $lower += $this->bench->scene()->rowBits($numbers)->and($rows)->count();
                }
                $layers[] = [$layer, $settings->layer($layer->number) ?? Rung::Full, $lower];
            }
        }

        return $layers;
    }
}
