<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Bench\Side;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Why\Holder;
use VineShelf\Why\Holders;

/** Objects that were to be raised and are still below, and what holds them there. */
final readonly class HeldDown
{
    /** As many of the causes are named, each with a button that mends it. */
    private const NAMED = 2;

    /** @param list<Holder> $holders those that hold most first */
    private function __construct(
        private Bench $bench,
        public Side $side,
        private int $of,
        private int $count,
        private bool $isHidden,
        public array $holders,
    ) {}

    /**
     * @param Bits $rows   of the objects that were to be raised
     * @param Rung $wanted at least; Box for anything but hidden
     *
     * @return self|null null where all came as far
     */
    public static function below(Bench $bench, Side $side, Bits $rows, Rung $wanted): ?self
    {
        $rungs = $side->inEffect->rungs();
        $held = $rows->without($rungs->atLeast($wanted->value));
        if ($held->isEmpty()) {
            return null;
        }
        $holders = array_filter(
            Holders::of($held, $bench->scene(), $bench->organizers(), $side->settings, $side->isolation),
            static fn (Holder $holder): bool => $holder->rung !== null && $holder->rung->value < $wanted->value,
        );

        return new self(
            $bench,
            $side,
            $rows->count(),
            $held->count(),
            $held->without($rungs->being(Rung::Hidden->value))->isEmpty(),
            array_values($holders),
        );
    }

    /** @return list<Holder> those that are named in the sentence */
    public function named(): array
    {
        return array_slice($this->holders, 0, self::NAMED);
    }

    /** For example "8 of 93 stay hidden: 5 by tag Wet, 3 by settings of the objects themselves." */
    public function inWords(): string
    {
        $text = new WhyText($this->bench, $this->side->isOutput);
        $some = $this->count === $this->of ? ($this->of === 1 ? 'It' : 'All '.number_format($this->of)) : $this->some();
        $stay = ($this->count === 1 ? 'stays' : 'stay').($this->isHidden ? ' hidden' : ' below that').
            ($this->side->isOutput ? ' in pictures' : '');
        $by = array_map(
            fn (Holder $holder): string => ($holder->rows->count() === $this->count ? '' : number_format($holder->rows->count()).' ').
                "by {$text->holds($holder)}",
            $this->named(),
        );
        $more = count($this->holders) - count($by);

        return "$some $stay".($by === [] ? '' : ': '.implode(', ', $by)).($more > 0 ? " and $more more" : '').'.';
    }

    /** What a button says that mends one cause. */
    public function mend(Holder $holder): string
    {
        $text = new WhyText($this->bench, $this->side->isOutput);

        return in_array($holder->what, ['isolation', 'ceiling'], true) ? $text->mend($holder) : "Raise {$text->holds($holder)}";
    }

    private function some(): string
    {
        return number_format($this->count).' of '.number_format($this->of);
    }
}
