<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\PlainModel;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Organizers\Organizers;
use VineShelf\Own\OwnProperties;
use VineShelf\Own\OwnValue;
use VineShelf\Rules\Evaluator;
use VineShelf\Rules\Parser;
use VineShelf\Rules\Stands;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Bits;
use VineShelf\Sets\SelectionSet;

/** What rules find in a small bath house, worked out by hand; {@see PlainModel::bathHouse} is the house. */
final class RulesByHandTest extends TestCase
{
    /** @return iterable<string, array{string, list<int>}> */
    public static function rules(): iterable
    {
        $found = [
            // Words match the name.
            'seat' => [3, 4, 5],
            'SEAT 2' => [4],
            'seat*' => [3, 4],
            '*seat*' => [3, 4, 5],
            'seat?2' => [4],
            '*at ?' => [], // two words: the second one is a name of a single letter
            '"seat 1"' => [3],
            'name="Seat 1"' => [3],
            'name=seat' => [],
            'name!=Hall kind:group' => [2, 8],
            '"Pump \\"P-1\\""' => [9],
            // Kinds, classes, layers with what is nested, materials, sources, levels.
            'kind:part' => [3, 4, 5, 6, 9, 10],
            'kind:light' => [7],
            'kind!=part' => [1, 2, 7, 8],
            'class:pump' => [9],
            'class:light' => [6],
            'has class' => [6, 9],
            'layer:Building' => [1, 6, 7],
            'layer=Lamps' => [6, 7],
            'layer:Unsorted' => [8, 9, 10],
            'is untouched' => [8, 9, 10],
            'material:tile' => [3, 4, 5, 10],
            'material:steel' => [6, 9],
            'material:oak material:steel' => [6],
            'has textures' => [3, 4, 5, 10],
            'has no material kind:part' => [],
            'source:plant' => [8, 9, 10],
            'level:pool' => [1, 2, 3, 4, 5, 6, 7],
            'level:Cellar' => [8, 9, 10],
            // Properties of the files.
            'aisle:yes' => [5],
            'has aisle' => [5],
            'seat has no aisle' => [3, 4],
            '"fire rating":EI30' => [9],
            'flow > 40' => [9],
            'flow = 42.5' => [9],
            'flow:1..42' => [],
            // Numbers.
            'triangles >= 200' => [6, 9],
            'triangles = 100' => [3, 4, 5, 10],
            'weight = 300' => [2, 9],
            'weight > 300' => [1, 8],
            'instances = 4' => [3, 4, 5, 10],
            'children = 3' => [1, 2],
            'holds = 6' => [1],
            'depth = 1' => [1, 8],
            'depth:3..' => [3, 4, 5],
            'width = 50cm kind:part' => [3, 4, 5, 10],
            'width = 500mm kind:part' => [3, 4, 5, 10],
            'width > 1m kind:part' => [9],
            'height <= 20 cm kind:part' => [6],
            'length = 0.6' => [8, 9],
            'size = 80cm kind:part' => [3, 4, 5, 10],
            'volume = 0.2 kind:part' => [3, 4, 5, 10],
            'x = 1.25' => [1, 2, 4],
            'z < 0' => [8, 9, 10],
            'bottom >= 5' => [6, 7],
            'top < -3' => [8, 9, 10],
            'width = 2.5' => [1, 2],
            // States.
            'is shown' => [1, 2, 3, 4, 5, 6, 7, 8, 9],
            'is hidden' => [10],
            'is ghost' => [6, 7],
            'is full kind:part' => [3, 4, 5, 9],
            'is guarded' => [2, 3, 4, 5],
            'is locked' => [],
            'is open kind:part' => [6, 9, 10],
            'is picked' => [4, 9],
            'is unnamed' => [10],
            'is tagged' => [],
            'has children' => [1, 2, 8],
            // Putting conditions together.
            'seat or lamp' => [3, 4, 5, 6],
            'seat not aisle' => [3, 4],
            'seat and not (is picked or has aisle)' => [3],
            'kind:part (layer:Lamps or source:plant)' => [6, 9, 10],
            'not kind:part not kind:group' => [7],
            // Relatives.
            'inside (stand)' => [3, 4, 5],
            'inside (hall) kind:light' => [7],
            'holding (is picked)' => [1, 2, 8],
            'holding (has aisle)' => [1, 2],
            'beside (lamp)' => [2, 7],
            'beside ("seat 1")' => [4, 5],
            'inside (holding (pump))' => [9, 10],
        ];
        foreach ($found as $rule => $numbers) {
            yield $rule => [$rule, $numbers];
        }
    }

    /** @param list<int> $numbers */
    #[DataProvider('rules')]
    public function test_finds(string $rule, array $numbers): void
    {
        $model = PlainModel::bathHouse();
        $scene = $model->facts->scene;
        $picked = array_map($scene->row(...), $model->picked);
        sort($picked);
        $evaluator = new Evaluator(
            $model->facts,
            $model->forest->organizers,
            new InEffect($scene, $model->forest->organizers, $model->forest->settings),
            Bits::ofRows($scene->count(), $picked),
        );
        $found = array_map($scene->number(...), $evaluator->find(Parser::parse($rule))->rows->rows());
        sort($found);
        self::assertSame($numbers, $found);
        self::assertSame($numbers, $model->slowFind(Parser::parse($rule)->tree), 'the slow evaluator agrees');
    }

    public function test_what_a_live_set_stands_on_names_properties_that_people_gave_or_may_give(): void
    {
        $facts = PlainModel::bathHouse()->facts;
        $own = new OwnProperties([new OwnValue(4, 'Fire', 'F30'), new OwnValue(7, 'fire', 'F90'), new OwnValue(9, 'client', 'yes')]);
        $organizers = new Organizers(new LayerTree([new Layer(1, 0, 0, 'Unsorted', '#999999')]), own: $own);
        $on = static fn (string $rule, Organizers $of): array => Stands::on(new SelectionSet(1, 0, 0, 'S', $rule), $facts, $of);
        foreach (['fire:F30', 'has fire', 'not FIRE=F90 kind:part'] as $rule) {
            self::assertContains(Stands::OWN, $on($rule, $organizers), $rule);
            self::assertNotContains('value.9', $on($rule, $organizers), $rule);
        }
        self::assertContains('value.9', $on('client:y or aisle:yes', $organizers));
        // Nobody has it yet, but somebody may; what the files say stays as it is.
        self::assertSame([Stands::BUILD, Stands::OWN], $on('fire:F30', new Organizers($organizers->layers)));
        self::assertSame([Stands::BUILD], $on('"fire rating":EI30 width > 1m', $organizers));
    }
}
