<?php

declare(strict_types=1);

namespace App\Presenting;

use App\Bench\Bench;
use App\Models\Desk;
use App\Models\View;
use App\Scenes\SceneStore;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;

/**
 * Views in the order of the shelf, one step after the other, on a desk of nobody.
 *
 * It begins with everything at Full, nothing isolated, cut or tinted. What a view does not keep stays as the views before it left it, as
 * when somebody applies them one by one; so a step is the same however one comes to it.
 */
final class Presentation
{
    /** @var list<View> */
    public readonly array $views;

    private readonly Bench $stage;

    /** @var list<Desk> as each step leaves it */
    private array $desks = [];

    /**
     * @param array<int> $numbers    of the views
     * @param bool       $asPictures whether each step shows what pictures of its view show
     */
    public function __construct(Bench $bench, array $numbers, bool $asPictures = false)
    {
        $wanted = array_flip($numbers);
        $this->views = array_values(array_filter($bench->shelf()->inOrder(), static fn (View $view): bool => isset($wanted[$view->no])));
        $this->stage = new Bench(app(SceneStore::class), $bench->project, $bench->person, self::plain($bench, $asPictures));
    }

    public function count(): int
    {
        return count($this->views);
    }

    /** The bench as a step shows it; good until another step is asked for. @param int $step from 0 on */
    public function at(int $step): Bench
    {
        for ($next = count($this->desks); $next <= $step; $next++) {
            $before = $this->desks[$next - 1] ?? $this->stage->desk;
            $this->stage->sit($before);
            $this->desks[] = $this->after($before, $this->views[$next]);
        }
        if ($this->stage->desk !== $this->desks[$step]) {
            $this->stage->sit($this->desks[$step]);
        }

        return $this->stage;
    }

    /** Rows that a step shows. */
    public function shownAt(int $step): Bits
    {
        return $this->at($step)->shown()->inEffect->rungs()->atLeast(Rung::Box->value);
    }

    /** Rows that any of the steps shows: all that whoever looks at it may know of. */
    public function shown(): Bits
    {
        $rows = Bits::none($this->stage->scene()->count());
        foreach (array_keys($this->views) as $step) {
            $rows = $rows->or($this->shownAt($step));
        }

        return $rows;
    }

    /**
     * Where a step is looked at from: the camera of its view, or of the last one before it that keeps one; null where none does.
     *
     * @return array<string, mixed>|null
     */
    public function cameraAt(int $step): ?array
    {
        for (; $step >= 0; $step--) {
            if ($this->views[$step]->camera !== null) {
                return $this->views[$step]->camera;
            }
        }

        return null;
    }

    private function after(Desk $before, View $view): Desk
    {
        $desk = clone $before;
        if ($view->keepsRungs()) {
            $desk->putSettings($this->stage->applied($view));
        }
        $desk->view_no = $view->no;
        $desk->tint = $view->tint ?? $desk->tint;
        $desk->section = $view->section ?? $desk->section;
        $isolation = $view->isolation();
        if ($isolation !== null) {
            $desk->putIsolation($isolation);
        }
        // What is compared belongs to the desk where it was.
        if (($desk->tint['by'] ?? '') === 'compare') {
            $desk->tint = [];
        }

        return $desk;
    }

    private static function plain(Bench $bench, bool $asPictures): Desk
    {
        return new Desk(['project_id' => $bench->project->id, 'user_id' => $bench->person->id, 'shows_output' => $asPictures]);
    }
}
