<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edits;
use App\Changes\Edits\NamesEdit;
use VineShelf\Naming\Renaming;

/** Objects get names of which each was worked out for it. */
final class NameByMap extends Command
{
    private readonly Edits $edits;

    private readonly string $title;

    /**
     * @param array<int, string> $names new names by scene row
     * @param list<string>       $known names that there are, by scene row
     */
    public function __construct(Bench $bench, array $names, array $known)
    {
        $scene = $bench->scene();
        $locked = $bench->inEffect()->locked();
        $before = $after = [];
        $left = 0;
        foreach ($names as $row => $name) {
            $name = mb_substr($name, 0, Renaming::LONGEST);
            if ($locked->has($row)) {
                $left++;
            } elseif ($name !== $known[$row]) {
                $before[$scene->number($row)] = $known[$row];
                $after[$scene->number($row)] = $name;
            }
        }
        $this->leftAlone = self::lockedInWords($left);
        $this->edits = new Edits($after === [] ? [] : [new NamesEdit($before, $after)]);
        $this->title = 'Rename '.number_format(count($after)).' '.(count($after) === 1 ? 'object' : 'objects').' to tidy up';
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
