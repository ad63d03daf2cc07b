<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\ObjectsEdit;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Scene;

/** Groups are taken apart: what stands in them stands where they stood, and they are gone. */
final class UngroupObjects extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    /** @param Bits $rows scene rows; those that are no groups are passed over @throws Refused */
    public function __construct(Bench $bench, Bits $rows)
    {
        $scene = $bench->scene();
        $groups = self::groups($bench, $rows);
        $locked = $groups->and($bench->inEffect()->locked());
        $going = $groups->without($locked);
        if ($going->isEmpty()) {
            throw new Refused($groups->isEmpty() ? 'None of it is a group.' : 'All of these groups are locked; open them first.', 'keys');
        }
        $numbers = $scene->numbersIn($going->ranges());
        $nesting = new Nesting($bench);
        self::free($bench, $nesting, $going);
        $this->leftAlone = self::lockedInWords($locked->count());
        $this->edits = new Edits([...$nesting->steps(), new ObjectsEdit('gone', [0 => $numbers], [1 => $numbers])]);
        $this->title = 'Ungroup '.number_format(count($numbers)).' '.(count($numbers) === 1 ? 'group' : 'groups');
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /** Those of the rows that hold others and draw nothing themselves. */
    private static function groups(Bench $bench, Bits $rows): Bits
    {
        return $rows->and(
            $bench
                ->facts()
                ->ranked('kind')
                ->in([Kind::Group->value]),
        );
    }

    /** What stands in groups that go stands where they stood. */
    private static function free(Bench $bench, Nesting $nesting, Bits $going): void
    {
        $scene = $bench->scene();
        $within = [];
        foreach ($going->rows() as $row) {
            // Of groups in groups the outermost one says where things come to.
            if (! $going->has($scene->parent($row))) {
                $within[$scene->parent($row)] = true;
            }
        }
        foreach (array_keys($within) as $row) {
            $order = self::opened($scene, $scene->children($row), $going);
            $nesting->put($row === 0 ? 0 : $scene->number($row), array_map($scene->number(...), $order));
        }
    }

    /**
     * @param list<int> $rows
     *
     * @return list<int> the rows, with what stands in groups that go in place of these
     */
    private static function opened(Scene $scene, array $rows, Bits $going): array
    {
        $order = [];
        foreach ($rows as $row) {
            if ($going->has($row)) {
                array_push($order, ...self::opened($scene, $scene->children($row), $going));
            } else {
                $order[] = $row;
            }
        }

        return $order;
    }
}
