<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edits;
use App\Changes\Edits\MembersEdit;
use App\Changes\Edits\RowEdit;
use VineShelf\Folders\Holds;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Sets\SelectionSet;

/** The set at the end of a path through folders, made where it is missing, is a rule from now on, or a list of members. */
final class KeepSet extends Command
{
    private readonly string $title;

    private readonly Edits $edits;

    /**
     * @param string    $path for example "Wet / Everything wet"
     * @param string    $rule of a live set
     * @param Bits|null $rows scene rows of a fixed set's members; null for a live set
     */
    public function __construct(Bench $bench, string $path, string $rule, ?Bits $rows)
    {
        $along = new AlongPath($bench);
        $names = AlongPath::names($path, 'set');
        $name = (string) array_pop($names);
        $folder = $along->folder(Holds::Sets, $names);
        $number = $along->member(Holds::Sets, $folder, $name);
        $kept = new SelectionSet($number ?? $bench->project->next_set, $folder, 0, $name, $rows === null ? $rule : null);
        $rows === null ? ChangeOrganizer::checkRule($bench, $kept) : ChangeOrganizer::checkNoCycle($bench, $kept);
        $members = $rows === null ? null : $bench->scene()->numberBits($rows);
        $content = [
            'rule' => $rows === null ? trim($rule) : null,
            'members' => $members === null ? null : base64_encode(Members::pack($members)),
            'size' => $members?->count() ?? 0,
        ];
        if ($number === null) {
            $along->makeMember(Holds::Sets, $folder, $name, $content);
            $this->edits = new Edits($along->steps);
        } else {
            $this->edits = new Edits([...$along->steps, ...self::changed($bench, $number, $content)]);
        }
        $this->title = $rows === null ? "Keep live set $name" : "Keep set $name of ".number_format($rows->count()).' objects';
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /**
     * @param array{rule: string|null, members: string|null, size: int} $content
     *
     * @return list<RowEdit|MembersEdit>
     */
    private static function changed(Bench $bench, int $number, array $content): array
    {
        $set = $bench->sets()->get($number);
        $before = MembersEdit::members($bench->project, 'sets', $number) ?? Bits::none(0);
        $after = Members::unpack((string) base64_decode((string) $content['members'], true));
        $steps =
            $set->rule === $content['rule'] ? [] : [new RowEdit('sets', $number, ['rule' => $set->rule], ['rule' => $content['rule']])];
        [$added, $removed] = [$after->less($before), $before->less($after)];

        return $added->isEmpty() && $removed->isEmpty() ? $steps : [...$steps, new MembersEdit('sets', $number, $added, $removed)];
    }
}
