<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Jobs\Uploads;
use App\Models\ImportState;
use App\Models\Project;
use App\Models\User;
use Illuminate\Console\Command;
use VineShelf\Layers\SortBy;

final class ImportFile extends Command
{
    protected $signature = 'shelf:import {project : the key of a project, or "new"} {file} {--person= : e-mail of the person who takes it '
        .'in; the only one there is when not given} {--sort-by=best : best, groups, property, material, kind or unsorted} '
        .'{--property=layer}';

    protected $description = 'Take a file in and wait until it is there';

    public function handle(Uploads $uploads): int
    {
        $people = User::query()
            ->when(is_string($this->option('person')), fn ($query) => $query->where('email', $this->option('person')))
            ->limit(2)
            ->get();
        $person = $people->count() === 1 ? $people->first() : null;
        $by = SortBy::tryFrom((string) $this->option('sort-by'));
        $file = (string) $this->argument('file');
        $project = $this->argument('project') === 'new' ? null : Project::query()->where('key', $this->argument('project'))->first();
        $wrong = match (true) {
            $person === null => 'Say who takes it in: --person=EMAIL',
            $by === null => 'Layers can be made from: '.implode(', ', array_column(SortBy::cases(), 'value')).'.',
            ! is_file($file) || ! is_readable($file) => "There is no readable file at $file.",
            $this->argument('project') !== 'new' && $project === null => 'There is no project with the key '.
                $this->argument('project').
                '.',
            $project !== null && $person->cannot('change', $project) => 'That project is not theirs to change.',
            default => null,
        };
        if ($wrong !== null || $person === null || $by === null) {
            $this->error((string) $wrong);

            return 2;
        }
        $copy = (string) tempnam(sys_get_temp_dir(), 'shelf');
        copy($file, $copy);
        $import = $uploads->receive($person, $project, $copy, basename($file), $by, (string) $this->option('property'));
        while (! $import->refresh()->isOver()) {
            usleep(200_000);
        }
        if ($import->state !== ImportState::Done) {
            $this->error($import->error ?: 'It was stopped.');

            return 2;
        }
        $this->line(number_format($import->objects).' objects are in project '.($import->project->key ?? ''));

        return self::SUCCESS;
    }
}
