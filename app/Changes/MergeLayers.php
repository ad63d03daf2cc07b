<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Organizer;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\PlacesEdit;
use App\Changes\Edits\RowEdit;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Layers\Layer;
use VineShelf\Locks\Lock;
use VineShelf\Scene\Bits;

/** Layers become one: what they hold, objects and layers, goes into another one, and they go. */
final class MergeLayers extends Command
{
    private readonly string $title;

    private readonly Edits $edits;

    /** @var list<int> numbers of the layers that go */
    private readonly array $going;

    /** @param list<int> $numbers of the layers that go @param int $into number of the one that stays */
    public function __construct(Bench $bench, array $numbers, private readonly int $into)
    {
        $tree = $bench->layers();
        $target = $tree->has($into) ? $tree->get($into) : throw new Refused('That layer is no longer there.', 'into');
        $this->going = array_values(
            array_filter(array_unique($numbers), static fn (int $number): bool => $number !== $into && $tree->has($number)),
        );
        if ($this->going === []) {
            throw new Refused('Choose two layers or more to make one of.', 'keys');
        }
        $rows = Bits::none($bench->scene()->count());
        $names = [];
        foreach ($this->going as $number) {
            $rows = $rows->or($bench->contents()->rows($number));
            $names[] = self::checked($bench, $number, $target)->name;
        }
        $locked = $rows->and($bench->inEffect()->locked())->count();
        if ($locked > 0) {
            throw new Refused(
                number_format($locked).
                    ' locked '.
                    ($locked === 1 ? 'object lies' : 'objects lie').
                    ' in them; open '.
                    ($locked === 1 ? 'it' : 'them').
                    ' first.',
                'keys',
            );
        }
        $filing = new FileObjects($bench, $rows, $target, withHeld: false);
        // What lies in one of them goes before it does.
        $inside = $this->going;
        usort($inside, static fn (int $a, int $b): int => count($tree->withNested($a)) <=> count($tree->withNested($b)));
        $leaving = array_map(
            static fn (int $number): RowEdit => new RowEdit(
                'layers',
                $number,
                RowEdit::stored(
                    DB::table('layers')->where('project_id', $bench->project->id)->where('no', $number)->first() ?? new \stdClass,
                ),
                null,
            ),
            $inside,
        );
        $this->edits = new Edits([...$filing->edits()->steps, ...$this->nested($bench, $into), ...$leaving]);
        $this->title = 'Merge '.(count($names) === 1 ? "layer $names[0]" : count($names).' layers')." into $target->name";
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    public function atLast(Project $project): void
    {
        foreach ($this->going as $gone) {
            DeskChange::land($project->id, $gone, $this->into);
        }
    }

    private static function checked(Bench $bench, int $number, Layer $target): Layer
    {
        $layer = $bench->layers()->get($number);
        if ($layer->isUnsorted()) {
            throw new Refused('Unsorted is always there; merge the other one into it.', 'keys');
        }
        if ($bench->layers()->locks()[$number] === Lock::Locked->value) {
            throw new Refused("$layer->name is locked; open it first.", 'keys');
        }
        if (in_array($target->number, $bench->layers()->withNested($number), true)) {
            throw new Refused("$target->name lies in $layer->name; merge it the other way round.", 'keys');
        }

        return $layer;
    }

    /**
     * The layers in those that go move into the one that stays; into Unsorted none does, they come to the top.
     *
     * @return list<PlacesEdit>
     */
    private function nested(Bench $bench, int $into): array
    {
        $into = $into === Layer::UNSORTED ? 0 : $into;
        $going = array_fill_keys(array_map(static fn (int $number): string => "L$number", $this->going), true);
        $moving = [];
        foreach ($this->going as $number) {
            foreach (Organizer::inside($bench, 'layers', $number) as $row) {
                if (! isset($going[$row->key()])) {
                    $moving[] = $row;
                }
            }
        }
        $staying = array_values(
            array_filter(
                Organizer::inside($bench, 'layers', $into),
                static fn (Organizer $row): bool => ! isset($going[$row->key()]) && ! in_array($row, $moving, false),
            ),
        );
        foreach ($moving as $index => $row) {
            RowNames::checkFree($row->name, 'layer', [...$staying, ...array_slice($moving, 0, $index)]);
        }

        return MoveRows::steps($moving, $into, $staying);
    }
}
