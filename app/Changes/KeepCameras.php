<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Folders\Holds;
use VineShelf\Views\Applied;
use VineShelf\Views\Facet;

/**
 * Cameras become views that keep nothing else, in a folder of their own where there are several.
 *
 * @phpstan-import-type Camera from ViewState
 */
final class KeepCameras extends Command
{
    public readonly int $first;

    private readonly string $title;

    private readonly Edits $edits;

    /**
     * @param list<array{string, Camera}> $cameras name and camera
     * @param string                      $folder  what a folder for several is called
     */
    public function __construct(Bench $bench, array $cameras, string $folder)
    {
        if ($cameras === []) {
            throw new Refused('There are no cameras to keep.', 'cameras');
        }
        $steps = [];
        $in = 0;
        if (count($cameras) > 1) {
            $folder = new CreateFolder($bench, Holds::Views, self::free($bench, $folder), 0);
            $in = $folder->number;
            $steps = $folder->edits()->steps;
        }
        $last = (int) $bench->project->views()->where('folder_no', $in)->max('position');
        $this->first = $bench->project->next_view;
        foreach ($cameras as $at => [$name, $camera]) {
            $steps[] = new RowEdit(
                'views',
                $bench->project->next_view++,
                null,
                [
                    'position' => $last + $at + 1,
                    'folder_no' => $in,
                    'name' => mb_substr(ChangeViews::checked($name), 0, ChangeViews::NAME_LENGTH),
                    'newcomers' => Applied::HIDDEN,
                    'picture' => '',
                    'pictured' => 0,
                    'kept_at' => now()->toDateTimeString(),
                ] +
                    ViewState::of($bench, [Facet::Camera], $camera, $bench->kept()) +
                    ViewState::known($bench),
            );
        }
        $this->edits = new Edits($steps);
        $this->title = 'Keep '.(count($cameras) === 1 ? "camera {$cameras[0][0]}" : count($cameras).' cameras').' as views';
    }

    /** A name that no folder at the top has. */
    private static function free(Bench $bench, string $name): string
    {
        $taken = array_map(static fn (Organizer $row): string => mb_strtolower($row->name), Organizer::inside($bench, 'views', 0));
        $free = $name;
        for ($number = 2; in_array(mb_strtolower($free), $taken, true); $number++) {
            $free = "$name $number";
        }

        return $free;
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
