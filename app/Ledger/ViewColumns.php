<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Models\View;
use Illuminate\Http\Request;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;

/** The ledger widened over views: for each row and each view the rung that the view keeps for it. Columns come in windows, as rows do. */
final class ViewColumns
{
    /** Pixels of a column, and of one where there are many. */
    public const WIDE = 66;

    public const NARROW = 34;

    /** So many views stand beside each other at their full width. */
    private const MANY = 12;

    /** @var list<View> */
    public readonly array $all;

    /** @var list<View> those of the window */
    public readonly array $views;

    public readonly int $left;

    /** @var array<int, Settings> by number of the view */
    private array $settings = [];

    /** @var array<int, GivesBack> by number of the view */
    private array $givesBack = [];

    /** @var array<int, Bits> object numbers, by number of the view */
    private array $newcomers = [];

    public function __construct(private readonly Bench $bench, int $left = 0, int $across = 60)
    {
        $this->all = $bench->arrangement()->views?->views($bench->shelf()) ?? [];
        $this->left = max(0, min($left, count($this->all) - $across));
        $this->views = array_slice($this->all, $this->left, $across);
    }

    public static function asked(Bench $bench, Request $request): self
    {
        return new self($bench, max(0, $request->integer('left')), min(120, max(10, $request->integer('across', 40))));
    }

    public function isOn(): bool
    {
        return $this->bench->arrangement()->views !== null;
    }

    public function isNarrow(): bool
    {
        return count($this->all) > self::MANY;
    }

    /** Pixels. */
    public function width(): int
    {
        return $this->isNarrow() ? self::NARROW : self::WIDE;
    }

    /** The tracks of the ledger's grid for these columns, those before and after the window as one each. */
    public function tracks(): string
    {
        if (! $this->isOn()) {
            return '';
        }
        $width = $this->width();
        $after = count($this->all) - $this->left - count($this->views);

        return ' '.$width * $this->left.'px'.str_repeat(" {$width}px", count($this->views)).' '.$width * $after.'px';
    }

    /** Pixels that all of them take. */
    public function pixels(): int
    {
        return count($this->all) * $this->width();
    }

    /** What a click on a cell of a view gives back. */
    public function givesBack(View $view): GivesBack
    {
        return $this->givesBack[$view->no] ??= new GivesBack($view->beforeHiding());
    }

    public function settings(View $view): Settings
    {
        return $this->settings[$view->no] ??= $view->settings();
    }

    /**
     * What a view keeps for a row.
     *
     * @return array{string, bool} "0" to "5" for a rung, "" for nothing, "new" for an object that the view does not know, "none" for a row
     *     or a view without rungs; and whether it is not all of it
     */
    public function cell(Row $row, View $view): array
    {
        if (! $view->keepsRungs() || ! $row->isSetItself()) {
            return ['none', false];
        }
        $settings = $this->settings($view);
        $number = $row->number();
        if ($row->isObject()) {
            $rung = $settings->object($number);

            return $rung === null && $this->isNew($view, $number) ? ['new', false] : [(string) ($rung->value ?? ''), false];
        }
        $rung = match ($row->key[0]) {
            'L' => $settings->layer($number),
            'T' => $settings->tag($number),
            default => $settings->folder($number),
        };
        $alone = $row->isLayer() ? $settings->layerAlone($number) : null;

        return $alone !== null && $alone->value < ($rung->value ?? Rung::Full->value)
            ? [(string) $alone->value, true]
            : [(string) ($rung->value ?? ''), false];
    }

    /** Numbers of the objects that a view does not know. */
    private function newTo(View $view): Bits
    {
        $scene = $this->bench->scene();

        return $scene->numberBits($this->bench->newTo()->known($view)->newcomerRows($scene, $this->settings($view)));
    }

    private function isNew(View $view, int $number): bool
    {
        if (! isset($this->newcomers[$view->no])) {
            $this->newcomers[$view->no] = $this->bench->newTo()->count($view) === 0 ? Bits::none(0) : $this->newTo($view);
        }
        $new = $this->newcomers[$view->no];

        return $number <= $new->length && $new->has($number);
    }
}
