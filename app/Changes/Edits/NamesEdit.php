<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Scene;
use VineShelf\Search\NameIndex;

/** The names of many objects. */
final readonly class NamesEdit implements Edit
{
    private const AT_ONCE = 10_000;

    /**
     * @param array<int, string> $before names by object number
     * @param array<int, string> $after  names by object number, for the same objects
     */
    public function __construct(public array $before, public array $after) {}

    public function check(Project $project): void
    {
        foreach (array_chunk($this->before, self::AT_ONCE, true) as $names) {
            $there = DB::selectOne(
                'SELECT count(*) AS objects FROM objects JOIN json_to_recordset(?) AS named(no int, name text) ON objects.no = named.no '.
                    'AND objects.name = named.name WHERE project_id = ? AND NOT gone',
                [self::json($names), $project->id],
            );
            if ((int) $there->objects !== count($names)) {
                throw OutOfStep::changed('The name of some of these objects');
            }
        }
    }

    public function apply(Project $project): void
    {
        foreach (array_chunk($this->after, self::AT_ONCE, true) as $names) {
            DB::update(
                'UPDATE objects SET name = renamed.name FROM json_to_recordset(?) AS renamed(no int, name text) WHERE project_id = ? AND '.
                    'objects.no = renamed.no',
                [self::json($names), $project->id],
            );
        }
    }

    public function reversed(): self
    {
        return new self($this->after, $this->before);
    }

    public function columns(Scene $scene): array
    {
        $names = [];
        foreach ($this->after as $number => $name) {
            $row = $scene->row($number);
            if ($row !== 0) {
                $names[$row] = $name;
            }
        }

        return NameIndex::renamedMany($scene, $names);
    }

    public function writes(): array
    {
        return ['name' => $this->objects()];
    }

    public function needs(): array
    {
        return ['there' => $this->objects()];
    }

    public function objects(): Bits
    {
        return Numbers::of(array_keys($this->after));
    }

    public function toArray(): array
    {
        return ['names' => true, 'before' => $this->before, 'after' => $this->after];
    }

    /** @param array<string, mixed> $array */
    public static function fromArray(array $array): self
    {
        return new self(self::names($array['before']), self::names($array['after']));
    }

    /** @return array<int, string> */
    private static function names(mixed $given): array
    {
        $names = [];
        foreach (is_array($given) ? $given : [] as $number => $name) {
            $names[(int) $number] = is_string($name) ? $name : '';
        }

        return $names;
    }

    /** @param array<int, string> $names */
    private static function json(array $names): string
    {
        $rows = array_map(static fn (int $number, string $name): array => ['no' => $number, 'name' => $name], array_keys($names), $names);

        return json_encode($rows, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }
}
