<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Colours\Palette;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Scene\Relatives;
use VineShelf\Tags\Tag;

/** A new tag, on nothing or on the pick. */
final class CreateTag extends Command
{
    public readonly int $number;

    public readonly int $tagged;

    private readonly string $tagName;

    private readonly Edits $edits;

    /** @param Bits|null $rows scene rows of objects that get it, with what they hold unless told otherwise */
    public function __construct(Bench $bench, string $name, int $folder, ?Bits $rows, bool $withHeld = true)
    {
        $this->tagName = RowNames::check($name, 'tag');
        $beside = Organizer::inside($bench, 'tags', $bench->tags()->hasFolder($folder) ? $folder : 0);
        RowNames::checkFree($this->tagName, 'tag', $beside);
        $scene = $bench->scene();
        $rows ??= Bits::none($scene->count());
        $rows = $withHeld ? Relatives::within($scene, $rows) : $rows;
        $open = $rows->without($bench->inEffect()->locked());
        $this->tagged = $open->count();
        $this->leftAlone = self::lockedInWords($rows->count() - $this->tagged);
        $this->number = $bench->project->next_tag++;
        $this->edits = new Edits([
            new RowEdit('tags', $this->number, null, [
                'folder_no' => $bench->tags()->hasFolder($folder) ? $folder : 0,
                'position' => self::last($beside) + 1,
                'name' => $this->tagName,
                'colour' => Palette::next(array_map(static fn (Tag $tag): string => $tag->colour, $bench->tags()->all())),
                'line' => 0,
                'lock' => 0,
                'note' => '',
                'members' => base64_encode(Members::pack($scene->numberBits($open))),
            ]),
        ]);
    }

    /** @param list<Organizer> $rows @return int the greatest place among them */
    public static function last(array $rows): int
    {
        return max([0, ...array_map(static fn (Organizer $row): int => $row->position, $rows)]);
    }

    public function name(): string
    {
        return "Create tag $this->tagName".
            ($this->tagged === 0 ? '' : ' on '.number_format($this->tagged).' '.($this->tagged === 1 ? 'object' : 'objects'));
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
