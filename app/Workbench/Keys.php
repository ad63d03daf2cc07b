<?php

declare(strict_types=1);

namespace App\Workbench;

use Illuminate\Http\Request;

/** The ledger rows that an action is for, as the request names them: "L5" for a layer, "O123" for an object. */
final readonly class Keys
{
    /**
     * @param list<int> $layers
     * @param list<int> $objects
     */
    private function __construct(public array $layers, public array $objects) {}

    public static function in(Request $request): self
    {
        $given = $request->input('keys', '');
        $layers = $objects = [];
        foreach (explode(',', is_string($given) ? $given : '') as $key) {
            if (preg_match('~^([LO])([0-9]{1,9})$~', trim($key), $found) === 1) {
                if ($found[1] === 'L') {
                    $layers[] = (int) $found[2];
                } else {
                    $objects[] = (int) $found[2];
                }
            }
        }

        return new self($layers, $objects);
    }
}
