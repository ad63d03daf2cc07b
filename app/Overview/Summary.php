<?php

declare(strict_types=1);

namespace App\Overview;

use App\Bench\Bench;
use App\SortingRules\Paths;
use Illuminate\Support\Carbon;
use VineShelf\Folders\Folder;
use VineShelf\Scene\Bits;

/**
 * How a project is sorted, as a list: layers, tags and sets with what they hold and weigh.
 *
 * @phpstan-type Line array{kind: string, path: string, name: string, depth: int, colour: string, objects: int, triangles: int, bytes: int,
 *     note: string, rule: string, lock: string, since: int|null}
 */
final readonly class Summary
{
    public const HEADS = ['What', 'Path', 'Objects', 'Triangles', 'Bytes', 'Colour', 'Lock', 'Rule', 'Note'];

    /** @param list<Line> $lines */
    private function __construct(public array $lines, public int $objects, public int $triangles) {}

    /** @param Carbon|null $since counts how many objects more or less there are than there were then */
    public static function of(Bench $bench, ?Carbon $since = null): self
    {
        $then = $since === null ? null : Earlier::counts($bench, $since);
        $all = Bits::all($bench->scene()->count());

        return new self(
            [...self::layers($bench, $then[0] ?? null), ...self::tags($bench, $then[1] ?? null), ...self::sets($bench, $then[2] ?? null)],
            $all->count(),
            $bench->weights()->full($all)->triangles,
        );
    }

    /** Comma-separated values, for spreadsheets. */
    public function csv(bool $withSince): string
    {
        $out = fopen('php://temp', 'w+b') ?: throw new \RuntimeException('No room for temporary bytes.');
        fputcsv($out, [...self::HEADS, ...$withSince ? ['Since'] : []], escape: '');
        foreach ($this->lines as $line) {
            $row = [
                $line['kind'],
                $line['path'],
                $line['objects'],
                $line['triangles'],
                $line['bytes'],
                $line['colour'],
                $line['lock'],
                $line['rule'],
                $line['note'],
                ...$withSince ? [$line['since'] ?? ''] : [],
            ];
            fputcsv($out, array_map(self::harmless(...), $row), escape: '');
        }
        rewind($out);

        return "\u{FEFF}".stream_get_contents($out);
    }

    /** What a spreadsheet would take for a formula stays a text. */
    private static function harmless(int|string $value): string
    {
        return is_string($value) && preg_match('~^[=+\-@\t\r]~', $value) === 1 ? "'$value" : (string) $value;
    }

    /**
     * @param array<int, int>|null $then
     *
     * @return list<Line>
     */
    private static function layers(Bench $bench, ?array $then): array
    {
        $lines = [];
        foreach ($bench->layers()->walk() as [$layer, $depth]) {
            $rows = $bench->contents()->rows($layer->number);
            $path = Paths::layer($bench, $layer->number) ?? '';
            $lines[] = self::line(
                $bench,
                'Layer',
                $path,
                $layer->name,
                $depth,
                $rows,
                $layer->colour,
                $layer->note,
                $layer->lock->label(),
                $then === null ? null : $then[$layer->number] ?? 0,
            );
        }

        return $lines;
    }

    /**
     * @param array<int, int>|null $then
     *
     * @return list<Line>
     */
    private static function tags(Bench $bench, ?array $then): array
    {
        $lines = [];
        foreach ($bench->tags()->all() as $tag) {
            $rows = $bench->scene()->tagged($tag->number);
            $path = Paths::tag($bench, $tag->number) ?? '';
            $lines[] = self::line(
                $bench,
                'Tag',
                $path,
                $path,
                0,
                $rows,
                $tag->colour,
                $tag->note,
                $tag->lock->label(),
                $then === null ? null : $then[$tag->number] ?? 0,
            );
        }

        return $lines;
    }

    /**
     * @param array<int, int>|null $then
     *
     * @return list<Line>
     */
    private static function sets(Bench $bench, ?array $then): array
    {
        $lines = [];
        $tree = $bench->sets()->tree;
        foreach ($bench->sets()->all() as $set) {
            $above = array_map(static fn (Folder $folder): string => $folder->name, array_reverse($tree->chain($set->folder)));
            $path = implode(' / ', [...$above, $set->name]);
            // What a rule found earlier cannot be told.
            $was = $then === null || $set->isLive() ? null : $then[$set->number] ?? 0;
            $lines[] = self::line($bench, 'Set', $path, $path, 0, $bench->set($set)->rows, '', $set->note, '', $was, (string) $set->rule);
        }

        return $lines;
    }

    /** @return Line */
    private static function line(
        Bench $bench,
        string $kind,
        string $path,
        string $name,
        int $depth,
        Bits $rows,
        string $colour,
        string $note,
        string $lock,
        ?int $was,
        string $rule = '',
    ): array {
        $weight = $bench->weights()->full($rows);
        $objects = $rows->count();

        return [
            'kind' => $kind,
            'path' => $path,
            'name' => $name,
            'depth' => $depth,
            'colour' => $colour,
            'objects' => $objects,
            'triangles' => $weight->triangles,
            'bytes' => $weight->bytes(),
            'note' => $note,
            'rule' => $rule,
            'lock' => $lock,
            'since' => $was === null ? null : $objects - $was,
        ];
    }
}
