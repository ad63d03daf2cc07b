<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\RandomForest;
use VineShelf\Layers\Contents;
use VineShelf\Locks\Locked;
use VineShelf\Scene\Runs;
use VineShelf\Search\NameIndex;

final class RunsTest extends TestCase
{
    public function test_does_what_a_plain_list_does(): void
    {
        mt_srand(3);
        for ($round = 0; $round < 400; $round++) {
            $list = [];
            for ($row = mt_rand(0, 40); $row > 0; $row--) {
                $list[] = $list !== [] && mt_rand(0, 2) > 0 ? $list[array_key_last($list)] : mt_rand(0, 3);
            }
            $runs = Runs::fromValues($list);
            self::assertSame($list, self::values($runs));
            self::assertSame($list, self::values(Runs::unpack($runs->pack())));
            $counts = array_count_values($list);
            $histogram = $runs->histogram();
            ksort($counts);
            ksort($histogram);
            self::assertSame($counts, $histogram);
            self::assertSame(implode('', array_map(chr(...), $list)), $runs->bytes());

            $rows = array_values(array_filter(array_keys($list), static fn (): bool => mt_rand(0, 2) === 0));
            $value = mt_rand(0, 3);
            $changed = $list;
            foreach ($rows as $row) {
                $changed[$row] = $value;
            }
            $with = $runs->with(array_map(static fn (int $row): int => $row + 1, $rows), $value);
            self::assertSame($changed, self::values($with));
            self::assertSame(Runs::fromValues($changed)->pack(), $with->pack(), 'equal neighbours melt together');
            $covered = array_fill(0, count($list), false);
            foreach ($with->ranges($value) as [$first, $last]) {
                for ($row = $first; $row <= $last; $row++) {
                    $covered[$row - 1] = true;
                }
            }
            self::assertSame(array_map(static fn (int $held): bool => $held === $value, $changed), $covered);
        }
    }

    public function test_locked_rows_are_split_off(): void
    {
        $locks = Runs::fromValues([0, 2, 2, 0, 1, 2, 0]);
        self::assertSame([[[1, 1], [4, 4], [5, 5], [7, 7]], 3], Locked::split([[1, 7]], $locks));
        self::assertSame([[[4, 4]], 1], Locked::split([[3, 4]], $locks));
    }

    public function test_layers_know_what_they_hold(): void
    {
        mt_srand(8);
        for ($round = 0; $round < 150; $round++) {
            $forest = RandomForest::grow(mt_rand(1, 50));
            $scene = $forest->scene();
            $contents = new Contents($scene, $forest->layers);
            foreach ($forest->layers->walk() as [$layer]) {
                $mine = array_keys($forest->layerOf, $layer->number, true);
                self::assertSame(count($mine), $contents->objects($layer->number));
                $nested = array_filter($forest->layerOf, static fn (int $held): bool => in_array($held, $forest->layers->withNested($layer->number), true));
                self::assertSame(count($nested), $contents->objectsWithNested($layer->number));
                self::assertSame(array_sum(array_intersect_key($forest->triangles, $nested)), $contents->trianglesWithNested($layer->number));
                $rows = $scene->rowsOf($mine);
                foreach ($rows as $offset => $row) {
                    self::assertSame($row, $contents->rowAt($layer->number, $offset));
                }
                self::assertSame(0, $contents->rowAt($layer->number, count($rows)));
                $kinds = array_count_values(array_map(static fn (int $number): int => $forest->locks[$number] ?? 0, $mine));
                $spread = $contents->spread($layer->number, $scene->locks());
                ksort($kinds);
                ksort($spread);
                self::assertSame($kinds, $spread);
            }
        }
    }

    public function test_names_are_found_by_any_part_whatever_their_case(): void
    {
        mt_srand(4);
        $parts = ['Seat', 'seat', 'Pumpe', 'Élan', 'elan', 'Rail', "a\nb", '<img src=x>', '007', ''];
        for ($round = 0; $round < 120; $round++) {
            $forest = RandomForest::grow(mt_rand(1, 40));
            $scene = $forest->scene();
            $names = [''];
            for ($row = 1; $row <= $scene->count(); $row++) {
                $names[] = $parts[mt_rand(0, 9)].' '.$parts[mt_rand(0, 9)].$parts[mt_rand(0, 9)];
            }
            $indexed = new \VineShelf\Scene\Scene(new \VineShelf\Scene\ColumnsInMemory(NameIndex::columns($names) + self::columns($scene)));
            foreach (['seat', 'SEAT rail', 'élan', 'e', 'img', '7 seat', 'zzz', '  '] as $words) {
                $slow = [];
                foreach ($names as $row => $name) {
                    $wanted = array_filter(explode(' ', mb_strtolower($words)), static fn (string $word): bool => $word !== '');
                    $all = $wanted !== [];
                    foreach ($wanted as $word) {
                        $all = $all && str_contains(mb_strtolower($name), $word);
                    }
                    if ($row > 0 && $all) {
                        $slow[] = $row;
                    }
                }
                self::assertSame($slow, NameIndex::find($indexed, $words), $words);
            }
            $row = mt_rand(1, $scene->count());
            $names[$row] = 'Renamed ÖÄ';
            self::assertSame(NameIndex::columns($names), NameIndex::renamed($indexed, $row, 'Renamed ÖÄ'));
        }
    }

    /** @return list<int> */
    private static function values(Runs $runs): array
    {
        $values = [];
        for ($row = 1; $row <= $runs->length; $row++) {
            $values[] = $runs->at($row);
        }

        return $values;
    }

    /** @return array<string, string> */
    private static function columns(\VineShelf\Scene\Scene $scene): array
    {
        $columns = [];
        foreach (['no', 'parent', 'end', 'kind', 'triangles', 'layer', 'lock', 'rows'] as $name) {
            $columns[$name] = $scene->column($name);
        }

        return $columns;
    }
}
