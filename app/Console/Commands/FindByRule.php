<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Bench\Refused;
use Illuminate\Support\Facades\DB;

final class FindByRule extends OnProject
{
    protected $signature =
        'shelf:rule {project : the key of a project} {rule : see docs/rules.md} {--person= : e-mail of the person '.
        'whose desk decides what is shown and picked; the only owner when not given} {--json}';

    protected $description = 'List the objects that a rule picks: number, kind, name';

    public function handle(): int
    {
        $project = $this->project();
        $bench = Bench::of($project, $this->person($project));
        $rule = (string) $this->argument('rule');
        $found = $bench->find($rule);
        if ($found->rows === null) {
            $error = $found->error;
            throw new Refused(
                $error === null ? 'The rule is empty.' : $error->getMessage().' It is at character '.($error->at + 1).'.',
            );
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
