<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Models\Desk;
use App\Workbench\Answer;
use App\Workbench\CutDrawing;
use App\Workbench\Levels;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use VineShelf\Geometry\Box;
use VineShelf\Section\Section;

/** The section of a desk: a box and planes that cut what the canvas shows. */
final class SectionController
{
    /** The section becomes another one, as the canvas has it. */
    public function set(Request $request, Bench $bench): Response
    {
        $given = json_decode($request->string('section')->value(), true);
        $planes = is_array($given) ? $given['planes'] ?? [] : null;
        if (! is_array($given) || ! is_array($planes) || count($planes) > Section::MOST_PLANES) {
            throw new Refused('A section is a box, up to '.Section::MOST_PLANES.' planes, or both.', 'section');
        }
        /** @var array<string, mixed> $given */
        $section = Section::fromArray($given);
        if ($section->box === null && isset($given['box'])) {
            throw new Refused('A section box is six numbers, in metres.', 'section');
        }
        if (count($section->single) !== count($planes)) {
            throw new Refused('A plane is where it points to and how far it is, in metres.', 'section');
        }

        return $this->keep($request, $bench, $section, '');
    }

    /** A box around the pick, with so many metres of room. */
    public function around(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['margin' => ['nullable', 'numeric', 'between:0,10000']]);
        $margin = (float) ($given['margin'] ?? 0.5);
        $box = new Box;
        foreach ($bench->pickedBits()->rows() as $row) {
            $sides = $bench->facts()->box($row);
            $box = $sides === null ? $box : $box->with(new Box(...$sides));
        }
        if ($box->isEmpty()) {
            throw new Refused('Nothing is picked that stands anywhere; pick objects first.');
        }
        $box = new Box(
            $box->minX - $margin,
            $box->minY - $margin,
            $box->minZ - $margin,
            $box->maxX + $margin,
            $box->maxY + $margin,
            $box->maxZ + $margin,
        );
        $section = Section::of($box, $bench->cutting()->section->single);

        return $this->keep($request, $bench, $section, 'A section box around the pick.');
    }

    /** The levels of the model and how high each begins, for plan cuts. */
    public function levels(Bench $bench): JsonResponse
    {
        return new JsonResponse(Levels::of($bench)->all());
    }

    /** The cut faces, for the canvas to draw. */
    public function faces(Bench $bench): Response
    {
        $drawing = new CutDrawing($bench);

        return response($drawing->bytes(), 200, [
            'Content-Type' => 'application/octet-stream',
            'Cache-Control' => 'no-store',
            'X-Left' => (string) $drawing->left,
        ]);
    }

    private function keep(Request $request, Bench $bench, Section $section, string $says): Response
    {
        DeskChange::on($bench, static function (Desk $desk) use ($section): void {
            $desk->section = $section->toArray();
        });

        return Answer::to($bench, $request)->saying($says)->send();
    }
}
