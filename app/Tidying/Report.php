<?php

declare(strict_types=1);

namespace App\Tidying;

use App\Bench\Bench;
use VineShelf\Scene\Bits;
use VineShelf\Tidy\Check;
use VineShelf\Tidy\Checks;
use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Names;

/**
 * What the checks have found, as it is kept: how many, and the first things of each.
 *
 * @phpstan-type Entry array{id: string, many: int, objects: int, items: list<array{string, string, int, list<string>}>,
 *     names?: list<array{string, string}>}
 */
final readonly class Report
{
    /** Things of each check that are shown. */
    private const SHOWN = 60;

    /** Names of each mend that are shown before it. */
    private const NAMES = 3;

    /** @param list<Entry> $entries those that found something */
    private function __construct(public array $entries) {}

    /** @param \Closure(int): void $told hears how many hundredths are done */
    public static function made(Bench $bench, \Closure $told): self
    {
        $told(0);
        $looking = new Looking($bench);
        $checks = Checks::all();
        $entries = [];
        $done = 0;
        foreach ($checks as $check) {
            $told(10 + intdiv(90 * $done++, count($checks)));
            $items = $looking->find($check);
            if ($items !== []) {
                $entries[] = self::entry($check, $items, $looking->model);
            }
        }

        return new self($entries);
    }

    public function pack(): string
    {
        return (string) gzdeflate(json_encode($this->entries, JSON_THROW_ON_ERROR | JSON_INVALID_UTF8_SUBSTITUTE), 3);
    }

    public static function unpack(string $packed): self
    {
        $entries = $packed === '' ? [] : json_decode((string) gzinflate($packed), true);

        /** @var list<Entry> $entries */
        $entries = is_array($entries) ? $entries : [];

        return new self(array_values(array_filter($entries, static fn (array $entry): bool => isset(Checks::all()[$entry['id']]))));
    }

    /**
     * @param non-empty-list<Item> $items
     *
     * @return Entry
     */
    private static function entry(Check $check, array $items, Model $model): array
    {
        $rows = $items[0]->rows;
        foreach ($items as $item) {
            $rows = $rows->or($item->rows);
        }

        return [
            'id' => $check->id(),
            'many' => $check->countsItems() ? count($items) : $rows->count(),
            'objects' => $rows->count(),
            'items' => array_map(
                static fn (Item $item): array => [$item->key, mb_strimwidth($item->says, 0, 300, '…'), $item->rows->count(), $item->of],
                array_slice($items, 0, self::SHOWN),
            ),
            'names' => self::names($check, $model, $rows),
        ];
    }

    /** @return list<array{string, string}> what some of the objects are called, and would be if that was mended */
    private static function names(Check $check, Model $model, Bits $rows): array
    {
        $names = [];
        foreach (array_keys($check->mends()) as $mend) {
            foreach (array_slice(Names::by($mend, $model, $rows) ?? [], 0, self::NAMES, true) as $row => $name) {
                $names[] = [$model->names[$row], $name];
            }
        }

        return $names;
    }
}
