<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edits;
use App\Changes\Edits\Ground;
use App\Changes\Edits\RowEdit;
use App\Models\Change;
use App\Models\Project;
use VineShelf\Scene\Bits;

/** What was done after a change and still is: what may stand on it. */
final readonly class Later
{
    /** So many seconds it is looked through, the last first, for what stands on the change. */
    private const LOOKS_FOR = 5;

    public function __construct(private Project $project, private Change $change) {}

    /**
     * Looks whether nothing was done to objects that the change made: it would go with them.
     *
     * @param Bits $made numbers of the objects
     *
     * @throws CannotTurn
     */
    public function checkUntouched(Bits $made): void
    {
        foreach ($made->isEmpty() ? [] : $this->done() as $other) {
            $done = $made->count() - $made->less(Edits::unpack($other->edits)->objects())->count();
            if ($done > 0) {
                $objects = number_format($done).' of the objects that it made '.($done === 1 ? 'has' : 'have').' been changed since';
                throw new CannotTurn($this->change, $objects, upon: $other);
            }
        }
    }

    /**
     * Looks whether nothing stands on what the change did, once it is taken back. That everything is as the change left it is not enough:
     * what others did since may have come to the same, and they could not take that back then.
     *
     * @param Edits $edits what the change did, without what views keep because of it
     *
     * @throws CannotTurn
     */
    public function checkNothingStands(Edits $edits): void
    {
        $ground = null;
        foreach ($this->done() as $other) {
            $ground ??= new Ground($this->project, $edits);
            if ($ground->bears(Edits::unpack($other->edits))) {
                throw new CannotTurn($this->change, 'what it did has been built upon since', upon: $other);
            }
        }
    }

    /**
     * What was written of views since.
     *
     * @param list<int> $views numbers
     *
     * @return array<int, array<string, Bits>> as {@see Edit::writes()} has it, by number of the view
     */
    public function rewritten(array $views): array
    {
        $written = [];
        foreach ($this->done() as $other) {
            foreach (Edits::unpack($other->edits)->steps as $step) {
                if ($step instanceof RowEdit && $step->table === 'views' && in_array($step->number, $views, true)) {
                    $written[$step->number] = $step->writes() + ($written[$step->number] ?? []);
                }
            }
        }

        return $written;
    }

    /** The last that stands on the change: by what it did, or else by what views keep because of it. */
    public function standing(CannotTurn $cannot, bool $undo): ?Change
    {
        $byViews = null;
        try {
            $edits = Edits::unpack($this->change->edits);
            $ground = new Ground($this->project, new Edits(($undo ? $edits : $edits->reversed())->apart()[0]));
            $until = microtime(true) + self::LOOKS_FOR;
            foreach ($this->done() as $other) {
                if (microtime(true) > $until) {
                    break;
                }
                $theirs = Edits::unpack($other->edits);
                $done = new Edits($theirs->apart()[0]);
                if ($cannot->by === [] ? $ground->bears($done) : $done->write($cannot->by)) {
                    return $other;
                }
                $byViews ??= $ground->bears($theirs) ? $other : null;
            }
        } catch (\JsonException | \InvalidArgumentException | \ErrorException) {
            // Which one it is cannot be told; why it cannot be taken back can.
        }

        return $byViews;
    }

    /** @return iterable<Change> the last first */
    public function done(): iterable
    {
        return $this->project
            ->changes()
            ->with('user')
            ->where('undone', false)
            ->where('thinned', false)
            ->where('turn', '>', $this->change->turn)
            ->orderByDesc('turn')
            ->lazy(20);
    }
}
