<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Layers\Layer;
use VineShelf\Layers\LayerTree;
use VineShelf\Locks\Lock;

/** A layer gets another name or colour. */
final class ChangeLayer extends Command
{
    private function __construct(private readonly string $title, private readonly Edits $edits) {}

    public static function rename(LayerTree $tree, int $number, string $name): self
    {
        $layer = $tree->get($number);
        if ($layer->isUnsorted()) {
            throw new Refused('Unsorted keeps its name.', 'name');
        }
        self::refuseLocked($tree, $layer);
        $name = LayerNames::check($name);
        LayerNames::checkFree($name, $tree, $layer->parent, $number);

        return self::columns("Rename layer $layer->name to $name", $number, ['name' => $layer->name], ['name' => $name]);
    }

    public static function colour(LayerTree $tree, int $number, string $colour): self
    {
        $layer = $tree->get($number);
        self::refuseLocked($tree, $layer);
        if (preg_match('~^#[0-9a-f]{6}$~', $colour) !== 1) {
            throw new Refused('A colour is written as # and six digits, for example #3f7a63.', 'colour');
        }

        return self::columns("Colour layer $layer->name", $number, ['colour' => $layer->colour], ['colour' => $colour]);
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
     * @param array<string, mixed> $before
     * @param array<string, mixed> $after
     */
    private static function columns(string $title, int $number, array $before, array $after): self
    {
        return new self($title, new Edits($before === $after ? [] : [new RowEdit('layers', $number, $before, $after)]));
    }

    private static function refuseLocked(LayerTree $tree, Layer $layer): void
    {
        if ($tree->locks()[$layer->number] === Lock::Locked->value) {
            throw new Refused("$layer->name is locked; open it first.");
        }
    }
}
