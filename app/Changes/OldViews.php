<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edit;
use App\Changes\Edits\MembersEdit;
use App\Changes\Edits\ObjectsEdit;
use App\Changes\Edits\PlacesEdit;
use App\Changes\Edits\RowEdit;
use App\Models\View;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Isolation;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;
use VineShelf\Views\AsItWas;
use VineShelf\Views\Differing;
use VineShelf\Views\Holding;
use VineShelf\Views\Shift;

/**
 * What a change of the sorting means to the views that were there before it: what they have to keep so that they show what they showed, and
 * which of them show something differently all the same.
 */
final class OldViews
{
    /** Tables whose rows say what objects are sorted by. */
    private const TABLES = ['layers', 'tags', 'folders'];

    /** @var list<RowEdit> what views keep from now on */
    public array $steps = [];

    /** How many views show something differently. */
    public int $differ = 0;

    /** @var array<int, array{string, string}> what those keep now, and what they would keep to show what they showed; by number */
    public array $asItWas = [];

    /**
     * @param list<View>  $views
     * @param list<Edit>  $edits
     */
    private function __construct(
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

        return new self(array_values($views), $edits, $bench->scene(), $bench->organizers());
    }

    private static function sorts(Edit $edit): bool
    {
        return match (true) {
            $edit instanceof ObjectsEdit => $edit->column === 'layer_no',
            $edit instanceof MembersEdit => $edit->table === 'tags',
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
        if ($shift->isEmpty()) {
            return;
        }
        foreach ($this->views as $view) {
            $this->hold($view, $shift);
        }
    }

    private function hold(View $view, Shift $shift): void
    {
        $settings = $view->settings();
        $known = $view->known($this->organizers->layers, $this->organizers->tags);
        $newcomers = $known->newcomerRows($shift->before, $settings);
        $counted = $newcomers->or($shift->gone)->not();
        $held = (new Holding($shift, $known, $settings, $settings, $counted))->settings();
        $before = base64_encode($settings->pack());
        $now = base64_encode($held->pack());
        $alone = $view->isolation() ?? Isolation::none();
        $differs = ! Differing::rows($shift, $known, $settings, $held, $alone, $counted)->isEmpty();
        if ($now !== $before || $differs) {
            $old = $differs ? ['pictured' => 0] : [];
            $this->steps[] = new RowEdit(
                'views',
                $view->no,
                ['rungs' => $before] + ($differs ? ['pictured' => $view->pictured] : []),
                ['rungs' => $now] + $old,
            );
        }
        if (! $differs) {
            return;
        }
        $this->differ++;
        $was = (new InEffect($shift->before, $shift->from, $settings))->rungs();
        $kept = AsItWas::settings($held, $shift->after, $shift->to, $was, $counted);
        $this->asItWas[$view->no] = [$now, base64_encode($kept->pack())];
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
