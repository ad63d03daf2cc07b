<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Command;
use App\Changes\History;
use VineShelf\Scene\Bits;

/** A command that acts on a project as somebody sees it, and answers in one line or with JSON. */
abstract class OnBench extends OnProject
{
    protected function bench(): Bench
    {
        $project = $this->project();

        return Bench::of($project, $this->person($project));
    }

    /**
     * The rows that a rule picks; what it names in vain is said among the errors.
     *
     * @throws Refused
     */
    protected function picked(Bench $bench, string $rule): Bits
    {
        $found = $bench->find($rule);
        if ($found->rows === null) {
            throw new Refused(
                $found->error === null
                    ? 'The rule is empty.'
                    : $found->error->getMessage().' It is at character '.($found->error->at + 1).'.',
            );
        }
        foreach ($found->remarks as $remark) {
            $this->getOutput()->getErrorStyle()->writeln($remark->sentence);
        }

        return $found->rows;
    }

    /** @param callable(Bench): Command $make */
    protected function carryOut(Bench $bench, callable $make, string $nothing): int
    {
        if (! $bench->mayChange()) {
            throw new Refused('That project is not theirs to change.');
        }
        $command = app(History::class)->carryOut($bench, $make);
        $done = $command->change === null ? $nothing : $command->name().'.';

        return $this->answer(implode(' ', array_filter([$done, $command->leftAlone, $command->viewsInWords()])), [
            'change' => $command->change,
            'views' => $command->viewsDiffer,
        ]);
    }

    /** @param array<string, mixed> $more */
    protected function answer(string $sentence, array $more = []): int
    {
        $this->line($this->option('json') ? (string) json_encode(['says' => $sentence] + $more, JSON_UNESCAPED_UNICODE) : $sentence, null);

        return self::SUCCESS;
    }
}
