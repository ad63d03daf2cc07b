<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\MembersEdit;
use App\Changes\Edits\NamesEdit;
use App\Changes\Edits\ObjectsEdit;
use App\Changes\Edits\PlacesEdit;
use App\Changes\Edits\RowEdit;
use App\SortingRules\DryRun;
use VineShelf\Naming\Renaming;
use VineShelf\Scene\Bits;

/** Objects are filed, tagged and named by a list of lines. */
final class SortByLines extends Command
{
    /** Objects that get another layer, a tag or another name. */
    public readonly int $sorted;

    private readonly Edits $edits;

    /** @param list<RowEdit> $made layers, folders and tags that are made for it, those that nothing needs among them */
    public function __construct(
        private readonly Bench $bench,
        private readonly DryRun $dry,
        array $made = [],
        private readonly string $of = '',
    ) {
        [$before, $after] = $this->names();
        $changed = $bench->scene()->numberBits($dry->run->changed());
        $named = array_keys($after);
        sort($named);
        $this->sorted = $changed->with(Bits::ofRows($named === [] ? 0 : $named[count($named) - 1], $named))->count();
        $this->leftAlone = self::lockedInWords($dry->run->left()->count());
        $steps = [...$this->filing(), ...$this->tagging()];
        $this->edits = new Edits([...$this->needed($made), ...$steps, ...$after === [] ? [] : [new NamesEdit($before, $after)]]);
    }

    public function name(): string
    {
        return 'Sort '.
            number_format($this->sorted).
            ' '.
            ($this->sorted === 1 ? 'object' : 'objects').
            ($this->of === '' ? '' : " of $this->of").
            ' by rules';
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /** @return list<Edit> */
    private function filing(): array
    {
        $scene = $this->bench->scene();
        $before = $after = [];
        foreach ($this->dry->run->filed as $layer => $rows) {
            foreach (array_keys($scene->layers()->histogram($rows)) as $home) {
                $numbers = $scene->numbersIn($rows->and($scene->layers()->rowsOf([$home => true]))->ranges());
                $before[$home] = [...$before[$home] ?? [], ...$numbers];
                $after[$layer] = [...$after[$layer] ?? [], ...$numbers];
            }
        }

        return $after === [] ? [] : [new ObjectsEdit('layer_no', $before, $after)];
    }

    /** @return list<Edit> */
    private function tagging(): array
    {
        $steps = [];
        foreach ($this->dry->run->tagged as $tag => $rows) {
            $steps[] = new MembersEdit('tags', $tag, $this->bench->scene()->numberBits($rows), Bits::none(0));
        }

        return $steps;
    }

    /** @return array{array<int, string>, array<int, string>} names before and after by object number */
    private function names(): array
    {
        $before = $after = [];
        $filed = $this->dry->run->filed;
        $layers = $this->bench->layers();
        $layer = function (int $row) use ($filed, $layers): string {
            foreach ($filed as $number => $rows) {
                if ($rows->has($row)) {
                    $path = explode(' / ', $this->dry->layerPath($number));

                    return $layers->has($number) ? $layers->get($number)->name : $path[count($path) - 1];
                }
            }

            return $layers->get($this->bench->scene()->layers()->at($row))->name;
        };
        foreach ($this->dry->run->took as $at => $took) {
            if (! $took->named->isEmpty()) {
                [$old, $new] = NewNames::of($this->bench, $took->named, new Renaming(pattern: $this->dry->lines[$at]->pattern), $layer);
                $before += $old;
                $after += $new;
            }
        }

        return [$before, $after];
    }

    /**
     * What is made only for lines that take nothing is not made.
     *
     * @param list<RowEdit> $made each after what it lies in
     *
     * @return list<RowEdit>
     */
    private function needed(array $made): array
    {
        $needed = ['layers' => $this->dry->run->filed, 'tags' => $this->dry->run->tagged, 'folders' => []];
        $kept = [];
        foreach (array_reverse($made) as $step) {
            if (isset($needed[$step->table][$step->number])) {
                array_unshift($kept, $step);
                $into = $step->after[PlacesEdit::PARENTS[$step->table]] ?? 0;
                $needed[$step->table === 'layers' ? 'layers' : 'folders'][is_int($into) ? $into : 0] = true;
            }
        }

        return $kept;
    }
}
