<?php

declare(strict_types=1);

namespace VineShelf\Tint;

use VineShelf\Colours\Line;
use VineShelf\Organizers\Organizers;
use VineShelf\Own\OwnValue;
use VineShelf\Scene\Scene;

/** How the edges of each object are drawn: as its layer says, else as the first of its tags that says something. */
final readonly class EdgeLines
{
    /**
     * @param list<array{string, Line}> $entries colour and line
     * @param string                    $codes   two bytes per row, row 0 first: the entry, counted from 1, 0 for none
     */
    private function __construct(public array $entries, public string $codes) {}

    public static function of(Scene $scene, Organizers $organizers): self
    {
        $entries = [];
        $codes = array_fill(0, $scene->count() + 1, 0);
        foreach (array_reverse($organizers->tags->all()) as $tag) {
            if ($tag->line !== Line::None) {
                $entries[] = [$tag->colour, $tag->line];
                foreach ($scene->tagged($tag->number)->rows() as $row) {
                    $codes[$row] = count($entries);
                }
            }
        }
        foreach ($organizers->layers->walk() as [$layer]) {
            if ($layer->line !== Line::None) {
                $entries[] = [$layer->colour, $layer->line];
                foreach (
                    $scene
                        ->layers()
                        ->rowsOf([$layer->number => true])
                        ->rows() as $row
                ) {
                    $codes[$row] = count($entries);
                }
            }
        }

        foreach ($organizers->own->values(OwnValue::COLOUR) as $colour) {
            // A colour of its own takes the place of that of what the line comes from.
            $places = [];
            foreach ($scene->valued($colour->number)->rows() as $row) {
                if ($codes[$row] > 0) {
                    $places[$codes[$row]] ??= array_push($entries, [$colour->value, $entries[$codes[$row] - 1][1]]);
                    $codes[$row] = $places[$codes[$row]];
                }
            }
        }

        return new self($entries, pack('v*', ...$codes));
    }

    /** Whether any layer or tag says how edges are drawn. */
    public static function areThere(Organizers $organizers): bool
    {
        foreach ($organizers->layers->walk() as [$layer]) {
            if ($layer->line !== Line::None) {
                return true;
            }
        }
        foreach ($organizers->tags->all() as $tag) {
            if ($tag->line !== Line::None) {
                return true;
            }
        }

        return false;
    }
}
