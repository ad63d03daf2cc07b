<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Folders\Holds;

/** A new folder of tags, sets or views: empty inside another one, or around some rows, where the first of them stood. */
final class CreateFolder extends Command
{
    public readonly int $number;

    private readonly string $folderName;

    private readonly Edits $edits;

    private readonly int $around;

    /**
     * @param int          $parent number of the folder that it lies in, 0 for the top; where it goes around rows, they say
     * @param list<string> $around keys of rows that go into it
     */
    public function __construct(Bench $bench, Holds $holds, string $name, int $parent, array $around = [])
    {
        $rows = array_map(static fn (string $key): Organizer => Organizer::named($bench, $key), $around);
        foreach ($rows as $row) {
            if ($row->family !== $holds->value) {
                throw new Refused("A folder of $holds->value takes {$holds->value} and folders of them only.", 'keys');
            }
        }
        // A row that lies in another one of them comes along with that: the folder never lies in what it goes around.
        $rows = MoveRows::outermost($bench, $rows);
        $tree = Organizer::tree($bench, $holds->value);
        $parent = $rows === [] ? (isset($tree->folders[$parent]) ? $parent : 0) : $rows[0]->parent;
        $this->folderName = RowNames::check($name, 'folder');
        $beside = Organizer::inside($bench, $holds->value, $parent);
        RowNames::checkFree($this->folderName, 'folder', $beside);
        $this->number = $bench->project->next_folder++;
        $this->around = count($rows);
        $step = new RowEdit('folders', $this->number, null, [
            'holds' => $holds->value,
            'parent_no' => $parent,
            'position' => $rows === [] ? CreateTag::last($beside) + 1 : $rows[0]->position,
            'name' => $this->folderName,
            'lock' => 0,
            'one_at_a_time' => false,
        ]);
        $this->edits = new Edits([$step, ...$rows === [] ? [] : MoveRows::steps($rows, $this->number, [])]);
    }

    public function name(): string
    {
        return "Create folder $this->folderName".
            ($this->around === 0 ? '' : " around $this->around ".($this->around === 1 ? 'row' : 'rows'));
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
