<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Organizer;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Facades\DB;
use VineShelf\Search\NameIndex;

/** Names for the command box. */
final class NamesController
{
    private const MOST = 8;

    /** Layers, tags, sets, folders, views, materials and objects whose names hold the words. */
    public function __invoke(Request $request, Bench $bench): JsonResponse
    {
        $words = mb_strtolower($request->string('q')->squish()->limit(200, '')->value());
        if ($words === '') {
            return new JsonResponse([]);
        }

        return new JsonResponse([...array_slice($this->organizers($bench, $words), 0, self::MOST), ...$this->objects($bench, $words)]);
    }

    /** @return list<array{what: string, key: string, name: string, where: string}> */
    private function organizers(Bench $bench, string $words): array
    {
        $names = [];
        foreach ($bench->layers()->walk() as [$layer]) {
            $names[] = ['what' => 'layer', 'key' => "L$layer->number", 'name' => $layer->name, 'where' => 'layer'];
        }
        foreach (['tags', 'sets'] as $lens) {
            foreach (Organizer::inside($bench, $lens, 0) as $top) {
                foreach ($top->withNested($bench) as $row) {
                    $where = $row->holdsOthers() ? "folder of $lens" : $row->kind->word();
                    $names[] = ['what' => $lens, 'key' => $row->key(), 'name' => $row->name, 'where' => $where];
                }
            }
        }
        foreach ($bench->shelf()->inOrder() as $view) {
            $names[] = ['what' => 'view', 'key' => (string) $view->no, 'name' => $view->name, 'where' => 'view'];
        }
        foreach ($bench->facts()->materials() as $number => [$name]) {
            $names[] = ['what' => 'material', 'key' => "M$number", 'name' => $name, 'where' => 'material'];
        }

        return array_values(array_filter($names, static fn (array $entry): bool => str_contains(mb_strtolower($entry['name']), $words)));
    }

    /** @return list<array{what: string, key: string, name: string, where: string}> */
    private function objects(Bench $bench, string $words): array
    {
        $scene = $bench->scene();
        $rows = NameIndex::having($scene, $words)->slice(0, self::MOST);
        $names = DB::table('objects')
            ->where('project_id', $bench->project->id)
            ->whereIn('no', array_map($scene->number(...), $rows))
            ->pluck('name', 'no');

        return array_map(static function (int $row) use ($bench, $scene, $names): array {
            $name = $names[$scene->number($row)] ?? '';
            $layer = $bench->layers()->get($scene->layers()->at($row))->name;

            return [
                'what' => 'object',
                'key' => 'O'.$scene->number($row),
                'name' => is_string($name) ? $name : '',
                'where' => $scene->kind($row)->label()." in $layer",
            ];
        }, $rows);
    }
}
