<?php

declare(strict_types=1);

namespace App\Changes\Edits;

use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Scene\Bits;

/** What steps do not say themselves of the rows that they are about: names, and properties of the values that people gave. */
final class KnownRows
{
    /** @var array<string, array<int, string>> names by number, by table */
    private array $names = [];

    /** @var array<int, string> by number of the value */
    private array $properties;

    public function __construct(Project $project)
    {
        foreach (['layers', 'tags', 'sets', 'folders'] as $table) {
            $this->names[$table] = DB::table($table)->where('project_id', $project->id)->pluck('name', 'no')->all();
        }
        $this->properties = DB::table('own_values')->where('project_id', $project->id)->pluck('property', 'no')->all();
    }

    /** Rows that steps bring or remove may be missing now. */
    public function learn(Edits $edits): void
    {
        foreach ($edits->steps as $step) {
            if ($step instanceof RowEdit) {
                $row = $step->before ?? ($step->after ?? []);
                if (is_string($row['property'] ?? null)) {
                    $this->properties[$step->number] ??= $row['property'];
                }
                if (is_string($row['name'] ?? null)) {
                    $this->names[$step->table][$step->number] ??= $row['name'];
                }
            }
        }
    }

    /**
     * What steps write of which there is one at most: a value of a property for an object, a name among what lies beside each other.
     *
     * @return array<string, Bits>
     */
    public function claimed(Edits $edits): array
    {
        $claims = [];
        foreach ($edits->steps as $step) {
            if ($step instanceof MembersEdit && $step->table === 'own_values' && isset($this->properties[$step->number])) {
                $what = "own {$this->properties[$step->number]}";
                $claims[$what] = isset($claims[$what]) ? $claims[$what]->with($step->objects()) : $step->objects();
            } elseif ($step instanceof PlacesEdit) {
                foreach ($step->after as $number => [$into]) {
                    $name = $this->names[$step->table][$number] ?? null;
                    if ($name !== null && $into !== ($step->before[$number][0] ?? null)) {
                        $claims[RowEdit::called($step->table, $name)] = Numbers::of([1]);
                    }
                }
            }
        }

        return $claims;
    }
}
