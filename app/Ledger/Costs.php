<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Bench\Column;
use App\Database\ReadSnapshot;
use VineShelf\Facts\Measure;
use VineShelf\Facts\Order;
use VineShelf\Facts\Ordered;
use VineShelf\Scene\Bits;
use VineShelf\Weights\Cost;
use VineShelf\Weights\Weight;

/**
 * What rows of the ledger cost to draw, in the columns that are there: at Full as files have it, and at the rungs in effect on the desk.
 * Whatever holds objects weighs what all of them do.
 */
final class Costs
{
    /** What is drawn at the rungs in effect, by column. */
    private const DRAWN = [
        'drawn' => Cost::Triangles,
        'drawnvertices' => Cost::Vertices,
        'drawncalls' => Cost::Calls,
        'drawnbytes' => Cost::Bytes,
    ];

    /** Seconds that an order is remembered. */
    private const REMEMBERED = 3600;

    /** @var list<string> columns that are there */
    private readonly array $columns;

    public function __construct(private readonly Bench $bench)
    {
        $this->columns = array_values(
            array_filter(
                array_map(static fn (Column $column): string => $column->id, $bench->arrangement()->columns),
                static fn (string $id): bool => self::has($id),
            ),
        );
    }

    /** Whether a column says what things cost. */
    public static function has(string $column): bool
    {
        return isset(self::DRAWN[$column]) || self::atFull($column, new Weight) !== null;
    }

    /**
     * @param \Closure(): Bits $rows
     *
     * @return array<string, string> by column
     */
    public function cells(\Closure $rows): array
    {
        return $this->cellsOf(fn (bool $isDrawn): Weight => $this->weight($rows(), $isDrawn));
    }

    /**
     * @param \Closure(bool): Weight $weight at the rungs in effect, or at Full
     *
     * @return array<string, string> by column
     */
    public function cellsOf(\Closure $weight): array
    {
        $known = $cells = [];
        foreach ($this->columns as $column) {
            $isDrawn = self::isDrawn($column);
            $is = $known[(int) $isDrawn] ??= $weight($isDrawn);
            $cells[$column] = $isDrawn
                ? self::shown(self::DRAWN[$column], self::DRAWN[$column]->of($is))
                : Measure::from($column)->shown(self::atFull($column, $is) ?? 0);
        }

        return $cells;
    }

    /** What of it the column says of an object, with what it holds. */
    public function ofObject(string $column, int $row): string
    {
        $cost = self::DRAWN[$column];
        $last = $cost === Cost::Bytes ? $row : $this->bench->scene()->end($row);
        $rows = Bits::ofRanges($this->bench->scene()->count(), [[$row, $last]]);

        return self::shown($cost, $cost->of($this->bench->weights()->inEffect($rows, $this->bench->seen()->rungs())));
    }

    public static function isDrawn(string $column): bool
    {
        return isset(self::DRAWN[$column]);
    }

    /** What rows are sorted by. */
    public function value(string $column, Bits $rows): int
    {
        return self::of($column, $this->weight($rows, self::isDrawn($column)));
    }

    /** What of a weight the column says. */
    public static function of(string $column, Weight $weight): int
    {
        return isset(self::DRAWN[$column]) ? self::DRAWN[$column]->of($weight) : self::atFull($column, $weight) ?? 0;
    }

    private function weight(Bits $rows, bool $isDrawn): Weight
    {
        $weights = $this->bench->weights();

        return $isDrawn ? $weights->inEffect($rows, $this->bench->seen()->rungs()) : $weights->full($rows);
    }

    /** All objects by what they cost at the rungs in effect. */
    public function order(string $column, bool $down): Ordered
    {
        $rungs = $this->bench->seen()->rungs();
        $project = $this->bench->project;
        $entry = "costs.$project->key.$project->revision.$column.".(int) $down.'.'.hash('xxh128', $rungs->bytes());
        $known = apcu_enabled() ? apcu_fetch($entry) : false;
        if (! is_string($known)) {
            $each = $this->bench->weights()->each(self::DRAWN[$column], $rungs);
            $known = Ordered::pack(Order::by($each, $this->bench->scene()->count(), $down));
            apcu_enabled() && ReadSnapshot::isOn() && apcu_store($entry, $known, self::REMEMBERED);
        }

        return Ordered::unpack($known);
    }

    private static function shown(Cost $cost, int $value): string
    {
        return $cost === Cost::Bytes ? Measure::bytes($value) : number_format($value);
    }

    private static function atFull(string $column, Weight $weight): ?int
    {
        return match ($column) {
            'triangles' => $weight->triangles,
            'vertices' => $weight->vertices,
            'calls' => $weight->calls,
            'geometry' => $weight->geometry,
            'texture' => $weight->textures,
            default => null,
        };
    }
}
