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

    /**
     * @param string                    $table  "layers" or "views"
     * @param array<string, mixed>|null $before column values, null when the row is new
     * @param array<string, mixed>|null $after  column values, null when the row goes
     */
    public function __construct(
        public string $table,
        public int $number,
        public ?array $before,
        public ?array $after,
    ) {}

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
}
