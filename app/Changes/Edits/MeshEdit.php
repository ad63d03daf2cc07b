<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Scene\Scene;

/** Objects that draw one mesh draw another instead. */
final readonly class MeshEdit implements Edit
{
    /** @param Bits $numbers of the objects */
    public function __construct(public int $from, public int $to, public Bits $numbers) {}

    public function check(Project $project): void
    {
        $there = DB::selectOne('SELECT count(*) AS objects FROM objects WHERE project_id = ? AND mesh_no = ? AND no = ANY(?::int[])', [
            $project->id,
            $this->from,
            $this->list(),
        ]);
        if ((int) $there->objects !== $this->numbers->count()) {
            throw OutOfStep::changed('What some of these objects are drawn with');
        }
    }

    public function apply(Project $project): void
    {
        $meshes = DB::table('meshes')
            ->where('project_id', $project->id)
            ->whereIn('no', [$this->from, $this->to])
            ->get(['no', 'triangles', 'vertices'])
            ->keyBy('no');
        [$from, $to] = [$meshes[$this->from] ?? null, $meshes[$this->to] ?? null];
        if ($from === null || $to === null) {
            throw OutOfStep::missing('A mesh');
        }
        // An object counts all its placements.
        DB::update(
            'UPDATE objects SET mesh_no = ?, triangles = CASE WHEN ? = 0 THEN 0 ELSE triangles / ? * ? END,
                vertices = CASE WHEN ? = 0 THEN 0 ELSE vertices / ? * ? END WHERE project_id = ? AND mesh_no = ? AND no = ANY(?::int[])',
            [
                $this->to,
                ...[$from->triangles, max(1, $from->triangles), $to->triangles],
                ...[$from->vertices, max(1, $from->vertices), $to->vertices],
                ...[$project->id, $this->from, $this->list()],
            ],
        );
        $project->meshed++;
    }

    public function reversed(): self
    {
        return new self($this->to, $this->from, $this->numbers);
    }

    public function columns(Scene $scene): ?array
    {
        return null;
    }

    public function writes(): array
    {
        return ['mesh' => $this->numbers];
    }

    public function needs(): array
    {
        return ['there' => $this->numbers];
    }

    public function objects(): Bits
    {
        return $this->numbers;
    }

    public function toArray(): array
    {
        return ['mesh' => $this->from, 'to' => $this->to, 'numbers' => base64_encode(Members::pack($this->numbers))];
    }

    /** @param array<string, mixed> $array */
    public static function fromArray(array $array): self
    {
        $numbers = is_string($array['numbers'] ?? null) ? (string) base64_decode($array['numbers'], true) : '';

        return new self(
            is_int($array['mesh']) ? $array['mesh'] : 0,
            is_int($array['to'] ?? null) ? $array['to'] : 0,
            Members::unpack($numbers),
        );
    }

    private function list(): string
    {
        return '{'.implode(',', $this->numbers->rows()).'}';
    }
}
