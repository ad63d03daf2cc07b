<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Models\Desk;
use App\Models\Project;
use App\Models\User;
use App\Scenes\SceneStore;
use VineShelf\Layers\Contents;
use VineShelf\Layers\LayerTree;
use VineShelf\Picking\Pick;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Runs;
use VineShelf\Scene\Scene;

/** A project as one person sees it now: what is needed to answer a request, each piece read when it is first asked for. */
final class Bench
{
    private ?Scene $scene = null;

    private ?LayerTree $layers = null;

    private ?InEffect $inEffect = null;

    private ?Contents $contents = null;

    private ?Settings $settings = null;

    private ?Pick $pick = null;

    private ?Runs $picked = null;

    public function __construct(
        private readonly SceneStore $scenes,
        public readonly Project $project,
        public readonly User $person,
        public Desk $desk,
    ) {}

    public static function of(Project $project, User $person): self
    {
        return new self(app(SceneStore::class), $project, $person, Desk::of($project, $person));
    }

    public function scene(): Scene
    {
        return $this->scene ??= $this->scenes->scene($this->project);
    }

    public function layers(): LayerTree
    {
        return $this->layers ??= $this->project->layerTree();
    }

    public function settings(): Settings
    {
        return $this->settings ??= $this->desk->settings();
    }

    public function inEffect(): InEffect
    {
        return $this->inEffect ??= new InEffect($this->scene(), $this->layers(), $this->settings());
    }

    public function contents(): Contents
    {
        return $this->contents ??= new Contents($this->scene(), $this->layers());
    }

    public function pick(): Pick
    {
        return $this->pick ??= $this->desk->pick();
    }

    /** 1 in the rows of the picked objects, 0 elsewhere. */
    public function picked(): Runs
    {
        return $this->picked ??= Runs::marking($this->scene()->count(), $this->scene()->rowsOf($this->pick()->numbers()));
    }

    /** Forgets what was read, after a change. */
    public function refresh(): void
    {
        $this->project->refresh();
        $this->desk = Desk::of($this->project, $this->person);
        $this->scene = $this->layers = $this->inEffect = $this->contents = $this->settings = $this->pick = $this->picked = null;
    }
}
