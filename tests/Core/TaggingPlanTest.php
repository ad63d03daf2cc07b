<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use VineShelf\Formats\TakenObjects;
use VineShelf\Formats\UnreadableFile;
use VineShelf\Geometry\Affine;
use VineShelf\Scene\Kind;
use VineShelf\Tags\TaggingPlan;

final class TaggingPlanTest extends TestCase
{
    public function test_values_become_tags_apart_by_their_separator_and_what_has_none_goes_by_its_group(): void
    {
        $objects = self::objects([
            [0, ['Use' => 'wet; Client ; ;wet']],
            [1, null],
            [1, ['use' => 'dry']],
            [3, ['other' => 'wet']],
            [0, null],
            [0, ['use' => ['WET', 3, true, null, ['deep']]]],
            [0, ['use' => false]],
            [0, ['use' => '']],
        ]);

        $plan = TaggingPlan::of($objects, ' use ', ';');
        self::assertSame(['use', array_fill(0, 5, ['use'])], [$plan->from, $plan->folders]);
        self::assertSame(
            ['3' => [6], 'Client' => [1, 2], 'dry' => [3, 4], 'use' => [6], 'wet' => [1, 2, 6]],
            array_combine($plan->names, $plan->rows),
        );
        // Without a separator, a value is one value.
        self::assertContains('wet; Client ; ;wet', TaggingPlan::of($objects, 'USE', '')->names);
        self::assertSame([], TaggingPlan::of($objects, 'nothing of the kind', ';')->names);
        self::assertSame('', TaggingPlan::of($objects, '  ', ';')->from);
    }

    public function test_random_files_are_tagged_as_a_slow_walk_says(): void
    {
        mt_srand(5);
        for ($round = 0; $round < 60; $round++) {
            $rows = [];
            for ($row = 1; $row <= 40; $row++) {
                $values = [null, ['ÄMTER' => 'a|b'], ['ämter' => 'B'], ['Ämter' => '\\u0041 | c'], ['x' => 'ämter'], ['ämter' => 7]];
                $rows[] = [mt_rand(0, $row - 1), $values[mt_rand(0, 5)]];
            }
            $expected = [];
            foreach ($rows as $index => $unused) {
                // Up the groups until one has a value.
                for ($at = $index + 1, $found = null; $at > 0 && $found === null; $at = $rows[$at - 1][0]) {
                    foreach ($rows[$at - 1][1] ?? [] as $name => $value) {
                        $found = mb_strtolower($name) === 'ämter' ? (string) $value : $found;
                    }
                }
                foreach (
                    array_unique(array_map(static fn (string $t): string => mb_strtolower(trim($t)), explode('|', $found ?? ''))) as $tag
                ) {
                    if ($tag !== '') {
                        $expected[$tag][] = $index + 1;
                    }
                }
            }
            $plan = TaggingPlan::of(self::objects($rows), 'ämter', '|');
            $found = array_combine(array_map(mb_strtolower(...), $plan->names), $plan->rows);
            ksort($expected);
            ksort($found);
            self::assertSame($expected, $found);
        }
    }

    public function test_too_many_values_are_refused_with_the_limit(): void
    {
        $this->expectException(UnreadableFile::class);
        $this->expectExceptionMessage('at most 500 fit');
        TaggingPlan::of(self::objects(array_map(static fn (int $number): array => [0, ['id' => $number]], range(1, 501))), 'id', '');
    }

    /** @param list<array{int, array<string, mixed>|null}> $rows parent and properties */
    private static function objects(array $rows): TakenObjects
    {
        $objects = new TakenObjects;
        foreach ($rows as $index => [$parent, $properties]) {
            $row = $objects->add($parent, "Thing $index", Kind::Group, $index, -1, Affine::IDENTITY);
            if ($properties !== null) {
                $objects->properties[$row] = (string) json_encode($properties);
            }
        }

        return $objects;
    }
}
