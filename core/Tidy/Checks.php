<?php

declare(strict_types=1);

namespace VineShelf\Tidy;

/** Every check, in the order in which the report has them. */
final class Checks
{
    /** @return array<string, Check> by id */
    public static function all(): array
    {
        $all = [
            new Checks\Unsorted,
            new Checks\UnsortedInFiled,
            new Checks\FiledApart,
            new Checks\Unnamed,
            new Checks\ExportersNames,
            new Checks\NearlySame,
            new Checks\SameSiblings,
            new Checks\SameAsLayer,
            new Checks\SameLayers,
            new Checks\EmptyGroups,
            new Checks\EmptyOrganizers,
            new Checks\LooseAtTop,
            new Checks\Chains,
            new Checks\Twins,
            new Checks\StoredTwice,
            new Checks\TooHeavy,
            new Checks\ZeroSize,
            new Checks\FarAway,
            new Checks\Mirrored,
            new Checks\UnevenlyScaled,
            new Checks\HiddenEverywhere,
            new Checks\DeadSets,
            new Checks\SameMaterials,
        ];

        return array_combine(array_map(static fn (Check $check): string => $check->id(), $all), $all);
    }
}
