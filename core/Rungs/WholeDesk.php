<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Organizers\Organizers;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;
use VineShelf\Scene\Scene;

/** What is done to a desk as a whole, in one step: what it had set, and what it has then. Objects that are locked keep what they have. */
final readonly class WholeDesk
{
    /** @param Bits $locked rows that are left alone */
    public function __construct(private Scene $scene, private Organizers $organizers, private Bits $locked) {}

    /**
     * Some objects are shown and everything else is hidden. Layers, tags, folders and groups that hide any of them no longer do.
     *
     * @param Bits $rows of the objects; what they hold is shown as well
     */
    public function showOnly(Settings $desk, Bits $rows): Settings
    {
        $shown = Relatives::within($this->scene, $rows);
        $needed = $shown->or(Relatives::holding($this->scene, $shown));
        $desk = $this->lift($desk, $shown);
        $desk = $desk->withoutRung($this->numbers($needed->without($this->locked)), Rung::Hidden);

        // A group above something locked would hide it as well.
        $kept = $needed->or($this->locked)->or(Relatives::holding($this->scene, $this->locked));

        return $this->set($desk, $kept->not(), Rung::Hidden);
    }

    /** Nothing is hidden by its own setting any more; other rungs stay. */
    public function showAll(Settings $desk): Settings
    {
        $hidden = Rung::Hidden->value;
        $shown = new Settings(
            self::without($desk->layers, $hidden),
            $desk->objects,
            self::without($desk->tags, $hidden),
            self::without($desk->folders, $hidden),
            $desk->ceiling,
            self::without($desk->layersAlone, $hidden),
            $desk->objectsAlone,
        );

        return $shown->withoutRung($this->numbers($this->locked->not()), Rung::Hidden);
    }

    /** Everything is at Full, and the ceiling lifted. */
    public function raiseAll(Settings $desk): Settings
    {
        $raised = new Settings;
        foreach ($desk->objects as $rung => $numbers) {
            $raised = $raised->withObjects($this->numbers($this->scene->rowBits($numbers)->and($this->locked)), Rung::from($rung));
        }
        foreach ($desk->objectsAlone as $rung => $numbers) {
            $raised = $raised->withObjectsAlone($this->numbers($this->scene->rowBits($numbers)->and($this->locked)), Rung::from($rung));
        }

        return $raised;
    }

    /**
     * What is shown is hidden, and what is hidden is shown; groups themselves are never hidden then.
     *
     * @param InEffect $now what is in effect, without isolation
     */
    public function inverted(Settings $desk, InEffect $now): Settings
    {
        $shown = $now->rungs()->atLeast(Rung::Box->value)->without($this->scene->groupBits());

        return $this->set($this->showAll($desk), $shown, Rung::Hidden);
    }

    /**
     * Each one rung higher or lower than its own setting, Full where nothing is set.
     *
     * @param list<int> $layers
     * @param list<int> $tags
     * @param list<int> $folders
     * @param Bits      $rows    of objects
     * @param int       $way     1 for higher, -1 for lower
     */
    public function stepped(Settings $desk, array $layers, array $tags, array $folders, Bits $rows, int $way): Settings
    {
        $step = static fn (?Rung $rung): Rung => Rung::from(max(0, min(5, ($rung ?? Rung::Full)->value + $way)));
        foreach ($layers as $layer) {
            $desk = $desk->withLayers([$layer], $step($desk->layer($layer)));
        }
        foreach ($tags as $tag) {
            $desk = $desk->withTags([$tag], $step($desk->tag($tag)));
        }
        foreach ($folders as $folder) {
            $desk = $desk->withFolders([$folder], $step($desk->folder($folder)));
        }
        $left = $rows->without($this->locked);
        $after = $desk;
        for ($rung = 0; $rung <= Rung::Full->value; $rung++) {
            foreach ([$desk->objects[$rung] ?? null, $desk->objectsAlone[$rung] ?? null] as $numbers) {
                $those = $numbers === null ? null : $this->scene->rowBits($numbers)->and($left);
                if ($those !== null && ! $those->isEmpty()) {
                    $left = $left->without($those);
                    $after = $after->withObjects($this->numbers($those), $step(Rung::from($rung)));
                }
            }
        }

        return $after->withObjects($this->numbers($left), $step(null));
    }

    /** Layers, tags and folders that hide any of some objects are raised. */
    private function lift(Settings $desk, Bits $shown): Settings
    {
        $there = $this->scene->layers()->histogram($shown);
        foreach (array_keys($desk->layers, Rung::Hidden->value, true) as $layer) {
            $inside = $this->organizers->layers->has($layer) ? $this->organizers->layers->withNested($layer) : [];
            if (array_intersect_key($there, array_flip($inside)) !== []) {
                $desk = $desk->withLayers([$layer], Rung::Full);
            }
        }
        foreach (array_keys($desk->layersAlone, Rung::Hidden->value, true) as $layer) {
            $desk = isset($there[$layer]) ? $desk->withLayersAlone([$layer], null) : $desk;
        }
        foreach ($this->organizers->tags->all() as $tag) {
            $chain = array_map(static fn ($folder): int => $folder->number, $this->organizers->tags->tree->chain($tag->folder));
            $hides = $desk->tag($tag->number) === Rung::Hidden;
            foreach ($chain as $folder) {
                $hides = $hides || $desk->folder($folder) === Rung::Hidden;
            }
            if ($hides && ! $this->scene->tagged($tag->number)->and($shown)->isEmpty()) {
                $desk = $desk->tag($tag->number) === Rung::Hidden ? $desk->withTags([$tag->number], Rung::Full) : $desk;
                $hiding = array_filter($chain, static fn (int $folder): bool => $desk->folder($folder) === Rung::Hidden);
                $desk = $desk->withFolders($hiding, Rung::Full);
            }
        }

        return $desk;
    }

    private function set(Settings $desk, Bits $rows, ?Rung $rung): Settings
    {
        return $desk->withObjects($this->numbers($rows->without($this->locked)), $rung);
    }

    private function numbers(Bits $rows): Bits
    {
        return $this->scene->numberBits($rows);
    }

    /**
     * @param array<int, int> $rungs
     *
     * @return array<int, int>
     */
    private static function without(array $rungs, int $but): array
    {
        return array_filter($rungs, static fn (int $rung): bool => $rung !== $but);
    }
}
