<?php

declare(strict_types=1);

namespace VineShelf\Naming;

/** Names that go on counting: after "Seat_017" comes "Seat_018", after "Bench" comes "Bench 2". */
final class Numbered
{
    /** @var array<string, int> the highest number in use, by what stands before it, in lower case */
    private array $last = [];

    /** @param iterable<string> $taken names that there are */
    public function __construct(iterable $taken)
    {
        foreach ($taken as $name) {
            [$stem, , $number] = self::apart($name);
            $this->last[$stem] = max($this->last[$stem] ?? 1, $number);
        }
    }

    /** The next free name like a name. */
    public function next(string $name): string
    {
        if ($name === '') {
            return '';
        }
        [$stem, $digits, $number] = self::apart($name);
        $next = max($this->last[$stem] ?? 0, $number) + 1;
        $this->last[$stem] = $next;
        $before = $digits === 0 ? "$name " : substr($name, 0, -$digits);

        return mb_substr($before, 0, Renaming::LONGEST - 20).str_pad((string) $next, $digits, '0', STR_PAD_LEFT);
    }

    /** @return array{string, int, int} what is counted, how many digits stand at the end, and the number; 1 for none */
    private static function apart(string $name): array
    {
        // Longer ones are no count.
        if (preg_match('~^(.*?)(\d{1,9})$~Ds', $name, $found) === 1 && $found[1] !== '') {
            return [mb_strtolower(rtrim($found[1], ' ')), strlen($found[2]), (int) $found[2]];
        }

        return [mb_strtolower($name), 0, 1];
    }
}
