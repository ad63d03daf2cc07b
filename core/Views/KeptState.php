<?php

declare(strict_types=1);

namespace VineShelf\Views;

use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Pick;
use VineShelf\Scene\Scene;

/** What a view keeps that says something of objects; null for a facet that it leaves alone. */
final readonly class KeptState
{
    /**
     * @param Settings|null       $rungs  what the desk gets when the view is applied
     * @param Settings|null       $meant  what of the rungs its pictures take over; null for all of it
     * @param OutputSettings|null $output
     * @param Pick|null           $tinted the objects that alone are tinted, with what they hold; null where the tint is of everything
     */
    public function __construct(
        public ?Settings $rungs,
        public ?Settings $meant,
        public ?OutputSettings $output,
        public ?Isolation $isolation,
        public ?Pick $tinted,
    ) {}

    public function withRungs(Settings $rungs, ?Settings $meant): self
    {
        return new self($rungs, $meant, $this->output, $this->isolation, $this->tinted);
    }

    public function withOutput(OutputSettings $output): self
    {
        return new self($this->rungs, $this->meant, $output, $this->isolation, $this->tinted);
    }

    public function withIsolation(Isolation $isolation): self
    {
        return new self($this->rungs, $this->meant, $this->output, $isolation, $this->tinted);
    }

    public function withTinted(Pick $tinted): self
    {
        return new self($this->rungs, $this->meant, $this->output, $this->isolation, $tinted);
    }

    public function alone(): Isolation
    {
        return $this->isolation ?? Isolation::none();
    }

    /** The own rungs of its pictures, whoever makes them: what follows a desk is in full. @param OutputSettings $project the project's */
    public function inPictures(OutputSettings $project): Settings
    {
        return $project->over($this->meant ?? ($this->rungs ?? new Settings), new Settings, $this->output);
    }

    /** Rungs of every row in its pictures, newcomers as if they were none. @param OutputSettings $project the project's */
    public function pictured(OutputSettings $project, Scene $scene, Organizers $organizers): Levels
    {
        $inEffect = new InEffect($scene, $organizers, $this->inPictures($project), $this->isolation);
        if ($this->alone()->isOn()) {
            $never = $inEffect->under($project->never()->over(new Settings, new Settings), null);
            $inEffect = $inEffect->without($never->rungs()->being(Rung::Hidden->value));
        }

        return $inEffect->rungs();
    }
}
