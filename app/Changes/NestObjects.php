<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use VineShelf\Scene\Bits;

/** Objects come to stand in another group, or elsewhere in theirs; they stay where they are in the world. */
final class NestObjects extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    /**
     * @param Bits $rows   scene rows
     * @param int  $into   scene row of what they come to, 0 for the top
     * @param int  $before row of what they are to stand before, 0 for the end
     *
     * @throws Refused
     */
    private function __construct(Bench $bench, Bits $rows, int $into, int $before, string $title)
    {
        [$roots, $left] = Nesting::free($bench, $rows);
        $scene = $bench->scene();
        Nesting::checkOpen($bench, $into);
        foreach ($into === 0 ? [] : [$into, ...$scene->ancestors($into)] as $above) {
            if ($roots->has($above)) {
                throw new Refused('Nothing can stand in itself.', 'into');
            }
        }
        // What they are to stand before may be one of them.
        $end = $into === 0 ? $scene->count() : $scene->end($into);
        while ($before !== 0 && $roots->has($before)) {
            $before = $scene->end($before) < $end ? $scene->end($before) + 1 : 0;
        }
        $nesting = new Nesting($bench);
        $nesting->move($roots, $into === 0 ? 0 : $scene->number($into), $before === 0 ? null : $scene->number($before));
        $this->edits = new Edits($nesting->steps());
        $this->leftAlone = self::lockedInWords($left);
        $this->title = str_replace(
            ':objects',
            number_format($roots->count()).' '.($roots->count() === 1 ? 'object' : 'objects'),
            $title,
        );
    }

    /** @param int $number of the group, 0 for the top @throws Refused */
    public static function into(Bench $bench, Bits $rows, int $number): self
    {
        $scene = $bench->scene();
        $into = $number === 0 ? 0 : $scene->row($number);
        if ($number !== 0 && $into === 0) {
            throw new Refused('That group is no longer there.', 'into');
        }
        $name = $into === 0 ? '' : self::called($bench, $number);

        return new self($bench, $rows, $into, 0, $into === 0 ? 'Move :objects to the top' : "Move :objects into $name");
    }

    /** @param int $number of what they are to stand beside @throws Refused */
    public static function beside(Bench $bench, Bits $rows, int $number, bool $isBefore): self
    {
        $scene = $bench->scene();
        $mark = $scene->row($number);
        if ($mark === 0) {
            throw new Refused('That object is no longer there.', 'mark');
        }
        $into = $scene->parent($mark);
        $last = $into === 0 ? $scene->count() : $scene->end($into);
        $next = $scene->end($mark) < $last ? $scene->end($mark) + 1 : 0;

        return new self(
            $bench,
            $rows,
            $into,
            $isBefore ? $mark : $next,
            'Move :objects '.($isBefore ? 'before ' : 'after ').self::called($bench, $number),
        );
    }

    /** Objects go up or down among their siblings. @param int $by -1 or 1 @throws Refused */
    public static function shift(Bench $bench, Bits $rows, int $by): self
    {
        $scene = $bench->scene();
        $roots = Nesting::outermost($scene, $rows)->rows();
        if ($roots === []) {
            throw new Refused('Pick objects first.', 'keys');
        }
        $into = $scene->parent($roots[0]);
        $siblings = $scene->children($into);
        foreach ($roots as $row) {
            if ($scene->parent($row) !== $into) {
                throw new Refused('Only what stands in the same group moves up and down together.', 'keys');
            }
        }
        $at = (int) array_search($by < 0 ? $roots[0] : $roots[count($roots) - 1], $siblings, true);
        $mark = $siblings[$by < 0 ? max(0, $at - 1) : min(count($siblings) - 1, $at + 1)];

        return self::beside($bench, $rows, $scene->number($mark), $by < 0);
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    private static function called(Bench $bench, int $number): string
    {
        $name = $bench->project->objects()->where('no', $number)->value('name');

        return is_string($name) && $name !== '' ? $name : "object $number";
    }
}
