<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edits;
use App\Changes\Edits\NamesEdit;
use VineShelf\Naming\Renaming;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** Many objects get new names at once. */
final class RenameObjects extends Command
{
    /** @var array<int, string> old names by object number, in the order of the scene: only those that change */
    public readonly array $before;

    /** @var array<int, string> new names by object number */
    public readonly array $after;

    /** @var array<int, true> numbers of objects whose new name another object under the same parent has as well */
    public readonly array $clashes;

    /** @param Bits $picked scene rows of the objects */
    public function __construct(Bench $bench, Bits $picked, Renaming $renaming)
    {
        $scene = $bench->scene();
        $layers = $bench->layers();
        $free = $picked->without($bench->inEffect()->locked());
        [$before, $after] = NewNames::of(
            $bench,
            $free,
            $renaming,
            static fn (int $row): string => $layers->get($scene->layers()->at($row))->name,
        );
        $this->before = $before;
        $this->after = $after;
        $this->clashes = self::clashing($scene, $after);
        $this->leftAlone = self::lockedInWords($picked->count() - $free->count());
    }

    public function name(): string
    {
        return 'Rename '.number_format(count($this->after)).' '.(count($this->after) === 1 ? 'object' : 'objects');
    }

    public function edits(): Edits
    {
        return new Edits($this->after === [] ? [] : [new NamesEdit($this->before, $this->after)]);
    }

    /**
     * @param array<int, string> $after
     *
     * @return array<int, true>
     */
    private static function clashing(Scene $scene, array $after): array
    {
        $parents = [];
        foreach ($after as $number => $_) {
            $parents[$scene->parent($scene->row($number))] = true;
        }
        $names = $scene->column('names');
        $offsets = $scene->column('nameAt');
        $clashes = [];
        foreach (array_keys($parents) as $parent) {
            $holders = [];
            foreach ($scene->children($parent) as $row) {
                $number = $scene->number($row);
                [$from, $to] = Packed::uint32($offsets, $row * 4, 2);
                $holders[mb_strtolower($after[$number] ?? substr($names, $from, $to - $from - 1))][] = $number;
            }
            foreach ($holders as $name => $numbers) {
                if (count($numbers) > 1 && $name !== '') {
                    $clashes += array_intersect_key(array_fill_keys($numbers, true), $after);
                }
            }
        }

        return $clashes;
    }
}
