<?php

declare(strict_types=1);

namespace VineShelf\Rules;

/** Fields that hold words. Fields that hold numbers are the cases of {@see \VineShelf\Facts\Measure}. */
enum Field: string
{
    case Name = 'name';
    case Kind = 'kind';
    case ObjectClass = 'class';
    case Layer = 'layer';
    case Tag = 'tag';
    case Set = 'set';
    case Material = 'material';
    case Source = 'source';
    case Level = 'level';
    case Note = 'note';

    public function meaning(): string
    {
        return match ($this) {
            self::Name => 'the object\'s name',
            self::Kind => 'group, part, light, camera, curve, points or marker',
            self::ObjectClass => 'the class that the file gives it',
            self::Layer => 'the layer it is filed under, or one above that',
            self::Tag => 'a tag that it has',
            self::Set => 'a selection set that it is in',
            self::Material => 'a material that it is drawn with',
            self::Source => 'the file that it came in',
            self::Level => 'the storey that the file puts it on, or what holds it',
            self::Note => 'a note on it',
        };
    }

    /** The words for one that a rule names and that does not exist. */
    public function missing(string $words): string
    {
        return match ($this) {
            self::ObjectClass => "No object has a class with “{$words}” in it",
            self::Kind => "“{$words}” is not a kind",
            self::Level => "No file puts an object on a level with “{$words}” in it",
            self::Note => "No note has “{$words}” in it",
            self::Name => "No name has “{$words}” in it",
            default => "There is no $this->value with “{$words}” in its name",
        };
    }
}
