<?php

declare(strict_types=1);

namespace App\Bench;

use App\Database\ReadSnapshot;
use App\Models\Desk;
use App\Models\Project;
use App\Models\User;
use App\Models\View;
use App\Scenes\SceneStore;
use Illuminate\Support\Facades\Gate;
use VineShelf\Facts\Facts;
use VineShelf\Folders\FolderTree;
use VineShelf\Layers\Contents;
use VineShelf\Layers\LayerTree;
use VineShelf\Organizers\Organizers;
use VineShelf\Rules\Evaluated;
use VineShelf\Rules\Evaluator;
use VineShelf\Rules\KnownView;
use VineShelf\Rules\Parser;
use VineShelf\Rules\RuleError;
use VineShelf\Rules\Vocabulary;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Parked;
use VineShelf\Scene\Pick;
use VineShelf\Scene\Relatives;
use VineShelf\Scene\Scene;
use VineShelf\Sets\SelectionSet;
use VineShelf\Sets\SetTree;
use VineShelf\Tags\TagTree;
use VineShelf\Views\Applied;
use VineShelf\Weights\Weights;

/** A project as one person sees it now: what is needed to answer a request, each piece read when it is first asked for. */
final class Bench
{
    /** Name of the window that asks, {@see LedgerWindows}; "" for none. */
    public string $window = '';

    private ?bool $mayChange = null;

    private ?Scene $scene = null;

    private ?Organizers $organizers = null;

    private ?InEffect $inEffect = null;

    private ?Outputs $outputs = null;

    private ?Cutting $cutting = null;

    private ?InEffect $seen = null;

    /** What either of two compared states shows. */
    private ?InEffect $compared = null;

    private ?Contents $contents = null;

    private ?Settings $settings = null;

    private ?Pick $pick = null;

    private ?Bits $picked = null;

    private ?Bits $pickedWithHeld = null;

    /** @var array<int, int>|null */
    private ?array $pickedByLayer = null;

    private ?Facts $facts = null;

    private ?Weights $weights = null;

    private ?Isolation $isolation = null;

    private ?Arrangement $arrangement = null;

    private ?Parked $parked = null;

    /** @var FolderTree<View>|null */
    private ?FolderTree $shelf = null;

    private ?View $view = null;

    private ?Evaluator $evaluator = null;

    private ?KeptSets $keptSets = null;

    /** @var array<string, Found> */
    private array $found = [];

    private ?NewTo $newTo = null;

    private ?MoreInPictures $moreInPictures = null;

    /** The moment, {@see ReadSnapshot::number()}, at which the project was found as it is here; 0 where nobody has looked. */
    private int $readAt = 0;

    public function __construct(
        private readonly SceneStore $scenes,
        public readonly Project $project,
        public readonly User $person,
        public Desk $desk,
    ) {}

    public static function of(Project $project, User $person): self
    {
        $bench = new self(app(SceneStore::class), $project, $person, Desk::of($project, $person));
        // A desk that had to be made was read later than the project.
        $bench->desk->wasJustMade && $bench->catchUp();

        return $bench;
    }

    /** Whether the person may change the project, and not only look at it. */
    public function mayChange(): bool
    {
        return $this->mayChange ??= Gate::forUser($this->person)->allows('change', $this->project);
    }

    public function scene(): Scene
    {
        return $this->scene ??= $this->scenes->scene($this->project);
    }

    public function layers(): LayerTree
    {
        return $this->organizers()->layers;
    }

    public function tags(): TagTree
    {
        return $this->organizers()->tags;
    }

    public function sets(): SetTree
    {
        return $this->organizers()->sets;
    }

    /** @return FolderTree<View> the views in their folders */
    public function shelf(): FolderTree
    {
        return $this->shelf ??= new FolderTree($this->organizers()->viewFolders, $this->project->views()->get());
    }

    /** The view that the desk came from; null for none. */
    public function view(): ?View
    {
        if ($this->shelf !== null) {
            return $this->shelf->members[$this->desk->view_no] ?? null;
        }
        if ($this->desk->view_no === 0) {
            return null;
        }
        if ($this->view === null || $this->view->no !== $this->desk->view_no) {
            $this->view = $this->project->views()->where('no', $this->desk->view_no)->first();
        }

        return $this->view;
    }

    /** A view that was read already, and need not be read again. */
    public function met(View $view): void
    {
        $this->view = $view;
    }

    /** What the project is sorted by. */
    public function organizers(): Organizers
    {
        return $this->organizers ??= $this->project->organizers();
    }

    public function settings(): Settings
    {
        return $this->settings ??= $this->desk->settings();
    }

    /** The own rungs of the desk as a view keeps them: a ceiling is for the desk alone. */
    public function kept(): Settings
    {
        return $this->settings()->withCeiling(Rung::Full);
    }

    public function inEffect(): InEffect
    {
        return $this->inEffect ??= new InEffect($this->scene(), $this->organizers(), $this->settings(), $this->isolation());
    }

    /** What pictures contain. */
    public function outputs(): Outputs
    {
        return $this->outputs ??= new Outputs($this);
    }

    /** The desk, or the output. */
    public function side(bool $output): Side
    {
        return $output ? $this->outputs()->side() : new Side(false, $this->settings(), $this->inEffect(), $this->isolation());
    }

    /** What the canvas shows: where two states are compared, what either of them shows. */
    public function shown(): Side
    {
        $compared = ($this->desk->tint['by'] ?? '') === 'compare' ? ($this->compared ??= Compared::onDesk($this)?->together()) : null;
        if ($compared !== null) {
            return new Side(false, $this->settings(), $compared, $this->isolation());
        }

        return $this->side($this->desk->shows_output);
    }

    /** As the desk has it, or would have it once a view was applied. */
    public function asIn(?View $view): InEffect
    {
        if ($view === null) {
            return $this->inEffect();
        }
        $isolation = $view->isolation() ?? $this->isolation();

        return $this->inEffect()->under($this->applied($view), $isolation);
    }

    /** What views know, and what is new to them. */
    public function newTo(): NewTo
    {
        return $this->newTo ??= new NewTo($this);
    }

    /** How much more pictures of views show than the desk does then. */
    public function moreInPictures(): MoreInPictures
    {
        return $this->moreInPictures ??= new MoreInPictures($this);
    }

    /** The own rungs that the desk would have once a view was applied. */
    public function applied(View $view): Settings
    {
        return $view->keepsRungs() ? $this->withNewcomers($view)->withCeiling(Rung::from($this->settings()->ceiling)) : $this->settings();
    }

    /** What a view keeps, with what it gives to newcomers on this desk. */
    public function withNewcomers(View $view): Settings
    {
        return Applied::withNewcomers(
            $view->settings(),
            $this->scene(),
            $this->newTo()->rows($view),
            $view->newcomers,
            fn (): InEffect => $this->inEffect()->under($this->settings(), null),
        );
    }

    /** What the section of the desk cuts. */
    public function cutting(): Cutting
    {
        return $this->cutting ??= new Cutting($this);
    }

    /** What the canvas shows, less what the section cuts away: that is what can be seen, picked and weighs. */
    public function seen(): InEffect
    {
        return $this->seen ??= $this->cutting()->of($this->shown()->inEffect);
    }

    /** What sets of objects cost to draw. */
    public function weights(): Weights
    {
        return $this->weights ??= new Weights($this->facts());
    }

    public function contents(): Contents
    {
        return $this->contents ??= new Contents($this->scene(), $this->layers());
    }

    public function pick(): Pick
    {
        return $this->pick ??= $this->desk->pick();
    }

    /** Rows of the pick. */
    public function pickedBits(): Bits
    {
        return $this->picked ??= $this->pick()->rows($this->scene());
    }

    /** @return array<int, int> how many of the pick and what it holds have each tag, in the order of the tags: only those that some have */
    public function pickedTags(): array
    {
        $counts = [];
        foreach ($this->pick()->count() === 0 ? [] : $this->tags()->all() as $tag) {
            $counts[$tag->number] = $this->scene()->tagged($tag->number)->and($this->pickedWithHeld())->count();
        }

        return array_filter($counts);
    }

    /** Rows of the pick and of everything that it holds. */
    public function pickedWithHeld(): Bits
    {
        return $this->pickedWithHeld ??= Relatives::within($this->scene(), $this->pickedBits());
    }

    /** @return array<int, int> picked objects by layer, only layers that have some */
    public function pickedByLayer(): array
    {
        if ($this->pickedByLayer !== null) {
            return $this->pickedByLayer;
        }

        return $this->pickedByLayer = $this->pick()->count() === 0 ? [] : $this->scene()->layers()->histogram($this->pickedBits());
    }

    public function facts(): Facts
    {
        return $this->facts ??= new Facts($this->scene());
    }

    public function isolation(): Isolation
    {
        return $this->isolation ??= $this->desk->isolation();
    }

    public function arrangement(): Arrangement
    {
        return $this->arrangement ??= $this->arranged($this->desk);
    }

    /** How the window that asks has the ledger open; without one, how a desk had it last. */
    public function arranged(Desk $desk): Arrangement
    {
        return Arrangement::of(LedgerWindows::arrangement($desk, $this->window), $this->propertyNames());
    }

    /** @return list<string> names of the properties that the files carry, and of those that people gave objects */
    public function propertyNames(): array
    {
        return [...array_map(strval(...), array_keys($this->facts()->properties())), ...$this->organizers()->own->names()];
    }

    public function parked(): Parked
    {
        return $this->parked ??= $this->desk->parked();
    }

    /** The objects that a rule picks, as they are now. */
    public function find(string $rule): Found
    {
        return $this->found[$rule] ??= $this->evaluate($rule);
    }

    /**
     * The rung, on the desk or in pictures, or the lock in effect that all of some rows have; null where they differ, and some step where
     * there are none.
     *
     * @param \Closure(): Bits $find the rows
     * @param string           $of   "rungs", "output" or "locks"
     */
    public function only(\Closure $find, string $of): ?int
    {
        $levels = match ($of) {
            'rungs' => $this->inEffect()->rungs(),
            'output' => $this->outputs()->side()->inEffect->rungs(),
            default => $this->inEffect()->locks(),
        };
        $steps = array_keys($levels->histogram());

        return count($steps) === 1 ? $steps[0] : $levels->only($find());
    }

    public function contextOfRules(): Vocabulary
    {
        return new Vocabulary(
            $this->facts(),
            $this->organizers(),
            $this->contents(),
            array_values(array_map(strval(...), $this->project->views()->pluck('name')->all())),
        );
    }

    private function evaluate(string $rule): Found
    {
        if (trim($rule) === '') {
            return new Found;
        }
        try {
            $parsed = Parser::parse($rule);
        } catch (RuleError $error) {
            return new Found(error: $error);
        }
        $found = $this->evaluator()->find($parsed);

        return new Found($found->rows, remarks: $found->remarks);
    }

    /** What a set holds now. */
    public function set(SelectionSet $set): Evaluated
    {
        return $this->evaluator()->set($set);
    }

    /** What live sets were found to hold, and what each follows from. */
    public function keptSets(): KeptSets
    {
        return $this->keptSets ??= new KeptSets($this, $this->scenes);
    }

    private function evaluator(): Evaluator
    {
        return $this->evaluator ??= new Evaluator(
            $this->facts(),
            $this->organizers(),
            $this->inEffect(),
            $this->pickedBits(),
            $this->knownViews(...),
            $this->keptSets(),
        );
    }

    /** @return list<KnownView> for rules that ask about views, of the line or of a live set */
    private function knownViews(): array
    {
        return array_values(
            array_map(
                fn (View $view): KnownView => new KnownView(
                    $view->name,
                    fn (): Bits => $this->newTo()->rows($view),
                    fn (): Levels => $this->outputs()->shownIn($view)->rungs(),
                ),
                $this->shelf()->members,
            ),
        );
    }

    /** Goes on with the desk as it was just written, and with the project as it is now. */
    public function sit(Desk $desk): void
    {
        $this->desk = $desk;
        $this->settings = $this->isolation = $this->arrangement = $this->parked = null;
        $this->pick = $this->picked = $this->pickedWithHeld = $this->pickedByLayer = null;
        $this->found = [];
        $this->evaluator = $this->keptSets = $this->outputs = $this->cutting = $this->seen = $this->compared = null;
        $this->inEffect = $this->inEffect?->under($this->settings(), $this->isolation());
        $this->catchUp();
    }

    /** Reads the project anew if others have changed it since it was read: what is read next would not go with what was. */
    public function catchUp(): void
    {
        if ($this->readAt !== 0 && $this->readAt === ReadSnapshot::number()) {
            return;
        }
        if (Project::query()->whereKey($this->project->id)->value('revision') !== $this->project->revision) {
            $this->project->refresh();
            $this->forgetRead();
        }
        $this->readAt = ReadSnapshot::number();
    }

    /** Reads everything anew, after a change. */
    public function refresh(): void
    {
        $this->project->refresh();
        $this->forget();
    }

    /** Forgets what was read, so that it is read anew from the project as it stands in memory. */
    public function forget(): void
    {
        $this->desk = Desk::of($this->project, $this->person);
        $this->forgetRead();
    }

    private function forgetRead(): void
    {
        $this->scene = $this->organizers = $this->shelf = $this->evaluator = $this->keptSets = $this->contents = $this->facts = null;
        $this->weights = $this->view = null;
        $this->newTo = null;
        $this->moreInPictures = null;
        $this->settings = $this->inEffect = $this->outputs = $this->cutting = $this->seen = $this->compared = null;
        $this->isolation = $this->arrangement = $this->parked = null;
        $this->pick = $this->picked = $this->pickedWithHeld = $this->pickedByLayer = null;
        $this->found = [];
    }
}
