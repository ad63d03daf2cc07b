<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Packed;

/**
 * Own rungs of layers and objects, kept only where they differ from Full.
 *
 * A desk holds one, and so does every view that keeps rungs.
 */
final readonly class Settings
{
    /**
     * @param array<int, int> $layers  rung by layer number, 0 to 4
     * @param array<int, int> $objects rung by object number, 0 to 4
     */
    public function __construct(
        public array $layers = [],
        public array $objects = [],
    ) {}

    public function layer(int $number): Rung
    {
        return Rung::from($this->layers[$number] ?? 5);
    }

    public function object(int $number): Rung
    {
        return Rung::from($this->objects[$number] ?? 5);
    }

    /** @param iterable<int> $numbers layer numbers */
    public function withLayers(iterable $numbers, Rung $rung): self
    {
        return new self(self::set($this->layers, $numbers, $rung), $this->objects);
    }

    /** @param iterable<int> $numbers object numbers */
    public function withObjects(iterable $numbers, Rung $rung): self
    {
        return new self($this->layers, self::set($this->objects, $numbers, $rung));
    }

    public function same(self $other): bool
    {
        return $this->layers == $other->layers && $this->objects == $other->objects;
    }

    /** @return string version, counts, then numbers and rungs of layers and of objects, deflated */
    public function pack(): string
    {
        $raw = pack('CVV', 1, count($this->layers), count($this->objects));
        foreach ([$this->layers, $this->objects] as $rungs) {
            if ($rungs !== []) {
                $raw .= pack('V*', ...array_keys($rungs)).pack('C*', ...array_values($rungs));
            }
        }

        return (string) gzdeflate($raw, 1);
    }

    public static function unpack(string $packed): self
    {
        $raw = $packed === '' ? false : @gzinflate($packed);
        if ($raw === false) {
            return new self;
        }
        [$layers, $objects] = Packed::uint32($raw, 1, 2);
        $afterLayers = 9 + 5 * $layers;

        return new self(self::read($raw, 9, $layers), self::read($raw, $afterLayers, $objects));
    }

    /**
     * @param array<int, int> $rungs
     * @param iterable<int>   $numbers
     *
     * @return array<int, int>
     */
    private static function set(array $rungs, iterable $numbers, Rung $rung): array
    {
        $value = $rung->value;
        foreach ($numbers as $number) {
            if ($value === 5) {
                unset($rungs[$number]);
            } else {
                $rungs[$number] = $value;
            }
        }

        return $rungs;
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
