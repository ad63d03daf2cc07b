<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\Refused;
use App\Bench\SortingOf;
use App\Changes\Edits\Edit;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use App\Models\View;
use VineShelf\Bcf\Component;
use VineShelf\Bcf\Topic;
use VineShelf\Bcf\Viewpoint;
use VineShelf\Folders\Holds;
use VineShelf\Geometry\Box;
use VineShelf\Rungs\Isolation;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Pick;
use VineShelf\Scene\Relatives;
use VineShelf\Section\Plane;
use VineShelf\Section\Section;
use VineShelf\Tint\TintBy;
use VineShelf\Views\Applied;
use VineShelf\Views\Facet;
use VineShelf\Views\Upright;

/**
 * Viewpoints of a BCF become views in a folder of their own; what they select and colour becomes fixed sets.
 *
 * @phpstan-import-type Camera from Viewpoint
 */
final class ReadBcf extends Command
{
    public readonly int $views;

    /** @var list<string> what could not be matched or said, a sentence each */
    public array $remarks = [];

    /** @var list<Edit> */
    private array $steps = [];

    /** @var array<string, int> scene row by source and key, by key alone where one object has it, and by IFC GUID */
    private array $rows = [];

    private readonly Bits $draws;

    private int $unmatched = 0;

    /** @var array<string, true> names of sets, in lower case */
    private array $sets = [];

    private readonly string $title;

    /**
     * @param list<Topic> $topics
     * @param string      $name of the file
     */
    public function __construct(private readonly Bench $bench, array $topics, string $name)
    {
        $this->draws = $bench
            ->facts()
            ->ranked('instances')
            ->between(1, INF);
        $this->know();
        $viewpoints = [];
        foreach ($topics as $topic) {
            foreach ($topic->viewpoints as $at => $viewpoint) {
                $viewpoints[] = [$topic, $viewpoint, $at === 0 ? $topic->title : "$topic->title ".($at + 1)];
            }
        }
        if ($viewpoints === []) {
            throw new Refused('The BCF has no viewpoints.', 'file');
        }
        $folder = new CreateFolder($bench, Holds::Views, $this->freeFolder($name), 0);
        $this->steps = $folder->edits()->steps;
        foreach ($viewpoints as $at => [$topic, $viewpoint, $title]) {
            $this->read($topic, $viewpoint, trim($title) === '' ? 'Untitled' : $title, $folder->number, $at + 1);
        }
        $this->views = count($viewpoints);
        if ($this->unmatched > 0) {
            $this->remarks[] = number_format($this->unmatched).' of the objects that it names are not in this project.';
        }
        $this->title = 'Read '.($this->views === 1 ? '1 view' : "$this->views views")." from $name";
    }

    public function name(): string
    {
        return mb_strimwidth($this->title, 0, 250, '…');
    }

    public function edits(): Edits
    {
        return new Edits($this->steps);
    }

    private function read(Topic $topic, Viewpoint $viewpoint, string $title, int $folder, int $position): void
    {
        $labels = self::labels($topic);
        $name = ChangeViews::checked(mb_substr($title, 0, ChangeViews::NAME_LENGTH));
        $columns = array_fill_keys(array_values(View::COLUMNS), null);
        $keeps = $labels['keeps'];
        $has = static fn (Facet $facet, bool $otherwise): bool => $keeps === null ? $otherwise : in_array($facet->value, $keeps, true);
        if ($viewpoint->camera !== null && $has(Facet::Camera, true)) {
            $columns['camera'] = ViewState::json($this->camera($viewpoint->camera));
        }
        $selected = $this->matched($viewpoint->selected);
        $isAlone = $has(Facet::Isolation, false);
        if ($has(Facet::Rungs, true)) {
            $columns['rungs'] = base64_encode($this->rungs($viewpoint)->pack());
        }
        if ($isAlone) {
            $pick = Pick::ofBits($this->bench->scene()->numberBits($selected));
            $isolation = $selected->isEmpty() ? Isolation::none() : Isolation::none()->deeper($pick, Rung::Hidden);
            $columns['isolated'] = base64_encode($isolation->pack());
        } elseif (! $selected->isEmpty()) {
            $this->set("$name, selected", $selected);
        }
        if ($has(Facet::Section, $viewpoint->cuts !== [])) {
            $columns['section'] = ViewState::json($this->section($viewpoint, $name)->toArray());
        }
        if ($has(Facet::Tint, $labels['tint'] !== null)) {
            $columns['tint'] = ViewState::json($labels['tint'] === null ? [] : ['by' => $labels['tint']->value, 'seed' => 1]);
        } else {
            foreach ($viewpoint->colours as [$colour, $those]) {
                $this->set("$name, #$colour", $this->matched($those));
            }
        }
        if (array_filter($columns, static fn (?string $value): bool => $value !== null) === []) {
            $columns['rungs'] = base64_encode((new Settings)->pack());
        }
        $this->steps[] = new RowEdit(
            'views',
            $this->bench->project->next_view++,
            null,
            [
                'position' => $position,
                'folder_no' => $folder,
                'name' => $name,
                'note' => mb_substr(trim($topic->description), 0, ChangeViews::NOTE_LENGTH),
                'newcomers' => Applied::HIDDEN,
                'picture' => '',
                'pictured' => 0,
                'kept_at' => now()->toDateTimeString(),
            ] +
                $columns +
                ViewState::known($this->bench),
        );
    }

    /** @return array{keeps: list<string>|null, tint: TintBy|null} as our own files say it; null where a file does not */
    private static function labels(Topic $topic): array
    {
        $found = ['keeps' => null, 'tint' => null];
        foreach ($topic->labels as $label) {
            if (str_starts_with($label, 'Keeps: ')) {
                $words = array_map(trim(...), explode(',', substr($label, 7)));
                $found['keeps'] = array_values(array_filter($words, static fn (string $word): bool => Facet::tryFrom($word) !== null));
            } elseif (str_starts_with($label, 'Tinted by: ')) {
                $by = TintBy::tryFrom(trim(substr($label, 11)));
                $found['tint'] = $by === TintBy::Compare ? null : $by;
            }
        }

        return $found;
    }

    private function know(): void
    {
        foreach (SortingOf::objects($this->bench) as $index => [$source, $key]) {
            $row = $index + 1;
            $this->rows["$source\n$key"] = $row;
            $this->rows["\n$key"] = isset($this->rows["\n$key"]) ? 0 : $row;
            $ifc = Component::ifcOf($key);
            if ($ifc !== '') {
                $this->rows["ifc $ifc"] = $row;
            }
        }
        foreach (Organizer::inside($this->bench, 'sets', 0) as $row) {
            $this->sets[mb_strtolower($row->name)] = true;
        }
    }

    /**
     * @param list<Component> $components
     *
     * @return Bits rows
     */
    private function matched(array $components): Bits
    {
        $rows = [];
        foreach ($components as $component) {
            $row =
                $component->ifc !== ''
                    ? $this->rows["ifc $component->ifc"] ?? 0
                    : $this->rows["$component->system\n$component->key"] ?? ($this->rows["\n$component->key"] ?? 0);
            $row > 0 ? ($rows[] = $row) : $this->unmatched++;
        }
        sort($rows);

        return Bits::ofRows($this->bench->scene()->count(), $rows);
    }

    /** What is not visible is hidden: each object that draws something, by itself. */
    private function rungs(Viewpoint $viewpoint): Settings
    {
        $scene = $this->bench->scene();
        $excepted = Relatives::within($scene, $this->matched($viewpoint->excepted));
        $hidden = $viewpoint->shows ? $excepted->and($this->draws) : $this->draws->without($excepted);
        $holding = $hidden->and($scene->groupBits());

        return (new Settings)
            ->withObjects($scene->numberBits($hidden->without($holding)), Rung::Hidden)
            ->withObjectsAlone($scene->numberBits($holding), Rung::Hidden);
    }

    /**
     * @param Camera $camera
     *
     * @return array<string, mixed> as the canvas counts
     */
    private function camera(array $camera): array
    {
        $origin = $this->bench->facts()->origin();
        $eye = [$camera['eye'][0] - $origin[0], $camera['eye'][1] - $origin[1], $camera['eye'][2] - $origin[2]];
        [$x, $y, $z] = $camera['way'];
        $length = hypot($x, hypot($y, $z));
        // BCF does not say how far it looks: to the middle of the model, if that lies ahead.
        $way = [$x / $length, $y / $length, $z / $length];
        $box = new Box;
        foreach ($this->bench->scene()->children(0) as $root) {
            $place = $this->bench->facts()->placeFromOrigin($root);
            $box = $place === null ? $box : $box->with(new Box(...$place));
        }
        $middle = $box->middle();
        $ahead = (($middle[0] - $eye[0]) * $x + ($middle[1] - $eye[1]) * $y + ($middle[2] - $eye[2]) * $z) / $length;
        $far = $ahead > 0.5 ? $ahead : 10.0;

        return [
            'eye' => $eye,
            'target' => [$eye[0] + $way[0] * $far, $eye[1] + $way[1] * $far, $eye[2] + $way[2] * $far],
            'fov' => $camera['fov'] ?? 45.0,
            'aspect' => max(0.05, min(20.0, $camera['aspect'])),
        ] +
            (isset($camera['tall']) ? ['tall' => max(0.001, min(1e7, $camera['tall']))] : []) +
            (Upright::is($way, $camera['up']) ? [] : ['up' => $camera['up']]);
    }

    private function section(Viewpoint $viewpoint, string $name): Section
    {
        $planes = array_map(static fn (array $cut): Plane => self::plane($cut), $viewpoint->cuts);
        $sides = [];
        foreach ($planes as $plane) {
            foreach ($plane->normal as $axis => $along) {
                if (abs(abs($along) - 1) < 1e-9) {
                    $sides[$axis + ($along > 0 ? 3 : 0)] = $along > 0 ? $plane->distance : -$plane->distance;
                }
            }
        }
        if (count($planes) >= 6 && count($sides) === 6) {
            ksort($sides);
            $single = array_values(
                array_filter($planes, static fn (Plane $plane): bool => max(array_map(abs(...), $plane->normal)) < 1 - 1e-9),
            );

            return Section::of(new Box(...$sides), $single);
        }
        if (count($planes) > Section::MOST_PLANES) {
            $this->remarks[] =
                "$name: ".
                (count($planes) - Section::MOST_PLANES).
                ' of its planes are left out; a section has '.
                Section::MOST_PLANES.
                '.';
        }

        return Section::of(null, $planes, $planes !== []);
    }

    /** @param array{array{float, float, float}, array{float, float, float}} $cut */
    private static function plane(array $cut): Plane
    {
        [[$x, $y, $z], $points] = $cut;
        $length = hypot($points[0], hypot($points[1], $points[2]));

        return Plane::of($points, ($x * $points[0] + $y * $points[1] + $z * $points[2]) / $length);
    }

    private function set(string $name, Bits $rows): void
    {
        if ($rows->isEmpty()) {
            return;
        }
        $free = $name = mb_substr($name, 0, 180);
        for ($number = 2; isset($this->sets[mb_strtolower($free)]); $number++) {
            $free = "$name $number";
        }
        $this->sets[mb_strtolower($free)] = true;
        array_push($this->steps, ...CreateSet::fixed($this->bench, $free, 0, $rows)->edits()->steps);
    }

    private function freeFolder(string $name): string
    {
        $taken = array_map(static fn (Organizer $row): string => mb_strtolower($row->name), Organizer::inside($this->bench, 'views', 0));
        $name = mb_substr(trim((string) preg_replace('~\.(bcf|bcfzip)$~i', '', $name)) ?: 'BCF', 0, 180);
        $free = $name;
        for ($number = 2; in_array(mb_strtolower($free), $taken, true); $number++) {
            $free = "$name $number";
        }

        return $free;
    }
}
