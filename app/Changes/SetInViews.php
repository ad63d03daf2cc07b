<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Keys;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use App\Models\View;
use VineShelf\Layers\Layer;
use VineShelf\Output\Output;
use VineShelf\Rungs\BeforeHiding;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Rungs\Turn;
use VineShelf\Views\Meant;

/** A block of rows and views: what the views keep for the rows is set, cleared, copied or pasted in one change, whatever its size. */
final class SetInViews extends Command
{
    private const MOST_CELLS = 2_000_000;

    private readonly string $title;

    /** @var list<Edit> */
    private readonly array $steps;

    /**
     * @param list<View>                                $views
     * @param \Closure(Settings, int): Settings         $change of what the view at a place keeps
     * @param list<int>                                 $layers numbers of the layers that the views have something to say about then
     * @param list<Edit>                                $more   what else changes with it
     */
    private function __construct(Bench $bench, array $views, \Closure $change, array $layers, string $title, array $more = [])
    {
        $left = 0;
        $steps = $more;
        foreach ($views as $place => $view) {
            if (! $view->keepsRungs()) {
                $left++;
                continue;
            }
            $before = $view->settings();
            $after = $change($before, $place);
            $known = BeforeHiding::following($view->beforeHiding(), $before, $after);
            [$was, $is] = [base64_encode($before->pack()), base64_encode($after->pack())];
            // What is set by hand is meant for pictures as well.
            $meant = $view->meansAll() ? null : Meant::following($change($view->meant(), $place), $before, $after);
            $means = $view->meansAll() ? null : base64_encode($view->meant()->pack());
            $meansNow = $meant === null || $meant->pack() === $after->pack() ? null : base64_encode($meant->pack());
            if ($was !== $is || $means !== $meansNow) {
                $had = ['rungs' => $was, 'meant' => $means, 'before_hiding' => self::packed($view->beforeHiding())];
                $has = ['rungs' => $is, 'meant' => $meansNow, 'before_hiding' => self::packed($known)];
                $steps[] = new RowEdit(
                    'views',
                    $view->no,
                    $had + ['pictured' => $view->pictured] + self::known($bench, $view, []),
                    $has + ['pictured' => 0] + self::known($bench, $view, $layers),
                );
            }
        }
        $this->steps = $steps;
        $this->title = $title;
        $this->leftAlone = match ($left) {
            0 => '',
            1 => '1 view keeps no rungs and was left alone.',
            default => "$left views keep no rungs and were left alone.",
        };
    }

    /**
     * The rows are at a rung in the views, or nothing is set for them; or those that are hidden are given back what they had.
     *
     * @param list<View>  $views
     * @param Rung|Turn|null $rung null to set nothing
     * @param bool        $pictures whether the project's output settings are meant as well
     */
    public static function set(Bench $bench, Targets $targets, array $views, Rung|Turn|null $rung, bool $pictures = false): self
    {
        $rows = $targets->forRungs($bench);
        self::checkSize($targets);
        $organizers = $bench->organizers();
        $output = $pictures ? new SetOutput($bench, $targets, $rung instanceof Rung ? Output::from($rung->value) : $rung) : null;

        return new self(
            $bench,
            $views,
            static fn (Settings $settings, int $place): Settings => $rows->turned(
                $settings,
                $rung,
                $organizers,
                $views[$place]->beforeHiding(),
            ),
            $targets->layers,
            ($rung?->label() ?? 'Nothing set').' in '.self::inWords($views, $pictures).": {$targets->inWords($bench)}",
            $output?->edits()->steps ?? [],
        );
    }

    /**
     * What other settings say of the rows, those of a view or of the desk, views say as well.
     *
     * @param list<View> $views
     * @param string     $whose  for example "Arrival" or "the desk"
     */
    public static function copy(Bench $bench, Targets $targets, array $views, Settings $from, string $whose): self
    {
        $rows = $targets->forRungs($bench);
        self::checkSize($targets);

        return new self(
            $bench,
            $views,
            static fn (Settings $settings): Settings => $rows->copied($from, $settings),
            $targets->layers,
            "Copy from $whose to ".self::inWords($views, false).": {$targets->inWords($bench)}",
        );
    }

    /**
     * Each row gets a rung of its own in each view.
     *
     * @param list<string>                 $keys    of the rows
     * @param list<View>                   $views
     * @param list<list<Rung|null>>        $pattern rungs by row and view; it is repeated where it ends
     */
    public static function paste(Bench $bench, array $keys, array $views, array $pattern): self
    {
        if ($pattern === [] || $pattern[0] === []) {
            throw new Refused('There is nothing to paste; copy some cells first.', 'pattern');
        }
        if (count($keys) * max(1, count($views)) > self::MOST_CELLS) {
            throw new Refused('At most '.number_format(self::MOST_CELLS).' cells are set at once.', 'keys');
        }
        $cells = [];
        foreach (array_keys($views) as $place) {
            foreach ($keys as $at => $key) {
                $line = $pattern[$at % count($pattern)];
                $cells[$place][$line[$place % count($line)]->value ?? -1][] = $key;
            }
        }

        return self::cells($bench, $views, $cells, 'Paste into '.self::inWords($views, false));
    }

    /**
     * Views get what is written of them; of what is shown one at a time, nothing else is hidden.
     *
     * @param list<View>                            $views
     * @param array<int, array<int, list<string>>>  $cells keys of rows by rung, -1 for nothing set, by place of the view
     */
    public static function cells(Bench $bench, array $views, array $cells, string $title): self
    {
        $targets = $byPlace = [];
        foreach ($cells as $place => $groups) {
            foreach ($groups as $rung => $keys) {
                $name = implode(',', $keys);
                $targets[$name] ??= Targets::named(Keys::of($keys), $bench);
                $byPlace[$place][$rung] = $targets[$name]->forRungs($bench);
            }
        }
        $keys = array_unique(array_merge(...array_map(static fn (array $groups): array => array_merge(...$groups), $cells)));
        $all = Targets::named(Keys::of(array_values($keys)), $bench);

        return new self(
            $bench,
            $views,
            static function (Settings $settings, int $place) use ($byPlace): Settings {
                foreach ($byPlace[$place] ?? [] as $rung => $rows) {
                    $settings = $rows->put($settings, $rung < 0 ? null : Rung::from($rung));
                }

                return $settings;
            },
            $all->layers,
            "$title: {$all->inWords($bench)}",
        );
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return new Edits($this->steps);
    }

    /** @param list<View> $views */
    private static function inWords(array $views, bool $pictures): string
    {
        $words = match (count($views)) {
            0 => '',
            1 => "view {$views[0]->name}",
            default => count($views).' views',
        };

        return implode(' and ', array_filter([$words, $pictures ? 'pictures' : '']));
    }

    private static function packed(Settings $known): ?string
    {
        return $known->isEmpty() ? null : base64_encode($known->pack());
    }

    private static function checkSize(Targets $targets): void
    {
        if ($targets->isEmpty()) {
            throw new Refused('These rows have no rung of their own.', 'keys');
        }
    }

    /**
     * Columns that say which layers a view knows; with those that somebody has set in it.
     *
     * @param list<int> $layers
     *
     * @return array<string, mixed>
     */
    private static function known(Bench $bench, View $view, array $layers): array
    {
        $before = $view->known_layers;
        $known = array_keys($bench->newTo()->known($view)->layers);
        $after = array_values(array_unique([...$known, ...array_diff($layers, [Layer::UNSORTED])]));

        return ['known_layers' => count($after) > count($known) ? self::list($after) : ($before === null ? null : self::list($before))];
    }

    /** @param list<int> $numbers */
    private static function list(array $numbers): string
    {
        return json_encode($numbers, JSON_THROW_ON_ERROR);
    }
}
