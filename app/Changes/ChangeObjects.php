<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edits;
use App\Changes\Edits\NameEdit;
use App\Changes\Edits\ObjectsEdit;
use App\Models\ProjectObject;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Scene;

/** Objects get another own lock, or one of them another name. */
final class ChangeObjects extends Command
{
    private function __construct(private readonly string $title, private readonly Edits $edits) {}

    /** @param list<int> $numbers */
    public static function lock(array $numbers, Lock $lock, Scene $scene): self
    {
        $before = [];
        $locks = $scene->locks();
        foreach ($scene->rowsOf($numbers) as $row) {
            $own = $locks->at($row);
            if ($own !== $lock->value) {
                $before[$own][] = $scene->number($row);
            }
        }
        $all = array_merge(...array_values($before));
        $verb = ['Open', 'Guard', 'Lock'][$lock->value];

        return new self("$verb ".number_format(count($all)).' '.(count($all) === 1 ? 'object' : 'objects'), new Edits($all === [] ? [] : [new ObjectsEdit('lock', $before, [$lock->value => $all])]));
    }

    public static function rename(ProjectObject $object, string $name, Scene $scene, InEffect $inEffect): self
    {
        $name = trim((string) preg_replace('~\s+~u', ' ', $name));
        if (mb_strlen($name) > 500) {
            throw new Refused('A name has at most 500 characters; this one has '.mb_strlen($name).'.', 'name');
        }
        if ($inEffect->lock($scene->row($object->no)) === Lock::Locked) {
            throw new Refused(($object->name ?: 'The object').' is locked; open it first.', 'name');
        }

        return new self('Rename '.($object->name ?: 'unnamed object')." to $name", new Edits($name === $object->name ? [] : [new NameEdit($object->no, $object->name, $name)]));
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
