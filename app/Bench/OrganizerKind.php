<?php

declare(strict_types=1);

namespace App\Bench;

/** What people sort by, and the letter of its row keys. */
enum OrganizerKind: string
{
    case Layer = 'L';
    case Tag = 'T';
    case Folder = 'F';
    case Set = 'E';
    case View = 'V';

    /** Where its rows are stored. */
    public function table(): string
    {
        return match ($this) {
            self::Layer => 'layers',
            self::Tag => 'tags',
            self::Folder => 'folders',
            self::Set => 'sets',
            self::View => 'views',
        };
    }

    public function word(): string
    {
        return rtrim($this->table(), 's');
    }

    /** @param int $count of them @return string for example "3 layers" */
    public function counted(int $count): string
    {
        return number_format($count).' '.($count === 1 ? $this->word() : $this->table());
    }
}
