<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use App\Models\View;
use Illuminate\Support\Facades\DB;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Settings;
use VineShelf\Views\Applied;
use VineShelf\Views\Facet;
use VineShelf\Views\Meant;

/**
 * Views are updated, named, noted, reviewed, copied or deleted, one or many at once; or they begin or cease to keep something.
 *
 * @phpstan-import-type Camera from ViewState
 */
final class ChangeViews extends Command
{
    public const NAME_LENGTH = 120;

    public const NOTE_LENGTH = 4000;

    /** Number of the last view that it is about, 0 for none. */
    public readonly int $last;

    /** @param list<RowEdit> $steps */
    private function __construct(private readonly string $title, private readonly array $steps)
    {
        $this->last = $steps === [] ? 0 : $steps[count($steps) - 1]->number;
    }

    /**
     * What a view keeps is brought up to date from the desk; it goes on keeping what it kept, and knows all that is there now.
     *
     * @param Camera|null $camera  as the canvas has it; null to leave the camera as it is
     * @param bool        $keep    whether it keeps the camera from now on as well
     * @param string|null $picture file, null to leave it as it is
     * @param array<string, bool>|null $meant whether pictures take it over, by id of the line of {@see Lowered}; null for all of it
     */
    public static function update(
        Bench $bench,
        int $number,
        ?array $camera,
        bool $keep,
        ?string $picture,
        ?array $meant = [],
    ): self {
        $view = self::views($bench, [$number])[0];
        self::checkHeld([$view], $camera);
        $after = [];
        foreach (Facet::cases() as $facet) {
            if ($facet === Facet::Camera ? $camera !== null && ($keep || $view->keeps($facet)) : $view->keeps($facet)) {
                $after[View::COLUMNS[$facet->value]] = ViewState::column($bench, $facet, $camera, $bench->kept());
            }
        }
        if ($view->keepsRungs()) {
            $after['meant'] = self::packed($meant === null ? null : Lowered::onDesk($bench)->meant($meant));
        }
        if ($picture !== null) {
            $after += ['picture' => $picture, 'pictured' => $bench->project->revision];
        }

        return new self(
            "Update view $view->name",
            self::changed($bench, $view, $after + ViewState::known($bench), ['kept_at' => now()->toDateTimeString()]),
        );
    }

    public static function rename(Bench $bench, int $number, string $name): self
    {
        $view = self::views($bench, [$number])[0];
        $name = self::checked($name);

        return new self("Rename view $view->name to $name", self::changed($bench, $view, ['name' => $name]));
    }

    public static function note(Bench $bench, int $number, string $note): self
    {
        $view = self::views($bench, [$number])[0];

        return new self("Note on view $view->name", self::changed($bench, $view, ['note' => self::checkedNote($note)]));
    }

    /** @param list<int> $numbers @param int $get what newcomers get from now on, see {@see Applied} */
    public static function newcomers(Bench $bench, array $numbers, int $get): self
    {
        $views = self::views($bench, $numbers);
        $word =
            [Applied::HIDDEN => 'Hidden', Applied::FULL => 'Full', Applied::AS_ON_DESK => 'as the desk has them'][$get] ??
            throw new Refused('Newcomers can be Hidden, Full, or as the desk has them.', 'newcomers');

        return self::each($bench, $views, 'Newcomers in '.self::inWords($views).": $word", static fn (): array => ['newcomers' => $get]);
    }

    /**
     * Newcomers are no longer new to views: where those keep rungs, they keep newcomers at the rung that they gave them.
     *
     * @param list<int> $numbers
     */
    public static function review(Bench $bench, array $numbers): self
    {
        $views = self::views($bench, $numbers);

        return self::each($bench, $views, 'Review '.self::inWords($views), static function (View $view) use ($bench): array {
            return ($view->keepsRungs() ? self::keeping($view, $bench->withNewcomers($view)) : []) + ViewState::known($bench);
        });
    }

    /**
     * Views begin to keep something of the desk, or cease to keep it.
     *
     * @param list<int>   $numbers
     * @param list<Facet> $take
     * @param list<Facet> $leave
     * @param Camera|null $camera as the canvas has it
     */
    public static function facets(Bench $bench, array $numbers, array $take, array $leave, ?array $camera): self
    {
        $views = self::views($bench, $numbers);
        if ($camera === null && in_array(Facet::Camera, $take, true)) {
            throw new Refused('The camera could not be read; move it a little and try again.', 'facets');
        }
        self::checkHeld($views, in_array(Facet::Camera, [...$take, ...$leave], true) ? [] : null);
        $words = [
            ...array_map(static fn (Facet $facet): string => 'with '.lcfirst($facet->label()), $take),
            ...array_map(static fn (Facet $facet): string => 'without '.lcfirst($facet->label()), $leave),
        ];
        $title = ucfirst(self::inWords($views)).' '.implode(', ', $words);

        return self::each($bench, $views, $title, static function (View $view) use ($bench, $take, $leave, $camera): array {
            $after = [];
            foreach ($take as $facet) {
                $after[View::COLUMNS[$facet->value]] = ViewState::column($bench, $facet, $camera, $bench->kept());
            }
            foreach ($leave as $facet) {
                $after[View::COLUMNS[$facet->value]] = null;
            }
            if (in_array(Facet::Rungs, [...$take, ...$leave], true)) {
                $after['meant'] = in_array(Facet::Rungs, $leave, true) ? null : self::packed(Lowered::onDesk($bench)->meant());
            }
            $keeps = static fn (Facet $facet): bool => ! in_array($facet, $leave, true) && $view->keeps($facet);
            if ($take === [] && array_filter(Facet::cases(), $keeps) === []) {
                throw new Refused("$view->name would keep nothing any more; delete it instead.", 'facets');
            }
            // Rungs that it did not keep are those of now: it knows what is there.
            $isNew = in_array(Facet::Rungs, $take, true) && ! $view->keepsRungs();

            return $after + ($isNew ? ViewState::known($bench) : []);
        });
    }

    /**
     * Views hold their cameras, so that updating them leaves those as they are; or let them go.
     *
     * @param list<int> $numbers
     */
    public static function holdCamera(Bench $bench, array $numbers, bool $on): self
    {
        $views = self::views($bench, $numbers);
        if (array_filter($views, static fn (View $view): bool => $view->camera === null) !== []) {
            throw new Refused('A view that keeps no camera has none to hold.', 'views');
        }

        return self::each(
            $bench,
            $views,
            ($on ? 'Hold the camera of ' : 'Let go the camera of ').self::inWords($views),
            static fn (): array => ['camera_held' => $on],
        );
    }

    /**
     * @param list<View>        $views
     * @param array<mixed>|null $camera null where the camera is not meant
     *
     * @throws Refused
     */
    private static function checkHeld(array $views, ?array $camera): void
    {
        foreach ($views as $view) {
            if ($camera !== null && $view->camera_held) {
                throw new Refused("$view->name holds its camera; let it go first.", 'facets');
            }
        }
    }

    /** A view's own output settings become others; none to keep none. */
    public static function output(Bench $bench, int $number, OutputSettings $output): self
    {
        $view = self::views($bench, [$number])[0];

        return new self(
            "Output of view $view->name",
            self::changed($bench, $view, ['own_output' => $output->isEmpty() ? null : base64_encode($output->pack())]),
        );
    }

    /**
     * Views keep other rungs.
     *
     * @param array<int, Settings> $settings by number of the view
     */
    public static function rungs(Bench $bench, array $settings, string $title): self
    {
        return self::each(
            $bench,
            self::views($bench, array_keys($settings)),
            $title,
            static fn (View $view): array => self::keeping($view, $settings[$view->no]),
        );
    }

    /**
     * Copies of views stand behind them.
     *
     * @param list<int> $numbers
     */
    public static function duplicate(Bench $bench, array $numbers): self
    {
        $views = self::views($bench, $numbers);
        $names = array_fill_keys($bench->project->views()->pluck('name')->all(), true);
        $steps = [];
        foreach ($views as $view) {
            $name = self::numbered($view->name, $names);
            $names[$name] = true;
            $row = ['name' => $name, 'kept_at' => now()->toDateTimeString()] + self::row($bench, $view);
            $steps[] = new RowEdit('views', $bench->project->next_view++, null, $row);
        }

        return new self('Duplicate '.self::inWords($views), $steps);
    }

    /** @param list<int> $numbers */
    public static function delete(Bench $bench, array $numbers): self
    {
        $views = self::views($bench, $numbers);
        $steps = array_map(static fn (View $view): RowEdit => new RowEdit('views', $view->no, self::row($bench, $view), null), $views);

        return new self('Delete '.self::inWords($views), $steps);
    }

    /**
     * Pictures of a view take over what they are told to of what it keeps.
     *
     * @param array<string, bool> $meant by id of the line of {@see Lowered}
     */
    public static function meant(Bench $bench, int $number, array $meant): self
    {
        $view = self::views($bench, [$number])[0];
        if (! $view->keepsRungs()) {
            throw new Refused("$view->name keeps no rungs: its pictures begin with everything at Full.", 'meant');
        }

        return new self(
            "What pictures of $view->name take over",
            self::changed($bench, $view, ['meant' => self::packed(Lowered::inView($bench, $view)->meant($meant))]),
        );
    }

    /**
     * Columns of a view that keeps other rungs: what is new in them is meant for pictures.
     *
     * @return array<string, string|null>
     */
    private static function keeping(View $view, Settings $settings): array
    {
        $meant = $view->meansAll() ? null : Meant::following($view->meant(), $view->settings(), $settings);

        return ['rungs' => base64_encode($settings->pack()), 'meant' => self::packed($meant)];
    }

    private static function packed(?Settings $settings): ?string
    {
        return $settings === null ? null : base64_encode($settings->pack());
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return new Edits($this->steps);
    }

    /** @throws Refused when it is no name for a view */
    public static function checked(string $name): string
    {
        $name = trim((string) preg_replace('~\s+~u', ' ', $name));
        if ($name === '') {
            throw new Refused('A view needs a name.', 'name');
        }
        if (mb_strlen($name) > self::NAME_LENGTH) {
            throw new Refused(
                'A view name has at most '.self::NAME_LENGTH.' characters; this one has '.mb_strlen($name).'.',
                'name',
            );
        }

        return $name;
    }

    /** @throws Refused when it is too long */
    public static function checkedNote(string $note): string
    {
        $note = trim($note);
        if (mb_strlen($note) > self::NOTE_LENGTH) {
            throw new Refused('A note has at most '.self::NOTE_LENGTH.' characters; this one has '.mb_strlen($note).'.', 'note');
        }

        return $note;
    }

    /**
     * @param array<int> $numbers
     *
     * @return non-empty-list<View> in the order on the shelf
     *
     * @throws Refused when somebody has deleted one meanwhile
     */
    private static function views(Bench $bench, array $numbers): array
    {
        $views = array_values($bench->project->views()->whereIn('no', $numbers)->get()->all());
        if ($views === [] || count($views) < count(array_unique($numbers))) {
            throw new Refused(count($numbers) > 1 ? 'Some of these views are no longer there.' : 'That view is no longer there.');
        }

        return $views;
    }

    /**
     * @param non-empty-list<View>                 $views
     * @param \Closure(View): array<string, mixed> $after columns
     */
    private static function each(Bench $bench, array $views, string $title, \Closure $after): self
    {
        $steps = array_map(static fn (View $view): array => self::changed($bench, $view, $after($view)), $views);

        return new self($title, array_merge(...$steps));
    }

    /**
     * @param array<string, mixed> $after
     * @param array<string, mixed> $besides columns that are no change by themselves
     *
     * @return list<RowEdit>
     */
    private static function changed(Bench $bench, View $view, array $after, array $besides = []): array
    {
        $stored = self::row($bench, $view);
        $before = array_intersect_key($stored, $after);
        // A view that would only know more keeps what it keeps, but is no longer asked about newcomers.
        if ((new RowEdit('views', $view->no, $before, null))->isOf($after, ['known_turn'])) {
            return [];
        }
        $is = static fn (string $column): RowEdit => new RowEdit('views', $view->no, [$column => $stored[$column]], null);
        // Only what differs: whoever changes the rest stands in nobody's way.
        $after = array_filter(
            $after,
            static fn (mixed $value, string $column): bool => ! $is($column)->isOf([$column => $value]),
            ARRAY_FILTER_USE_BOTH,
        );
        $after += $besides;

        return [new RowEdit('views', $view->no, array_intersect_key($stored, $after), $after)];
    }

    /** @return array<string, mixed> */
    private static function row(Bench $bench, View $view): array
    {
        return RowEdit::stored(
            DB::table('views')->where('project_id', $bench->project->id)->where('no', $view->no)->first() ?? new \stdClass,
        );
    }

    /** @param array<string, true> $taken */
    private static function numbered(string $name, array $taken): string
    {
        $stem = (string) preg_replace('~ \d{1,4}$~', '', $name);
        for ($number = 2; isset($taken["$stem $number"]); $number++);

        return mb_strlen("$stem $number") > self::NAME_LENGTH
            ? mb_substr($stem, 0, self::NAME_LENGTH - strlen(" $number"))." $number"
            : "$stem $number";
    }

    /** @param non-empty-list<View> $views */
    private static function inWords(array $views): string
    {
        return count($views) === 1 ? "view {$views[0]->name}" : count($views).' views';
    }
}
