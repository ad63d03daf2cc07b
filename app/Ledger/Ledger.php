<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Arrangement;
use App\Bench\Bench;
use App\Bench\Found;
use App\Bench\Refused;
use Illuminate\Http\Request;
use VineShelf\Rules\Lexer;
use VineShelf\Scene\Bits;

/** The ledger as a person has it open: lens, what is unfolded, sorting, and the rule that narrows it. */
final class Ledger
{
    private ?Lens $lens = null;

    public readonly string $name;

    public readonly string $words;

    /** The views that it is widened over. */
    public readonly ViewColumns $columns;

    /** Part of the names of the layers, tags or sets to show; "" for all. */
    public readonly string $named;

    public function __construct(
        private readonly Bench $bench,
        string $lens,
        string $words,
        public readonly int $from = 0,
        public readonly int $count = 60,
        string $named = '',
        ?ViewColumns $columns = null,
    ) {
        $this->columns = $columns ?? new ViewColumns($bench);
        $this->name = isset(Arrangement::LENSES[$lens]) ? $lens : $bench->arrangement()->lens;
        $this->words = trim($words);
        $this->named = trim($named);
    }

    /** As a request wants to see it: lens, words, and which rows. */
    public static function asked(Bench $bench, Request $request): self
    {
        return new self(
            $bench,
            $request->string('lens')->value(),
            mb_substr($request->string('words')->value(), 0, Lexer::LONGEST + 1),
            max(0, $request->integer('from')),
            min(200, max(10, $request->integer('count', 60))),
            mb_substr($request->string('named')->value(), 0, 200),
            ViewColumns::asked($bench, $request),
        );
    }

    public function lens(): Lens
    {
        if ($this->lens === null) {
            $arrangement = $this->bench->arrangement();
            $order = (new Sorting($this->bench))->order($arrangement->sortBy, $arrangement->down);
            $found = $this->found()->rows;
            $views = $arrangement->views;
            if ($views !== null && $views->only !== '') {
                return $this->lens = new SetRowsLens($this->bench, $views->views($this->bench->shelf()), $views->only === 'differ', $found);
            }
            $this->lens = match ($this->name) {
                'nesting' => new NestingLens($this->bench, $arrangement->objects, $order, $found),
                'objects' => new ObjectsLens($this->bench, $order, $found),
                'layers' => new LayersLens(
                    $this->bench,
                    $arrangement->layers,
                    $order,
                    $found,
                    $this->words,
                    $this->named,
                    $arrangement->sortBy,
                    $arrangement->down,
                ),
                default => new GroupsLens(
                    $this->bench,
                    $this->name,
                    $arrangement->groups,
                    $order,
                    $found,
                    $arrangement->sortBy,
                    $arrangement->down,
                    $this->named,
                ),
            };
        }

        return $this->lens;
    }

    /** What the rule finds; its rows are null when there is no rule, or none that can be understood. */
    public function found(): Found
    {
        return $this->bench->find($this->words);
    }

    /**
     * The rows that the rule finds, for what is to be done with them.
     *
     * @throws Refused when there is no rule, or none that can be understood
     */
    public function hits(): Bits
    {
        $found = $this->found();

        return $found->rows ?? throw new Refused($found->error?->getMessage() ?? 'Type what to look for first.', 'words');
    }

    /** What is said where there are no rows, and what to do next. */
    public function emptiness(): string
    {
        return match ($this->name) {
            'tags'
                => 'No tags yet. A tag is a label of which an object can have any number: pick objects and tag them (G), or make one here.',
            'sets'
                => 'No sets yet. A set keeps what is picked, or a rule that stays up to date by itself: pick or find objects, then keep '.
                'them as a set (S).',
            default => 'There is nothing here yet.',
        };
    }

    /** @return list<Row> */
    public function rows(): array
    {
        return $this->lens()->rows($this->from, $this->count);
    }

    /** The weight that a full bar stands for. */
    public function heaviest(): int
    {
        $lens = $this->lens();
        if ($lens instanceof GroupsLens) {
            return $lens->heaviest();
        }
        $heaviest = 1;
        foreach ($this->bench->layers()->inside(0) as $number) {
            $heaviest = max($heaviest, $this->bench->contents()->trianglesWithNested($number));
        }

        return $heaviest;
    }
}
