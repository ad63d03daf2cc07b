<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\Refused;
use App\Changes\Edits\RowEdit;
use VineShelf\Colours\Palette;
use VineShelf\Folders\Holds;
use VineShelf\Layers\Layer;
use VineShelf\Tags\Tag;

/** Layers and folders by their path, "Stands / Seats": found from the top down, whatever the case, and made where they are missing. */
final class AlongPath
{
    /** @var list<RowEdit> what has to be made, in order */
    public array $steps = [];

    /** @var array<string, int> number of what was found or made, by family and lower-case path */
    private array $known = [];

    /** @var array<string, int> greatest place in what was made or added to, by family and number */
    private array $last = [];

    public function __construct(private readonly Bench $bench) {}

    /**
     * @return non-empty-list<string> the names along a path as people write it
     *
     * @throws Refused when a name is missing
     */
    public static function names(string $path, string $what): array
    {
        // A stroke at an end has a name missing beside it.
        $parts = preg_split('~(?:^|\s)/(?:\s|$)~u', trim($path)) ?: [''];

        return array_map(static fn (string $name): string => RowNames::check($name, $what), $parts);
    }

    /**
     * The layer at the end of a path.
     *
     * @param non-empty-list<string> $names
     */
    public function layer(array $names): Layer
    {
        $number = 0;
        $at = '';
        foreach ($names as $name) {
            $at .= "\n".mb_strtolower($name);
            $number = $this->known["layers$at"] ??= $this->find('layers', 'layer', $number, $name) ?? $this->makeLayer($number, $name);
        }

        return $this->layerNumbered($number);
    }

    /** The layer of that name in another one, 0 for the top. */
    public function layerIn(int $parent, string $name): Layer
    {
        $key = "in $parent\n".mb_strtolower($name);
        $number = $this->known[$key] ??= $this->find('layers', 'layer', $parent, $name) ?? $this->makeLayer($parent, $name);

        return $this->layerNumbered($number);
    }

    private function layerNumbered(int $number): Layer
    {
        foreach ($this->steps as $step) {
            if ($step->table === 'layers' && $step->number === $number) {
                return CreateLayer::layer($step);
            }
        }

        return $this->bench->layers()->get($number);
    }

    /**
     * The number of the folder at the end of a path, 0 for none.
     *
     * @param list<string> $names
     */
    public function folder(Holds $holds, array $names): int
    {
        $number = 0;
        $at = '';
        foreach ($names as $name) {
            $at .= "\n".mb_strtolower($name);
            $number = $this->known["$holds->value$at"] ??=
                $this->find($holds->value, 'folder', $number, $name) ??
                $this->make('folders', $this->bench->project->next_folder++, [
                    'holds' => $holds->value,
                    'parent_no' => $number,
                    'position' => $this->next($holds->value, $number),
                    'name' => $name,
                    'lock' => 0,
                    'one_at_a_time' => false,
                ]);
        }

        return $number;
    }

    /** The number of a tag or a set in a folder; null when it is not there. */
    public function member(Holds $holds, int $folder, string $name): ?int
    {
        return $this->find($holds->value, $holds->one(), $folder, $name);
    }

    /**
     * A row that is made, last in its folder.
     *
     * @param array<string, mixed> $values
     */
    public function makeMember(Holds $holds, int $folder, string $name, array $values): int
    {
        $project = $this->bench->project;
        $row = ['folder_no' => $folder, 'position' => $this->next($holds->value, $folder), 'name' => $name];
        if ($holds === Holds::Tags) {
            $taken = array_map(static fn (Tag $tag): string => $tag->colour, $this->bench->tags()->all());
            foreach ($this->steps as $step) {
                $taken[] = $step->table === 'tags' && is_string($step->after['colour'] ?? null) ? $step->after['colour'] : '#7a3b72';
            }
            $row += ['colour' => Palette::next($taken), 'line' => 0, 'lock' => 0];
        }

        return $this->make(
            $holds->value,
            $holds === Holds::Tags ? $project->next_tag++ : $project->next_set++,
            $values + $row + ['note' => ''],
        );
    }

    /**
     * Says more of a row that is made.
     *
     * @param array<string, mixed> $values
     */
    public function describe(string $table, int $number, array $values): void
    {
        foreach ($this->steps as $at => $step) {
            if ($step->table === $table && $step->number === $number) {
                $this->steps[$at] = new RowEdit($table, $number, null, $values + ($step->after ?? []));
            }
        }
    }

    private function find(string $family, string $what, int $in, string $name): ?int
    {
        // What was just made holds nothing that is stored.
        return $in > 0 && isset($this->last["$family made $in"]) ? null : Organizer::called($this->bench, $family, $what, $in, $name);
    }

    private function makeLayer(int $parent, string $name): int
    {
        $taken = [];
        foreach ($this->steps as $step) {
            $taken[] = $step->table === 'layers' && is_string($step->after['colour'] ?? null) ? $step->after['colour'] : '#7a3b72';
        }
        $step = CreateLayer::step($this->bench, $parent, $name, $this->next('layers', $parent), $taken);
        $this->last["layers made $step->number"] = 0;
        $this->steps[] = $step;

        return $step->number;
    }

    /** @param array<string, mixed> $values */
    private function make(string $table, int $number, array $values): int
    {
        if ($table === 'folders') {
            $holds = is_string($values['holds']) ? $values['holds'] : '';
            $this->last["$holds made $number"] = 0;
        }
        $this->steps[] = new RowEdit($table, $number, null, $values);

        return $number;
    }

    /** The next place in something; for layers how many places after the last one that is stored. */
    private function next(string $family, int $in): int
    {
        if ($family === 'layers') {
            return $this->last["layers $in"] = ($this->last["layers $in"] ?? 0) + 1;
        }
        $stored = $in > 0 && isset($this->last["$family made $in"]) ? 0 : CreateTag::last(Organizer::inside($this->bench, $family, $in));

        return $this->last["$family $in"] = ($this->last["$family $in"] ?? $stored) + 1;
    }
}
