<?php

declare(strict_types=1);

namespace App\Bench;

use App\Database\ReadSnapshot;
use App\Models\View;
use VineShelf\Scene\Bits;
use VineShelf\Views\Copying;
use VineShelf\Views\Known;

/** What views know of the project, and what is new to them. */
final class NewTo
{
    /** @var array<int, Known> by number of the view */
    private array $known = [];

    /** @var array<int, int>|null how many objects are new to each view, as shared memory has them for this revision */
    private ?array $counts = null;

    /** @var array<int, list<Copying>> by the newest object that a view knows: most views know the same */
    private array $copyings = [];

    public function __construct(private readonly Bench $bench) {}

    /** What a view knows. */
    public function known(View $view): Known
    {
        $newest = $view->known_object ?? PHP_INT_MAX;

        return $this->known[$view->no] ??= $view->known(
            $this->bench->layers(),
            $this->bench->tags(),
            $this->copyings[$newest] ??= $this->bench->project->copyings($newest),
        );
    }

    /** Rows of the objects that a view does not know. */
    public function rows(View $view): Bits
    {
        return $this->known($view)->newcomerRows($this->bench->scene(), $view->settings());
    }

    /** How many objects a view does not know; 0 where it says nothing of what is shown. */
    public function count(View $view): int
    {
        $project = $this->bench->project;
        $knowsAll = ($view->known_object ?? PHP_INT_MAX) >= $project->next_object - 1 && $view->strangers()->isEmpty();
        if ($knowsAll || ! $view->keepsRungs()) {
            return 0;
        }
        if (! apcu_enabled() || ! ReadSnapshot::isOn()) {
            return $this->rows($view)->count();
        }
        $entry = 'newcomers.'.$project->key;
        $this->counts ??= self::remembered(apcu_fetch($entry), $project->revision);
        if (! isset($this->counts[$view->no])) {
            $this->counts[$view->no] = $this->rows($view)->count();
            apcu_store($entry, [$project->revision, $this->counts], 600);
        }

        return $this->counts[$view->no];
    }

    /** @return list<View> that objects are new to, in the order on the shelf */
    public function views(): array
    {
        return array_values(array_filter($this->bench->shelf()->inOrder(), fn (View $view): bool => $this->count($view) > 0));
    }

    /** @return array<int, int> by number of the view, as they were remembered for a revision */
    private static function remembered(mixed $kept, int $revision): array
    {
        /** @var array<int, int> */
        return is_array($kept) && ($kept[0] ?? null) === $revision && is_array($kept[1] ?? null) ? $kept[1] : [];
    }
}
