<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\View;
use Illuminate\Support\Facades\DB;
use VineShelf\Output\Output;
use VineShelf\Rungs\Difference;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
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
        return $this->bench->desk->output_of_view ? $this->bench->shelf()->members[$this->bench->desk->view_no] ?? null : null;
    }

    public function side(): Side
    {
        return $this->side ??= $this->of($this->view());
    }

    /** The output of a view, or of none. */
    public function of(?View $view): Side
    {
        $own = $view?->output() ?? new OutputSettings;
        $settings = $this->settings()->over($this->base($view), $this->bench->settings(), $own);
        $follows = $this->settings()->followsDesk() || $own->followsDesk();

        return new Side(true, $settings, $this->inEffect($view, $settings, $follows), Isolation::none());
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

    /** What a view keeps, with what it gives to newcomers; a picture never has them as somebody's desk has. */
    private function base(?View $view): Settings
    {
        return $view === null || ! $view->keepsRungs()
            ? new Settings
            : Applied::rungs($view->settings(), new Settings, $this->bench->layers(), $view->known_layer, $view->newcomers);
    }

    /** @param bool $followsDesk whether the desk counts as well, so that nothing can be remembered */
    private function inEffect(?View $view, Settings $settings, bool $followsDesk): InEffect
    {
        $desk = $this->bench->inEffect();
        $desk->locks();
        $inEffect = $desk->under($settings, null);
        if ($settings->same(new Settings)) {
            $full = Rung::Full->value;

            return $inEffect->known(Levels::constant($this->bench->scene()->count(), $full, $full));
        }
        if ($followsDesk || ! apcu_enabled() || DB::transactionLevel() > 0) {
            return $inEffect;
        }
        $project = $this->bench->project;
        $entry = "output.$project->key.".($view->no ?? 0);
        $known = apcu_fetch($entry);
        if (is_array($known) && $known[0] === $project->revision && is_string($known[1])) {
            return $inEffect->known(Levels::ofBytes($this->bench->scene()->count(), Rung::Full->value, $known[1]));
        }
        apcu_store($entry, [$project->revision, $inEffect->rungs()->bytes()], self::REMEMBERED);

        return $inEffect;
    }
}
