<?php

declare(strict_types=1);

namespace App\Tidying;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\ClearOut;
use App\Changes\Command;
use App\Changes\DeleteObjects;
use App\Changes\FileByMap;
use App\Changes\GroupObjects;
use App\Changes\NameByMap;
use App\Changes\UngroupObjects;
use App\Lighten\Replacing;
use VineShelf\Layers\Layer;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;
use VineShelf\Tidy\Check;
use VineShelf\Tidy\Checks;
use VineShelf\Tidy\Checks\UnsortedInFiled;
use VineShelf\Tidy\Item;
use VineShelf\Tidy\Names;

/** Mends what a check has found, as one change, on the project as it is now. */
final readonly class Mending
{
    public function __construct(private Bench $bench) {}

    /**
     * @param string $item key of the one thing that is meant, "" for all that the check finds
     *
     * @throws Refused when nothing of it is left, or there is no such mend
     */
    public static function command(Bench $bench, string $id, string $mend, string $item = ''): Command
    {
        $check = Checks::all()[$id] ?? throw new Refused('There is no such check.', 'check');
        if (! isset($check->mends()[$mend])) {
            throw new Refused('That cannot be mended in this way.', 'mend');
        }

        return (new self($bench))->mended($check, $mend, $item);
    }

    private function mended(Check $check, string $mend, string $item): Command
    {
        $bench = $this->bench;
        $looking = new Looking($bench);
        $items = array_values(array_filter($looking->find($check), static fn (Item $found): bool => $item === '' || $found->key === $item));
        if ($items === []) {
            throw new Refused('Nothing of it is left.', 'check');
        }
        $rows = $looking->model->none();
        foreach ($items as $found) {
            $rows = $rows->or($found->rows);
        }
        $names = Names::by($mend, $looking->model, $rows);
        if ($names !== null) {
            return new NameByMap($bench, $names, $looking->model->names);
        }

        return match ($mend) {
            'file-with-group' => new FileByMap($bench, $this->withGroups($rows)),
            'file-groups' => new FileByMap($bench, $this->groups($rows)),
            'delete' => new DeleteObjects($bench, $rows),
            'delete-twins' => new DeleteObjects($bench, $this->others($items)),
            'ungroup' => new UngroupObjects($bench, $rows),
            'group' => new GroupObjects($bench, $rows, 'Loose parts'),
            'clear-out' => new ClearOut(
                $bench,
                ['layers', 'tags', 'sets'],
                array_merge(...array_map(static fn (Item $found): array => $found->of, $items)),
            ),
            default => Replacing::sharing($bench, array_map(static fn (Item $found): string => substr($found->key, 0, 32), $items)),
        };
    }

    /** @return array<int, list<int>> rows by the layer of their groups */
    private function withGroups(Bits $rows): array
    {
        $scene = $this->bench->scene();
        $by = [];
        foreach ($rows->rows() as $row) {
            $layer = UnsortedInFiled::home($scene, $row);
            $layer === 0 || ($by[$layer][] = $row);
        }

        return $by;
    }

    /** @return array<int, list<int>> their groups by the layer that most of what stands in each has */
    private function groups(Bits $rows): array
    {
        $scene = $this->bench->scene();
        $by = [];
        foreach (array_unique(array_map($scene->parent(...), $rows->rows())) as $group) {
            $parts = array_filter($scene->children($group), static fn (int $child): bool => $scene->kind($child) !== Kind::Group);
            $layers = array_count_values(array_map(static fn (int $child): int => $scene->layers()->at($child), $parts));
            // Parts that nobody has filed say nothing about where their group belongs.
            unset($layers[Layer::UNSORTED]);
            arsort($layers);
            $by[(int) array_key_first($layers)][] = $group;
        }

        return $by;
    }

    /**
     * All but the first of each.
     *
     * @param non-empty-list<Item> $items
     */
    private function others(array $items): Bits
    {
        $rows = Bits::none($this->bench->scene()->count());
        foreach ($items as $item) {
            $all = $item->rows->rows();
            $rows = $rows->or(Bits::ofRows($rows->length, array_slice($all, 1)));
        }

        return $rows;
    }
}
