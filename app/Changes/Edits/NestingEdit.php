<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** What objects stand in, and their place among what else stands there. */
final readonly class NestingEdit implements Edit
{
    /**
     * @param array<int, array{int, int}> $before number of the parent, 0 at the top, and the place; by object number
     * @param array<int, array{int, int}> $after  for the same objects
     */
    public function __construct(public array $before, public array $after) {}

    public function check(Project $project): void
    {
        $there = DB::selectOne(
            'SELECT count(*) AS objects FROM objects JOIN unnest(?::int[], ?::int[], ?::int[]) AS was(no, parent, place)
             ON objects.no = was.no AND objects.parent_no = was.parent AND objects.position = was.place WHERE project_id = ? AND NOT gone',
            [...self::lists($this->before), $project->id],
        );
        if ((int) $there->objects !== count($this->before)) {
            throw OutOfStep::changed('What some of these objects stand in');
        }
        self::checkParents($project, array_map(static fn (array $place): int => $place[0], $this->after));
    }

    public function apply(Project $project): void
    {
        DB::update(
            'UPDATE objects SET parent_no = moved.parent, position = moved.place
             FROM unnest(?::int[], ?::int[], ?::int[]) AS moved(no, parent, place) WHERE project_id = ? AND objects.no = moved.no',
            [...self::lists($this->after), $project->id],
        );
    }

    public function reversed(): self
    {
        return new self($this->after, $this->before);
    }

    public function columns(Scene $scene): ?array
    {
        return null;
    }

    public function writes(): array
    {
        return ['nesting' => $this->objects()];
    }

    public function needs(): array
    {
        return ['there' => $this->objects()->with(Numbers::of(array_filter(array_column($this->after, 0))))];
    }

    public function objects(): Bits
    {
        return Numbers::of(array_keys($this->after));
    }

    public function toArray(): array
    {
        return ['nesting' => true, 'before' => self::packed($this->before), 'after' => self::packed($this->after)];
    }

    /** @param array<string, mixed> $array */
    public static function fromArray(array $array): self
    {
        return new self(self::unpacked($array['before'] ?? ''), self::unpacked($array['after'] ?? ''));
    }

    /**
     * @param array<int, int> $parents number of what an object is to stand in, by object number
     *
     * @throws OutOfStep when one of these is not there, or would stand in itself
     */
    private static function checkParents(Project $project, array $parents): void
    {
        $wanted = array_values(array_filter(array_unique($parents)));
        if ($wanted === []) {
            return;
        }
        $above = [];
        $rows = DB::select(
            'WITH RECURSIVE up AS (
                 SELECT no, parent_no FROM objects WHERE project_id = :project AND NOT gone AND no = ANY(:wanted::int[])
                 UNION SELECT o.no, o.parent_no FROM objects o JOIN up ON o.project_id = :also AND o.no = up.parent_no
             ) SELECT no, parent_no FROM up',
            ['project' => $project->id, 'also' => $project->id, 'wanted' => '{'.implode(',', $wanted).'}'],
        );
        foreach ($rows as $row) {
            $above[(int) $row->no] = (int) $row->parent_no;
        }
        foreach ($wanted as $number) {
            if (! isset($above[$number])) {
                throw OutOfStep::missing('A group that objects are to stand in');
            }
        }
        $above = $parents + $above;
        foreach ($wanted as $number) {
            for ($at = $number, $steps = 0; $at !== 0; $at = $above[$at] ?? 0) {
                if ($steps++ > count($above)) {
                    throw OutOfStep::changed('The nesting of these objects');
                }
            }
        }
    }

    /**
     * @param array<int, array{int, int}> $places
     *
     * @return array{string, string, string} numbers, parents and places as the database takes lists
     */
    private static function lists(array $places): array
    {
        return array_map(static fn (array $list): string => '{'.implode(',', $list).'}', [
            array_keys($places),
            array_column($places, 0),
            array_column($places, 1),
        ]);
    }

    /** @param array<int, array{int, int}> $places */
    private static function packed(array $places): string
    {
        $numbers = [];
        foreach ($places as $number => [$parent, $place]) {
            array_push($numbers, $number, $parent, $place);
        }

        return base64_encode($numbers === [] ? '' : pack('V*', ...$numbers));
    }

    /** @return array<int, array{int, int}> */
    private static function unpacked(mixed $packed): array
    {
        $bytes = is_string($packed) ? (string) base64_decode($packed, true) : '';
        $places = [];
        foreach (array_chunk(Packed::uint32($bytes, 0, intdiv(strlen($bytes), 4)), 3) as $triple) {
            if (count($triple) === 3) {
                $places[$triple[0]] = [$triple[1], $triple[2]];
            }
        }

        return $places;
    }
}
