<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Bits;

/**
 * Own rungs of layers, tags, folders of tags and objects: explicit values only. Full is a value; what is not set is not in here, and
 * where settings lie over others the value below counts ({@see over()}).
 *
 * A rung of a layer reaches the layers nested in it, that of a group what it holds. Rungs *alone* do not: they hold a layer's own objects,
 * or an object without what it holds. Views keep such rungs for what was sorted otherwise since; whatever a person sets takes their place.
 *
 * A desk holds one, and so does every view that keeps rungs. Objects are kept as one set per rung, so that a rung on a hundred thousand of
 * them costs little more than on one.
 */
final readonly class Settings
{
    /**
     * @param array<int, int>  $layers  rung by layer number
     * @param array<int, Bits> $objects object numbers by rung; no object is in two sets, and none of the sets is empty
     * @param array<int, int>  $tags    rung by tag number
     * @param array<int, int>  $folders rung by number of a folder of tags
     * @param int              $ceiling the rung that nothing is above, whatever is set; a desk has one, a view does not
     * @param array<int, int>  $layersAlone  rung of what is filed right under a layer, not under those nested in it, by layer number
     * @param array<int, Bits> $objectsAlone object numbers, without what they hold, by rung; no object is in two sets, and none is empty
     */
    public function __construct(
        public array $layers = [],
        public array $objects = [],
        public array $tags = [],
        public array $folders = [],
        public int $ceiling = Rung::Full->value,
        public array $layersAlone = [],
        public array $objectsAlone = [],
    ) {}

    /**
     * @param array<int, int> $layers  rung by layer number
     * @param array<int, int> $objects rung by object number
     * @param array<int, int> $tags    rung by tag number
     * @param array<int, int> $folders rung by folder number
     */
    public static function of(array $layers, array $objects, array $tags = [], array $folders = []): self
    {
        $byRung = [];
        foreach ($objects as $number => $rung) {
            $byRung[$rung][] = $number;
        }
        $settings = new self($layers, [], $tags, $folders);
        foreach ($byRung as $rung => $numbers) {
            sort($numbers);
            $settings = $settings->withObjects(Bits::ofRows($numbers[count($numbers) - 1], $numbers), Rung::from($rung));
        }

        return $settings;
    }

    /** Null where nothing is set. */
    public function layer(int $number): ?Rung
    {
        return isset($this->layers[$number]) ? Rung::from($this->layers[$number]) : null;
    }

    /** The rung of what is filed right under a layer; null where nothing is set. */
    public function layerAlone(int $number): ?Rung
    {
        return isset($this->layersAlone[$number]) ? Rung::from($this->layersAlone[$number]) : null;
    }

    /** Null where nothing is set. */
    public function tag(int $number): ?Rung
    {
        return isset($this->tags[$number]) ? Rung::from($this->tags[$number]) : null;
    }

    /** Null where nothing is set. */
    public function folder(int $number): ?Rung
    {
        return isset($this->folders[$number]) ? Rung::from($this->folders[$number]) : null;
    }

    /** The lower of what is set on an object and on it alone; null where nothing is. */
    public function object(int $number): ?Rung
    {
        [$set, $alone] = [$this->reaching($number), self::in($this->objectsAlone, $number)];

        return $set === null || ($alone !== null && $alone->value < $set->value) ? $alone : $set;
    }

    /** What is set on an object and what it holds; null where nothing is. */
    public function reaching(int $number): ?Rung
    {
        return self::in($this->objects, $number);
    }

    /** @param array<int, Bits> $objects */
    private static function in(array $objects, int $number): ?Rung
    {
        foreach ($objects as $rung => $numbers) {
            if ($number <= $numbers->length && $numbers->has($number)) {
                return Rung::from($rung);
            }
        }

        return null;
    }

    /**
     * The same with some parts changed.
     *
     * @param array<int, int>|null  $layers
     * @param array<int, Bits>|null $objects
     * @param array<int, int>|null  $tags
     * @param array<int, int>|null  $folders
     * @param array<int, int>|null  $layersAlone
     * @param array<int, Bits>|null $objectsAlone
     */
    private function but(
        ?array $layers = null,
        ?array $objects = null,
        ?array $tags = null,
        ?array $folders = null,
        ?int $ceiling = null,
        ?array $layersAlone = null,
        ?array $objectsAlone = null,
    ): self {
        return new self(
            $layers ?? $this->layers,
            $objects ?? $this->objects,
            $tags ?? $this->tags,
            $folders ?? $this->folders,
            $ceiling ?? $this->ceiling,
            $layersAlone ?? $this->layersAlone,
            $objectsAlone ?? $this->objectsAlone,
        );
    }

    /**
     * @param iterable<int> $numbers layer numbers
     * @param Rung|null     $rung    null to set nothing
     */
    public function withLayers(iterable $numbers, ?Rung $rung): self
    {
        $numbers = is_array($numbers) ? $numbers : iterator_to_array($numbers, false);

        return $this->but(
            layers: self::set($this->layers, $numbers, $rung),
            layersAlone: $this->layersAlone === [] ? [] : self::set($this->layersAlone, $numbers, null),
        );
    }

    /**
     * What is filed right under layers, not under those nested in them, is held at a rung.
     *
     * @param iterable<int> $numbers layer numbers
     * @param Rung|null     $rung    null to set nothing
     */
    public function withLayersAlone(iterable $numbers, ?Rung $rung): self
    {
        return $this->but(layersAlone: self::set($this->layersAlone, $numbers, $rung));
    }

    /**
     * Layers get rungs; what is filed right under them stays held as it was.
     *
     * @param array<int, int|null> $rungs by layer number, null to set nothing
     */
    public function withLayerRungs(array $rungs): self
    {
        return $this->but(layers: array_filter($rungs + $this->layers, static fn (?int $rung): bool => $rung !== null));
    }

    /**
     * @param iterable<int> $numbers tag numbers
     * @param Rung|null     $rung    null to set nothing
     */
    public function withTags(iterable $numbers, ?Rung $rung): self
    {
        return $this->but(tags: self::set($this->tags, $numbers, $rung));
    }

    /**
     * @param iterable<int> $numbers folder numbers
     * @param Rung|null     $rung    null to set nothing
     */
    public function withFolders(iterable $numbers, ?Rung $rung): self
    {
        return $this->but(folders: self::set($this->folders, $numbers, $rung));
    }

    /**
     * @param array<int, int> $rungs
     * @param iterable<int>   $numbers
     *
     * @return array<int, int>
     */
    private static function set(array $rungs, iterable $numbers, ?Rung $rung): array
    {
        foreach ($numbers as $number) {
            if ($rung === null) {
                unset($rungs[$number]);
            } else {
                $rungs[$number] = $rung->value;
            }
        }

        return $rungs;
    }

    /**
     * @param Bits      $numbers one bit per object number
     * @param Rung|null $rung    null to set nothing
     */
    public function withObjects(Bits $numbers, ?Rung $rung): self
    {
        return $this->but(
            objects: self::put($this->objects, $numbers, $rung),
            objectsAlone: $this->objectsAlone === [] ? [] : self::put($this->objectsAlone, $numbers, null),
        );
    }

    /**
     * Objects are held at a rung without what they hold.
     *
     * @param Bits      $numbers one bit per object number
     * @param Rung|null $rung    null to set nothing
     */
    public function withObjectsAlone(Bits $numbers, ?Rung $rung): self
    {
        return $this->but(objectsAlone: self::put($this->objectsAlone, $numbers, $rung));
    }

    /** Objects lose a rung, whether it reaches what they hold or not; other rungs stay. @param Bits $numbers one bit per object number */
    public function withoutRung(Bits $numbers, Rung $rung): self
    {
        return $this->but(
            objects: self::less($this->objects, $numbers, $rung),
            objectsAlone: self::less($this->objectsAlone, $numbers, $rung),
        );
    }

    /**
     * @param array<int, Bits> $objects
     *
     * @return array<int, Bits>
     */
    private static function less(array $objects, Bits $numbers, Rung $rung): array
    {
        if (isset($objects[$rung->value])) {
            $objects[$rung->value] = $objects[$rung->value]->less($numbers);
        }

        return array_filter($objects, static fn (Bits $those): bool => ! $those->isEmpty());
    }

    /**
     * @param array<int, Bits> $objects
     *
     * @return array<int, Bits>
     */
    private static function put(array $objects, Bits $numbers, ?Rung $rung): array
    {
        $after = [];
        foreach ($objects as $held => $those) {
            $left = $those->less($numbers);
            if (! $left->isEmpty()) {
                $after[$held] = $left;
            }
        }
        if ($rung !== null && ! $numbers->isEmpty()) {
            $after[$rung->value] = isset($after[$rung->value]) ? $after[$rung->value]->with($numbers) : $numbers;
            ksort($after);
        }

        return $after;
    }

    public function withCeiling(Rung $ceiling): self
    {
        return $this->but(ceiling: $ceiling->value);
    }

    /** These values where something is set, the others elsewhere. */
    public function over(self $others): self
    {
        $result = new self(
            $this->layers + $others->layers,
            $others->objects,
            $this->tags + $others->tags,
            $this->folders + $others->folders,
            $this->ceiling,
            $this->layersAlone + array_diff_key($others->layersAlone, $this->layers),
            $others->objectsAlone,
        );
        foreach ($this->objects as $rung => $numbers) {
            $result = $result->withObjects($numbers, Rung::from($rung));
        }
        foreach ($this->objectsAlone as $rung => $numbers) {
            $result = $result->withObjectsAlone($numbers, Rung::from($rung));
        }

        return $result;
    }

    /** Whether nothing is set. */
    public function isEmpty(): bool
    {
        return $this->layers === [] && $this->objects === [] && $this->tags === [] && $this->folders === [] &&
            $this->layersAlone === [] && $this->objectsAlone === [] && $this->ceiling === Rung::Full->value;
    }

    /** Whether both set the same, Full counting as nothing: so it is on a desk. */
    public function same(self $other): bool
    {
        return $this->ceiling === $other->ceiling && array_sum($this->difference($other)) === 0;
    }

    /**
     * @return array{layers: int, objects: int, tags: int, folders: int} how many of each are set differently, Full counting as nothing
     */
    public function difference(self $other): array
    {
        return [
            'layers' => self::differing($this->layers, $other->layers) + self::differing($this->layersAlone, $other->layersAlone),
            'objects' => self::otherwise($this->objects, $other->objects)
                ->with(self::otherwise($this->objectsAlone, $other->objectsAlone))
                ->count(),
            'tags' => self::differing($this->tags, $other->tags),
            'folders' => self::differing($this->folders, $other->folders),
        ];
    }

    /**
     * @param array<int, Bits> $here
     * @param array<int, Bits> $there
     *
     * @return Bits object numbers
     */
    private static function otherwise(array $here, array $there): Bits
    {
        $differing = $none = Bits::none(0);
        for ($rung = 0; $rung < Rung::Full->value; $rung++) {
            [$these, $those] = [$here[$rung] ?? $none, $there[$rung] ?? $none];
            $differing = $differing->with($these->less($those))->with($those->less($these));
        }

        return $differing;
    }

    /**
     * @param array<int, int> $here
     * @param array<int, int> $there
     */
    private static function differing(array $here, array $there): int
    {
        $full = Rung::Full->value;
        $count = 0;
        foreach ($here + $there as $number => $_) {
            $count += ($here[$number] ?? $full) !== ($there[$number] ?? $full) ? 1 : 0;
        }

        return $count;
    }

    /** @return string as {@see PackedSettings} writes it */
    public function pack(): string
    {
        return PackedSettings::of($this);
    }

    public static function unpack(string $packed): self
    {
        return PackedSettings::read($packed);
    }
}
