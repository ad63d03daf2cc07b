<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\LinesAlong;
use App\Changes\SortByLines;
use App\SortingRules\DryRun;
use App\SortingRules\Paths;
use VineShelf\Exchange\SortingRules;
use VineShelf\Exchange\UnreadableSorting;
use VineShelf\Lines\Fight;

final class SortProject extends OnBench
{
    private const BYTES = 5_000_000;

    protected $signature =
        'shelf:sort {project} {file : a list of sorting rules, see docs/sorting-rules.md} {--dry : only say what it would do} '.
        '{--person=} {--json}';

    protected $description = 'Sort a project by a list of rules';

    public function handle(): int
    {
        $file = (string) $this->argument('file');
        $size = is_file($file) && is_readable($file) ? (int) filesize($file) : throw new Refused("There is no readable file at $file.");
        if ($size > self::BYTES) {
            throw new Refused('A list of sorting rules has at most '.intdiv(self::BYTES, 1_000_000).' MB.');
        }
        try {
            $list = SortingRules::read((string) file_get_contents($file));
        } catch (UnreadableSorting $unreadable) {
            throw new Refused($unreadable->getMessage());
        }
        ini_set('memory_limit', '1G');
        $bench = $this->bench();

        return $this->option('dry') ? $this->dry($bench, $list) : $this->sort($bench, $list);
    }

    private function sort(Bench $bench, SortingRules $list): int
    {
        return $this->carryOut(
            $bench,
            function (Bench $held) use ($list): SortByLines {
                $along = new LinesAlong($held, $list);
                $dry = new DryRun($held, $along->lines, null, $along->newLayers, array_fill_keys(array_keys($along->newTags), true));
                foreach ($dry->troubles as $at => $sentence) {
                    throw new Refused('Line '.($at + 1).": $sentence");
                }
                $this->say($dry);

                return new SortByLines($held, $dry, $along->steps());
            },
            'All of it is sorted so already.',
        );
    }

    private function dry(Bench $bench, SortingRules $list): int
    {
        $along = new LinesAlong($bench, $list);
        $dry = new DryRun($bench, $along->lines, null, $along->newLayers, array_fill_keys(array_keys($along->newTags), true));
        $this->say($dry);
        $sorting = new SortByLines($bench, $dry);
        $said =
            number_format($sorting->sorted).
            ' '.
            ($sorting->sorted === 1 ? 'object' : 'objects').
            ' would be sorted otherwise; no line takes '.
            number_format($dry->run->untaken->count()).
            ', '.
            number_format($dry->run->left()->count()).
            ' are locked and would stay as they are.';
        $lines = [];
        foreach ($dry->run->took as $at => $took) {
            $from = $tagged = [];
            foreach ($took->from as $layer => $many) {
                $from[$dry->layerPath($layer)] = $many;
            }
            foreach ($took->tagged as $tag => $rows) {
                $tagged[$along->newTags[$tag] ?? (Paths::tag($bench, $tag) ?? '')] = $rows->count();
            }
            $lines[] = [
                'rule' => $dry->lines[$at]->rule,
                'finds' => $dry->matched[$at]?->count(),
                'takes' => $took->rows->count(),
                'files' => $took->filed->count(),
                'from' => (object) $from,
                'tags' => (object) $tagged,
                'names' => $took->named->count(),
                'locked' => $took->left->count(),
                'trouble' => $dry->troubles[$at] ?? '',
            ];
        }
        if (! $this->option('json')) {
            foreach ($lines as $at => $line) {
                $this->line(
                    $at + 1 .". {$line['rule']}: takes ".number_format($line['takes']).', files '.number_format($line['files']),
                );
            }
        }

        return $this->answer($said, [
            'sorted' => $sorting->sorted,
            'lines' => $lines,
            'fights' => array_map(
                static fn (Fight $fight): array => ['lines' => [$fight->winner + 1, $fight->other + 1], 'objects' => $fight->rows->count()],
                $dry->run->fights,
            ),
            'untaken' => $dry->run->untaken->count(),
            'locked' => $dry->run->left()->count(),
        ]);
    }

    private function say(DryRun $dry): void
    {
        foreach ([$dry->troubles, $dry->remarks] as $sentences) {
            foreach ($sentences as $at => $sentence) {
                $this->getOutput()
                    ->getErrorStyle()
                    ->writeln('Line '.($at + 1).": $sentence");
            }
        }
    }
}
