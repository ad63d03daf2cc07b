<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Bench\Keys;
use App\Models\View;
use VineShelf\Folders\Folder;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;

/** Only rows that some views say something of, or that they differ in: layers, folders and tags in their order, then objects. */
final class SetRowsLens implements Lens
{
    /** @var list<string> keys of layers, folders and tags */
    private array $keys = [];

    private readonly Bits $objects;

    private ?LayersLens $layers = null;

    private ?GroupsLens $tags = null;

    /**
     * @param list<View> $views
     * @param bool       $differing whether only rows in which the views differ
     * @param Bits|null  $found     scene rows to narrow down to, null for all
     */
    public function __construct(private readonly Bench $bench, array $views, bool $differing, ?Bits $found)
    {
        $keeping = array_filter($views, static fn (View $view): bool => $view->keepsRungs());
        $kept = array_values(array_map(static fn (View $view): Settings => $view->settings(), $keeping));
        foreach ($bench->layers()->walk() as [$layer]) {
            $values = array_map(
                static fn (Settings $settings): string => ($settings->layer($layer->number)->value ?? '').
                    '/'.
                    ($settings->layerAlone($layer->number)->value ?? ''),
                $kept,
            );
            $this->add("L$layer->number", $values, '/', $differing, $found);
        }
        foreach ($bench->tags()->tree->walk() as [$what]) {
            $values = array_map(
                static fn (Settings $settings): string => (string) ($what instanceof Folder
                    ? $settings->folder($what->number)->value ?? ''
                    : $settings->tag($what->number)->value ?? ''),
                $kept,
            );
            $this->add(($what instanceof Folder ? 'F' : 'T').$what->number, $values, '', $differing, $found);
        }
        $rows = $bench->scene()->rowBits(self::objects($kept, $differing));
        $this->objects = $found === null ? $rows : $rows->and($found);
    }

    /** @param list<string> $values one a view */
    private function add(string $key, array $values, string $nothing, bool $differing, ?Bits $found): void
    {
        $there = array_unique($values);
        if ($differing ? count($there) < 2 : $there === [] || array_values($there) === [$nothing]) {
            return;
        }
        if (
            $found !== null &&
            Keys::of([$key])
                ->heldIn($this->bench)
                ->and($found)
                ->isEmpty()
        ) {
            return;
        }
        $this->keys[] = $key;
    }

    /**
     * @param list<Settings> $kept
     *
     * @return Bits numbers of objects that any of them, or not all of them alike, say something of
     */
    private static function objects(array $kept, bool $differing): Bits
    {
        $any = null;
        $none = Bits::none(0);
        foreach ($kept as $settings) {
            foreach ([$settings->objects, $settings->objectsAlone] as $objects) {
                foreach ($objects as $numbers) {
                    $any = $any?->with($numbers) ?? $numbers;
                }
            }
        }
        if ($any === null || ! $differing) {
            return $any ?? $none;
        }
        $different = $none;
        foreach ($kept as $settings) {
            for ($rung = 0; $rung <= Rung::Full->value; $rung++) {
                [$here, $there] = [self::at($kept[0], $rung), self::at($settings, $rung)];
                $different = $different->with($here->less($there))->with($there->less($here));
            }
        }

        return $different;
    }

    private static function at(Settings $settings, int $rung): Bits
    {
        $none = Bits::none(0);

        return ($settings->objects[$rung] ?? $none)->with($settings->objectsAlone[$rung] ?? $none);
    }

    public function total(): int
    {
        return count($this->keys) + $this->objects->count();
    }

    public function rows(int $from, int $count): array
    {
        $rows = array_map($this->organizer(...), array_slice($this->keys, $from, $count));
        $objects = array_map(static fn (int $row): array => [$row, 1, false, false], $this->slice($from, $count));

        return [...$rows, ...(new ObjectRows($this->bench))->make($objects)];
    }

    public function keys(int $from, int $count): array
    {
        $scene = $this->bench->scene();

        return [
            ...array_slice($this->keys, $from, $count),
            ...array_map(static fn (int $row): string => 'O'.$scene->number($row), $this->slice($from, $count)),
        ];
    }

    public function hits(): int
    {
        return $this->objects->count();
    }

    public function hit(int $index): ?int
    {
        return $this->objects->slice($index, 1)[0] ?? null;
    }

    public function hitOf(int $row): ?int
    {
        return $this->objects->has($row) ? $this->objects->rank($row) : null;
    }

    public function position(string $key): ?int
    {
        $place = array_search($key, $this->keys, true);
        $row = $key[0] === 'O' ? $this->bench->scene()->row((int) substr($key, 1)) : 0;
        if ($place !== false || $row === 0 || ! $this->objects->has($row)) {
            return $place === false ? null : $place;
        }

        return count($this->keys) + $this->objects->rank($row);
    }

    /** @return list<int> scene rows of the objects in a window */
    private function slice(int $from, int $count): array
    {
        $before = count($this->keys);
        $left = $from + $count - max($before, $from);

        return $left <= 0 ? [] : $this->objects->slice(max(0, $from - $before), $left);
    }

    private function organizer(string $key): Row
    {
        $number = (int) substr($key, 1);
        if ($key[0] === 'L') {
            $this->layers ??= new LayersLens($this->bench, []);

            return $this->layers->row($this->bench->layers()->get($number), 1);
        }
        $this->tags ??= new GroupsLens($this->bench, 'tags', [], null, null);

        return $this->tags->named($key);
    }
}
