<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Models\Casts\Bytes;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use VineShelf\Picking\Takes;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Drawn;
use VineShelf\Scene\Packed;

/** What the canvas draws, and through which cameras it may look. */
final class CanvasController
{
    /** Rows per answer of the whole. */
    private const PART = 40_000;

    /** Placements of objects that are not hidden: the biggest first, then everything in parts. */
    public function records(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['part' => ['required', 'integer', 'between:0,1000000']]);
        $scene = $bench->scene();
        $shown = $bench->shown()->inEffect->rungs()->atLeast(Rung::Box->value);
        $part = (int) $given['part'];
        if ($part === 0) {
            $biggest = $scene->column('biggest');
            $rows = array_filter(Packed::uint32($biggest, 0, intdiv(strlen($biggest), 4)), $shown->has(...));
            $ranges = self::each($rows);
        } else {
            $first = ($part - 1) * self::PART + 1;
            $last = min($scene->count(), $part * self::PART);
            $ranges = $first > $last ? [] : $shown->and(Bits::ofRanges($scene->count(), [[$first, $last]]))->ranges();
        }

        return self::binary(pack('V', (int) ceil($scene->count() / self::PART)).Drawn::of($scene, $ranges));
    }

    /** Placements of the objects that the request names, as far as they are not hidden. */
    public function some(Request $request, Bench $bench): Response
    {
        $wanted = (string) $request->getContent();
        abort_if(strlen($wanted) > 4 * 1_000_000, 413);
        $shown = $bench->shown()->inEffect->rungs()->atLeast(Rung::Box->value);
        $rows = $bench->scene()->rowsOf(Packed::uint32($wanted, 0, intdiv(strlen($wanted), 4)));

        return self::binary(pack('V', 0).Drawn::of($bench->scene(), self::each(array_filter($rows, $shown->has(...)))));
    }

    /** The coarser versions that there are, {@see \VineShelf\Scene\MeshVersions}. */
    public function versions(Bench $bench): Response
    {
        return self::binary($bench->scene()->column('versions'));
    }

    /** The mesh that each object is drawn with, four bytes by object number, 0 for none. */
    public function meshes(Bench $bench): Response
    {
        return self::binary($bench->scene()->byNumber($bench->scene()->column('mesh'), "\0\0\0\0"));
    }

    /**
     * @param array<int> $rows
     *
     * @return list<array{int, int}> ranges of one row each, ascending
     */
    private static function each(array $rows): array
    {
        sort($rows);

        return array_map(static fn (int $row): array => [$row, $row], $rows);
    }

    /** The number of the object that a click on each object takes, four bytes by object number. */
    public function takes(Request $request, Bench $bench): JsonResponse
    {
        $takes = Takes::tryFrom($request->string('take')->value()) ?? Takes::Part;
        $scene = $bench->scene();
        $taken = array_map(
            static fn (int $row): int => $row === 0 ? 0 : $scene->number($row),
            $takes->rows($scene, $scene->row(max(0, $request->integer('inside')))),
        );

        return new JsonResponse(['taken' => base64_encode((string) gzdeflate($scene->byNumber(pack('V*', ...$taken), "\0\0\0\0"), 1))]);
    }

    private static function binary(string $bytes): Response
    {
        return response($bytes, 200, ['Content-Type' => 'application/x-shelf-records', 'Cache-Control' => 'no-store']);
    }
}
