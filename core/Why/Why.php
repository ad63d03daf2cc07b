<?php

declare(strict_types=1);

namespace VineShelf\Why;

use VineShelf\Locks\Lock;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Scene;
use VineShelf\Tags\TagTree;

/** Why an object is drawn as it is and can or cannot be picked: every cause in its chain, nearest first. */
final readonly class Why
{
    /** @param list<Cause> $causes */
    private function __construct(
        public Rung $own,
        public Rung $rung,
        public Lock $lock,
        public array $causes,
        /** Whether it is isolated, so that the causes of its rung are set aside. */
        public bool $isLifted = false,
    ) {}

    public static function of(
        int $row,
        Scene $scene,
        Organizers $organizers,
        Settings $settings,
        InEffect $inEffect,
        ?Isolation $isolation = null,
    ): self {
        $causes = [];
        $isLifted = $isolation?->isOn() === true && $isolation->rows($scene)->has($row);
        if ($isolation?->isOn() === true && ! $isLifted) {
            $causes[] = new Cause('isolation', 0, false, $isolation->rest(), null);
        }
        foreach ([$row, ...$scene->ancestors($row)] as $link) {
            $number = $scene->number($link);
            self::add(
                $causes,
                new Cause(
                    'object',
                    $number,
                    $link === $row,
                    self::below($link === $row ? $settings->object($number) : $settings->reaching($number)),
                    self::above(Lock::from($scene->locks()->at($link))),
                ),
            );
        }
        $home = $scene->layers()->at($row);
        self::add($causes, new Cause('filed', $home, false, self::below($settings->layerAlone($home)), null));
        foreach ($organizers->layers->chain($home) as $layer) {
            self::add(
                $causes,
                new Cause('layer', $layer->number, false, self::below($settings->layer($layer->number)), self::above($layer->lock)),
            );
        }

        array_push($causes, ...self::ofTags($row, $scene, $organizers->tags, $settings));
        if ($settings->ceiling < Rung::Full->value) {
            $causes[] = new Cause('ceiling', 0, false, Rung::from($settings->ceiling), null);
        }

        return new self(
            $settings->object($scene->number($row)) ?? Rung::Full,
            $inEffect->rung($row),
            $inEffect->lock($row),
            $causes,
            $isLifted,
        );
    }

    /** @return list<Cause> tags that the object has, and folders that hold them; each of those once */
    private static function ofTags(int $row, Scene $scene, TagTree $tags, Settings $settings): array
    {
        $causes = $folders = [];
        foreach ($tags->all() as $tag) {
            // Reading who has it is for tags that could be a cause at all.
            $chain = $tags->tree->chain($tag->folder);
            $matters = self::below($settings->tag($tag->number)) !== null || $tag->lock !== Lock::Open;
            foreach ($chain as $folder) {
                $matters = $matters || self::below($settings->folder($folder->number)) !== null || $folder->lock !== Lock::Open;
            }
            if (! $matters || ! $scene->tagged($tag->number)->has($row)) {
                continue;
            }
            self::add($causes, new Cause('tag', $tag->number, false, self::below($settings->tag($tag->number)), self::above($tag->lock)));
            foreach ($chain as $folder) {
                $folders[$folder->number] = $folder;
            }
        }
        foreach ($folders as $folder) {
            self::add(
                $causes,
                new Cause('folder', $folder->number, false, self::below($settings->folder($folder->number)), self::above($folder->lock)),
            );
        }

        return $causes;
    }

    /** The cause that decides the rung, null at Full. */
    public function deciding(): ?Cause
    {
        foreach ($this->causes as $cause) {
            if ($cause->rung === $this->rung) {
                return $cause;
            }
        }

        return null;
    }

    /** @return list<Cause> causes of the rung */
    public function rungCauses(): array
    {
        return array_values(array_filter($this->causes, static fn (Cause $cause): bool => $cause->rung !== null));
    }

    /** @return list<Cause> causes of the lock */
    public function lockCauses(): array
    {
        return array_values(array_filter($this->causes, static fn (Cause $cause): bool => $cause->lock !== null));
    }

    /** @param list<Cause> $causes */
    private static function add(array &$causes, Cause $cause): void
    {
        if ($cause->rung !== null || $cause->lock !== null) {
            $causes[] = $cause;
        }
    }

    private static function below(?Rung $rung): ?Rung
    {
        return $rung === Rung::Full ? null : $rung;
    }

    private static function above(Lock $lock): ?Lock
    {
        return $lock === Lock::Open ? null : $lock;
    }
}
