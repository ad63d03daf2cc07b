<?php

declare(strict_types=1);

namespace App\Bench;

use App\Database\ReadSnapshot;
use App\Scenes\Manifest;
use App\Scenes\SceneStore;
use VineShelf\Folders\Folder;
use VineShelf\Folders\Shelved;
use VineShelf\Layers\Layer;
use VineShelf\Own\OwnValue;
use VineShelf\Rules\Evaluated;
use VineShelf\Rules\KnownSets;
use VineShelf\Rules\Remark;
use VineShelf\Rules\Stands;
use VineShelf\Scene\Bits;
use VineShelf\Sets\SelectionSet;

/**
 * What live sets hold, in the memory that the processes of this machine share: each is called by everything that it follows from, so it is
 * simply not found any more once something of that has changed.
 */
final class KeptSets implements KnownSets
{
    /** Seconds that a set is remembered. */
    private const REMEMBERED = 3600;

    private ?Manifest $manifest = null;

    /** @var array<string, string> */
    private array $trees = [];

    private ?string $names = null;

    /** @var array<int, string> by set */
    private array $entries = [];

    public function __construct(private readonly Bench $bench, private readonly SceneStore $scenes) {}

    public function get(SelectionSet $set): ?Evaluated
    {
        $kept = apcu_enabled() ? apcu_fetch($this->entry($set)) : false;
        if (! is_array($kept) || ! is_string($kept[0] ?? null) || ! is_array($kept[1] ?? null)) {
            return null;
        }
        /** @var list<array{string, int, int}> $remarks */
        $remarks = $kept[1];

        return new Evaluated(
            Bits::ofBytes($this->bench->scene()->count(), $kept[0]),
            array_map(static fn (array $remark): Remark => new Remark(...$remark), $remarks),
        );
    }

    public function put(SelectionSet $set, Evaluated $found): void
    {
        // As plain lists: what outlives a process must not depend on what its classes look like.
        $remarks = array_map(static fn (Remark $remark): array => [$remark->sentence, $remark->at, $remark->length], $found->remarks);
        self::remembers() && apcu_store($this->entry($set), [$found->rows->bytes, $remarks], self::REMEMBERED);
    }

    /** What a set follows from, in a few letters: another one whenever something of that has changed. */
    public function stamp(SelectionSet $set): string
    {
        return $this->entries[$set->number] ??= hash(
            'xxh128',
            implode("\n", [(string) $set->rule, ...array_map($this->part(...), $this->standsOn($set))]),
        );
    }

    /**
     * Looked up by the rule and by all that its names may mean: reading fifty rules takes longer than looking at what they found.
     *
     * @return list<string>
     */
    private function standsOn(SelectionSet $set): array
    {
        $this->names ??= implode(
            "\n",
            array_map($this->part(...), [Stands::BUILD, Stands::LAYERS, Stands::TAGS, Stands::SETS, Stands::OWN]),
        );
        $entry = 'stands.'.hash('xxh128', "{$this->bench->project->key}\n$set->number\n$set->rule\n$this->names");
        $known = apcu_enabled() ? apcu_fetch($entry) : false;
        if (is_array($known)) {
            /** @var list<string> $known */
            return $known;
        }
        $stands = Stands::on($set, $this->bench->facts(), $this->bench->organizers());
        apcu_enabled() && apcu_store($entry, $stands, self::REMEMBERED);

        return $stands;
    }

    /** The same for a column of the scene. */
    public function file(string $column): string
    {
        return hash('xxh128', $this->manifest()->stamp.' '.$this->manifest()->file($column));
    }

    /** What a change has written that is not finished belongs to no revision. */
    private static function remembers(): bool
    {
        return apcu_enabled() && ReadSnapshot::isOn();
    }

    private function entry(SelectionSet $set): string
    {
        return "set.{$this->bench->project->key}.{$this->stamp($set)}";
    }

    private function part(string $on): string
    {
        $organizers = $this->bench->organizers();

        return match ($on) {
            Stands::BUILD => $this->manifest()->stamp,
            Stands::PROJECT => "project {$this->bench->project->revision}",
            Stands::DESK => "desk {$this->bench->person->id} {$this->bench->desk->revision}",
            Stands::LAYERS => ($this->trees[$on] ??= self::text(
                array_map(static fn (array $entry): array => self::layer($entry[0]), $organizers->layers->walk()),
            )),
            Stands::TAGS => ($this->trees[$on] ??= self::text([
                ...array_map(self::shelved(...), $organizers->tags->all()),
                ...array_map(self::folder(...), array_values($organizers->tags->tree->folders)),
            ])),
            Stands::SETS => ($this->trees[$on] ??= self::text([
                ...array_map(static fn (SelectionSet $set): array => [...self::shelved($set), $set->rule], $organizers->sets->all()),
                ...array_map(self::folder(...), array_values($organizers->sets->tree->folders)),
            ])),
            Stands::OWN => ($this->trees[$on] ??= self::text(
                array_map(static fn (OwnValue $value): array => [$value->number, $value->property, $value->value], $organizers->own->all()),
            )),
            default => $on.' '.$this->manifest()->file($on),
        };
    }

    private function manifest(): Manifest
    {
        return $this->manifest ??= $this->scenes->manifest($this->bench->project) ?? new Manifest(bin2hex(random_bytes(8)), []);
    }

    /** @return list<int|string> */
    private static function layer(Layer $layer): array
    {
        return [$layer->number, $layer->parent, $layer->name];
    }

    /** @return list<int|string> */
    private static function shelved(Shelved $what): array
    {
        return [$what->number(), $what->folder(), $what->name()];
    }

    /** @return list<int|string> */
    private static function folder(Folder $folder): array
    {
        return [$folder->number, $folder->parent, $folder->name];
    }

    /** @param list<list<int|string|null>> $rows */
    private static function text(array $rows): string
    {
        return hash('xxh128', serialize($rows));
    }
}
