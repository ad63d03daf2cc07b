<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Models\Project;
use App\Models\View;
use Illuminate\Console\Command;

final class ListViews extends Command
{
    protected $signature = 'shelf:views {project : the key of a project} {--json}';

    protected $description = 'List the views of a project';

    public function handle(): int
    {
        $project = Project::query()->where('key', $this->argument('project'))->first();
        if ($project === null) {
            $this->error('There is no project with the key '.$this->argument('project').'.');

            return 2;
        }
        $views = $project->views()->get()->map(
            static fn (View $view): array => [
                'number' => $view->no,
                'name' => $view->name,
                'camera' => $view->camera,
                'rungs' => $view->keepsRungs() ? $view->settings()->layers : null,
                'kept' => $view->kept_at->toIso8601String(),
            ],
        );
        if ($this->option('json')) {
            $this->line((string) json_encode($views, JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE));
        } else {
            foreach ($views as $view) {
                $this->line(
                    sprintf(
                        '%4d  %-40s %s%s',
                        $view['number'],
                        $view['name'],
                        $view['camera'] === null ? '' : 'camera ',
                        $view['rungs'] === null ? '' : 'rungs',
                    ),
                );
            }
        }

        return self::SUCCESS;
    }
}
