<?php

declare(strict_types=1);

namespace VineShelf\Why;

use VineShelf\Locks\Lock;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;
use VineShelf\Scene\Scene;

/** What holds the objects of a layer, tag, folder or set down, and what protects them: each cause with how many of them it holds. */
final class Holders
{
    /** @var list<Holder> */
    private array $found = [];

    private function __construct(
        private readonly Bits $of,
        private readonly Scene $scene,
        private readonly Organizers $organizers,
        private readonly Settings $settings,
    ) {}

    /**
     * @param Bits $rows of the objects
     *
     * @return list<Holder> those that hold most first
     */
    public static function of(Bits $rows, Scene $scene, Organizers $organizers, Settings $settings, ?Isolation $isolation = null): array
    {
        $holders = new self($rows, $scene, $organizers, $settings);
        if ($isolation?->isOn() === true) {
            $holders->add('isolation', 0, $isolation->rest(), null, $rows->without($isolation->rows($scene)));
        }
        if ($settings->ceiling < Rung::Full->value) {
            $holders->add('ceiling', 0, Rung::from($settings->ceiling), null, $rows);
        }
        $holders->layers();
        $holders->tags();
        $holders->rungsOfObjects();
        $holders->locksOfObjects();
        $found = $holders->found;
        usort($found, static fn (Holder $a, Holder $b): int => $b->rows->count() <=> $a->rows->count());

        return $found;
    }

    private function layers(): void
    {
        foreach ($this->organizers->layers->walk() as [$layer]) {
            $this->organizer(
                'layer',
                $layer->number,
                $this->settings->layer($layer->number),
                $layer->lock,
                fn (): Bits => $this->scene->layers()->rowsOf(array_fill_keys($this->organizers->layers->withNested($layer->number), true)),
            );
            $alone = $this->settings->layerAlone($layer->number);
            if ($alone !== null) {
                $this->organizer(
                    'filed',
                    $layer->number,
                    $alone,
                    Lock::Open,
                    fn (): Bits => $this->scene->layers()->rowsOf([$layer->number => true]),
                );
            }
        }
    }

    private function tags(): void
    {
        $tags = $this->organizers->tags;
        foreach ($tags->all() as $tag) {
            $this->organizer(
                'tag',
                $tag->number,
                $this->settings->tag($tag->number),
                $tag->lock,
                fn (): Bits => $this->scene->tagged($tag->number),
            );
        }
        foreach ($tags->tree->folders as $folder) {
            $this->organizer('folder', $folder->number, $this->settings->folder($folder->number), $folder->lock, function () use (
                $tags,
                $folder,
            ): Bits {
                $rows = Bits::none($this->scene->count());
                foreach ($tags->tree->within($folder->number) as $tag) {
                    $rows = $rows->or($this->scene->tagged($tag));
                }

                return $rows;
            });
        }
    }

    /** @param \Closure(): Bits $rows */
    private function organizer(string $what, int $number, ?Rung $rung, Lock $lock, \Closure $rows): void
    {
        $rung = $rung === Rung::Full ? null : $rung;
        if ($rung !== null || $lock !== Lock::Open) {
            $this->add($what, $number, $rung, $lock === Lock::Open ? null : $lock, $rows()->and($this->of));
        }
    }

    private function rungsOfObjects(): void
    {
        $none = Bits::none($this->scene->count());
        foreach (Rung::cases() as $rung) {
            if ($rung !== Rung::Full) {
                $rows = fn (?Bits $numbers): Bits => $numbers === null ? $none : $this->scene->rowBits($numbers);
                $alone = $rows($this->settings->objectsAlone[$rung->value] ?? null);
                $this->objects($rows($this->settings->objects[$rung->value] ?? null), $rung, null, $alone);
            }
        }
    }

    private function locksOfObjects(): void
    {
        foreach ([Lock::Guarded, Lock::Locked] as $lock) {
            $this->objects($this->scene->locks()->rowsOf([$lock->value => true]), null, $lock);
        }
    }

    /**
     * @param Bits      $setters rows that have the setting themselves
     * @param Bits|null $alone   rows that have it without what they hold
     */
    private function objects(Bits $setters, ?Rung $rung, ?Lock $lock, ?Bits $alone = null): void
    {
        $own = ($alone === null ? $setters : $setters->or($alone))->and($this->of);
        $this->add('own', 0, $rung, $lock, $own, $own);
        $groups = $setters->and($this->scene->groupBits());
        $held = Relatives::inside($this->scene, $groups)->and($this->of);
        if (! $held->isEmpty()) {
            $this->add('group', 0, $rung, $lock, $held, $groups->and(Relatives::holding($this->scene, $held)));
        }
    }

    private function add(string $what, int $number, ?Rung $rung, ?Lock $lock, Bits $rows, ?Bits $setters = null): void
    {
        if (! $rows->isEmpty()) {
            $this->found[] = new Holder($what, $number, $rung, $lock, $rows, $setters);
        }
    }
}
