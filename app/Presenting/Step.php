<?php

declare(strict_types=1);

namespace App\Presenting;

use App\Bench\Bench;
use App\Workbench\CanvasState;
use App\Workbench\Tinted;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Tint\EdgeLines;
use VineShelf\Tint\TintBy;

/** What a page needs to show one step of a presentation, and nothing about objects that the step hides. */
final readonly class Step
{
    public function __construct(private Presentation $presentation, private int $step) {}

    /**
     * @return array{
     *     revision: int, view: int, name: string, note: string, states: string, camera: array<string, mixed>|null,
     *     section: array<string, mixed>|null,
     *     tint: array{codes: string, colours: list<string>}|null,
     *     edges: array{codes: string, entries: list<array{colour: string, line: int}>}|null
     * } states (a byte: the rung) and codes (two bytes: the entry from 1 on, 0 for none) by object number, deflated and in base64; metres
     */
    public function toArray(): array
    {
        $view = $this->presentation->views[$this->step];
        $bench = $this->presentation->at($this->step);
        $rungs = $bench->shown()->inEffect->rungs();
        $section = $bench->cutting()->section;

        return [
            'revision' => $bench->project->revision,
            'view' => $view->no,
            'name' => $view->name,
            'note' => $view->note,
            'states' => self::packed($bench->scene()->byNumber($rungs->translated(range(0, Rung::Full->value)), chr(Rung::Hidden->value))),
            'camera' => $this->presentation->cameraAt($this->step),
            'section' => $section->isEmpty() ? null : $section->toArray() + ['origin' => $bench->facts()->origin()],
            'tint' => $this->tint($bench),
            'edges' => $this->edges($bench),
        ];
    }

    /** @return array{codes: string, colours: list<string>}|null */
    private function tint(Bench $bench): ?array
    {
        $tint = Tinted::of($bench);
        if ($tint->by === TintBy::Own) {
            return null;
        }
        $legend = $tint->legend();

        return [
            'codes' => $this->codes($bench, $legend->codes()),
            'colours' => array_map(static fn ($entry): string => $entry->colour, $legend->entries),
        ];
    }

    /** @return array{codes: string, entries: list<array{colour: string, line: int}>}|null */
    private function edges(Bench $bench): ?array
    {
        if (! EdgeLines::areThere($bench->organizers())) {
            return null;
        }
        $lines = EdgeLines::of($bench->scene(), $bench->organizers());

        return [
            'codes' => $this->codes($bench, $lines->codes),
            'entries' => array_map(static fn (array $entry): array => ['colour' => $entry[0], 'line' => $entry[1]->value], $lines->entries),
        ];
    }

    /** @param string $codes two bytes per row, row 0 first */
    private function codes(Bench $bench, string $codes): string
    {
        $shown = $this->presentation->shownAt($this->step);

        return self::packed(CanvasState::codesByNumber($bench, $codes & self::doubled($shown)));
    }

    /** @return string two bytes per row, all ones where it is among them */
    private static function doubled(Bits $rows): string
    {
        return strtr($rows->mask(), ["\xFF" => "\xFF\xFF", "\0" => "\0\0"]);
    }

    private static function packed(string $bytes): string
    {
        return base64_encode((string) gzdeflate($bytes, 1));
    }
}
