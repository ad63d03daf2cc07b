<?php

declare(strict_types=1);

namespace VineShelf\Rules;

use VineShelf\Sets\SetTree;

/** Which live sets refer to which sets. */
final class SetLinks
{
    /** @var array<int, list<int>> numbers of the sets that a live set refers to, by its own */
    private array $links = [];

    public function __construct(private readonly SetTree $sets)
    {
        foreach ($sets->all() as $set) {
            $this->links[$set->number] = $set->rule === null ? [] : $this->meant($set->rule);
        }
    }

    /** @return list<int> numbers of the sets that a set refers to itself */
    public function from(int $set): array
    {
        return $this->links[$set] ?? [];
    }

    /** @return list<string>|null names along a way that leads back to where it starts, that one first and last; null when there is none */
    public function cycle(): ?array
    {
        $done = [];
        foreach (array_keys($this->links) as $start) {
            // A depth-first walk without recursion: the sets on the way, and which of its links each has come to.
            $way = [$start];
            $next = [0];
            while ($way !== []) {
                $here = $way[count($way) - 1];
                $to = isset($done[$here]) ? null : $this->links[$here][$next[count($next) - 1]++] ?? null;
                if ($to === null) {
                    $done[$here] = true;
                    array_pop($way);
                    array_pop($next);
                } elseif (in_array($to, $way, true)) {
                    $cycle = [...array_slice($way, (int) array_search($to, $way, true)), $to];

                    return array_map(fn (int $number): string => $this->sets->get($number)->name, $cycle);
                } else {
                    $way[] = $to;
                    $next[] = 0;
                }
            }
        }

        return null;
    }

    /** @return list<int> */
    private function meant(string $rule): array
    {
        try {
            $leaves = Leaves::of(Parser::parse($rule)->tree);
        } catch (RuleError) {
            return [];
        }
        $meant = [];
        foreach ($leaves as $leaf) {
            if ($leaf instanceof TextIs && ! $leaf->isProperty && $leaf->field === Field::Set->value) {
                foreach ($this->sets->called((new Pattern($leaf))->resembles(...)) ?? [] as $set) {
                    $meant[$set->number] = true;
                }
            }
        }

        return array_keys($meant);
    }
}
