<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Database\Eloquent\Model;
use VineShelf\Rungs\BeforeHiding;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Parked;
use VineShelf\Scene\Pick;

/**
 * A person's own working state in a project.
 *
 * @property int $project_id
 * @property int $user_id
 * @property int $revision
 * @property array<string, mixed> $ledger lens, columns, what is unfolded, filters and sorting of the ledger
 * @property array{by?: string, seed?: int, pick?: string, first?: string, second?: string} $tint pick is a packed pick in base64; first and
 *     second are what is compared
 * @property int $view_no the view that the desk came from, 0 for none
 * @property int $landing_layer
 * @property bool $lands_in_new whether every new layer becomes the landing layer
 * @property list<string> $pins what is pinned beside the slots: keys of tags and sets, and rules
 * @property int $next_step
 * @property array{facets?: list<string>, meant?: array<string, bool>} $keeping what was ticked when a view was kept last: facets, and by
 *     kind of lowering whether pictures take it over
 * @property int $pick_at which of the picks before it came to last, an empty pick being none
 * @property array<string, mixed> $section as {@see \VineShelf\Section\Section::toArray()} gives it
 * @property int $alone_layer the layer that is looked at alone, one after the other; 0 for none
 * @property string $edges how the canvas draws edges, one of {@see self::EDGES}
 * @property bool $shows_output whether the canvas shows the output instead of the desk
 * @property bool $output_of_view whether that is the output of the view that the desk came from
 */
final class Desk extends Model
{
    /** As layers and tags say, over all shading, none, or edges only. */
    public const EDGES = ['own', 'over', 'none', 'only'];

    public $timestamps = false;

    public $incrementing = false;

    protected $primaryKey = 'project_id';

    protected $table = 'desks';

    protected $guarded = [];

    protected $attributes = [
        'revision' => 1,
        'ledger' => '{}',
        'view_no' => 0,
        'landing_layer' => 1,
        'next_step' => 1,
        'pick_at' => 0,
        'keeping' => '{}',
        'tint' => '{}',
        'lands_in_new' => false,
        'pins' => '[]',
        'shows_output' => false,
        'output_of_view' => true,
        'alone_layer' => 0,
        'section' => '{}',
        'edges' => 'own',
    ];

    protected $casts = [
        'rungs' => Casts\Bytes::class,
        'before_hiding' => Casts\Bytes::class,
        'pick' => Casts\Bytes::class,
        'ledger' => 'array',
        'isolated' => Casts\Bytes::class,
        'parked' => Casts\Bytes::class,
        'tint' => 'array',
        'lands_in_new' => 'boolean',
        'pins' => 'array',
        'keeping' => 'array',
        'shows_output' => 'boolean',
        'output_of_view' => 'boolean',
        'section' => 'array',
    ];

    /** Whether {@see of()} had to make it. */
    public bool $wasJustMade = false;

    public static function of(Project $project, User $user): self
    {
        $query = static fn () => self::query()->where('project_id', $project->id)->where('user_id', $user->id);
        $found = $query()->first();
        if ($found !== null) {
            return $found;
        }
        $layout = LedgerLayout::query()->where('user_id', $user->id)->where('is_default', true)->first();
        self::query()->insertOrIgnore([
            'project_id' => $project->id,
            'user_id' => $user->id,
            'ledger' => json_encode($layout === null ? new \stdClass : $layout->arrangement + ['layout' => $layout->no]),
        ]);
        $made = $query()->firstOrFail();
        $made->wasJustMade = true;

        return $made;
    }

    /** Writes the own rungs, and remembers what those had that are hidden then. */
    public function putSettings(Settings $rungs): void
    {
        $known = BeforeHiding::following($this->beforeHiding(), $this->settings(), $rungs);
        $this->setAttribute('rungs', $rungs->pack());
        $this->setAttribute('before_hiding', $known->isEmpty() ? null : $known->pack());
    }

    /** What hidden rows had set before, as {@see BeforeHiding} has it. */
    public function beforeHiding(): Settings
    {
        return Settings::unpack(Casts\Bytes::read($this->getAttributes()['before_hiding'] ?? null));
    }

    public function putPick(Pick $pick): void
    {
        $this->setAttribute('pick', $pick->pack());
    }

    public function putIsolation(Isolation $isolation): void
    {
        $this->alone_layer = 0;
        $this->setAttribute('isolated', $isolation->isOn() ? $isolation->pack() : null);
    }

    public function putParked(Parked $parked): void
    {
        $this->setAttribute('parked', $parked->pack());
    }

    /** All that a view keeps besides rungs; nothing of what it leaves alone. */
    public function putView(View $view): void
    {
        $this->view_no = $view->no;
        $this->tint = $view->tint ?? $this->tint;
        $this->section = $view->section ?? $this->section;
        $isolation = $view->isolation();
        if ($isolation !== null) {
            $this->putIsolation($isolation);
        }
    }

    /**
     * What views change besides rungs.
     *
     * @return array{view: int, tint: array<string, mixed>, section: array<string, mixed>, isolated: string, alone: int}
     */
    public function facets(): array
    {
        return [
            'view' => $this->view_no,
            'tint' => $this->tint,
            'section' => $this->section,
            'isolated' => base64_encode($this->isolation()->pack()),
            'alone' => $this->alone_layer,
        ];
    }

    /** @param array<string, mixed> $facets as {@see facets()} gave them */
    public function putFacets(array $facets): void
    {
        $list = static fn (string $key): array => is_array($facets[$key] ?? null) ? $facets[$key] : [];
        $whole = static fn (string $key): int => is_int($facets[$key] ?? null) ? $facets[$key] : 0;
        $isolated = is_string($facets['isolated'] ?? null) ? (string) base64_decode($facets['isolated'], true) : '';
        /** @var array{by?: string, seed?: int, pick?: string, first?: string, second?: string} $tint */
        $tint = $list('tint');
        /** @var array<string, mixed> $section */
        $section = $list('section');
        $this->view_no = $whole('view');
        $this->tint = $tint;
        $this->section = $section;
        $this->putIsolation(Isolation::unpack($isolated));
        $this->alone_layer = $whole('alone');
    }

    public function settings(): Settings
    {
        return Settings::unpack(Casts\Bytes::read($this->getAttributes()['rungs'] ?? null));
    }

    public function isolation(): Isolation
    {
        return Isolation::unpack(Casts\Bytes::read($this->getAttributes()['isolated'] ?? null));
    }

    public function parked(): Parked
    {
        return Parked::unpack(Casts\Bytes::read($this->getAttributes()['parked'] ?? null));
    }

    public function pick(): Pick
    {
        return Pick::unpack(Casts\Bytes::read($this->getAttributes()['pick'] ?? null));
    }

    protected function setKeysForSaveQuery($query)
    {
        return $query->where('project_id', $this->project_id)->where('user_id', $this->user_id);
    }
}
