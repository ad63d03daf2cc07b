<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Bench\SortingOf;
use App\Models\View;
use Illuminate\Support\Facades\Storage;
use VineShelf\Bcf\Component;
use VineShelf\Bcf\Topic;
use VineShelf\Bcf\Version;
use VineShelf\Bcf\Viewpoint;
use VineShelf\Geometry\Box;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Views\Facet;
use VineShelf\Views\Upright;

/**
 * Views as BCF says them: a topic a view. What the format has no words for is remarked on.
 *
 * @phpstan-import-type Camera from Viewpoint
 */
final class BcfOf
{
    /** Labels that say which facets a view keeps, and what it tints by, so that they can be read back. */
    public const KEEPS = 'Keeps: ';

    public const TINT = 'Tinted by: ';

    /** @var list<string> what the format could not say */
    public array $remarks = [];

    /** @var array<int, Component> by scene row */
    private array $components = [];

    private readonly Bits $drawn;

    public function __construct(private readonly Bench $bench, private readonly Version $version)
    {
        $this->drawn = $bench
            ->facts()
            ->ranked('instances')
            ->between(1, INF);
        foreach (SortingOf::objects($bench) as $index => [$source, $key]) {
            $this->components[$index + 1] = Component::of($key, $source);
        }
    }

    /**
     * @param iterable<View> $views
     *
     * @return \Generator<Topic>
     */
    public function topics(iterable $views): \Generator
    {
        $index = 0;
        foreach ($views as $view) {
            yield $this->topic($view, $index++);
        }
    }

    /** A GUID that stays the same for the same thing. */
    public static function guid(string $of): string
    {
        $hash = hash('xxh128', $of);

        return implode('-', [
            substr($hash, 0, 8),
            substr($hash, 8, 4),
            '5'.substr($hash, 13, 3),
            'a'.substr($hash, 17, 3),
            substr($hash, 20),
        ]);
    }

    private function topic(View $view, int $index): Topic
    {
        $labels = [self::KEEPS.implode(', ', array_column($view->facets(), 'value'))];
        if (($view->tint['by'] ?? '') !== '') {
            $labels[] = self::TINT.$view->tint['by'];
        }

        return new Topic(
            self::guid("{$this->bench->project->key} topic $view->no"),
            $view->name,
            $view->note,
            $this->bench->person->email,
            $view->kept_at->toIso8601String(),
            $labels,
            [$this->viewpoint($view)],
            $index,
        );
    }

    private function viewpoint(View $view): Viewpoint
    {
        [$shows, $excepted] = $this->visibility($view);
        $isolation = $view->isolation();
        if ($view->keeps(Facet::Output)) {
            $this->remarks[] = "$view->name: BCF has no words for what pictures show otherwise.";
        }

        return new Viewpoint(
            self::guid("{$this->bench->project->key} view $view->no"),
            $this->camera($view),
            $shows,
            $this->named($excepted),
            $isolation?->isOn() === true ? $this->named($isolation->objects()->rows($this->bench->scene())) : [],
            $this->colours($view),
            $this->cuts($view),
            $this->snapshot($view),
        );
    }

    /** @return array{bool, Bits} whether what is not excepted is visible, and rows that are: as few as possible */
    private function visibility(View $view): array
    {
        $none = Bits::none($this->bench->scene()->count());
        if (! $view->keepsRungs() && ! $view->keeps(Facet::Isolation)) {
            return [true, $none];
        }
        $rungs = $this->bench->outputs()->shownIn($view)->rungs();
        $hidden = $rungs->being(Rung::Hidden->value)->and($this->drawn);
        $lower = $rungs->atLeast(Rung::Box->value)->without($rungs->being(Rung::Full->value))->and($this->drawn)->count();
        if ($lower > 0) {
            $this->remarks[] =
                "$view->name: ".
                number_format($lower).
                ' '.
                ($lower === 1 ? 'object is' : 'objects are').
                ' shown, though as less than Full; BCF says only shown or hidden.';
        }
        $visible = $this->drawn->without($hidden);

        return $hidden->count() <= $visible->count() ? [true, $hidden] : [false, $visible];
    }

    /** @return Camera|null metres, as the files count */
    private function camera(View $view): ?array
    {
        $origin = $this->bench->facts()->origin();
        $camera = $view->camera;
        if ($camera === null) {
            if ($this->version === Version::V21) {
                return null;
            }
            $this->remarks[] = "$view->name keeps no camera; BCF 3.0 wants one, and got one of the whole model.";
            $camera = self::ofWhole($this->bench);
        }
        $way = array_map(static fn (float|int $to, float|int $from): float => (float) $to - $from, $camera['target'], $camera['eye']);
        $length = hypot($way[0], hypot($way[1], $way[2])) ?: 1.0;
        $way = [$way[0] / $length, $way[1] / $length, $way[2] / $length];
        $up = $camera['up'] ?? null;
        $up = $up === null || count($up) !== 3 || Upright::is($way, [$up[0], $up[1], $up[2]]) ? Upright::of($way) : $up;
        $fov = (float) $camera['fov'];
        if (! isset($camera['tall']) && $this->version->field($fov) !== $fov) {
            $this->remarks[] = sprintf('%s: a field of view of %.1f° became %.1f°.', $view->name, $fov, $this->version->field($fov));
        }

        return [
            'eye' => [$camera['eye'][0] + $origin[0], $camera['eye'][1] + $origin[1], $camera['eye'][2] + $origin[2]],
            'way' => $way,
            'up' => [(float) $up[0], (float) $up[1], (float) $up[2]],
            'aspect' => (float) ($camera['aspect'] ?? 1.5),
        ] + (isset($camera['tall']) ? ['tall' => (float) $camera['tall']] : ['fov' => $fov]);
    }

    /** @return list<array{string, list<Component>}> */
    private function colours(View $view): array
    {
        if ($view->tint === null || ($view->tint['by'] ?? 'own') === 'own') {
            return [];
        }
        $legend = Tinted::as($this->bench, $view->tint)->legend();
        $colours = [];
        foreach ($legend->entries as $at => $entry) {
            $colours[] = [strtoupper(ltrim($entry->colour, '#')), $this->named($legend->rowsOf($at))];
        }

        return $colours;
    }

    /** @return list<array{array{float, float, float}, array{float, float, float}}> */
    private function cuts(View $view): array
    {
        $section = $view->cut();
        $cuts = [];
        foreach ($section?->cuts() === true ? $section->planes() : [] as $plane) {
            [$x, $y, $z] = $plane->normal;
            $cuts[] = [[$x * $plane->distance, $y * $plane->distance, $z * $plane->distance], $plane->normal];
        }

        return $cuts;
    }

    /** The picture of the view as a PNG, which is what BCF takes. */
    private function snapshot(View $view): string
    {
        $bytes = $view->picture === '' ? null : Storage::disk('local')->get($view->picture);
        if ($bytes === null || str_starts_with($bytes, "\x89PNG")) {
            return $bytes ?? '';
        }
        $image = @imagecreatefromstring($bytes);
        if ($image === false) {
            return '';
        }
        ob_start();
        imagepng($image);

        return (string) ob_get_clean();
    }

    /** @return list<Component> */
    private function named(Bits $rows): array
    {
        return array_map(fn (int $row): Component => $this->components[$row], $rows->rows());
    }

    /** @return array{eye: list<float>, target: list<float>, fov: float} the whole model, from above, as the canvas counts */
    public static function ofWhole(Bench $bench): array
    {
        $box = new Box;
        foreach ($bench->scene()->children(0) as $root) {
            $place = $bench->facts()->placeFromOrigin($root);
            $box = $place === null ? $box : $box->with(new Box(...$place));
        }
        $middle = $box->middle();
        [$x, $y, $z] = $box->isEmpty() ? [0.5, 0.5, 0.5] : $box->halves();
        $far = 2.8 * max(1.0, hypot($x, hypot($y, $z)));

        return [
            'eye' => [$middle[0] + 0.5 * $far, $middle[1] - 0.7 * $far, $middle[2] + 0.5 * $far],
            'target' => $middle,
            'fov' => 45.0,
        ];
    }
}
