<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use App\Models\Casts\Bytes;
use Illuminate\Support\Facades\DB;

/** Views that show something differently since a change show again what they showed before it; the sorting stays as it is now. */
final class ViewsAsTheyWere extends Command
{
    private readonly string $title;

    private readonly Edits $edits;

    /** @param int $change number of the change that they show something differently since */
    public function __construct(Bench $bench, int $change)
    {
        $found = $bench->project->changes()->where('no', $change)->where('undone', false)->first();
        $packed = $found === null || $found->as_it_was === '' ? '' : (string) gzinflate($found->as_it_was);
        /** @var array<int, array<array-key, mixed>> $kept */
        $kept = $packed === '' ? [] : json_decode($packed, true, 8, JSON_THROW_ON_ERROR);
        if ($kept === []) {
            throw new Refused('What these views showed before is no longer kept; undo the change, or update the views.', 'change');
        }
        $steps = [];
        $rows = DB::table('views')
            ->where('project_id', $bench->project->id)
            ->whereIn('no', array_keys($kept))
            ->get(['no', 'name', 'rungs', 'meant', 'own_output']);
        foreach ($rows as $row) {
            $before = $after = [];
            foreach (self::columns($kept[(int) $row->no]) as $column => [$now, $then]) {
                // Who has changed a view meanwhile has said what it is to show.
                if (base64_encode(Bytes::read($row->$column)) === $now) {
                    [$before[$column], $after[$column]] = [$now === '' ? null : $now, $then === '' ? null : $then];
                }
            }
            if ($after !== []) {
                $steps[] = new RowEdit('views', (int) $row->no, $before, $after + ['pictured' => 0]);
            }
        }
        $left = count($kept) - count($steps);
        $this->leftAlone = $left === 0 ? '' : ($left === 1 ? '1 view was' : "$left views were").' changed meanwhile and left alone.';
        $views = count($steps) === 1 ? '1 view' : count($steps).' views';
        $this->title = "Keep $views as before “{$found?->name}”";
        $this->edits = new Edits($steps);
    }

    /**
     * @param array<array-key, mixed> $kept as {@see OldViews} has it; changes of before say it of rungs alone, without a name
     *
     * @return array<string, array{string, string}>
     */
    private static function columns(array $kept): array
    {
        /** @var array<string, array{string, string}> */
        return isset($kept[0]) ? ['rungs' => $kept] : $kept;
    }

    public function name(): string
    {
        return mb_strimwidth($this->title, 0, 250, '…');
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
