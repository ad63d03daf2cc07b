<?php

declare(strict_types=1);

namespace App\Presenting;

use App\Bench\Bench;
use App\Database\ReadSnapshot;
use App\Models\Desk;
use App\Models\View;
use App\Scenes\SceneStore;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Drawn;

/**
 * Views in the order of the shelf, one step after the other, on a desk of nobody.
 *
 * It begins with everything at Full, nothing isolated, cut or tinted. What a view does not keep stays as the views before it left it, as
 * when somebody applies them one by one; so a step is the same however one comes to it. Where pictures are shown, rungs come from each
 * view's output instead. The picture of a view stands on the desk of whoever wants it.
 */
final class Presentation
{
    /** @var list<View> */
    public readonly array $views;

    /** Rows per answer with placements. */
    private const PART = 40_000;

    private readonly Bench $stage;

    private ?Bits $shown = null;

    /** @var list<Desk> as each step leaves it */
    private array $desks = [];

    /**
     * @param array<int> $numbers    of the views
     * @param bool       $asPictures whether each step shows what pictures of its view show
     * @param Desk|null  $desk       what it begins with instead
     */
    public function __construct(Bench $bench, array $numbers, bool $asPictures = false, ?Desk $desk = null)
    {
        $wanted = array_flip($numbers);
        $this->views = array_values(array_filter($bench->shelf()->inOrder(), static fn (View $view): bool => isset($wanted[$view->no])));
        $this->stage = new Bench(app(SceneStore::class), $bench->project, $bench->person, self::first($bench, $asPictures, $desk));
    }

    /** One view as it would stand on the desk of the bench. */
    public static function alone(Bench $bench, int $view, bool $asPictures): self
    {
        return new self($bench, [$view], $asPictures, $bench->desk);
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

    /**
     * Rows that any of the steps shows: all that whoever looks at it may know of. Worked out once for a revision of the project, whoever
     * asks.
     */
    public function shown(): Bits
    {
        return $this->shown ??= Bits::ofBytes(
            $this->stage->scene()->count(),
            $this->remembered('rows', fn (): string => $this->any(Rung::Box)->bytes),
        );
    }

    /** Rows of them that any of the steps shows as more than boxes: only of these somebody may know what they look like. */
    public function formed(): Bits
    {
        return Bits::ofBytes(
            $this->stage->scene()->count(),
            $this->remembered('formed', fn (): string => $this->any(Rung::Ghost)->bytes),
        );
    }

    /** @param Rung $least that counts */
    private function any(Rung $least): Bits
    {
        $rows = Bits::none($this->stage->scene()->count());
        foreach (array_keys($this->views) as $step) {
            $rows = $rows->or($this->at($step)->shown()->inEffect->rungs()->atLeast($least->value));
        }

        return $rows;
    }

    /**
     * Placements of what any of the steps shows, and of nothing beside it, as {@see Drawn::of()} lays them out.
     *
     * @param int $part 0 for none, then one part of the rows after the other
     *
     * @return string how many parts there are, and the placements of one
     */
    public function records(int $part): string
    {
        $scene = $this->stage->scene();
        $first = max(1, ($part - 1) * self::PART + 1);
        $last = min($scene->count(), $part * self::PART);
        $ranges = $first > $last ? [] : $this->shown()->and(Bits::ofRanges($scene->count(), [[$first, $last]]))->ranges();

        return pack('V', (int) ceil($scene->count() / self::PART)).Drawn::of($scene, $ranges, 0);
    }

    /**
     * What follows from the project and the views alone, kept in shared memory under both.
     *
     * @param \Closure(): string $worked
     */
    public function remembered(string $what, \Closure $worked): string
    {
        if (! apcu_enabled() || ! ReadSnapshot::isOn()) {
            return $worked();
        }
        $views = array_map(static fn (View $view): int => $view->no, $this->views);
        $project = $this->stage->project;
        $entry = "presented.$what.$project->key.$project->revision.".(int) $this->stage->desk->shows_output.md5(implode(',', $views));
        $bytes = apcu_fetch($entry);
        if (! is_string($bytes)) {
            $bytes = $worked();
            apcu_store($entry, $bytes, 600);
        }

        return $bytes;
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
        // Pictures begin with what is meant of a view, and with nothing of any desk before it.
        if ($view->keepsRungs() && ! $desk->shows_output) {
            $desk->putSettings($this->stage->applied($view));
        }
        $desk->putView($view);
        // What is compared belongs to the desk where it was.
        if (($desk->tint['by'] ?? '') === 'compare') {
            $desk->tint = [];
        }

        return $desk;
    }

    private static function first(Bench $bench, bool $asPictures, ?Desk $desk): Desk
    {
        $first = $desk === null ? new Desk(['project_id' => $bench->project->id, 'user_id' => $bench->person->id]) : clone $desk;
        $first->shows_output = $asPictures;
        $first->output_of_view = true;

        return $first;
    }
}
