<?php

declare(strict_types=1);

namespace App\Weighing;

use App\Bench\Bench;
use App\Models\View;
use VineShelf\Facts\Facts;
use VineShelf\Facts\Measure;
use VineShelf\Scene\Bits;

/**
 * The pictures of materials beside what can be seen of them: in so many pixels, one more or less, the largest thing that each is on stands
 * in the kept view that comes nearest to it; without views, from where it fills the canvas.
 */
final readonly class Pictures
{
    /** Pixels that a canvas is tall. */
    private const TALL = 800;

    /** Objects with a picture that are looked at, the largest first, and views. */
    private const OBJECTS = 200;

    private const VIEWS = 20;

    private Facts $facts;

    public function __construct(private Bench $bench)
    {
        $this->facts = $bench->facts();
    }

    /**
     * @return list<array{number: int, name: string, width: int, height: int, bytes: int, shown: int, enough: int, saves: int}> pixels that
     *     it is seen in, and its longest side that would be enough: a power of two, or as it is; the heaviest first
     */
    public function all(): array
    {
        $cameras = $this->cameras();
        $pictures = [];
        foreach ($this->facts->surfacesByPicture() as $number => $codes) {
            $about = $this->facts->pictures()[$number] ?? null;
            if ($about === null || $about['bytes'] === 0) {
                continue;
            }
            $shown = $this->shown($this->facts->ranked('surfaces')->in($codes), $cameras);
            $longest = max($about['width'], $about['height']);
            // Twice as many as are seen, so that it is sharp also where it is seen at a slant.
            $enough = min($longest, 2 ** (int) ceil(log(max(1, 2 * $shown), 2)));
            $pictures[] = [
                'number' => $number,
                'name' => $this->name($number),
                ...$about,
                'shown' => $shown,
                'enough' => $enough,
                'saves' => $about['bytes'] - (int) round($about['bytes'] * ($enough / $longest) ** 2),
            ];
        }
        usort($pictures, static fn (array $a, array $b): int => [$b['saves'], $b['bytes']] <=> [$a['saves'], $a['bytes']]);

        return $pictures;
    }

    /**
     * @param list<array{list<float>, float, bool}> $cameras
     *
     * @return int pixels
     */
    private function shown(Bits $rows, array $cameras): int
    {
        $most = 0.0;
        foreach ($this->facts->order('size', true)->sliceOf($rows, 0, self::OBJECTS) as $row) {
            $box = $this->facts->box($row);
            $size = (float) $this->facts->measure(Measure::Size, $row);
            if ($box === null) {
                continue;
            }
            foreach ($cameras as [$eye, $perMetre, $isParallel]) {
                $away = 0.0;
                foreach ([0, 1, 2] as $axis) {
                    $away += max($box[$axis] - $eye[$axis], 0.0, $eye[$axis] - $box[$axis + 3]) ** 2;
                }
                $most = max($most, ($size * $perMetre) / ($isParallel ? 1.0 : max(0.1, sqrt($away))));
            }
        }

        return $cameras === [] ? self::TALL : (int) round($most);
    }

    /** @return list<array{list<float>, float, bool}> eye, pixels that a metre a metre away is seen in, and whether so at any distance */
    private function cameras(): array
    {
        $cameras = [];
        // Views count from the origin of the scene.
        $origin = $this->facts->origin();
        foreach ($this->bench->project->views()->limit(self::VIEWS)->get() as $view) {
            \assert($view instanceof View);
            ['eye' => $eye, 'fov' => $fov] = $view->camera ?? ['eye' => null, 'fov' => 45.0];
            if ($eye !== null) {
                $tall = $view->camera['tall'] ?? null;
                $cameras[] = [
                    array_map(static fn (int $axis): float => $eye[$axis] + $origin[$axis], [0, 1, 2]),
                    self::TALL / ($tall ?? 2 * tan(deg2rad(max(1.0, $fov)) / 2)),
                    $tall !== null,
                ];
            }
        }

        return $cameras;
    }

    private function name(int $picture): string
    {
        $names = [];
        foreach ($this->facts->materials() as $material) {
            if (in_array($picture, $material[4] ?? [], true)) {
                $names[] = $material[0];
            }
        }

        return implode(', ', array_slice($names, 0, 3));
    }
}
