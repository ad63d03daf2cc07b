<?php

declare(strict_types=1);

namespace App\Lighten;

use App\Bench\Bench;
use App\Models\View;
use Illuminate\Support\Facades\DB;
use VineShelf\Lighten\Drawing;
use VineShelf\Lighten\Fineness;
use VineShelf\Scene\MeshVersions;

/** The meshes that are too fine for what they show, and those that were replaced by coarser ones. */
final readonly class Fine
{
    /** What is counted, and from how many triangles for each on a mesh is too fine. */
    public const BY = ['pixel' => 1.0, 'area' => 500.0];

    /** Triangles that are fine whatever they show. */
    private const LEAST = 60;

    private const LISTED = 100;

    private const VIEWS = 12;

    /** Pixels that a canvas is tall, and that the picture is in which it is looked how large things are. */
    private const TALL = 800;

    private const SMALL = 160;

    public function __construct(private Bench $bench) {}

    /** Whether any view keeps a camera, so that pixels can be counted. */
    public function hasViews(): bool
    {
        return $this->cameras() !== [];
    }

    /**
     * @param string $by    "pixel" at the view that comes nearest, or "area"
     * @param float  $least triangles for each of them
     *
     * @return list<array{
     *     mesh: int, name: string, objects: int, triangles: int, area: float, pixels: float|null, per: float, coarse: int|null, off: float,
     *     saves: int
     * }> coarse: triangles of the version that could stand in its place, null for none; off: by so many metres; the one that saves
     *     most comes first
     */
    public function meshes(string $by, float $least): array
    {
        $looks = $by === 'pixel' ? $this->looks() : [];
        $versions = MeshVersions::coarse($this->bench->scene());
        $fine = [];
        foreach ((new Fineness($this->bench->facts()))->meshes(self::LEAST, $looks, self::TALL / ((self::SMALL * 10) / 16)) as $one) {
            // What is seen from nowhere shows nothing.
            $shows = $by === 'pixel' ? max(1.0, (float) $one['pixels']) : max(1e-4, $one['area']);
            $per = $one['triangles'] / $shows;
            if ($per < $least) {
                continue;
            }
            $coarse = $versions[$one['mesh']] ?? null;
            $fine[] = [
                'mesh' => $one['mesh'],
                'objects' => $one['objects'],
                'triangles' => $one['triangles'],
                'area' => $one['area'],
                'pixels' => $one['pixels'],
                'per' => $per,
                'coarse' => $coarse['triangles'] ?? null,
                'off' => $coarse['error'] ?? 0.0,
                'saves' => $coarse === null ? 0 : (int) round($one['all'] * (1 - $coarse['triangles'] / max(1, $one['triangles']))),
            ];
        }
        usort($fine, static fn (array $a, array $b): int => [$b['saves'], $b['per']] <=> [$a['saves'], $a['per']]);
        $fine = array_slice($fine, 0, self::LISTED);
        $names = $this->names(array_column($fine, 'mesh'));

        return array_map(static fn (array $one): array => $one + ['name' => $names[$one['mesh']] ?? ''], $fine);
    }

    /** @return list<array{mesh: int, name: string, objects: int, triangles: int, was: int}> what stands in place of finer meshes */
    public function replaced(): array
    {
        $rows = DB::table('meshes AS m')
            ->join('meshes AS f', static fn ($join) => $join->on('f.project_id', 'm.project_id')->on('f.no', 'm.made_of'))
            ->join('objects AS o', static fn ($join) => $join->on('o.project_id', 'm.project_id')->on('o.mesh_no', 'm.no'))
            ->where('m.project_id', $this->bench->project->id)
            ->where('m.made_of', '>', 0)
            ->where('o.gone', false)
            ->groupBy('m.no', 'm.name', 'm.triangles', 'f.triangles')
            ->orderBy('m.no')
            ->selectRaw('m.no, m.name, m.triangles, f.triangles AS was, count(o.no) AS objects')
            ->get();

        return array_values(
            $rows
                ->map(
                    static fn (object $row): array => [
                        'mesh' => (int) $row->no,
                        'name' => $row->name === '' ? 'unnamed mesh' : (string) $row->name,
                        'objects' => (int) $row->objects,
                        'triangles' => (int) $row->triangles,
                        'was' => (int) $row->was,
                    ],
                )
                ->all(),
        );
    }

    /**
     * @param list<int> $meshes
     *
     * @return array<int, string> by number
     */
    private function names(array $meshes): array
    {
        $names = [];
        foreach (
            DB::table('meshes')
                ->where('project_id', $this->bench->project->id)
                ->whereIn('no', $meshes)
                ->get(['no', 'name']) as $mesh
        ) {
            $names[(int) $mesh->no] = $mesh->name === '' ? 'unnamed mesh' : (string) $mesh->name;
        }

        return $names;
    }

    /** @return list<array<string, mixed>> */
    private function cameras(): array
    {
        $cameras = [];
        foreach ($this->bench->project->views()->whereNotNull('camera')->orderBy('no')->limit(self::VIEWS)->get() as $view) {
            $view instanceof View && $view->camera !== null && ($cameras[] = $view->camera);
        }

        return $cameras;
    }

    /** @return list<Drawing> */
    private function looks(): array
    {
        $shapes = new KeptVersions($this->bench);
        $facts = $this->bench->facts();

        return array_map(static fn (array $camera): Drawing => Looking::from($facts, $camera, self::SMALL, $shapes), $this->cameras());
    }
}
