<?php

declare(strict_types=1);

namespace VineShelf\Folders;

/** What a folder holds beside other folders. */
enum Holds: string
{
    case Tags = 'tags';
    case Sets = 'sets';
    case Views = 'views';

    public function one(): string
    {
        return rtrim($this->value, 's');
    }
}
