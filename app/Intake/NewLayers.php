<?php

declare(strict_types=1);

namespace App\Intake;

use App\Changes\Edits\RowEdit;
use App\Models\Project;

/** Layers that come with a file: those that are in the held project are used again. */
final class NewLayers
{
    /** @var list<RowEdit> what makes those that are new */
    public array $made = [];

    /** @var array<string, int> numbers by the number of what they lie in and the name in lower case */
    private array $known = [];

    /** @var array<int, int> last place by what layers lie in */
    private array $last = [];

    public function __construct(private readonly Project $project)
    {
        foreach ($project->layers()->orderBy('no')->get(['no', 'parent_no', 'name', 'position']) as $layer) {
            $this->known[$layer->parent_no.' '.mb_strtolower($layer->name)] ??= $layer->no;
            $this->last[$layer->parent_no] = max($this->last[$layer->parent_no] ?? 0, $layer->position);
        }
    }

    /**
     * The number of a layer by its path; what is missing of it is made.
     *
     * @param list<string> $path names from the top
     */
    public function at(array $path, string $colour): int
    {
        $number = 0;
        foreach ($path as $name) {
            $number = $this->known[$number.' '.mb_strtolower($name)] ?? $this->add($number, $name, $colour);
        }

        return $number;
    }

    /** @param string $cameAs what its file calls it, empty for nothing @return int its number */
    public function add(int $parent, string $name, string $colour, string $cameAs = ''): int
    {
        $number = $this->project->next_layer++;
        $this->made[] = new RowEdit('layers', $number, null, [
            'parent_no' => $parent,
            'position' => $this->last[$parent] = ($this->last[$parent] ?? 0) + 1,
            'name' => $name,
            'came_as' => $cameAs,
            'colour' => $colour,
            'lock' => 0,
        ]);

        return $this->known[$parent.' '.mb_strtolower($name)] = $number;
    }
}
