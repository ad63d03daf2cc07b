<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\View;

final class ListViews extends OnProject
{
    protected $signature = 'shelf:views {project : the key of a project} {--person= : e-mail of somebody in it} {--json}';

    protected $description = 'List the views of a project';

    public function handle(): int
    {
        $project = $this->project();
        $this->person($project);
        $views = $project->views()->get()->map(
            static fn (View $view): array => [
                'number' => $view->no,
                'name' => $view->name,
                'camera' => $view->camera,
                'keeps' => array_column($view->facets(), 'value'),
                'note' => $view->note,
                'rungs' => $view->keepsRungs() ? $view->settings()->layers : null,
                'kept' => $view->kept_at->toIso8601String(),
            ],
        );
        if ($this->option('json')) {
            $this->line((string) json_encode($views, JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE));
        } else {
            foreach ($views as $view) {
                $this->line(sprintf('%4d  %-40s %s', $view['number'], $view['name'], implode(', ', $view['keeps'])));
            }
        }

        return self::SUCCESS;
    }
}
