<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Models\View;
use VineShelf\Rungs\Difference;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Section\Section;
use VineShelf\Tint\TintBy;

/** How the desk differs from a view: in what the view keeps, and in nothing that it leaves alone. */
final class FromView
{
    private ?Settings $wanted = null;

    public function __construct(private readonly Bench $bench, private readonly View $view) {}

    public function differs(): bool
    {
        return $this->rungsDiffer() || $this->inWords() !== [];
    }

    /** @return list<string> each a way in which it differs, for example "3 layers and 12 objects at other rungs" */
    public function inWords(): array
    {
        $words = [];
        $counted = [];
        foreach (array_filter($this->settingsThatDiffer()) as $what => $count) {
            $counted[] = number_format($count).' '.($count === 1 ? rtrim($what, 's') : $what);
        }
        if ($counted !== []) {
            $last = array_pop($counted);
            $words[] = ($counted === [] ? $last : implode(', ', $counted)." and $last").' at other rungs';
        }
        if ($this->view->tint !== null && $this->view->tint != $this->bench->desk->tint) {
            $by = TintBy::tryFrom($this->bench->desk->tint['by'] ?? '') ?? TintBy::Own;
            $words[] = $by === TintBy::Own ? 'own materials instead of a tint' : 'tinted '.$by->inWords();
        }
        if ($this->view->cut() !== null && $this->view->cut() != Section::fromArray($this->bench->desk->section)) {
            $words[] = Section::fromArray($this->bench->desk->section)->cuts() ? 'another section' : 'no section';
        }
        $isolation = $this->view->isolation();
        if ($isolation !== null && $isolation->pack() !== $this->bench->isolation()->pack()) {
            $words[] = $this->bench->isolation()->isOn() ? 'something isolated' : 'nothing isolated';
        }

        return $words;
    }

    /** @return list<array{string, Rung|null, Rung|null}> layers, tags and folders that are set otherwise: name, in the view, on the desk */
    public function rows(): array
    {
        if (! $this->view->keepsRungs()) {
            return [];
        }
        [$view, $desk] = [$this->wanted(), $this->bench->settings()];
        $rows = [];
        foreach ($this->bench->layers()->walk() as [$layer]) {
            $rows[] = [$layer->name, $view->layer($layer->number), $desk->layer($layer->number)];
        }
        foreach ($this->bench->tags()->all() as $tag) {
            $rows[] = [$tag->name, $view->tag($tag->number), $desk->tag($tag->number)];
        }
        foreach ($this->bench->tags()->tree->folders as $folder) {
            $rows[] = [$folder->name, $view->folder($folder->number), $desk->folder($folder->number)];
        }

        return array_values(array_filter($rows, static fn (array $row): bool => ($row[1] ?? Rung::Full) !== ($row[2] ?? Rung::Full)));
    }

    /** What the view shows, and what the desk does. */
    public function difference(): Difference
    {
        return new Difference($this->bench->asIn($this->view)->rungs(), $this->bench->inEffect()->rungs());
    }

    /** @return array<string, int> layers, objects, tags and folders that are set otherwise */
    public function settingsThatDiffer(): array
    {
        return $this->view->keepsRungs() ? $this->wanted()->difference($this->bench->settings()) : [];
    }

    private function rungsDiffer(): bool
    {
        return $this->view->keepsRungs() && ! $this->wanted()->same($this->bench->settings());
    }

    private function wanted(): Settings
    {
        return $this->wanted ??= $this->bench->applied($this->view);
    }
}
