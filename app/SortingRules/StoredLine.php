<?php

declare(strict_types=1);

namespace App\SortingRules;

use App\Bench\Bench;
use App\Models\Project;
use Illuminate\Support\Facades\DB;
use VineShelf\Exchange\SortingLine;

/** One line of the list by which a project is sorted. */
final readonly class StoredLine
{
    /**
     * @param int                      $layer     number of the layer, 0 to leave layers alone, or where it is made once the line files
     *                                            something there
     * @param string                   $layerPath what the layer was called when the line was written, "Stands / Seats"
     * @param list<array{int, string}> $tags      number of each tag, and its path through folders when the line was written; 0 where it is
     *                                            made once something gets it
     * @param string                   $pattern   of new names, empty to leave them alone
     * @param bool                     $only      whether what a picked group holds stays out of it
     */
    public function __construct(
        public int $number,
        public int $position,
        public string $rule,
        public int $layer,
        public string $layerPath,
        public array $tags,
        public string $pattern,
        public bool $only,
        public bool $goesOn,
        public bool $isOff,
        public string $note,
    ) {}

    /** @return list<self> the lines of a project in their order */
    public static function all(Project $project): array
    {
        $rows = DB::table('sorting_lines')->where('project_id', $project->id)->orderBy('position')->orderBy('no')->get()->all();

        return array_map(self::of(...), array_values($rows));
    }

    public static function of(\stdClass $row): self
    {
        $tags = [];
        $given = json_decode((string) $row->gives, true);
        foreach (is_array($given) ? $given : [] as $tag) {
            if (is_array($tag) && is_int($tag[0] ?? null) && is_string($tag[1] ?? null)) {
                $tags[] = [$tag[0], $tag[1]];
            }
        }

        return new self(
            (int) $row->no,
            (int) $row->position,
            (string) $row->rule,
            (int) $row->layer_no,
            (string) $row->layer_path,
            $tags,
            (string) $row->pattern,
            (bool) $row->only,
            (bool) $row->goes_on,
            (bool) $row->is_off,
            (string) $row->note,
        );
    }

    /** @return array<string, mixed> as the table has it */
    public function columns(): array
    {
        return [
            'position' => $this->position,
            'rule' => $this->rule,
            'layer_no' => $this->layer,
            'layer_path' => $this->layerPath,
            'gives' => json_encode($this->tags, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE),
            'pattern' => $this->pattern,
            'only' => $this->only,
            'goes_on' => $this->goesOn,
            'is_off' => $this->isOff,
            'note' => $this->note,
        ];
    }

    /** Whether it names layers or tags that are made once they are needed. */
    public function isWaiting(): bool
    {
        return ($this->layer === 0 && $this->layerPath !== '') || in_array(0, array_column($this->tags, 0), true);
    }

    /** @param list<array{int, string}> $tags */
    public function goingTo(int $layer, array $tags): self
    {
        return new self(
            $this->number,
            $this->position,
            $this->rule,
            $layer,
            $this->layerPath,
            $tags,
            $this->pattern,
            $this->only,
            $this->goesOn,
            $this->isOff,
            $this->note,
        );
    }

    /** As it goes from project to project, with what layers and tags are called now. */
    public function toFile(Bench $bench): SortingLine
    {
        $tags = array_map(
            static fn (array $tag): array => $bench->tags()->has($tag[0]) ? Paths::tagNames($bench, $tag[0]) : explode(' / ', $tag[1]),
            $this->tags,
        );

        return new SortingLine(
            $this->rule,
            match (true) {
                $this->layerPath === '' => [],
                $bench->layers()->has($this->layer) => Paths::layerNames($bench, $this->layer),
                default => explode(' / ', $this->layerPath),
            },
            $tags,
            $this->pattern,
            $this->only,
            $this->goesOn,
            $this->isOff,
            $this->note,
        );
    }
}
