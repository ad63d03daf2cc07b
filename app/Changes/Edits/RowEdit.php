<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Casts\Bytes;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Scene;

/** A row of layers or views that comes, goes or changes. */
final readonly class RowEdit implements Edit
{
    /** Columns whose values are bytes; they are stored in base64. */
    private const BINARY = ['rungs'];

    /** Columns whose values are JSON, which the database writes in its own way. */
    private const JSON = ['camera'];

    /**
     * @param string                    $table  "layers" or "views"
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
            $this->checkPlace($project);

            return;
        }
        if ($row === null) {
            throw OutOfStep::missing(ucfirst($what));
        }
        if (! self::same($this->before, self::stored($row))) {
            throw OutOfStep::changed(ucfirst($what));
        }
        if ($this->after === null && $this->table === 'layers') {
            Layers::checkEmpty($project, $this->number, is_string($row->name) ? $row->name : '');
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
        return [];
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

    /** A layer needs the layer that it lies in, and a name that none beside it has. */
    private function checkPlace(Project $project): void
    {
        $parent = $this->after['parent_no'] ?? 0;
        if ($this->table !== 'layers') {
            return;
        }
        if (is_int($parent) && $parent > 0) {
            Layers::checkExists($project, $parent);
        }
        $name = $this->after['name'] ?? '';
        $beside = DB::table('layers')
            ->where('project_id', $project->id)
            ->where('parent_no', $parent)
            ->whereRaw('lower(name) = lower(?)', [$name]);
        if ($beside->exists()) {
            throw OutOfStep::taken('a layer “'.(is_string($name) ? $name : '').'”');
        }
    }

    private function what(): string
    {
        $name = $this->before['name'] ?? ($this->after['name'] ?? '');

        return trim(rtrim($this->table, 's').' '.(is_string($name) ? $name : ''));
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
                if ($value != $now) {
                    return false;
                }
            } elseif ((is_scalar($value) ? (string) $value : '') !== (is_scalar($now) ? (string) $now : '')) {
                return false;
            }
        }

        return true;
    }
}
