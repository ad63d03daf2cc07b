<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Casts\Bytes;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Scene\Scene;

/** A row of layers, tags, folders, sets or views that comes, goes or changes. */
final readonly class RowEdit implements Edit
{
    /** Columns whose values are bytes; they are stored in base64. */
    private const BINARY = ['rungs', 'own_output', 'members', 'isolated', 'strangers', 'before_hiding', 'meant'];

    /** Columns that follow from others, so that nobody has to answer for them: pictures of views. */
    private const PICTURES = ['picture', 'pictured'];

    /** Columns that a row that goes need not have as they were when it came: what follows from others. */
    private const DERIVED = [...self::PICTURES, 'size', 'before_hiding'];

    /** Columns in which nothing is something else than empty. */
    private const KEPT_OR_NOT = ['isolated'];

    /** Columns whose values are JSON, which the database writes in its own way. */
    private const JSON = ['camera', 'tint', 'section', 'known_layers', 'known_folders', 'gives'];

    /**
     * @param string                    $table  one of those of {@see PlacesEdit}, "own_values", "sorting_lines" or "waivers"
     * @param array<string, mixed>|null $before column values, null when the row is new
     * @param array<string, mixed>|null $after  column values, null when the row goes
     */
    public function __construct(public string $table, public int $number, public ?array $before, public ?array $after) {}

    public function check(Project $project): void
    {
        $row = DB::table($this->table)->where('project_id', $project->id)->where('no', $this->number)->first();
        $what = $this->what();
        if ($this->before === null) {
            if ($row !== null) {
                throw OutOfStep::taken($what);
            }
            if ($this->table === 'own_values') {
                $property = $this->after['property'] ?? '';
                Places::checkNewValue($project, $this->after ?? []);
                Places::checkNoOtherValue($project, is_string($property) ? $property : '', $this->objects(), $this->number);
            }
            $this->checkPlace($project, $this->after ?? []);

            return;
        }
        if ($row === null) {
            throw OutOfStep::missing(ucfirst($what));
        }
        if (! self::same(array_diff_key($this->before, array_fill_keys(self::PICTURES, true)), self::stored($row))) {
            throw OutOfStep::changed(ucfirst($what));
        }
        if ($this->after === null) {
            $this->checkNothingAdded($row);
            $this->checkUnneeded($project, isset($row->name) && is_string($row->name) ? $row->name : '');
        } elseif (array_intersect_key($this->after, ['name' => true, 'rule' => true]) !== []) {
            $this->checkPlace($project, $this->after + self::stored($row));
        }
    }

    public function apply(Project $project): void
    {
        $row = DB::table($this->table)->where('project_id', $project->id)->where('no', $this->number);
        if ($this->after === null) {
            $row->delete();
        } elseif ($this->before === null) {
            DB::table($this->table)->insert(['project_id' => $project->id, 'no' => $this->number] + $this->values($this->after));
        } else {
            $row->update($this->values($this->after));
        }
    }

    public function reversed(): self
    {
        return new self($this->table, $this->number, $this->after, $this->before);
    }

    public function columns(Scene $scene): array
    {
        $column = ['tags' => 'tag', 'sets' => 'set', 'own_values' => 'value'][$this->table] ?? null;
        if ($column === null || ($this->before !== null && $this->after !== null)) {
            return [];
        }
        $members = $this->after['members'] ?? null;

        return [
            "$column.$this->number" => is_string($members)
                ? Members::column($scene, Members::unpack((string) base64_decode($members, true)))
                : '',
        ];
    }

    public function writes(): array
    {
        $numbers = Numbers::of([$this->number]);
        $writes = [];
        if ($this->before === null || $this->after === null) {
            $writes = [$this->table => $numbers, "$this->table held" => $numbers];
            $property = $this->after['property'] ?? ($this->before['property'] ?? null);
            if (is_string($property)) {
                $writes["own $property"] = $this->objects();
            }
        } else {
            foreach (array_keys(array_diff_key($this->after, array_fill_keys(self::PICTURES, true))) as $column) {
                // Where a row stands is one thing, whoever writes it.
                $isPlace = in_array($column, ['position', PlacesEdit::PARENTS[$this->table] ?? ''], true);
                $writes["$this->table ".($isPlace ? 'places' : $column)] = $numbers;
            }
        }

        return $writes + $this->claims();
    }

    /**
     * What no two rows have at a time: a name that was given up later on may be taken by then.
     *
     * @return array<string, Bits>
     */
    private function claims(): array
    {
        $one = Numbers::of([1]);
        $claims = [];
        foreach ([$this->before ?? [], $this->after ?? []] as $row) {
            $name = $this->table === 'own_values' ? [$row['property'] ?? null, $row['value'] ?? null] : [$row['name'] ?? null];
            if ($this->table !== 'views' && array_filter($name, is_string(...)) === $name) {
                $claims[self::called($this->table, implode("\n", $name))] = $one;
            }
            // Rules that name sets must not come to lead in a circle.
            if ($this->table === 'sets' && is_string($row['rule'] ?? null) && stripos($row['rule'], 'set') !== false) {
                $claims['sets rules'] = $one;
            }
        }

        return $claims;
    }

    /** What {@see writes()} calls a name of which there is one beside each other. */
    public static function called(string $table, string $name): string
    {
        return "$table called ".mb_strtolower($name);
    }

    public function needs(): array
    {
        $parent = PlacesEdit::PARENTS[$this->table] ?? '';
        $into = $this->after[$parent] ?? 0;
        $needs = $this->before === null ? [] : [$this->table => Numbers::of([$this->number])];

        return $needs +
            (is_int($into) && $into > 0 ? [($this->table === 'layers' ? 'layers' : 'folders').' held' => Numbers::of([$into])] : []);
    }

    public function objects(): Bits
    {
        $members = $this->after['members'] ?? ($this->before['members'] ?? null);

        return is_string($members) && ($this->before === null || $this->after === null)
            ? Members::unpack((string) base64_decode($members, true))
            : Bits::none(0);
    }

    public function toArray(): array
    {
        return ['row' => $this->table, 'no' => $this->number, 'before' => $this->before, 'after' => $this->after];
    }

    /**
     * A row as the edit stores it.
     *
     * @return array<string, mixed>
     */
    public static function stored(\stdClass $row): array
    {
        $values = (array) $row;
        unset($values['project_id'], $values['no']);
        foreach (self::BINARY as $column) {
            if (isset($values[$column])) {
                $values[$column] = base64_encode(Bytes::read($values[$column]));
            }
        }

        return $values;
    }

    /**
     * @param array<string, mixed> $values
     *
     * @return array<string, mixed>
     */
    private function values(array $values): array
    {
        foreach (self::BINARY as $column) {
            if (isset($values[$column]) && is_string($values[$column])) {
                $values[$column] = Bytes::write((string) base64_decode($values[$column], true));
            }
        }

        return $values;
    }

    /**
     * A row needs what it lies in.
     *
     * @param array<string, mixed> $row
     */
    private function checkPlace(Project $project, array $row): void
    {
        if (! isset(PlacesEdit::PARENTS[$this->table])) {
            return;
        }
        $into = $row[PlacesEdit::PARENTS[$this->table]] ?? 0;
        Places::checkExists($project, $this->table, is_int($into) ? $into : 0);
        if ($this->table === 'sets') {
            Places::checkNoCycle($project, $this->number, $row);
        }
    }

    /**
     * Looks whether the row, once all is written, has a name that none beside it has; views may be called the same.
     *
     * @throws OutOfStep
     */
    public function checkName(Project $project): void
    {
        $isNamed = $this->after !== null && ($this->before['name'] ?? null) !== ($this->after['name'] ?? null);
        if (! $isNamed || $this->table === 'views' || ! isset(PlacesEdit::PARENTS[$this->table])) {
            return;
        }
        $row = DB::table($this->table)->where('project_id', $project->id)->where('no', $this->number)->first();
        if ($row !== null) {
            Places::checkFree($project, $this->table, self::stored($row), $this->number);
        }
    }

    /** What was set on a row since it came would go with it, and not come back. */
    private function checkNothingAdded(\stdClass $row): void
    {
        $nothing = [null, '', 0, '0', false, '[]'];
        foreach (array_diff_key(self::stored($row), $this->before ?? [], array_fill_keys(self::DERIVED, true)) as $value) {
            if (! in_array($value, $nothing, true)) {
                throw OutOfStep::changed(ucfirst($this->what()));
            }
        }
    }

    private function checkUnneeded(Project $project, string $name): void
    {
        if ($this->table === 'layers') {
            Places::checkEmpty($project, $this->number, $name);
        }
        if ($this->table === 'layers' || $this->table === 'folders') {
            Places::checkNothingIn($project, $this->table, $this->number, $name);
        }
    }

    private function what(): string
    {
        $called = $this->table === 'sorting_lines' ? 'rule' : 'name';
        $name = $this->before[$called] ?? ($this->after[$called] ?? '');
        $what =
            ['own_values' => 'value', 'sorting_lines' => 'the sorting rule', 'waivers' => 'what was waved through'][$this->table] ??
            rtrim($this->table, 's');

        return trim($what.' '.(is_string($name) ? $name : ''));
    }

    /**
     * Whether the row already has some values.
     *
     * @param array<string, mixed> $values
     * @param list<string>         $but columns that do not count
     */
    public function isOf(array $values, array $but = []): bool
    {
        return self::same(array_diff_key($values, array_fill_keys($but, true)), $this->before ?? []);
    }

    /**
     * @param array<string, mixed> $expected
     * @param array<string, mixed> $stored
     */
    private static function same(array $expected, array $stored): bool
    {
        foreach ($expected as $column => $value) {
            $now = $stored[$column] ?? null;
            if (in_array($column, self::JSON, true)) {
                [$value, $now] = array_map(static fn (mixed $json): mixed => is_string($json) ? json_decode($json, true) : $json, [
                    $value,
                    $now,
                ]);
                if (($value === null) !== ($now === null) || $value != $now) {
                    return false;
                }
            } elseif (
                in_array($column, self::KEPT_OR_NOT, true)
                    ? $value !== $now
                    : (is_scalar($value) ? (string) $value : '') !== (is_scalar($now) ? (string) $now : '')
            ) {
                return false;
            }
        }

        return true;
    }
}
