<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Ledger\GivesBack;
use Illuminate\Support\Facades\DB;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Kind;
use VineShelf\Tags\Tag;

/** What the pick card says. */
final readonly class PickCard
{
    /** As many tags fit on the card. */
    private const PILLS = 8;

    /** @param list<int> $numbers the first few picked objects */
    private function __construct(
        public int $count,
        public string $title,
        public string $where,
        public int $held,
        public int $triangles,
        public int $hidden,
        public array $numbers,
        /** @var array<int, int> picked objects by their own lock */
        public array $locks,
        public Lock $nextLock,
        /** The kind of all that is picked, "" where kinds differ. */
        public string $kind,
        /** What is in effect for the pick, the highest where it differs, and whether it does. */
        public Rung $inEffect,
        public bool $mixed,
        /** What one picked object has set itself; null for several. */
        public ?Rung $own,
        /** What a click gives back to it when it is hidden, see {@see GivesBack}. */
        public string $back,
        /**
         * Tags that some or all of the pick and what it holds have, and those that are pinned: the tag, "all", "some" or "none", and how
         * many have it.
         *
         * @var list<array{Tag, string, int}>
         */
        public array $tags,
        /** Further ones that there is no room for. */
        public int $moreTags,
    ) {}

    public static function of(Bench $bench): ?self
    {
        $picked = $bench->pickedBits();
        $count = $picked->count();
        if ($count === 0) {
            return null;
        }
        $scene = $bench->scene();
        $kinds = [];
        foreach (Kind::cases() as $kind) {
            $kinds[$kind->value] = $picked
                ->and(
                    $bench
                        ->facts()
                        ->ranked('kind')
                        ->in([$kind->value]),
                )
                ->count();
        }
        $kinds = array_filter($kinds);
        $held = $bench->pickedWithHeld();
        $layers = $bench->pickedByLayer();
        $locks = $scene->locks()->histogram($picked);
        krsort($locks);
        $hidden = $picked->and($bench->seen()->rungs()->being(Rung::Hidden->value))->count();
        $rungs = $bench->inEffect()->rungs()->histogramOf($picked);
        $first = $picked->slice(0, 1)[0];
        arsort($kinds);
        $title =
            implode(
                ', ',
                array_map(static fn (int $kind, int $count): string => Kind::from($kind)->counted($count), array_keys($kinds), $kinds),
            ).' picked';
        if ($count === 1) {
            $name = DB::table('objects')->where('project_id', $bench->project->id)->where('no', $scene->number($first))->value('name');
            $title = is_string($name) && $name !== '' ? $name : 'Unnamed '.$scene->kind($first)->label();
        }

        $tags = self::tags($bench);

        return new self(
            $count,
            $title,
            count($layers) === 1 ? $bench->layers()->path((int) array_key_first($layers)) : count($layers).' layers',
            $held->count() - $count,
            $scene->trianglesOf($held),
            $hidden,
            [$scene->number($first)],
            $locks,
            // Where they differ, first all become as protected as the most protected one.
            count($locks) === 1 ? Lock::from((int) array_key_first($locks))->next() : Lock::from(max([0, ...array_keys($locks)])),
            count($kinds) === 1 ? Kind::from((int) array_key_first($kinds))->label() : '',
            Rung::from(max([0, ...array_keys($rungs)])),
            count($rungs) > 1,
            $count === 1 ? $bench->settings()->reaching($scene->number($first)) ?? Rung::Full : null,
            $count === 1 ? (new GivesBack($bench->desk->beforeHiding()))->to("O{$scene->number($first)}") : 'none',
            array_slice($tags, 0, self::PILLS),
            max(0, count($tags) - self::PILLS),
        );
    }

    /**
     * What a click on a tag's pill does, in words.
     *
     * @param array{Tag, string, int} $pill
     */
    public function pillTitle(array $pill, string $path): string
    {
        [, $state, $some] = $pill;

        return "$path: ".
            match ($state) {
                'all' => 'all have it; click takes it off',
                'none' => 'none has it; click gives it to all',
                default => number_format($some).' have it; click gives it to all',
            };
    }

    /** @return list<array{Tag, string, int}> */
    private static function tags(Bench $bench): array
    {
        $all = $bench->pickedWithHeld()->count();
        $tags = [];
        foreach ($bench->pickedTags() as $number => $some) {
            $tags[] = [$bench->tags()->get($number), $some === $all ? 'all' : 'some', $some];
        }

        foreach ($bench->desk->pins as $pin) {
            $number = str_starts_with($pin, 'T') ? (int) substr($pin, 1) : 0;
            if (
                $bench->tags()->has($number) &&
                ! in_array($number, array_map(static fn (array $pill): int => $pill[0]->number, $tags), true)
            ) {
                $tags[] = [$bench->tags()->get($number), 'none', 0];
            }
        }

        return $tags;
    }

    /** What is in effect for the pick, and what a click on its mark does. */
    public function rungTitle(): string
    {
        $now = $this->mixed ? 'at different rungs' : lcfirst($this->inEffect->label());
        $held = $this->own !== null && $this->inEffect->value < $this->own->value ? ', held down' : '';

        return "The pick: $now$held. A click ".($this->mixed || $this->inEffect !== Rung::Hidden ? 'hides it.' : 'shows it again.');
    }

    /** What the whole pick's own locks are, and what the button does. */
    public function lockTitle(): string
    {
        $now = [];
        foreach ($this->locks as $lock => $objects) {
            $now[] = ($this->count === 1 ? '' : number_format($objects).' ').mb_strtolower(Lock::from($lock)->label());
        }

        return 'Now '.implode(', ', $now).'; the button makes it '.mb_strtolower($this->nextLock->label()).' (L)';
    }
}
