<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use App\Models\Casts\Bytes;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;

/** What tidy finds is waved through, or looked for again: a habit, one thing, or some objects. */
final class WaveThrough extends Command
{
    /** @param list<RowEdit> $steps */
    private function __construct(private readonly string $title, private readonly array $steps) {}

    /**
     * @param string    $check what finds it
     * @param string    $item  key of one thing that it found, "" for all
     * @param Bits|null $rows  scene rows of objects alone, null for whatever it finds
     * @param string    $what  how it is called
     *
     * @throws Refused when there is nothing to wave through
     */
    public static function it(Bench $bench, string $check, string $item, ?Bits $rows, string $what): self
    {
        if ($rows !== null && $rows->isEmpty()) {
            throw new Refused('None of the pick is among what was found.', 'of');
        }
        $same = DB::table('waivers')->where('project_id', $bench->project->id)->where('check', $check)->where('item', $item);
        if ($rows === null && $same->whereNull('members')->exists()) {
            return new self('', []);
        }
        $members = $rows === null ? null : base64_encode(Members::pack($bench->scene()->numberBits($rows)));
        $number = $bench->project->next_waiver++;

        return new self("Wave through: $what", [
            new RowEdit('waivers', $number, null, ['check' => $check, 'item' => $item, 'members' => $members]),
        ]);
    }

    /** All that was waved through of a check is looked for again. */
    public static function again(Bench $bench, string $check, string $what): self
    {
        $steps = [];
        foreach (DB::table('waivers')->where('project_id', $bench->project->id)->where('check', $check)->orderBy('no')->get() as $row) {
            $members = $row->members === null ? null : base64_encode(Bytes::read($row->members));
            $steps[] = new RowEdit('waivers', (int) $row->no, ['check' => $row->check, 'item' => $row->item, 'members' => $members], null);
        }

        return new self("Look again for: $what", $steps);
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return new Edits($this->steps);
    }
}
