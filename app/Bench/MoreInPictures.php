<?php

declare(strict_types=1);

namespace App\Bench;

use App\Database\ReadSnapshot;
use App\Models\View;
use VineShelf\Rungs\Rung;

/** How much more pictures of a view show than the desk does once the view was applied. */
final class MoreInPictures
{
    private const REMEMBERED = 600;

    /** @var array<int, int>|null by number of the view, as shared memory has them for this revision */
    private ?array $counts = null;

    public function __construct(private readonly Bench $bench) {}

    /** Objects that a view hides and its pictures show. */
    public function count(View $view): int
    {
        $outputs = $this->bench->outputs();
        if (! $view->keepsRungs() || ($view->meansAll() && $view->output() === null && $outputs->settings()->isEmpty())) {
            return 0;
        }
        if (! apcu_enabled() || ! ReadSnapshot::isOn()) {
            return $this->counted($view);
        }
        $project = $this->bench->project;
        $entry = "more-in-pictures.$project->key";
        if ($this->counts === null) {
            $kept = apcu_fetch($entry);
            /** @var array<int, int> $counts */
            $counts = is_array($kept) && ($kept[0] ?? null) === $project->revision && is_array($kept[1] ?? null) ? $kept[1] : [];
            $this->counts = $counts;
        }
        if (! isset($this->counts[$view->no])) {
            $this->counts[$view->no] = $this->counted($view);
            apcu_store($entry, [$project->revision, $this->counts], self::REMEMBERED);
        }

        return $this->counts[$view->no];
    }

    private function counted(View $view): int
    {
        $outputs = $this->bench->outputs();
        $hidden = $outputs->shownIn($view)->rungs()->being(Rung::Hidden->value);

        return $hidden->isEmpty() ? 0 : $hidden->and($outputs->ofAnybody($view)->atLeast(Rung::Box->value))->count();
    }
}
