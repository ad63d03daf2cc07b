<?php

declare(strict_types=1);

namespace VineShelf\Exchange;

use VineShelf\Colours\Line;
use VineShelf\Scene\Bits;

/**
 * How a project is sorted, apart from the project: layers, folders, tags, sets and who belongs to what, objects by the stable keys of their
 * sources. docs/sorting.md describes the file, docs/sorting.schema.json defines it.
 *
 * @phpstan-type Row array{path: list<string>, colour?: string, line?: Line, note?: string, lock?: int, oneAtATime?: bool, rule?: string,
 *     holds?: string, objects?: Bits}
 */
final readonly class Sorting
{
    public const FORMAT = 'vine-shelf sorting';

    private const VERSION = 1;

    private const MOST_ROWS = 20_000;

    private const DEEPEST = 60;

    /**
     * @param list<array{string, string}> $objects source and stable key; members are numbered by their place here, from 1
     * @param list<Row>                   $layers  in the order on screen, as are the following
     * @param list<Row>                   $folders
     * @param list<Row>                   $tags
     * @param list<Row>                   $sets
     * @param array<int, Bits>            $locks   objects by their own lock
     */
    public function __construct(
        public array $objects,
        public array $layers,
        public array $folders,
        public array $tags,
        public array $sets,
        public array $locks,
    ) {}

    public function write(): string
    {
        $sources = array_values(array_unique(array_column($this->objects, 0)));
        $index = array_flip($sources);
        $locks = array_map(static fn (Bits $objects): array => $objects->ranges(), $this->locks);

        return json_encode(
            [
                'format' => self::FORMAT,
                'version' => self::VERSION,
                'sources' => $sources,
                'objects' => array_map(static fn (array $object): array => [$index[$object[0]], $object[1]], $this->objects),
                'layers' => array_map(self::written(...), $this->layers),
                'folders' => array_map(self::written(...), $this->folders),
                'tags' => array_map(self::written(...), $this->tags),
                'sets' => array_map(self::written(...), $this->sets),
                'locks' => (object) $locks,
            ],
            JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE,
        )."\n";
    }

    /** @throws UnreadableSorting */
    public static function read(string $json): self
    {
        try {
            $read = json_decode($json, true, 24, JSON_THROW_ON_ERROR);
        } catch (\JsonException $broken) {
            throw UnreadableSorting::because('The file is not JSON: '.lcfirst($broken->getMessage()).'.');
        }
        if (! is_array($read) || ($read['format'] ?? null) !== self::FORMAT) {
            throw UnreadableSorting::because('The file is JSON, but not a sorting: its format would be "'.self::FORMAT.'".');
        }
        if (($read['version'] ?? null) !== self::VERSION) {
            throw UnreadableSorting::because('The sorting is of another version than '.self::VERSION.'.');
        }
        $sources = self::strings(self::list($read, 'sources'), 'sources');
        $objects = [];
        foreach (self::list($read, 'objects') as $at => $object) {
            if (! is_array($object) || ! is_int($object[0] ?? null) || ! isset($sources[$object[0]]) || ! is_string($object[1] ?? null)) {
                throw UnreadableSorting::at("objects[$at]", 'is not the index of a source and a key');
            }
            $objects[] = [$sources[$object[0]], $object[1]];
        }
        $count = count($objects);
        $locks = [];
        foreach (self::list($read, 'locks') as $lock => $ranges) {
            if (! in_array($lock, [1, 2], true)) {
                throw UnreadableSorting::at('locks', 'has another step than 1 and 2');
            }
            $locks[$lock] = self::members($ranges, $count, "locks.$lock");
        }

        return new self(
            $objects,
            self::rows($read, 'layers', $count),
            self::rows($read, 'folders', $count),
            self::rows($read, 'tags', $count),
            self::rows($read, 'sets', $count),
            $locks,
        );
    }

    /**
     * @param Row $row
     *
     * @return array<string, mixed>
     */
    private static function written(array $row): array
    {
        $written = $row;
        if (isset($row['line'])) {
            $written['line'] = self::lineName($row['line']);
        }
        if (isset($row['objects'])) {
            $written['objects'] = $row['objects']->ranges();
        }

        return $written;
    }

    private static function lineName(Line $line): string
    {
        return strtolower((string) preg_replace('~(?<=[a-z])(?=[A-Z])~', '-', $line->name));
    }

    /**
     * @param array<array-key, mixed> $read
     *
     * @return list<Row>
     */
    private static function rows(array $read, string $what, int $count): array
    {
        $list = self::list($read, $what);
        if (count($list) > self::MOST_ROWS) {
            throw UnreadableSorting::at(
                $what,
                'are '.number_format(count($list)).', and at most '.number_format(self::MOST_ROWS).' are read',
            );
        }
        $rows = [];
        foreach ($list as $at => $row) {
            $rows[] = self::row(is_array($row) ? $row : [], "{$what}[$at]", $count);
        }

        return $rows;
    }

    /**
     * @param array<array-key, mixed> $row
     *
     * @return Row
     */
    private static function row(array $row, string $place, int $count): array
    {
        $path = self::strings(is_array($row['path'] ?? null) ? $row['path'] : [], "$place.path");
        if ($path === [] || count($path) > self::DEEPEST) {
            throw UnreadableSorting::at("$place.path", 'has to have 1 to '.self::DEEPEST.' names');
        }
        $read = ['path' => $path];
        foreach (
            ['colour' => '~^#[0-9a-f]{6}$~Di', 'note' => '~~', 'rule' => '~~', 'holds' => '~^(tags|sets|views)$~D'] as $field => $like
        ) {
            if (isset($row[$field])) {
                if (! is_string($row[$field]) || preg_match($like, $row[$field]) !== 1) {
                    throw UnreadableSorting::at("$place.$field", 'is not what it should be');
                }
                $read[$field] = $field === 'colour' ? strtolower($row[$field]) : $row[$field];
            }
        }
        if (isset($row['line'])) {
            $read['line'] = self::line($row['line'], $place);
        }
        if (isset($row['lock'])) {
            $read['lock'] = in_array($row['lock'], [0, 1, 2], true)
                ? $row['lock']
                : throw UnreadableSorting::at("$place.lock", 'is not 0, 1 or 2');
        }
        if (isset($row['oneAtATime'])) {
            $read['oneAtATime'] = $row['oneAtATime'] === true;
        }
        if (isset($row['objects'])) {
            $read['objects'] = self::members($row['objects'], $count, "$place.objects");
        }

        return $read;
    }

    private static function line(mixed $name, string $place): Line
    {
        foreach (Line::cases() as $line) {
            if (self::lineName($line) === $name) {
                return $line;
            }
        }
        throw UnreadableSorting::at("$place.line", 'is not none, solid, dashed, dotted or dash-dot');
    }

    private static function members(mixed $ranges, int $count, string $place): Bits
    {
        $pairs = [];
        $last = 0;
        foreach (is_array($ranges) ? $ranges : throw UnreadableSorting::at($place, 'is not a list of ranges') as $range) {
            $from = is_array($range) ? $range[0] ?? null : null;
            $to = is_array($range) ? $range[1] ?? null : null;
            if (! is_int($from) || ! is_int($to) || $from <= $last || $to < $from || $to > $count) {
                throw UnreadableSorting::at($place, 'is not a list of ascending ranges of objects that there are');
            }
            $pairs[] = [$from, $to];
            $last = $to;
        }

        return Bits::ofRanges($count, $pairs);
    }

    /**
     * @param array<array-key, mixed> $read
     *
     * @return array<array-key, mixed>
     */
    private static function list(array $read, string $what): array
    {
        return is_array($read[$what] ?? null) ? $read[$what] : throw UnreadableSorting::at($what, 'is missing');
    }

    /**
     * @param array<array-key, mixed> $values
     *
     * @return list<string>
     */
    private static function strings(array $values, string $place): array
    {
        $strings = [];
        foreach ($values as $value) {
            $strings[] = is_string($value) ? $value : throw UnreadableSorting::at($place, 'is not a list of texts');
        }

        return $strings;
    }
}
