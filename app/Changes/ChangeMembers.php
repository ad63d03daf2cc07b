<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\MembersEdit;
use VineShelf\Scene\Bits;
use VineShelf\Sets\SelectionSet;

/** Objects come to a fixed set or leave it, or those that are gone from the project are let go of. */
final class ChangeMembers extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    private function __construct(SelectionSet $set, Bits $added, Bits $removed, string $title)
    {
        $isSame = $added->isEmpty() && $removed->isEmpty();
        $this->edits = new Edits($isSame ? [] : [new MembersEdit('sets', $set->number, $added, $removed)]);
        $this->title = $title;
    }

    /** @param Bits $rows scene rows of the objects @param string $way "add", "remove" or "replace" */
    public static function of(Bench $bench, int $number, Bits $rows, string $way): self
    {
        $set = self::fixed($bench, $number);
        $scene = $bench->scene();
        $there = $scene->chosen($number);
        $added = $way === 'remove' ? Bits::none($scene->count()) : $rows->without($there);
        $removed = match ($way) {
            'remove' => $rows->and($there),
            'replace' => $there->without($rows),
            'add' => Bits::none($scene->count()),
            default => throw new Refused('Members can be added, removed or replaced.', 'way'),
        };
        $words = array_filter([
            $added->isEmpty() ? '' : 'add '.self::objects($added),
            $removed->isEmpty() ? '' : 'take '.self::objects($removed).' away',
        ]);

        return new self($set, $scene->numberBits($added), $scene->numberBits($removed), "Set $set->name: ".implode(', ', $words));
    }

    /** Members whose objects are gone from the project are let go of. */
    public static function letGo(Bench $bench, int $number): self
    {
        $set = self::fixed($bench, $number);
        $members = MembersEdit::members($bench->project, 'sets', $number) ?? Bits::none(0);
        $gone = $members->less($bench->scene()->numberBits($bench->scene()->chosen($number)));

        return new self($set, Bits::none(0), $gone, "Set $set->name: let go of ".self::objects($gone).' that are gone');
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    private static function fixed(Bench $bench, int $number): SelectionSet
    {
        $set = $bench->sets()->has($number) ? $bench->sets()->get($number) : throw new Refused('That set is no longer there.', 'keys');

        return $set->isLive() ? throw new Refused("$set->name is a live set: its rule says what is in it.", 'keys') : $set;
    }

    private static function objects(Bits $rows): string
    {
        return number_format($rows->count()).' '.($rows->count() === 1 ? 'object' : 'objects');
    }
}
