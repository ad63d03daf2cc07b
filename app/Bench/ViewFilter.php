<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\View;
use VineShelf\Folders\FolderTree;

/** Which views the ledger is widened over, and which rows it has then. */
final readonly class ViewFilter
{
    /** All rows of the lens; only those with something set in these views; only those in which these views differ. */
    public const ONLY = ['', 'set', 'differ'];

    private const LONGEST = 120;

    /** @param string $only one of {@see self::ONLY} */
    public function __construct(
        /** Number of the folder whose views they are, 0 for all. */
        public int $folder,
        /** Part of their names, "" for all. */
        public string $named,
        public string $only,
    ) {}

    /** Null where none is kept. */
    public static function of(mixed $kept): ?self
    {
        if (! is_array($kept)) {
            return null;
        }
        [$folder, $named, $only] = [$kept[0] ?? 0, $kept[1] ?? '', $kept[2] ?? ''];

        return new self(
            is_int($folder) ? $folder : 0,
            is_string($named) ? mb_substr(trim($named), 0, self::LONGEST) : '',
            in_array($only, self::ONLY, true) ? $only : '',
        );
    }

    /** @return array{int, string, string} */
    public function toArray(): array
    {
        return [$this->folder, $this->named, $this->only];
    }

    /**
     * The views that it lets through, in the order on the shelf.
     *
     * @param FolderTree<View> $shelf
     *
     * @return list<View>
     */
    public function views(FolderTree $shelf): array
    {
        $folder = isset($shelf->folders[$this->folder]) ? $this->folder : 0;
        $words = mb_strtolower($this->named);

        return array_values(
            array_filter(
                array_map(static fn (int $number): View => $shelf->members[$number], $shelf->within($folder)),
                static fn (View $view): bool => $words === '' || str_contains(mb_strtolower($view->name), $words),
            ),
        );
    }
}
