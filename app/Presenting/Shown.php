<?php

declare(strict_types=1);

namespace App\Presenting;

use App\Bench\Bench;
use App\Models\ShareLink;
use App\Workbench\Surfaces;
use Illuminate\Support\Facades\Storage;
use VineShelf\Geometry\PackPart;
use VineShelf\Scene\Bits;
use VineShelf\Scene\DrawRecords;
use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Scene;

/** What a link shows: the steps of its views, and of the model only what one of them shows. */
final class Shown
{
    private ?Presentation $presentation = null;

    /** @var array<int, true>|null */
    private ?array $meshes = null;

    public function __construct(public readonly ShareLink $link, public readonly Bench $bench) {}

    public static function by(ShareLink $link): self
    {
        return new self($link, Bench::of($link->project, $link->maker));
    }

    public function presentation(): Presentation
    {
        return $this->presentation ??= new Presentation($this->bench, $this->numbers(), $this->link->as_pictures);
    }

    public function scene(): Scene
    {
        return $this->bench->scene();
    }

    /** @return array<int, true> numbers of the meshes that are drawn as more than boxes, as keys */
    public function meshes(): array
    {
        if ($this->meshes === null) {
            $numbers = $this->presentation()->remembered('meshes', fn (): string => pack('V*', ...array_keys($this->drawn())));
            $this->meshes = array_fill_keys(Packed::uint32($numbers, 0, intdiv(strlen($numbers), 4)), true);
        }

        return $this->meshes;
    }

    /** @return array<int, true> the same, from the placements of what is shown */
    private function drawn(): array
    {
        $meshes = [];
        $records = $this->scene()->column('records');
        $recordAt = $this->scene()->column('recordAt');
        foreach ($this->presentation()->formed()->ranges() as [$first, $last]) {
            $end = Packed::uint32At($recordAt, $last + 1);
            for ($at = Packed::uint32At($recordAt, $first); $at < $end; $at++) {
                $meshes[Packed::uint32($records, $at * DrawRecords::RECORD + 4, 1)[0]] = true;
            }
        }

        return $meshes;
    }

    /** The coarser versions that there are of what is drawn. */
    public function versions(): string
    {
        $meshes = $this->meshes();
        $versions = '';
        foreach (str_split($this->scene()->column('versions'), MeshVersions::ENTRY) as $entry) {
            if (strlen($entry) === MeshVersions::ENTRY && isset($meshes[Packed::uint32($entry, 0, 1)[0]])) {
                $versions .= $entry;
            }
        }

        return $versions;
    }

    /** A pack with what is drawn and nothing else; null where none of it is, or where it is lost. */
    public function pack(int $number): ?string
    {
        $file = $this->bench->project->packs()->where('no', $number)->value('file');
        $bytes = is_string($file) ? Storage::disk('local')->get($file) : null;

        return $bytes === null ? null : PackPart::of($bytes, $this->meshes())[0] ?? null;
    }

    /** @return array<int, array<int, mixed>> how the materials of what is drawn are drawn, by number */
    public function materials(): array
    {
        return array_intersect_key(Surfaces::of($this->bench->project), $this->materialNumbers());
    }

    public function hasTexture(int $number): bool
    {
        foreach ($this->materials() as $surface) {
            if ($surface[1] === $number || $surface[6] === $number) {
                return true;
            }
        }

        return false;
    }

    /** @return array<int, true> as keys */
    private function materialNumbers(): array
    {
        $bytes = $this->presentation()->remembered('materials', function (): string {
            $numbers = [];
            foreach ($this->bench->project->packs()->pluck('file') as $file) {
                $bytes = is_string($file) ? Storage::disk('local')->get($file) : null;
                $numbers += $bytes === null ? [] : PackPart::of($bytes, $this->meshes())[1] ?? [];
            }
            ksort($numbers);
            unset($numbers[0]);

            return Bits::ofRows((int) array_key_last($numbers), array_keys($numbers))->bytes;
        });

        return array_fill_keys([0, ...Bits::ofBytes((strlen($bytes) << 3) - 1, $bytes)->rows()], true);
    }

    /** @return list<int> numbers of the views that are still there */
    private function numbers(): array
    {
        $shelf = $this->bench->shelf();
        if ($this->link->views === 'all') {
            return $shelf->within(0);
        }
        $numbers = [];
        foreach (explode(',', $this->link->views) as $key) {
            $number = (int) substr($key, 1);
            $isFolder = str_starts_with($key, 'F');
            if ($isFolder && isset($shelf->folders[$number])) {
                $numbers = [...$numbers, ...$shelf->within($number)];
            } elseif (! $isFolder && isset($shelf->members[$number])) {
                $numbers[] = $number;
            }
        }

        return array_values(array_unique($numbers));
    }
}
