<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Coded;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** One column of many objects: their layer, their own lock, or whether they are gone. */
final readonly class ObjectsEdit implements Edit
{
    /** Column of the objects => column of the scene index, null when the index is built again. */
    private const COLUMNS = ['layer_no' => 'layer', 'lock' => 'lock', 'gone' => null];

    /**
     * @param string                $column one of "layer_no", "lock", "gone"
     * @param array<int, list<int>> $before object numbers by the value they had
     * @param array<int, list<int>> $after  object numbers by the value they get
     */
    public function __construct(public string $column, public array $before, public array $after)
    {
        if (! array_key_exists($column, self::COLUMNS)) {
            throw new \InvalidArgumentException("Objects have no column \"$column\" that can be changed this way.");
        }
    }

    public function check(Project $project): void
    {
        foreach ($this->before as $value => $numbers) {
            $there = DB::selectOne(
                "SELECT count(*) AS objects FROM objects WHERE project_id = ? AND no = ANY(?::int[]) AND $this->column = ?",
                [$project->id, '{'.implode(',', $numbers).'}', $this->column === 'gone' ? (bool) $value : $value],
            );
            if ((int) $there->objects !== count($numbers)) {
                throw OutOfStep::changed(
                    ['layer_no' => 'The layer', 'lock' => 'The lock', 'gone' => 'What is there'][$this->column].
                        ' of some of these objects',
                );
            }
        }
        foreach (array_keys($this->column === 'layer_no' ? $this->after : []) as $layer) {
            Places::checkExists($project, 'layers', $layer);
        }
        if ($this->column === 'gone' && ($this->after[0] ?? []) !== []) {
            Places::checkHomes($project, 'no = ANY(\'{'.implode(',', $this->after[0]).'}\'::int[])');
            self::checkHeld($project, $this->after[0]);
        }
        if ($this->column === 'gone' && ($this->after[1] ?? []) !== []) {
            self::checkHoldsNothing($project, $this->after[1]);
        }
    }

    /**
     * @param list<int> $numbers of objects that come back
     *
     * @throws OutOfStep when what one of them stood in is gone
     */
    private static function checkHeld(Project $project, array $numbers): void
    {
        $lost = DB::selectOne(
            'SELECT count(*) AS objects FROM objects o JOIN objects p ON p.project_id = o.project_id AND p.no = o.parent_no
             WHERE o.project_id = ? AND o.no = ANY(?::int[]) AND p.gone AND NOT p.no = ANY(?::int[])',
            [$project->id, ...array_fill(0, 2, '{'.implode(',', $numbers).'}')],
        );
        if ((int) $lost->objects > 0) {
            throw OutOfStep::missing('What '.number_format((int) $lost->objects).' of these objects stood in');
        }
    }

    /**
     * @param list<int> $numbers of objects that go
     *
     * @throws OutOfStep when others stand in them
     */
    private static function checkHoldsNothing(Project $project, array $numbers): void
    {
        $others = DB::selectOne(
            'SELECT count(*) AS objects FROM objects
             WHERE project_id = ? AND parent_no = ANY(?::int[]) AND NOT gone AND NOT no = ANY(?::int[])',
            [$project->id, ...array_fill(0, 2, '{'.implode(',', $numbers).'}')],
        );
        if ((int) $others->objects > 0) {
            throw OutOfStep::needed('What is to go', number_format((int) $others->objects).' other objects stand in it');
        }
    }

    public function apply(Project $project): void
    {
        foreach ($this->after as $value => $numbers) {
            if ($numbers !== []) {
                DB::update("UPDATE objects SET $this->column = ? WHERE project_id = ? AND no = ANY(?::int[])", [
                    $this->column === 'gone' ? (bool) $value : $value,
                    $project->id,
                    '{'.implode(',', $numbers).'}',
                ]);
            }
        }
    }

    public function reversed(): self
    {
        return new self($this->column, $this->after, $this->before);
    }

    public function columns(Scene $scene): ?array
    {
        $name = self::COLUMNS[$this->column];
        if ($name === null) {
            return null;
        }
        $column = Coded::unpack($scene->column($name));
        foreach ($this->after as $value => $numbers) {
            sort($numbers);
            $column = $column->with($scene->rowBits(Bits::ofRows($numbers === [] ? 0 : $numbers[count($numbers) - 1], $numbers)), $value);
        }

        return [$name => $column->pack()];
    }

    public function writes(): array
    {
        return [['layer_no' => 'layer', 'lock' => 'lock', 'gone' => 'there'][$this->column] => $this->objects()];
    }

    public function needs(): array
    {
        return match ($this->column) {
            'layer_no' => ['there' => $this->objects(), 'layers' => Numbers::of(array_keys($this->after))],
            'lock' => ['there' => $this->objects()],
            default => [],
        };
    }

    public function objects(): Bits
    {
        return Numbers::of(array_merge(...array_values($this->after), ...[[]]));
    }

    public function toArray(): array
    {
        return [
            'objects' => $this->column,
            'before' => array_map(self::packed(...), $this->before),
            'after' => array_map(self::packed(...), $this->after),
        ];
    }

    /** @param array<string, mixed> $array */
    public static function fromArray(array $array): self
    {
        return new self(
            is_string($array['objects']) ? $array['objects'] : '',
            self::unpacked($array['before']),
            self::unpacked($array['after']),
        );
    }

    /** @param list<int> $numbers */
    private static function packed(array $numbers): string
    {
        return base64_encode($numbers === [] ? '' : pack('V*', ...$numbers));
    }

    /** @return array<int, list<int>> */
    private static function unpacked(mixed $packed): array
    {
        $numbers = [];
        foreach (is_array($packed) ? $packed : [] as $value => $text) {
            $bytes = is_string($text) ? (string) base64_decode($text, true) : '';
            $numbers[(int) $value] = Packed::uint32($bytes, 0, intdiv(strlen($bytes), 4));
        }

        return $numbers;
    }
}
