<?php

declare(strict_types=1);

namespace App\Tidying;

use App\Bench\Bench;
use App\Models\View;
use Illuminate\Support\Facades\DB;
use VineShelf\Rules\Remark;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Tidy\Check;
use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;

/** Looks through a project with the checks that there are, and leaves out what somebody has waved through. */
final readonly class Looking
{
    public Model $model;

    private Waivers $waivers;

    public function __construct(private Bench $bench)
    {
        $this->waivers = Waivers::of($bench->project);
        $this->model = new Model(
            $bench->facts(),
            $bench->organizers(),
            self::names($bench),
            self::hidden($bench),
            self::sets($bench),
            self::surfaces($bench),
            self::meshes($bench),
        );
    }

    /** @return list<Item> what a check finds, without what was waved through */
    public function find(Check $check): array
    {
        return $this->waivers->sift($check->id(), $check->find($this->model), $this->bench->scene());
    }

    /**
     * All rows that a check finds, or those of one thing that it found.
     *
     * @param string $item its key, "" for all
     */
    public function rows(Check $check, string $item = ''): Bits
    {
        $rows = $this->model->none();
        foreach ($this->find($check) as $found) {
            $rows = $item === '' || $found->key === $item ? $rows->or($found->rows) : $rows;
        }

        return $rows;
    }

    /** @return list<string> by scene row, as people wrote them */
    private static function names(Bench $bench): array
    {
        $scene = $bench->scene();
        $names = array_fill(0, $scene->count() + 1, '');
        foreach (
            DB::table('objects')
                ->where('project_id', $bench->project->id)
                ->where('gone', false)
                ->select(['no', 'name'])
                ->cursor() as $object
        ) {
            $names[$scene->row((int) $object->no)] = (string) $object->name;
        }
        $names[0] = '';

        return array_values($names);
    }

    private static function hidden(Bench $bench): Bits
    {
        $nothing = static fn ($levels): Bits => $levels->atLeast(Rung::Box->value)->not();
        $hidden = $nothing($bench->inEffect()->under($bench->settings(), null)->rungs())->and(
            $nothing($bench->outputs()->side()->inEffect->rungs()),
        );
        foreach ($hidden->isEmpty() ? [] : $bench->shelf()->members as $view) {
            if ($view instanceof View) {
                $hidden = $hidden->and($nothing($bench->outputs()->shownIn($view)->rungs()));
            }
        }

        return $hidden;
    }

    /** @return array<int, array{int, string}> */
    private static function sets(Bench $bench): array
    {
        $sets = [];
        foreach ($bench->sets()->all() as $set) {
            if ($set->isLive()) {
                $found = $bench->set($set);
                $vain = implode(' ', array_map(static fn (Remark $remark): string => $remark->sentence, $found->remarks));
                $sets[$set->number] = [$found->rows->count(), $vain];
            }
        }

        return $sets;
    }

    /** @return array<int, string> */
    private static function surfaces(Bench $bench): array
    {
        $surfaces = [];
        foreach ($bench->project->materials()->get() as $material) {
            $surfaces[$material->no] = (string) json_encode($material->surface);
        }

        return $surfaces;
    }

    /** @return array<int, array{string, int}> */
    private static function meshes(Bench $bench): array
    {
        $meshes = [];
        foreach (
            DB::table('meshes')
                ->where('project_id', $bench->project->id)
                ->where('bytes', '>', 0)
                ->get(['no', 'hash', 'bytes', 'material_no', 'materials']) as $mesh
        ) {
            // The same places in other materials are another mesh.
            $alike = $mesh->hash.'.'.hash('crc32b', "$mesh->material_no $mesh->materials");
            $meshes[(int) $mesh->no] = [$alike, (int) $mesh->bytes];
        }

        return $meshes;
    }
}
