<?php

declare(strict_types=1);

namespace VineShelf\Bcf;

use VineShelf\Formats\Archive;
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
    private const PART = 64_000_000;

    private const TOPICS = 5000;

    /** @var list<string> what was not understood, a sentence each */
    private array $remarks = [];

    private function __construct(private readonly Archive $archive) {}

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

        return [$topics, $reader->remarks];
    }

    private function checkVersion(): void
    {
        $part = $this->archive->find('bcf.version') ?? throw UnreadableBcf::notBcf();
        $version = $this->part($part)->getAttribute('VersionId');
        if (! in_array($version, self::VERSIONS, true)) {
            throw UnreadableBcf::version($version === '' ? 'of no version' : mb_substr($version, 0, 20));
        }
    }

    private function topic(string $path): Topic
    {
        $markup = $this->part($path);
        $topic = self::child($markup, 'Topic') ?? throw UnreadableBcf::broken($path, 'there is no topic in it');
        $folder = substr($path, 0, (int) strrpos('/'.$path, '/'));
        $labels = [];
        foreach (self::children($topic, 'Labels') as $label) {
            $inner = array_map(self::words(...), self::children($label, 'Label'));
            array_push($labels, ...$inner === [] ? [self::words($label)] : $inner);
        }
        $viewpoints = [];
        $within = self::child($topic, 'Viewpoints');
        $those = $within === null ? self::children($markup, 'Viewpoints') : self::children($within, 'ViewPoint');
        foreach ($those as $viewpoint) {
            $read = $this->viewpoint($folder, $viewpoint);
            if ($read !== null) {
                $viewpoints[] = $read;
            }
        }

        return new Topic(
            self::guid($topic->getAttribute('Guid') ?: basename($folder)),
            self::wordsOf($topic, 'Title'),
            self::wordsOf($topic, 'Description'),
            self::wordsOf($topic, 'CreationAuthor'),
            self::wordsOf($topic, 'CreationDate'),
            array_values(array_filter($labels, static fn (string $label): bool => $label !== '')),
            $viewpoints,
            (int) max(-1e9, min(1e9, self::number(self::wordsOf($topic, 'Index')) ?? 0)),
        );
    }

    private function viewpoint(string $folder, \DOMElement $entry): ?Viewpoint
    {
        $name = self::wordsOf($entry, 'Viewpoint') ?: 'viewpoint.bcfv';
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
        $components = self::child($info, 'Components');
        $visibility = $components === null ? null : self::child($components, 'Visibility');
        $exceptions = $visibility === null ? null : self::child($visibility, 'Exceptions');
        $selection = $components === null ? null : self::child($components, 'Selection');
        $named = self::wordsOf($entry, 'Snapshot');
        $snapshot = $named === '' ? null : $this->archive->find("$folder/$named");

        return new Viewpoint(
            self::guid($entry->getAttribute('Guid') ?: $info->getAttribute('Guid')),
            $this->camera($info, $path),
            ! in_array($visibility?->getAttribute('DefaultVisibility'), ['false', '0'], true),
            $exceptions === null ? [] : self::components($exceptions),
            $selection === null ? [] : self::components($selection),
            $components === null ? [] : self::colours($components),
            $this->cuts($info, $path),
            $snapshot === null || $this->archive->size($snapshot) > self::PART ? '' : $this->archive->bytes($snapshot),
        );
    }

    /** @return Camera|null */
    private function camera(\DOMElement $info, string $path): ?array
    {
        $deep = self::child($info, 'PerspectiveCamera');
        $camera = $deep ?? self::child($info, 'OrthogonalCamera');
        if ($camera === null) {
            return null;
        }
        $points = [];
        foreach (['eye' => 'CameraViewPoint', 'way' => 'CameraDirection', 'up' => 'CameraUpVector'] as $what => $name) {
            $points[$what] = self::point($camera, $name);
        }
        $number = self::number(self::wordsOf($camera, $deep === null ? 'ViewToWorldScale' : 'FieldOfView'));
        [$eye, $way, $up] = [$points['eye'], $points['way'], $points['up']];
        if ($eye === null || $way === null || $number === null || $number <= 0 || self::length($way) < 1e-9) {
            $this->remarks[] = "The camera in $path cannot be read.";

            return null;
        }

        return [
            'eye' => $eye,
            'way' => $way,
            'up' => $up ?? [0.0, 0.0, 1.0],
            'aspect' => self::number(self::wordsOf($camera, 'AspectRatio')) ?? 1.5,
        ] + ($deep === null ? ['tall' => $number] : ['fov' => min(179.0, $number)]);
    }

    /** @return list<array{array{float, float, float}, array{float, float, float}}> */
    private function cuts(\DOMElement $info, string $path): array
    {
        $cuts = [];
        $planes = self::child($info, 'ClippingPlanes');
        foreach ($planes === null ? [] : self::children($planes, 'ClippingPlane') as $plane) {
            [$through, $points] = [self::point($plane, 'Location'), self::point($plane, 'Direction')];
            if ($through === null || $points === null || self::length($points) < 1e-9) {
                $this->remarks[] = "A clipping plane in $path cannot be read.";
                continue;
            }
            $cuts[] = [$through, $points];
        }

        return $cuts;
    }

    /** @return list<array{string, list<Component>}> */
    private static function colours(\DOMElement $components): array
    {
        $colours = [];
        $colouring = self::child($components, 'Coloring');
        foreach ($colouring === null ? [] : self::children($colouring, 'Color') as $colour) {
            $code = strtoupper(ltrim($colour->getAttribute('Color'), '#'));
            // Eight digits begin with how opaque it is.
            $code = preg_match('~^[0-9A-F]{8}$~D', $code) === 1 ? substr($code, 2) : $code;
            $those = self::components(self::child($colour, 'Components') ?? $colour);
            if (preg_match('~^[0-9A-F]{6}$~D', $code) === 1 && $those !== []) {
                $colours[] = [$code, $those];
            }
        }

        return $colours;
    }

    /** @return list<Component> */
    private static function components(\DOMElement $in): array
    {
        return array_map(
            static fn (\DOMElement $component): Component => Component::read(
                $component->getAttribute('IfcGuid'),
                self::wordsOf($component, 'OriginatingSystem'),
                self::wordsOf($component, 'AuthoringToolId'),
            ),
            self::children($in, 'Component'),
        );
    }

    /** The root of a part. @throws UnreadableBcf */
    private function part(string $path): \DOMElement
    {
        if ($this->archive->size($path) > self::PART) {
            throw UnreadableBcf::broken($path, 'it has more than '.intdiv(self::PART, 1_000_000).' MB');
        }
        try {
            $bytes = $this->archive->bytes($path);
        } catch (UnreadableFile $unreadable) {
            throw UnreadableBcf::because($unreadable->getMessage());
        }
        // Entities are how small files become large ones, and how files name others.
        if (stripos($bytes, '<!DOCTYPE') !== false) {
            throw UnreadableBcf::broken($path, 'it has a document type, which BCF has not');
        }
        $document = new \DOMDocument;
        $before = libxml_use_internal_errors(true);
        $isRead = $bytes !== '' && $document->loadXML($bytes, LIBXML_NONET | LIBXML_COMPACT);
        $error = libxml_get_last_error();
        libxml_clear_errors();
        libxml_use_internal_errors($before);
        $root = $isRead ? $document->documentElement : null;
        if ($root === null) {
            $where = $error === false ? '' : ', at line '.$error->line;
            throw UnreadableBcf::broken($path, "its XML is broken$where");
        }

        return $root;
    }

    private static function child(\DOMElement $in, string $name): ?\DOMElement
    {
        return self::children($in, $name)[0] ?? null;
    }

    /** @return list<\DOMElement> */
    private static function children(\DOMElement $in, string $name): array
    {
        $children = [];
        foreach ($in->childNodes as $child) {
            if ($child instanceof \DOMElement && $child->localName === $name) {
                $children[] = $child;
            }
        }

        return $children;
    }

    private static function wordsOf(\DOMElement $in, string $name): string
    {
        $child = self::child($in, $name);

        return $child === null ? '' : self::words($child);
    }

    private static function words(\DOMElement $element): string
    {
        return trim($element->textContent);
    }

    /** @return array{float, float, float}|null metres */
    private static function point(\DOMElement $in, string $name): ?array
    {
        $point = self::child($in, $name);
        $numbers =
            $point === null
                ? []
                : array_map(static fn (string $axis): ?float => self::number(self::wordsOf($point, $axis)), ['X', 'Y', 'Z']);
        [$x, $y, $z] = $numbers + [null, null, null];

        return $x === null || $y === null || $z === null ? null : [$x, $y, $z];
    }

    private static function number(string $text): ?float
    {
        return is_numeric($text) && is_finite((float) $text) && abs((float) $text) < 1e12 ? (float) $text : null;
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
