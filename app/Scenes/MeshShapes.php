<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Files\Kept;
use App\Models\Project;
use League\Flysystem\Local\LocalFilesystemAdapter;
use VineShelf\Geometry\PackReader;
use VineShelf\Geometry\Shape;
use VineShelf\Geometry\ShapeIndex;
use VineShelf\Geometry\Shapes;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** The shapes of a project's meshes, read from its packs as they are needed: one mesh at a time where it is known where each stands. */
final class MeshShapes implements Shapes
{
    /** Files that are open at once. */
    private const MOST_OPEN = 200;

    /** @var array<int, Shape|null> */
    private array $known = [];

    /** @var array<int, array<int, Shape>> by pack, by mesh: of packs that are read whole */
    private array $whole = [];

    /**
     * @var array<int, array{resource, int}|null> an open pack, and where its binary part begins; null when it is not a file of this machine
     */
    private array $open = [];

    /** @var array<int, string>|null */
    private ?array $files = null;

    private readonly ShapeIndex $index;

    public function __construct(private readonly Project $project, private readonly Scene $scene)
    {
        $this->index = new ShapeIndex($scene->column('shapes'));
    }

    public function shape(int $mesh): ?Shape
    {
        if (! array_key_exists($mesh, $this->known)) {
            $rows = $this->scene->column('meshrows');
            $pack = ($mesh + 1) * DrawRecords::MESH > strlen($rows) ? 0 : Packed::uint32($rows, $mesh * DrawRecords::MESH + 4, 1)[0];
            $this->known[$mesh] = $pack === 0 ? null : $this->inPack($pack, $mesh);
        }

        return $this->known[$mesh];
    }

    private function inPack(int $pack, int $mesh): ?Shape
    {
        if (! array_key_exists($pack, $this->open)) {
            $this->open = count($this->open) < self::MOST_OPEN ? $this->open : [];
            $this->open[$pack] = $this->opened($pack);
        }
        $file = $this->open[$pack];
        if ($file !== null) {
            [$handle, $start] = $file;
            $shape = $this->index->shape($mesh, static function (int $at, int $length) use ($handle, $start): string {
                fseek($handle, $start + $at);

                return $length < 1 ? '' : (string) fread($handle, $length);
            });
            if ($shape !== null) {
                return $shape;
            }
        }
        if (! isset($this->whole[$pack])) {
            $bytes = Kept::get($this->file($pack));
            $this->whole[$pack] = $bytes === null ? [] : PackReader::shapes($bytes);
        }

        return $this->whole[$pack][$mesh] ?? null;
    }

    /** @return array{resource, int}|null */
    private function opened(int $pack): ?array
    {
        $disk = Kept::disk();
        if ($this->index->pack() === '' || ! ($disk->getAdapter() instanceof LocalFilesystemAdapter)) {
            return null;
        }
        $handle = @fopen($disk->path($this->file($pack)), 'rb');
        // Meshes lie anywhere: reading on beyond one would be for nothing.
        $handle !== false && stream_set_read_buffer($handle, 0);
        $head = $handle === false ? '' : (string) fread($handle, 16);
        if ($handle === false || strlen($head) < 16) {
            return null;
        }
        /** @var array{all: int, json: int} $length */
        $length = unpack('Vall/Vjson', $head, 8);
        // A pack that is not whole is read whole, and found to be none.
        if ((fstat($handle)['size'] ?? 0) !== $length['all']) {
            return null;
        }

        return [$handle, 28 + $length['json']];
    }

    private function file(int $pack): string
    {
        $this->files ??= array_map(strval(...), $this->project->packs()->pluck('file', 'no')->all());

        return $this->files[$pack] ?? '';
    }
}
