<?php

declare(strict_types=1);

namespace VineShelf\Facts;

use VineShelf\Scene\Coded;

/**
 * Collects what files say about objects into columns of the scene index, beside those of {@see \VineShelf\Scene\Scene}:
 *
 * | column           | what                                                                            |
 * |------------------|---------------------------------------------------------------------------------|
 * | mesh             | uint32 per row: mesh number, 0 for none                                         |
 * | vertices         | uint32 per row: vertices drawn                                                  |
 * | source           | {@see Coded} source numbers                                                     |
 * | class            | uint32 per row: index into class.words, 0 for none                              |
 * | surfaces         | uint32 per row: index into surfaces.lists, each a list of material numbers      |
 * | materials        | JSON by material number: name, whether it has a texture, colour, source, pictures |
 * | pictures         | JSON by number of a picture: bytes on the graphics card, width, height in pixels  |
 * | sources          | JSON by source number: name                                                     |
 * | spots            | row and three doubles for each object that has a place but no mesh: metres      |
 * | properties       | JSON by property name: its index N, objects that have it, whether all are numbers|
 * | property.N       | {@see Codes}: index into property.N.words, 0 for none                           |
 * | property.N.words | JSON list of its different values                                               |
 */
final class FactsBuilder
{
    /** Properties beyond this many are left out of rules and columns; the file's report still counts them. */
    private const MOST_PROPERTIES = 500;

    private const LONGEST_VALUE = 400;

    /** @var array<int, int> by row, as are the following */
    private array $meshes;

    /** @var array<int, int> */
    private array $vertices;

    /** @var array<int, int> */
    private array $sources;

    /** @var array<int, int> */
    private array $classes;

    /** @var array<int, int> */
    private array $surfaces;

    /** @var array<string, int> */
    private array $classWords = ['' => 0];

    /** @var array<string, int> */
    private array $surfaceLists = ['[]' => 0];

    /** @var array<string, array{rows: array<int, int>, words: array<string, int>, values: list<int|float|string>}> */
    private array $properties = [];

    /** @var array<string, string> name that a property goes by, by the name as it is written */
    private array $spelled = [];

    /** @var array<string, string> likewise, by the name in lower case */
    private array $known = [];

    private string $spots = '';

    /**
     * @param array<int, list<int>>                             $materialsOf material numbers by mesh number
     * @param array<int, array{0: string, 1: bool, 2: string, 3: int, 4?: list<int>}> $materials name, textured, colour as "#3f7a63",
     *     source, pictures; by number
     * @param array<int, string>                                $sourceNames by number
     * @param array<int, array{bytes: int, width: int, height: int}> $pictures by number
     */
    public function __construct(
        private readonly int $count,
        private readonly array $materialsOf,
        private readonly array $materials,
        private readonly array $sourceNames,
        private readonly array $pictures = [],
    ) {
        $this->meshes = $this->vertices = $this->sources = $this->classes = $this->surfaces = array_fill(0, $count + 1, 0);
    }

    /** @param string|null $properties as JSON */
    public function add(int $row, int $mesh, int $vertices, int $source, string $class, ?string $properties): void
    {
        $this->meshes[$row] = $mesh;
        $this->vertices[$row] = $vertices;
        $this->sources[$row] = $source;
        if ($class !== '') {
            $this->classes[$row] = $this->classWords[$class] ??= count($this->classWords);
        }
        if ($mesh !== 0) {
            $list = json_encode($this->materialsOf[$mesh] ?? [], JSON_THROW_ON_ERROR);
            $this->surfaces[$row] = $this->surfaceLists[$list] ??= count($this->surfaceLists);
        }
        $given = $properties === null ? null : json_decode($properties, true);
        $this->properties($row, '', is_array($given) ? $given : []);
    }

    /** @param array<int|string, mixed> $given what stands inside something else is called "outer.inner" */
    private function properties(int $row, string $inside, array $given): void
    {
        foreach ($given as $name => $value) {
            if (is_array($value) && ! array_is_list($value) && substr_count($inside, '.') < 3) {
                $this->properties($row, "$inside$name.", $value);
            } else {
                $this->property($row, "$inside$name", $value);
            }
        }
    }

    /** @param array{float, float, float} $place metres */
    public function spot(int $row, array $place): void
    {
        $this->spots .= pack('Ve3', $row, ...$place);
    }

    /** @return array<string, string> */
    public function columns(): array
    {
        array_shift($this->sources);
        $columns = [
            'mesh' => pack('V*', ...$this->meshes),
            'vertices' => pack('V*', ...$this->vertices),
            'source' => Coded::fromValues($this->sources)->pack(),
            'class' => pack('V*', ...$this->classes),
            'class.words' => self::json(array_map(strval(...), array_keys($this->classWords))),
            'surfaces' => pack('V*', ...$this->surfaces),
            'surfaces.lists' => '['.implode(',', array_keys($this->surfaceLists)).']',
            'materials' => self::json((object) $this->materials),
            'pictures' => self::json((object) $this->pictures),
            'sources' => self::json((object) $this->sourceNames),
            'spots' => $this->spots,
        ];
        $directory = [];
        foreach ($this->properties as $name => ['rows' => $rows, 'values' => $values]) {
            $index = count($directory) + 1;
            $directory[$name] = [$index, count($rows), array_filter($values, is_string(...)) === []];
            ksort($rows);
            $columns["property.$index"] = Codes::pack($rows, $this->count);
            $columns["property.$index.words"] = self::json(['', ...$values]);
        }

        return $columns + ['properties' => self::json((object) $directory)];
    }

    private function property(int $row, string $name, mixed $value): void
    {
        // Two files that write "level" and "Level" have one field; it is called as it was written first.
        $name = $this->spelled[$name] ??= $this->known[mb_strtolower($name)] ??= $name;
        if ($name === '' || $value === null || (! isset($this->properties[$name]) && count($this->properties) >= self::MOST_PROPERTIES)) {
            return;
        }
        $value = is_bool($value)
            ? ($value
                ? 'true'
                : 'false')
            : (is_int($value) || is_float($value) || is_string($value)
                ? $value
                : (string) json_encode($value, JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES));
        if (is_string($value)) {
            $value = mb_substr($value, 0, self::LONGEST_VALUE);
        }
        $this->properties[$name] ??= ['rows' => [], 'words' => [], 'values' => []];
        $property = &$this->properties[$name];
        $key = get_debug_type($value) === 'string' ? "s$value" : "n$value";
        if (! isset($property['words'][$key])) {
            $property['values'][] = $value;
            $property['words'][$key] = count($property['values']);
        }
        $property['rows'][$row] = $property['words'][$key];
    }

    private static function json(mixed $value): string
    {
        return json_encode(
            $value,
            JSON_THROW_ON_ERROR |
                JSON_UNESCAPED_UNICODE |
                JSON_UNESCAPED_SLASHES |
                JSON_INVALID_UTF8_SUBSTITUTE |
                JSON_PRESERVE_ZERO_FRACTION,
        );
    }
}
