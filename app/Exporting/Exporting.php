<?php

declare(strict_types=1);

namespace App\Exporting;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Files\UnableToKeep;
use App\Files\WholeFile;
use App\Models\Casts\Bytes;
use Illuminate\Support\Facades\DB;
use VineShelf\Export\GltfExport;
use VineShelf\Export\Part;
use VineShelf\Folders\Folder;
use VineShelf\Formats\SortedExtras;
use VineShelf\Geometry\Affine;
use VineShelf\Geometry\FileTooLong;
use VineShelf\Layers\Layer;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Levels;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Relatives;

/**
 * Writes some objects of a project as binary glTF, at given rungs, with the groups that they stand in. What is hidden stays out, lights
 * too; so does what is marked as not for export, with everything in it, by itself, by its layer or by its file.
 */
final class Exporting
{
    private const CHUNK = 5000;

    /** @var array<int, int> index of what is in the file already, by row */
    private array $added = [];

    /** @var array<int, list<string>> names from the top to a layer, by its number */
    private array $layers = [];

    /** @var array<int, list<string>> names of folders and a tag, by its number */
    private array $tags = [];

    private readonly Bits $heldBack;

    private readonly GltfExport $export;

    /** @param (\Closure(int, int): void)|null $told hears now and then how many objects are done, of how many */
    public function __construct(
        private readonly Bench $bench,
        private readonly Levels $rungs,
        bool $isQuantized = false,
        bool $isCompressed = false,
        private readonly ?\Closure $told = null,
    ) {
        $this->export = new GltfExport(new KeptShapes($bench), new KeptSurfaces($bench->project), $isQuantized, $isCompressed);
        $this->heldBack = self::heldBack($bench);
    }

    /** What is not for export: what is marked, and all that it holds; and what came in files that are not. */
    public static function heldBack(Bench $bench): Bits
    {
        $scene = $bench->scene();
        $held = Relatives::within($scene, $bench->organizers()->own->rows($scene, OwnValue::EXPORT));
        foreach ([self::layers($bench), self::sources($bench)] as $reasons) {
            foreach ($reasons as $rows) {
                $held = $held->or($rows);
            }
        }

        return $held;
    }

    /** @return array<string, Bits> by reason, what is in layers that are not for export, and in those nested in them */
    public static function layers(Bench $bench): array
    {
        $held = [];
        foreach ($bench->layers()->walk() as [$layer]) {
            if ($layer->heldBack !== '') {
                $nested = array_fill_keys($bench->layers()->withNested($layer->number), true);
                $rows = $bench->scene()->layers()->rowsOf($nested);
                $held[$layer->heldBack] = isset($held[$layer->heldBack]) ? $held[$layer->heldBack]->or($rows) : $rows;
            }
        }

        return $held;
    }

    /** @return array<string, Bits> by reason, what came in files that are not for export */
    public static function sources(Bench $bench): array
    {
        $held = [];
        foreach ($bench->project->sources()->where('gone', false)->where('held_back', '<>', '')->orderBy('id')->get() as $source) {
            $rows = $bench
                ->facts()
                ->sources()
                ->rowsOf([$source->id => true]);
            $held[$source->held_back] = isset($held[$source->held_back]) ? $held[$source->held_back]->or($rows) : $rows;
        }

        return $held;
    }

    /**
     * @param Bits   $rows the objects that are asked for
     * @param string $path where the file goes; what stands there is replaced once the file is whole
     *
     * @throws Refused      when nothing is left to export, or too much
     * @throws UnableToKeep when the file cannot be written
     */
    public function write(Bits $rows, string $path): Done
    {
        $scene = $this->bench->scene();
        $shown = $rows->and($this->rungs->atLeast(Rung::Box->value));
        $out = $shown->without($this->heldBack);
        $wanted = array_filter($out->rows(), fn (int $row): bool => $scene->kind($row) !== Kind::Group);
        if ($wanted === []) {
            throw new Refused('Nothing is left to export: what was asked for is empty, hidden, or not for export.', 'rule');
        }
        try {
            foreach (array_chunk($wanted, self::CHUNK) as $some) {
                $this->addAll($some, count($wanted));
            }
            $bytes = $this->keep($path);
        } catch (FileTooLong $reason) {
            throw new Refused($reason->getMessage(), 'rule');
        }

        $holders = count(array_filter(array_keys($this->added), static fn (int $row): bool => ! $rows->has($row)));

        return new Done(
            count($this->added),
            $this->drawing($rows->without($shown)),
            $this->reasons($shown->and($this->heldBack)),
            $bytes,
            $holders,
        );
    }

    /** How many of them are no groups. */
    private function drawing(Bits $rows): int
    {
        return $rows
            ->without(
                $this->bench
                    ->facts()
                    ->ranked('kind')
                    ->in([Kind::Group->value]),
            )
            ->count();
    }

    /** @return array<string, int> */
    private function reasons(Bits $rows): array
    {
        $reasons = [];
        $scene = $this->bench->scene();
        foreach ($this->bench->organizers()->own->values(OwnValue::EXPORT) as $value) {
            $those = Relatives::within($scene, $scene->valued($value->number))->and($rows);
            $rows = $rows->without($those);
            $count = $this->drawing($those);
            if ($count > 0) {
                $reasons[$value->value] = $count;
            }
        }
        foreach ([self::layers($this->bench), self::sources($this->bench)] as $held) {
            foreach ($held as $reason => $those) {
                $count = $this->drawing($those->and($rows));
                $rows = $rows->without($those);
                if ($count > 0) {
                    $reasons[$reason] = ($reasons[$reason] ?? 0) + $count;
                }
            }
        }

        return $reasons;
    }

    /** @param list<int> $rows ascending */
    private function addAll(array $rows, int $total): void
    {
        $scene = $this->bench->scene();
        $above = [];
        foreach ($rows as $row) {
            foreach ($scene->ancestors($row) as $group) {
                $above[$group] = true;
            }
        }
        $all = array_unique([...$rows, ...array_keys(array_diff_key($above, $this->added))]);
        sort($all);
        $numbers = array_map($scene->number(...), $all);
        $found = DB::table('objects')
            ->where('project_id', $this->bench->project->id)
            ->whereIn('no', $numbers)
            ->get(['no', 'name', 'kind', 'mesh_no', 'class', 'transform', 'properties'])
            ->keyBy('no');
        foreach ($all as $at => $row) {
            $object = $found[$numbers[$at]] ?? null;
            if (! isset($this->added[$row]) && $object instanceof \stdClass) {
                $this->added[$row] = $this->export->add($this->part($row, $object));
                $this->told === null || ($this->told)(min($total, count($this->added)), $total);
            }
        }
    }

    private function part(int $row, \stdClass $object): Part
    {
        $scene = $this->bench->scene();
        $kind = Kind::from((int) $object->kind);
        $properties = json_decode((string) ($object->properties ?? ''), true);
        $properties = is_array($properties) ? $properties : [];
        $about = $kind === Kind::Light ? $properties['light'] ?? [] : ($kind === Kind::Camera ? $properties['camera'] ?? [] : []);
        unset($properties[$kind === Kind::Light ? 'light' : 'camera']);
        $above = $scene->ancestors($row)[0] ?? 0;

        return new Part(
            $this->added[$above] ?? -1,
            (string) $object->name,
            $kind,
            // What is only there to hold others draws nothing.
            $this->heldBack->has($row) ? 0 : (int) $object->mesh_no,
            Rung::from($this->rungs->at($row)),
            $this->placements($row, $object, $kind),
            $this->extras($row, $properties),
            is_array($about) ? $about : [],
            $scene->end($row) > $row,
        );
    }

    /** @return list<array{float, float, float, float, float, float, float, float, float, float, float, float}> */
    private function placements(int $row, \stdClass $object, Kind $kind): array
    {
        if ((int) $object->mesh_no === 0) {
            return $kind === Kind::Group ? [] : [Affine::unpack(Affine::lengthened(Bytes::read($object->transform)))];
        }
        $scene = $this->bench->scene();
        [$first, $end] = Packed::uint32($scene->column('recordAt'), 4 * $row, 2);
        $placements = [];
        for ($record = $first; $record < $end; $record++) {
            $placements[] = Affine::unpack($scene->column('placements'), 96 * $record);
        }

        return $placements;
    }

    /**
     * @param array<string, mixed> $properties of the file
     *
     * @return array<string, mixed>
     */
    private function extras(int $row, array $properties): array
    {
        $bench = $this->bench;
        $scene = $bench->scene();
        $own = [];
        foreach ($bench->organizers()->own->names() as $name) {
            $value = $bench->organizers()->own->at($scene, $row, $name);
            if ($value !== null) {
                $own[$name] = $value;
            }
        }
        $tags = [];
        foreach ($bench->tags()->all() as $tag) {
            if ($scene->tagged($tag->number)->has($row)) {
                $folders = array_reverse($bench->tags()->tree->chain($tag->folder));
                $tags[] = $this->tags[$tag->number] ??= [
                    ...array_map(static fn (Folder $folder): string => $folder->name, $folders),
                    $tag->name,
                ];
            }
        }
        $layer = $scene->layers()->at($row);
        $this->layers[$layer] ??= array_map(static fn (Layer $link): string => $link->name, array_reverse($bench->layers()->chain($layer)));

        return (new SortedExtras($layer === Layer::UNSORTED ? [] : $this->layers[$layer], $tags, $own))->beside($properties);
    }

    /** @return int bytes @throws UnableToKeep */
    private function keep(string $path): int
    {
        return WholeFile::write($path, function (string $beside) use ($path): int {
            $out = @fopen($beside, 'wb') ?: throw UnableToKeep::file(basename($path), 0);
            try {
                return $this->export->write($out);
            } catch (\ErrorException $full) {
                throw str_contains($full->getMessage(), 'fwrite') || str_contains($full->getMessage(), 'stream_copy')
                    ? UnableToKeep::file(basename($path), 0)
                    : $full;
            } finally {
                fclose($out);
            }
        });
    }
}
