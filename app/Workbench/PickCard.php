<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use Illuminate\Support\Facades\DB;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Relatives;

/** What the pick card says. */
final readonly class PickCard
{
    /** @param list<int> $numbers the first few picked objects */
    private function __construct(
        public int $count,
        public string $title,
        public string $where,
        public int $held,
        public int $triangles,
        public int $hidden,
        public array $numbers,
    ) {}

    public static function of(Bench $bench): ?self
    {
        $picked = $bench->pickedBits();
        $count = $picked->count();
        if ($count === 0) {
            return null;
        }
        $scene = $bench->scene();
        $kinds = [];
        foreach (Kind::cases() as $kind) {
            $kinds[$kind->value] = $picked->and($bench->facts()->ranked('kind')->in([$kind->value]))->count();
        }
        $kinds = array_filter($kinds);
        $held = Relatives::within($scene, $picked);
        $layers = $bench->pickedByLayer();
        $hidden = $picked->and($bench->inEffect()->rungs()->being(Rung::Hidden->value))->count();
        $first = $picked->slice(0, 1)[0];
        arsort($kinds);
        $title = implode(', ', array_map(static fn (int $kind, int $count): string => Kind::from($kind)->counted($count), array_keys($kinds), $kinds)).' picked';
        if ($count === 1) {
            $name = DB::table('objects')->where('project_id', $bench->project->id)->where('no', $scene->number($first))->value('name');
            $title = is_string($name) && $name !== '' ? $name : 'Unnamed '.$scene->kind($first)->label();
        }

        return new self(
            $count,
            $title,
            count($layers) === 1 ? $bench->layers()->path((int) array_key_first($layers)) : count($layers).' layers',
            $held->count() - $count,
            $scene->trianglesOf($held),
            $hidden,
            [$scene->number($first)],
        );
    }
}
