<?php

declare(strict_types=1);

namespace App\Models;

use App\Models\Concerns\NumberedInProject;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;
use VineShelf\Folders\Shelved;
use VineShelf\Layers\LayerTree;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;
use VineShelf\Section\Section;
use VineShelf\Tags\TagTree;
use VineShelf\Views\Copying;
use VineShelf\Views\Facet;
use VineShelf\Views\Known;

/**
 * A saved view state. A facet that the view does not keep is null.
 *
 * @property int $project_id
 * @property int $no
 * @property int $folder_no number of the folder that it stands in, 0 for none
 * @property int $position
 * @property string $name
 * @property string $note
 * @property array{eye: list<float>, target: list<float>, fov: float, tall?: float, up?: list<float>, aspect?: float}|null $camera metres, z
 *     up; field of view in degrees; tall: metres that a parallel picture is high; aspect: width by height
 * @property array{by?: string, seed?: int, pick?: string, first?: string, second?: string}|null $tint as a desk has it
 * @property array<string, mixed>|null $section as a desk has it
 * @property bool $camera_held whether the camera stays what it is when the view is updated
 * @property int $newcomers what objects get that came later: {@see \VineShelf\Views\Applied}
 * @property int|null $known_layer the newest layer that the view knows, where known_layers says nothing
 * @property list<int>|null $known_layers
 * @property list<int>|null $known_folders
 * @property int|null $known_object the newest object that the view knows, null when it was kept before that was noted
 * @property int $known_turn the number that the next change would have got when it was kept, updated or reviewed
 * @property string|null $meant packed settings, see {@see meant()}
 * @property string|null $before_hiding packed settings, see {@see beforeHiding()}
 * @property string $picture file on the disk for kept files, empty for none
 * @property int $pictured revision of the project that the picture shows, 0 once the view shows something else
 * @property Carbon $kept_at
 */
final class View extends Model implements Shelved
{
    use NumberedInProject;

    /** The column that keeps each facet. */
    public const COLUMNS = [
        'camera' => 'camera',
        'rungs' => 'rungs',
        'output' => 'own_output',
        'tint' => 'tint',
        'section' => 'section',
        'isolation' => 'isolated',
    ];

    public $timestamps = false;

    protected $table = 'views';

    protected $guarded = [];

    protected $casts = [
        'camera' => 'array',
        'rungs' => Casts\Bytes::class,
        'own_output' => Casts\Bytes::class,
        'before_hiding' => Casts\Bytes::class,
        'meant' => Casts\Bytes::class,
        'tint' => 'array',
        'section' => 'array',
        'isolated' => Casts\Bytes::class,
        'known_layers' => 'array',
        'known_folders' => 'array',
        'strangers' => Casts\Bytes::class,
        'kept_at' => 'datetime',
        'camera_held' => 'boolean',
    ];

    public function number(): int
    {
        return $this->no;
    }

    public function folder(): int
    {
        return $this->folder_no;
    }

    public function position(): int
    {
        return $this->position;
    }

    public function name(): string
    {
        return $this->name;
    }

    public function keeps(Facet $facet): bool
    {
        return ($this->getAttributes()[self::COLUMNS[$facet->value]] ?? null) !== null;
    }

    /** @return list<Facet> what it keeps */
    public function facets(): array
    {
        return array_values(array_filter(Facet::cases(), $this->keeps(...)));
    }

    public function keepsRungs(): bool
    {
        return $this->keeps(Facet::Rungs);
    }

    /** Whether it has no picture, or one of what it showed before. */
    public function isPictureOld(): bool
    {
        return $this->picture === '' || $this->pictured === 0;
    }

    /** Its own output settings; null when it keeps none. */
    public function output(): ?OutputSettings
    {
        return $this->keeps(Facet::Output) ? OutputSettings::unpack(Casts\Bytes::read($this->getAttributes()['own_output'])) : null;
    }

    public function settings(): Settings
    {
        return Settings::unpack(Casts\Bytes::read($this->getAttributes()['rungs'] ?? null));
    }

    /** Of the rungs that it keeps, those that its pictures take over. */
    public function meant(): Settings
    {
        return $this->meansAll() ? $this->settings() : Settings::unpack(Casts\Bytes::read($this->getAttributes()['meant']));
    }

    /** Whether its pictures take over all that it keeps. */
    public function meansAll(): bool
    {
        return ($this->getAttributes()['meant'] ?? null) === null;
    }

    /** What rows that are hidden in the view had set before, as {@see \VineShelf\Rungs\BeforeHiding} has it. */
    public function beforeHiding(): Settings
    {
        return Settings::unpack(Casts\Bytes::read($this->getAttributes()['before_hiding'] ?? null));
    }

    /** What it shows alone; null when it says nothing of that. */
    public function isolation(): ?Isolation
    {
        return $this->keeps(Facet::Isolation) ? Isolation::unpack(Casts\Bytes::read($this->getAttributes()['isolated'])) : null;
    }

    /** Its section; null when it says nothing of that. */
    public function cut(): ?Section
    {
        return $this->section === null ? null : Section::fromArray($this->section);
    }

    /**
     * What the view knew when it was kept, updated or last reviewed.
     *
     * @param list<Copying> $copyings of the project, the first first
     */
    public function known(LayerTree $layers, TagTree $tags, array $copyings): Known
    {
        $numbers = $this->known_layers;
        if ($numbers === null) {
            $numbers = [];
            foreach ($layers->walk() as [$layer]) {
                if ($layer->number <= ($this->known_layer ?? PHP_INT_MAX)) {
                    $numbers[] = $layer->number;
                }
            }
        }

        return new Known(
            array_fill_keys($numbers, true),
            array_fill_keys($this->known_folders ?? array_keys($tags->tree->folders), true),
            $this->known_object ?? PHP_INT_MAX >> 8,
            $this->strangers(),
            $copyings,
        );
    }

    /** Numbers of objects that the view does not know although newer ones were there when it was kept. */
    public function strangers(): Bits
    {
        $packed = Casts\Bytes::read($this->getAttributes()['strangers'] ?? null);

        return $packed === '' ? Bits::none(0) : Members::unpack($packed);
    }
}
