<?php

declare(strict_types=1);

namespace App\Changes;

use App\Changes\Edits\Edits;
use App\Changes\Edits\Ground;
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
        if ($made->isEmpty()) {
            return;
        }
        foreach ($this->done() as $other) {
            $done = $made->count() - $made->less(Edits::unpack($other->edits)->objects())->count();
            if ($done > 0) {
                $objects = number_format($done).' of the objects that it made '.($done === 1 ? 'has' : 'have').' been changed since';
                throw new CannotTurn($this->change, $objects, upon: $other);
            }
        }
    }

    /** The last that stands on the change: by what it did, or else by what views keep because of it. */
    public function standing(CannotTurn $cannot, bool $undo): ?Change
    {
        $byViews = null;
        try {
            $edits = Edits::unpack($this->change->edits);
            $ground = new Ground(new Edits(($undo ? $edits : $edits->reversed())->apart()[0]));
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
    private function done(): iterable
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
