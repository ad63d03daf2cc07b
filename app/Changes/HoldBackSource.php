<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\HoldBackEdit;
use App\Models\Source;

/** What came in a file is not for export, for a reason, or is for export again. */
final class HoldBackSource extends Command
{
    private const LONGEST = 400;

    private readonly Source $source;

    private readonly string $reason;

    /** @param string $reason empty for none */
    public function __construct(Bench $bench, int $source, string $reason)
    {
        $this->reason = trim((string) preg_replace('~\s+~u', ' ', $reason));
        if (mb_strlen($this->reason) > self::LONGEST) {
            throw new Refused('A reason has at most '.self::LONGEST.' characters.', 'reason');
        }
        $this->source =
            $bench->project->sources()->where('gone', false)->find($source) ?? throw new Refused('That file is no longer there.', 'reason');
    }

    public function name(): string
    {
        return ($this->reason === '' ? 'Let exports have ' : 'Keep out of exports: ').
            $this->source->name.
            ($this->reason === '' ? ' again' : '');
    }

    public function edits(): Edits
    {
        return new Edits(
            $this->source->held_back === $this->reason
                ? []
                : [new HoldBackEdit($this->source->id, $this->source->held_back, $this->reason)],
        );
    }
}
