<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Names that no person gives: "Mesh_033", "Object.001", hashes and numbers. */
final readonly class ExportersNames extends Plain
{
    /** Words that say no more than that it is something, and what may follow them. */
    private const WORDS =
        '~^(?:mesh|object|obj|node|group|geometry|geom|body|solid|shape|part|element|item|default|untitled|unnamed|new|instance|component|'.
        'cube|box|plane|sphere|cylinder|cone|empty|null|root|entity|polygon|surface|brep|line|point)s?[\s._#:-]*\d*$~Di';

    /** A hash, a universally unique identifier, or a number. */
    private const KEYS = '~^(?:[0-9a-f]{16,}|[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}|[#_.\s-]*\d+)$~Di';

    public function id(): string
    {
        return 'exporters-names';
    }

    public function title(int $many): string
    {
        return self::many($many, 'object is called as an exporter calls things', 'objects are called as exporters call things');
    }

    public function why(): string
    {
        return '“Mesh_033” says nothing to whoever looks for a railing.';
    }

    public function mends(): array
    {
        return ['name' => 'Name them after class, group or material'];
    }

    public function find(Model $model): array
    {
        return self::together(
            $model,
            array_filter(array_keys($model->names), static fn (int $row): bool => $row > 0 && self::isOne($model->names[$row])),
        );
    }

    public static function isOne(string $name): bool
    {
        $name = trim($name);

        return $name !== '' && (preg_match(self::WORDS, $name) === 1 || preg_match(self::KEYS, $name) === 1);
    }
}
