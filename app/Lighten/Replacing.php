<?php

declare(strict_types=1);

namespace App\Lighten;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\History;
use App\Changes\SwapMeshes;
use App\Files\Compressing;
use App\Files\Kept;
use App\Files\UnableToKeep;
use App\Models\Mesh;
use Illuminate\Support\Facades\DB;
use VineShelf\Geometry\Box;
use VineShelf\Geometry\Hulls;
use VineShelf\Geometry\PackedShape;
use VineShelf\Geometry\PackReader;
use VineShelf\Geometry\PackWriter;
use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\Packed;

/**
 * Puts coarser versions in place of meshes, for everybody and at every rung, as one change; and one mesh in place of those that are stored
 * several times. The new mesh is one like any other, with a pack of its own, so whatever counts, draws or exports meshes knows it. Its box
 * and hull are those of the finer one: what stands where does not move. Meshes that nothing draws any more stay, for undo.
 */
final class Replacing
{
    /** Meshes of one change. */
    public const MOST = 200;

    /** @var list<string> files that were written, and that nothing names until the transaction ends */
    private array $written = [];

    private readonly Compressing $compressing;

    public function __construct(private readonly Bench $bench)
    {
        $this->compressing = new Compressing;
    }

    /**
     * @param list<int> $meshes
     *
     * @throws Refused
     * @throws UnableToKeep when there is no room; nothing has changed then
     */
    public function coarser(array $meshes): SwapMeshes
    {
        return $this->carryOut(function (Bench $held) use ($meshes): SwapMeshes {
            $swaps = [];
            foreach (self::found($held, $meshes) as $mesh) {
                $swaps[$mesh->no] = $this->made($held, $mesh);
            }
            $this->compressing->finish();

            return self::doing(new SwapMeshes($held, $swaps, 'Put a coarser version in place of '.self::named($held, $swaps)));
        });
    }

    /**
     * What was replaced is as it was before.
     *
     * @param list<int> $meshes that were put in place of others
     *
     * @throws Refused
     */
    public function finer(array $meshes): SwapMeshes
    {
        return $this->carryOut(static function (Bench $held) use ($meshes): SwapMeshes {
            $swaps = [];
            foreach (self::found($held, $meshes) as $mesh) {
                $mesh->made_of > 0 || throw new Refused('That mesh came as it is.', 'meshes');
                $swaps[$mesh->no] = $mesh->made_of;
            }

            return self::doing(new SwapMeshes($held, $swaps, 'Put '.self::named($held, $swaps).' back as it came'));
        });
    }

    /**
     * @param list<string> $hashes of meshes that are stored several times
     *
     * @throws Refused
     */
    public function shared(array $hashes): SwapMeshes
    {
        return $this->carryOut(static fn (Bench $held): SwapMeshes => self::sharing($held, $hashes));
    }

    /**
     * @param list<string> $hashes of meshes that are stored several times
     *
     * @throws Refused
     */
    public static function sharing(Bench $held, array $hashes): SwapMeshes
    {
        $swaps = $first = [];
        // What came with a file that was taken back may go altogether.
        $there = $held->project->sources()->where('gone', false)->pluck('id')->all();
        $meshes = Mesh::query()
            ->where('project_id', $held->project->id)
            ->whereIn('source_id', $there)
            ->whereIn('hash', $hashes)
            ->orderBy('no');
        foreach ($meshes->get(['no', 'hash', 'material_no', 'materials', 'triangles', 'vertices']) as $mesh) {
            // The same places in other materials are another mesh.
            $like = json_encode([$mesh->hash, $mesh->material_no, $mesh->materials, $mesh->triangles, $mesh->vertices]);
            $first[$like] ??= $mesh->no;
            if ($first[$like] !== $mesh->no) {
                $swaps[$mesh->no] = $first[$like];
            }
        }
        $swaps !== [] || throw new Refused('Those are not stored several times in the same materials.', 'meshes');

        $name = 'Share '.(count($hashes) === 1 ? 'a mesh' : number_format(count($hashes)).' meshes');

        return self::doing(new SwapMeshes($held, $swaps, $name));
    }

    /** @param callable(Bench): SwapMeshes $make @throws Refused @throws UnableToKeep */
    private function carryOut(callable $make): SwapMeshes
    {
        $isIn = false;
        try {
            $command = app(History::class)->carryOut($this->bench, $make);
            $isIn = true;
        } finally {
            if (! $isIn) {
                Kept::disk()->delete($this->written);
            }
        }

        return $command;
    }

    /** Nothing is made for what changes nothing. @throws Refused */
    private static function doing(SwapMeshes $command): SwapMeshes
    {
        return $command->edits()->isEmpty()
            ? throw new Refused($command->leftAlone === '' ? 'Nothing is drawn with that any more.' : $command->leftAlone, 'meshes')
            : $command;
    }

    /**
     * @param list<int> $numbers
     *
     * @return list<Mesh>
     *
     * @throws Refused
     */
    private static function found(Bench $bench, array $numbers): array
    {
        if (count($numbers) > self::MOST) {
            throw new Refused('At most '.self::MOST.' meshes can be replaced at once.', 'meshes');
        }
        $meshes = Mesh::query()->where('project_id', $bench->project->id)->whereIn('no', $numbers)->orderBy('no')->get()->all();
        if (count($meshes) !== count(array_unique($numbers)) || $numbers === []) {
            throw new Refused('That mesh is no longer there.', 'meshes');
        }

        return array_values($meshes);
    }

    /** @return int the number of a mesh that is the coarser version of another @throws Refused @throws UnableToKeep */
    private function made(Bench $bench, Mesh $mesh): int
    {
        $project = $bench->project;
        // Once made it does for every time after.
        $known = Mesh::query()->where('project_id', $project->id)->where('made_of', $mesh->no)->orderByDesc('no')->first();
        if ($known !== null) {
            return $known->no;
        }
        $number = $project->next_mesh++;
        $b = Packed::float64($mesh->bounds, 0, 6);
        $writer = new PackWriter;
        $packed = $writer->addShape($number, $this->shape($bench, $mesh), new Box($b[0], $b[1], $b[2], $b[3], $b[4], $b[5]));
        $file = $this->write($bench, $mesh, $writer->finish());
        $pack = $project->next_pack++;
        DB::table('packs')->insert([
            'project_id' => $project->id,
            'no' => $pack,
            'source_id' => $mesh->source_id,
            'file' => $file,
            'bytes' => Kept::disk()->size($file),
        ]);
        $points = Hulls::unpack($bench->scene()->column('hulls'))->points($mesh->no);
        Mesh::query()->create([
            'project_id' => $project->id,
            'no' => $number,
            'source_id' => $mesh->source_id,
            'pack_no' => $pack,
            'material_no' => $mesh->material_no,
            'name' => $mesh->name,
            'hash' => $packed->hash,
            'triangles' => $packed->triangles,
            'vertices' => $packed->vertices,
            'pieces' => $mesh->pieces,
            'bytes' => $packed->bytes,
            'bounds' => $mesh->bounds,
            'materials' => $mesh->materials,
            'made_of' => $mesh->no,
            'hull' => Hulls::entry($number, pack('g*', ...$points)),
            'shape' => $packed->shape,
        ]);

        return $number;
    }

    /** @throws Refused */
    private function shape(Bench $bench, Mesh $mesh): PackedShape
    {
        foreach (MeshVersions::of($bench->scene(), $mesh->no) as $at => $version) {
            if ($version['coarse']) {
                $file = (string) $bench->project->packs()->where('no', $version['pack'])->value('file');
                $bytes = Kept::get($file);
                $shape = PackReader::whole($bytes)?->packed($mesh->no, $at + 1);

                return $shape ?? throw new Refused('Its coarser version cannot be read.', 'meshes');
            }
        }
        throw new Refused(($mesh->name === '' ? 'That mesh' : $mesh->name).' has no coarser version.', 'meshes');
    }

    /** @return string the file @throws UnableToKeep */
    private function write(Bench $bench, Mesh $mesh, string $bytes): string
    {
        $beside = (string) $bench->project->packs()->where('no', $mesh->pack_no)->value('file');
        $file = dirname($beside).'/'.hash('xxh128', $bytes).'.glb';
        // What is there already is somebody else's.
        Kept::disk()->exists($file) || ($this->written = [...$this->written, $file, "$file.gz"]);
        Kept::put($file, $bytes);
        $this->compressing->add($file, $bytes);
        DB::table('sources')->where('id', $mesh->source_id)->increment('kept', strlen($bytes));

        return $file;
    }

    /** @param array<int, int> $swaps by the mesh that is meant */
    private static function named(Bench $bench, array $swaps): string
    {
        if (count($swaps) !== 1) {
            return number_format(count($swaps)).' meshes';
        }
        $name = (string) Mesh::query()->where('project_id', $bench->project->id)->where('no', array_key_first($swaps))->value('name');

        return $name === '' ? 'a mesh' : $name;
    }
}
