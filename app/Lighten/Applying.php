<?php

declare(strict_types=1);

namespace App\Lighten;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Command;
use App\Changes\GiveBackPictures;
use App\Changes\History;
use App\Changes\LightenPictures;
use App\Models\Lightening;
use App\Workbench\DeskSteps;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;

/**
 * Sets the rungs that were proposed, as one step of a desk or one change of a project, and gives them back later: what somebody has set
 * otherwise since then stays as it is.
 */
final class Applying
{
    /** @return string what came of it, a sentence @throws Refused */
    public static function apply(Bench $bench, Lightening $lightening): string
    {
        if (Asked::of($lightening)->side === 'output') {
            $command = self::carryOut($bench, static function (Bench $held) use ($lightening): LightenPictures {
                $own = self::held($lightening, false);
                $command = new LightenPictures($held, $own->settings(), Asked::of($own)->triangles);
                $own->did($command->did, $command->was);

                return $command;
            });

            return $command->change === null ? 'It is so already.' : trim($command->name().". $command->leftAlone");
        }
        $locked = $bench->scene()->numberBits($bench->inEffect()->locked());
        $left = 0;
        $name = 'Lighten to '.number_format(Asked::of($lightening)->triangles).' triangles';
        $changed = DeskSteps::take($bench, $name, static function (Settings $now) use ($lightening, $locked, &$left): Settings {
            $own = self::held($lightening, false);
            $left = 0;
            $layers = $was = [];
            foreach ($own->settings()->layers as $layer => $rung) {
                if (($now->layers[$layer] ?? 5) > $rung) {
                    $layers[$layer] = $rung;
                    $was['layers'][$layer] = $now->layers[$layer] ?? null;
                }
            }
            $objects = [];
            foreach ($own->settings()->objects as $rung => $numbers) {
                $left += $numbers->count();
                $numbers = $numbers->less($locked);
                $left -= $numbers->count();
                foreach ($now->objects as $held => $those) {
                    $numbers = $held <= $rung ? $numbers->less($those) : $numbers;
                }
                $objects[$rung] = $numbers;
                foreach ($now->objects as $held => $those) {
                    $was['objects'][$held] = $those->shared($numbers)->with($was['objects'][$held] ?? Bits::none(0));
                }
            }
            $did = new Settings($layers, $objects);
            $own->did($did, ['layers' => $was['layers'] ?? [], 'objects' => array_map(Lightening::packed(...), $was['objects'] ?? [])]);

            return $did->over($now);
        });

        return trim(($changed ? "$name." : 'It is so already.').' '.Command::lockedInWords($left));
    }

    /** @return string what came of it, a sentence @throws Refused */
    public static function giveBack(Bench $bench, Lightening $lightening): string
    {
        if (Asked::of($lightening)->side === 'output') {
            $command = self::carryOut($bench, static function (Bench $held) use ($lightening): GiveBackPictures {
                $own = self::held($lightening, true);
                $command = new GiveBackPictures($held, Settings::unpack($own->done()), $own->was ?? []);
                $own->update(['given_back_at' => now()]);

                return $command;
            });

            return $command->change === null ? 'Nothing of it is left.' : trim($command->name().". $command->leftAlone");
        }
        $locked = $bench->scene()->numberBits($bench->inEffect()->locked());
        $count = $left = 0;
        $changed = DeskSteps::take($bench, 'Give back what was lightened', static function (Settings $now) use (
            $lightening,
            $locked,
            &$count,
            &$left,
        ): Settings {
            $own = self::held($lightening, true);
            $count = $left = 0;
            $did = Settings::unpack($own->done());
            $after = $now;
            foreach ($did->layers as $layer => $rung) {
                if (($now->layers[$layer] ?? null) === $rung) {
                    $before = $own->was['layers'][$layer] ?? null;
                    $after = $after->withLayers([$layer], is_int($before) ? Rung::from($before) : null);
                    $count++;
                }
            }
            foreach ($did->objects as $rung => $numbers) {
                $there = $numbers->shared($now->objects[$rung] ?? Bits::none(0));
                $still = $there->less($locked);
                $left += $there->count() - $still->count();
                $count += $still->count();
                $after = $after->withObjects($still, null);
                foreach ($own->was['objects'] ?? [] as $before => $packed) {
                    $after = $after->withObjects($still->shared(Lightening::unpacked($packed)), Rung::from((int) $before));
                }
            }
            $own->update(['given_back_at' => now()]);

            return $after;
        });
        $what = Asked::of($lightening)->by === 'layers' ? 'layer' : 'object';

        $says = $changed ? 'Given back: '.number_format($count)." $what".($count === 1 ? '.' : 's.') : 'Nothing of it is left.';

        return trim("$says ".Command::lockedInWords($left));
    }

    /**
     * The row, held, as it is now.
     *
     * @throws Refused
     */
    private static function held(Lightening $lightening, bool $isApplied): Lightening
    {
        $own = Lightening::query()->lock('for no key update')->find($lightening->id) ??
            throw new Refused('That proposal is no longer there.');
        if ($own->state !== 'done') {
            throw new Refused('That proposal is not ready.');
        }
        if ($own->isApplied() !== $isApplied) {
            throw new Refused($isApplied ? 'It is not applied, or was given back already.' : 'It is applied already.');
        }

        return $own;
    }

    /**
     * @template C of Command
     *
     * @param callable(Bench): C $make
     *
     * @return C
     */
    private static function carryOut(Bench $bench, callable $make): Command
    {
        if (! $bench->mayChange()) {
            throw new Refused('What pictures show is not yours to change.', 'side');
        }

        return app(History::class)->carryOut($bench, $make);
    }
}
