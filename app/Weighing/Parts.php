<?php

declare(strict_types=1);

namespace App\Weighing;

use App\Bench\Bench;
use App\Bench\Group;
use App\Bench\Groups;
use App\Bench\Refused;
use Illuminate\Support\Facades\DB;
use VineShelf\Layers\Layer;
use VineShelf\Scene\Bits;
use VineShelf\Weights\MeshUse;

/**
 * What the weight of a project is made of, by one of four ways to divide it, deeper and deeper. A part is named by its key: "L5" a layer
 * with what is nested in it, "O7" an object with what it holds, "M3" a material, "G9" a mesh, "H…" all meshes that are the same byte by
 * byte, "P3" what a picture is on, and with a plus behind it what of a part is not shown as parts of its own.
 */
final readonly class Parts
{
    public const BY = ['layers' => 'Layers', 'nesting' => 'Nesting', 'materials' => 'Material', 'meshes' => 'Mesh'];

    /** Parts that are shown at once; the lightest beyond that are one. */
    private const MOST = 60;

    public function __construct(private Bench $bench) {}

    /** @return list<Cell> @throws Refused when the part is not there any more */
    public function inside(string $by, string $key): array
    {
        return match (true) {
            $key !== '' && $key[0] === 'L' => $this->inLayer((int) substr($key, 1)),
            $key !== '' && $key[0] === 'O' => $this->below($this->row($key)),
            $key !== '' => $this->objects($this->rows($key), "$by:$key"),
            $by === 'nesting' => $this->below(0),
            $by === 'materials' => $this->materials(),
            $by === 'meshes' => $this->meshes(),
            default => $this->layers($this->bench->layers()->inside(0)),
        };
    }

    /**
     * The parts above one, from the whole down to itself.
     *
     * @return list<array{string, string}> key and name
     */
    public function trail(string $key): array
    {
        $bench = $this->bench;
        $trail = match ($key[0] ?? '') {
            '' => [],
            'L' => array_map(
                static fn (Layer $layer): array => ["L$layer->number", $layer->name],
                array_reverse($bench->layers()->chain($this->layer($key))),
            ),
            'O' => array_map(
                fn (int $row): array => ['O'.$bench->scene()->number($row), $this->named([$row])[$row]],
                array_reverse([$this->row($key), ...$bench->scene()->ancestors($this->row($key))]),
            ),
            default => [[$key, $this->nameOf($key)]],
        };

        return array_values($trail);
    }

    /** @return Bits the rows of a part @throws Refused */
    public function rows(string $key): Bits
    {
        $scene = $this->bench->scene();
        if (str_ends_with($key, '+')) {
            return $this->rest(substr($key, 0, -1));
        }
        $number = (int) substr($key, 1);

        return match ($key[0] ?? '') {
            'L' => $this->ofLayers($this->bench->layers()->withNested($this->layer($key))),
            'O' => Bits::ofRanges($scene->count(), [[$this->row($key), $scene->end($this->row($key))]]),
            'M' => $this->material($key)->rows(),
            'G' => $this->bench
                ->facts()
                ->ranked('mesh')
                ->in([$number]),
            'P' => $this->bench
                ->facts()
                ->ranked('surfaces')
                ->in($this->bench->facts()->surfacesByPicture()[$number] ?? []),
            'H' => $this->bench->facts()->ranked('mesh')->in($this->alike(substr($key, 1))),
            default => throw new Refused('There is no such part.', 'key'),
        };
    }

    /** What of a part, or of the whole, is not among the parts that are shown of it. */
    private function rest(string $of): Bits
    {
        [$by, $key] = array_pad(explode(':', $of, 2), 2, '');
        if ($by === 'nesting') {
            return $this->lightest($key === '' ? 0 : $this->row($key));
        }
        $all = $key === '' ? Bits::all($this->bench->scene()->count()) : $this->rows($key);
        foreach (isset(self::BY[$by]) ? $this->inside($by, $key) : throw new Refused('There is no such part.', 'key') as $cell) {
            if (! str_ends_with($cell->key, '+')) {
                $all = $all->without($this->rows($cell->key));
            }
        }

        return $all;
    }

    /**
     * @param list<int> $numbers
     *
     * @return list<Cell>
     */
    private function layers(array $numbers): array
    {
        return array_map(function (int $number): Cell {
            $layer = $this->bench->layers()->get($number);
            $rows = $this->ofLayers($this->bench->layers()->withNested($number));

            return $this->cell("L$number", $layer->name, $layer->colour, $rows, ! $rows->isEmpty());
        }, $numbers);
    }

    /** @return list<Cell> */
    private function inLayer(int $number): array
    {
        $this->layer("L$number");
        $own = $this->bench->contents()->rows($number);

        return [...$this->layers($this->bench->layers()->inside($number)), ...$this->objects($own, "layers:L$number")];
    }

    /** @return list<Cell> what stands directly below an object, or at the top for row 0 */
    private function below(int $row): array
    {
        $children = $this->children($row);
        $cells = $this->ofRows(array_slice($children, 0, self::MOST));
        if (count($children) > self::MOST) {
            $key = $row === 0 ? 'nesting:' : 'nesting:O'.$this->bench->scene()->number($row);
            $cells[] = $this->others($key, $this->lightest($row));
        }

        return $cells;
    }

    /** @return list<int> the heaviest first; where there is but one that holds others, those */
    private function children(int $row): array
    {
        $scene = $this->bench->scene();
        $children = $scene->children($row);
        while (count($children) === 1 && $scene->end($children[0]) > $children[0]) {
            $children = $scene->children($children[0]);
        }
        usort($children, fn (int $a, int $b): int => $scene->triangles($b, $scene->end($b)) <=> $scene->triangles($a, $scene->end($a)));

        return $children;
    }

    /** The children that are not shown one by one, with what they hold. */
    private function lightest(int $row): Bits
    {
        $scene = $this->bench->scene();
        $children = array_slice($this->children($row), self::MOST);
        sort($children);

        return Bits::ofRanges($scene->count(), array_map(static fn (int $child): array => [$child, $scene->end($child)], $children));
    }

    /** @return list<Cell> */
    private function materials(): array
    {
        return array_map(
            fn (Group $group): Cell => $this->cell($group->key, $group->name, $group->colour, $group->rows(), true),
            (new Groups($this->bench))->materials(),
        );
    }

    /** @return list<Cell> */
    private function meshes(): array
    {
        $bench = $this->bench;
        $about = DB::table('meshes')
            ->where('project_id', $bench->project->id)
            ->get(['no', 'name', 'triangles'])
            ->keyBy('no');
        $weights = [];
        foreach (MeshUse::of($bench->scene()) as $mesh => $times) {
            $weights[$mesh] = $times * (int) ($about[$mesh]->triangles ?? 0);
        }
        arsort($weights);
        $cells = [];
        $rest = Bits::all($bench->scene()->count());
        foreach (array_slice(array_keys($weights), 0, self::MOST) as $mesh) {
            $rows = $bench
                ->facts()
                ->ranked('mesh')
                ->in([$mesh]);
            $rest = $rest->without($rows);
            $name = (string) ($about[$mesh]->name ?? '');
            $cells[] = $this->cell("G$mesh", $name === '' ? "Mesh $mesh" : $name, '#7f9a8a', $rows, true);
        }
        if (count($weights) > self::MOST) {
            $cells[] = $this->others('meshes:', $rest);
        }

        return $cells;
    }

    /** @return list<Cell> the heaviest objects among some, and the others as one */
    private function objects(Bits $rows, string $of): array
    {
        $order = $this->bench->facts()->order('triangles', true);
        $shown = $order->sliceOf($rows, 0, self::MOST);
        $cells = $this->ofRows($shown, false);
        if ($rows->count() > count($shown)) {
            sort($shown);
            $cells[] = $this->others($of, $rows->without(Bits::ofRows($rows->length, $shown)));
        }

        return $cells;
    }

    /**
     * @param list<int> $rows
     * @param bool      $withHeld whether what they hold counts as well
     *
     * @return list<Cell>
     */
    private function ofRows(array $rows, bool $withHeld = true): array
    {
        $scene = $this->bench->scene();
        $names = $this->named($rows);

        return array_map(function (int $row) use ($scene, $names, $withHeld): Cell {
            $end = $withHeld ? $scene->end($row) : $row;
            $colour = $this->bench->layers()->get($scene->layers()->at($row))->colour;
            $bits = Bits::ofRanges($scene->count(), [[$row, $end]]);

            return $this->cell('O'.$scene->number($row), $names[$row], $colour, $bits, $end > $row);
        }, $rows);
    }

    private function others(string $of, Bits $rows): Cell
    {
        return $this->cell("$of+", number_format($rows->count()).' others', '#b9b3a2', $rows, false);
    }

    private function cell(string $key, string $name, string $colour, Bits $rows, bool $isDeep): Cell
    {
        return new Cell($key, $name, $colour, $rows->count(), $this->bench->weights()->full($rows), $isDeep);
    }

    /**
     * @param list<int> $rows
     *
     * @return array<int, string> by row
     */
    public function named(array $rows): array
    {
        $scene = $this->bench->scene();
        $numbers = array_map($scene->number(...), $rows);
        $names = $this->bench->project->objects()->whereIn('no', $numbers)->pluck('name', 'no');
        $named = [];
        foreach ($rows as $at => $row) {
            $named[$row] = $names[$numbers[$at]] ?? '' ?: 'unnamed '.$scene->kind($row)->label();
        }

        return $named;
    }

    private function nameOf(string $key): string
    {
        return match ($key[0]) {
            'M' => $this->material($key)->name,
            'G' => (string) $this->bench->project->meshes()->where('no', (int) substr($key, 1))->value('name') ?: 'Mesh '.substr($key, 1),
            default => 'Others',
        };
    }

    /** @param list<int> $layers */
    private function ofLayers(array $layers): Bits
    {
        $rows = Bits::none($this->bench->scene()->count());
        foreach ($layers as $layer) {
            $rows = $rows->or($this->bench->contents()->rows($layer));
        }

        return $rows;
    }

    /** @throws Refused */
    private function layer(string $key): int
    {
        $number = (int) substr($key, 1);

        return $this->bench->layers()->has($number) ? $number : throw new Refused('That layer is no longer there.', 'key');
    }

    /** @throws Refused */
    private function row(string $key): int
    {
        return $this->bench->scene()->row((int) substr($key, 1)) ?: throw new Refused('That object is no longer there.', 'key');
    }

    /** @throws Refused */
    private function material(string $key): Group
    {
        foreach ((new Groups($this->bench))->materials() as $group) {
            if ($group->key === $key) {
                return $group;
            }
        }
        throw new Refused('That material is no longer there.', 'key');
    }

    /** @return list<int> meshes that are the same byte by byte */
    private function alike(string $hash): array
    {
        return array_map(
            intval(...),
            array_values($this->bench->project->meshes()->where('hash', $hash)->orderBy('no')->pluck('no')->all()),
        );
    }
}
