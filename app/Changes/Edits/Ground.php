<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;

/**
 * What a change wrote and goes by, told once, so that many later ones can be asked whether they stand on it. As long as nothing is taken
 * back that something later stands on, what was done last can always be taken back, and so can everything in the end.
 */
final class Ground
{
    /** @var array<string, Bits> what it writes, done or taken back */
    private readonly array $written;

    /** @var array<string, Bits> what has to be there to take it back */
    private readonly array $needed;

    private readonly KnownRows $rows;

    /** @var list<PlacesBeneath> what comes to lie in something else when it is taken back */
    private readonly array $moves;

    /** @param Edits $edits what the change did; whatever came later is asked about from the last on */
    public function __construct(Project $project, Edits $edits)
    {
        $this->rows = new KnownRows($project);
        $this->rows->learn($edits);
        $back = $edits->reversed();
        $this->written = self::together($edits->written(), $back->written(), $this->rows->claimed($edits), self::awayIn($project, $edits));
        $this->needed = $back->needed();
        $this->moves = PlacesBeneath::after($project, $back);
    }

    /** Whether others, which came later, stand on it: so that it cannot be taken back. */
    public function bears(Edits $later): bool
    {
        $this->rows->learn($later);
        $written = self::together($later->written(), $this->rows->claimed($later));

        return Edits::meet($written, $this->written) ||
            Edits::meet($written, $this->needed) ||
            Edits::meet($later->needed(), $this->written) ||
            Edits::meet($later->reversed()->needed(), $this->written) ||
            array_filter($this->moves, static fn (PlacesBeneath $moves): bool => $moves->closedBy($later)) !== [];
    }

    /**
     * Objects that are away now, but lie in layers or stand in groups that would go: should they come back, they need them.
     *
     * @return array<string, Bits>
     */
    private static function awayIn(Project $project, Edits $edits): array
    {
        $layers = [];
        foreach ($edits->steps as $step) {
            if ($step instanceof RowEdit && $step->table === 'layers' && $step->before === null) {
                $layers[] = $step->number;
            }
        }
        $groups = $edits->made()->rows();
        if ($layers === [] && $groups === []) {
            return [];
        }
        $away = DB::table('objects')
            ->where('project_id', $project->id)
            ->where('gone', true)
            ->whereRaw(
                '(layer_no = ANY(?::int[]) OR parent_no = ANY(?::int[]))',
                array_map(static fn (array $numbers): string => '{'.implode(',', $numbers).'}', [$layers, $groups]),
            )
            ->pluck('no');

        return ['there' => Numbers::of($away->all())];
    }

    /**
     * @param array<string, Bits> ...$lists
     *
     * @return array<string, Bits>
     */
    private static function together(array ...$lists): array
    {
        $all = [];
        foreach ($lists as $list) {
            foreach ($list as $what => $numbers) {
                $all[$what] = isset($all[$what]) ? $all[$what]->with($numbers) : $numbers;
            }
        }

        return $all;
    }
}
