<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;

/** Where rows of one table stand: what they lie in, and their place among what else lies there. */
final readonly class PlacesEdit implements Edit
{
    /** The column that says what a row lies in. */
    public const PARENTS = [
        'layers' => 'parent_no',
        'folders' => 'parent_no',
        'tags' => 'folder_no',
        'sets' => 'folder_no',
        'views' => 'folder_no',
    ];

    /**
     * @param array<int, array{int, int}> $before number of what the row lies in, 0 at the top, and its place; by number
     * @param array<int, array{int, int}> $after
     */
    public function __construct(public string $table, public array $before, public array $after)
    {
        if (! isset(self::PARENTS[$table])) {
            throw new \InvalidArgumentException("Rows of \"$table\" have no place.");
        }
    }

    public function check(Project $project): void
    {
        $parent = self::PARENTS[$this->table];
        $there = DB::select("SELECT no, $parent AS parent, position FROM $this->table WHERE project_id = ? AND no = ANY(?::int[])", [
            $project->id,
            '{'.implode(',', array_keys($this->before)).'}',
        ]);
        $now = [];
        foreach ($there as $row) {
            $now[(int) $row->no] = [(int) $row->parent, (int) $row->position];
        }
        foreach ($this->before as $number => $place) {
            if (($now[$number] ?? null) !== $place) {
                throw OutOfStep::changed('The order of the '.$this->table);
            }
        }
        foreach (array_unique(array_column($this->after, 0)) as $into) {
            Places::checkExists($project, $this->table, $into);
        }
        if ($this->table === 'layers' || $this->table === 'folders') {
            Places::checkNotInItself($project, $this->table, array_map(static fn (array $place): int => $place[0], $this->after));
        }
    }

    public function apply(Project $project): void
    {
        $parent = self::PARENTS[$this->table];
        $rows = [];
        foreach ($this->after as $number => [$into, $position]) {
            $rows[] = ['no' => $number, 'into' => $into, 'place' => $position];
        }
        DB::update(
            "UPDATE $this->table SET $parent = moved.\"into\", position = moved.place
            FROM json_to_recordset(?) AS moved(no int, \"into\" int, place int)
            WHERE project_id = ? AND $this->table.no = moved.no",
            [json_encode($rows, JSON_THROW_ON_ERROR), $project->id],
        );
    }

    public function reversed(): self
    {
        return new self($this->table, $this->after, $this->before);
    }

    public function columns(Scene $scene): array
    {
        return [];
    }

    public function writes(): array
    {
        return ["$this->table places" => Numbers::of(array_keys($this->after))];
    }

    public function needs(): array
    {
        $into = array_filter(array_column($this->after, 0));

        return [
            $this->table => Numbers::of(array_keys($this->after)),
            ($this->table === 'layers' ? 'layers' : 'folders').' held' => Numbers::of($into),
        ] + (in_array($this->table, ['sets', 'folders'], true) ? ['sets rules' => Numbers::of([1])] : []);
    }

    public function objects(): Bits
    {
        return Bits::none(0);
    }

    public function toArray(): array
    {
        return ['places' => $this->table, 'before' => $this->before, 'after' => $this->after];
    }

    /** @param array<string, mixed> $array */
    public static function fromArray(array $array): self
    {
        return new self(is_string($array['places']) ? $array['places'] : '', self::read($array['before']), self::read($array['after']));
    }

    /** @return array<int, array{int, int}> */
    private static function read(mixed $given): array
    {
        $places = [];
        foreach (is_array($given) ? $given : [] as $number => $place) {
            if (is_array($place) && is_int($place[0] ?? null) && is_int($place[1] ?? null)) {
                $places[(int) $number] = [$place[0], $place[1]];
            }
        }

        return $places;
    }
}
