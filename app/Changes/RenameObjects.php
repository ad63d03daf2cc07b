<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\NamesEdit;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Locks\Lock;
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
        $project = $bench->project;
        $layers = $bench->layers();
        $inEffect = $bench->inEffect();
        $rows = $picked->rows();
        $names = self::names(
            $project,
            array_map($scene->number(...), [...$rows, ...array_values(array_unique(array_map($scene->parent(...), $rows)))]),
        );
        $before = $after = [];
        $locked = $index = 0;
        foreach ($rows as $row) {
            if ($inEffect->lock($row) === Lock::Locked) {
                $locked++;

                continue;
            }
            $number = $scene->number($row);
            $old = $names[$number] ?? '';
            $new = $renaming->of(
                $old,
                $index++,
                $layers->get($scene->layers()->at($row))->name,
                $scene->parent($row) === 0 ? '' : $names[$scene->number($scene->parent($row))] ?? '',
                $scene->kind($row)->label(),
            );
            // A long name that stays as it is stands in nobody's way.
            if ($new !== $old && mb_strlen($new) > Renaming::LONGEST) {
                throw new Refused(
                    'A name has at most '.
                        Renaming::LONGEST.
                        ' characters; “'.
                        mb_substr($new, 0, 40).
                        '…” would have '.
                        mb_strlen($new).
                        '.',
                    'pattern',
                );
            }
            if ($new !== $old) {
                $before[$number] = $old;
                $after[$number] = $new;
            }
        }
        $this->before = $before;
        $this->after = $after;
        $this->clashes = self::clashing($scene, $after);
        $this->leftAlone = self::lockedInWords($locked);
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

    /**
     * @param list<int> $numbers
     *
     * @return array<int, string>
     */
    private static function names(Project $project, array $numbers): array
    {
        $names = [];
        foreach (
            DB::select('SELECT no, name FROM objects WHERE project_id = ? AND no = ANY(?::int[])', [
                $project->id,
                '{'.implode(',', $numbers).'}',
            ]) as $row
        ) {
            $names[(int) $row->no] = (string) $row->name;
        }

        return $names;
    }
}
