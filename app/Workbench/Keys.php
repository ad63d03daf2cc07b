<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Ledger\Groups;
use Illuminate\Http\Request;
use VineShelf\Scene\Bits;

/** The ledger rows that an action is for, as the request names them: "L5" for a layer, "O123" for an object, "K1", "M4", "S2" for groups. */
final readonly class Keys
{
    private const MOST = 5000;

    /**
     * @param list<int>    $layers
     * @param list<int>    $objects
     * @param list<string> $groups
     */
    private function __construct(public array $layers, public array $objects, public array $groups) {}

    public static function in(Request $request): self
    {
        $given = $request->input('keys', '');

        return self::of(array_slice(explode(',', is_string($given) ? $given : ''), 0, self::MOST));
    }

    /** @param list<string> $keys */
    public static function of(array $keys): self
    {
        $layers = $objects = $groups = [];
        foreach ($keys as $key) {
            if (preg_match('~^([LOKMS])([0-9]{1,9})(\.[0-9]{1,9})?$~D', trim($key), $found) === 1) {
                match ($found[1]) {
                    'L' => $layers[] = (int) $found[2],
                    'O' => $objects[] = (int) $found[2],
                    default => $groups[] = trim($key),
                };
            }
        }

        return new self($layers, $objects, $groups);
    }

    /** Rows of what the named layers, with those nested in them, and the named groups hold; objects that are named themselves are not among them. */
    public function heldIn(Bench $bench): Bits
    {
        $rows = Bits::none($bench->scene()->count());
        $layers = [];
        foreach ($this->layers as $layer) {
            $layers += array_fill_keys($bench->layers()->withNested($layer), true);
        }
        if ($layers !== []) {
            $rows = $rows->or(Bits::ofRuns($bench->scene()->layers(), $layers));
        }
        foreach ($this->groups as $key) {
            $group = (new Groups($bench))->named($key);
            $rows = $group === null ? $rows : $rows->or($group->rows());
        }

        return $rows;
    }

    /** @return list<int> numbers of the objects that are named, and of those in the groups */
    public function objectsIn(Bench $bench): array
    {
        $numbers = $this->objects;
        foreach ($this->groups as $key) {
            $group = (new Groups($bench))->named($key);
            if ($group !== null) {
                array_push($numbers, ...$bench->scene()->numbersIn($group->rows()->ranges()));
            }
        }

        return array_values(array_unique($numbers));
    }
}
