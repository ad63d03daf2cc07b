<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\SortingRules\DryRun;
use App\SortingRules\StoredLine;
use VineShelf\Scene\Bits;

/** What the sorting rules would do, in a column of the ledger: where an object would go, how many would come to a layer and leave it. */
final class Forecast
{
    public const COLUMN = 'sorted';

    private ?DryRun $dry = null;

    private readonly bool $isOn;

    public function __construct(private readonly Bench $bench)
    {
        $this->isOn = $bench->arrangement()->has(self::COLUMN);
    }

    /** @return array<string, string> by column, none where the column is not there */
    public function ofLayer(int $number): array
    {
        if (! $this->isOn) {
            return [];
        }
        $comes = 0;
        foreach ($this->bench->layers()->withNested($number) as $layer) {
            $comes += ($this->dry()->run->filed[$layer] ?? null)?->count() ?? 0;
        }
        $goes = 0;
        $layers = array_fill_keys($this->bench->layers()->withNested($number), true);
        $rows = $this->bench->scene()->layers()->rowsOf($layers);
        foreach ($this->dry()->run->filed as $filed) {
            $goes += $filed->and($rows)->count();
        }
        // What moves within it neither comes nor goes.
        $within = 0;
        foreach ($layers as $layer => $_) {
            $within += ($this->dry()->run->filed[$layer] ?? null)?->and($rows)->count() ?? 0;
        }

        return [self::COLUMN => self::inWords($comes - $within, $goes - $within)];
    }

    /**
     * @param \Closure(): Bits $rows
     *
     * @return array<string, string>
     */
    public function of(\Closure $rows): array
    {
        if (! $this->isOn) {
            return [];
        }
        $changed = $this->dry()->run->changed()->and($rows())->count();

        return [self::COLUMN => $changed === 0 ? '' : number_format($changed).' otherwise'];
    }

    /** The layer that an object would go under; empty where it stays. */
    public function ofObject(int $row): string
    {
        foreach ($this->dry()->run->filed as $layer => $rows) {
            if ($rows->has($row)) {
                return '→ '.$this->dry()->layerPath($layer);
            }
        }

        return '';
    }

    /** @return list<Bits> objects that move, those that go to one layer together */
    public function sets(): array
    {
        return array_values($this->dry()->run->filed);
    }

    private function dry(): DryRun
    {
        return $this->dry ??= new DryRun($this->bench, StoredLine::all($this->bench->project));
    }

    private static function inWords(int $comes, int $goes): string
    {
        return implode(' ', array_filter([$comes > 0 ? '+'.number_format($comes) : '', $goes > 0 ? '−'.number_format($goes) : '']));
    }
}
