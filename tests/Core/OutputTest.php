<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\RandomForest;
use VineShelf\Folders\Folder;
use VineShelf\Folders\Holds;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Organizers\Organizers;
use VineShelf\Output\Output;
use VineShelf\Own\OwnProperties;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\Difference;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;
use VineShelf\Tags\Tag;
use VineShelf\Tags\TagTree;

final class OutputTest extends TestCase
{
    private const PLAIN = ['layer' => [], 'tag' => [], 'folder' => [], 'object' => []];

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 20) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_pictures_agree_with_walking_every_chain_on_random_forests(int $seed): void
    {
        mt_srand($seed);
        for ($round = 0; $round < 40; $round++) {
            $forest = RandomForest::grow(mt_rand(1, 40));
            $project = self::random($forest, 7);
            $own = mt_rand(0, 2) === 0 ? self::PLAIN : self::random($forest, 7);
            $desk = self::random($forest, 5);
            $alone = self::random($forest, 5);
            $onDesk = RandomForest::settings(
                $desk['layer'],
                $desk['object'],
                $desk['tag'],
                $desk['folder'],
                $alone['layer'],
                $alone['object'],
            );
            $view = ['layer' => $forest->settings->layers, 'tag' => $forest->settings->tags, 'folder' => $forest->settings->folders] + [
                'object' => $forest->own,
            ];
            $settings = self::settings($project)->over(
                $forest->settings,
                $onDesk,
                OutputSettings::unpack(self::settings($own)->pack()),
            );
            $scene = $forest->scene();
            $rungs = (new InEffect($scene, $forest->organizers, $settings))->rungs();
            $one = static fn (string $what, int $number): int => match (true) {
                ($project[$what][$number] ?? -1) === 7 => 0,
                default => match (($value = $own[$what][$number] ?? ($project[$what][$number] ?? -1))) {
                    -1 => $view[$what][$number] ?? 5,
                    6 => $desk[$what][$number] ?? 5,
                    7 => 0,
                    default => $value,
                },
            };
            foreach (array_keys($forest->parents) as $number) {
                self::assertSame(
                    self::lowest($forest, $number, $one, [$project, $own], $alone),
                    $rungs->at($scene->row($number)),
                    "object $number, seed $seed, round $round",
                );
            }
        }
    }

    public function test_those_of_a_project_are_read_from_its_organizers_and_objects(): void
    {
        $columns = SceneBuilder::columns([1 => 0, 2 => 1, 3 => 0], [1 => 1, 2 => 2, 3 => 2], [1 => 0, 2 => 1, 3 => 1], [], []);
        $plain = new Scene(new ColumnsInMemory($columns));
        $bits = static fn (int $number): string => Bits::ofRows(3, [$plain->row($number)])->bytes;
        $scene = new Scene(new ColumnsInMemory($columns + ['value.1' => $bits(2), 'value.2' => $bits(3), 'value.3' => '']));
        $organizers = new Organizers(
            new LayerTree([new Layer(1, 0, 0, 'Unsorted', '#999999'), new Layer(2, 0, 1, 'Aids', '#999999', output: Output::Never)]),
            new TagTree(
                [new Folder(4, Holds::Tags, 0, 0, 'Phases', output: Output::Ghost)],
                [new Tag(6, 4, 0, 'First', '#999999', output: Output::AsOnDesk), new Tag(7, 4, 1, 'Second', '#999999')],
            ),
            own: new OwnProperties([
                new OwnValue(1, OwnValue::OUTPUT, 'never for doors to swing'),
                new OwnValue(2, OwnValue::OUTPUT, '3'),
                new OwnValue(3, OwnValue::OUTPUT, '0'),
            ]),
        );
        $settings = OutputSettings::of($organizers, $scene);

        self::assertSame([2 => 7], $settings->layers);
        self::assertSame([6 => 6], $settings->tags);
        self::assertSame([4 => 2], $settings->folders);
        self::assertSame(
            [Output::Never, Output::Coarse, null],
            array_map(fn (int $number) => $settings->value('object', $number), [2, 3, 1]),
        );
        self::assertSame('for doors to swing', OutputSettings::note('never for doors to swing'));
        self::assertSame('', OutputSettings::note('3'));
        foreach (Output::cases() as $case) {
            self::assertSame($case, OutputSettings::read($case->word()));
        }
        self::assertTrue($settings->followsDesk());
        self::assertFalse((new OutputSettings([1 => 7], [], [4 => 5]))->followsDesk());
    }

    public function test_what_is_never_in_pictures_is_not_brought_back_by_a_view(): void
    {
        $never = new OutputSettings([2 => Output::Never->value], [], [], [7 => Bits::ofRows(4, [4])]);
        $own = new OutputSettings([2 => 5, 3 => 4], [], [], [5 => Bits::ofRows(4, [3, 4])]);
        $over = $never->over(Settings::of([2 => 4, 3 => 0], [3 => 1]), new Settings, $own);

        self::assertSame([2 => 0, 3 => 4], $over->layers);
        self::assertSame([5, 0], [$over->object(3)?->value, $over->object(4)?->value]);
    }

    public function test_where_desk_and_picture_differ_is_what_a_list_says(): void
    {
        mt_srand(5);
        for ($round = 0; $round < 60; $round++) {
            $count = mt_rand(1, 80);
            $one = static fn (): array => array_map(static fn (): int => [0, 0, 2, 5, 5, mt_rand(0, 5)][mt_rand(0, 5)], range(1, $count));
            [$desk, $output] = [$one(), $one()];
            $difference = new Difference(Levels::fromValues(5, $desk), Levels::fromValues(5, $output));
            $expected = ['picture' => [], 'desk' => [], 'other' => []];
            foreach ($desk as $at => $rung) {
                if ($rung !== $output[$at]) {
                    $expected[$rung === 0 ? 'picture' : ($output[$at] === 0 ? 'desk' : 'other')][] = $at + 1;
                }
            }
            self::assertSame($expected, array_map(static fn (Bits $rows): array => $rows->rows(), $difference->rows()));
            self::assertSame(count($expected['picture']) + count($expected['desk']) + count($expected['other']), $difference->count());
        }
    }

    public function test_settings_on_random_rows_survive_packing(): void
    {
        mt_srand(8);
        $settings = new OutputSettings;
        $plain = self::PLAIN;
        for ($step = 0; $step < 200; $step++) {
            $value = mt_rand(-1, 7);
            $rows = array_map(
                static fn (): array => array_values(array_unique(array_map(static fn (): int => mt_rand(1, 60), range(0, mt_rand(0, 9))))),
                $plain,
            );
            sort($rows['object']);
            $settings = $settings->with(
                $rows['layer'],
                $rows['tag'],
                $rows['folder'],
                Bits::ofRows($rows['object'][count($rows['object']) - 1], $rows['object']),
                $value < 0 ? null : Output::from($value),
            );
            foreach ($rows as $what => $numbers) {
                foreach ($numbers as $number) {
                    $plain[$what][$number] = $value;
                }
            }
        }
        $back = OutputSettings::unpack($settings->pack());
        foreach ($plain as $what => $values) {
            for ($number = 1; $number <= 70; $number++) {
                self::assertSame($values[$number] ?? -1, $back->value($what, $number)->value ?? -1, "$what $number");
            }
        }
        self::assertTrue(OutputSettings::unpack('')->isEmpty());
    }

    /** @return array{layer: array<int, int>, tag: array<int, int>, folder: array<int, int>, object: array<int, int>} */
    private static function random(RandomForest $forest, int $most): array
    {
        $one = static function (array $numbers) use ($most): array {
            $values = [];
            foreach ($numbers as $number) {
                if (mt_rand(0, 3) === 0) {
                    $values[$number] = mt_rand(0, $most);
                }
            }

            return $values;
        };

        return [
            'layer' => $one(array_map(static fn (array $entry): int => $entry[0]->number, $forest->layers->walk())),
            'tag' => $one(array_keys($forest->tags->tree->members)),
            'folder' => $one(array_keys($forest->tags->tree->folders)),
            'object' => $one(array_keys($forest->parents)),
        ];
    }

    /** @param array<string, array<int, int>> $plain */
    private static function settings(array $plain): OutputSettings
    {
        $objects = [];
        foreach ($plain['object'] as $number => $value) {
            $objects[$value][] = $number;
        }
        foreach ($objects as $value => $numbers) {
            sort($numbers);
            $objects[$value] = Bits::ofRows($numbers[count($numbers) - 1], $numbers);
        }

        return new OutputSettings($plain['layer'], $plain['tag'], $plain['folder'], $objects);
    }

    /**
     * @param \Closure(string, int): int               $one      what is set for one link of the chain
     * @param list<array<string, array<int, int>>> $settings for pictures, of the project and of the view
     * @param array<string, array<int, int>>           $alone    what the desk holds alone
     */
    private static function lowest(RandomForest $forest, int $number, \Closure $one, array $settings, array $alone): int
    {
        // What the view holds alone gives way to what is set for pictures of the same object, or of the same layer; where that is as on
        // the desk, to what the desk holds alone.
        $held = static function (string $what, int $of, ?int $inView) use ($settings, $alone): int {
            [$project, $own] = [$settings[0][$what][$of] ?? null, $settings[1][$what][$of] ?? null];
            if ($project === null && $own === null) {
                return $inView ?? 5;
            }

            return $project !== 7 && ($own ?? $project) === 6 ? $alone[$what][$of] ?? 5 : 5;
        };
        $home = $forest->layerOf[$number];
        $lowest = min(
            $held('object', $number, $forest->alone[$number] ?? null),
            $held('layer', $home, $forest->settings->layersAlone[$home] ?? null),
        );
        for ($layer = $forest->layerOf[$number]; $layer !== 0; $layer = $forest->layers->get($layer)->parent) {
            $lowest = min($lowest, $one('layer', $layer));
        }
        for ($link = $number; $link !== 0; $link = $forest->parents[$link]) {
            $lowest = min($lowest, $one('object', $link));
        }
        foreach ($forest->tagsOf($number) as $tag) {
            $lowest = min($lowest, $one('tag', $tag->number));
            for ($folder = $tag->folder; $folder !== 0; $folder = $forest->tags->folder($folder)->parent) {
                $lowest = min($lowest, $one('folder', $folder));
            }
        }

        return $lowest;
    }
}
