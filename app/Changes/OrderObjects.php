<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;

/** What stands in some groups is put in the order of its names, numbers in names as numbers. */
final class OrderObjects extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    /** Groups whose order changes. */
    public readonly int $groups;

    /** Groups whose order was that of a file, and not by name. */
    public readonly int $fromFile;

    /** @param Bits $rows scene rows of groups; nothing for what stands at the top @throws Refused */
    public function __construct(Bench $bench, Bits $rows)
    {
        $scene = $bench->scene();
        $parents = $rows->isEmpty() ? [0] : $rows->and($scene->groupBits())->rows();
        if ($parents === []) {
            throw new Refused('Nothing stands in it.', 'keys');
        }
        $locked = $bench->inEffect()->locked();
        $nesting = new Nesting($bench);
        $groups = $fromFile = $left = 0;
        foreach ($parents as $parent) {
            if ($parent !== 0 && $locked->has($parent)) {
                $left++;

                continue;
            }
            [$before, $after] = self::order($bench, $scene, $parent);
            if ($before !== $after) {
                $groups++;
                $fromFile += (int) self::isOfFile($bench, $before);
                $nesting->put($parent === 0 ? 0 : $scene->number($parent), $after);
            }
        }
        $this->groups = $groups;
        $this->fromFile = $fromFile;
        $this->leftAlone = self::lockedInWords($left);
        $this->edits = new Edits($nesting->steps());
        $this->title = $rows->isEmpty()
            ? 'Sort what stands at the top by name'
            : 'Sort '.number_format($groups).' '.($groups === 1 ? 'group' : 'groups').' by name';
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /** @return array{list<int>, list<int>} object numbers as they stand, and by name */
    private static function order(Bench $bench, Scene $scene, int $parent): array
    {
        $numbers = array_map($scene->number(...), $scene->children($parent));
        $names = DB::table('objects')
            ->where('project_id', $bench->project->id)
            ->whereIntegerInRaw('no', $numbers)
            ->pluck('name', 'no')
            ->all();
        $sorted = $numbers;
        usort(
            $sorted,
            static fn (int $a, int $b): int => strnatcmp(
                mb_strtolower(is_string($names[$a]) ? $names[$a] : ''),
                mb_strtolower(is_string($names[$b]) ? $names[$b] : ''),
            ) ?:
            $a <=> $b,
        );

        return [$numbers, $sorted];
    }

    /**
     * Whether all of them came in files, in this order.
     *
     * @param list<int> $numbers
     */
    private static function isOfFile(Bench $bench, array $numbers): bool
    {
        $sorted = $numbers;
        sort($sorted);
        $made = DB::table('objects')->where('project_id', $bench->project->id)->whereIntegerInRaw('no', $numbers)->where('source_id', 0);

        return $sorted === $numbers && ! $made->exists();
    }
}
