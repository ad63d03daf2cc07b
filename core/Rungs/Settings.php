<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Scene\Bits;
use VineShelf\Scene\Packed;

/**
 * Own rungs of layers and objects: explicit values only. Full is a value; what is not set is not in here, and where settings lie over
 * others the value below counts ({@see over()}).
 *
 * A desk holds one, and so does every view that keeps rungs. Objects are kept as one set per rung, so that a rung on a hundred thousand of
 * them costs little more than on one.
 */
final readonly class Settings
{
    private const VERSION = 2;

    /**
     * @param array<int, int>  $layers  rung by layer number
     * @param array<int, Bits> $objects object numbers by rung; no object is in two sets, and none of the sets is empty
     */
    public function __construct(public array $layers = [], public array $objects = []) {}

    /**
     * @param array<int, int> $layers  rung by layer number
     * @param array<int, int> $objects rung by object number
     */
    public static function of(array $layers, array $objects): self
    {
        $byRung = [];
        foreach ($objects as $number => $rung) {
            $byRung[$rung][] = $number;
        }
        $settings = new self($layers);
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
        $layers = $this->layers;
        foreach ($numbers as $number) {
            if ($rung === null) {
                unset($layers[$number]);
            } else {
                $layers[$number] = $rung->value;
            }
        }

        return new self($layers, $this->objects);
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

        return new self($this->layers, $objects);
    }

    /** These values where something is set, the others elsewhere. */
    public function over(self $others): self
    {
        $result = new self($this->layers + $others->layers, $others->objects);
        foreach ($this->objects as $rung => $numbers) {
            $result = $result->withObjects($numbers, Rung::from($rung));
        }

        return $result;
    }

    /** Whether both set the same, Full counting as nothing: so it is on a desk. */
    public function same(self $other): bool
    {
        return $this->difference($other) === ['layers' => 0, 'objects' => 0];
    }

    /** @return array{layers: int, objects: int} how many layers and objects are set differently, Full counting as nothing */
    public function difference(self $other): array
    {
        $layers = 0;
        foreach ($this->layers + $other->layers as $number => $_) {
            $layers += ($this->layers[$number] ?? Rung::Full->value) !== ($other->layers[$number] ?? Rung::Full->value) ? 1 : 0;
        }
        $differing = Bits::none(0);
        for ($rung = 0; $rung < Rung::Full->value; $rung++) {
            [$here, $there] = [$this->objects[$rung] ?? Bits::none(0), $other->objects[$rung] ?? Bits::none(0)];
            $differing = $differing->with($here->less($there))->with($there->less($here));
        }

        return ['layers' => $layers, 'objects' => $differing->count()];
    }

    /**
     * @return string version; number of layers, their numbers and rungs; then for each rung of objects: rung, bytes, one bit per object
     * number. Deflated
     */
    public function pack(): string
    {
        $raw = pack('CV', self::VERSION, count($this->layers));
        if ($this->layers !== []) {
            $raw .= pack('V*', ...array_keys($this->layers)).pack('C*', ...array_values($this->layers));
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
        [$count] = Packed::uint32($raw, 1, 1);
        $objects = [];
        for ($at = 5 + 5 * $count; $at + 5 <= strlen($raw); $at += 5 + $size) {
            [$size] = Packed::uint32($raw, $at + 1, 1);
            $objects[ord($raw[$at])] = Bits::ofBytes(($size << 3) - 1, substr($raw, $at + 5, $size));
        }

        return new self(self::read($raw, 5, $count), $objects);
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
