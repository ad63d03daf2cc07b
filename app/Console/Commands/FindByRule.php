<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Models\Project;
use App\Models\User;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

final class FindByRule extends Command
{
    protected $signature = 'shelf:rule {project : the key of a project} {rule : see docs/rules.md} {--person= : e-mail of the person '
        .'whose desk decides what is shown and picked; an owner when not given} {--json}';

    protected $description = 'List the objects that a rule picks: number, kind, name';

    public function handle(): int
    {
        $project = Project::query()->where('key', $this->argument('project'))->first();
        if ($project === null) {
            $this->error('There is no project with the key '.$this->argument('project').'.');

            return 2;
        }
        $people = is_string($this->option('person'))
            ? $project->people()->where('email', $this->option('person'))
            : $project->people()->wherePivot('role', 'owner');
        $person = $people->first();
        if (! ($person instanceof User)) {
            $this->error('Nobody in that project has this e-mail address.');

            return 2;
        }
        $bench = Bench::of($project, $person);
        $rule = (string) $this->argument('rule');
        $found = $bench->find($rule);
        if ($found->rows === null) {
            $this->error(
                $found->error === null
                    ? 'The rule is empty.'
                    : $found->error->getMessage().
                        " At character {$found->error->at}: ".
                        mb_substr($rule, $found->error->at, $found->error->length),
            );

            return 2;
        }
        foreach ($found->remarks as $remark) {
            $this->getOutput()->getErrorStyle()->writeln($remark->sentence);
        }
        $rows = $found->rows->rows();
        $numbers = array_map($bench->scene()->number(...), $rows);
        $names = [];
        foreach (array_chunk($numbers, 5000) as $some) {
            foreach (
                DB::table('objects')->where('project_id', $project->id)->whereIn('no', $some)->pluck('name', 'no') as $number => $name
            ) {
                $names[$number] = is_string($name) ? $name : '';
            }
        }
        $objects = array_map(
            static fn (int $row, int $number): array => [
                'number' => $number,
                'kind' => $bench->scene()->kind($row)->label(),
                'name' => $names[$number] ?? '',
            ],
            $rows,
            $numbers,
        );
        if ($this->option('json')) {
            $this->line(
                (string) json_encode(
                    [
                        'objects' => $objects,
                        'remarks' => array_map(static fn (\VineShelf\Rules\Remark $remark): string => $remark->sentence, $found->remarks),
                    ],
                    JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE,
                ),
            );
        } else {
            foreach ($objects as $object) {
                $this->line(sprintf('%8d  %-7s %s', $object['number'], $object['kind'], $object['name']));
            }
        }

        return self::SUCCESS;
    }
}
