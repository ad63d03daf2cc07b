<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Runs;
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
    public function __construct(
        public string $column,
        public array $before,
        public array $after,
    ) {
        if (! array_key_exists($column, self::COLUMNS)) {
            throw new \InvalidArgumentException("Objects have no column \"$column\" that can be changed this way.");
        }
    }

    public function apply(Project $project): void
    {
        foreach ($this->after as $value => $numbers) {
            if ($numbers !== []) {
                DB::update(
                    "UPDATE objects SET $this->column = ? WHERE project_id = ? AND no = ANY(?::int[])",
                    [$this->column === 'gone' ? (bool) $value : $value, $project->id, '{'.implode(',', $numbers).'}'],
                );
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
        $runs = Runs::unpack($scene->column($name));
        foreach ($this->after as $value => $numbers) {
            $runs = $runs->with($scene->rowsOf($numbers), $value);
        }

        return [$name => $runs->pack()];
    }

    public function toArray(): array
    {
        return ['objects' => $this->column, 'before' => array_map(self::packed(...), $this->before), 'after' => array_map(self::packed(...), $this->after)];
    }

    /** @param array<string, mixed> $array */
    public static function fromArray(array $array): self
    {
        return new self(is_string($array['objects']) ? $array['objects'] : '', self::unpacked($array['before']), self::unpacked($array['after']));
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
