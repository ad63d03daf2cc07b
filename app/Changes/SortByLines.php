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
use VineShelf\Folders\Holds;
use VineShelf\Naming\Renaming;
use VineShelf\Scene\Bits;

/** Objects are filed, tagged and named by a list of lines. */
final class SortByLines extends Command
{
    /** Objects that get another layer, a tag or another name. */
    public readonly int $sorted;

    private readonly Edits $edits;

    /** @var array<int, int> numbers of layers that waited to be made, by that below zero */
    private array $layers = [];

    /** @var array<int, int> the same for tags */
    private array $tags = [];

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
        $waited = $this->waited();
        $steps = [...$this->filing(), ...$this->tagging(), ...$after === [] ? [] : [new NamesEdit($before, $after)]];
        $this->edits = new Edits([...$this->needed($made), ...$waited, ...$steps, ...$steps === [] ? [] : $this->found()]);
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

    /** @return list<RowEdit> layers, folders and tags that waited until something goes there */
    private function waited(): array
    {
        $along = new AlongPath($this->bench);
        $isSome = static fn (Bits $rows): bool => ! $rows->isEmpty();
        foreach (array_intersect_key($this->dry->waiting->layers, array_filter($this->dry->run->filed, $isSome)) as $number => $path) {
            $this->layers[$number] = $along->layer(AlongPath::names($path, 'layer'))->number;
        }
        foreach (array_intersect_key($this->dry->waiting->tags, array_filter($this->dry->run->tagged, $isSome)) as $number => $path) {
            $names = AlongPath::names($path, 'tag');
            $name = array_pop($names);
            $this->tags[$number] = $along->makeMember(Holds::Tags, $along->folder(Holds::Tags, $names), $name, []);
        }

        return $along->steps;
    }

    /** @return list<RowEdit> the rules go by the numbers of what is there now, whatever it will be called */
    private function found(): array
    {
        $steps = [];
        foreach ($this->dry->stored as $at => $stored) {
            $line = $this->dry->lines[$at];
            $tags = array_map(fn (array $tag): array => [max(0, $this->tags[$tag[0]] ?? $tag[0]), $tag[1]], $line->tags);
            $now = $stored->goingTo(max(0, $this->layers[$line->layer] ?? $line->layer), $tags)->columns();
            $before = array_diff_assoc($stored->columns(), $now);
            if ($stored->isWaiting() && $before !== []) {
                $steps[] = new RowEdit('sorting_lines', $stored->number, $before, array_intersect_key($now, $before));
            }
        }

        return $steps;
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
                $after[$this->layers[$layer] ?? $layer] = [...$after[$this->layers[$layer] ?? $layer] ?? [], ...$numbers];
            }
        }

        return $after === [] ? [] : [new ObjectsEdit('layer_no', $before, $after)];
    }

    /** @return list<Edit> */
    private function tagging(): array
    {
        $steps = [];
        foreach ($this->dry->run->tagged as $tag => $rows) {
            $steps[] = new MembersEdit('tags', $this->tags[$tag] ?? $tag, $this->bench->scene()->numberBits($rows), Bits::none(0));
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
