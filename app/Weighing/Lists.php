<?php

declare(strict_types=1);

namespace App\Weighing;

use App\Bench\Bench;
use App\Models\View;
use Illuminate\Database\Query\Builder;
use Illuminate\Support\Facades\DB;
use VineShelf\Facts\Measure;
use VineShelf\Scene\Bits;
use VineShelf\Weights\Weight;

/** What weighs most, what is stored several times, and how the total came about. */
final readonly class Lists
{
    private const MOST = 100;

    /** What views are sorted by. */
    public const VIEW_COLUMNS = [
        'name' => 'View',
        'triangles' => 'Triangles',
        'vertices' => 'Vertices',
        'calls' => 'Calls',
        'geometry' => 'Geometry',
        'textures' => 'Textures',
        'pictures' => 'In pictures',
    ];

    public function __construct(private Bench $bench) {}

    /** @return list<array{key: string, name: string, layer: string, triangles: int, times: int, bytes: int}> the heaviest first */
    public function heaviest(): array
    {
        $scene = $this->bench->scene();
        $facts = $this->bench->facts();
        $rows = $facts->order('triangles', true)->slice(0, self::MOST);
        $names = (new Parts($this->bench))->named($rows);
        $heaviest = [];
        foreach ($rows as $row) {
            $triangles = $scene->triangles($row, $row);
            if ($triangles > 0) {
                $heaviest[] = [
                    'key' => 'O'.$scene->number($row),
                    'name' => $names[$row],
                    'layer' => $this->bench->layers()->get($scene->layers()->at($row))->name,
                    'triangles' => $triangles,
                    'times' => (int) $facts->measure(Measure::Instances, $row),
                    'bytes' => (int) $facts->measure(Measure::Geometry, $row) + (int) $facts->measure(Measure::Texture, $row),
                ];
            }
        }

        return $heaviest;
    }

    /** @return list<array{key: string, name: string, times: int, triangles: int, saves: int}> meshes that are stored several times */
    public function repeats(): array
    {
        $gone = $this->bench->project->sources()->where('gone', true)->pluck('id')->all();
        $rows = DB::table('meshes')
            ->where('project_id', $this->bench->project->id)
            ->whereNotIn('source_id', $gone)
            ->whereIn('no', $this->used())
            ->selectRaw('hash, min(name) AS name, count(*) AS times, min(triangles) AS triangles, (count(*) - 1) * min(bytes) AS saves')
            ->groupBy('hash')
            ->havingRaw('count(*) > 1 AND min(bytes) > 0')
            ->orderByDesc('saves')
            ->orderBy('hash')
            ->limit(self::MOST)
            ->get();

        return array_values(
            $rows
                ->map(
                    static fn (object $row): array => [
                        'key' => "H$row->hash",
                        'name' => (string) $row->name === '' ? 'unnamed mesh' : (string) $row->name,
                        'times' => (int) $row->times,
                        'triangles' => (int) $row->triangles,
                        'saves' => (int) $row->saves,
                    ],
                )
                ->all(),
        );
    }

    /** @return array{int, int} bytes that all meshes take, and that they would take if each were stored once */
    public function sharing(): array
    {
        $gone = $this->bench->project->sources()->where('gone', true)->pluck('id')->all();
        $sums = DB::query()
            ->fromSub(
                DB::table('meshes')
                    ->where('project_id', $this->bench->project->id)
                    ->whereNotIn('source_id', $gone)
                    ->whereIn('no', $this->used())
                    ->selectRaw('sum(bytes) AS bytes, min(bytes) AS once')
                    ->groupBy('hash'),
                'alike',
            )
            ->selectRaw('coalesce(sum(bytes), 0) AS bytes, coalesce(sum(once), 0) AS once')
            ->first();

        return [(int) ($sums->bytes ?? 0), (int) ($sums->once ?? 0)];
    }

    /** Meshes that something is drawn with: one that was replaced is kept, and weighs nothing. */
    private function used(): Builder
    {
        return DB::table('objects')->where('project_id', $this->bench->project->id)->where('gone', false)->distinct()->select('mesh_no');
    }

    /**
     * What views draw: with the rungs that each keeps, those of the desk where it keeps none; and in pictures.
     *
     * @param string $sort one of {@see VIEW_COLUMNS}; names from the first on, numbers from the largest
     *
     * @return list<array{no: int, name: string, weight: Weight, pictures: int}>
     */
    public function views(string $sort): array
    {
        $all = Bits::all($this->bench->scene()->count());
        $weights = $this->bench->weights();
        $views = [];
        foreach (array_slice($this->bench->shelf()->members, 0, self::MOST) as $view) {
            if ($view instanceof View) {
                $views[] = [
                    'no' => $view->no,
                    'name' => $view->name,
                    'weight' => $weights->inEffect($all, $this->bench->asIn($view)->rungs()),
                    'pictures' => $weights->drawn($all, $this->bench->outputs()->of($view)->inEffect->rungs()),
                ];
            }
        }
        $by = array_map(
            static fn (array $one): array => match ($sort) {
                'name' => [0, mb_strtolower($one['name'])],
                'vertices' => [-$one['weight']->vertices, ''],
                'calls' => [-$one['weight']->calls, ''],
                'geometry' => [-$one['weight']->geometry, ''],
                'textures' => [-$one['weight']->textures, ''],
                'pictures' => [-$one['pictures'], ''],
                default => [-$one['weight']->triangles, ''],
            },
            $views,
        );
        uksort($views, static fn (int $a, int $b): int => [...$by[$a], $a] <=> [...$by[$b], $b]);

        return array_values($views);
    }

    /** @return list<array{at: string, what: string, triangles: int}> the total at Full after each file that came or went */
    public function history(): array
    {
        $total = 0;
        $history = [];
        foreach ($this->bench->project->sources()->orderBy('created_at')->orderBy('id')->get() as $source) {
            $triangles = (int) DB::table('objects')
                ->where('project_id', $this->bench->project->id)
                ->where('source_id', $source->id)
                ->sum('triangles');
            $total += $source->gone ? 0 : $triangles;
            $history[] = [
                'at' => $source->created_at->format('j M Y, H:i'),
                'what' => $source->gone ? "$source->name, taken back" : $source->name,
                'triangles' => $total,
            ];
        }

        return $history;
    }
}
