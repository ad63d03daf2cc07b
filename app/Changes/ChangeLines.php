<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use App\SortingRules\StoredLine;
use VineShelf\Exchange\SortingLine;
use VineShelf\Exchange\SortingRules;
use VineShelf\Rules\Parser;
use VineShelf\Rules\RuleError;

/** The list by which a project is sorted gets a line, loses one, or has them otherwise. */
final class ChangeLines extends Command
{
    /** @param list<RowEdit> $steps @param int $line the line that it is about, 0 for none or several */
    private function __construct(private readonly string $title, private readonly array $steps, public readonly int $line = 0) {}

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return new Edits($this->steps);
    }

    /** A new line at the end. @throws Refused */
    public static function add(Bench $bench, SortingLine $line): self
    {
        $lines = StoredLine::all($bench->project);
        self::checkMany(count($lines) + 1);
        $columns = self::written($bench, $line, $lines === [] ? 1 : $lines[count($lines) - 1]->position + 1);
        $number = $bench->project->next_line++;

        return new self("Add the sorting rule $line->rule", [new RowEdit('sorting_lines', $number, null, $columns)], $number);
    }

    /** What a line says is replaced. @throws Refused */
    public static function write(Bench $bench, int $number, SortingLine $line): self
    {
        $old = self::line($bench, $number);
        $columns = self::written($bench, $line, $old->position);
        $before = array_diff_assoc($old->columns(), $columns);
        $after = array_intersect_key($columns, $before);

        return new self(
            "Change the sorting rule $old->rule",
            $after === [] ? [] : [new RowEdit('sorting_lines', $number, $before, $after)],
            $number,
        );
    }

    public static function turn(Bench $bench, int $number, bool $isOff): self
    {
        $line = self::line($bench, $number);

        return new self(
            'Turn the sorting rule '.$line->rule.($isOff ? ' off' : ' on'),
            $line->isOff === $isOff ? [] : [new RowEdit('sorting_lines', $number, ['is_off' => $line->isOff], ['is_off' => $isOff])],
            $number,
        );
    }

    /** A line again, right below it. @throws Refused when there are too many */
    public static function duplicate(Bench $bench, int $number): self
    {
        $line = self::line($bench, $number);
        $lines = StoredLine::all($bench->project);
        self::checkMany(count($lines) + 1);
        $copy = $bench->project->next_line++;
        $order = [];
        foreach ($lines as $other) {
            array_push($order, $other->number, ...$other->number === $number ? [$copy] : []);
        }
        $columns = ['position' => array_search($copy, $order, true) + 1] + $line->columns();

        return new self(
            "Duplicate the sorting rule $line->rule",
            [...self::ordered($lines, $order), new RowEdit('sorting_lines', $copy, null, $columns)],
            $copy,
        );
    }

    /** A line goes up or down. @param int $by places, below zero for up */
    public static function move(Bench $bench, int $number, int $by): self
    {
        $line = self::line($bench, $number);
        $lines = StoredLine::all($bench->project);
        $order = array_map(static fn (StoredLine $other): int => $other->number, $lines);
        $at = (int) array_search($number, $order, true);
        array_splice($order, $at, 1);
        array_splice($order, max(0, min(count($order), $at + $by)), 0, [$number]);

        return new self("Move the sorting rule $line->rule", self::ordered($lines, $order), $number);
    }

    public static function delete(Bench $bench, int $number): self
    {
        $line = self::line($bench, $number);

        return new self("Delete the sorting rule $line->rule", [new RowEdit('sorting_lines', $number, $line->columns(), null)]);
    }

    /**
     * A list from elsewhere comes below the lines that there are, or in their place. Nothing is sorted by it yet.
     *
     * @param array<string, string> $layers what its layers are called here, by path, see {@see LinesAlong}
     * @param array<string, string> $tags   the same for tags
     *
     * @throws Refused
     */
    public static function read(Bench $bench, SortingRules $list, bool $replaces, array $layers = [], array $tags = []): self
    {
        $read = LinesAlong::waiting($bench, $list, $layers, $tags);
        $lines = StoredLine::all($bench->project);
        self::checkMany(count($read) + ($replaces ? 0 : count($lines)));
        $steps = [];
        $position = $replaces || $lines === [] ? 0 : $lines[count($lines) - 1]->position;
        foreach ($replaces ? $lines : [] as $line) {
            $steps[] = new RowEdit('sorting_lines', $line->number, $line->columns(), null);
        }
        foreach ($read as $at => $line) {
            self::check($line->rule, 'Line '.($at + 1).': ');
            $columns = ['position' => ++$position] + $line->columns();
            $steps[] = new RowEdit('sorting_lines', $bench->project->next_line++, null, $columns);
        }
        $many = count($read);

        return new self('Read '.number_format($many).' sorting '.($many === 1 ? 'rule' : 'rules'), $steps);
    }

    /** @throws Refused */
    private static function line(Bench $bench, int $number): StoredLine
    {
        foreach (StoredLine::all($bench->project) as $line) {
            if ($line->number === $number) {
                return $line;
            }
        }
        throw new Refused('That sorting rule is no longer there.', 'rule');
    }

    /**
     * @return array<string, mixed> columns
     *
     * @throws Refused
     */
    private static function written(Bench $bench, SortingLine $line, int $position): array
    {
        self::check($line->rule, '');

        return ['position' => $position] + LinesAlong::waiting($bench, new SortingRules([$line]))[0]->columns();
    }

    /** @throws Refused */
    private static function check(string $rule, string $where): void
    {
        try {
            Parser::parse($rule);
        } catch (RuleError $error) {
            throw new Refused($where.$error->getMessage().' It is at character '.($error->at + 1).'.', 'rule');
        }
    }

    /** @throws Refused */
    private static function checkMany(int $lines): void
    {
        if ($lines > SortingRules::MOST) {
            throw new Refused(
                'A list has at most '.SortingRules::MOST.' sorting rules; this would be '.number_format($lines).'.',
                'rule',
            );
        }
    }

    /**
     * @param list<StoredLine> $lines
     * @param list<int>        $order numbers
     *
     * @return list<RowEdit>
     */
    private static function ordered(array $lines, array $order): array
    {
        $place = array_flip($order);
        $steps = [];
        foreach ($lines as $line) {
            $position = $place[$line->number] + 1;
            if ($line->position !== $position) {
                $steps[] = new RowEdit('sorting_lines', $line->number, ['position' => $line->position], ['position' => $position]);
            }
        }

        return $steps;
    }
}
