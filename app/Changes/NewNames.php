<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Naming\Renaming;
use VineShelf\Scene\Bits;

/** What objects would be called. */
final class NewNames
{
    /**
     * @param Bits                  $rows  scene rows of the objects
     * @param \Closure(int): string $layer the name of the layer of a row
     *
     * @return array{array<int, string>, array<int, string>} old names and new names by object number, in the order of the scene: only those
     *     that change
     *
     * @throws Refused when a name would be too long
     */
    public static function of(Bench $bench, Bits $rows, Renaming $renaming, \Closure $layer): array
    {
        $scene = $bench->scene();
        $rows = $rows->rows();
        $parents = array_values(array_unique(array_map($scene->parent(...), $rows)));
        $names = self::stored($bench->project, array_map($scene->number(...), [...$rows, ...$parents]));
        $before = $after = [];
        foreach ($rows as $index => $row) {
            $number = $scene->number($row);
            $old = $names[$number] ?? '';
            $parent = $scene->parent($row) === 0 ? '' : $names[$scene->number($scene->parent($row))] ?? '';
            $new = $renaming->of($old, $index, $layer($row), $parent, $scene->kind($row)->label());
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

        return [$before, $after];
    }

    /**
     * @param list<int> $numbers
     *
     * @return array<int, string>
     */
    private static function stored(Project $project, array $numbers): array
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
