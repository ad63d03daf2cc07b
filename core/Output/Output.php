<?php

declare(strict_types=1);

namespace VineShelf\Output;

/** What pictures are to show of a layer, tag, folder or object: a rung, or what is decided elsewhere. */
enum Output: int
{
    case Hidden = 0;
    case Box = 1;
    case Ghost = 2;
    case Coarse = 3;
    case Plain = 4;
    case Full = 5;
    /** As the desk of whoever makes the picture has it set. */
    case AsOnDesk = 6;
    /** Helpers, clearances, measuring bodies: in no picture, whatever views say. */
    case Never = 7;

    public function label(): string
    {
        return match ($this) {
            self::AsOnDesk => 'As on the desk',
            self::Never => 'Never in pictures',
            default => $this->name,
        };
    }

    /** As scripts and routes write it: "0" to "5", "desk" or "never". */
    public function word(): string
    {
        return match ($this) {
            self::AsOnDesk => 'desk',
            self::Never => 'never',
            default => (string) $this->value,
        };
    }

    /** Null for what no word says. */
    public static function named(string $word): ?self
    {
        foreach (self::cases() as $case) {
            if ($case->word() === $word) {
                return $case;
            }
        }

        return null;
    }

    /** The rung that it is by itself, 0 to 5; null where the desk decides. */
    public function rung(): ?int
    {
        return match ($this) {
            self::AsOnDesk => null,
            self::Never => 0,
            default => $this->value,
        };
    }
}
