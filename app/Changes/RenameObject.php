<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\NameEdit;
use App\Models\ProjectObject;
use VineShelf\Locks\Lock;
use VineShelf\Naming\Renaming;

/** One object gets another name. */
final class RenameObject extends Command
{
    private readonly string $before;

    private readonly string $after;

    /** @throws Refused when the object is gone or locked, or the name too long */
    public function __construct(Bench $bench, private readonly int $number, string $name)
    {
        $this->after = trim((string) preg_replace('~\s+~u', ' ', $name));
        if (mb_strlen($this->after) > Renaming::LONGEST) {
            throw new Refused(
                'A name has at most '.Renaming::LONGEST.' characters; this one has '.mb_strlen($this->after).'.',
                'name',
            );
        }
        $row = $bench->scene()->row($number);
        $object =
            $row === 0
                ? null
                : ProjectObject::query()
                    ->where('project_id', $bench->project->id)
                    ->where('no', $number)
                    ->where('gone', false)
                    ->first(['project_id', 'no', 'name']);
        if ($object === null) {
            throw new Refused('The object is no longer in the project.', 'name');
        }
        if ($bench->inEffect()->lock($row) === Lock::Locked) {
            throw new Refused(($object->name ?: 'The object').' is locked; open it first.', 'name');
        }
        $this->before = $object->name;
    }

    public function name(): string
    {
        return 'Rename '.($this->before ?: 'unnamed object')." to $this->after";
    }

    public function edits(): Edits
    {
        return new Edits($this->before === $this->after ? [] : [new NameEdit($this->number, $this->before, $this->after)]);
    }
}
