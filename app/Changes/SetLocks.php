<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Targets;
use App\Changes\Edits\Edits;
use App\Changes\Edits\ObjectsEdit;
use App\Changes\Edits\RowEdit;
use VineShelf\Locks\Lock;
use VineShelf\Scene\Bits;

/** Layers, tags, folders of tags and objects get another lock of their own. */
final class SetLocks extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    public function __construct(Bench $bench, Targets $targets, Lock $lock)
    {
        $steps = [];
        $name = '';
        foreach ($targets->layers as $number) {
            $layer = $bench->layers()->get($number);
            if ($layer->lock !== $lock) {
                $steps[] = new RowEdit('layers', $number, ['lock' => $layer->lock->value], ['lock' => $lock->value]);
                $name = $layer->name;
            }
        }
        $layers = count($steps);
        [$tags, $tagName] = self::shelved($bench, 'tags', $targets->tags, $lock, $steps);
        [$folders, $folderName] = self::shelved($bench, 'folders', $targets->folders, $lock, $steps);
        [$before, $after] = $this->objects($bench, $targets->rows, $lock);
        if ($after !== []) {
            $steps[] = new ObjectsEdit('lock', $before, [$lock->value => $after]);
        }
        $this->edits = new Edits($steps);
        $objects = number_format(count($after)).' '.(count($after) === 1 ? 'object' : 'objects');
        $this->title =
            ['Open', 'Guard', 'Lock'][$lock->value].
            ' '.
            implode(
                ' and ',
                array_filter([
                    $layers === 0 ? '' : ($layers === 1 ? "layer $name" : "$layers layers"),
                    $tags === 0 ? '' : ($tags === 1 ? "tag $tagName" : "$tags tags"),
                    $folders === 0 ? '' : ($folders === 1 ? "folder $folderName" : "$folders folders"),
                    $after === [] ? '' : $objects,
                ]),
            );
    }

    /**
     * @param list<int>     $numbers
     * @param list<RowEdit> $steps   gets those that are needed
     *
     * @return array{int, string} how many change, and the name of the last
     */
    private static function shelved(Bench $bench, string $table, array $numbers, Lock $lock, array &$steps): array
    {
        $changed = 0;
        $name = '';
        foreach ($numbers as $number) {
            $row = $table === 'tags' ? $bench->tags()->get($number) : $bench->tags()->folder($number);
            if ($row->lock !== $lock) {
                $steps[] = new RowEdit($table, $number, ['lock' => $row->lock->value], ['lock' => $lock->value]);
                $name = $row->name;
                $changed++;
            }
        }

        return [$changed, $name];
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /**
     * @return array{array<int, list<int>>, list<int>} numbers of objects by the lock that they have, and all of them: only those that
     * change
     */
    private function objects(Bench $bench, Bits $rows, Lock $lock): array
    {
        $scene = $bench->scene();
        $before = [];
        foreach (array_keys($scene->locks()->histogram($rows)) as $own) {
            if ($own !== $lock->value) {
                $before[$own] = $scene->numbersIn($rows->and($scene->locks()->rowsOf([$own => true]))->ranges());
            }
        }

        return [$before, array_merge(...array_values($before))];
    }
}
