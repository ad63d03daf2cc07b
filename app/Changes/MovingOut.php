<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\OrganizerKind;
use App\Bench\Refused;
use App\Changes\Edits\PlacesEdit;

/** What lies in folders or layers that go comes to stand where they stood. */
final class MovingOut
{
    /**
     * @param array<string, Organizer> $going by key
     *
     * @return list<PlacesEdit>
     *
     * @throws Refused where two of a name would lie beside each other
     */
    public static function of(Bench $bench, array $going): array
    {
        $steps = [];
        foreach ($going as $row) {
            // What lies in one that goes as well is part of what that one leaves.
            if (! self::holds($row) || isset($going[self::letter($row).$row->parent])) {
                continue;
            }
            $order = self::left($bench, $row->family, $row->parent, $going);
            $moving = [];
            foreach ($order as $index => $each) {
                if ($each->parent !== $row->parent) {
                    RowNames::checkFree($each->name, $each->kind->word(), [
                        ...array_slice($order, 0, $index),
                        ...array_slice($order, $index + 1),
                    ]);
                    $moving[$each->key()] = true;
                }
            }
            $steps["$row->family $row->parent"] = MoveRows::placed($order, $row->parent, $moving);
        }

        return array_merge(...array_values($steps));
    }

    /**
     * What lies in something, or at the top, once others are gone: in the place of a folder or a layer stands what lay in it.
     *
     * @param array<string, Organizer> $going
     *
     * @return list<Organizer>
     */
    private static function left(Bench $bench, string $family, int $in, array $going): array
    {
        $left = [];
        foreach (Organizer::inside($bench, $family, $in) as $row) {
            if (! isset($going[$row->key()])) {
                $left[] = $row;
            } elseif (self::holds($row)) {
                array_push($left, ...self::left($bench, $family, $row->number, $going));
            }
        }

        return $left;
    }

    private static function holds(Organizer $row): bool
    {
        return in_array($row->kind, [OrganizerKind::Folder, OrganizerKind::Layer], true);
    }

    private static function letter(Organizer $row): string
    {
        return $row->kind === OrganizerKind::Layer ? 'L' : 'F';
    }
}
