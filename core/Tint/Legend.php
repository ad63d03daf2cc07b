<?php

declare(strict_types=1);

namespace VineShelf\Tint;

use VineShelf\Colours\Palette;
use VineShelf\Facts\Facts;
use VineShelf\Layers\LayerTree;
use VineShelf\Locks\Lock;
use VineShelf\Organizers\Organizers;
use VineShelf\Rungs\Difference;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Coded;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Packed;
use VineShelf\Sets\SelectionSet;
use VineShelf\Tags\Tag;

/** Which objects get which colour. Only what draws something is coloured, each object by one entry at most. */
final readonly class Legend
{
    /** Colours that shuffled objects get. */
    private const SHUFFLED = 24;

    /** Steps from the lightest to the heaviest, each twice as heavy as the one before. */
    private const STEPS = 16;

    /** The colour of what has none of what is tinted by. */
    private const NOTHING = '#b9b3a2';

    /** As many entries as two bytes count. */
    private const MOST = 65_535;

    /**
     * @param list<LegendEntry> $entries
     * @param list<int>         $codes   by row, row 0 first: the entry that colours it, counted from 1, 0 for none
     */
    private function __construct(public array $entries, private array $codes) {}

    /**
     * @param int                                $seed another number shuffles anew
     * @param Bits|null                          $only rows to colour, null for all
     * @param (\Closure(SelectionSet): Bits)|null $sets what a set holds; null when no set is looked into
     * @param Difference|null                    $difference of two states, for the tints that are about those
     * @param list<string>                       $labels what is only in the first, only in the second, drawn otherwise, the same
     */
    public static function of(
        TintBy $by,
        Facts $facts,
        Organizers $organizers,
        InEffect $inEffect,
        int $seed = 1,
        ?Bits $only = null,
        ?\Closure $sets = null,
        ?Difference $difference = null,
        array $labels = ['Only on the desk', 'Only in the picture', 'Drawn otherwise', 'The same'],
    ): self {
        $draws = $facts->ranked('instances')->between(1, INF);
        if ($only !== null) {
            $draws = $draws->and($only);
        }
        [$entries, $codes] = match ($by) {
            TintBy::Own => [[], []],
            TintBy::Layer => self::layers($facts, $organizers->layers),
            TintBy::Tag => self::tags($facts, $organizers),
            TintBy::TagCount => self::tagCounts($facts, $organizers),
            TintBy::WithoutTags => self::withoutTags($facts, $organizers),
            TintBy::Set => self::sets($facts, $organizers, $sets),
            TintBy::Kind => self::kinds($facts),
            TintBy::Material => self::materials($facts),
            TintBy::Source => self::sources($facts),
            TintBy::Weight => self::weights($facts),
            TintBy::Lock => self::locks($inEffect),
            TintBy::Output, TintBy::Compare => self::differing($facts, $difference, $labels),
            TintBy::Shuffle => self::shuffled($facts->scene->count(), $seed),
        };

        return self::kept($entries, $codes, $draws, $by === TintBy::Weight);
    }

    /** @return string two bytes per row, row 0 first: the entry that colours it, counted from 1, 0 for none */
    public function codes(): string
    {
        return pack('v*', ...$this->codes);
    }

    /** The rows that an entry colours. */
    public function rowsOf(int $entry): Bits
    {
        return Bits::ofRows(count($this->codes) - 1, array_keys($this->codes, $entry + 1, true));
    }

    /**
     * The entries that colour something.
     *
     * @param list<array{string, string}> $entries label, colour
     * @param array<int, int>             $codes   by row: the entry that colours it, counted from 1, 0 for none
     * @param bool                        $scale   whether colours go from the first entry that is left to the last
     */
    private static function kept(array $entries, array $codes, Bits $draws, bool $scale): self
    {
        $mask = $draws->mask();
        $objects = array_fill(0, count($entries) + 1, 0);
        foreach ($codes as $row => $code) {
            if ($mask[$row] !== "\0") {
                $objects[$code]++;
            }
        }
        unset($objects[0]);
        $places = [];
        foreach (array_slice(array_keys(array_filter($objects)), 0, self::MOST) as $place => $code) {
            $places[$code] = $place + 1;
        }
        $last = max(1, count($places) - 1);
        $kept = [];
        foreach ($places as $code => $place) {
            [$label, $colour] = $entries[$code - 1] ?? ['', ''];
            $kept[] = new LegendEntry($label, $scale ? Hues::scale(1 - ($place - 1) / $last) : $colour, $objects[$code]);
        }
        $shown = array_fill(0, $draws->length + 1, 0);
        foreach ($codes as $row => $code) {
            if ($mask[$row] !== "\0") {
                $shown[$row] = $places[$code] ?? 0;
            }
        }

        return new self($kept, array_values($shown));
    }

    /** @return array{list<array{string, string}>, array<int, int>} */
    private static function layers(Facts $facts, LayerTree $layers): array
    {
        $entries = $places = [];
        // Only layers that colour something need to be told apart.
        $there = $facts->scene->layers()->histogram();
        $walk = array_values(array_filter($layers->walk(), static fn (array $entry): bool => isset($there[$entry[0]->number])));
        $colours = Palette::apart(array_map(static fn (array $entry): string => $entry[0]->colour, $walk));
        foreach ($walk as $index => [$layer]) {
            $entries[] = [$layer->name, $colours[$index]];
            $places[$layer->number] = count($entries);
        }

        return [$entries, self::ofColumn($facts->scene->layers(), $places)];
    }

    /** @return array{list<array{string, string}>, array<int, int>} each object by the first of its tags, in their order */
    private static function tags(Facts $facts, Organizers $organizers): array
    {
        $tags = $organizers->tags->all();
        $colours = Palette::apart(array_map(static fn (Tag $tag): string => $tag->colour, $tags));
        $entries = $rows = [];
        foreach ($tags as $index => $tag) {
            $entries[] = [$organizers->tags->tree->path($tag), $colours[$index]];
            $rows[] = $facts->scene->tagged($tag->number);
        }
        $entries[] = ['No tag', self::NOTHING];

        return [$entries, self::firstOf($facts, $rows)];
    }

    /**
     * @param (\Closure(SelectionSet): Bits)|null $holds
     *
     * @return array{list<array{string, string}>, array<int, int>} each object by the first set that it is in
     */
    private static function sets(Facts $facts, Organizers $organizers, ?\Closure $holds): array
    {
        $sets = $holds === null ? [] : $organizers->sets->all();
        $entries = $rows = [];
        foreach ($sets as $index => $set) {
            $entries[] = [$organizers->sets->tree->path($set), Hues::apart($index, count($sets))];
            $rows[] = $holds($set);
        }
        $entries[] = ['In no set', self::NOTHING];

        return [$entries, self::firstOf($facts, $rows)];
    }

    /**
     * @param list<string> $labels
     *
     * @return array{list<array{string, string}>, array<int, int>}
     */
    private static function differing(Facts $facts, ?Difference $difference, array $labels): array
    {
        $rows = $difference === null ? [] : [$difference->onlyFirst(), $difference->onlySecond(), $difference->otherwise()];
        $colours = ['#3f6f9a', '#b8742a', '#7a9a4a', self::NOTHING];

        return [
            array_map(static fn (string $label, string $colour): array => [$label, $colour], $labels, $colours),
            self::firstOf($facts, $rows),
        ];
    }

    /** @return array{list<array{string, string}>, array<int, int>} */
    private static function tagCounts(Facts $facts, Organizers $organizers): array
    {
        $counts = array_fill(0, $facts->scene->count() + 1, 0);
        foreach ($organizers->tags->all() as $tag) {
            foreach ($facts->scene->tagged($tag->number)->rows() as $row) {
                $counts[$row]++;
            }
        }
        $most = max(0, ...$counts);
        $entries = [];
        for ($tags = $most; $tags >= 0; $tags--) {
            $entries[] = [$tags === 0 ? 'No tag' : ($tags === 1 ? '1 tag' : "$tags tags"), $tags === 0 ? self::NOTHING : ''];
        }
        foreach ($entries as $at => [$label, $colour]) {
            $entries[$at][1] = $colour !== '' ? $colour : Hues::scale(1 - $at / max(1, $most));
        }
        $codes = array_map(static fn (int $tags): int => $most - $tags + 1, $counts);
        $codes[0] = 0;

        return [$entries, $codes];
    }

    /** @return array{list<array{string, string}>, array<int, int>} */
    private static function withoutTags(Facts $facts, Organizers $organizers): array
    {
        $rows = array_map(static fn (Tag $tag): Bits => $facts->scene->tagged($tag->number), $organizers->tags->all());
        $codes = array_map(static fn (int $code): int => $code <= count($rows) ? 2 : 1, self::firstOf($facts, $rows));
        $codes[0] = 0;

        return [[['Nothing tagged', '#c0653a'], ['Tagged', '#cfd6c4']], $codes];
    }

    /**
     * @param list<Bits> $sets of rows
     *
     * @return array<int, int> by row: the first set that it is in, counted from 1; one more for none
     */
    private static function firstOf(Facts $facts, array $sets): array
    {
        $codes = array_fill(0, $facts->scene->count() + 1, count($sets) + 1);
        for ($at = count($sets) - 1; $at >= 0; $at--) {
            foreach ($sets[$at]->rows() as $row) {
                $codes[$row] = $at + 1;
            }
        }
        $codes[0] = 0;

        return $codes;
    }

    /**
     * By the class that the file gives, and by kind where it gives none.
     *
     * @return array{list<array{string, string}>, array<int, int>}
     */
    private static function kinds(Facts $facts): array
    {
        $classes = array_filter(
            array_map(strval(...), $facts->words('class.words')),
            static fn (int $code): bool => $code > 0,
            ARRAY_FILTER_USE_KEY,
        );
        asort($classes, SORT_NATURAL | SORT_FLAG_CASE);
        $all = count($classes) + 7;
        $entries = $places = [];
        foreach ($classes as $code => $class) {
            $entries[] = [$class, Hues::apart(count($entries), $all)];
            $places[$code] = count($entries);
        }
        $first = count($entries) + 1;
        foreach (Kind::cases() as $kind) {
            $entries[] = [ucfirst($kind->plural()), Hues::apart(count($entries), $all)];
        }
        $kinds = $facts->scene->column('kind');
        $codes = Packed::uint32($facts->scene->column('class'), 0, $facts->scene->count() + 1);
        foreach ($codes as $row => $code) {
            $codes[$row] = $places[$code] ?? $first + ord($kinds[$row]);
        }

        return [$entries, $codes];
    }

    /** @return array{list<array{string, string}>, array<int, int>} */
    private static function materials(Facts $facts): array
    {
        $lists = $facts->surfaceLists();
        // An object with several materials counts for the first one.
        $materials = array_unique(array_map(static fn (array $list): int => $list[0] ?? 0, $lists));
        sort($materials);
        $entries = $places = [];
        foreach ($materials as $material) {
            $entries[] =
                $material === 0
                    ? ['No material', '#9a958a']
                    : [$facts->materials()[$material][0] ?? '', Hues::apart(count($entries), count($materials))];
            $places[$material] = count($entries);
        }
        $codes = Packed::uint32($facts->scene->column('surfaces'), 0, $facts->scene->count() + 1);
        foreach ($codes as $row => $code) {
            $codes[$row] = $places[$lists[$code][0] ?? 0] ?? 0;
        }

        return [$entries, $codes];
    }

    /** @return array{list<array{string, string}>, array<int, int>} */
    private static function sources(Facts $facts): array
    {
        $entries = $places = [];
        foreach ($facts->sourceNames() as $number => $name) {
            $entries[] = [$name, Hues::apart(count($entries), count($facts->sourceNames()))];
            $places[$number] = count($entries);
        }

        return [$entries, self::ofColumn($facts->sources(), $places)];
    }

    /**
     * @param array<int, int> $places entry by value, counted from 1
     *
     * @return array<int, int>
     */
    private static function ofColumn(Coded $column, array $places): array
    {
        $codes = [0];
        foreach ($column->toList() as $value) {
            $codes[] = $places[$value] ?? 0;
        }

        return $codes;
    }

    /** @return array{list<array{string, string}>, array<int, int>} the heaviest first */
    private static function weights(Facts $facts): array
    {
        $entries = [];
        $low = 0;
        for ($step = 1; $step <= self::STEPS; $step++) {
            $high = 12 * 2 ** $step;
            $entries[] = [
                $step === self::STEPS
                    ? number_format($low + 1).' triangles and more'
                    : ($step === 1 ? 'Up to ' : number_format($low + 1).' to ').number_format($high).' triangles',
                '',
            ];
            $low = $high;
        }
        /** @var array<int, int> $sums */
        $sums = array_values((array) unpack('P*', $facts->scene->column('triangles')));
        $codes = [0];
        $places = [];
        for ($row = 1, $count = $facts->scene->count(); $row <= $count; $row++) {
            $triangles = $sums[$row] - $sums[$row - 1];
            $codes[] = $places[$triangles] ??= self::STEPS + 1 - min(self::STEPS, strlen(decbin(intdiv(max(0, $triangles - 1), 12))));
        }

        return [array_reverse($entries), $codes];
    }

    /** @return array{list<array{string, string}>, array<int, int>} */
    private static function locks(InEffect $inEffect): array
    {
        $entries = $places = [];
        foreach (Lock::cases() as $lock) {
            $entries[] = [$lock->label(), ['#cfd6c4', '#d9a441', '#9c3a23'][$lock->value]];
            $places[$lock->value] = count($entries);
        }
        /** @var array<int, int> $codes */
        $codes = array_values((array) unpack('C*', $inEffect->locks()->translated($places)));

        return [$entries, $codes];
    }

    /** @return array{list<array{string, string}>, array<int, int>} */
    private static function shuffled(int $rows, int $seed): array
    {
        $entries = [];
        for ($colour = 0; $colour < self::SHUFFLED; $colour++) {
            $entries[] = ['Colour '.($colour + 1), Hues::apart($colour, self::SHUFFLED)];
        }
        $codes = [0];
        for ($row = 1; $row <= $rows; $row++) {
            // The finalizer of MurmurHash3, in the public domain, spreads neighbours apart.
            $hash = ($row * 0x9e3779b1 + $seed * 0x85ebca6b) & 0xffffffff;
            $hash = (($hash ^ ($hash >> 16)) * 0x45d9f3b) & 0xffffffff;
            $codes[] = (($hash ^ ($hash >> 15)) % self::SHUFFLED) + 1;
        }

        return [$entries, $codes];
    }
}
