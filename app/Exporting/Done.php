<?php

declare(strict_types=1);

namespace App\Exporting;

/** What an export came to. */
final readonly class Done
{
    /** @param array<string, int> $heldBack objects that are not for export, by reason */
    public function __construct(
        public int $objects,
        /** Objects that are hidden, and so are not in it. */
        public int $hidden,
        public array $heldBack,
        public int $bytes,
        /** Groups that were not asked for, and are in it because the others stand in them. */
        public int $holders = 0,
    ) {}

    /**
     * In sentences.
     *
     * @param int $asked how many objects were asked for, before what they hold; 0 where that was not counted
     * @param int $held  how many more they hold
     */
    public function says(int $asked = 0, int $held = 0): string
    {
        $counted = static fn (int $count): string => number_format($count).($count === 1 ? ' object' : ' objects');
        $along = array_filter([
            $held === 0 ? '' : number_format($held).($asked === 1 ? ' that it holds' : ' that they hold'),
            $this->holders === 0 ? '' : number_format($this->holders).($this->holders === 1 ? ' group' : ' groups').' around',
        ]);
        $says =
            $asked === 0 || $along === []
                ? $counted($this->objects).' exported.'
                : number_format($asked).' asked for, '.number_format($this->objects).' exported: '.implode(' and ', $along).' came along.';
        $says .= $this->hidden === 0 ? '' : ' '.$counted($this->hidden).' stayed out: hidden.';
        foreach ($this->heldBack as $reason => $count) {
            $says .= ' '.$counted($count)." stayed out: not for export, “{$reason}”.";
        }

        return $says;
    }
}
