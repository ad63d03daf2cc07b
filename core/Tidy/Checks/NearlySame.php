<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Search\NameIndex;
use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Names that differ by spaces, dashes and case alone: "Seat_shell", "Seat Shell ". */
final readonly class NearlySame extends Plain
{
    /** Characters of a name that stands for itself. */
    private const LONGEST = 60;

    public function id(): string
    {
        return 'nearly-same';
    }

    public function title(int $many): string
    {
        return self::many($many, 'name is written in several ways', 'names are written in several ways');
    }

    public function why(): string
    {
        return 'A rule for one of them passes the others over.';
    }

    public function mends(): array
    {
        return ['one-spelling' => 'Write each as most are written'];
    }

    public function countsItems(): bool
    {
        return true;
    }

    public function find(Model $model): array
    {
        $ways = $known = [];
        foreach ($model->names as $row => $name) {
            if ($row === 0 || $name === '') {
                continue;
            }
            $stem = NameIndex::stem($name);
            $plain = $known[$stem] ??= self::plain($stem);
            if ($plain !== '') {
                $ways[$plain][$stem][] = $row;
            }
        }
        $ways = array_filter($ways, static fn (array $stems): bool => count($stems) > 1);
        uasort($ways, static fn (array $a, array $b): int => array_sum(array_map(count(...), $b)) <=> array_sum(array_map(count(...), $a)));
        $items = [];
        foreach ($ways as $plain => $stems) {
            uasort($stems, static fn (array $a, array $b): int => count($b) <=> count($a));
            $says = implode(', ', array_map(static fn (string|int $stem): string => "“{$stem}”", array_keys($stems)));
            $key = mb_strlen((string) $plain) > self::LONGEST ? hash('xxh128', (string) $plain) : (string) $plain;
            $items[] = new Item($key, $says, $model->rows(array_merge(...array_values($stems))));
        }

        return $items;
    }

    /** A name without what is easily written otherwise. */
    public static function plain(string $name): string
    {
        return mb_strtolower((string) preg_replace('~[\s._-]+~u', '', $name));
    }
}
