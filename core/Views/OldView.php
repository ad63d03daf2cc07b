<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;

/**
 * A view that was there before a change of the sorting: what it keeps from then on so that it shows what it showed, whether it shows
 * something differently all the same, and what it would have to keep to show what it showed.
 */
final readonly class OldView
{
    /** What it keeps from now on. */
    public KeptState $held;

    /** @param Bits $counted rows that the view has something to say about: no newcomers, nothing that is gone */
    public function __construct(private Resorting $change, private KeptState $before, private Known $known, private Bits $counted)
    {
        $held = $before;
        foreach (Facet::cases() as $facet) {
            $held = $facet->follows()->held($before, $held, $change, $known, $counted);
        }
        $this->held = $held;
    }

    /** Whether it shows something differently, on a desk or in pictures, because of how things are sorted now. */
    public function isResorted(): bool
    {
        [$shift, $before, $held] = [$this->change->shift, $this->before, $this->held];
        if ($before->rungs !== null && $held->rungs !== null) {
            $rows = Differing::rows($shift, $this->known, $before->rungs, $held->rungs, $before->alone(), $this->counted);
            if (! $rows->isEmpty()) {
                return true;
            }
        }

        return $this->hasOtherPictures() &&
            ($this->stopsFollowing() || ! Differing::inPictures($this->change, $before, $held, $this->counted)->isEmpty());
    }

    /** Whether it shows something differently because of what stands elsewhere now. */
    public function isRegrouped(): bool
    {
        if ($this->change->regrouping->isEmpty()) {
            return false;
        }
        if ($this->before->tinted !== null && $this->change->regrouping->comesTo($this->before->tinted)) {
            return true;
        }
        $states = $this->before->rungs === null && $this->before->isolation === null ? [] : [$this->before->rungs ?? new Settings];
        if ($this->hasOtherPictures()) {
            $states[] = $this->before->inPictures($this->change->from);
        }
        foreach ($states as $settings) {
            if ($this->regroups($settings)) {
                return true;
            }
        }

        return false;
    }

    private function regroups(Settings $settings): bool
    {
        $alone = $this->before->alone();
        // Most views say nothing of single objects.
        if ($settings->objects === [] && ! $alone->isOn()) {
            return false;
        }
        $shown = (new InEffect($this->change->shift->before, $this->change->shift->from, $settings, $alone))->rungs();

        return ! $this->change->regrouping->differing($settings, $alone, $shown)->and($this->counted)->isEmpty();
    }

    /** What it would keep to show what it showed. */
    public function asItWas(): KeptState
    {
        [$before, $held, $change] = [$this->before, $this->held, $this->change];
        if ($before->rungs !== null && $held->rungs !== null) {
            $held = $held->withRungs(
                $this->settings($held->rungs, $this->had($before->rungs)),
                $before->meant === null || $held->meant === null ? null : $this->settings($held->meant, $this->had($before->meant)),
            );
        }
        if (! $this->hasOtherPictures()) {
            return $held;
        }
        $has = $held->inPictures($change->to);
        $output = ($held->output ?? new OutputSettings)->giving(
            $has,
            $this->settings($has, $this->had($before->inPictures($change->from))),
        );

        return $held->output === null && $output->isEmpty() ? $held : $held->withOutput($output);
    }

    private function had(Settings $before): Levels
    {
        return (new InEffect($this->change->shift->before, $this->change->shift->from, $before))->rungs();
    }

    private function settings(Settings $now, Levels $was): Settings
    {
        return AsItWas::settings($now, $this->change->shift->after, $this->change->shift->to, $was, $this->counted);
    }

    /** Whether its pictures are decided on by more than the rungs that the desk gets. */
    private function hasOtherPictures(): bool
    {
        if ($this->before->rungs === null && $this->before->output === null && $this->before->isolation === null) {
            return false;
        }

        return $this->before->meant !== null ||
            $this->before->output !== null ||
            ! $this->change->from->isEmpty() ||
            ! $this->change->to->isEmpty();
    }

    /** Whether something is held in pictures that followed the desk. */
    private function stopsFollowing(): bool
    {
        $was = $this->change->from->following($this->before->output);
        $is = $this->change->to->following($this->held->output);
        $organizers = $this->change->shift->to;
        $there = [
            array_filter($was[0], $organizers->layers->has(...), ARRAY_FILTER_USE_KEY),
            array_intersect_key($was[1], $organizers->tags->tree->members),
            array_intersect_key($was[2], $organizers->tags->tree->folders),
        ];
        foreach ($there as $what => $numbers) {
            if (array_diff_key($numbers, $is[$what]) !== []) {
                return true;
            }
        }

        return false;
    }
}
