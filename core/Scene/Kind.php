<?php

declare(strict_types=1);

namespace VineShelf\Scene;

/** What an object is. The value is what the index and the database store. */
enum Kind: int
{
    case Group = 0;
    case Part = 1;
    case Light = 2;
    case Camera = 3;
    case Curve = 4;
    case Points = 5;
    case Marker = 6;

    public function label(): string
    {
        return strtolower($this->name);
    }

    /** The word for several of this kind. */
    public function plural(): string
    {
        return $this === self::Points ? 'point sets' : $this->label().'s';
    }

    /** The word for $count objects of this kind, for example "3 parts". */
    public function counted(int $count): string
    {
        $word = $this->label();
        if ($count !== 1 && $this !== self::Points) {
            $word .= 's';
        }

        return number_format($count).' '.($this === self::Points ? ($count === 1 ? 'point set' : 'point sets') : $word);
    }

    /** Whether objects of this kind draw anything. */
    public function draws(): bool
    {
        return $this === self::Part || $this === self::Curve || $this === self::Points;
    }
}
