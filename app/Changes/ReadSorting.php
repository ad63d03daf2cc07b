<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\SortingOf;
use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\MembersEdit;
use App\Changes\Edits\ObjectsEdit;
use App\Changes\Edits\RowEdit;
use VineShelf\Colours\Line;
use VineShelf\Exchange\Sorting;
use VineShelf\Folders\Holds;
use VineShelf\Layers\Layer;
use VineShelf\Scene\Bits;
use VineShelf\Sets\SelectionSet;

/**
 * A sorting is read into a project: layers, folders, tags and sets are found by their paths and made where they are missing, and its
 * objects, found by their stable keys, are filed, tagged and locked as it says. What it does not know stays as it is.
 *
 * @phpstan-import-type Row from Sorting
 */
final class ReadSorting extends Command
{
    private readonly AlongPath $along;

    /** @var list<Edit> */
    private array $steps = [];

    /** @var array<int, int> scene row by the sorting's number of an object; 0 where the project has none of that key */
    private readonly array $rows;

    /** Scene rows that the sorting knows, and that may be changed. */
    private readonly Bits $known;

    private int $changed = 0;

    public function __construct(private readonly Bench $bench, Sorting $sorting)
    {
        $this->along = new AlongPath($bench);
        $this->rows = $this->matched($sorting);
        $all = $this->bits(Bits::all(count($sorting->objects)));
        $locked = $all->and($bench->inEffect()->locked());
        $this->known = $all->without($locked);
        $this->layers($sorting);
        foreach ($sorting->folders as $folder) {
            $this->folder($folder);
        }
        foreach ($sorting->tags as $tag) {
            $this->tag($tag);
        }
        foreach ($sorting->sets as $set) {
            $this->set($set);
        }
        $this->locks($sorting);
        $missing = count($sorting->objects) - count(array_filter($this->rows));
        $this->leftAlone = trim(
            self::lockedInWords($locked->count()).
                ($missing === 0 ? '' : ' '.number_format($missing).' of its objects are not in this project.'),
        );
    }

    public function name(): string
    {
        return 'Read a sorting: '.
            number_format($this->changed).
            ' '.
            ($this->changed === 1 ? 'object' : 'objects').
            ' sorted otherwise';
    }

    public function edits(): Edits
    {
        return new Edits([...$this->along->steps, ...$this->steps]);
    }

    /** @return array<int, int> */
    private function matched(Sorting $sorting): array
    {
        $byBoth = $byKey = [];
        foreach (SortingOf::objects($this->bench) as $index => [$source, $key]) {
            $byBoth["$source\n$key"] = $index + 1;
            $byKey[$key] = isset($byKey[$key]) ? 0 : $index + 1;
        }
        $rows = [];
        foreach ($sorting->objects as $index => [$source, $key]) {
            $rows[$index + 1] = $byBoth["$source\n$key"] ?? ($byKey[$key] ?? 0);
        }

        return $rows;
    }

    /** The scene rows of objects that the sorting numbers. */
    private function bits(Bits $numbers): Bits
    {
        $rows = array_values(array_filter(array_map(fn (int $number): int => $this->rows[$number], $numbers->rows())));
        sort($rows);

        return Bits::ofRows($this->bench->scene()->count(), $rows);
    }

    private function layers(Sorting $sorting): void
    {
        $scene = $this->bench->scene();
        $before = $after = [];
        foreach ($sorting->layers as $row) {
            $isUnsorted = count($row['path']) === 1 && mb_strtolower($row['path'][0]) === 'unsorted';
            $layer = $isUnsorted ? $this->bench->layers()->get(Layer::UNSORTED) : $this->along->layer(self::checked($row['path'], 'layer'));
            $this->columns('layers', $layer->number, $this->bench->layers()->has($layer->number) ? $layer : null, $row);
            if (! isset($row['objects'])) {
                continue;
            }
            $those = $this->bits($row['objects'])->and($this->known);
            $moving = $those->without($scene->layers()->rowsOf([$layer->number => true]));
            foreach (array_keys($scene->layers()->histogram($moving)) as $home) {
                $from = $scene->numbersIn($moving->and($scene->layers()->rowsOf([$home => true]))->ranges());
                $before[$home] = [...$before[$home] ?? [], ...$from];
                $after[$layer->number] = [...$after[$layer->number] ?? [], ...$from];
                $this->changed += count($from);
            }
        }
        if ($after !== []) {
            $this->steps[] = new ObjectsEdit('layer_no', $before, $after);
        }
    }

    /** @param Row $row */
    private function folder(array $row): void
    {
        $holds = Holds::tryFrom($row['holds'] ?? '') ?? Holds::Tags;
        $number = $this->along->folder($holds, self::checked($row['path'], 'folder'));
        $known = $holds === Holds::Tags && $this->bench->tags()->hasFolder($number) ? $this->bench->tags()->folder($number) : null;
        $this->columns('folders', $number, $known, $row);
    }

    /** @param Row $row */
    private function tag(array $row): void
    {
        $names = self::checked($row['path'], 'tag');
        $name = (string) array_pop($names);
        $folder = $this->along->folder(Holds::Tags, $names);
        $number = $this->along->member(Holds::Tags, $folder, $name);
        $known = $number === null ? null : $this->bench->tags()->get($number);
        $number ??= $this->along->makeMember(Holds::Tags, $folder, $name, []);
        $this->columns('tags', $number, $known, $row);
        $this->members(
            'tags',
            $number,
            $known === null ? Bits::none($this->bench->scene()->count()) : $this->bench->scene()->tagged($number),
            $row,
        );
    }

    /** @param Row $row */
    private function set(array $row): void
    {
        $names = self::checked($row['path'], 'set');
        $name = (string) array_pop($names);
        $folder = $this->along->folder(Holds::Sets, $names);
        $number = $this->along->member(Holds::Sets, $folder, $name);
        $known = $number === null ? null : $this->bench->sets()->get($number);
        $rule = $row['rule'] ?? null;
        if ($rule !== null) {
            ChangeOrganizer::checkRule($this->bench, new SelectionSet($number ?? 0, $folder, 0, $name, $rule));
        }
        $number ??= $this->along->makeMember(Holds::Sets, $folder, $name, ['rule' => $rule]);
        $this->columns('sets', $number, $known, $row);
        if ($known !== null && $known->rule !== $rule) {
            $this->steps[] = new RowEdit('sets', $number, ['rule' => $known->rule], ['rule' => $rule]);
        }
        if ($rule === null) {
            $there =
                $known === null || $known->isLive() ? Bits::none($this->bench->scene()->count()) : $this->bench->scene()->chosen($number);
            $this->members('sets', $number, $there, $row, false);
        }
    }

    /**
     * @param Row  $row
     * @param bool $onlyOpen whether locked objects are left as they are
     */
    private function members(string $table, int $number, Bits $there, array $row, bool $onlyOpen = true): void
    {
        if (! isset($row['objects'])) {
            return;
        }
        $scene = $this->bench->scene();
        $known = $onlyOpen ? $this->known : $this->bits(Bits::all(count($this->rows)));
        $wanted = $this->bits($row['objects'])->and($known);
        [$added, $removed] = [$wanted->without($there), $there->and($known)->without($wanted)];
        if (! $added->isEmpty() || ! $removed->isEmpty()) {
            $this->steps[] = new MembersEdit($table, $number, $scene->numberBits($added), $scene->numberBits($removed));
            $this->changed += $added->count() + $removed->count();
        }
    }

    private function locks(Sorting $sorting): void
    {
        $scene = $this->bench->scene();
        $before = $after = [];
        $left = $this->known;
        foreach ([1, 2, 0] as $lock) {
            $wanted = $lock === 0 ? $left : $this->bits($sorting->locks[$lock] ?? Bits::none(count($sorting->objects)))->and($this->known);
            $left = $left->without($wanted);
            foreach (array_keys($scene->locks()->histogram($wanted)) as $own) {
                if ($own !== $lock) {
                    $numbers = $scene->numbersIn($wanted->and($scene->locks()->rowsOf([$own => true]))->ranges());
                    $before[$own] = [...$before[$own] ?? [], ...$numbers];
                    $after[$lock] = [...$after[$lock] ?? [], ...$numbers];
                }
            }
        }
        if ($after !== []) {
            $this->steps[] = new ObjectsEdit('lock', $before, $after);
        }
    }

    /**
     * What a row says of itself.
     *
     * @param object|null $known the row as it is; null when it was just made
     * @param Row         $row
     */
    private function columns(string $table, int $number, ?object $known, array $row): void
    {
        $says = array_intersect_key(
            [
                'colour' => $row['colour'] ?? null,
                'line' => isset($row['line']) ? $row['line']->value : null,
                'note' => $row['note'] ?? null,
                'lock' => $row['lock'] ?? null,
                'one_at_a_time' => $row['oneAtATime'] ?? null,
            ],
            array_fill_keys(
                [
                    'layers' => ['colour', 'line', 'note', 'lock', 'one_at_a_time'],
                    'folders' => ['lock', 'one_at_a_time'],
                    'tags' => ['colour', 'line', 'note', 'lock'],
                    'sets' => ['note'],
                ][$table] ?? [],
                true,
            ),
        );
        $says = array_filter($says, static fn (mixed $value): bool => $value !== null);
        if ($known === null) {
            $this->along->describe($table, $number, $says);

            return;
        }
        $before = $after = [];
        foreach ($says as $column => $value) {
            $now = match ($column) {
                'one_at_a_time' => $known->oneAtATime ?? false,
                'line' => ($known->line ?? Line::None)->value,
                'lock' => $known->lock->value ?? 0,
                default => $known->{$column} ?? '',
            };
            if ($now !== $value) {
                [$before[$column], $after[$column]] = [$now, $value];
            }
        }
        if ($after !== []) {
            $this->steps[] = new RowEdit($table, $number, $before, $after);
        }
    }

    /**
     * @param list<string> $path
     *
     * @return non-empty-list<string>
     */
    private static function checked(array $path, string $what): array
    {
        $names = array_map(static fn (string $name): string => RowNames::check($name, $what), $path);

        return $names === [] ? ['Unnamed'] : $names;
    }
}
