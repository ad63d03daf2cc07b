<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Rungs\Settings;
use VineShelf\Views\Applied;
use VineShelf\Views\Facet;

/**
 * A new view of a desk, last in its folder.
 *
 * @phpstan-import-type Camera from ViewState
 */
final class KeepView extends Command
{
    public readonly int $number;

    private readonly string $title;

    private readonly Edits $edits;

    /**
     * @param string        $name    "" for one by number
     * @param list<Facet>   $facets  what it keeps
     * @param Camera|null   $camera  as the canvas has it
     * @param string        $picture file, "" for none
     * @param Settings|null $rungs   own rungs to keep, all meant for pictures; null for those of the desk
     * @param array<string, bool>|null $meant whether pictures take it over, by id of the line of {@see Lowered}; null for all of it
     */
    public function __construct(
        Bench $bench,
        string $name,
        array $facets,
        ?array $camera,
        string $picture,
        ?Settings $rungs = null,
        string $note = '',
        int $folder = 0,
        ?array $meant = [],
    ) {
        if ($facets === []) {
            throw new Refused('A view keeps at least one thing: tick what it is to keep.', 'facets');
        }
        if ($camera === null && in_array(Facet::Camera, $facets, true)) {
            throw new Refused('The camera could not be read; move it a little and try again.', 'facets');
        }
        $this->number = $bench->project->next_view++;
        $name = ChangeViews::checked($name === '' ? "View $this->number" : $name);
        $this->title = "Keep view $name";
        $isChosen = $rungs === null && $meant !== null && in_array(Facet::Rungs, $facets, true);
        $means = $isChosen ? Lowered::onDesk($bench)->meant($meant) : null;
        $this->edits = new Edits([
            new RowEdit(
                'views',
                $this->number,
                null,
                [
                    'position' => self::last($bench, $folder) + 1,
                    'folder_no' => $folder,
                    'name' => $name,
                    'note' => ChangeViews::checkedNote($note),
                    'newcomers' => Applied::HIDDEN,
                    'meant' => $means === null ? null : base64_encode($means->pack()),
                    'picture' => $picture,
                    'pictured' => $bench->project->revision,
                    'kept_at' => now()->toDateTimeString(),
                ] +
                    ViewState::of($bench, $facets, $camera, $rungs ?? $bench->kept()) +
                    ViewState::known($bench),
            ),
        ]);
    }

    /** The last place in a folder. */
    private static function last(Bench $bench, int $folder): int
    {
        return max(
            0,
            (int) $bench->project->views()->where('folder_no', $folder)->max('position'),
            ...array_map(static fn ($each): int => $each->parent === $folder ? $each->position : 0, $bench->organizers()->viewFolders),
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
}
