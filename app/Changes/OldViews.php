<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edit;
use App\Changes\Edits\MembersEdit;
use App\Changes\Edits\NestingEdit;
use App\Changes\Edits\ObjectsEdit;
use App\Changes\Edits\PlacesEdit;
use App\Changes\Edits\RowEdit;
use App\Models\Project;
use App\Models\View;
use Illuminate\Support\Facades\DB;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;
use VineShelf\Views\AsItWas;
use VineShelf\Views\Copying;
use VineShelf\Views\Differing;
use VineShelf\Views\Holding;
use VineShelf\Views\Regrouping;
use VineShelf\Views\Shift;

/**
 * What a change of the sorting, or of the nesting, means to the views that were there before it: what they have to keep so that they show
 * what they showed, and which of them show something differently all the same.
 */
final class OldViews
{
    /** Tables whose rows say what objects are sorted by. */
    private const TABLES = ['layers', 'tags', 'folders'];

    /** @var list<RowEdit> what views keep from now on */
    public array $steps = [];

    /** How many views show something differently. */
    public int $differ = 0;

    /**
     * What those keep now, and what they would keep to show what they showed; by number, "rungs" and "meant".
     *
     * @var array<int, array<string, array{string, string}>>
     */
    public array $asItWas = [];

    /** @var array<int, list<Copying>> by the newest object that a view knows */
    private array $copyings = [];

    /**
     * @param list<View>  $views
     * @param list<Edit>  $edits
     */
    private function __construct(
        private readonly Project $project,
        private readonly array $views,
        private readonly array $edits,
        private readonly Scene $scene,
        private readonly Organizers $organizers,
    ) {}

    /**
     * What has to be read before a change is made; null when it is no matter of views.
     *
     * @param list<Edit> $edits
     * @param int        $since only views that were kept since a turn of the history, 0 for all
     */
    public static function before(Bench $bench, array $edits, int $since = 0): ?self
    {
        if (array_filter($edits, self::sorts(...)) === []) {
            return null;
        }
        $views = $bench->project->views()->whereNotNull('rungs')->where('known_turn', '>=', $since)->get()->all();

        if ($views === []) {
            return null;
        }
        // Where there is no index yet, it is built now: later it would be of what the change has made.
        $bench->scene()->count();

        return new self($bench->project, array_values($views), $edits, $bench->scene(), $bench->organizers());
    }

    private static function sorts(Edit $edit): bool
    {
        return match (true) {
            $edit instanceof ObjectsEdit => $edit->column === 'layer_no',
            $edit instanceof MembersEdit => $edit->table === 'tags',
            $edit instanceof NestingEdit => true,
            $edit instanceof PlacesEdit, $edit instanceof RowEdit => in_array($edit->table, self::TABLES, true),
            default => false,
        };
    }

    /**
     * Once the change is made.
     *
     * @param Organizers            $now
     * @param array<string, string> $columns of the scene that the change has changed
     */
    public function follow(Organizers $now, array $columns): void
    {
        $scene = new Scene(new ChangedColumns($columns, new ScenesColumns($this->scene)));
        $shift = new Shift($this->scene, $this->organizers, $scene, $now, ...$this->touched());
        $regrouping = $this->regrouping();
        if ($shift->isEmpty() && $regrouping->isEmpty()) {
            return;
        }
        foreach ($this->views as $view) {
            $this->hold($view, $shift, $regrouping);
        }
    }

    private function hold(View $view, Shift $shift, Regrouping $regrouping): void
    {
        $newest = $view->known_object ?? PHP_INT_MAX;
        $copyings = $this->copyings[$newest] ??= $this->project->copyings($newest);
        $known = $view->known($this->organizers->layers, $this->organizers->tags, $copyings);
        $counted = $known->newcomerRows($shift->before, $view->settings())->or($shift->gone)->not();
        $alone = $view->isolation() ?? Isolation::none();
        $before = $now = $kept = [];
        $resorted = $differs = false;
        // What the desk gets, and what pictures take over of it.
        foreach (['rungs' => $view->settings()] + ($view->meansAll() ? [] : ['meant' => $view->meant()]) as $column => $settings) {
            $held = $regrouping->held((new Holding($shift, $known, $settings, $settings, $counted))->settings());
            $resorts = ! Differing::rows($shift, $known, $settings, $held, $alone, $counted)->isEmpty();
            $resorted = $resorted || $resorts;
            $differs = $differs || $resorts || $this->regroups($regrouping, $settings, $alone, $counted);
            $before[$column] = base64_encode($settings->pack());
            $now[$column] = base64_encode($held->pack());
            $kept[$column] = [$settings, $held];
        }
        if ($differs) {
            [$before['pictured'], $now['pictured']] = [$view->pictured, 0];
        }
        $widened = $regrouping->alone($alone);
        if ($widened !== $alone) {
            $before['isolated'] = base64_encode($alone->pack());
            $now['isolated'] = base64_encode($widened->pack());
        }
        if ($now !== $before || $differs) {
            $this->steps[] = new RowEdit('views', $view->no, $before, $now);
        }
        $this->differ += (int) $differs;
        if ($resorted) {
            $this->asItWas[$view->no] = array_map(fn (array $pair): array => [
                base64_encode($pair[1]->pack()),
                base64_encode($this->asItWas($pair[0], $pair[1], $shift, $counted)->pack()),
            ], $kept);
        }
    }

    /** Settings that show what others showed before the change. */
    private function asItWas(Settings $before, Settings $held, Shift $shift, Bits $counted): Settings
    {
        $was = (new InEffect($shift->before, $shift->from, $before))->rungs();

        return AsItWas::settings($held, $shift->after, $shift->to, $was, $counted);
    }

    /** Whether a view shows something differently because of what stands elsewhere now. */
    private function regroups(Regrouping $regrouping, Settings $settings, Isolation $alone, Bits $counted): bool
    {
        // Most views say nothing of single objects.
        if ($regrouping->isEmpty() || ($settings->objects === [] && ! $alone->isOn())) {
            return false;
        }
        $shown = (new InEffect($this->scene, $this->organizers, $settings, $alone))->rungs();

        return ! $regrouping->differing($settings, $alone, $shown)->and($counted)->isEmpty();
    }

    /** What stands elsewhere now, read off the steps and what came back with them. */
    private function regrouping(): Regrouping
    {
        $to = $came = [];
        foreach ($this->edits as $edit) {
            if ($edit instanceof NestingEdit) {
                $to = array_map(static fn (array $place): int => $place[0], $edit->after) + $to;
            } elseif ($edit instanceof ObjectsEdit && $edit->column === 'gone') {
                $came = [...$came, ...$edit->after[0] ?? []];
            }
        }
        $back =
            $to === [] || $came === []
                ? []
                : DB::table('objects')
                    ->where('project_id', $this->project->id)
                    ->whereIntegerInRaw('no', $came)
                    ->pluck('parent_no', 'no')
                    ->all();

        return new Regrouping($this->scene, $to, array_map(intval(...), $back));
    }

    /** @return array{Bits, Bits, list<int>} rows that were filed elsewhere, rows that go, tags that objects came to or left */
    private function touched(): array
    {
        $numbers = ['layer_no' => Bits::none(0), 'gone' => Bits::none(0)];
        $tagged = [];
        foreach ($this->edits as $edit) {
            if ($edit instanceof ObjectsEdit && isset($numbers[$edit->column])) {
                foreach ($edit->after as $those) {
                    sort($those);
                    $numbers[$edit->column] = $numbers[$edit->column]->with(Bits::ofRows($those === [] ? 0 : end($those), $those));
                }
            } elseif ($edit instanceof MembersEdit && $edit->table === 'tags') {
                $tagged[] = $edit->number;
            }
        }

        return [$this->scene->rowBits($numbers['layer_no']), $this->scene->rowBits($numbers['gone']), array_values(array_unique($tagged))];
    }
}
