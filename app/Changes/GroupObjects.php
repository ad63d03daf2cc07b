<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use VineShelf\Layers\Layer;
use VineShelf\Naming\Renaming;
use VineShelf\Scene\Bits;

/** Objects come to stand in a group that is made for them, where the first of them stood. */
final class GroupObjects extends Command
{
    /** Number of the group. */
    public readonly int $group;

    private readonly Edits $edits;

    private readonly string $title;

    /** @param Bits $rows scene rows; what stands in another of them goes along with that @throws Refused */
    public function __construct(Bench $bench, Bits $rows, string $name)
    {
        $name = trim((string) preg_replace('~\s+~u', ' ', $name));
        if (mb_strlen($name) > Renaming::LONGEST) {
            throw new Refused('A name has at most '.Renaming::LONGEST.' characters; this one has '.mb_strlen($name).'.', 'name');
        }
        [$roots, $left] = Nesting::free($bench, $rows);
        $scene = $bench->scene();
        $within = Nesting::common($scene, $roots);
        Nesting::checkOpen($bench, $within);
        $parent = $within === 0 ? 0 : $scene->number($within);
        $layers = $scene->layers()->histogram($roots);
        arsort($layers);
        $new = new NewObjects($bench->project);
        $nesting = new Nesting($bench);
        $this->group = $bench->project->next_object;
        $placed = $nesting->put($parent, $this->order($bench, $roots, $within, $parent));
        // Where a landing layer was chosen new things go there; else to where most of what it holds is filed.
        $landing = $bench->desk->landing_layer;
        $chosen = $landing !== Layer::UNSORTED && $bench->layers()->has($landing);
        $new->group($name, $parent, $placed[$this->group] ?? 1, $chosen ? $landing : (int) array_key_first($layers));
        $nesting->move($roots, $this->group);
        $steps = $nesting->steps();
        $this->leftAlone = self::lockedInWords($left);
        $this->edits = new Edits([$new->step(), ...$steps]);
        $objects = number_format($roots->count()).' '.($roots->count() === 1 ? 'object' : 'objects');
        $this->title = "Group $objects".($name === '' ? '' : " as $name");
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /** @return list<int> what stands in the parent, the group where the first of them stands or what that stands in */
    private function order(Bench $bench, Bits $roots, int $within, int $parent): array
    {
        $scene = $bench->scene();
        $first = $roots->slice(0, 1)[0];
        while ($scene->parent($first) !== $within) {
            $first = $scene->parent($first);
        }
        $there = array_keys(Siblings::of($bench->project, $parent));
        array_splice($there, (int) array_search($scene->number($first), $there, true), 0, [$this->group]);

        return array_values(array_diff($there, $scene->numbersIn($roots->ranges())));
    }
}
