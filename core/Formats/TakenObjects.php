<?php

declare(strict_types=1);

namespace VineShelf\Formats;

use VineShelf\Geometry\Affine;
use VineShelf\Scene\Kind;

/**
 * The objects of a file as columns, in depth-first order, counted from 1; entry 0 is unused.
 *
 * @phpstan-import-type Transform from Affine
 */
final class TakenObjects
{
    /** @var list<int> row of the parent, 0 for a root */
    public array $parents = [0];

    /** @var list<string> */
    public array $names = [''];

    /** @var list<int> {@see Kind} */
    public array $kinds = [0];

    /** @var list<int|string> the file's own key */
    public array $keys = [''];

    /** @var list<int> the file's own mesh index, -1 for none */
    public array $meshes = [-1];

    /** @var array<int, string> properties as JSON by row */
    public array $properties = [];

    /** @var array<int, SortedExtras> how it was sorted when it was exported, by row */
    public array $sorted = [];

    /** @var array<int, string> the class that the file gives an object, by row */
    public array $classes = [];

    /** @var array<int, string> packed transforms by row, where one object is drawn several times */
    public array $instances = [];

    /** Packed world transforms, 96 bytes a row, metres with z up. */
    public string $transforms = '';

    public function __construct()
    {
        $this->transforms = Affine::pack(Affine::IDENTITY);
    }

    /**
     * @param Transform $world
     *
     * @return int the row
     */
    public function add(int $parent, string $name, Kind $kind, int|string $key, int $mesh, array $world): int
    {
        $this->parents[] = $parent;
        $this->names[] = $name;
        $this->kinds[] = $kind->value;
        $this->keys[] = $key;
        $this->meshes[] = $mesh;
        $this->transforms .= Affine::pack($world);

        return count($this->parents) - 1;
    }

    /**
     * The values of a property, whatever the case of its name: only rows that have it.
     *
     * @return iterable<int, mixed> by row
     */
    public function property(string $name): iterable
    {
        $wanted = mb_strtolower(trim($name));
        // Letters beyond ASCII have two cases that only a decoded name shows.
        $isPlain = preg_match('~[^\x20-\x7E]~', $wanted) === 0;
        foreach ($this->properties as $row => $json) {
            if ($isPlain && stripos($json, $wanted) === false && ! str_contains($json, '\\')) {
                continue;
            }
            $properties = json_decode($json, true);
            foreach (is_array($properties) ? $properties : [] as $called => $value) {
                if (mb_strtolower((string) $called) === $wanted) {
                    yield $row => $value;
                    break;
                }
            }
        }
    }

    /**
     * What an object is called: by its own name, or where the file gives it none, by that of the mesh that it draws.
     *
     * @param array<int, TakenMesh> $meshes by the file's own index
     */
    public function called(int $row, array $meshes): string
    {
        $name = $this->names[$row];

        return $name === '' && $this->meshes[$row] >= 0 ? $meshes[$this->meshes[$row]]->name : $name;
    }

    public function count(): int
    {
        return count($this->parents) - 1;
    }

    /** @return Transform */
    public function transform(int $row): array
    {
        return Affine::unpack($this->transforms, $row * 96);
    }

    /** How often the object's mesh is drawn. */
    public function drawn(int $row): int
    {
        if ($this->meshes[$row] < 0) {
            return 0;
        }

        return isset($this->instances[$row]) ? intdiv(strlen($this->instances[$row]), 96) : 1;
    }

    /** @return list<Transform> every placement of the object's mesh */
    public function placements(int $row): array
    {
        if (! isset($this->instances[$row])) {
            return [$this->transform($row)];
        }
        $placements = [];
        for ($at = 0; $at < strlen($this->instances[$row]); $at += 96) {
            $placements[] = Affine::unpack($this->instances[$row], $at);
        }

        return $placements;
    }
}
