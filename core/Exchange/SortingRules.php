<?php

declare(strict_types=1);

namespace VineShelf\Exchange;

/**
 * A list that sorts, apart from any project, so that an office can use its order again. docs/sorting-rules.md describes the file,
 * docs/sorting-rules.schema.json defines it.
 */
final readonly class SortingRules
{
    public const FORMAT = 'vine-shelf sorting rules';

    public const MOST = 500;

    public const MOST_TAGS = 20;

    private const VERSION = 1;

    private const DEEPEST = 60;

    private const LONGEST = ['rule' => 4000, 'name' => 500, 'note' => 1000];

    /** @param list<SortingLine> $lines first come, first served */
    public function __construct(public array $lines) {}

    public function write(): string
    {
        return json_encode(
            [
                'format' => self::FORMAT,
                'version' => self::VERSION,
                'lines' => array_map(self::written(...), $this->lines),
            ],
            JSON_THROW_ON_ERROR | JSON_PRETTY_PRINT | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_INVALID_UTF8_SUBSTITUTE,
        )."\n";
    }

    /** @throws UnreadableSorting */
    public static function read(string $json): self
    {
        try {
            $read = json_decode($json, true, 12, JSON_THROW_ON_ERROR);
        } catch (\JsonException $broken) {
            throw UnreadableSorting::because('The file is not JSON: '.lcfirst($broken->getMessage()).'.');
        }
        if (! is_array($read) || ($read['format'] ?? null) !== self::FORMAT) {
            throw UnreadableSorting::because('The file is JSON, but no list of sorting rules: its format would be "'.self::FORMAT.'".');
        }
        if (($read['version'] ?? null) !== self::VERSION) {
            throw UnreadableSorting::because('The list of sorting rules is of another version than '.self::VERSION.'.');
        }
        $list = $read['lines'] ?? null;
        if (! is_array($list) || ! array_is_list($list)) {
            throw UnreadableSorting::at('lines', 'is not a list');
        }
        if (count($list) > self::MOST) {
            throw UnreadableSorting::at('lines', 'are '.number_format(count($list)).', and at most '.self::MOST.' are read');
        }
        $lines = [];
        foreach ($list as $at => $line) {
            $lines[] = is_array($line) ? self::line($line, "lines[$at]") : throw UnreadableSorting::at("lines[$at]", 'is not an object');
        }

        return new self($lines);
    }

    /** @return array<string, mixed> */
    private static function written(SortingLine $line): array
    {
        return ['rule' => $line->rule] +
            array_filter([
                'layer' => $line->layer,
                'tags' => $line->tags,
                'name' => $line->name,
                'only' => $line->only,
                'goesOn' => $line->goesOn,
                'off' => $line->isOff,
                'note' => $line->note,
            ]);
    }

    /** @param array<array-key, mixed> $line */
    private static function line(array $line, string $place): SortingLine
    {
        $text = static function (string $field) use ($line, $place): string {
            $value = $line[$field] ?? '';
            if (! is_string($value) || ! mb_check_encoding($value, 'UTF-8') || str_contains($value, "\0")) {
                throw UnreadableSorting::at("$place.$field", 'is not a text');
            }

            return mb_strlen($value) <= self::LONGEST[$field]
                ? trim($value)
                : throw UnreadableSorting::at("$place.$field", 'is longer than '.number_format(self::LONGEST[$field]).' characters');
        };
        $flag = static fn (string $field): bool => match ($line[$field] ?? false) {
            true => true,
            false => false,
            default => throw UnreadableSorting::at("$place.$field", 'is neither true nor false'),
        };
        $tags = $line['tags'] ?? [];
        if (! is_array($tags) || ! array_is_list($tags) || count($tags) > self::MOST_TAGS) {
            throw UnreadableSorting::at("$place.tags", 'is not a list of at most '.self::MOST_TAGS.' tags');
        }
        $rule = $text('rule');

        return new SortingLine(
            $rule === '' ? throw UnreadableSorting::at("$place.rule", 'is missing') : $rule,
            isset($line['layer']) && $line['layer'] !== [] ? self::path($line['layer'], "$place.layer") : [],
            array_map(static fn (int $at): array => self::path($tags[$at], "$place.tags[$at]"), array_keys($tags)),
            $text('name'),
            $flag('only'),
            $flag('goesOn'),
            $flag('off'),
            $text('note'),
        );
    }

    /** @return non-empty-list<string> a path is a list of names, or one text with " / " between them */
    private static function path(mixed $path, string $place): array
    {
        $names = is_string($path) ? explode(' / ', $path) : $path;
        if (! is_array($names) || ! array_is_list($names) || $names === [] || count($names) > self::DEEPEST) {
            throw UnreadableSorting::at($place, 'is not a path of 1 to '.self::DEEPEST.' names');
        }
        $read = [];
        foreach ($names as $name) {
            $clean = is_string($name) ? trim((string) preg_replace('~\s+~u', ' ', $name)) : '';
            if ($clean === '' || mb_strlen($clean) > 200 || str_contains((string) $name, "\0")) {
                throw UnreadableSorting::at($place, 'has a name that is empty, longer than 200 characters, or no text');
            }
            $read[] = $clean;
        }

        return $read;
    }
}
