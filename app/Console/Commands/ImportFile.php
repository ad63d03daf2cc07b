<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Intake\Bundle;
use App\Jobs\Sorted;
use App\Jobs\Uploads;
use App\Models\ImportState;
use VineShelf\Layers\SortBy;

final class ImportFile extends OnProject
{
    protected const WAITS = true;

    protected $signature =
        'shelf:import {project : the key of a project, or "new"} {file} {--person= : e-mail of the person who takes it '.
        'in; the only owner when not given} {--sort-by=best : best, groups, property, material, kind or unsorted} '.
        '{--property=layer} {--tags-from= : a property that tags are made from} '.
        '{--separator= : what stands between several of its values in one} {--json}';

    protected $description = 'Take a file in and wait until it is there';

    public function handle(Uploads $uploads): int
    {
        $project = $this->argument('project') === 'new' ? null : $this->project();
        $person = $this->person($project);
        $by = SortBy::tryFrom((string) $this->option('sort-by'));
        $file = (string) $this->argument('file');
        $wrong = match (true) {
            $by === null => 'Layers can be made from: '.implode(', ', array_column(SortBy::cases(), 'value')).'.',
            ! is_file($file) || ! is_readable($file) => "There is no readable file at $file.",
            $project !== null && $person->cannot('change', $project) => 'That project is not theirs to change.',
            default => null,
        };
        if ($wrong !== null || $by === null) {
            throw new Refused((string) $wrong);
        }
        $copy = Bundle::around($file) ?? (string) tempnam(sys_get_temp_dir(), 'shelf');
        if (filesize($copy) === 0 && ! copy($file, $copy)) {
            @unlink($copy);
            throw new Refused('There is not enough room for a copy of the file.');
        }
        $sorted = new Sorted(
            $by,
            (string) $this->option('property'),
            (string) $this->option('tags-from'),
            (string) $this->option('separator'),
        );
        $import = $uploads->receive($person, $project, $copy, basename($file), $sorted);
        while (! $import->refresh()->isOver()) {
            usleep(200_000);
        }
        if ($import->state !== ImportState::Done) {
            throw new Refused($import->error ?: 'It was stopped.');
        }
        $key = $import->project->key ?? '';
        $newTo = $import->project === null ? 0 : count(Bench::of($import->project, $person)->newTo()->views());
        $this->line(
            $this->option('json')
                ? (string) json_encode(['project' => $key, 'objects' => $import->objects, 'viewsWithNewcomers' => $newTo])
                : ($import->objects === 1 ? '1 object is' : number_format($import->objects).' objects are').
                    " in project $key.".
                    ($newTo > 0 ? ' '.($newTo === 1 ? '1 view has' : number_format($newTo).' views have').' newcomers now.' : ''),
        );

        return self::SUCCESS;
    }
}
