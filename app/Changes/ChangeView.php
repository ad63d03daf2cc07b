<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use App\Models\Project;
use App\Models\View;
use Illuminate\Support\Facades\DB;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;

/**
 * A view is kept, updated, renamed, reviewed or deleted.
 *
 * @phpstan-type Camera array{eye: list<float>, target: list<float>, fov: float, tall?: float, up?: list<float>}
 */
final class ChangeView extends Command
{
    private function __construct(public readonly int $number, private readonly string $title, private readonly Edits $edits) {}

    /**
     * @param Camera|null         $camera
     * @param OutputSettings|null $output its own output settings from now on
     */
    public static function keep(
        Project $project,
        string $name,
        ?array $camera,
        ?Settings $rungs,
        ?OutputSettings $output,
        string $picture,
    ): self {
        if ($camera === null && $rungs === null && $output === null) {
            throw new Refused('A view keeps at least one thing: tick camera, rungs or what pictures show.', 'facets');
        }
        $number = $project->next_view++;
        $name = self::checked($name === '' ? "View $number" : $name);

        return new self(
            $number,
            "Keep view $name",
            new Edits([
                new RowEdit(
                    'views',
                    $number,
                    null,
                    [
                        'position' => (int) $project->views()->max('position') + 1,
                        'name' => $name,
                        'newcomers' => 0,
                        'picture' => $picture,
                    ] + self::state($project, $camera, $rungs, $output),
                ),
            ]),
        );
    }

    /**
     * What the view keeps is brought up to date; it goes on keeping what it kept.
     *
     * @param Camera|null $camera  as the canvas has it
     * @param bool        $keep    whether it keeps the camera from now on as well
     * @param string|null $picture file, null to leave it as it is
     */
    public static function update(
        Project $project,
        int $number,
        ?array $camera,
        bool $keep,
        Settings $rungs,
        OutputSettings $output,
        ?string $picture,
    ): self {
        $view = self::view($project, $number);
        $state = self::state(
            $project,
            $view->camera === null && ! $keep ? null : $camera,
            $view->keepsRungs() ? $rungs : null,
            $view->keepsOutput() ? $output : null,
        );

        return self::columns($project, $view, "Update view $view->name", ['picture' => $picture ?? $view->picture] + $state);
    }

    public static function rename(Project $project, int $number, string $name): self
    {
        $view = self::view($project, $number);
        $name = self::checked($name);

        return self::columns($project, $view, "Rename view $view->name to $name", $name === $view->name ? [] : ['name' => $name]);
    }

    /** What the view gives to newcomers from now on. */
    public static function newcomers(Project $project, int $number, int $newcomers): self
    {
        $view = self::view($project, $number);
        $word =
            [0 => 'Hidden', 5 => 'Full', -1 => 'as the desk has them'][$newcomers] ??
            throw new Refused('Newcomers can be Hidden, Full, or as the desk has them.', 'newcomers');

        return self::columns($project, $view, "Newcomers in $view->name: $word", ['newcomers' => $newcomers]);
    }

    /** The newcomers are no longer new to the view: where it keeps rungs, it keeps them at the rung that it gave them. */
    public static function review(Project $project, int $number): self
    {
        $view = self::view($project, $number);
        $newest = $project->next_layer - 1;
        $after = ['known_layer' => $newest, 'known_object' => $project->next_object - 1];
        if ($view->keepsRungs()) {
            $settings = $view->settings();
            if ($view->newcomers === 0 && $newest > $view->known_layer) {
                $settings = $settings->withLayers(range($view->known_layer + 1, $newest), Rung::Hidden);
            }
            $after['rungs'] = base64_encode($settings->pack());
        }

        return self::columns($project, $view, "Review view $view->name", $after);
    }

    /** The view's own output settings become others; none to keep none. */
    public static function output(Project $project, int $number, OutputSettings $output): self
    {
        $view = self::view($project, $number);

        return self::columns($project, $view, "Output of view $view->name", [
            'own_output' => $output->isEmpty() ? null : base64_encode($output->pack()),
        ]);
    }

    public static function delete(Project $project, int $number): self
    {
        $view = self::view($project, $number);

        return new self(
            $view->no,
            "Delete view $view->name",
            new Edits([new RowEdit('views', $view->no, self::row($project, $view), null)]),
        );
    }

    /** @throws Refused when somebody has deleted it meanwhile */
    private static function view(Project $project, int $number): View
    {
        return $project->views()->where('no', $number)->first() ?? throw new Refused('That view is no longer there.');
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /** @param array<string, mixed> $after */
    private static function columns(Project $project, View $view, string $title, array $after): self
    {
        $before = array_intersect_key(self::row($project, $view), $after);
        ksort($before);
        ksort($after);

        return new self($view->no, $title, new Edits($before === $after ? [] : [new RowEdit('views', $view->no, $before, $after)]));
    }

    /** @return array<string, mixed> */
    private static function row(Project $project, View $view): array
    {
        return RowEdit::stored(DB::table('views')->where('project_id', $project->id)->where('no', $view->no)->first() ?? new \stdClass);
    }

    /**
     * @param Camera|null $camera
     *
     * @return array<string, mixed>
     */
    private static function state(Project $project, ?array $camera, ?Settings $rungs, ?OutputSettings $output): array
    {
        return [
            'camera' => $camera === null ? null : json_encode($camera, JSON_THROW_ON_ERROR),
            'rungs' => $rungs === null ? null : base64_encode($rungs->pack()),
            'own_output' => $output === null ? null : base64_encode($output->pack()),
            'known_layer' => $project->next_layer - 1,
            'known_object' => $project->next_object - 1,
            'kept_at' => now()->toDateTimeString(),
        ];
    }

    private static function checked(string $name): string
    {
        $name = trim((string) preg_replace('~\s+~u', ' ', $name));
        if ($name === '') {
            throw new Refused('A view needs a name.', 'name');
        }
        if (mb_strlen($name) > 120) {
            throw new Refused('A view name has at most 120 characters; this one has '.mb_strlen($name).'.', 'name');
        }

        return $name;
    }
}
