<?php

declare(strict_types=1);

namespace VineShelf\Bcf;

use VineShelf\Formats\Archive;
use VineShelf\Formats\BoundedXml;
use VineShelf\Formats\Limits;
use VineShelf\Formats\UnreadableFile;

/**
 * Reads BCF 2.0, 2.1 and 3.0, as other programs write it: what one topic gets wrong is named and left out, the others stay.
 *
 * @phpstan-import-type Camera from Viewpoint
 */
final class BcfReader
{
    private const VERSIONS = ['2.0', '2.1', '3.0'];

    /** Bytes of one part, unpacked. */
    private const PART = 32_000_000;

    private const TOPICS = 5000;

    /** What viewpoints may hold that views have nothing for, and what it is called. */
    private const LEFT_OUT = ['Lines' => 'line', 'Bitmaps' => 'picture in the model'];

    /** @var array<string, int> how much of what was left out */
    private array $leftOut = [];

    /** @var list<string> what was not understood, a sentence each */
    private array $remarks = [];

    private readonly BoundedXml $xml;

    private function __construct(private readonly Archive $archive)
    {
        $this->xml = new BoundedXml;
    }

    /**
     * @return array{list<Topic>, list<string>} topics, and what was not understood
     *
     * @throws UnreadableBcf
     */
    public static function read(string $path, Limits $limits = new Limits): array
    {
        try {
            $archive = Archive::open($path, $limits);
        } catch (UnreadableFile $unreadable) {
            throw UnreadableBcf::because($unreadable->getMessage());
        }
        $reader = new self($archive);
        $reader->checkVersion();
        $markups = $archive->ending('markup.bcf');
        if (count($markups) > self::TOPICS) {
            throw UnreadableBcf::because(
                'The BCF has '.number_format(count($markups)).' topics, and the limit is '.number_format(self::TOPICS).'.',
            );
        }
        sort($markups);
        $topics = [];
        foreach ($markups as $markup) {
            try {
                $topics[] = $reader->topic($markup);
            } catch (UnreadableBcf $unreadable) {
                $reader->remarks[] = $unreadable->getMessage();
            }
        }

        // Where files say nothing of their order, it is that of their names.
        usort($topics, static fn (Topic $a, Topic $b): int => $a->index <=> $b->index);

        return [$topics, [...$reader->remarks, ...$reader->whatWasLeftOut()]];
    }

    /** @return list<string> */
    private function whatWasLeftOut(): array
    {
        $remarks = [];
        foreach (array_filter($this->leftOut) as $what => $count) {
            $remarks[] = number_format($count).' '.($count === 1 ? "$what was" : preg_replace('~^\w+~', '$0s', $what).' were').' left out.';
        }

        return $remarks;
    }

    /** @return list<Element> elements of the markup, of its topic, or of the lists in either */
    private static function anywhere(Element $markup, string $name): array
    {
        $found = [];
        foreach ([$markup, ...$markup->children('Topic')] as $in) {
            array_push($found, ...$in->children($name), ...$in->children($name.'s'));
            foreach ($in->children($name.'s') as $list) {
                array_push($found, ...$list->children($name));
            }
        }

        // A list is none of what it holds.
        return array_values(
            array_filter(
                $found,
                static fn (Element $one): bool => $one->name() === $name ||
                    ($one->child($name) === null && ! $one->isEmpty()),
            ),
        );
    }

    private function checkVersion(): void
    {
        $part = $this->archive->find('bcf.version') ?? throw UnreadableBcf::notBcf();
        $version = $this->part($part)->attribute('VersionId');
        if (! in_array($version, self::VERSIONS, true)) {
            throw UnreadableBcf::version($version === '' ? 'of no version' : mb_substr($version, 0, 20));
        }
    }

    private function topic(string $path): Topic
    {
        $markup = $this->part($path);
        $topic = $markup->child('Topic') ?? throw UnreadableBcf::broken($path, 'there is no topic in it');
        $folder = substr($path, 0, (int) strrpos('/'.$path, '/'));
        $labels = [];
        foreach ($topic->children('Labels') as $label) {
            $inner = array_map(static fn (Element $each): string => $each->text(), $label->children('Label'));
            array_push($labels, ...$inner === [] ? [$label->text()] : $inner);
        }
        foreach (['Comment' => 'comment', 'DocumentReference' => 'reference to a document', 'BimSnippet' => 'snippet'] as $name => $what) {
            $this->leftOut[$what] = ($this->leftOut[$what] ?? 0) + count(self::anywhere($markup, $name));
        }
        $viewpoints = [];
        $within = $topic->child('Viewpoints');
        $those = $within === null ? $markup->children('Viewpoints') : $within->children('ViewPoint');
        foreach ($those as $viewpoint) {
            $read = $this->viewpoint($folder, $viewpoint);
            if ($read !== null) {
                $viewpoints[] = $read;
            }
        }

        return new Topic(
            self::guid($topic->attribute('Guid') ?: basename($folder)),
            $topic->textOf('Title'),
            $topic->textOf('Description'),
            $topic->textOf('CreationAuthor'),
            $topic->textOf('CreationDate'),
            array_values(array_filter($labels, static fn (string $label): bool => $label !== '')),
            $viewpoints,
            (int) max(-1e9, min(1e9, $topic->numberOf('Index') ?? 0)),
        );
    }

    private function viewpoint(string $folder, Element $entry): ?Viewpoint
    {
        $name = $entry->textOf('Viewpoint') ?: 'viewpoint.bcfv';
        $path = $this->archive->find("$folder/$name");
        if ($path === null) {
            $this->remarks[] = "The viewpoint $name of a topic is not in the BCF.";

            return null;
        }
        try {
            $info = $this->part($path);
        } catch (UnreadableBcf $unreadable) {
            $this->remarks[] = $unreadable->getMessage();

            return null;
        }
        $said = ComponentStates::in($info->child('Components'));
        foreach (self::LEFT_OUT as $name => $what) {
            $holder = $info->child($name);
            $single = $name === 'Bitmaps' && $holder !== null && $holder->child('Bitmap') === null;
            $count = $holder === null ? 0 : ($single ? 1 : count($holder->children(substr($name, 0, -1))));
            $this->leftOut[$what] = ($this->leftOut[$what] ?? 0) + $count;
        }
        $named = $entry->textOf('Snapshot');
        $snapshot = $named === '' ? null : $this->archive->find("$folder/$named");

        return new Viewpoint(
            self::guid($entry->attribute('Guid') ?: $info->attribute('Guid')),
            $this->camera($info, $path),
            $said->shows,
            $said->excepted,
            $said->selected,
            $said->colours,
            $this->cuts($info, $path),
            $snapshot === null || $this->archive->size($snapshot) > self::PART ? '' : $this->archive->bytes($snapshot),
        );
    }

    /** @return Camera|null */
    private function camera(Element $info, string $path): ?array
    {
        $deep = $info->child('PerspectiveCamera');
        $camera = $deep ?? $info->child('OrthogonalCamera');
        if ($camera === null) {
            return null;
        }
        $points = [];
        foreach (['eye' => 'CameraViewPoint', 'way' => 'CameraDirection', 'up' => 'CameraUpVector'] as $what => $name) {
            $points[$what] = $camera->pointOf($name);
        }
        $number = $camera->numberOf($deep === null ? 'ViewToWorldScale' : 'FieldOfView');
        [$eye, $way, $up] = [$points['eye'], $points['way'], $points['up']];
        if ($eye === null || $way === null || $number === null || $number <= 0 || self::length($way) < 1e-9) {
            $this->remarks[] = "The camera in $path cannot be read.";

            return null;
        }

        return [
            'eye' => $eye,
            'way' => $way,
            'up' => $up ?? [0.0, 0.0, 1.0],
            'aspect' => $camera->numberOf('AspectRatio') ?? 1.5,
        ] + ($deep === null ? ['tall' => $number] : ['fov' => min(179.0, $number)]);
    }

    /** @return list<array{array{float, float, float}, array{float, float, float}}> */
    private function cuts(Element $info, string $path): array
    {
        $cuts = [];
        foreach ($info->child('ClippingPlanes')?->children('ClippingPlane') ?? [] as $plane) {
            [$through, $points] = [$plane->pointOf('Location'), $plane->pointOf('Direction')];
            if ($through === null || $points === null || self::length($points) < 1e-9) {
                $this->remarks[] = "A clipping plane in $path cannot be read.";
                continue;
            }
            $cuts[] = [$through, $points];
        }

        return $cuts;
    }

    /** The root of a part. @throws UnreadableBcf */
    private function part(string $path): Element
    {
        if ($this->archive->size($path) > self::PART) {
            throw UnreadableBcf::broken($path, 'it has more than '.intdiv(self::PART, 1_000_000).' MB');
        }
        try {
            $bytes = $this->archive->bytes($path);
        } catch (UnreadableFile $unreadable) {
            throw UnreadableBcf::because($unreadable->getMessage());
        }
        try {
            return new Element($this->xml->root($bytes));
        } catch (UnreadableFile $reason) {
            throw UnreadableBcf::broken($path, $reason->getMessage());
        }
    }

    /** @param array{float, float, float} $vector */
    private static function length(array $vector): float
    {
        return hypot($vector[0], hypot($vector[1], $vector[2]));
    }

    private static function guid(string $text): string
    {
        $text = strtolower(trim($text, " \t\n{}"));

        return preg_match('~^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$~D', $text) === 1 ? $text : '';
    }
}
