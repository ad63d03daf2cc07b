<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Arrangement;
use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Groups;
use App\Bench\Keys;
use App\Bench\LedgerWindows;
use App\Bench\Organizer;
use App\Models\Desk;
use VineShelf\Scene\Pick;

/** Folds and unfolds rows of a kept arrangement of the ledger. */
final class Folding
{
    /**
     * @param array<string, mixed> $kept
     *
     * @return array<string, mixed>
     */
    public static function folded(array $kept, Keys $keys, bool $unfold): array
    {
        $objects = Arrangement::unfolded($kept);
        $kept['objects'] = Arrangement::packed($unfold ? $objects->with($keys->objects) : $objects->without($keys->objects));
        foreach (['layers' => $keys->layers, 'groups' => $keys->groups] as $what => $some) {
            $open = is_array($kept[$what]) ? $kept[$what] : [];
            $kept[$what] = array_values($unfold ? array_unique([...$open, ...$some]) : array_diff($open, $some));
        }

        return $kept;
    }

    /** Unfolds, on the desk of the person, all that a layer, tag, set or folder lies in, so that its row is there. @param string $key */
    public static function reveal(Bench $bench, string $key): void
    {
        $row = Organizer::find($bench, $key);
        $above = [];
        for ($in = $row; $in !== null && $in->parent !== 0;) {
            $above[] = ($row?->family === 'layers' ? 'L' : 'F').$in->parent;
            $in = Organizer::find($bench, end($above));
        }
        if ($above !== []) {
            DeskChange::on($bench, static function (Desk $desk) use ($bench, $above): void {
                LedgerWindows::put($desk, $bench->window, self::folded($bench->arranged($desk)->toArray(), Keys::of($above), true));
            });
        }
    }

    /**
     * Unfolds what is nested less deep than $depth in the lens, and folds the rest.
     *
     * @param array<string, mixed> $kept
     *
     * @return array<string, mixed>
     */
    public static function toDepth(Bench $bench, array $kept, int $depth): array
    {
        $lens = $kept['lens'];
        if ($lens === 'layers') {
            $kept['layers'] = [];
            foreach ($bench->layers()->walk() as [$layer, $level]) {
                if ($level < $depth) {
                    $kept['layers'][] = $layer->number;
                }
            }
        } elseif ($lens === 'nesting') {
            $kept['objects'] =
                $depth === 0
                    ? ''
                    : Arrangement::packed(
                        Pick::ofBits(
                            $bench->scene()->numberBits(
                                $bench
                                    ->facts()
                                    ->bits('groups')
                                    ->and($bench->facts()->ranked('depth')->between(1, $depth)),
                            ),
                        ),
                    );
        } else {
            $kept['groups'] = [];
            $groups = new Groups($bench);
            $level = is_string($lens) ? $groups->ofLens($lens) : [];
            for ($down = 1; $down <= $depth && $level !== []; $down++) {
                $next = [];
                foreach ($level as $group) {
                    $kept['groups'][] = $group->key;
                    array_push($next, ...$groups->inside($group));
                }
                $level = $next;
            }
        }

        return $kept;
    }

    /**
     * Folds or unfolds rows with everything in them.
     *
     * @param array<string, mixed> $kept
     *
     * @return array<string, mixed>
     */
    public static function deep(Bench $bench, array $kept, Keys $keys, bool $unfold): array
    {
        $all = array_map(
            static fn (int $layer): string => "L$layer",
            array_merge(...array_map($bench->layers()->withNested(...), array_filter($keys->layers, $bench->layers()->has(...)))),
        );
        $scene = $bench->scene();
        $groups = $scene->numberBits(
            Pick::of($keys->objects)
                ->withHeld($scene)
                ->and($bench->facts()->bits('groups')),
        );
        $objects = Arrangement::unfolded($kept);
        $kept['objects'] = Arrangement::packed($unfold ? $objects->withBits($groups) : $objects->withoutBits($groups));
        foreach ($keys->groups as $key) {
            $all[] = $key;
            $groups = new Groups($bench);
            $inside = array_filter([$groups->named($key)]);
            while (($group = array_shift($inside)) !== null) {
                $all[] = $group->key;
                array_push($inside, ...$groups->inside($group));
            }
        }

        return self::folded($kept, Keys::of($all), $unfold);
    }
}
