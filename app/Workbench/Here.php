<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Why\Why;

/** What is at a place or in a region of the picture: first what cannot be seen or picked, then what is nearest. */
final readonly class Here
{
    /** As many are listed. */
    private const MOST = 60;

    /**
     * @param list<array{int, string, string, Why, string}> $objects number, name, layer, why, and the sentence that says it
     * @param int                                           $count   of all that is there
     * @param int                                           $unseen  of those that are hidden
     * @param int                                           $held    of those that are guarded or locked
     */
    private function __construct(public array $objects, public int $count, public int $unseen, public int $held) {}

    /** @param array{float, float, float} $eye where it is looked from, metres */
    public static function of(Bench $bench, Bits $rows, array $eye): self
    {
        $hidden = $rows->and($bench->shown()->inEffect->rungs()->being(Rung::Hidden->value));
        $held = $rows->without($bench->inEffect()->locks()->being(Lock::Open->value));
        $listed = [
            ...self::nearest($bench, $hidden, $eye),
            ...self::nearest($bench, $held->without($hidden), $eye),
            ...self::nearest($bench, $rows->without($hidden)->without($held), $eye),
        ];
        $text = new WhyText($bench, $bench->desk->shows_output);
        $listed = array_slice($listed, 0, self::MOST);
        $text->know(array_map($bench->scene()->number(...), $listed));
        $objects = [];
        foreach ($listed as $row) {
            $why = $bench->shown()->why($bench, $row);
            $objects[] = [
                $bench->scene()->number($row),
                $text->name($row),
                $bench->layers()->path($bench->scene()->layers()->at($row)),
                $why,
                trim(
                    ($why->rung === Rung::Full && $why->lock === Lock::Open
                        ? ''
                        : $text->sentence($row, $why).'. '.$text->second($why)).
                        ($bench->cutting()->gone()->has($row) ? ' The section cuts it away.' : ''),
                ),
            ];
        }

        return new self($objects, $rows->count(), $hidden->count(), $held->count());
    }

    public function title(): string
    {
        return match ($this->count) {
            0 => 'Nothing is here',
            1 => 'One object is here',
            default => number_format($this->count).' objects are here',
        };
    }

    /**
     * @param array{float, float, float} $eye
     *
     * @return list<int> rows by how far the middle of their boxes is
     */
    private static function nearest(Bench $bench, Bits $rows, array $eye): array
    {
        $far = [];
        foreach ($rows->rows() as $row) {
            $b = $bench->facts()->box($row);
            $far[$row] =
                $b === null
                    ? INF
                    : ($b[0] + $b[3] - 2 * $eye[0]) ** 2 + ($b[1] + $b[4] - 2 * $eye[1]) ** 2 + ($b[2] + $b[5] - 2 * $eye[2]) ** 2;
        }
        asort($far);

        return array_slice(array_keys($far), 0, self::MOST);
    }
}
