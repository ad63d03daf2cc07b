<?php

declare(strict_types=1);

namespace App\SortingRules;

use App\Bench\Bench;
use VineShelf\Lines\Line;
use VineShelf\Lines\Run;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/** What a list of lines would do to a project as it is now. A line that is off, or that something is wrong with, takes nothing. */
final readonly class DryRun
{
    public Run $run;

    /** @var list<StoredLine> with numbers for what is not there yet, see {@see Waiting} */
    public array $lines;

    public Waiting $waiting;

    /** @var array<int, string> by place of the line: why it cannot be run */
    public array $troubles;

    /** @var array<int, string> by place of the line: what its rule names in vain */
    public array $remarks;

    /** @var list<Bits|null> what the rule of each line finds, with what that holds where the line says so; null where it cannot be read */
    public array $matched;

    /**
     * @param list<StoredLine>   $stored
     * @param Bits|null          $among only these rows are looked at
     * @param array<int, string> $made  paths of layers that are only made for the run, by number
     * @param array<int, true>   $tags  tags that are only made for the run, by number
     */
    public function __construct(
        public Bench $bench,
        public array $stored,
        ?Bits $among = null,
        private array $made = [],
        private array $tags = [],
    ) {
        $this->waiting = new Waiting($bench);
        $this->lines = $lines = array_map($this->waiting->complete(...), $stored);
        $troubles = $remarks = $matched = $run = $members = [];
        $scene = $bench->scene();
        $none = Bits::none($scene->count());
        foreach ($lines as $at => $line) {
            $found = $bench->find($line->rule);
            $rows = $found->rows === null || $line->only ? $found->rows : Relatives::within($scene, $found->rows);
            $matched[] = $rows;
            $trouble = match (true) {
                $found->error !== null => $found->error->getMessage().' It is at character '.($found->error->at + 1).'.',
                $rows === null => 'The rule is empty.',
                default => $this->missing($line),
            };
            if ($trouble !== '') {
                $troubles[$at] = $trouble;
            }
            if ($found->remarks !== []) {
                $remarks[$at] = implode(' ', array_map(static fn ($remark): string => $remark->sentence, $found->remarks));
            }
            $numbers = array_column($line->tags, 0);
            foreach ($numbers as $tag) {
                $members[$tag] ??= $bench->tags()->has($tag) ? $scene->tagged($tag) : $none;
            }
            $run[] =
                $trouble !== '' || $line->isOff || $rows === null
                    ? new Line($none)
                    : new Line($rows, $line->layer, $numbers, $line->pattern, $line->goesOn);
        }
        $this->troubles = $troubles;
        $this->remarks = $remarks;
        $this->matched = $matched;
        $this->run = Run::of($scene, $run, $bench->inEffect()->locked(), $members, $among);
    }

    /** The path of a layer that lines file under, or that objects leave. */
    public function layerPath(int $number): string
    {
        return $this->waiting->layers[$number] ?? $this->made[$number] ?? (Paths::layer($this->bench, $number) ?? '');
    }

    /** How many lines are on and in order. */
    public function running(): int
    {
        $on = array_filter($this->lines, static fn (StoredLine $line): bool => ! $line->isOff);

        return count(array_diff_key($on, $this->troubles));
    }

    private function missing(StoredLine $line): string
    {
        if ($line->layer > 0 && ! isset($this->made[$line->layer]) && ! $this->bench->layers()->has($line->layer)) {
            return "The layer $line->layerPath is no longer there.";
        }
        foreach ($line->tags as [$tag, $path]) {
            if ($tag > 0 && ! isset($this->tags[$tag]) && ! $this->bench->tags()->has($tag)) {
                return "The tag $path is no longer there.";
            }
        }

        return '';
    }
}
