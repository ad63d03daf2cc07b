<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Models\Project;
use Illuminate\Support\Facades\Storage;
use VineShelf\Geometry\PackReader;
use VineShelf\Geometry\Shape;
use VineShelf\Geometry\Shapes;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** The shapes of a project's meshes, read from its packs as they are needed. */
final class MeshShapes implements Shapes
{
    /** @var array<int, array<int, Shape>> by pack, by mesh */
    private array $packs = [];

    /** @var array<int, string>|null */
    private ?array $files = null;

    public function __construct(private readonly Project $project, private readonly Scene $scene) {}

    public function shape(int $mesh): ?Shape
    {
        $rows = $this->scene->column('meshrows');
        if (($mesh + 1) * DrawRecords::MESH > strlen($rows)) {
            return null;
        }
        $pack = Packed::uint32($rows, $mesh * DrawRecords::MESH + 4, 1)[0];
        $this->packs[$pack] ??= $this->read($pack);

        return $this->packs[$pack][$mesh] ?? null;
    }

    /** @return array<int, Shape> */
    private function read(int $pack): array
    {
        $this->files ??= array_map(strval(...), $this->project->packs()->pluck('file', 'no')->all());
        $bytes = isset($this->files[$pack]) ? Storage::disk('local')->get($this->files[$pack]) : null;

        return $bytes === null ? [] : PackReader::shapes($bytes);
    }
}
