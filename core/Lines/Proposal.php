<?php

declare(strict_types=1);

namespace VineShelf\Lines;

use VineShelf\Facts\Facts;
use VineShelf\Layers\Layer;
use VineShelf\Lines\Signs\Classes;
use VineShelf\Lines\Signs\Holders;
use VineShelf\Lines\Signs\Materials;
use VineShelf\Lines\Signs\Names;
use VineShelf\Lines\Signs\Sign;
use VineShelf\Lines\Signs\Values;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/**
 * A first list of lines, read off how a model is filed already: a decision list, grown by always taking the line that explains most of what
 * is not explained yet (after R. Rivest, "Learning decision lists", 1987).
 *
 * A line costs {@see self::LINE} objects, {@see self::EXCEPTION} for each object that it would file otherwise than it is filed, and
 * {@see self::UNSORTED} for each that it would take out of Unsorted; one that explains no more than it costs is not proposed. What a line
 * explains is counted by its rule, among what the lines above it leave. Before a line with exceptions stands the one that takes most of
 * these away, where there is one without any.
 */
final class Proposal
{
    /** What a line costs by itself, in objects that it has to explain. */
    public const LINE = 2;

    /** What an exception costs. */
    public const EXCEPTION = 5;

    /** What an object costs that would leave Unsorted: there may be a reason why it is there, or nobody has come to it yet. */
    public const UNSORTED = 0.05;

    private const MOST_LINES = 100;

    /** Lines that turned out to find other objects than they seemed to, before no more are tried. */
    private const MOST_FAILED = 200;

    /** @var list<array<int, array<int, int>>> by sign, by code: objects by layer, of what is left */
    private array $counts = [];

    /** @var list<array<int, float>> by sign, by code: what the line would be worth, where that is more than nothing */
    private array $gains = [];

    /** @var list<array<int, int>> by sign, by row */
    private array $codes = [];

    /** @var list<int> by row */
    private array $layers;

    /** @var array<string, true> sign and code that find something else than they seem to */
    private array $failed = [];

    /**
     * @param list<Sign>            $signs
     * @param \Closure(string): Bits $find  the rows that a rule finds
     */
    private function __construct(private readonly Facts $facts, private readonly array $signs, private readonly \Closure $find)
    {
        $scene = $facts->scene;
        $this->layers = [0, ...$scene->layers()->toList()];
        foreach ($signs as $sign) {
            $this->codes[] = $sign->codes();
        }
        foreach (array_keys($signs) as $sign) {
            $this->counts[] = $this->counted($sign);
            $this->gains[] = [];
            foreach (array_keys($this->counts[$sign]) as $code) {
                $this->weigh($sign, $code);
            }
        }
    }

    /**
     * @param \Closure(string): Bits $find    the rows that a rule finds
     * @param list<string>           $without names of properties that nothing is to be read off
     *
     * @return list<Proposed> in the order in which they are to stand
     */
    public static function of(Facts $facts, \Closure $find, array $without = []): array
    {
        $signs = [
            new Classes($facts),
            new Materials($facts),
            ...array_filter(Values::all($facts), static fn (Values $sign): bool => ! in_array($sign->name, $without, true)),
            new Names($facts, true),
            new Names($facts, false),
            new Holders($facts, 1),
            new Holders($facts, 2),
            new Holders($facts, 3),
        ];

        return $facts->scene->count() === 0 ? [] : (new self($facts, $signs, $find))->grow();
    }

    /** @return list<Proposed> */
    private function grow(): array
    {
        $lines = [];
        $left = Bits::all($this->facts->scene->count());
        while (count($lines) < self::MOST_LINES && count($this->failed) < self::MOST_FAILED && ($best = $this->best()) !== null) {
            [$line, $rows] = $this->line($best, $left);
            if ($line->otherwise > 0 && ($first = $this->before($rows, $line->layer)) !== null) {
                [$clearing, $cleared] = $this->line($first, $left);
                [$line, $rows, $best] = $clearing->otherwise === 0 ? [$clearing, $cleared, $first] : [$line, $rows, $best];
            }
            if (self::gain($line->explained, $line->otherwise, $line->unsorted) <= 0) {
                $this->failed["$best[0] $best[1]"] = true;
                unset($this->gains[$best[0]][$best[1]]);

                continue;
            }
            $lines[] = $line;
            $left = $left->without($rows);
            $this->leave($rows);
        }

        return $lines;
    }

    /** @return array{int, int, int}|null place of the sign, code and layer of the line that explains most */
    private function best(): ?array
    {
        $best = null;
        $most = 0.0;
        foreach ($this->gains as $sign => $gains) {
            $gain = $gains === [] ? 0.0 : max($gains);
            if ($gain > $most) {
                $most = $gain;
                $best = [$sign, (int) array_search($gain, $gains, true)];
            }
        }

        return $best === null ? null : [...$best, self::weighed($this->counts[$best[0]][$best[1]])[0]];
    }

    /** What the line of a sign and a code is worth now. */
    private function weigh(int $sign, int $code): void
    {
        $layers = array_filter($this->counts[$sign][$code]);
        $gain = self::gain(...array_slice(self::weighed($layers), 1));
        if ($gain > 0 && ! isset($this->failed["$sign $code"])) {
            $this->gains[$sign][$code] = $gain;
        } else {
            unset($this->gains[$sign][$code]);
        }
        // What so few have can never be worth a line again.
        if (self::isWorthIt($layers)) {
            $this->counts[$sign][$code] = $layers;
        } else {
            unset($this->counts[$sign][$code]);
        }
    }

    /**
     * What to look for first, so that a line has fewer exceptions.
     *
     * @param Bits $rows  what the line takes
     * @param int  $layer where it puts it
     *
     * @return array{int, int, int}|null as above; null when nothing without exceptions of its own takes any away
     */
    private function before(Bits $rows, int $layer): ?array
    {
        $exceptions = array_filter($rows->rows(), fn (int $row): bool => ! in_array($this->layers[$row], [$layer, Layer::UNSORTED], true));
        $best = null;
        $most = 0;
        foreach ($this->codes as $sign => $codes) {
            $taken = array_count_values(array_map(static fn (int $row): int => $codes[$row] ?? 0, $exceptions));
            foreach ($taken as $code => $many) {
                $weighed = self::weighed($this->counts[$sign][$code] ?? []);
                if (
                    $many > $most &&
                    $weighed[2] === 0 &&
                    self::gain(...array_slice($weighed, 1)) > 0 &&
                    ! isset($this->failed["$sign $code"])
                ) {
                    $most = $many;
                    $best = [$sign, $code, $weighed[0]];
                }
            }
        }

        return $best;
    }

    /**
     * @param array<int, int> $layers objects by layer
     *
     * @return array{int, int, int, int} the layer that most are in, how many these are, how many are elsewhere, and in Unsorted
     */
    private static function weighed(array $layers): array
    {
        $unsorted = $layers[Layer::UNSORTED] ?? 0;
        unset($layers[Layer::UNSORTED]);
        $explained = $layers === [] ? 0 : max($layers);

        return [(int) array_search($explained, $layers, true), $explained, array_sum($layers) - $explained, $unsorted];
    }

    private static function gain(int $explained, int $otherwise, int $unsorted): float
    {
        return $explained - self::EXCEPTION * $otherwise - self::UNSORTED * $unsorted - self::LINE;
    }

    /**
     * @param array{int, int, int} $sign place of the sign, code and layer
     *
     * @return array{Proposed, Bits} the line, and what it takes of what is left
     */
    private function line(array $sign, Bits $left): array
    {
        [$sign, $code, $layer] = $sign;
        $rule = $this->signs[$sign]->rule($code);
        $only = $this->signs[$sign]->isOwn();
        $found = ($this->find)($rule);
        $rows = ($only ? $found : Relatives::within($this->facts->scene, $found))->and($left);

        return [$this->measured($rule, $only, $layer, $rows), $rows];
    }

    private function measured(string $rule, bool $only, int $layer, Bits $rows): Proposed
    {
        $by = $this->facts->scene->layers()->histogram($rows);
        $unsorted = $by[Layer::UNSORTED] ?? 0;
        $explained = $by[$layer] ?? 0;

        return new Proposed($rule, $only, $layer, $explained, $rows->count() - $unsorted - $explained, $unsorted);
    }

    /** @return array<int, array<int, int>> */
    private function counted(int $sign): array
    {
        $counts = [];
        foreach ($this->codes[$sign] as $row => $code) {
            $layer = $this->layers[$row];
            if ($code !== 0 && $row !== 0) {
                $counts[$code][$layer] = ($counts[$code][$layer] ?? 0) + 1;
            }
        }

        return array_filter($counts, self::isWorthIt(...));
    }

    /** What is explained counts no more. */
    private function leave(Bits $rows): void
    {
        $list = $rows->rows();
        foreach ($this->codes as $sign => $codes) {
            $touched = [];
            // Hardly any object has most properties.
            $isRare = count($codes) < count($list);
            foreach ($isRare ? array_keys($codes) : $list as $row) {
                $code = $codes[$row] ?? 0;
                if (isset($this->counts[$sign][$code]) && (! $isRare || $rows->has($row))) {
                    $this->counts[$sign][$code][$this->layers[$row]]--;
                    $touched[$code] = true;
                }
            }
            foreach (array_keys($touched) as $code) {
                $this->weigh($sign, $code);
            }
        }
    }

    /**
     * What so few have can never be worth a line.
     *
     * @param array<int, int> $layers objects by layer
     */
    private static function isWorthIt(array $layers): bool
    {
        unset($layers[Layer::UNSORTED]);

        return $layers !== [] && max($layers) > self::LINE;
    }
}
