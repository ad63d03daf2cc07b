<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Models\Project;
use VineShelf\Scene\ColumnSource;
use VineShelf\Scene\MissingColumn;
use VineShelf\Scene\Scene;

/** The columns of one revision as they lie on the disk; what is lost is built again from the database. */
final class StoredColumns implements ColumnSource
{
    /** What {@see SceneQuery::facts()} brings, all at once. */
    private const FACTS = '~^(mesh|vertices|source|class(\.words)?|surfaces(\.lists)?|materials|sources|spots|properties|property\.\d+(\.words)?)$~';

    /** Columns that {@see \VineShelf\Facts\Derived} works out. */
    private const DERIVED = '~^(box|blocks|instances|depths|(ranked|bits|order|tally)\..+)$~';

    /** @param array<string, string> $files by column */
    public function __construct(private readonly SceneStore $store, private readonly Project $project, private array $files) {}

    public function column(string $name): string
    {
        $found = $this->store->read($this->files[$name] ?? '');
        if ($found === null && preg_match(self::DERIVED, $name) !== 1) {
            $this->files = preg_match(self::FACTS, $name) === 1
                ? $this->store->add($this->project, (new SceneQuery)->facts($this->project, new Scene($this)))
                : $this->store->build($this->project);
            $found = $this->store->read($this->files[$name] ?? '');
        }

        return $found ?? throw MissingColumn::named($name);
    }
}
