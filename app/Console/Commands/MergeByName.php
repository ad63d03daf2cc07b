<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Bench\Bench;
use App\Bench\Named;
use App\Bench\Refused;
use App\Changes\Command;
use App\Changes\MergeLayers;
use App\Changes\MergeTags;

final class MergeByName extends OnBench
{
    protected $signature =
        'shelf:merge {project} {kept : the tag or layer that stays, tag:PATH or layer:PATH} {gone* : those that go} {--person=} {--json}';

    protected $description = 'Make one tag of several, or one layer';

    public function handle(): int
    {
        $bench = $this->bench();
        $kept = (string) $this->argument('kept');
        $gone = array_values(array_filter((array) $this->argument('gone'), is_string(...)));
        $numbers = static fn (Bench $held, string $what): array => str_starts_with($kept, 'tag:')
            ? Named::keys($held, $what)->numbered('T')
            : Named::keys($held, $what)->layers;
        if (preg_match('~^(tag|layer):~', $kept, $kind) !== 1 || preg_grep("~^$kind[1]:~", $gone, PREG_GREP_INVERT) !== []) {
            throw new Refused('Tags become one, or layers do: tag:PATH tag:PATH, or layer:PATH layer:PATH.');
        }

        return $this->carryOut(
            $bench,
            static function (Bench $held) use ($kept, $gone, $kind, $numbers): Command {
                $going = array_merge(...array_map(static fn (string $each): array => $numbers($held, $each), $gone));
                $into = $numbers($held, $kept)[0] ?? 0;

                return $kind[1] === 'tag' ? new MergeTags($held, $going, $into) : new MergeLayers($held, $going, $into);
            },
            'It is one already.',
        );
    }
}
