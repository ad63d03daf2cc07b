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
use Illuminate\Contracts\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;
use VineShelf\Views\Copying;
use VineShelf\Views\OldView;
use VineShelf\Views\Regrouping;
use VineShelf\Views\Resorting;
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
     * What those keep now, and what they would keep to show what they showed; by number and column, empty for nothing.
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
     * @param list<int>|null $only  numbers of the views that are looked at; null for all
     */
    public static function before(Bench $bench, array $edits, int $since = 0, ?array $only = null): ?self
    {
        if (array_filter($edits, self::sorts(...)) === []) {
            return null;
        }
        $views = $bench->project
            ->views()
            ->where('known_turn', '>=', $since)
            ->when($only !== null, static fn (Builder $those): Builder => $those->whereIn('no', $only ?? []))
            ->where(static fn (Builder $kept): Builder => $kept->whereNotNull('rungs')->orWhereNotNull('own_output')
                ->orWhereNotNull('isolated')->orWhereNotNull('tint'))
            ->get()
            ->all();

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
        $change = new Resorting(
            new Shift($this->scene, $this->organizers, $scene, $now, ...$this->touched()),
            $this->regrouping(),
            OutputSettings::of($this->organizers, $this->scene),
            OutputSettings::of($now, $scene),
        );
        if ($change->isEmpty()) {
            return;
        }
        foreach ($this->views as $view) {
            $this->hold($view, $change);
        }
    }

    private function hold(View $view, Resorting $change): void
    {
        $newest = $view->known_object ?? PHP_INT_MAX;
        $copyings = $this->copyings[$newest] ??= $this->project->copyings($newest);
        $known = $view->known($this->organizers->layers, $this->organizers->tags, $copyings);
        $gone = $change->shift->gone;
        $counted = ($view->keepsRungs() ? $known->newcomerRows($this->scene, $view->settings())->or($gone) : $gone)->not();
        $columns = new KeptColumns($view);
        $old = new OldView($change, $columns->state, $known, $counted);
        $isResorted = $old->isResorted();
        $differs = $isResorted || $old->isRegrouped();
        $now = $columns->of($old->held);
        $before = $columns->of($columns->state);
        $isOther = static fn (?string $value, string $column): bool => $value !== $before[$column];
        $changed = array_filter($now, $isOther, ARRAY_FILTER_USE_BOTH);
        $before = array_intersect_key($before, $changed);
        if ($differs) {
            [$before['pictured'], $changed['pictured']] = [$view->pictured, 0];
        }
        if ($changed !== []) {
            $this->steps[] = new RowEdit('views', $view->no, $before, $changed);
        }
        $this->differ += (int) $differs;
        if ($isResorted) {
            foreach ($columns->of($old->asItWas()) as $column => $then) {
                if ($then !== $now[$column]) {
                    $this->asItWas[$view->no][$column] = [$now[$column] ?? '', $then ?? ''];
                }
            }
        }
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
