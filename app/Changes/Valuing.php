<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\MembersEdit;
use App\Changes\Edits\RowEdit;
use VineShelf\Own\OwnValue;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Members;

/** Objects leave the values that they have of a property of their own, and come to another: the steps that it takes. */
final readonly class Valuing
{
    /** Different values of one property. */
    private const MOST_VALUES = 500;

    /** @var list<MembersEdit|RowEdit> */
    public array $steps;

    /** Objects whose value changes. */
    public int $changed;

    /**
     * @param Bits        $rows  scene rows of the objects, none of them locked
     * @param string|null $value null for none
     */
    public function __construct(Bench $bench, Bits $rows, string $property, ?string $value)
    {
        $scene = $bench->scene();
        $values = $bench->organizers()->own->values($property);
        $steps = [];
        $changing = Bits::none($scene->count());
        $target = null;
        foreach ($values as $known) {
            if ($known->value === $value) {
                $target = $known;

                continue;
            }
            $leaving = $scene->valued($known->number)->and($rows);
            if (! $leaving->isEmpty()) {
                $steps[] = new MembersEdit('own_values', $known->number, Bits::none(0), $scene->numberBits($leaving));
                $changing = $changing->or($leaving);
            }
        }
        if ($value !== null) {
            $coming = $target === null ? $rows : $rows->without($scene->valued($target->number));
            $changing = $changing->or($coming);
            if ($target === null && count($values) >= self::MOST_VALUES) {
                throw new Refused('A property has at most '.self::MOST_VALUES.' different values.', 'value');
            }
            if (! $coming->isEmpty()) {
                $steps[] = self::coming($bench, $target, $property, $value, $scene->numberBits($coming));
            }
        }
        $this->steps = $steps;
        $this->changed = $changing->count();
    }

    private static function coming(Bench $bench, ?OwnValue $target, string $property, string $value, Bits $numbers): MembersEdit|RowEdit
    {
        return $target !== null
            ? new MembersEdit('own_values', $target->number, $numbers, Bits::none(0))
            : new RowEdit('own_values', $bench->project->next_value++, null, [
                'property' => $property,
                'value' => $value,
                'members' => base64_encode(Members::pack($numbers)),
            ]);
    }
}
