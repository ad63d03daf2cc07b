<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\MembersEdit;
use App\Models\Casts\Bytes;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Copies;
use VineShelf\Naming\Numbered;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;
use VineShelf\Scene\Scene;

/**
 * Objects are copied, once or many times, each copy one step further than the one before. Copies draw the same meshes, and have the layer,
 * the tags, the properties, the own locks and, on every desk, the own rungs of what they are copies of.
 *
 * @phpstan-type Original array{number: int, parent: int, layer: int, mesh: int, triangles: int, vertices: int, kind: int, lock: int,
 *     name: string, class: string, transform: string, instances: string|null, properties: string|null}
 */
final class CopyObjects extends Command
{
    /** Objects that one change makes at most. */
    public const MOST = 100_000;

    /** @var list<int> numbers of what was copied to, without what stands in it */
    public readonly array $copies;

    private readonly Edits $edits;

    private readonly string $title;

    /** Number of the first copy. */
    private readonly int $first;

    private readonly Scene $scene;

    /** @var list<Original> what is copied, in the order of the scene */
    private array $originals;

    /** @param Bits $rows scene rows; what stands in them is copied along @throws Refused */
    public function __construct(private readonly Bench $bench, Bits $rows, private readonly Copies $steps)
    {
        $scene = $this->scene = $bench->scene();
        $roots = Nesting::outermost($scene, $rows);
        $all = Relatives::within($scene, $roots);
        if ($roots->isEmpty()) {
            throw new Refused('Pick objects first.', 'keys');
        }
        if ($all->count() * $steps->count > self::MOST) {
            throw new Refused(
                'One change makes at most '.
                    number_format(self::MOST).
                    ' objects; this would be '.
                    number_format($all->count() * $steps->count).
                    '.',
                'count',
            );
        }
        foreach (array_unique(array_map($scene->parent(...), $roots->rows())) as $parent) {
            Nesting::checkOpen($bench, $parent);
        }
        $this->originals = self::originals($bench, $all);
        $new = new NewObjects($bench->project);
        $first = $bench->project->next_object;
        $this->copies = $this->make($new, $roots, $first);
        DB::table('copyings')->insert([
            'project_id' => $bench->project->id,
            'first_no' => $first,
            'last_no' => $bench->project->next_object - 1,
            'originals' => Bytes::write(pack('V*', ...array_column($this->originals, 'number'))),
        ]);
        $this->edits = new Edits([$new->step(), ...$this->memberships($first)]);
        $this->first = $first;
        $this->title =
            'Copy '.
            number_format($roots->count()).
            ' '.
            ($roots->count() === 1 ? 'object' : 'objects').
            ($steps->count === 1 ? '' : ' '.number_format($steps->count).' times');
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /** @return list<Original> */
    private static function originals(Bench $bench, Bits $rows): array
    {
        $scene = $bench->scene();
        $numbers = $scene->numbersIn($rows->ranges());
        $found = DB::select(
            "SELECT no, parent_no, layer_no, mesh_no, triangles, vertices, kind, lock, name, class, encode(transform, 'hex') AS transform,
                 encode(instances, 'hex') AS instances, properties::text AS properties
             FROM objects WHERE project_id = ? AND no = ANY(?::int[])",
            [$bench->project->id, '{'.implode(',', $numbers).'}'],
        );
        $by = [];
        foreach ($found as $row) {
            $by[(int) $row->no] = [
                'number' => (int) $row->no,
                'parent' => (int) $row->parent_no,
                'layer' => (int) $row->layer_no,
                'mesh' => (int) $row->mesh_no,
                'triangles' => (int) $row->triangles,
                'vertices' => (int) $row->vertices,
                'kind' => (int) $row->kind,
                'lock' => (int) $row->lock,
                'name' => (string) $row->name,
                'class' => (string) $row->class,
                'transform' => (string) hex2bin((string) $row->transform),
                'instances' => $row->instances === null ? null : (string) hex2bin((string) $row->instances),
                'properties' => $row->properties === null ? null : (string) $row->properties,
            ];
        }

        return array_map(static fn (int $number): array => $by[$number], $numbers);
    }

    /** @return list<int> */
    private function make(NewObjects $new, Bits $roots, int $first): array
    {
        $isRoot = array_fill_keys($this->scene->numbersIn($roots->ranges()), true);
        $places = $names = [];
        $middle = $this->middle($roots);
        $index = array_flip(array_column($this->originals, 'number'));
        $count = count($this->originals);
        $copies = [];
        for ($copy = 1; $copy <= $this->steps->count; $copy++) {
            $step = $this->steps->step($copy, $middle);
            $base = $first + ($copy - 1) * $count;
            foreach ($this->originals as $at => $original) {
                $parent = $original['parent'];
                $name = $original['name'];
                if (isset($isRoot[$original['number']])) {
                    $names[$parent] ??= new Numbered($this->namesIn($parent));
                    $name = $names[$parent]->next($name);
                    $place = $places[$parent] = ($places[$parent] ?? Siblings::last($this->bench->project, $parent)) + 1;
                    $copies[] = $base + $at;
                } else {
                    $parent = $base + $index[$parent];
                    $place = $base + $at;
                }
                $new->add(
                    $parent,
                    $place,
                    $original['layer'],
                    $original['mesh'],
                    $original['triangles'],
                    $original['vertices'],
                    $original['kind'],
                    $original['lock'],
                    $name,
                    $original['class'],
                    self::moved($step, $original),
                    self::placed($step, $original['instances']),
                    $original['properties'],
                );
            }
        }

        return $copies;
    }

    /**
     * @param array{float, float, float, float, float, float, float, float, float, float, float, float} $step
     * @param Original                                                                                 $original
     */
    private static function moved(array $step, array $original): string
    {
        // Groups are nowhere of their own.
        if ($original['kind'] === 0 && $original['mesh'] === 0) {
            return $original['transform'];
        }

        return Affine::shortened(Affine::pack(Affine::product($step, Affine::unpack(Affine::lengthened($original['transform'])))));
    }

    /** @param array{float, float, float, float, float, float, float, float, float, float, float, float} $step */
    private static function placed(array $step, ?string $instances): ?string
    {
        if ($instances === null) {
            return null;
        }
        $placed = '';
        for ($at = 0, $end = strlen($instances); $at < $end; $at += 96) {
            $placed .= Affine::pack(Affine::product($step, Affine::unpack($instances, $at)));
        }

        return $placed;
    }

    /** @return array{float, float} x and y of the middle of the box around them, metres */
    private function middle(Bits $roots): array
    {
        $box = $this->bench->facts()->boxAround($roots);

        return $box === null ? [0.0, 0.0] : [($box[0] + $box[3]) / 2, ($box[1] + $box[4]) / 2];
    }

    /** @return list<string> */
    private function namesIn(int $parent): array
    {
        $names = DB::table('objects')->where('project_id', $this->bench->project->id)->where('parent_no', $parent)->where('gone', false);

        return array_values(array_map(static fn (mixed $name): string => is_string($name) ? $name : '', $names->pluck('name')->all()));
    }

    /** @return list<Edit> copies come to the tags, and get the own properties, of what they are copies of */
    private function memberships(int $first): array
    {
        $steps = [];
        $nothing = Bits::none(0);
        foreach ($this->bench->tags()->all() as $tag) {
            $added = $this->copied($this->scene->tagged($tag->number), $first);
            $added->isEmpty() || ($steps[] = new MembersEdit('tags', $tag->number, $added, $nothing));
        }
        $own = $this->bench->organizers()->own;
        foreach ($own->everything() as $value) {
            $added = $this->copied($this->scene->valued($value->number), $first);
            $added->isEmpty() || ($steps[] = new MembersEdit('own_values', $value->number, $added, $nothing));
        }

        return $steps;
    }

    /** Numbers of the copies of those of some rows that are copied. */
    private function copied(Bits $rows, int $first): Bits
    {
        $places = [];
        foreach ($this->originals as $at => $original) {
            if ($rows->has($this->scene->row($original['number']))) {
                $places[] = $at;
            }
        }

        return $this->numbers($places, $first);
    }

    /** @param list<int> $places of originals */
    private function numbers(array $places, int $first): Bits
    {
        $numbers = [];
        for ($copy = 0, $count = count($this->originals); $places !== [] && $copy < $this->steps->count; $copy++) {
            foreach ($places as $at) {
                $numbers[] = $first + $copy * $count + $at;
            }
        }

        return Bits::ofRows($numbers === [] ? 0 : $numbers[count($numbers) - 1], $numbers);
    }

    /** On every desk copies have the own rungs of what they are copies of. */
    public function atLast(Project $project): void
    {
        $first = $this->first;
        DeskChange::everywhere($project->id, function (Settings $settings) use ($first): Settings {
            foreach (['objects', 'objectsAlone'] as $set) {
                foreach ($settings->{$set} as $rung => $numbers) {
                    $places = [];
                    foreach ($this->originals as $at => $original) {
                        if ($original['number'] <= $numbers->length && $numbers->has($original['number'])) {
                            $places[] = $at;
                        }
                    }
                    $copies = $this->numbers($places, $first);
                    if (! $copies->isEmpty()) {
                        $settings =
                            $set === 'objects'
                                ? $settings->withObjects($copies, Rung::from($rung))
                                : $settings->withObjectsAlone($copies, Rung::from($rung));
                    }
                }
            }

            return $settings;
        });
    }
}
