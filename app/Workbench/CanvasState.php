<?php

declare(strict_types=1);

namespace App\Workbench;

use VineShelf\Rungs\Rung;
use VineShelf\Scene\Packed;

/** What the canvas draws from: always the whole truth by object number, small because it compresses well. */
final class CanvasState
{
    /** @return array{revision: int, desk: int, states: string, pick: string, tint: string} states and pick are deflated and in base64 */
    public static function of(Bench $bench): array
    {
        return [
            'revision' => $bench->project->revision,
            'desk' => $bench->desk->revision,
            'states' => base64_encode((string) gzdeflate(self::states($bench), 1)),
            'pick' => base64_encode((string) gzdeflate(self::pick($bench), 1)),
            'tint' => Tinted::of($bench)->stamp(),
        ];
    }

    /** One byte per object number: the rung in effect, plus 16 when the object is guarded or locked. Byte 0 belongs to no object. */
    private static function states(Bench $bench): string
    {
        $scene = $bench->scene();
        $bytes = '';
        foreach ($bench->inEffect()->rungs()->beside($bench->inEffect()->locks()) as [$first, $last, $rung, $lock]) {
            $bytes .= str_repeat(chr($rung | ($lock > 0 ? 16 : 0)), $last - $first + 1);
        }

        return self::byNumber($bench, $bytes, chr(Rung::Hidden->value));
    }

    /** One byte per object number: 1 when the object or a group above it is picked. */
    private static function pick(Bench $bench): string
    {
        $scene = $bench->scene();
        $bytes = '';
        $next = 1;
        foreach ($bench->pick()->count() === 0 ? [] : $bench->pick()->withHeld($scene)->ranges() as [$first, $last]) {
            $bytes .= str_repeat("\0", $first - $next).str_repeat("\1", $last - $first + 1);
            $next = $last + 1;
        }

        return $bytes === '' ? '' : self::byNumber($bench, $bytes.str_repeat("\0", $scene->count() - $next + 1), "\0");
    }

    /** @param string $codes two bytes per row, row 0 first @return string two bytes per object number */
    public static function codesByNumber(Bench $bench, string $codes): string
    {
        $scene = $bench->scene();
        $last = intdiv(strlen($scene->column('rows')), 4) - 1;
        if ($scene->column('no') === $scene->column('rows')) {
            return $codes;
        }
        $ordered = str_repeat("\0\0", $last + 1);
        foreach (Packed::uint32($scene->column('no'), 0, $scene->count() + 1) as $row => $number) {
            $ordered[$number * 2] = $codes[$row * 2];
            $ordered[$number * 2 + 1] = $codes[$row * 2 + 1];
        }

        return $ordered;
    }

    /** Bytes per row, put in the order of object numbers. */
    private static function byNumber(Bench $bench, string $bytes, string $gone): string
    {
        $scene = $bench->scene();
        $numbers = $scene->column('no');
        $count = $scene->count();
        $last = intdiv(strlen($scene->column('rows')), 4) - 1;
        // Most projects have one source and nothing deleted: then rows and numbers are the same.
        if ($last === $count && ($count === 0 || Packed::uint32At($numbers, $count) === $count) && $numbers === $scene->column('rows')) {
            return $gone.$bytes;
        }
        $ordered = str_repeat($gone, $last + 1);
        foreach (Packed::uint32($numbers, 4, $count) as $index => $number) {
            $ordered[$number] = $bytes[$index];
        }

        return $ordered;
    }
}
