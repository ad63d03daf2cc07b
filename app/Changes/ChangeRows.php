<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\OrganizerKind;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use VineShelf\Colours\Line;
use VineShelf\Colours\Palette;

/** Several layers, tags or sets, with what is nested in them where that is asked for, are coloured, edged or noted in one change. */
final class ChangeRows extends Command
{
    private readonly string $title;

    private readonly Edits $edits;

    /**
     * @param list<Organizer>                             $rows
     * @param \Closure(Bench, string): ChangeOrganizer    $change of one row, by its key
     */
    private function __construct(Bench $bench, array $rows, string $what, \Closure $change)
    {
        $steps = $left = [];
        $counts = [];
        foreach ($rows as $row) {
            try {
                array_push($steps, ...$change($bench, $row->key())->edits()->steps);
                $counts[$row->kind->value] = ($counts[$row->kind->value] ?? 0) + 1;
            } catch (Refused $refused) {
                $left[] = rtrim($refused->getMessage(), '.');
            }
        }
        if ($counts === []) {
            throw new Refused(implode('. ', $left).'.', 'keys');
        }
        $words = [];
        foreach ($counts as $letter => $count) {
            $words[] = OrganizerKind::from($letter)->counted($count);
        }
        $this->leftAlone = $left === [] ? '' : 'Left alone: '.implode('; ', $left).'.';
        $this->title = $what.' '.implode(', ', $words);
        $this->edits = new Edits($steps);
    }

    /** @param list<string> $keys */
    public static function colour(Bench $bench, array $keys, bool $nested, string $colour): self
    {
        return new self(
            $bench,
            self::rows($bench, $keys, $nested),
            'Colour',
            static fn (Bench $bench, string $key): ChangeOrganizer => ChangeOrganizer::colour($bench, $key, $colour),
        );
    }

    /**
     * Colours of their own that are told apart, from each other and from those of the rows beside them.
     *
     * @param list<string> $keys
     */
    public static function coloursAnew(Bench $bench, array $keys, bool $nested): self
    {
        $rows = self::rows($bench, $keys, $nested);
        $meant = array_fill_keys(array_map(static fn (Organizer $row): string => $row->key(), $rows), true);
        $all = [];
        foreach ($bench->layers()->walk() as [$layer]) {
            $all["L$layer->number"] = $layer->colour;
        }
        foreach ($bench->tags()->all() as $tag) {
            $all["T$tag->number"] = $tag->colour;
        }
        $colours = [];
        foreach ($rows as $row) {
            $family = $row->kind->value;
            $taken = array_filter(
                $all,
                static fn (string $key): bool => $key[0] === $family && (! isset($meant[$key]) || isset($colours[$key])),
                ARRAY_FILTER_USE_KEY,
            );
            $colours[$row->key()] = $all[$row->key()] = Palette::next(array_values($taken));
        }

        return new self(
            $bench,
            $rows,
            'Colour anew',
            static fn (Bench $bench, string $key): ChangeOrganizer => ChangeOrganizer::colour($bench, $key, $colours[$key]),
        );
    }

    /** @param list<string> $keys */
    public static function line(Bench $bench, array $keys, bool $nested, Line $line): self
    {
        return new self(
            $bench,
            self::rows($bench, $keys, $nested),
            "Edges {$line->label()}:",
            static fn (Bench $bench, string $key): ChangeOrganizer => ChangeOrganizer::line($bench, $key, $line),
        );
    }

    /** @param list<string> $keys */
    public static function note(Bench $bench, array $keys, bool $nested, string $note): self
    {
        return new self(
            $bench,
            self::rows($bench, $keys, $nested),
            'Note on',
            static fn (Bench $bench, string $key): ChangeOrganizer => ChangeOrganizer::note($bench, $key, $note),
        );
    }

    /**
     * What is in layers is not for export, for a reason, or is for export again.
     *
     * @param list<string> $keys
     * @param string       $reason empty for none
     */
    public static function holdBack(Bench $bench, array $keys, bool $nested, string $reason): self
    {
        return new self(
            $bench,
            self::rows($bench, $keys, $nested),
            trim($reason) === '' ? 'Let exports have again' : 'Keep out of exports',
            static fn (Bench $bench, string $key): ChangeOrganizer => ChangeOrganizer::holdBack($bench, $key, $reason),
        );
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /**
     * @param list<string> $keys
     *
     * @return list<Organizer> in the order named, each once
     */
    private static function rows(Bench $bench, array $keys, bool $nested): array
    {
        $rows = [];
        foreach (array_unique($keys) as $key) {
            $row = Organizer::named($bench, $key);
            foreach ($nested ? $row->withNested($bench) : [$row] as $each) {
                // A folder has nothing of that; what is in it has.
                if ($each->kind !== OrganizerKind::Folder || ! $nested) {
                    $rows[$each->key()] = $each;
                }
            }
        }

        return array_values($rows);
    }
}
