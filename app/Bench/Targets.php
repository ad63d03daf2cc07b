<?php

declare(strict_types=1);

namespace App\Bench;

use Illuminate\Http\Request;
use VineShelf\Rungs\Rows;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Relatives;

/**
 * What an action is for: the rows of the ledger that the request names, whatever the lens, or the pick when it names none. The one place
 * where row keys become objects and organizers; what they do not name any more is refused.
 */
final readonly class Targets
{
    /**
     * @param list<int> $layers  layers that are meant themselves
     * @param Bits      $rows    scene rows of the objects that are meant, by themselves or by the set, kind, material or source that they
     *     belong to
     * @param list<int> $tags    tags that are meant themselves
     * @param list<int> $folders folders of tags that are meant themselves
     */
    private function __construct(public array $layers, public Bits $rows, public array $tags = [], public array $folders = []) {}

    /**
     * @param list<int> $layers
     * @param list<int> $tags
     * @param list<int> $folders
     */
    public static function of(array $layers, Bits $rows, array $tags = [], array $folders = []): self
    {
        return new self($layers, $rows, $tags, $folders);
    }

    /** @throws Refused */
    public static function in(Request $request, Bench $bench): self
    {
        return match (true) {
            $request->string('on')->value() === 'found' => self::found($bench, $request->string('words')->value()),
            $request->string('on')->value() === 'pick', $request->string('keys')->value() === '' => self::pick($bench),
            default => self::named(Keys::in($request), $bench),
        };
    }

    /** @throws Refused when a rule finds nothing */
    public static function found(Bench $bench, string $rule): self
    {
        $found = $bench->find($rule);
        if ($found->rows === null || $found->rows->isEmpty()) {
            throw new Refused($found->error?->getMessage() ?? 'Nothing is found; type words or a rule first.', 'words');
        }

        return new self([], $found->rows);
    }

    /** @throws Refused when nothing is picked */
    public static function pick(Bench $bench): self
    {
        if ($bench->pick()->count() === 0) {
            throw new Refused('Nothing is picked; pick objects first.', 'keys');
        }

        return new self([], $bench->pickedBits());
    }

    /** @throws Refused when none of the rows is there */
    public static function named(Keys $keys, Bench $bench): self
    {
        $layers = array_values(array_filter($keys->layers, $bench->layers()->has(...)));
        $tags = array_values(array_filter($keys->numbered('T'), $bench->tags()->has(...)));
        $folders = array_values(array_filter($keys->numbered('F'), $bench->tags()->hasFolder(...)));
        $shelved = [...array_map(static fn (int $tag): string => "T$tag", $tags), ...self::folderKeys($folders)];
        $groups = (new Groups($bench))->allNamed(array_values(array_diff($keys->groups, $shelved)));
        $scene = $bench->scene();
        $rows = Bits::ofRows($scene->count(), $scene->rowsOf($keys->objects));
        foreach ($groups as $group) {
            $rows = $rows->or($group->rows());
        }
        if ($layers === [] && $shelved === [] && $groups === [] && $rows->isEmpty()) {
            throw new Refused('There is nothing of that in the project any more.', 'keys');
        }

        return new self($layers, $rows, $tags, $folders);
    }

    /**
     * The objects alone, those that have a tag which is meant among them, for what is not done to organizers.
     *
     * @throws Refused with the sentence when layers are meant
     */
    public function objectsOnly(Bench $bench, string $sentence): Bits
    {
        if ($this->layers !== []) {
            throw new Refused($sentence, 'keys');
        }
        $keys = [...array_map(static fn (int $tag): string => "T$tag", $this->tags), ...self::folderKeys($this->folders)];

        return $this->rows->or(Keys::of($keys)->groupsIn($bench));
    }

    /**
     * @param list<int> $folders
     *
     * @return list<string>
     */
    private static function folderKeys(array $folders): array
    {
        return array_map(static fn (int $folder): string => "F$folder", $folders);
    }

    /** The objects that a rung on them reaches: what is filed under layers and those nested in them, tagged, or held by groups. */
    public function reached(Bench $bench): Bits
    {
        $keys = [
            ...array_map(static fn (int $layer): string => "L$layer", $this->layers),
            ...array_map(static fn (int $tag): string => "T$tag", $this->tags),
            ...self::folderKeys($this->folders),
        ];

        return Relatives::within($bench->scene(), $this->rows)->or(Keys::of($keys)->heldIn($bench));
    }

    public function isEmpty(): bool
    {
        return $this->layers === [] && $this->tags === [] && $this->folders === [] && $this->rows->isEmpty();
    }

    /** Without some objects. */
    public function without(Bits $rows): self
    {
        return new self($this->layers, $this->rows->without($rows), $this->tags, $this->folders);
    }

    /** What a rung is set on. */
    public function forRungs(Bench $bench): Rows
    {
        return new Rows($this->layers, $this->tags, $this->folders, $bench->scene()->numberBits($this->rows));
    }

    /** For example "2 layers and 14 objects", or the name when it is one organizer alone. */
    public function inWords(Bench $bench): string
    {
        $objects = $this->rows->count();
        $counts = ['layer' => count($this->layers), 'tag' => count($this->tags), 'folder' => count($this->folders), 'object' => $objects];
        if ($objects === 0 && array_sum($counts) === 1) {
            return match (true) {
                $this->layers !== [] => $bench->layers()->get($this->layers[0])->name,
                $this->tags !== [] => $bench->tags()->get($this->tags[0])->name,
                default => $bench->tags()->folder($this->folders[0])->name,
            };
        }
        $words = [];
        foreach (array_filter($counts) as $what => $count) {
            $words[] = number_format($count).' '.$what.($count === 1 ? '' : 's');
        }
        $last = array_pop($words);

        return $words === [] ? (string) $last : implode(', ', $words)." and $last";
    }
}
