<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Refused;
use Illuminate\Http\Request;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Pick;

/** What objects that are named do to the pick. */
enum PickMode: string
{
    case Replace = 'replace';
    case Add = 'add';
    case Remove = 'remove';
    case Toggle = 'toggle';

    /** @throws Refused */
    public static function in(Request $request): self
    {
        return self::tryFrom($request->string('mode')->value()) ??
            throw new Refused('Say what is to happen to the pick: '.implode(', ', array_column(self::cases(), 'value')).'.', 'mode');
    }

    /**
     * The pick with some objects in it, less them, or only them.
     *
     * @param Pick $named objects in the order in which they were named
     * @param Bits $more  and these besides, one bit per object number
     */
    public function of(Pick $pick, Pick $named, Bits $more): Pick
    {
        $few = $more->isEmpty();
        $named = $few ? $named : $named->withBits($more);
        $with = $few ? $pick->with($named->numbers()) : $pick->withBits($named->bits());
        $without = static fn (): Pick => $few ? $pick->without($named->numbers()) : $pick->withoutBits($named->bits());

        return match ($this) {
            self::Replace => $named,
            self::Add => $with,
            self::Remove => $without(),
            self::Toggle => $with->count() === $pick->count() ? $without() : $with,
        };
    }

    /** The end of a sentence about what was caught. */
    public function inWords(): string
    {
        return match ($this) {
            self::Replace => '',
            self::Add, self::Toggle => ' and added',
            self::Remove => ' and taken away',
        };
    }
}
