<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Sets\SelectionSet;

/** A new selection set: fixed, with members, or live, with a rule. */
final class CreateSet extends Command
{
    private function __construct(public readonly int $number, private readonly string $title, private readonly Edits $edits) {}

    /** @param Bits $rows scene rows of its members */
    public static function fixed(Bench $bench, string $name, int $folder, Bits $rows): self
    {
        $count = $rows->count();
        $members = base64_encode(Members::pack($bench->scene()->numberBits($rows)));

        return self::made(
            $bench,
            $name,
            $folder,
            ['rule' => null, 'members' => $members, 'size' => $count],
            static fn (string $name): string => "Keep set $name of ".number_format($count).' '.($count === 1 ? 'object' : 'objects'),
        );
    }

    public static function live(Bench $bench, string $name, int $folder, string $rule): self
    {
        $name = RowNames::check($name, 'set');
        $rule = ChangeOrganizer::checkRule($bench, new SelectionSet($bench->project->next_set, $folder, 0, $name, $rule));

        return self::made(
            $bench,
            $name,
            $folder,
            ['rule' => $rule, 'members' => null, 'size' => 0],
            static fn (string $name): string => "Keep live set $name",
        );
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
     * @param array<string, mixed>      $content
     * @param \Closure(string): string $title
     */
    private static function made(Bench $bench, string $name, int $folder, array $content, \Closure $title): self
    {
        $name = RowNames::check($name, 'set');
        $folder = $bench->sets()->hasFolder($folder) ? $folder : 0;
        $beside = Organizer::inside($bench, 'sets', $folder);
        RowNames::checkFree($name, 'set', $beside);
        $number = $bench->project->next_set++;
        // A live set may be waiting for one of this name, and lead back here through it.
        ChangeOrganizer::checkNoCycle(
            $bench,
            new SelectionSet($number, $folder, 0, $name, is_string($content['rule']) ? $content['rule'] : null),
        );
        $row = ['folder_no' => $folder, 'position' => CreateTag::last($beside) + 1, 'name' => $name, 'note' => ''] + $content;

        return new self($number, $title($name), new Edits([new RowEdit('sets', $number, null, $row)]));
    }
}
