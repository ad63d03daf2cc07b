<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edits;
use App\Changes\Edits\Numbers;
use App\Changes\Edits\SourceEdit;
use App\Models\Change;
use App\Models\Project;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;

/** The changes of a project as a list: who, when, what, how many objects, and what it costs to keep them. */
final readonly class Log
{
    /** So many changes can be kept; 0 for all. */
    public const KEPT = [0, 1000, 300, 100, 30];

    public const PAGE = 80;

    public function __construct(private Project $project) {}

    /**
     * @param int    $person only theirs; 0 for everybody's
     * @param string $words  only what has these in its name
     * @param int    $page   from 0
     *
     * @return list<Change> the last first, with "size" in bytes
     */
    public function page(int $person, string $words, int $page): array
    {
        $columns = implode(', ', Change::HEAD);

        return array_values(
            $this->among($person, $words)
                ->with(['user', 'undoneBy'])
                ->selectRaw("$columns, octet_length(edits) + coalesce(octet_length(as_it_was), 0) AS size")
                ->orderByDesc('turn')
                ->offset($page * self::PAGE)
                ->limit(self::PAGE)
                ->get()
                ->all(),
        );
    }

    /** @return array{int, int, int} changes, bytes that all of them take, and how many of them can no longer be taken back */
    public function cost(): array
    {
        $sum = DB::selectOne(
            'SELECT count(*) AS changes, coalesce(sum(octet_length(edits) + coalesce(octet_length(as_it_was), 0)), 0) AS bytes,
                 count(*) FILTER (WHERE thinned) AS thinned FROM changes WHERE project_id = ?',
            [$this->project->id],
        );

        return [(int) $sum->changes, (int) $sum->bytes, (int) $sum->thinned];
    }

    public function count(int $person, string $words): int
    {
        return $this->among($person, $words)->count();
    }

    /** Numbers of the objects that a change changed; null when that is no longer kept. */
    public function objects(int $number): ?Bits
    {
        $change = $this->project->changes()->where('no', $number)->where('thinned', false)->first();
        if ($change === null) {
            return null;
        }
        $edits = Edits::unpack($change->edits);
        $objects = $edits->objects();
        foreach ($edits->steps as $step) {
            if ($step instanceof SourceEdit) {
                $came = DB::table('objects')
                    ->where('project_id', $this->project->id)
                    ->where('source_id', $step->source)
                    ->orderBy('no')
                    ->pluck('no')
                    ->all();
                $objects = $objects->with(Numbers::of(array_map(intval(...), $came)));
            }
        }

        return $objects;
    }

    /**
     * Lets go of what older changes did, as the project is set; that they were made stays known.
     *
     * @return int how many
     */
    public function thin(): int
    {
        $kept = $this->project->history_kept;
        if ($kept === 0) {
            return 0;
        }
        $turn = $this->project->changes()->orderByDesc('turn')->offset($kept)->limit(1)->value('turn');

        return ! is_int($turn)
            ? 0
            : Change::query()
                ->where('project_id', $this->project->id)
                ->where('turn', '<=', $turn)
                ->where('thinned', false)
                ->update(['thinned' => true, 'edits' => DB::raw("''::bytea"), 'as_it_was' => null]);
    }

    /** @return Builder<Change> */
    private function among(int $person, string $words): Builder
    {
        $changes = $this->project->changes()->getQuery();
        if ($person > 0) {
            $changes->where('user_id', $person);
        }
        if ($words !== '') {
            $changes->where('name', 'ilike', '%'.addcslashes($words, '%_\\').'%');
        }

        return $changes;
    }
}
