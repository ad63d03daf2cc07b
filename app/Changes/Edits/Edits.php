<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use VineShelf\Scene\Bits;

/** The steps of one change, in order. */
final readonly class Edits
{
    /** Columns of views that other changes write as well, so that views go on showing what they showed. */
    private const FOLLOWING = ['rungs', 'meant', 'own_output', 'isolated', 'tint', 'pictured', 'strangers'];

    /** @param list<Edit> $steps */
    public function __construct(public array $steps) {}

    public function reversed(): self
    {
        return new self(array_map(static fn (Edit $step): Edit => $step->reversed(), array_reverse($this->steps)));
    }

    public function isEmpty(): bool
    {
        return $this->steps === [];
    }

    public function pack(): string
    {
        return (string) gzdeflate(
            json_encode(
                array_map(static fn (Edit $step): array => $step->toArray(), $this->steps),
                JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE,
            ),
            3,
        );
    }

    public static function unpack(string $packed): self
    {
        $steps = [];
        foreach ((array) json_decode((string) gzinflate($packed), true, 512, JSON_THROW_ON_ERROR) as $step) {
            if (! is_array($step)) {
                continue;
            }
            /** @var array<string, mixed> $step */
            $steps[] = match (true) {
                isset($step['row']) => new RowEdit(
                    self::text($step['row']),
                    self::whole($step['no']),
                    self::row($step['before']),
                    self::row($step['after']),
                ),
                isset($step['members']) => MembersEdit::fromArray($step),
                isset($step['places']) => PlacesEdit::fromArray($step),
                isset($step['source']) => new SourceEdit(self::whole($step['source']), self::whole($step['objects']), (bool) $step['gone']),
                isset($step['objects']) => ObjectsEdit::fromArray($step),
                isset($step['names']) => NamesEdit::fromArray($step),
                isset($step['held']) => new HoldBackEdit(
                    self::whole($step['held']),
                    self::text($step['before']),
                    self::text($step['after']),
                ),
                isset($step['nesting']) => NestingEdit::fromArray($step),
                isset($step['setting']) => new SettingEdit(self::text($step['setting']), (bool) $step['before'], (bool) $step['after']),
                isset($step['mesh']) => MeshEdit::fromArray($step),
                default => new NameEdit(self::whole($step['name']), self::text($step['before']), self::text($step['after'])),
            };
        }

        return new self($steps);
    }

    /** Numbers of the objects that they change; those that come and go with a file are not among them. */
    public function objects(): Bits
    {
        $objects = Bits::none(0);
        foreach ($this->steps as $step) {
            $objects = $objects->with($step->objects());
        }

        return $objects;
    }

    /** Numbers of the objects that they make, or bring back; those that come with a file are not among them. */
    public function made(): Bits
    {
        $made = Bits::none(0);
        foreach ($this->steps as $step) {
            $made = $step instanceof ObjectsEdit && $step->column === 'gone' ? $made->with(Numbers::of($step->after[0] ?? [])) : $made;
        }

        return $made;
    }

    /**
     * What they do, and what views keep because of it.
     *
     * @return array{list<Edit>, list<Edit>}
     */
    public function apart(): array
    {
        $isFollowing = static fn (Edit $step): bool => $step instanceof RowEdit &&
            $step->table === 'views' &&
            $step->before !== null &&
            $step->after !== null &&
            array_diff(array_keys($step->after), self::FOLLOWING) === [];
        $following = array_values(array_filter($this->steps, $isFollowing));
        $own = array_values(array_filter($this->steps, static fn (Edit $step): bool => ! $isFollowing($step)));

        // A change of views alone follows nothing.
        return $own === [] ? [$this->steps, []] : [$own, $following];
    }

    /** @return array<string, Bits> as {@see Edit::writes()} has it */
    public function written(): array
    {
        return self::all($this->steps, true);
    }

    /** @return array<string, Bits> as {@see Edit::needs()} has it */
    public function needed(): array
    {
        return self::all($this->steps, false);
    }

    /**
     * Whether these write any of it.
     *
     * @param array<string, Bits> $what as {@see Edit::writes()} has it
     */
    public function write(array $what): bool
    {
        return self::meet($this->written(), $what);
    }

    /**
     * Whether two have something in common.
     *
     * @param array<string, Bits> $a as {@see Edit::writes()} has it
     * @param array<string, Bits> $b
     */
    public static function meet(array $a, array $b): bool
    {
        foreach (array_intersect_key($a, $b) as $what => $numbers) {
            if ($numbers->less($b[$what])->count() !== $numbers->count()) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param list<Edit> $steps
     *
     * @return array<string, Bits>
     */
    private static function all(array $steps, bool $writes): array
    {
        $all = [];
        foreach ($steps as $step) {
            foreach ($writes ? $step->writes() : $step->needs() as $what => $numbers) {
                $all[$what] = isset($all[$what]) ? $all[$what]->with($numbers) : $numbers;
            }
        }

        return $all;
    }

    private static function text(mixed $value): string
    {
        return is_string($value) ? $value : '';
    }

    private static function whole(mixed $value): int
    {
        return is_int($value) ? $value : 0;
    }

    /** @return array<string, mixed>|null */
    private static function row(mixed $value): ?array
    {
        /** @var array<string, mixed>|null $row */
        $row = is_array($value) ? $value : null;

        return $row;
    }
}
