<?php

declare(strict_types=1);

namespace App\Workbench;

use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Kind;

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
        $scene = $bench->scene();
        $rows = $scene->rowsOf($bench->pick()->numbers());
        if ($rows === []) {
            return null;
        }
        $kinds = [];
        $column = $scene->column('kind');
        foreach ($rows as $row) {
            $kinds[ord($column[$row])] = ($kinds[ord($column[$row])] ?? 0) + 1;
        }
        $triangles = $held = 0;
        foreach ($scene->subtrees($rows) as [$first, $last]) {
            $triangles += $scene->triangles($first, $last);
            $held += $last - $first + 1;
        }
        $layers = [];
        $hidden = 0;
        foreach ($bench->picked()->beside($scene->layers()) as [$first, $last, $picked, $layer]) {
            if ($picked === 1) {
                $layers[$layer] = true;
            }
        }
        foreach ($bench->picked()->beside($bench->inEffect()->rungs()) as [$first, $last, $picked, $rung]) {
            $hidden += $picked === 1 && $rung === 0 ? $last - $first + 1 : 0;
        }
        arsort($kinds);
        $title = implode(', ', array_map(static fn (int $kind, int $count): string => Kind::from($kind)->counted($count), array_keys($kinds), $kinds)).' picked';
        if (count($rows) === 1) {
            $name = DB::table('objects')->where('project_id', $bench->project->id)->where('no', $scene->number($rows[0]))->value('name');
            $title = is_string($name) && $name !== '' ? $name : 'Unnamed '.$scene->kind($rows[0])->label();
        }

        return new self(
            count($rows),
            $title,
            count($layers) === 1 ? $bench->layers()->path((int) array_key_first($layers)) : count($layers).' layers',
            $held - count($rows),
            $triangles,
            $hidden,
            array_map($scene->number(...), array_slice($rows, 0, 1)),
        );
    }
}
