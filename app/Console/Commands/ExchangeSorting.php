<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Bench\SortingOf;
use App\Changes\ReadSorting;
use App\Files\WholeFile;
use VineShelf\Exchange\Sorting;
use VineShelf\Exchange\UnreadableSorting;

final class ExchangeSorting extends OnBench
{
    private const BYTES = 200_000_000;

    protected $signature =
        'shelf:sorting {project} {file : a .json file} {--read : read it into the project instead of writing it} '.'{--person=} {--json}';

    protected $description = 'Write how a project is sorted to a file, or read that from one';

    public function handle(): int
    {
        $bench = $this->bench();
        $file = (string) $this->argument('file');
        if (! $this->option('read')) {
            $sorting = SortingOf::project($bench)->write();
            self::writing($file, static fn () => WholeFile::put($file, $sorting));

            return $this->answer("The sorting of {$bench->project->name} is in $file.");
        }
        $size = is_file($file) && is_readable($file) ? (int) filesize($file) : throw new Refused("There is no readable file at $file.");
        if ($size > self::BYTES) {
            throw new Refused('A sorting has at most '.intdiv(self::BYTES, 1_000_000).' MB.');
        }
        ini_set('memory_limit', '1G');
        try {
            $sorting = Sorting::read((string) file_get_contents($file));
        } catch (UnreadableSorting $unreadable) {
            throw new Refused($unreadable->getMessage());
        }

        return $this->carryOut(
            $bench,
            static fn (Bench $held): ReadSorting => new ReadSorting($held, $sorting),
            'The project is sorted so already.',
        );
    }
}
