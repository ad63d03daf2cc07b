<?php

declare(strict_types=1);

namespace App\Lighten;

use App\Changes\Hold;
use App\Files\Kept;
use App\Files\UnableToKeep;
use App\Models\Casts\Bytes;
use App\Models\Project;
use App\Models\Source;
use App\Scenes\SceneQuery;
use App\Scenes\SceneStore;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Log;
use VineShelf\Geometry\PackedShape;
use VineShelf\Geometry\PackReader;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Simplify\Version;
use VineShelf\Simplify\Versions;

/**
 * Gives the meshes of a project coarser versions, a batch at a time, the heaviest and most used first. What a batch makes is written
 * beside everything; then one transaction puts it in and raises the project's revision, so that the canvas hears of it. A worker that dies
 * has lost the batch and nothing else.
 */
final class Coarsening
{
    /** Triangles and meshes of a batch, about. */
    private const TRIANGLES = 150_000;

    private const MESHES = 4_000;

    /** Larger meshes are done by the fast kind; those that are larger still would take more memory than a worker has. */
    private const CAREFUL = 120_000;

    private const MOST = 1_500_000;

    public function __construct(private readonly Project $project, private readonly SceneStore $scenes) {}

    /** @return int meshes that were not looked at yet */
    public static function left(Project $project): int
    {
        $left = 0;
        foreach ($project->sources()->where('gone', false)->get() as $source) {
            $left += count(self::waiting($source));
        }

        return $left;
    }

    /**
     * Makes one batch.
     *
     * @return bool whether there may be more to do
     *
     * @throws UnableToKeep when there is no room; nothing has changed then
     */
    public function next(): bool
    {
        foreach ($this->project->sources()->where('gone', false)->orderBy('id')->get() as $source) {
            $batch = self::batch(self::waiting($source));
            if ($batch !== []) {
                $this->keep($source, $batch, $this->made($source, $batch));

                return true;
            }
        }

        return false;
    }

    /** @return array<int, array{pack: int, triangles: int}> meshes that were not looked at yet, the heaviest first */
    private static function waiting(Source $source): array
    {
        $done = array_flip(Members::unpack($source->coarsened)->rows());
        $rows = DB::select(
            'SELECT m.no, m.pack_no, m.triangles FROM meshes m LEFT JOIN
                (SELECT mesh_no, sum(triangles) AS drawn FROM objects WHERE project_id = ? AND source_id = ? GROUP BY mesh_no) o
                ON o.mesh_no = m.no WHERE m.project_id = ? AND m.source_id = ? AND m.triangles >= ? ORDER BY o.drawn DESC NULLS LAST, m.no',
            [$source->project_id, $source->id, $source->project_id, $source->id, Versions::LEAST],
        );
        $waiting = [];
        foreach ($rows as $row) {
            if (! isset($done[(int) $row->no])) {
                $waiting[(int) $row->no] = ['pack' => (int) $row->pack_no, 'triangles' => (int) $row->triangles];
            }
        }

        return $waiting;
    }

    /**
     * @param array<int, array{pack: int, triangles: int}> $waiting
     *
     * @return array<int, int> some of them: pack by mesh, those of a pack together
     */
    private static function batch(array $waiting): array
    {
        $batch = [];
        $triangles = 0;
        foreach ($waiting as $mesh => $about) {
            $batch[$mesh] = $about['pack'];
            $triangles += $about['triangles'];
            if ($triangles >= self::TRIANGLES || count($batch) >= self::MESHES) {
                break;
            }
        }
        asort($batch);

        return $batch;
    }

    /** @param array<int, int> $batch */
    private function made(Source $source, array $batch): CoarsePacks
    {
        $files = $this->project->packs()->whereIn('no', array_unique($batch))->pluck('file', 'no')->all();
        $packs = new CoarsePacks(dirname((string) reset($files)));
        try {
            $this->fill($packs, $source, $batch, $files);
        } catch (UnableToKeep $full) {
            $packs->letGo();
            throw $full;
        }

        return $packs;
    }

    /**
     * @param array<int, int>           $batch
     * @param array<array-key, mixed> $files by pack
     */
    private function fill(CoarsePacks $packs, Source $source, array $batch, array $files): void
    {
        $reader = null;
        $open = 0;
        foreach ($batch as $mesh => $pack) {
            if ($pack !== $open) {
                [$open, $reader] = [$pack, $this->reader((string) ($files[$pack] ?? ''))];
            }
            $shape = $reader?->packed($mesh);
            if ($shape !== null) {
                $packs->add($mesh, $shape, $this->versions($source, $mesh, $shape));
            }
        }
        $packs->finish();
    }

    /** Null for a pack that is lost or no longer what it was: its meshes have no versions, and all others do. */
    private function reader(string $file): ?PackReader
    {
        $bytes = Kept::get($file);
        try {
            return $bytes === null ? null : new PackReader($bytes);
        } catch (\Throwable $fault) {
            Log::error('A pack cannot be read.', ['project' => $this->project->key, 'file' => $file, 'error' => $fault->getMessage()]);

            return null;
        }
    }

    /** @return list<Version> none where there is a fault: one mesh must not keep all others from theirs */
    private function versions(Source $source, int $mesh, PackedShape $shape): array
    {
        $triangles = $shape->triangles();
        try {
            return match (true) {
                $triangles > self::MOST => [],
                $triangles > self::CAREFUL => Versions::fast($shape),
                default => Versions::careful($shape),
            };
        } catch (\Throwable $fault) {
            Log::error('A mesh could not be made coarser.', ['source' => $source->id, 'mesh' => $mesh, 'error' => $fault]);

            return [];
        }
    }

    /** @param array<int, int> $batch */
    private function keep(Source $source, array $batch, CoarsePacks $packs): void
    {
        DB::transaction(function () use ($source, $batch, $packs): void {
            Hold::on($this->project);
            $now = Source::query()->find($source->id);
            // Somebody else may have done the same, or deleted it all, in the meantime.
            if ($now === null || $now->coarsened !== $source->coarsened) {
                return;
            }
            foreach ($packs->all as $pack) {
                DB::table('packs')->insert([
                    'project_id' => $this->project->id,
                    'no' => $this->project->next_pack++,
                    'source_id' => $source->id,
                    'file' => $pack['file'],
                    'bytes' => $pack['bytes'],
                    'versions' => Bytes::write($pack['versions']),
                ]);
            }
            $done = [...Members::unpack($now->coarsened)->rows(), ...array_keys($batch)];
            sort($done);
            $now->coarsened = Members::pack(Bits::ofRows((int) end($done), $done));
            $now->kept += $packs->kept;
            $now->save();
            $this->project->moveOn();
            $this->project->save();
            $this->scenes->carry($this->project, fn (): array => ['versions' => (new SceneQuery)->versions($this->project)]);
        });
    }
}
