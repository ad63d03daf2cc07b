<?php

declare(strict_types=1);

namespace App\Bench;

use App\Database\ReadSnapshot;
use App\Models\View;
use VineShelf\Output\Output;
use VineShelf\Rungs\Difference;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;
use VineShelf\Views\Applied;

/** What pictures contain: of the view that the desk came from, or of none, as the person has chosen. */
final class Outputs
{
    /** Seconds that the rungs of a picture are remembered. */
    private const REMEMBERED = 600;

    private ?OutputSettings $settings = null;

    private ?Side $side = null;

    public function __construct(private readonly Bench $bench) {}

    /** The project's own output settings. */
    public function settings(): OutputSettings
    {
        return $this->settings ??= OutputSettings::of($this->bench->organizers(), $this->bench->scene());
    }

    /** The view whose output is meant; null for none. */
    public function view(): ?View
    {
        return $this->bench->desk->output_of_view ? $this->bench->view() : null;
    }

    public function side(): Side
    {
        return $this->side ??= $this->of($this->view());
    }

    /** The output of a view, or of none. */
    public function of(?View $view): Side
    {
        $own = $view?->output() ?? new OutputSettings;
        $settings = $this->settings()->over($this->base($view, $view?->meant()), $this->bench->settings(), $own);
        $follows = $this->settings()->followsDesk() || $own->followsDesk();
        $isolation = $view?->isolation() ?? Isolation::none();

        return new Side(true, $settings, $this->inEffect($view, $settings, $isolation, $follows), $isolation);
    }

    /** The rungs in pictures of a view, whoever makes them: what follows a desk is as if nothing were set there. */
    public function ofAnybody(View $view): Levels
    {
        $settings = $this->settings()->over($this->base($view, $view->meant()), new Settings, $view->output());
        $inEffect = $this->bench->inEffect()->under($settings, $view->isolation());

        return ($view->isolation()?->isOn() === true ? $inEffect->without($this->never()) : $inEffect)->rungs();
    }

    /** What a view shows whoever looks at it, without any output settings: newcomers as somebody's desk has them are in full. */
    public function shownIn(View $view): InEffect
    {
        return $this->bench->inEffect()->under($this->base($view, $view->settings()), $view->isolation());
    }

    /**
     * Where the rung of a layer, tag, folder or object in a picture comes from: "never" or "project" for the project's own settings, "own"
     * for the view's output settings, "view" for the rungs that it keeps.
     */
    public function origin(string $what, int $number): string
    {
        $set = $this->settings()->value($what, $number);

        return match (true) {
            $set === Output::Never => 'never',
            $this->view()?->output()?->value($what, $number) !== null => 'own',
            $set !== null => 'project',
            default => 'view',
        };
    }

    public function difference(): Difference
    {
        return new Difference($this->bench->inEffect()->rungs(), $this->side()->inEffect->rungs());
    }

    /**
     * What a view keeps, with what it gives to newcomers; a picture never has them as somebody's desk has.
     *
     * @param Settings|null $kept all of it, or what of it is meant for pictures
     */
    private function base(?View $view, ?Settings $kept): Settings
    {
        return $view === null || $kept === null || ! $view->keepsRungs()
            ? new Settings
            : Applied::withNewcomers(
                $kept,
                $this->bench->scene(),
                $this->bench->newTo()->rows($view),
                $view->newcomers,
                static fn (): ?InEffect => null,
            );
    }

    /** @param bool $followsDesk whether the desk counts as well, so that nothing can be remembered */
    private function inEffect(?View $view, Settings $settings, Isolation $isolation, bool $followsDesk): InEffect
    {
        $desk = $this->bench->inEffect();
        $desk->locks();
        $inEffect = $desk->under($settings, $isolation);
        if (! $isolation->isOn() && $settings->same(new Settings)) {
            $full = Rung::Full->value;

            return $inEffect->known(Levels::constant($this->bench->scene()->count(), $full, $full));
        }
        $entry = 'output.'.$this->bench->project->key.'.'.($view->no ?? 0);
        $remembers = ! $followsDesk && apcu_enabled() && ReadSnapshot::isOn();
        $known = $remembers ? apcu_fetch($entry) : false;
        if (is_array($known) && $known[0] === $this->bench->project->revision && is_string($known[1])) {
            return $inEffect->known(Levels::ofBytes($this->bench->scene()->count(), Rung::Full->value, $known[1]));
        }
        if ($isolation->isOn()) {
            $inEffect = $inEffect->without($this->never());
        }
        if ($remembers) {
            apcu_store($entry, [$this->bench->project->revision, $inEffect->rungs()->bytes()], self::REMEMBERED);
        }

        return $inEffect;
    }

    /** Rows that are in no picture, also where a view shows them alone. */
    private function never(): Bits
    {
        $never = $this->settings()->never()->over(new Settings, new Settings);

        return $this->bench->inEffect()->under($never, null)->rungs()->being(Rung::Hidden->value);
    }
}
