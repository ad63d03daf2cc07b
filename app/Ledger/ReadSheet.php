<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Models\View;

/** What a file of comma-separated values says otherwise than views do now. */
final readonly class ReadSheet
{
    /**
     * @param list<View>                           $views
     * @param array<int, array<int, list<string>>> $cells   keys of rows by rung, -1 for nothing set, by place of the view
     * @param int                                  $changing cells that change
     * @param int                                  $missing  lines whose row is not in the project
     * @param list<string>                         $unknown  columns that are no view of the project
     */
    public function __construct(
        public array $views,
        public array $cells,
        public int $changing,
        public int $missing,
        public array $unknown,
    ) {}

    /** @return array<string, int> cells that change, by name of the view */
    public function byView(): array
    {
        $counts = [];
        foreach ($this->cells as $place => $groups) {
            $name = "{$this->views[$place]->name} #{$this->views[$place]->no}";
            $counts[$name] = array_sum(array_map(count(...), $groups));
        }

        return $counts;
    }
}
