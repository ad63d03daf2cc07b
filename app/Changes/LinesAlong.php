<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Changes\Edits\RowEdit;
use App\SortingRules\StoredLine;
use VineShelf\Exchange\SortingLine;
use VineShelf\Exchange\SortingRules;
use VineShelf\Folders\Holds;
use VineShelf\Layers\Layer;

/** The lines of a list from elsewhere, for a project: layers and tags are found by their paths, and made where they are missing. */
final class LinesAlong
{
    /** @var list<StoredLine> numbered by their place in the list, from 1 */
    public readonly array $lines;

    /** @var array<int, string> paths of the layers that are made, by number */
    public array $newLayers = [];

    /** @var array<int, string> paths of the tags that are made, by number */
    public array $newTags = [];

    /** @var array<string, list<string>> what a layer or a tag of the list is called here instead, by its path in lower case */
    private array $instead;

    private readonly AlongPath $along;

    /**
     * @param array<string, string> $layers what layers of the list are called here instead, by their path; "" to leave layers alone
     * @param array<string, string> $tags   what tags of the list are called here instead, by their path; "" to leave them out
     *
     * @throws Refused when a name is none
     */
    public function __construct(private readonly Bench $bench, SortingRules $list, array $layers = [], array $tags = [])
    {
        $this->along = new AlongPath($bench);
        $instead = [];
        foreach (['layer' => $layers, 'tag' => $tags] as $what => $renamed) {
            foreach ($renamed as $path => $name) {
                $instead["$what ".mb_strtolower((string) $path)] = trim($name) === '' ? [] : AlongPath::names($name, $what);
            }
        }
        $this->instead = $instead;
        $lines = [];
        foreach ($list->lines as $at => $line) {
            $lines[] = $this->line($line, $at + 1);
        }
        $this->lines = $lines;
    }

    /** @return list<RowEdit> what has to be made, in order */
    public function steps(): array
    {
        return $this->along->steps;
    }

    /**
     * What a list names that the project does not have.
     *
     * @return array{list<string>, list<string>} paths of layers and of tags, each once
     */
    public static function unknown(Bench $bench, SortingRules $list): array
    {
        $along = self::unmade($bench, $list);

        return [array_values($along->newLayers), array_values($along->newTags)];
    }

    /**
     * The lines with nothing made for them: layers and tags that are missing wait until something goes there.
     *
     * @param array<string, string> $layers what layers of the list are called here instead, as the constructor has it
     * @param array<string, string> $tags
     *
     * @return list<StoredLine>
     *
     * @throws Refused when a name is none
     */
    public static function waiting(Bench $bench, SortingRules $list, array $layers = [], array $tags = []): array
    {
        $along = self::unmade($bench, $list, $layers, $tags);

        return array_map(
            static fn (StoredLine $line): StoredLine => $line->goingTo(
                isset($along->newLayers[$line->layer]) ? 0 : $line->layer,
                array_map(static fn (array $tag): array => [isset($along->newTags[$tag[0]]) ? 0 : $tag[0], $tag[1]], $line->tags),
            ),
            $along->lines,
        );
    }

    /**
     * @param array<string, string> $layers
     * @param array<string, string> $tags
     */
    private static function unmade(Bench $bench, SortingRules $list, array $layers = [], array $tags = []): self
    {
        // Nothing is kept of what is made here.
        $next = $bench->project->only(['next_layer', 'next_tag', 'next_folder']);
        try {
            return new self($bench, $list, $layers, $tags);
        } finally {
            $bench->project->forceFill($next);
        }
    }

    private function line(SortingLine $line, int $number): StoredLine
    {
        $layer = $this->named('layer', $line->layer);
        $tags = array_values(array_filter(array_map(fn (array $path): array => $this->named('tag', $path), $line->tags)));

        return new StoredLine(
            $number,
            $number,
            $line->rule,
            $layer === [] ? 0 : $this->layer($layer),
            implode(' / ', $layer),
            array_map(fn (array $path): array => [$this->tag($path), implode(' / ', $path)], $tags),
            $line->name,
            $line->only,
            $line->goesOn,
            $line->isOff,
            $line->note,
        );
    }

    /**
     * @param list<string> $path
     *
     * @return list<string>
     */
    private function named(string $what, array $path): array
    {
        return $this->instead["$what ".mb_strtolower(implode(' / ', $path))] ?? $path;
    }

    /** @param non-empty-list<string> $path */
    private function layer(array $path): int
    {
        if (count($path) === 1 && mb_strtolower($path[0]) === 'unsorted') {
            return Layer::UNSORTED;
        }
        $number = $this->along->layer($path)->number;
        if (! $this->bench->layers()->has($number)) {
            $this->newLayers[$number] = implode(' / ', $path);
        }

        return $number;
    }

    /** @param non-empty-list<string> $path */
    private function tag(array $path): int
    {
        $name = (string) array_pop($path);
        $folder = $this->along->folder(Holds::Tags, $path);
        $known = $this->along->member(Holds::Tags, $folder, $name);
        if ($known !== null) {
            return $known;
        }
        foreach ($this->newTags as $number => $made) {
            if (mb_strtolower($made) === mb_strtolower(implode(' / ', [...$path, $name]))) {
                return $number;
            }
        }
        $number = $this->along->makeMember(Holds::Tags, $folder, $name, []);
        $this->newTags[$number] = implode(' / ', [...$path, $name]);

        return $number;
    }
}
