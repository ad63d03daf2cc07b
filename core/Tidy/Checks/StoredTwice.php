<?php

declare(strict_types=1);

namespace VineShelf\Tidy\Checks;

use VineShelf\Tidy\Item;
use VineShelf\Tidy\Model;
use VineShelf\Tidy\Plain;

/** Meshes that are stored several times. */
final readonly class StoredTwice extends Plain
{
    public function id(): string
    {
        return 'stored-twice';
    }

    public function title(int $many): string
    {
        return self::many($many, 'mesh is stored several times', 'meshes are stored several times each');
    }

    public function why(): string
    {
        return 'Each copy is sent, kept and drawn by itself. Shared, it costs a placement.';
    }

    public function mends(): array
    {
        return ['share' => 'Share them'];
    }

    public function countsItems(): bool
    {
        return true;
    }

    public function find(Model $model): array
    {
        $alike = $users = [];
        for ($row = 1, $count = $model->scene->count(); $row <= $count; $row++) {
            $mesh = $model->facts->mesh($row);
            if ($mesh !== 0 && isset($model->meshes[$mesh])) {
                $alike[$model->meshes[$mesh][0]][$mesh] = true;
                $users[$model->meshes[$mesh][0]][] = $row;
            }
        }
        $items = [];
        foreach (array_filter($alike, static fn (array $meshes): bool => count($meshes) > 1) as $made => $meshes) {
            $saves = (count($meshes) - 1) * $model->meshes[(int) array_key_first($meshes)][1];
            $says = "{$model->names[$users[$made][0]]}: ".count($meshes).' times, '.number_format($saves).' bytes too many';
            $items[] = [$saves, new Item((string) $made, $says, $model->rows($users[$made]))];
        }
        usort($items, static fn (array $a, array $b): int => $b[0] <=> $a[0]);

        return array_column($items, 1);
    }
}
