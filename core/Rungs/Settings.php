<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/**
 * Own rungs of layers, tags, folders of tags and objects: explicit values only. Full is a value; what is not set is not in here, and
 * where settings lie over others the value below counts ({@see over()}).
 *
 * A desk holds one, and so does every view that keeps rungs. Objects are kept as one set per rung, so that a rung on a hundred thousand of
 * them costs little more than on one.
 */
final readonly class Settings
{
    private const VERSION = 4;

    /**
     * @param array<int, int>  $layers  rung by layer number
     * @param array<int, Bits> $objects object numbers by rung; no object is in two sets, and none of the sets is empty
     * @param array<int, int>  $tags    rung by tag number
     * @param array<int, int>  $folders rung by number of a folder of tags
     * @param int              $ceiling the rung that nothing is above, whatever is set; a desk has one, a view does not
     */
    public function __construct(
        public array $layers = [],
        public array $objects = [],
        public array $tags = [],
        public array $folders = [],
        public int $ceiling = Rung::Full->value,
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

    /** Null where nothing is set. */
    public function object(int $number): ?Rung
    {
        foreach ($this->objects as $rung => $numbers) {
            if ($number <= $numbers->length && $numbers->has($number)) {
                return Rung::from($rung);
            }
        }

        return null;
    }

    /**
     * @param iterable<int> $numbers layer numbers
     * @param Rung|null     $rung    null to set nothing
     */
    public function withLayers(iterable $numbers, ?Rung $rung): self
    {
        return new self(self::set($this->layers, $numbers, $rung), $this->objects, $this->tags, $this->folders, $this->ceiling);
    }

    /**
     * @param iterable<int> $numbers tag numbers
     * @param Rung|null     $rung    null to set nothing
     */
    public function withTags(iterable $numbers, ?Rung $rung): self
    {
        return new self($this->layers, $this->objects, self::set($this->tags, $numbers, $rung), $this->folders, $this->ceiling);
    }

    /**
     * @param iterable<int> $numbers folder numbers
     * @param Rung|null     $rung    null to set nothing
     */
    public function withFolders(iterable $numbers, ?Rung $rung): self
    {
        return new self($this->layers, $this->objects, $this->tags, self::set($this->folders, $numbers, $rung), $this->ceiling);
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
        $objects = [];
        foreach ($this->objects as $held => $those) {
            $left = $those->less($numbers);
            if (! $left->isEmpty()) {
                $objects[$held] = $left;
            }
        }
        if ($rung !== null && ! $numbers->isEmpty()) {
            $objects[$rung->value] = isset($objects[$rung->value]) ? $objects[$rung->value]->with($numbers) : $numbers;
            ksort($objects);
        }

        return new self($this->layers, $objects, $this->tags, $this->folders, $this->ceiling);
    }

    public function withCeiling(Rung $ceiling): self
    {
        return new self($this->layers, $this->objects, $this->tags, $this->folders, $ceiling->value);
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
        );
        foreach ($this->objects as $rung => $numbers) {
            $result = $result->withObjects($numbers, Rung::from($rung));
        }

        return $result;
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
        $differing = Bits::none(0);
        for ($rung = 0; $rung < Rung::Full->value; $rung++) {
            [$here, $there] = [$this->objects[$rung] ?? Bits::none(0), $other->objects[$rung] ?? Bits::none(0)];
            $differing = $differing->with($here->less($there))->with($there->less($here));
        }

        return [
            'layers' => self::differing($this->layers, $other->layers),
            'objects' => $differing->count(),
            'tags' => self::differing($this->tags, $other->tags),
            'folders' => self::differing($this->folders, $other->folders),
        ];
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

    /**
     * @return string version and ceiling; for layers, tags and folders each how many, their numbers and rungs; then for each rung of
     *     objects: rung, bytes, one bit per object number. Deflated
     */
    public function pack(): string
    {
        $raw = pack('CC', self::VERSION, $this->ceiling);
        foreach ([$this->layers, $this->tags, $this->folders] as $rungs) {
            $raw .= pack('V', count($rungs));
            $raw .= $rungs === [] ? '' : pack('V*', ...array_keys($rungs)).pack('C*', ...array_values($rungs));
        }
        foreach ($this->objects as $rung => $numbers) {
            $bytes = rtrim($numbers->bytes, "\0");
            $raw .= pack('CV', $rung, strlen($bytes)).$bytes;
        }

        return (string) gzdeflate($raw, 1);
    }

    public static function unpack(string $packed): self
    {
        $raw = $packed === '' ? false : @gzinflate($packed);
        if ($raw === false || strlen($raw) < 5) {
            return new self;
        }
        if ($raw[0] === "\1") {
            return self::firstVersion($raw);
        }
        $rungs = [[], [], []];
        $hasCeiling = $raw[0] === "\4";
        $at = $hasCeiling ? 2 : 1;
        // Before there were tags, only layers stood in front of the objects.
        for ($what = 0, $last = $raw[0] === "\2" ? 0 : 2; $what <= $last; $what++, $at += 4 + 5 * $count) {
            [$count] = Packed::uint32($raw, $at, 1);
            $rungs[$what] = self::read($raw, $at + 4, $count);
        }
        $objects = [];
        for (; $at + 5 <= strlen($raw); $at += 5 + $size) {
            [$size] = Packed::uint32($raw, $at + 1, 1);
            $objects[ord($raw[$at])] = Bits::ofBytes(($size << 3) - 1, substr($raw, $at + 5, $size));
        }

        return new self($rungs[0], $objects, $rungs[1], $rungs[2], $hasCeiling ? ord($raw[1]) : Rung::Full->value);
    }

    /** As they were kept first: counts, then numbers and rungs of layers and of objects. */
    private static function firstVersion(string $raw): self
    {
        [$layers, $objects] = Packed::uint32($raw, 1, 2);

        return self::of(self::read($raw, 9, $layers), self::read($raw, 9 + 5 * $layers, $objects));
    }

    /** @return array<int, int> */
    private static function read(string $raw, int $offset, int $count): array
    {
        if ($count === 0) {
            return [];
        }
        /** @var array<int, int>|false $rungs */
        $rungs = unpack('C'.$count, $raw, $offset + 4 * $count);

        return $rungs === false ? [] : array_combine(Packed::uint32($raw, $offset, $count), $rungs);
    }
}
