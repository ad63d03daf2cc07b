<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Models\Project;
use VineShelf\Facts\Derived;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Scene\ColumnSource;
use VineShelf\Scene\MissingColumn;
use VineShelf\Scene\Scene;

/**
 * The index of a project while a change of it is being written, which may still be given up: nothing of it is kept for others. What a
 * change has written so far is in {@see SceneStore::columns()} once {@see goOn()} has been told.
 */
final class Unfinished implements ColumnSource
{
    private static bool $isOn = false;

    private static ?self $now = null;

    /** @var array<string, string>|null what the files say, read when it is first asked for */
    private ?array $facts = null;

    /**
     * @param array<string, string> $columns base columns; all of them where there is nothing before
     */
    private function __construct(
        private readonly Project $project,
        private readonly array $columns,
        private readonly ?ColumnSource $before,
    ) {}

    /**
     * @template T
     *
     * @param \Closure(): T $write
     *
     * @return T
     */
    public static function during(\Closure $write): mixed
    {
        [$wasOn, $was] = [self::$isOn, self::$now];
        self::$isOn = true;
        try {
            return $write();
        } finally {
            [self::$isOn, self::$now] = [$wasOn, $was];
        }
    }

    /** Whether what is in the database now may still be taken back. */
    public static function isOn(): bool
    {
        return self::$isOn;
    }

    /**
     * A part of the change is written, more is to come.
     *
     * @param array<string, string>|null $changed base columns that differ since then; null where the rows are others
     */
    public static function goOn(Project $project, ?array $changed): void
    {
        $before = self::$now ?? new StoredColumns(new SceneStore, clone $project);
        self::$now =
            $changed === null
                ? new self(clone $project, (new SceneQuery)->columns($project), null)
                : new self(clone $project, $changed, $before);
    }

    /** What is written of a change of the project so far; null where that is nothing yet. */
    public static function of(Project $project): ?DerivedColumns
    {
        return self::$now?->project->id === $project->id ? new DerivedColumns(self::$now) : null;
    }

    public function column(string $name): string
    {
        if (isset($this->columns[$name])) {
            return $this->columns[$name];
        }
        if (Derived::has($name)) {
            throw MissingColumn::named($name);
        }
        if ($this->before !== null) {
            return $this->before->column($name);
        }
        $this->facts ??= (new SceneQuery)->facts($this->project, new Scene($this));

        return $this->facts[$name] ?? throw MissingColumn::named($name);
    }
}
