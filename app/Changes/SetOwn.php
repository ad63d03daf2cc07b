<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use VineShelf\Own\OwnValue;
use VineShelf\Rules\Field;
use VineShelf\Scene\Bits;

/** Objects get a value for a property of their own, another one, or none; a note, a colour, and why exports leave it out are such
 * properties as well. */
final class SetOwn extends Command
{
    private const LONGEST_NAME = 60;

    private const LONGEST_VALUE = 400;

    private const LONGEST_NOTE = 2000;

    private const MOST_PROPERTIES = 100;

    public readonly int $changed;

    private readonly Edits $edits;

    private readonly string $title;

    /**
     * @param Bits        $rows  scene rows of the objects
     * @param string|null $value null for none
     */
    public function __construct(Bench $bench, Bits $rows, string $property, ?string $value)
    {
        $property = self::checkedName($bench, $property);
        $value = $value === null || trim($value) === '' ? null : self::checkedValue($property, trim($value));
        $open = $rows->without($bench->inEffect()->locked());
        $this->leftAlone = self::lockedInWords($rows->count() - $open->count());
        $valuing = new Valuing($bench, $open, $property, $value);
        $this->changed = $valuing->changed;
        $this->edits = new Edits($valuing->steps);
        $objects = number_format($this->changed).' '.($this->changed === 1 ? 'object' : 'objects');
        $this->title = match (true) {
            $property === OwnValue::NOTE => ($value === null ? 'Take the note off ' : 'Note on ').$objects,
            $property === OwnValue::COLOUR => $value === null ? "Give $objects no colour of their own" : "Colour $objects",
            $property === OwnValue::EXPORT => $value === null ? "Let exports have $objects again" : "Keep $objects out of exports",
            $value === null => "Take $property off $objects",
            default => "Set $property to $value on $objects",
        };
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    private static function checkedName(Bench $bench, string $name): string
    {
        if (in_array($name, [OwnValue::NOTE, OwnValue::COLOUR, OwnValue::EXPORT], true)) {
            return $name;
        }
        $name = trim((string) preg_replace('~\s+~u', ' ', $name));
        $own = $bench->organizers()->own;
        $known = $own->named($name);
        if ($known !== null) {
            return $known;
        }

        return match (true) {
            $name === '' || $name[0] === '~' => throw new Refused(
                'A property needs a name that begins with a letter or a digit.',
                'property',
            ),
            mb_strlen($name) > self::LONGEST_NAME => throw new Refused(
                'The name of a property has at most '.self::LONGEST_NAME.' characters; this one has '.mb_strlen($name).'.',
                'property',
            ),
            Field::tryFrom(mb_strtolower($name)) !== null => throw new Refused(
                "“{$name}” is a field of rules; choose another name.",
                'property',
            ),
            $bench->facts()->propertyNamed($name) !== null => throw new Refused(
                "The files have a property “{$name}” already; what you add goes beside it, under another name.",
                'property',
            ),
            count($own->names()) >= self::MOST_PROPERTIES => throw new Refused(
                'A project has at most '.self::MOST_PROPERTIES.' properties of its own.',
                'property',
            ),
            default => $name,
        };
    }

    private static function checkedValue(string $property, string $value): string
    {
        if ($property === OwnValue::COLOUR && preg_match('~^#[0-9a-f]{6}$~Di', $value) !== 1) {
            throw new Refused('A colour is written as # and six digits, for example #3f7a63.', 'value');
        }
        $longest = $property === OwnValue::NOTE ? self::LONGEST_NOTE : self::LONGEST_VALUE;
        if (mb_strlen($value) > $longest) {
            throw new Refused(
                'This has at most '.number_format($longest).' characters; it has '.number_format(mb_strlen($value)).'.',
                'value',
            );
        }

        return $property === OwnValue::COLOUR ? mb_strtolower($value) : $value;
    }
}
