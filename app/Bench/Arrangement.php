<?php

declare(strict_types=1);

namespace App\Bench;

use VineShelf\Scene\Pick;

/**
 * How a person has the ledger open: lens, what is unfolded, columns, sorting. Kept with the desk, and under names as ledger layouts.
 *
 * @phpstan-type Kept array{lens?: string, layers?: list<int>, objects?: string, groups?: list<string>, columns?: list<array{string, int}>,
 *     sort?: array{string, bool}|null, follow?: bool, layout?: int, over?: list<string>, views?: array{int, string, string}|null}
 */
final readonly class Arrangement
{
    public const LENSES = [
        'layers' => 'Layers',
        'tags' => 'Tags',
        'sets' => 'Sets',
        'nesting' => 'Nesting',
        'objects' => 'Objects',
        'kinds' => 'Kinds',
        'materials' => 'Materials',
        'sources' => 'Sources',
    ];

    private const MOST_COLUMNS = 24;

    /** Tags and sets that the ledger is widened over at once, and pixels that each takes. */
    private const MOST_OVER = 120;

    private const OVER = 64;

    /**
     * @param array<int, true>    $layers  unfolded layers, by number
     * @param array<string, true> $groups  unfolded kinds, materials and sources, by row key
     * @param list<Column>        $columns
     */
    private function __construct(
        public string $lens,
        public array $layers,
        /** Unfolded objects. */
        public Pick $objects,
        public array $groups,
        public array $columns,
        /** A column's id or "name"; "" for the order of the model. */
        public string $sortBy,
        public bool $down,
        /** Whether the ledger scrolls to what is picked in the canvas. */
        public bool $follows,
        /** The layout it came from, 0 for none. */
        public int $layout,
        /** @var list<string> keys of the tags and sets that the ledger is widened over */
        public array $over,
        /** Which views it is widened over; null for none. */
        public ?ViewFilter $views = null,
    ) {}

    /**
     * @param array<string, mixed> $kept       as {@see toArray()} gives it, from the database
     * @param list<string>         $properties names of the properties that the files carry
     */
    public static function of(array $kept, array $properties): self
    {
        $numbers = static fn (string $what): array => array_fill_keys(
            array_filter(is_array($kept[$what] ?? null) ? $kept[$what] : [], is_int(...)),
            true,
        );
        $columns = [];
        $default = array_map(static fn (string $id): array => [$id, null], Column::DEFAULT);
        foreach (is_array($kept['columns'] ?? null) ? $kept['columns'] : $default as $column) {
            if (is_array($column) && is_string($column[0] ?? null)) {
                $columns[$column[0]] = Column::named($column[0], $properties, is_int($column[1] ?? null) ? $column[1] : null);
            }
        }
        $sort = is_array($kept['sort'] ?? null) ? $kept['sort'] : [];
        $by = is_string($sort[0] ?? null) ? $sort[0] : '';

        return new self(
            is_string($kept['lens'] ?? null) && isset(self::LENSES[$kept['lens']]) ? $kept['lens'] : 'layers',
            $numbers('layers'),
            self::unfolded($kept),
            array_fill_keys(array_filter(is_array($kept['groups'] ?? null) ? $kept['groups'] : [], is_string(...)), true),
            array_slice(array_values(array_filter($columns)), 0, self::MOST_COLUMNS),
            $by === 'name' || $by === 'picked' || Column::named($by, $properties) !== null ? $by : '',
            ($sort[1] ?? false) === true,
            ($kept['follow'] ?? true) !== false,
            is_int($kept['layout'] ?? null) ? $kept['layout'] : 0,
            self::overIn($kept),
            ViewFilter::of($kept['views'] ?? null),
        );
    }

    /** @return Kept */
    public function toArray(): array
    {
        return [
            'lens' => $this->lens,
            'layers' => array_keys($this->layers),
            'objects' => self::packed($this->objects),
            'groups' => array_map(strval(...), array_keys($this->groups)),
            'columns' => array_map(static fn (Column $column): array => [$column->id, $column->width], $this->columns),
            'sort' => $this->sortBy === '' ? null : [$this->sortBy, $this->down],
            'follow' => $this->follows,
            'layout' => $this->layout,
            'over' => $this->over,
            'views' => $this->views?->toArray(),
        ];
    }

    /**
     * The unfolded objects of a kept arrangement.
     *
     * @param array<string, mixed> $kept
     */
    public static function unfolded(array $kept): Pick
    {
        return Pick::unpack(is_string($kept['objects'] ?? null) ? (string) base64_decode($kept['objects'], true) : '');
    }

    /** As {@see unfolded()} reads it: models have tens of thousands of groups. */
    public static function packed(Pick $unfolded): string
    {
        return base64_encode($unfolded->pack());
    }

    /** Whether a column is there. */
    public function has(string $column): bool
    {
        foreach ($this->columns as $there) {
            if ($there->id === $column) {
                return true;
            }
        }

        return false;
    }

    public function isSorted(): bool
    {
        return $this->sortBy !== '';
    }

    /**
     * @param array<string, mixed> $kept
     *
     * @return list<string>
     */
    private static function overIn(array $kept): array
    {
        $given = is_array($kept['over'] ?? null) ? $kept['over'] : [];
        $keys = array_filter($given, static fn (mixed $key): bool => is_string($key) && preg_match('~^[TE]\d{1,9}$~D', $key) === 1);

        /** @var list<string> */
        return array_slice(array_values(array_unique($keys)), 0, self::MOST_OVER);
    }

    /** The tracks of the ledger's grid, for CSS. @param string $views those of views */
    public function tracks(string $views = ''): string
    {
        return 'minmax('.
            $this->least().
            'px, 1fr) '.
            implode(' ', array_map(static fn (Column $column): string => $column->width.'px', $this->columns)).
            str_repeat(' '.self::OVER.'px', count($this->over)).
            $views.
            ' 28px';
    }

    /** Pixels that the narrowest ledger with these columns takes. @param int $views pixels of columns for views */
    public function width(int $views = 0): int
    {
        $columns = array_sum(array_map(static fn (Column $column): int => $column->width, $this->columns));

        return 32 + $this->least() + $columns + self::OVER * count($this->over) + $views;
    }

    /** Pixels that names take at least: columns that are added to the side must not push them out of sight. */
    private function least(): int
    {
        return $this->over === [] && $this->views === null ? 150 : 210;
    }
}
