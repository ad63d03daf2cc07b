<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Models\View;
use Illuminate\Http\Request;
use VineShelf\Rungs\Rung;

/** A block of the grid as a request names it: a stretch of rows, rows by key, or all rows of which a view says something; and columns. */
final class Block
{
    private const MOST_ROWS = 100_000;

    /** @var list<string>|null */
    private ?array $keys = null;

    /**
     * @param \Closure(): list<string> $find keys of the rows
     * @param list<View>               $views
     */
    private function __construct(
        private readonly \Closure $find,
        public readonly array $views,
        public readonly bool $hasDesk,
        public readonly bool $hasPictures,
    ) {}

    /**
     * @param int $rows rows, and columns, that there are at least from the first on, for what is pasted at one cell
     *
     * @throws Refused when it names nothing
     */
    public static function in(Request $request, Bench $bench, int $rows = 1, int $across = 1): self
    {
        $columns = array_values(array_filter(explode(',', $request->string('columns')->value())));
        $views = [];
        foreach ($columns as $key) {
            $view = preg_match('~^V\d{1,9}$~D', $key) === 1 ? $bench->shelf()->members[(int) substr($key, 1)] ?? null : null;
            if ($view !== null) {
                $views[] = $view;
            } elseif (! in_array($key, ['D', 'O'], true)) {
                throw new Refused('That view is no longer there.', 'columns');
            }
        }
        if ($columns === []) {
            throw new Refused('Say which views are meant.', 'columns');
        }

        return new self(
            static fn (): array => self::keysIn($request, $bench, $rows),
            count($views) < $across && count($views) === 1 ? self::onwards($bench, $views[0], $across) : $views,
            in_array('D', $columns, true),
            in_array('O', $columns, true),
        );
    }

    /** @return list<string> keys of the rows that have a rung of their own */
    public function keys(): array
    {
        return $this->keys ??= ($this->find)();
    }

    /** @return list<string> keys of all rows that the ledger has now and that have a rung of their own */
    public static function allKeys(Request $request, Bench $bench): array
    {
        $lens = Ledger::asked($bench, $request)->lens();

        return self::own($bench, $lens->keys(0, min(self::MOST_ROWS, $lens->total())));
    }

    /** @return list<View> views from one on, as the ledger has them beside each other */
    private static function onwards(Bench $bench, View $first, int $count): array
    {
        $all = $bench->arrangement()->views?->views($bench->shelf()) ?? [];
        $at = array_search($first->no, array_map(static fn (View $view): int => $view->no, $all), true);

        return $at === false ? [$first] : array_slice($all, $at, $count);
    }

    /** @return list<string> */
    private static function keysIn(Request $request, Bench $bench, int $rows): array
    {
        $where = $request->string('where')->value();
        if ($where !== '') {
            return self::saying($bench, $where);
        }
        if (preg_match('~^(\d{1,9})-(\d{1,9})$~D', $request->string('span')->value(), $span) === 1) {
            [$from, $to] = [min((int) $span[1], (int) $span[2]), max((int) $span[1], (int) $span[2])];
            $lens = Ledger::asked($bench, $request)->lens();
            $count = $to === $from ? max($rows, 1) : $to - $from + 1;
            if (min($count, $lens->total() - $from) > self::MOST_ROWS) {
                throw new Refused('At most '.number_format(self::MOST_ROWS).' rows are set at once; narrow them by a rule.', 'span');
            }

            return self::own($bench, $lens->keys($from, min($count, self::MOST_ROWS)));
        }
        $keys = array_values(array_filter(explode(',', $request->string('keys')->value())));

        return $keys === [] ? throw new Refused('Say which rows are meant.', 'keys') : self::own($bench, $keys);
    }

    /**
     * @param list<string> $keys
     *
     * @return list<string> those that have a rung of their own
     *
     * @throws Refused when none has
     */
    private static function own(Bench $bench, array $keys): array
    {
        $own = array_values(
            array_filter(
                $keys,
                static fn (string $key): bool => match ($key[0]) {
                    'L', 'O', 'T' => preg_match('~^[LOT]\d{1,9}$~D', $key) === 1,
                    'F' => $bench->tags()->hasFolder((int) substr($key, 1)),
                    default => false,
                },
            ),
        );

        return $own === [] ? throw new Refused('These rows have no rung of their own.', 'keys') : $own;
    }

    /**
     * All rows of which a view says something: "V3:0" for Hidden, "V3:" for any rung.
     *
     * @return list<string>
     */
    private static function saying(Bench $bench, string $where): array
    {
        $view = preg_match('~^V(\d{1,9}):([0-5]?)$~D', $where, $found) === 1 ? $bench->shelf()->members[(int) $found[1]] ?? null : null;
        if ($view === null || ! $view->keepsRungs()) {
            throw new Refused('That view keeps no rungs, or is no longer there.', 'where');
        }
        $settings = $view->settings();
        $fits = static fn (?Rung $rung): bool => $rung !== null && ($found[2] === '' || (int) $found[2] === $rung->value);
        $keys = [];
        foreach ($bench->layers()->walk() as [$layer]) {
            $keys = [...$keys, ...$fits($settings->layer($layer->number)) ? ["L$layer->number"] : []];
        }
        foreach ($bench->tags()->all() as $tag) {
            $keys = [...$keys, ...$fits($settings->tag($tag->number)) ? ["T$tag->number"] : []];
        }
        foreach ($bench->tags()->tree->folders as $folder) {
            $keys = [...$keys, ...$fits($settings->folder($folder->number)) ? ["F$folder->number"] : []];
        }
        foreach ([...array_keys($settings->objects), ...array_keys($settings->objectsAlone)] as $rung) {
            if ($fits(Rung::from($rung))) {
                $numbers = ($settings->objects[$rung] ?? $settings->objectsAlone[$rung])->rows();
                array_push($keys, ...array_map(static fn (int $number): string => "O$number", $numbers));
            }
        }

        return $keys === []
            ? throw new Refused("$view->name says that of no row.", 'where')
            : array_slice(array_values(array_unique($keys)), 0, self::MOST_ROWS);
    }
}
