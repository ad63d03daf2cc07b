<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\ChangeViews;
use App\Changes\KeepView;
use App\Models\View;
use App\Workbench\BcfOf;
use App\Workbench\ViewOnDesk;
use VineShelf\Views\Facet;

final class HandleView extends OnBench
{
    protected $signature =
        'shelf:view {project} {act : keep, apply, update, review or delete} {name : of the view} '.
        '{--keeps=rungs : what it keeps of camera, rungs, output, tint, section, isolation; commas between} '.
        '{--pictures= : all or meant: what its pictures take over of what is lowered} {--person=} {--json}';

    protected $description = 'Keep a view of the desk, apply, update, review or delete it';

    public function handle(): int
    {
        $bench = $this->bench();
        $name = (string) $this->argument('name');
        $meant = $this->meant();

        return match ((string) $this->argument('act')) {
            'keep' => $this->keep($bench, $name, $meant),
            'apply' => $this->apply($bench, self::named($bench, $name)),
            'update' => $this->carryOut(
                $bench,
                static fn (Bench $held): ChangeViews => ChangeViews::update(
                    $held,
                    self::named($held, $name)->no,
                    null,
                    false,
                    null,
                    $meant,
                ),
                'It is so already.',
            ),
            'review' => $this->carryOut(
                $bench,
                static fn (Bench $held): ChangeViews => ChangeViews::review($held, [self::named($held, $name)->no]),
                'It is reviewed already.',
            ),
            'delete' => $this->carryOut(
                $bench,
                static fn (Bench $held): ChangeViews => ChangeViews::delete($held, [self::named($held, $name)->no]),
                '',
            ),
            default => throw new Refused(
                'A view can be kept, applied, updated, reviewed or deleted: keep, apply, update, review, delete.',
            ),
        };
    }

    /** @return array<string, bool>|null what is chosen of it, null for all @throws Refused */
    private function meant(): ?array
    {
        return match ($this->option('pictures') ?? 'meant') {
            'all' => null,
            'meant' => [],
            default => throw new Refused('Pictures take over all that is lowered, or what is meant: all, meant.'),
        };
    }

    /** @param array<string, bool>|null $meant */
    private function keep(Bench $bench, string $name, ?array $meant): int
    {
        $words = array_values(array_filter(array_map(trim(...), explode(',', (string) $this->option('keeps')))));
        $facets = [];
        foreach (array_unique($words) as $word) {
            $facets[] =
                Facet::tryFrom($word) ??
                throw new Refused("A view cannot keep $word; it keeps ".implode(', ', array_column(Facet::cases(), 'value')).'.');
        }

        return $this->carryOut(
            $bench,
            static fn (Bench $held): KeepView => new KeepView(
                $held,
                $name,
                $facets,
                BcfOf::ofWhole($held),
                '',
                meant: $meant,
            ),
            '',
        );
    }

    private function apply(Bench $bench, View $view): int
    {
        ViewOnDesk::apply($bench, $view);

        return $this->answer("$view->name applied.");
    }

    /** @throws Refused */
    private static function named(Bench $bench, string $name): View
    {
        return $bench->project->views()->where('name', $name)->first() ?? throw new Refused("There is no view $name.");
    }
}
