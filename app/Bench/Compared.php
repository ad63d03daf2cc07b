<?php

declare(strict_types=1);

namespace App\Bench;

use VineShelf\Rungs\Difference;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;

/** Two states side by side: views, the desk, or what pictures show. */
final class Compared
{
    public const DESK = 'D';

    public const PICTURES = 'O';

    private ?Difference $difference = null;

    private function __construct(private readonly Bench $bench, public readonly State $first, public readonly State $second) {}

    /** @param string $first "V3" for a view, "D" for the desk, "O" for pictures @return self|null null where one of them is not there */
    public static function of(Bench $bench, string $first, string $second): ?self
    {
        [$first, $second] = [self::state($bench, $first), self::state($bench, $second)];

        return $first === null || $second === null ? null : new self($bench, $first, $second);
    }

    /** As the tint of the desk says; null where it says nothing of that. */
    public static function onDesk(Bench $bench): ?self
    {
        $tint = $bench->desk->tint;

        return ($tint['by'] ?? '') === 'compare' ? self::of($bench, $tint['first'] ?? '', $tint['second'] ?? '') : null;
    }

    public function difference(): Difference
    {
        return $this->difference ??= new Difference($this->first->inEffect->rungs(), $this->second->inEffect->rungs());
    }

    /** What either of them shows, as much of it as the one that shows more. */
    public function together(): InEffect
    {
        return $this->bench->inEffect()->known($this->first->inEffect->rungs()->highest($this->second->inEffect->rungs()));
    }

    /** @return list<string> what its colours mean: only in the first, only in the second, drawn otherwise, the same in both */
    public function labels(): array
    {
        $only = static fn (State $state): string => ($state->key === self::DESK ? 'Only on ' : 'Only in ').$state->name;

        return [$only($this->first), $only($this->second), 'In both, drawn otherwise', 'In both alike'];
    }

    /** @return array{first: Bits, second: Bits, other: Bits} rows */
    public function rows(): array
    {
        $difference = $this->difference();

        return ['first' => $difference->onlyFirst(), 'second' => $difference->onlySecond(), 'other' => $difference->otherwise()];
    }

    /** @return array{int, int} triangles that some rows draw in the first and in the second */
    public function weights(Bits $rows): array
    {
        $weights = $this->bench->weights();

        return [$weights->drawn($rows, $this->first->inEffect->rungs()), $weights->drawn($rows, $this->second->inEffect->rungs())];
    }

    /**
     * Layers, folders and tags that are set otherwise.
     *
     * @return list<array{string, string, Rung|null, Rung|null}> key, name, in the first, in the second
     */
    public function organizers(): array
    {
        [$here, $there] = [$this->first->settings, $this->second->settings];
        $rows = [];
        foreach ($this->bench->layers()->walk() as [$layer]) {
            $path = $this->bench->layers()->path($layer->number);
            $rows[] = ["L$layer->number", $path, $here->layer($layer->number), $there->layer($layer->number)];
        }
        $tags = $this->bench->tags()->tree;
        foreach ($tags->folders as $folder) {
            $rows[] = ["F$folder->number", $tags->path($folder), $here->folder($folder->number), $there->folder($folder->number)];
        }
        foreach ($this->bench->tags()->all() as $tag) {
            $rows[] = ["T$tag->number", $tags->path($tag), $here->tag($tag->number), $there->tag($tag->number)];
        }

        return array_values(array_filter($rows, static fn (array $row): bool => ($row[2] ?? Rung::Full) !== ($row[3] ?? Rung::Full)));
    }

    private static function state(Bench $bench, string $key): ?State
    {
        if ($key === self::DESK) {
            return new State($key, 'the desk', $bench->settings(), $bench->inEffect(), null);
        }
        if ($key === self::PICTURES) {
            $side = $bench->outputs()->side();
            $view = $bench->outputs()->view();

            return new State($key, $view === null ? 'pictures' : "pictures of $view->name", $side->settings, $side->inEffect, $view);
        }
        $number = preg_match('~^V(\d{1,9})$~D', $key, $found) === 1 ? (int) $found[1] : 0;
        $view = $number === 0 ? null : $bench->project->views()->where('no', $number)->first();

        return $view === null ? null : new State($key, $view->name, $bench->applied($view), $bench->asIn($view), $view);
    }
}
