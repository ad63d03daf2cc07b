<?php

declare(strict_types=1);

namespace VineShelf\Section;

use VineShelf\Facts\Derived\Blocks;
use VineShelf\Facts\Facts;
use VineShelf\Scene\Bits;

/** What becomes of the objects of a scene under a section, by their bounding boxes: first of 64 at once, then of 8, then of single ones. */
final readonly class CutRows
{
    /**
     * @param Bits $gone   rows of what draws something and lies wholly beyond a plane
     * @param Bits $across rows of those whose boxes a plane goes through
     */
    private function __construct(public Bits $gone, public Bits $across) {}

    public static function of(Section $section, Facts $facts): self
    {
        $scene = $facts->scene;
        $count = $scene->count();
        if (! $section->cuts()) {
            return new self(Bits::none($count), Bits::none($count));
        }
        [$ox, $oy, $oz] = $facts->origin();
        $planes = array_map(
            static fn (Plane $plane): Plane => Plane::of(
                $plane->normal,
                $plane->distance - $plane->normal[0] * $ox - $plane->normal[1] * $oy - $plane->normal[2] * $oz,
            ),
            $section->planes(),
        );
        $near = $scene->column('near');
        $gone = $across = str_repeat("\0", $count + 1);
        $runs = range(0, max(0, intdiv(strlen($near), 4 * Blocks::SIZES[0])));
        foreach (Blocks::SIZES as $size) {
            $blocks = $scene->column("blocks.$size");
            $next = [];
            foreach ($runs as $block) {
                if ($block * 24 + 24 > strlen($blocks)) {
                    continue;
                }
                /** @var array{1: float, 2: float, 3: float, 4: float, 5: float, 6: float} $b */
                $b = unpack('g6', $blocks, $block * 24);
                if ($b[1] > $b[4]) {
                    continue;
                }
                $is = Section::side($planes, $b[1], $b[2], $b[3], $b[4], $b[5], $b[6]);
                if ($is === Section::IN) {
                    continue;
                }
                if ($is === Section::ACROSS && $size > 1) {
                    for ($inner = 0; $inner < Blocks::STEP; $inner++) {
                        $next[] = $block * Blocks::STEP + $inner;
                    }

                    continue;
                }
                foreach (Blocks::rows($near, $size, $block) as $row) {
                    if ($is === Section::OUT) {
                        $gone[$row] = "\1";
                    } else {
                        $across[$row] = "\1";
                    }
                }
            }
            $runs = $next;
        }

        return new self(Bits::ofMask($count, $gone), Bits::ofMask($count, $across));
    }
}
