<?php

declare(strict_types=1);

namespace VineShelf\Rungs;

use VineShelf\Organizers\Organizers;
use VineShelf\Scene\Bits;

/** Layers, tags, folders of tags and objects whose own rungs are set together: on a desk, or in views. */
final readonly class Rows
{
    /**
     * @param list<int> $layers  numbers
     * @param list<int> $tags
     * @param list<int> $folders
     * @param Bits      $objects one bit per object number
     */
    public function __construct(public array $layers, public array $tags, public array $folders, public Bits $objects) {}

    /** Settings in which the rows are at a rung, and nothing else is. @param Rung|null $rung null to set nothing */
    public function put(Settings $settings, ?Rung $rung): Settings
    {
        return $settings
            ->withLayers($this->layers, $rung)
            ->withTags($this->tags, $rung)
            ->withFolders($this->folders, $rung)
            ->withObjects($this->objects, $rung);
    }

    /**
     * Settings in which the rows are at a rung; of what is shown one at a time, the others are hidden.
     *
     * @param Rung|null $rung null to set nothing
     */
    public function set(Settings $settings, ?Rung $rung, Organizers $organizers): Settings
    {
        $set = $this->put($settings, $rung);

        // Where nothing is set, nobody has shown anything.
        return $rung === null ? $set : OneAtATime::shown($set, $organizers, $this->layers, $this->tags, $this->folders);
    }

    /**
     * Settings in which the rows are at a rung, are hidden, or have again what they had before they were; of what is shown one at a time,
     * the others are hidden. To give back what was not hidden shows nothing, and hides nothing.
     *
     * @param Rung|Turn|null $to    null to set nothing
     * @param Settings       $known what they had, as {@see BeforeHiding} has it
     */
    public function turned(Settings $settings, Rung|Turn|null $to, Organizers $organizers, Settings $known): Settings
    {
        if ($to !== Turn::Back) {
            return $this->set($settings, $to === Turn::Hide ? Rung::Hidden : $to, $organizers);
        }

        $shown = $this->hiddenIn($settings);

        return OneAtATime::shown(
            BeforeHiding::givenBack($settings, $this, $known),
            $organizers,
            $shown->layers,
            $shown->tags,
            $shown->folders,
        );
    }

    /** Those layers, tags and folders of them that are hidden by what is set on them. */
    private function hiddenIn(Settings $settings): self
    {
        return new self(
            array_values(array_filter($this->layers, static fn (int $number): bool => $settings->layer($number) === Rung::Hidden)),
            array_values(array_filter($this->tags, static fn (int $number): bool => $settings->tag($number) === Rung::Hidden)),
            array_values(array_filter($this->folders, static fn (int $number): bool => $settings->folder($number) === Rung::Hidden)),
            Bits::none(0),
        );
    }

    /** Settings in which the rows are as others have them, what is held alone as well. */
    public function copied(Settings $from, Settings $to): Settings
    {
        foreach ($this->layers as $layer) {
            $to = $to->withLayers([$layer], $from->layer($layer))->withLayersAlone([$layer], $from->layerAlone($layer));
        }
        foreach ($this->tags as $tag) {
            $to = $to->withTags([$tag], $from->tag($tag));
        }
        foreach ($this->folders as $folder) {
            $to = $to->withFolders([$folder], $from->folder($folder));
        }
        $to = $to->withObjects($this->objects, null);
        foreach ($from->objects as $rung => $numbers) {
            $to = $to->withObjects($numbers->shared($this->objects), Rung::from($rung));
        }
        foreach ($from->objectsAlone as $rung => $numbers) {
            $to = $to->withObjectsAlone($numbers->shared($this->objects), Rung::from($rung));
        }

        return $to;
    }
}
