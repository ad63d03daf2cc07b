<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use VineShelf\Rungs\Rung;
use VineShelf\Tint\EdgeLines;

/** What the canvas draws from: always the whole truth by object number, small because it compresses well. */
final class CanvasState
{
    /** Added to the rung of what is guarded or locked. */
    private const HELD = 16;

    /**
     * @return array{
     *     revision: int, desk: int, packs: int, meshed: int, states: string, pick: string, tint: string, edges: string, section: string
     * } how many packs there ever were, which grows with every batch of coarser versions, and how often objects have got other meshes;
     *     states and pick are deflated and in base64, the section is JSON
     */
    public static function of(Bench $bench): array
    {
        return [
            'revision' => $bench->project->revision,
            'desk' => $bench->desk->revision,
            'packs' => $bench->project->next_pack,
            'meshed' => $bench->project->meshed,
            'states' => base64_encode((string) gzdeflate(self::states($bench), 1)),
            'pick' => base64_encode((string) gzdeflate(self::pick($bench), 1)),
            'tint' => Tinted::of($bench)->stamp(),
            'section' => self::section($bench),
            'edges' => EdgeLines::areThere($bench->organizers()) ? 'at '.$bench->project->revision : '',
        ];
    }

    /** The section as it is kept, with where the canvas counts from; empty where there is none. */
    private static function section(Bench $bench): string
    {
        $section = $bench->cutting()->section;

        return $section->isEmpty() ? '' : (string) json_encode($section->toArray() + ['origin' => $bench->facts()->origin()]);
    }

    /** One byte per object number: the rung in effect, plus 16 when the object is guarded or locked. Byte 0 belongs to no object. */
    private static function states(Bench $bench): string
    {
        $rungs = $bench->shown()->inEffect->rungs()->translated(range(0, Rung::Full->value));
        $locks = $bench
            ->inEffect()
            ->locks()
            ->translated([0, self::HELD, self::HELD]);

        return $bench->scene()->byNumber($rungs | $locks, chr(Rung::Hidden->value));
    }

    /** One byte per object number: 1 when the object or a group above it is picked; empty when nothing is. */
    private static function pick(Bench $bench): string
    {
        if ($bench->pick()->count() === 0) {
            return '';
        }

        return $bench->scene()->byNumber(strtr($bench->pickedWithHeld()->mask(), "\xFF", "\1"), "\0");
    }

    /** @param string $codes two bytes per row, row 0 first @return string two bytes per object number */
    public static function codesByNumber(Bench $bench, string $codes): string
    {
        return $bench->scene()->byNumber($codes, "\0\0");
    }
}
