<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Models\Project;
use VineShelf\Facts\Derived;
use VineShelf\Scene\ColumnSource;
use VineShelf\Scene\MissingColumn;
use VineShelf\Scene\Scene;

/** The columns of one revision as they lie on the disk; what is lost or cut short is built again from the database. */
final class StoredColumns implements ColumnSource
{
    /** What {@see SceneQuery::facts()} brings, all at once. */
    private const FACTS =
        '~^(mesh|vertices|source|class(\.words)?|surfaces(\.lists)?|materials|pictures|sources|spots'.
        '|properties|property\.\d+(\.words)?)$~D';

    private ?Manifest $base = null;

    private ?Manifest $facts = null;

    /** @var array<string, string> columns that were just built */
    private array $built = [];

    private readonly IndexFiles $files;

    public function __construct(private readonly SceneStore $store, private readonly Project $project)
    {
        $this->files = new IndexFiles($project);
    }

    public function column(string $name): string
    {
        return match (true) {
            isset($this->built[$name]) => $this->built[$name],
            Derived::has($name) => $this->derivedColumn($name),
            preg_match(self::FACTS, $name) === 1 => $this->factsColumn($name),
            default => $this->baseColumn($name),
        } ?? throw MissingColumn::named($name);
    }

    /** Keeps a derived column that was worked out. */
    public function keep(string $name, string $bytes): void
    {
        $from = $this->names($name)->from($name);
        if ($from !== null) {
            $this->files->keepDerivedColumn($name, $from, $bytes);
        }
    }

    private function derivedColumn(string $name): ?string
    {
        $from = $this->names($name)->from($name);

        return $from === null ? null : $this->files->derivedColumn($name, $from);
    }

    private function baseColumn(string $name): ?string
    {
        return $this->fromFile($this->base(), $name) ?? ($this->built[$name] ?? $this->rebuilt($name));
    }

    private function factsColumn(string $name): ?string
    {
        $found = $this->fromFile($this->facts(), $name) ?? ($this->built[$name] ?? null);
        if ($found === null && ! isset($this->built['properties'])) {
            $this->rebuildFacts();
            $found = $this->built[$name] ?? null;
        }

        return $found;
    }

    private function fromFile(Manifest $manifest, string $name): ?string
    {
        [$file, $length] = $manifest->columns[$name] ?? ['', 0];

        return $file === '' ? null : $this->files->column($file, $length);
    }

    private function rebuilt(string $name): ?string
    {
        if (! isset($this->built['kind'])) {
            $this->rebuild();
        }

        return $this->built[$name] ?? null;
    }

    private function names(string $derived): DerivedNames
    {
        // A column of the scene alone does not wait for what the files say.
        $needsFacts = array_filter(self::roots($derived), static fn (string $name): bool => preg_match(self::FACTS, $name) === 1) !== [];

        return new DerivedNames($this->base(), $needsFacts ? $this->facts() : null);
    }

    /** @return list<string> the columns that a derived one goes back to */
    private static function roots(string $name): array
    {
        return Derived::has($name) ? array_merge(...array_map(self::roots(...), Derived::needs($name))) : [$name];
    }

    private function base(): Manifest
    {
        $this->base ??= $this->files->manifest($this->files->base($this->project->revision));
        if ($this->base === null && ! isset($this->built['kind'])) {
            $this->rebuild();
        }

        return $this->base ?? new Manifest('', []);
    }

    private function facts(): Manifest
    {
        $this->facts ??= $this->base()->stamp === '' ? null : $this->files->manifest($this->files->facts($this->base()->stamp));
        if ($this->facts === null && ! isset($this->built['properties'])) {
            $this->rebuildFacts();
        }

        return $this->facts ?? new Manifest('', []);
    }

    private function rebuild(): void
    {
        [$this->base, $built] = $this->store->build($this->project);
        $this->built = $built + $this->built;
    }

    private function rebuildFacts(): void
    {
        [$this->facts, $built] = $this->store->buildFacts($this->project, $this->base()->stamp, new Scene($this));
        $this->built = $built + $this->built;
    }
}
