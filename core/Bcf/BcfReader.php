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

    /** @return list<\DOMElement> elements of the markup, of its topic, or of the lists in either */
    private static function anywhere(\DOMElement $markup, string $name): array
    {
        $found = [];
        foreach ([$markup, ...self::children($markup, 'Topic')] as $in) {
            array_push($found, ...self::children($in, $name), ...self::children($in, $name.'s'));
            foreach (self::children($in, $name.'s') as $list) {
                array_push($found, ...self::children($list, $name));
            }
        }

        // A list is none of what it holds.
        return array_values(
            array_filter(
                $found,
                static fn (\DOMElement $one): bool => $one->localName === $name ||
                    (self::child($one, $name) === null && $one->firstElementChild !== null),
            ),
        );
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
        foreach (['Comment' => 'comment', 'DocumentReference' => 'reference to a document', 'BimSnippet' => 'snippet'] as $name => $what) {
            $this->leftOut[$what] = ($this->leftOut[$what] ?? 0) + count(self::anywhere($markup, $name));
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
        [$shows, $excepted, $selected, $colours] = $components === null ? [true, [], [], []] : self::said($components);
        foreach (self::LEFT_OUT as $name => $what) {
            $holder = self::child($info, $name);
            $single = $name === 'Bitmaps' && $holder !== null && self::child($holder, 'Bitmap') === null;
            $count = $holder === null ? 0 : ($single ? 1 : count(self::children($holder, substr($name, 0, -1))));
            $this->leftOut[$what] = ($this->leftOut[$what] ?? 0) + $count;
        }
        $named = self::wordsOf($entry, 'Snapshot');
        $snapshot = $named === '' ? null : $this->archive->find("$folder/$named");

        return new Viewpoint(
            self::guid($entry->getAttribute('Guid') ?: $info->getAttribute('Guid')),
            $this->camera($info, $path),
            $shows,
            $excepted,
            $selected,
            $colours,
            $this->cuts($info, $path),
            $snapshot === null || $this->archive->size($snapshot) > self::PART ? '' : $this->archive->bytes($snapshot),
        );
    }

    /**
     * What is said of components: in elements of their own, or as BCF 2.0 has it, in attributes of each.
     *
     * @return array{bool, list<Component>, list<Component>, list<array{string, list<Component>}>} whether what is not excepted is shown,
     *     what is excepted, selected and coloured
     */
    private static function said(\DOMElement $components): array
    {
        if (self::child($components, 'Component') !== null) {
            return self::saidByAttributes($components);
        }
        $visibility = self::child($components, 'Visibility');
        $exceptions = $visibility === null ? null : self::child($visibility, 'Exceptions');
        $selection = self::child($components, 'Selection');

        return [
            ! in_array($visibility?->getAttribute('DefaultVisibility'), ['false', '0'], true),
            $exceptions === null ? [] : self::components($exceptions),
            $selection === null ? [] : self::components($selection),
            self::colours($components),
        ];
    }

    /** @return array{bool, list<Component>, list<Component>, list<array{string, list<Component>}>} */
    private static function saidByAttributes(\DOMElement $components): array
    {
        $hidden = $selected = $colours = [];
        $is = static fn (\DOMElement $of, string $name, bool $otherwise): bool => match (strtolower(trim($of->getAttribute($name)))) {
            'true', '1' => true,
            'false', '0' => false,
            default => $otherwise,
        };
        foreach (self::children($components, 'Component') as $element) {
            $component = self::component($element);
            $code = self::colour($element->getAttribute('Color'));
            $is($element, 'Visible', true) || ($hidden[] = $component);
            ! $is($element, 'Selected', false) || ($selected[] = $component);
            $code === '' || ($colours[$code][] = $component);
        }

        $each = array_map(static fn (string|int $code): array => [(string) $code, $colours[$code]], array_keys($colours));

        return [true, $hidden, $selected, $each];
    }

    /** Six digits; "" where there is no colour. Eight begin with how opaque it is. */
    private static function colour(string $code): string
    {
        $code = strtoupper(ltrim(trim($code), '#'));
        $code = preg_match('~^[0-9A-F]{8}$~D', $code) === 1 ? substr($code, 2) : $code;

        return preg_match('~^[0-9A-F]{6}$~D', $code) === 1 ? $code : '';
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
            $code = self::colour($colour->getAttribute('Color'));
            $those = self::components(self::child($colour, 'Components') ?? $colour);
            if ($code !== '' && $those !== []) {
                $colours[] = [$code, $those];
            }
        }

        return $colours;
    }

    /** @return list<Component> */
    private static function components(\DOMElement $in): array
    {
        return array_map(self::component(...), self::children($in, 'Component'));
    }

    private static function component(\DOMElement $component): Component
    {
        return Component::read(
            $component->getAttribute('IfcGuid'),
            self::wordsOf($component, 'OriginatingSystem'),
            self::wordsOf($component, 'AuthoringToolId'),
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
        try {
            return $this->xml->root($bytes);
        } catch (UnreadableFile $reason) {
            throw UnreadableBcf::broken($path, $reason->getMessage());
        }
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
