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
    ) {}

    /** In sentences. */
    public function says(): string
    {
        $counted = static fn (int $count): string => number_format($count).($count === 1 ? ' object' : ' objects');
        $says = $counted($this->objects).' exported.';
        $says .= $this->hidden === 0 ? '' : ' '.$counted($this->hidden).' stayed out: hidden.';
        foreach ($this->heldBack as $reason => $count) {
            $says .= ' '.$counted($count)." stayed out: not for export, “{$reason}”.";
        }

        return $says;
    }
}
