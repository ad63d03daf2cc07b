<?php

declare(strict_types=1);

namespace App\Bench;

use Illuminate\Http\Request;
use VineShelf\Scene\Bits;

/**
 * The ledger rows that an action is for, as the request names them: "L5" for a layer, "O123" for an object, "T3" for a tag, "F2" for a
 * folder, "E4" for a set, "K1", "M4", "S2" for other groups.
 */
final readonly class Keys
{
    private const MOST = 5000;

    private const KEY = '~^([LOTFEKMS])([0-9]{1,9})(\.[0-9]{1,9})?$~D';

    /**
     * @param list<int>    $layers
     * @param list<int>    $objects
     * @param list<string> $groups  keys of all other rows, see {@see Groups}
     */
    private function __construct(public array $layers, public array $objects, public array $groups) {}

    public static function isKey(string $text): bool
    {
        return preg_match(self::KEY, $text) === 1;
    }

    /** @throws Refused when there are too many */
    public static function in(Request $request): self
    {
        return self::listed($request->string('keys')->value());
    }

    /** @param string $keys with commas between @throws Refused when there are too many */
    public static function listed(string $keys): self
    {
        $keys = $keys === '' ? [] : explode(',', $keys);
        if (count($keys) > self::MOST) {
            throw new Refused(
                'At most '.number_format(self::MOST).' rows go at once; pick what you mean, then act on the pick.',
                'keys',
            );
        }

        return self::of($keys);
    }

    /** @param list<string> $keys */
    public static function of(array $keys): self
    {
        $layers = $objects = $groups = [];
        foreach ($keys as $key) {
            if (preg_match(self::KEY, trim($key), $found) === 1) {
                match ($found[1]) {
                    'L' => ($layers[] = (int) $found[2]),
                    'O' => ($objects[] = (int) $found[2]),
                    default => ($groups[] = trim($key)),
                };
            }
        }

        return new self($layers, $objects, $groups);
    }

    /** @return list<int> numbers of the rows whose keys begin with a letter, for example "T" for tags */
    public function numbered(string $letter): array
    {
        $those = array_filter($this->groups, static fn (string $key): bool => $key[0] === $letter);

        return array_values(array_map(static fn (string $key): int => (int) substr($key, 1), $those));
    }

    /**
     * Rows of what the named layers, with those nested in them, and the named groups hold; objects that are named themselves are not among
     * them.
     */
    public function heldIn(Bench $bench): Bits
    {
        return $this->filedUnder($bench)->or($this->groupsIn($bench));
    }

    /** Rows of what is filed under the named layers and those nested in them. */
    public function filedUnder(Bench $bench): Bits
    {
        $layers = [];
        foreach ($this->layers as $layer) {
            $layers += array_fill_keys($bench->layers()->withNested($layer), true);
        }

        return $layers === [] ? Bits::none($bench->scene()->count()) : $bench->scene()->layers()->rowsOf($layers);
    }

    /** Rows of what the named kinds, classes, materials, sources, tags, folders and sets hold. */
    public function groupsIn(Bench $bench): Bits
    {
        $rows = Bits::none($bench->scene()->count());
        $groups = $this->groups === [] ? [] : (new Groups($bench))->allNamed($this->groups);
        foreach ($groups as $group) {
            $rows = $rows->or($group->rows());
        }

        return $rows;
    }

    /** @return list<int> numbers of the objects that are named, and of those in the groups */
    public function objectsIn(Bench $bench): array
    {
        $held = $bench->scene()->numbersIn($this->groupsIn($bench)->ranges());

        return array_values(array_unique([...$this->objects, ...$held]));
    }
}
