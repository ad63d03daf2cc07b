<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VineShelf\Facts\DerivedColumns;
use VineShelf\Facts\Facts;
use VineShelf\Facts\FactsBuilder;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\Box;
use VineShelf\Layers\Layer;
use VineShelf\Locks\Lock;
use VineShelf\Organizers\Organizers;
use VineShelf\Own\OwnProperties;
use VineShelf\Own\OwnValue;
use VineShelf\Rules\AllOf;
use VineShelf\Rules\AnyOf;
use VineShelf\Rules\HasProperty;
use VineShelf\Rules\IsInView;
use VineShelf\Rules\NewerThan;
use VineShelf\Rules\Node;
use VineShelf\Rules\NoneOf;
use VineShelf\Rules\NumberIs;
use VineShelf\Rules\NumberTest;
use VineShelf\Rules\Parser;
use VineShelf\Rules\Printer;
use VineShelf\Rules\Related;
use VineShelf\Rules\Relation;
use VineShelf\Rules\SetLinks;
use VineShelf\Rules\State;
use VineShelf\Rules\StateIs;
use VineShelf\Rules\TextIs;
use VineShelf\Rules\TextTest;
use VineShelf\Scene\Bits;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\Kind;
use VineShelf\Scene\MeshWeights;
use VineShelf\Scene\Scene;
use VineShelf\Scene\SceneBuilder;
use VineShelf\Search\NameIndex;
use VineShelf\Sets\SelectionSet;
use VineShelf\Sets\SetTree;

/** A random project with everything that rules ask for, as plain objects, and the slow and obvious way to find what a rule picks. */
final class PlainModel
{
    public const WORDS = ['Seat', 'Pump', 'Ölfilter', 'Lamp 1', 'Wall.004', 'Glass#12', '', 'Group (2)', 'seat shell', 'a"b', 'C\\D'];

    public const CLASSES = ['', 'Furniture', 'Wall', 'Pump'];

    public const MATERIALS = [
        1 => ['oak', false, '#aa8855', 1, []],
        2 => ['pool tile', true, '#88aacc', 1, [1, 2]],
        3 => ['Steel', false, '#777777', 2, [2]],
    ];

    private const PICTURES = [1 => ['bytes' => 4096, 'width' => 32, 'height' => 32], 2 => ['bytes' => 400, 'width' => 10, 'height' => 10]];

    public const VALUES = [1 => 'yes', 2 => 'Oak 7', 3 => '7', 4 => '8.50'];

    /** @var array<int, string> by object number, as are the following */
    public array $names = [];

    /** @var array<int, string> */
    public array $classes = [];

    /** @var array<int, int> */
    public array $meshes = [];

    /** @var array<int, int> */
    public array $sources = [];

    /** @var array<int, list<list<float>>> transforms */
    public array $placements = [];

    /** @var array<int, array<string, int|float|string>> */
    public array $properties = [];

    /** @var array<int, string> value of the property "Client", which people gave, by object number */
    public array $own = [];

    /** @var list<int> picked numbers */
    public array $picked = [];

    /** @var list<SelectionSet> */
    public array $sets = [];

    /** @var array<int, list<int>> object numbers by fixed set, and by those live ones that were asked for */
    public array $chosen = [];

    public Organizers $organizers;

    public Facts $facts;

    /** @var array<int, Box> */
    private array $meshBoxes = [];

    /** @var array<int, list<int>> */
    private array $meshMaterials = [];

    private function __construct(public RandomForest $forest) {}

    public static function grow(int $count): self
    {
        $model = new self(RandomForest::grow($count));
        foreach (range(1, 5) as $mesh) {
            $model->meshBoxes[$mesh] = new Box(0, 0, 0, mt_rand(1, 40) / 10, mt_rand(1, 40) / 10, mt_rand(0, 20) / 10);
            $model->meshMaterials[$mesh] = array_values(array_filter([1, 2, 3], static fn (): bool => mt_rand(0, 2) === 0));
        }
        foreach ($model->forest->parents as $number => $_) {
            $model->names[$number] = self::WORDS[array_rand(self::WORDS)];
            $model->classes[$number] = self::CLASSES[array_rand(self::CLASSES)];
            $model->sources[$number] = mt_rand(1, 2);
            $model->forest->kinds[$number] = mt_rand(0, 6);
            unset($model->forest->triangles[$number]);
            $model->meshes[$number] = in_array($model->forest->kinds[$number], [1, 4, 5], true) ? mt_rand(1, 5) : 0;
            $model->placements[$number] = [];
            if ($model->meshes[$number] > 0) {
                $model->placements[$number] = array_map(
                    static fn (): array => Affine::compose(
                        [mt_rand(-50, 50) / 2, mt_rand(-50, 50) / 2, mt_rand(0, 20) / 2],
                        [0.0, 0.0, 0.0, 1.0],
                        [1.0, 1.0, 1.0],
                    ),
                    range(1, mt_rand(1, 2)),
                );
                $model->forest->triangles[$number] = $model->meshes[$number] * 100 * count($model->placements[$number]);
            } elseif ($model->forest->kinds[$number] !== 0) {
                $model->placements[$number] = [Affine::compose([(float) mt_rand(-9, 9), 1.0, 2.0], [0.0, 0.0, 0.0, 1.0], [1.0, 1.0, 1.0])];
            }
            $model->properties[$number] = array_filter(
                [
                    'level' => mt_rand(0, 4) === 0 ? ['Pool', 'Gallery'][mt_rand(0, 1)] : null,
                    'fire rating' => mt_rand(0, 2) === 0 ? ['EI30', 'none'][mt_rand(0, 1)] : null,
                    'diameter' => mt_rand(0, 2) === 0 ? mt_rand(1, 4) * 50 : null,
                    'mixed' => mt_rand(0, 2) === 0 ? ['7', 7, 'seven', 8.5][mt_rand(0, 3)] : null,
                ],
                static fn (mixed $value): bool => $value !== null,
            );
            if (mt_rand(0, 3) === 0) {
                $model->picked[] = $number;
            }
            if (mt_rand(0, 2) === 0) {
                $model->own[$number] = self::VALUES[mt_rand(1, 4)];
            }
        }
        $model->growSets();
        $model->facts = new Facts(new Scene(new DerivedColumns(new ColumnsInMemory($model->columns()))));

        return $model;
    }

    /**
     * What draws is turned, mirrored, stretched and skewed; two of them stand where their like stands, or hardly off.
     *
     * @return int how many pairs
     */
    public function twist(float $off = 0.0): int
    {
        $drawing = array_keys(array_filter($this->meshes));
        foreach ($drawing as $number) {
            foreach ($this->placements[$number] as $at => $m) {
                $turn = [mt_rand(-9, 9) / 9, mt_rand(-9, 9) / 9, mt_rand(-9, 9) / 9, 1.0];
                $scale = [[1.0, 1.0, 1.0], [2.0, 2.0, 2.0], [-1.0, 1.0, 1.0], [1.0, 3.0, 1.0], [-0.5, -0.5, -0.5]][mt_rand(0, 4)];
                $skew = mt_rand(0, 4) === 0 ? [1.0, 0.4, 0.0, 0.0, 0.0, 1.0, 0.0, 0.0, 0.0, 0.0, 1.0, 0.0] : Affine::IDENTITY;
                $this->placements[$number][$at] = Affine::product(Affine::compose([$m[3], $m[7], $m[11]], $turn, $scale), $skew);
            }
        }
        // One pair that holds nothing, and one that does.
        $pairs = 0;
        foreach ([false, true] as $holds) {
            $some = array_filter($drawing, fn (int $number): bool => in_array($number, $this->forest->parents, true) === $holds);
            foreach ($some as $one) {
                foreach ($some as $other) {
                    if ($one < $other && $this->twin($one, $other, $off, false)) {
                        $pairs += (int) $this->twin($one, $other, $off, true);
                        break 2;
                    }
                }
            }
        }
        $this->facts = new Facts(new Scene(new DerivedColumns(new ColumnsInMemory($this->columns()))));

        return $pairs;
    }

    /** Whether something can be made the like of something else, with all that both hold; makes it so if that is wanted. */
    private function twin(int $one, int $other, float $off, bool $make): bool
    {
        $kinds = $this->forest->kinds;
        $inside = array_map(fn (int $of): array => array_keys($this->forest->parents, $of, true), [$one, $other]);
        if ($kinds[$one] !== $kinds[$other] || $this->meshes[$one] === 0 || count($inside[0]) !== count($inside[1])) {
            return false;
        }
        if ($make) {
            $this->meshes[$other] = $this->meshes[$one];
            $this->placements[$other] = array_map(
                static fn (array $m): array => array_map(static fn (float $value): float => $value + mt_rand(-1, 1) * $off, $m),
                array_reverse($this->placements[$one]),
            );
        }
        foreach ($inside[0] as $at => $child) {
            if ($child === $other || ! $this->twin($child, $inside[1][$at], $off, $make)) {
                return false;
            }
        }

        return true;
    }

    /**
     * What draws stands elsewhere.
     *
     * @param \Closure(int, list<float>): list<float> $to where a transform of an object leads instead
     */
    public function place(\Closure $to): void
    {
        foreach (array_keys(array_filter($this->meshes)) as $number) {
            $this->placements[$number] = array_map(static fn (array $m): array => $to($number, $m), $this->placements[$number]);
        }
        $this->facts = new Facts(new Scene(new DerivedColumns(new ColumnsInMemory($this->columns()))));
    }

    /** @return list<array{float, float, float}> where the corners of the boxes stand in which it draws */
    public function corners(int $number): array
    {
        $corners = [];
        $box = $this->meshBoxes[$this->meshes[$number]] ?? null;
        foreach ($box === null ? [] : $this->placements[$number] as $m) {
            foreach (range(0, 7) as $corner) {
                $x = $corner & 1 ? $box->maxX : $box->minX;
                $y = $corner & 2 ? $box->maxY : $box->minY;
                $z = $corner & 4 ? $box->maxZ : $box->minZ;
                $corners[] = [
                    $m[0] * $x + $m[1] * $y + $m[2] * $z + $m[3],
                    $m[4] * $x + $m[5] * $y + $m[6] * $z + $m[7],
                    $m[8] * $x + $m[9] * $y + $m[10] * $z + $m[11],
                ];
            }
        }

        return $corners;
    }

    /** @return list<int> numbers of the materials that it is made of */
    public function materialsOf(int $number): array
    {
        return $this->meshMaterials[$this->meshes[$number]] ?? [];
    }

    /** Fixed sets, and live ones that refer to those before them. */
    private function growSets(): void
    {
        $forest = $this->forest;
        for ($number = 1, $count = mt_rand(0, 5); $number <= $count; $number++) {
            do {
                $rule = mt_rand(0, 2) === 0 ? null : Printer::print(RandomRule::grow(mt_rand(0, 2)));
                $sets = [...$this->sets, new SelectionSet($number, 0, $number, "Set $number", $rule)];
            } while ((new SetLinks(new SetTree([], $sets)))->cycle() !== null);
            $this->sets = $sets;
            if ($rule === null) {
                $isIn = static fn (): bool => mt_rand(0, 2) === 0;
                $this->chosen[$number] = array_values(array_filter(array_keys($forest->parents), $isIn));
            }
        }
        $values = array_map(
            static fn (int $value): OwnValue => new OwnValue($value, 'Client', self::VALUES[$value]),
            array_keys(self::VALUES),
        );
        $this->organizers = new Organizers($forest->layers, $forest->tags, new SetTree([], $this->sets), own: new OwnProperties($values));
    }

    /**
     * A small bath house that is written down: a hall with a stand of four seats, two lamps, a pump below, and something without a name.
     *
     *  1 Hall (group, layer Building, level Pool)
     *  2   Stand (group, layer Seats)
     *  3-5   Seat 1, Seat 2, Aisle seat 3 (parts, layer Seats, 0.5 x 0.5 x 0.8 m, plastic)
     *  6   Lamp A (part of class LightFixture, layer Lamps in Building, 0.2 m, steel and glass; a ghost by its layer)
     *  7   Light (light, layer Lamps)
     *  8 Plant (group, layer Unsorted, level Cellar)
     *  9   Pump "P-1" (part of class Pump, layer Unsorted, 1.2 x 0.6 x 0.9 m, steel; flow 42.5)
     * 10   no name (part, layer Unsorted, 0.5 x 0.5 x 0.8 m, the seats' mesh; hidden by itself)
     */
    public static function bathHouse(): self
    {
        $layers = [
            new Layer(1, 0, 0, 'Unsorted', '#b9b3a2'),
            new Layer(2, 0, 1, 'Building', '#3f7a63'),
            new Layer(3, 2, 0, 'Lamps', '#aa8855'),
            new Layer(4, 0, 2, 'Seats', '#88aacc', Lock::Guarded),
        ];
        $model = new self(
            RandomForest::of(
                [1 => 0, 2 => 1, 3 => 2, 4 => 2, 5 => 2, 6 => 1, 7 => 1, 8 => 0, 9 => 8, 10 => 8],
                [1 => 2, 2 => 4, 3 => 4, 4 => 4, 5 => 4, 6 => 3, 7 => 3, 8 => 1, 9 => 1, 10 => 1],
                [1 => 0, 2 => 0, 3 => 1, 4 => 1, 5 => 1, 6 => 1, 7 => 2, 8 => 0, 9 => 1, 10 => 1],
                $layers,
                [3 => 2],
                [10 => 0],
            ),
        );
        $model->names = [
            1 => 'Hall',
            2 => 'Stand',
            3 => 'Seat 1',
            4 => 'Seat 2',
            5 => 'Aisle seat 3',
            6 => 'Lamp A',
            7 => 'Light',
            8 => 'Plant',
            9 => 'Pump "P-1"',
            10 => '',
        ];
        $model->classes = array_replace(array_fill(1, 10, ''), [6 => 'LightFixture', 9 => 'Pump']);
        $model->sources = array_replace(array_fill(1, 10, 1), [8 => 2, 9 => 2, 10 => 2]);
        $model->meshBoxes = [
            1 => new Box(0, 0, 0, 0.5, 0.5, 0.8),
            2 => new Box(0, 0, 0, 0.2, 0.2, 0.2),
            3 => new Box(0, 0, 0, 1.2, 0.6, 0.9),
        ];
        $model->meshMaterials = [1 => [2], 2 => [1, 3], 3 => [3]];
        $model->meshes = array_replace(array_fill(1, 10, 0), [3 => 1, 4 => 1, 5 => 1, 6 => 2, 9 => 3, 10 => 1]);
        $model->placements = array_fill(1, 10, []);
        $places = [3 => [0, 0, 1], 4 => [1, 0, 1], 5 => [2, 0, 1], 6 => [1, 1, 6], 7 => [1, 1, 6], 9 => [0, 0, -4], 10 => [3, 0, -4]];
        foreach ($places as $number => [$x, $y, $z]) {
            $model->placements[$number] = [Affine::compose([(float) $x, (float) $y, (float) $z], [0.0, 0.0, 0.0, 1.0], [1.0, 1.0, 1.0])];
        }
        $model->forest->triangles = [3 => 100, 4 => 100, 5 => 100, 6 => 200, 9 => 300, 10 => 100];
        $model->properties = array_replace(array_fill(1, 10, []), [
            1 => ['level' => 'Pool'],
            5 => ['aisle' => 'yes'],
            8 => ['level' => 'Cellar'],
            9 => ['flow' => 42.5, 'fire rating' => 'EI30'],
        ]);
        $model->picked = [4, 9];
        $model->organizers = $model->forest->organizers;
        $model->facts = new Facts(new Scene(new DerivedColumns(new ColumnsInMemory($model->columns()))));

        return $model;
    }

    /** @return array<string, string> */
    private function columns(): array
    {
        $forest = $this->forest;
        $columns = SceneBuilder::columns($forest->parents, $forest->layerOf, $forest->kinds, $forest->locks, $forest->triangles);
        $order = array_values((array) unpack('V*', $columns['no']));
        $placed = [];
        $placements = '';
        foreach ($order as $number) {
            if (($this->meshes[$number] ?? 0) > 0) {
                $placed[$number] = strlen($placements);
                foreach ($this->placements[$number] as $m) {
                    $placements .= pack('e12', ...$m);
                }
            }
        }
        $columns += NameIndex::columns(array_map(fn (int $number): string => $this->names[$number] ?? '', $order));
        $columns += DrawRecords::columns(
            $order,
            $this->meshes,
            $placed,
            $placements,
            array_map(static fn (Box $box): array => ['pack' => 1, 'triangles' => 100, 'colour' => 0, 'box' => $box], $this->meshBoxes),
        );
        $columns['meshweights'] = MeshWeights::pack(
            array_map(
                static fn (int $mesh): array => ['vertices' => 8, 'pieces' => ($mesh % 3) + 1, 'bytes' => 1000 * $mesh],
                array_combine(array_keys($this->meshBoxes), array_keys($this->meshBoxes)),
            ),
        );
        $facts = new FactsBuilder(
            count($order) - 1,
            $this->meshMaterials,
            self::MATERIALS,
            [1 => 'Hall.glb', 2 => 'Plant.glb'],
            self::PICTURES,
        );
        foreach ($order as $row => $number) {
            if ($row > 0) {
                $facts->add(
                    $row,
                    $this->meshes[$number],
                    8 * count($this->placements[$number]),
                    $this->sources[$number],
                    $this->classes[$number],
                    $this->properties[$number] === []
                        ? null
                        : (string) json_encode($this->properties[$number], JSON_PRESERVE_ZERO_FRACTION),
                );
                if ($this->meshes[$number] === 0 && $this->placements[$number] !== []) {
                    $facts->spot($row, [
                        $this->placements[$number][0][3],
                        $this->placements[$number][0][7],
                        $this->placements[$number][0][11],
                    ]);
                }
            }
        }

        $scene = new Scene(new ColumnsInMemory($columns));
        foreach (self::VALUES as $value => $text) {
            $columns["value.$value"] = Bits::ofRows($scene->count(), $scene->rowsOf(array_keys($this->own, $text, true)))->bytes;
        }
        foreach ($this->chosen as $set => $numbers) {
            $columns["set.$set"] = Bits::ofRows($scene->count(), $scene->rowsOf($numbers))->bytes;
        }

        return $columns + $forest->tagColumns($scene) + $facts->columns();
    }

    /** @return list<int> object numbers, ascending */
    public function slowFind(Node $node): array
    {
        $found = array_values(array_filter(array_keys($this->forest->parents), fn (int $number): bool => $this->fits($number, $node)));
        sort($found);

        return $found;
    }

    private function fits(int $number, Node $node): bool
    {
        return match (true) {
            $node instanceof AllOf => array_filter($node->parts, fn (Node $part): bool => ! $this->fits($number, $part)) === [],
            $node instanceof AnyOf => array_filter($node->parts, fn (Node $part): bool => $this->fits($number, $part)) !== [],
            $node instanceof NoneOf => ! $this->fits($number, $node->part),
            $node instanceof Related => $this->isRelated($number, $node),
            $node instanceof StateIs => $this->has($number, $node->state),
            $node instanceof HasProperty => isset($this->properties[$number][$this->property($node->name)]) ||
                (strtolower($node->name) === 'client' && isset($this->own[$number])),
            $node instanceof NewerThan => $number > 10,
            $node instanceof IsInView => $node->state === State::Shown ? $number % 6 > 0 : $number % 6 === $node->state->rung()?->value,
            $node instanceof NumberIs => $this->compares($number, $node),
            $node instanceof TextIs => $this->reads($number, $node),
            default => throw new \LogicException,
        };
    }

    private function isRelated(int $number, Related $node): bool
    {
        foreach ($this->forest->parents as $other => $parent) {
            if ($other === $number || ! $this->fits($other, $node->part)) {
                continue;
            }
            if (
                match ($node->relation) {
                    Relation::Inside => in_array($other, $this->above($number), true),
                    Relation::Holding => in_array($number, $this->above($other), true),
                    Relation::Beside => $parent === $this->forest->parents[$number],
                }
            ) {
                return true;
            }
        }

        return false;
    }

    /** @return list<int> */
    private function above(int $number): array
    {
        $above = [];
        while (($number = $this->forest->parents[$number]) !== 0) {
            $above[] = $number;
        }

        return $above;
    }

    private function has(int $number, State $state): bool
    {
        $rung = $this->forest->slowRung($number);
        $lock = $this->forest->slowLock($number);

        return match ($state) {
            State::Shown => $rung > 0,
            State::Hidden, State::Full, State::Plain, State::Coarse, State::Ghost, State::Box => $rung === $state->rung()?->value,
            State::Open => $lock === 0,
            State::Guarded => $lock > 0,
            State::Locked => $lock === 2,
            State::Picked => in_array($number, $this->picked, true),
            State::Unnamed => $this->names[$number] === '',
            State::Tagged => $this->forest->tagsOf($number) !== [],
            State::Untouched => $this->forest->layerOf[$number] === 1 && $this->forest->tagsOf($number) === [],
            State::HasGeometry => $this->meshes[$number] > 0,
            State::HasMaterial => ($this->meshMaterials[$this->meshes[$number]] ?? []) !== [],
            State::HasTextures => in_array(2, $this->meshMaterials[$this->meshes[$number]] ?? [], true),
            State::HasChildren => in_array($number, $this->forest->parents, true),
            State::HasParent => $this->forest->parents[$number] !== 0,
            State::HasClass => $this->classes[$number] !== '',
            State::HasProperties => $this->properties[$number] !== [],
        };
    }

    private function property(string $name): string
    {
        foreach (['level', 'fire rating', 'diameter', 'mixed'] as $known) {
            if (strtolower($known) === strtolower($name)) {
                return $known;
            }
        }

        return $name;
    }

    private function reads(int $number, TextIs $node): bool
    {
        if ($node->isProperty && strtolower($node->field) === 'client') {
            $value = $this->own[$number] ?? null;
            $isNumber = is_numeric($value) && ! $node->quoted && is_numeric($node->words);
            $is = $value !== null && ($isNumber ? (float) $value === (float) $node->words : self::looksLike($value, $node));

            return $is !== ($node->test === TextTest::IsNot);
        }
        if ($node->isProperty) {
            $value = $this->properties[$number][$this->property($node->field)] ?? null;
            $is =
                $value !== null &&
                ($this->property($node->field) === 'diameter' && ! $node->quoted && is_numeric($node->words)
                    ? (float) $value === (float) $node->words
                    : self::looksLike((string) $value, $node));

            return $is !== ($node->test === TextTest::IsNot);
        }
        $texts = match ($node->field) {
            'name' => [$this->names[$number]],
            'kind' => [Kind::from($this->forest->kinds[$number])->label()],
            'class' => $this->classes[$number] === '' ? [] : [$this->classes[$number]],
            'layer' => array_map(
                static fn (\VineShelf\Layers\Layer $layer): string => $layer->name,
                $this->forest->layers->chain($this->forest->layerOf[$number]),
            ),
            'material' => array_map(
                static fn (int $material): string => self::MATERIALS[$material][0],
                $this->meshMaterials[$this->meshes[$number]] ?? [],
            ),
            'source' => [['', 'Hall.glb', 'Plant.glb'][$this->sources[$number]]],
            'level' => $this->level($number),
            'tag' => $this->tagNames($number),
            'set' => $this->setNames($number, $node),
            default => [],
        };
        $is = array_filter($texts, static fn (string $text): bool => self::looksLike($text, $node)) !== [];

        return $is !== ($node->test === TextTest::IsNot);
    }

    /** @return list<string> names of its tags, and of the folders that hold those */
    private function tagNames(int $number): array
    {
        $names = [];
        foreach ($this->forest->tagsOf($number) as $tag) {
            $names[] = $tag->name;
            for ($at = $tag->folder; $at !== 0; $at = $this->forest->tags->folder($at)->parent) {
                $names[] = $this->forest->tags->folder($at)->name;
            }
        }

        return $names;
    }

    /** @return list<string> names of the sets that are meant and hold the object; others are not looked into, as they may lead back here */
    private function setNames(int $number, TextIs $node): array
    {
        $holds = fn (SelectionSet $set): bool => self::looksLike($set->name, $node) &&
            in_array($number, $this->chosen[$set->number] ??= $this->slowFind(Parser::parse((string) $set->rule)->tree), true);

        return array_map(static fn (SelectionSet $set): string => $set->name, array_filter($this->sets, $holds));
    }

    /** @return list<string> */
    private function level(int $number): array
    {
        foreach ([$number, ...$this->above($number)] as $link) {
            if (isset($this->properties[$link]['level'])) {
                return [(string) $this->properties[$link]['level']];
            }
        }

        return [];
    }

    private static function looksLike(string $text, TextIs $node): bool
    {
        $text = mb_strtolower($text);
        $words = mb_strtolower($node->words);
        if ($node->hasWildcards()) {
            return self::fitsLetters(mb_str_split($text), mb_str_split($words));
        }

        return $node->test === TextTest::Has ? str_contains($text, $words) : $text === $words;
    }

    /**
     * @param list<string> $text
     * @param list<string> $pattern
     */
    public static function fitsLetters(array $text, array $pattern): bool
    {
        if ($pattern === []) {
            return $text === [];
        }
        if ($pattern[0] === '*') {
            return self::fitsLetters($text, array_slice($pattern, 1)) ||
                ($text !== [] && self::fitsLetters(array_slice($text, 1), $pattern));
        }

        return $text !== [] &&
            ($pattern[0] === '?' || $pattern[0] === $text[0]) &&
            self::fitsLetters(array_slice($text, 1), array_slice($pattern, 1));
    }

    private function compares(int $number, NumberIs $node): bool
    {
        $own = strtolower($node->field) === 'client' ? $this->own[$number] ?? null : null;
        $value = $node->isProperty
            ? $this->properties[$number][$this->property($node->field)] ?? (is_numeric($own) ? (float) $own : null)
            : $this->measure($number, $node->field);
        if ($value === null || is_string($value)) {
            return false;
        }
        $low = $node->number?->value() ?? -INF;
        $high = $node->upTo?->value() ?? INF;
        $exact = ['triangles', 'weight', 'vertices', 'instances', 'children', 'holds', 'depth'];
        $equals = static fn (float $other): bool => $value === $other ||
            (! $node->isProperty &&
                ! in_array($node->field, $exact, true) &&
                abs($value - $other) <= ($node->field === 'volume' ? 0.0005 * abs($other) : 0.0005));
        $isWithin = ($value >= $low || $equals($low)) && ($value <= $high || $equals($high));

        return match ($node->test) {
            NumberTest::Is => (float) $value === $low || $equals($low),
            NumberTest::IsNot => (float) $value !== $low && ! $equals($low),
            NumberTest::Below => $value < $low && ! $equals($low),
            NumberTest::AtMost => $value <= $low || $equals($low),
            NumberTest::Above => $value > $low && ! $equals($low),
            NumberTest::AtLeast => $value >= $low || $equals($low),
            NumberTest::Within => $isWithin,
            NumberTest::NotWithin => ! $isWithin,
        };
    }

    public function measure(int $number, string $field): int|float|null
    {
        $below = array_keys(
            array_filter(
                $this->forest->parents,
                fn (int $parent, int $other): bool => in_array($number, $this->above($other), true),
                ARRAY_FILTER_USE_BOTH,
            ),
        );
        $drawn = fn (int $mesh): int => array_sum(
            array_map(
                fn (int $other): int => $this->meshes[$other] === $mesh ? count($this->placements[$other]) : 0,
                array_keys($this->meshes),
            ),
        );
        $box = $spots = new Box;
        foreach ([$number, ...$below] as $other) {
            foreach ($this->placements[$other] as $m) {
                $mesh = $this->meshBoxes[$this->meshes[$other]] ?? null;
                if ($mesh === null) {
                    $spots = $spots->with(new Box($m[3], $m[7], $m[11], $m[3], $m[7], $m[11]));
                } else {
                    $box = $box->with($mesh->transformed($m));
                }
            }
        }
        $sides = $box->isEmpty() ? null : [$box->maxX - $box->minX, $box->maxY - $box->minY, $box->maxZ - $box->minZ];
        // What only has a place says where things are where nothing is drawn.
        $box = $box->isEmpty() ? $spots : $box;
        $placed = ! $box->isEmpty();
        $exact = match ($field) {
            'triangles' => $this->forest->triangles[$number] ?? 0,
            'weight' => array_sum(array_map(fn (int $other): int => $this->forest->triangles[$other] ?? 0, [$number, ...$below])),
            'vertices' => 8 * count($this->placements[$number]),
            'calls' => ($this->meshes[$number] > 0 ? ($this->meshes[$number] % 3) + 1 : 0) * count($this->placements[$number]),
            'geometry' => 1000 * $this->meshes[$number],
            'texture' => array_sum(
                array_map(
                    static fn (int $picture): int => self::PICTURES[$picture]['bytes'],
                    array_unique(
                        array_merge(
                            ...array_map(
                                static fn (int $material): array => self::MATERIALS[$material][4],
                                $this->meshMaterials[$this->meshes[$number]] ?? [],
                            ),
                        ),
                    ),
                ),
            ),
            'instances' => $this->meshes[$number] > 0 ? $drawn($this->meshes[$number]) : 0,
            'children' => count(array_keys($this->forest->parents, $number, true)),
            'holds' => count($below),
            'depth' => count($this->above($number)) + 1,
            'size' => $sides === null ? null : max($sides),
            'width' => $sides[0] ?? null,
            'length' => $sides[1] ?? null,
            'height' => $sides[2] ?? null,
            'volume' => $sides === null ? null : $sides[0] * $sides[1] * $sides[2],
            'x' => ! $placed ? null : ($box->minX + $box->maxX) / 2,
            'y' => ! $placed ? null : ($box->minY + $box->maxY) / 2,
            'z' => ! $placed ? null : ($box->minZ + $box->maxZ) / 2,
            'bottom' => ! $placed ? null : $box->minZ,
            'top' => ! $placed ? null : $box->maxZ,
            default => throw new \LogicException($field),
        };

        return is_float($exact) ? round($exact, 4) : $exact;
    }
}
