<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Exporting\Exporting;
use VineShelf\Facts\Measure;
use VineShelf\Facts\Shared;
use VineShelf\Own\OwnValue;
use VineShelf\Rules\Printer;
use VineShelf\Scene\Bits;
use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\Packed;

/** What is known of the pick: what its objects share, and how far they differ. */
final readonly class Details
{
    /** As many properties are shown. */
    private const MOST = 80;

    /** As many values of each are named. */
    private const SHOWN = 12;

    private Bits $rows;

    private Shared $shared;

    private int $count;

    public function __construct(private Bench $bench)
    {
        $this->rows = $bench->pickedBits();
        $this->shared = new Shared($bench->facts(), $this->rows);
        $this->count = $this->rows->count();
    }

    /**
     * What is known of the pick, then what files and people have said of it by properties of any name, which may be called like the first.
     *
     * @return array<string, non-empty-list<Detail>> by heading, "" for none
     */
    public function groups(): array
    {
        $known = [
            $this->measures(),
            $this->weight(),
            $this->mesh(),
            $this->coarser(),
            $this->material(),
            $this->objectClass(),
            $this->layer(),
            $this->tags(),
            $this->sets(),
            $this->source(),
        ];
        $groups = ['' => $known, 'From the file' => $this->properties(), 'Given here' => $this->own()];

        return array_filter(array_map(static fn (array $lines): array => array_values(array_filter($lines)), $groups));
    }

    /** The note that all of them have; "" when they have none, or different ones. */
    public function note(): string
    {
        return $this->common(OwnValue::NOTE);
    }

    /** The colour of their own that all of them have; "" when they have none, or different ones. */
    public function colour(): string
    {
        return $this->common(OwnValue::COLOUR);
    }

    /** Why exports leave all of them out; "" when they do not, or for different reasons. */
    public function heldBack(): string
    {
        return $this->common(OwnValue::EXPORT);
    }

    /** Why exports leave out the file that all of them came in; "" when they do not, or when they came in several. */
    public function fileHeldBack(): string
    {
        foreach (Exporting::sources($this->bench) as $reason => $rows) {
            if (! $this->rows->isEmpty() && $this->rows->without($rows)->isEmpty()) {
                return (string) $reason;
            }
        }

        return '';
    }

    private function common(string $property): string
    {
        $own = $this->bench->organizers()->own;
        foreach ($own->values($property) as $value) {
            if ($this->rows->without($this->bench->scene()->valued($value->number))->isEmpty()) {
                return $value->value;
            }
        }

        return '';
    }

    private function measures(): ?Detail
    {
        $sides = $same = [];
        $isAlike = true;
        foreach ([Measure::Width, Measure::Length, Measure::Height] as $measure) {
            $range = $this->shared->range($measure);
            if ($range === null) {
                return null;
            }
            [$least, $greatest] = $range;
            $isOne = $greatest - $least < 0.001;
            $isAlike = $isAlike && $isOne;
            $sides[] = $isOne ? number_format($greatest, 2) : number_format($least, 2).' to '.number_format($greatest, 2);
            $same[] = $measure->value.' = '.number_format($greatest, 3, '.', '').'m';
        }
        $alike = $isAlike && $this->count > 1 ? number_format($this->count).' alike' : '';

        return new Detail('Measures', implode(' × ', $sides).' m', $alike, $isAlike ? implode(' ', $same) : '');
    }

    private function weight(): ?Detail
    {
        $triangles = $this->bench->scene()->trianglesOf($this->bench->pickedWithHeld());

        return $triangles === 0 ? null : new Detail('Weight', number_format($triangles).' triangles', $this->count > 1 ? 'in all' : '');
    }

    private function mesh(): ?Detail
    {
        $meshes = $this->shared->codes('mesh');
        unset($meshes[0]);
        if ($meshes === []) {
            return null;
        }
        if (count($meshes) > 1) {
            return new Detail('Mesh', number_format(count($meshes)).' different', '');
        }
        $first = $this->rows->slice(0, 1)[0];
        $recordAt = $this->bench->scene()->column('recordAt');
        $placed = Packed::uint32At($recordAt, $first + 1) - Packed::uint32At($recordAt, $first);
        $drawn = (int) $this->bench->facts()->measure(Measure::Instances, $first);
        $mesh = $this->bench->project
            ->meshes()
            ->where('no', (int) array_key_first($meshes))
            ->first(['project_id', 'no', 'name', 'triangles']);
        $name = ($mesh?->name ?: 'unnamed').', '.number_format((int) $mesh?->triangles).' triangles';

        return new Detail('Mesh', $placed > 1 ? "$name, ×".number_format($placed) : $name, 'drawn '.number_format($drawn).'×');
    }

    /** The coarser versions of the mesh, and how far each is off at most. */
    private function coarser(): ?Detail
    {
        $meshes = $this->shared->codes('mesh');
        unset($meshes[0]);
        $versions = count($meshes) === 1 ? MeshVersions::of($this->bench->scene(), (int) array_key_first($meshes)) : [];
        if ($versions === []) {
            return null;
        }
        $each = array_map(
            static fn (array $version): string => number_format($version['triangles']).
                ' off by '.
                Measure::Size->shown($version['error']).
                ($version['coarse'] ? ' (Coarse)' : ''),
            $versions,
        );

        return new Detail('Coarser', implode(', ', $each), 'triangles');
    }

    private function material(): ?Detail
    {
        $lists = $this->bench->facts()->surfaceLists();
        $names = [];
        foreach ($this->shared->codes('surfaces', count($lists) - 1) as $code => $objects) {
            foreach ($lists[$code] ?? [] as $material) {
                $name = $this->bench->facts()->materials()[$material][0] ?? '';
                $names[$name] = ($names[$name] ?? 0) + $objects;
            }
        }

        return $this->several('Material', $names, 'materials', 'material');
    }

    private function objectClass(): ?Detail
    {
        $words = $this->bench->facts()->words('class.words');
        $names = [];
        foreach ($this->shared->codes('class', count($words) - 1) as $code => $objects) {
            if ($code > 0) {
                $names[(string) $words[$code]] = $objects;
            }
        }

        return $this->several('Class', $names, 'classes', 'class');
    }

    private function layer(): ?Detail
    {
        $layers = $this->bench->pickedByLayer();
        if (count($layers) === 1) {
            $layer = (int) array_key_first($layers);
            $name = $this->bench->layers()->get($layer)->name;

            return new Detail('Layer', $this->bench->layers()->path($layer), '', 'layer='.Printer::quoted($name));
        }
        $names = [];
        foreach ($layers as $layer => $objects) {
            $names[$this->bench->layers()->path($layer)] = $objects;
        }

        return $this->several('Layer', $names, 'layers', '');
    }

    private function tags(): ?Detail
    {
        $all = $this->bench->pickedWithHeld()->count();
        $names = [];
        foreach ($this->bench->pickedTags() as $tag => $some) {
            $names[] = $this->bench->tags()->get($tag)->name.($some === $all ? '' : ' ('.number_format($some).')');
        }

        return $names === [] ? null : new Detail('Tags', implode(', ', $names));
    }

    private function sets(): ?Detail
    {
        $names = [];
        foreach ($this->bench->sets()->all() as $set) {
            $some = $this->bench->set($set)->rows->and($this->rows)->count();
            if ($some > 0) {
                $names[] = $set->name.($some === $this->count ? '' : ' ('.number_format($some).')');
            }
        }

        return $names === [] ? null : new Detail('Sets', implode(', ', $names));
    }

    private function source(): ?Detail
    {
        $names = [];
        foreach ($this->bench->facts()->sources()->histogram($this->rows) as $source => $objects) {
            $names[$this->bench->facts()->sourceNames()[$source] ?? ''] = $objects;
        }

        return $this->several('Source', $names, 'sources', 'source');
    }

    /** @return list<Detail|null> */
    private function properties(): array
    {
        $lines = [];
        foreach ($this->bench->facts()->properties() as $name => [$index]) {
            $codes = count($lines) >= self::MOST ? [] : $this->shared->property($index);
            if ($codes === []) {
                continue;
            }
            $words = $this->bench->facts()->words("property.$index.words");
            $values = [];
            foreach (array_slice($codes, 0, self::SHOWN, true) as $code => $objects) {
                $values[(string) ($words[$code] ?? '')] = $objects;
            }
            $lines[] = $this->several((string) $name, $values, 'values', Printer::property((string) $name), count: count($codes));
        }

        return $lines;
    }

    /** @return list<Detail> */
    private function own(): array
    {
        $own = $this->bench->organizers()->own;
        $lines = [];
        foreach ($own->names() as $name) {
            $values = [];
            foreach ($own->values($name) as $value) {
                $values[$value->value] = $this->bench->scene()->valued($value->number)->and($this->rows)->count();
            }
            $line = $this->several($name, array_filter($values), 'values', Printer::property($name), $name);
            if ($line !== null) {
                $lines[] = $line;
            }
        }

        return $lines;
    }

    /**
     * @param array<string, int> $values objects by value
     * @param string             $many   what several of them are called
     * @param string             $field  as a rule writes it; "" where no rule says it
     * @param int|null           $count  how many values there are, where only those that most have are given
     */
    private function several(string $label, array $values, string $many, string $field, string $own = '', ?int $count = null): ?Detail
    {
        if ($values === []) {
            return null;
        }
        arsort($values);
        $count ??= count($values);
        $shown = [];
        foreach (array_slice($values, 0, self::SHOWN, true) as $value => $objects) {
            $shown[] = ($value === '' ? 'unnamed' : $value).': '.number_format($objects);
        }
        $hover = implode("\n", $shown).($count > self::SHOWN ? "\n…" : '');
        if ($count > 1) {
            return new Detail($label, number_format($count)." $many", '', '', $own, $hover);
        }
        $value = (string) array_key_first($values);
        $having = $values[$value];
        $note = $having === $this->count ? ($this->count > 1 ? 'same' : '') : 'on '.number_format($having);

        return new Detail(
            $label,
            $value === '' ? 'unnamed' : $value,
            $note,
            $field === '' || $value === '' ? '' : $field.'='.Printer::quoted($value),
            $own,
            $hover,
        );
    }
}
