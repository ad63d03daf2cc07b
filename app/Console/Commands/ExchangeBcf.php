<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\History;
use App\Changes\ReadBcf;
use App\Workbench\BcfOf;
use VineShelf\Bcf\BcfReader;
use VineShelf\Bcf\BcfWriter;
use VineShelf\Bcf\UnableToWriteBcf;
use VineShelf\Bcf\UnreadableBcf;
use VineShelf\Bcf\Version;

final class ExchangeBcf extends OnBench
{
    protected $signature =
        'shelf:bcf {project} {file : a .bcf file} {--read : read it into the project instead of writing it} '.
        '{--as=3.0 : 2.1 or 3.0} {--folder= : only the views of that folder} {--person=} {--json}';

    protected $description = 'Write the views of a project as BCF, or read views from one';

    public function handle(): int
    {
        ini_set('memory_limit', '1G');
        $bench = $this->bench();
        $file = (string) $this->argument('file');
        try {
            return $this->option('read') ? $this->read($bench, $file) : $this->write($bench, $file);
        } catch (UnreadableBcf | UnableToWriteBcf $unable) {
            throw new Refused($unable->getMessage());
        }
    }

    private function write(Bench $bench, string $file): int
    {
        $version = Version::tryFrom((string) $this->option('as')) ?? throw new Refused('BCF is written as 2.1 or 3.0.');
        $folder = $this->option('folder');
        $numbers = $bench->shelf()->within(is_string($folder) ? self::folder($bench, $folder) : 0);
        $views = array_map(static fn (int $number) => $bench->shelf()->members[$number], $numbers);
        $bcf = new BcfOf($bench, $version);
        BcfWriter::write($bcf->topics($views), $version, $bench->project->name, BcfOf::guid($bench->project->key), $file);
        $this->remark($bcf->remarks);

        return $this->answer((count($views) === 1 ? '1 view is' : count($views).' views are')." in $file.", [
            'views' => count($views),
            'remarks' => $bcf->remarks,
        ]);
    }

    private function read(Bench $bench, string $file): int
    {
        if (! is_file($file) || ! is_readable($file)) {
            throw new Refused("There is no readable file at $file.");
        }
        if (! $bench->mayChange()) {
            throw new Refused('That project is not theirs to change.');
        }
        [$topics, $remarks] = BcfReader::read($file);
        $command = app(History::class)->carryOut($bench, static fn (Bench $held): ReadBcf => new ReadBcf($held, $topics, basename($file)));
        $remarks = [...$remarks, ...$command->remarks];
        $this->remark($remarks);

        return $this->answer("{$command->name()}.", ['change' => $command->change, 'views' => $command->views, 'remarks' => $remarks]);
    }

    private static function folder(Bench $bench, string $path): int
    {
        foreach ($bench->shelf()->folders as $folder) {
            if (in_array($path, [$folder->name, str_replace(' › ', ' / ', $bench->shelf()->path($folder))], true)) {
                return $folder->number;
            }
        }
        throw new Refused("There is no folder of views $path.");
    }

    /** @param list<string> $remarks */
    private function remark(array $remarks): void
    {
        foreach ($remarks as $remark) {
            $this->getOutput()->getErrorStyle()->writeln($remark);
        }
    }
}
