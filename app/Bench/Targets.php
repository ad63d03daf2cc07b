<?php

declare(strict_types=1);

namespace App\Bench;

use Illuminate\Http\Request;
use VineShelf\Scene\Bits;

/**
 * What an action is for: the rows of the ledger that the request names, whatever the lens, or the pick when it names none. The one place
 * where row keys become objects and organizers; what they do not name any more is refused.
 */
final readonly class Targets
{
    /**
     * @param list<int> $layers layers that are meant themselves
     * @param Bits      $rows   scene rows of the objects that are meant, by themselves or by the kind, material or source that they belong
     *     to
     */
    private function __construct(public array $layers, public Bits $rows) {}

    /** @param list<int> $layers */
    public static function of(array $layers, Bits $rows): self
    {
        return new self($layers, $rows);
    }

    /** @throws Refused */
    public static function in(Request $request, Bench $bench): self
    {
        return $request->string('keys')->value() === '' ? self::pick($bench) : self::named(Keys::in($request), $bench);
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
        $scene = $bench->scene();
        $rows = $keys->groupsIn($bench)->or(Bits::ofRows($scene->count(), $scene->rowsOf($keys->objects)));
        if ($layers === [] && $rows->isEmpty()) {
            throw new Refused('There is nothing of that in the project any more.', 'keys');
        }

        return new self($layers, $rows);
    }

    /**
     * The objects alone, for what is not done to layers.
     *
     * @throws Refused with the sentence when layers are meant
     */
    public function objectsOnly(string $sentence): Bits
    {
        return $this->layers === [] ? $this->rows : throw new Refused($sentence, 'keys');
    }

    public function isEmpty(): bool
    {
        return $this->layers === [] && $this->rows->isEmpty();
    }

    /** Without some objects. */
    public function without(Bits $rows): self
    {
        return new self($this->layers, $this->rows->without($rows));
    }

    /** For example "2 layers and 14 objects", or the layer's name when it is one alone. */
    public function inWords(Bench $bench): string
    {
        $objects = $this->rows->count();
        if (count($this->layers) === 1 && $objects === 0) {
            return $bench->layers()->get($this->layers[0])->name;
        }

        return implode(
            ' and ',
            array_filter([
                $this->layers === [] ? '' : number_format(count($this->layers)).' '.(count($this->layers) === 1 ? 'layer' : 'layers'),
                $objects === 0 ? '' : number_format($objects).' '.($objects === 1 ? 'object' : 'objects'),
            ]),
        );
    }
}
