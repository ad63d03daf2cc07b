<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Gltf;
use Tests\Core\Support\RandomForest;
use VineShelf\Formats\Files;
use VineShelf\Formats\Intake;
use VineShelf\Layers\FilingPlan;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Layers\SortBy;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\InEffect;
use VineShelf\Rungs\Rung;
use VineShelf\Why\Why;

/** First layers, explanations, and what a view makes of a desk. */
final class SortingTest extends TestCase
{
    public function test_first_layers_come_from_groups_property_material_or_kind(): void
    {
        $intake = self::intake();
        self::assertSame([['Hall', 'Site'], [-1, -1, 0, 0, 0, 1, 1, -1]], self::plan($intake, SortBy::Groups));
        self::assertSame([['2 Glass', '10 Frames'], [-1, -1, -1, 1, 0, -1, 0, -1]], self::plan($intake, SortBy::Property, 'LAYER'));
        self::assertSame([['Clear glass', 'Larch'], [-1, -1, -1, 1, 0, -1, 0, -1]], self::plan($intake, SortBy::Material));
        self::assertSame([['Camera', 'Group', 'Part'], [-1, 1, 1, 2, 2, 1, 2, 0]], self::plan($intake, SortBy::Kind));
        self::assertSame([[], array_fill(0, 8, -1)], self::plan($intake, SortBy::Unsorted));
        self::assertSame('the property "layer"', FilingPlan::of($intake, SortBy::Best)->how);
        self::assertSame(['#bcbcbc', '#ff0000'], FilingPlan::of($intake, SortBy::Material)->colours);
    }

    public function test_why_names_every_cause_and_mending_them_all_raises_the_object(): void
    {
        mt_srand(21);
        $mended = 0;
        for ($round = 0; $round < 300; $round++) {
            $forest = RandomForest::grow(mt_rand(1, 30));
            $scene = $forest->scene();
            $row = mt_rand(1, $scene->count());
            $number = $scene->number($row);
            $why = Why::of(
                $row,
                $scene,
                $forest->organizers,
                $forest->settings,
                new InEffect($scene, $forest->organizers, $forest->settings),
            );
            self::assertSame($forest->slowRung($number), $why->rung->value);
            self::assertSame($forest->slowLock($number), $why->lock->value);
            $rungs = array_map(static fn ($cause): int => $cause->rung->value ?? 5, $why->rungCauses());
            self::assertSame($why->rung->value, min([5, ...$rungs]), 'the lowest cause is the rung in effect');
            $locks = array_map(static fn ($cause): int => $cause->lock->value ?? 0, $why->lockCauses());
            self::assertSame($why->lock->value, max([0, ...$locks]));
            $settings = $forest->settings;
            foreach ($why->rungCauses() as $cause) {
                $settings = $cause->raised($settings);
            }
            self::assertSame(Rung::Full, (new InEffect($scene, $forest->organizers, $settings))->rung($row));
            $mended += $why->rungCauses() === [] ? 0 : 1;
        }
        self::assertGreaterThan(80, $mended);
    }

    public function test_layers_nest_with_unsorted_first(): void
    {
        $tree = new LayerTree([
            new Layer(5, 2, 1, 'Deep', '#111111', Lock::Locked),
            new Layer(2, 0, 1, 'B', '#111111', Lock::Guarded),
            new Layer(3, 0, 0, 'A', '#111111'),
            new Layer(1, 0, 9, 'Unsorted', '#999999'),
        ]);

        self::assertSame(
            [['Unsorted', 0], ['A', 0], ['B', 0], ['Deep', 1]],
            array_map(static fn (array $entry): array => [$entry[0]->name, $entry[1]], $tree->walk()),
        );
        self::assertSame('B › Deep', $tree->path(5));
        self::assertSame([2, 5], $tree->withNested(2));
        self::assertSame([1 => 0, 3 => 0, 2 => 1, 5 => 2], $tree->locks());
        self::assertSame([1 => 5, 3 => 5, 2 => 1, 5 => 1], $tree->lowest([2 => 1, 5 => 4], 5));
        $this->expectExceptionMessage('There is no layer with the number 8 in this project.');
        $tree->get(8);
    }

    public function test_the_core_knows_nothing_of_the_framework_or_the_application(): void
    {
        $files = new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(__DIR__.'/../../core', \FilesystemIterator::SKIP_DOTS));
        $count = 0;
        foreach ($files as $file) {
            \assert($file instanceof \SplFileInfo);
            $count++;
            $code = (string) file_get_contents($file->getPathname());
            self::assertDoesNotMatchRegularExpression(
                '~Illuminate\\\\|Laravel|\bApp\\\\|\bapp\(|\bconfig\(|<div|<svg~',
                $code,
                $file->getFilename(),
            );
            self::assertStringContainsString('declare(strict_types=1);', $code, $file->getFilename());
        }
        self::assertGreaterThan(40, $count);
    }

    /** Model: a wrapping group, in it Hall with a larch frame and a pane, Site with a pane, and a camera. */
    private static function intake(): Intake
    {
        $gltf = Gltf::triangle();
        $gltf['materials'] = [
            ['name' => 'Larch', 'pbrMetallicRoughness' => ['baseColorFactor' => [1, 0, 0, 1]]],
            ['name' => 'Clear glass', 'pbrMetallicRoughness' => ['baseColorFactor' => [0.5, 0.5, 0.5, 1]]],
        ];
        $gltf['meshes'] = array_map(
            static fn (int $material): array => [
                'primitives' => [['attributes' => ['POSITION' => 0], 'indices' => 1, 'material' => $material]],
            ],
            [0, 1],
        );
        $gltf['cameras'] = [['type' => 'perspective', 'perspective' => ['yfov' => 1, 'znear' => 1]]];
        $gltf['nodes'] = [
            ['name' => 'Wrap', 'children' => [1, 4, 6]],
            ['name' => 'Hall', 'children' => [2, 3]],
            ['mesh' => 0, 'extras' => ['Layer' => '10 Frames']],
            ['mesh' => 1, 'extras' => ['layer' => '2  Glass']],
            ['name' => 'Site', 'children' => [5]],
            ['mesh' => 1, 'extras' => ['layer' => '2 Glass']],
            ['camera' => 0],
        ];

        return Files::open(Gltf::file($gltf));
    }

    /** @return array{list<string>, list<int>} */
    private static function plan(Intake $intake, SortBy $by, string $property = 'layer'): array
    {
        $plan = FilingPlan::of($intake, $by, $property);

        return [$plan->names, $plan->layerOf];
    }
}
