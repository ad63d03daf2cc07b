<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\MembersEdit;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/** Many objects, and what they hold, come to many tags and fixed sets at once, or leave them. */
final class ChangeMemberships extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    /**
     * @param Bits         $rows    scene rows of the objects
     * @param list<string> $columns keys of tags and fixed sets, "T3" or "E4"
     * @param bool         $on      whether they come
     */
    public function __construct(Bench $bench, Bits $rows, array $columns, bool $on)
    {
        $scene = $bench->scene();
        $all = Relatives::within($scene, $rows);
        $open = $all->without($bench->inEffect()->locked());
        $this->leftAlone = self::lockedInWords($all->count() - $open->count());
        $steps = $names = [];
        $changed = Bits::none($scene->count());
        foreach (array_unique($columns) as $key) {
            [$table, $number, $name, $there] = self::column($bench, $key);
            // Being in a set changes nothing about an object; a tag does.
            $those = $table === 'tags' ? $open : $all;
            $changing = $on ? $those->without($there) : $those->and($there);
            if (! $changing->isEmpty()) {
                $numbers = $scene->numberBits($changing);
                $steps[] = new MembersEdit($table, $number, $on ? $numbers : Bits::none(0), $on ? Bits::none(0) : $numbers);
                $names[] = $name;
                $changed = $changed->or($changing);
            }
        }
        $this->edits = new Edits($steps);
        $objects = number_format($changed->count()).' '.($changed->count() === 1 ? 'object' : 'objects');
        $what = count($names) === 1 ? $names[0] : count($names).' tags and sets';
        $this->title = $on ? "Put $objects in $what" : "Take $objects out of $what";
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /** @return array{string, int, string, Bits} table, number, name, and the rows that are in */
    private static function column(Bench $bench, string $key): array
    {
        $number = (int) substr($key, 1);
        if (preg_match('~^T\d{1,9}$~D', $key) === 1 && $bench->tags()->has($number)) {
            return ['tags', $number, $bench->tags()->get($number)->name, $bench->scene()->tagged($number)];
        }
        if (preg_match('~^E\d{1,9}$~D', $key) === 1 && $bench->sets()->has($number)) {
            $set = $bench->sets()->get($number);

            return $set->isLive()
                ? throw new Refused("$set->name is a live set: its rule says what is in it.", 'columns')
                : ['sets', $number, $set->name, $bench->scene()->chosen($number)];
        }
        throw new Refused('That tag or set is no longer there.', 'columns');
    }
}
