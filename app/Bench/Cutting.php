<?php

declare(strict_types=1);

namespace App\Bench;

use App\Database\ReadSnapshot;
use VineShelf\Rungs\InEffect;
use VineShelf\Scene\Bits;
use VineShelf\Section\CutRows;
use VineShelf\Section\Section;

/** The section of a desk: which objects it takes away, and which it goes through. */
final class Cutting
{
    /** Seconds that it is remembered which objects a section reaches. */
    private const REMEMBERED = 600;

    public readonly Section $section;

    private ?Bits $gone = null;

    private ?Bits $across = null;

    public function __construct(private readonly Bench $bench)
    {
        $this->section = Section::fromArray($bench->desk->section);
    }

    /** Rows that are wholly cut away. */
    public function gone(): Bits
    {
        $this->gone === null && $this->look();

        return $this->gone ?? Bits::none(0);
    }

    /** Rows that a plane goes through, as far as their boxes tell. */
    public function across(): Bits
    {
        $this->across === null && $this->look();

        return $this->across ?? Bits::none(0);
    }

    /** What is in effect, with what is cut away hidden. */
    public function of(InEffect $inEffect): InEffect
    {
        return $this->section->cuts() ? $inEffect->without($this->gone()) : $inEffect;
    }

    private function look(): void
    {
        $count = $this->bench->scene()->count();
        $project = $this->bench->project;
        $remembers = $this->section->cuts() && apcu_enabled() && ReadSnapshot::isOn();
        $entry = "section.$project->key.{$this->bench->person->id}";
        $stamp = $project->revision.' '.md5((string) json_encode($this->section->toArray()));
        $known = $remembers ? apcu_fetch($entry) : null;
        if (is_array($known) && $known[0] === $stamp && is_string($known[1]) && is_string($known[2])) {
            [$this->gone, $this->across] = [Bits::ofBytes($count, $known[1]), Bits::ofBytes($count, $known[2])];

            return;
        }
        $cut = CutRows::of($this->section, $this->bench->facts());
        [$this->gone, $this->across] = [$cut->gone, $cut->across];
        if ($remembers) {
            apcu_store($entry, [$stamp, $cut->gone->bytes, $cut->across->bytes], self::REMEMBERED);
        }
    }
}
