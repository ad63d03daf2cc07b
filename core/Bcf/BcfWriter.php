<?php

declare(strict_types=1);

namespace VineShelf\Bcf;

/**
 * Writes BCF 2.1 and 3.0, after the schemas of buildingSMART International (version.xsd, project.xsd, extensions.xsd, markup.xsd,
 * visinfo.xsd).
 *
 * @phpstan-import-type Camera from Viewpoint
 */
final class BcfWriter
{
    /** What a topic says of its kind and state, where the format wants to know. */
    private const TYPE = 'View';

    private const STATUS = 'Active';

    private function __construct(private readonly Version $version) {}

    /**
     * @param iterable<Topic> $topics
     * @param string          $project what the project is called
     * @param string          $guid    of the project, lower case, with dashes
     * @param string          $path    of a file that is made, or written over
     *
     * @throws UnableToWriteBcf
     */
    public static function write(iterable $topics, Version $version, string $project, string $guid, string $path): void
    {
        $beside = $path.'.part-'.bin2hex(random_bytes(6));
        $zip = new \ZipArchive;
        if (@$zip->open($beside, \ZipArchive::CREATE | \ZipArchive::EXCL) !== true) {
            throw UnableToWriteBcf::to($path);
        }
        try {
            (new self($version))->fill($zip, $topics, $project, $guid);
        } catch (\Throwable $fault) {
            // A zip that is let go of is written all the same, unless nothing is to change.
            $zip->unchangeAll();
            @$zip->close();
            is_file($beside) && @unlink($beside);

            throw $fault;
        }
        if (! @$zip->close() || ! @rename($beside, $path)) {
            is_file($beside) && @unlink($beside);

            throw UnableToWriteBcf::to($path);
        }
    }

    /** @param iterable<Topic> $topics */
    private function fill(\ZipArchive $zip, iterable $topics, string $project, string $guid): void
    {
        $authors = $labels = [];
        $zip->addFromString('bcf.version', $this->versionPart());
        $zip->addFromString('project.bcfp', $this->projectPart($project, $guid));
        foreach ($topics as $topic) {
            $authors[$topic->author] = true;
            $labels += array_fill_keys($topic->labels, true);
            $zip->addFromString("$topic->guid/markup.bcf", $this->markup($topic));
            foreach ($topic->viewpoints as $at => $viewpoint) {
                $zip->addFromString("$topic->guid/".self::name($at).'.bcfv', $this->viewpoint($viewpoint));
                if ($viewpoint->snapshot !== '') {
                    $zip->addFromString("$topic->guid/".self::snapshot($at), $viewpoint->snapshot);
                }
            }
        }
        if ($this->version === Version::V30) {
            $zip->addFromString(
                'extensions.xml',
                $this->extensions(array_map(strval(...), array_keys($labels)), array_map(strval(...), array_keys($authors))),
            );
        }
    }

    /** The first viewpoint of a topic has the name that readers look for where markup names none. */
    private static function name(int $at): string
    {
        return $at === 0 ? 'viewpoint' : 'viewpoint'.($at + 1);
    }

    private static function snapshot(int $at): string
    {
        return $at === 0 ? 'snapshot.png' : 'snapshot'.($at + 1).'.png';
    }

    private function versionPart(): string
    {
        return $this->document('Version', ['VersionId' => $this->version->value], function (\XMLWriter $xml): void {
            if ($this->version === Version::V21) {
                self::text($xml, 'DetailedVersion', $this->version->value);
            }
        });
    }

    private function projectPart(string $name, string $guid): string
    {
        $root = $this->version === Version::V21 ? 'ProjectExtension' : 'ProjectInfo';

        return $this->document($root, [], function (\XMLWriter $xml) use ($name, $guid): void {
            self::element($xml, 'Project', ['ProjectId' => $guid], static fn () => self::text($xml, 'Name', $name));
            if ($this->version === Version::V21) {
                self::text($xml, 'ExtensionSchema', '');
            }
        });
    }

    /**
     * @param list<string> $labels
     * @param list<string> $authors
     */
    private function extensions(array $labels, array $authors): string
    {
        return $this->document('Extensions', [], static function (\XMLWriter $xml) use ($labels, $authors): void {
            self::element($xml, 'TopicTypes', [], static fn () => self::text($xml, 'TopicType', self::TYPE));
            self::element($xml, 'TopicStatuses', [], static fn () => self::text($xml, 'TopicStatus', self::STATUS));
            self::element($xml, 'TopicLabels', [], static function () use ($xml, $labels): void {
                foreach ($labels as $label) {
                    self::text($xml, 'TopicLabel', $label);
                }
            });
            self::element($xml, 'Users', [], static function () use ($xml, $authors): void {
                foreach ($authors as $author) {
                    self::text($xml, 'User', $author);
                }
            });
        });
    }

    private function markup(Topic $topic): string
    {
        $isNew = $this->version === Version::V30;

        return $this->document('Markup', [], function (\XMLWriter $xml) use ($topic, $isNew): void {
            $attributes = ['Guid' => $topic->guid, 'TopicType' => self::TYPE, 'TopicStatus' => self::STATUS];
            self::element($xml, 'Topic', $attributes, function () use ($xml, $topic, $isNew): void {
                self::text($xml, 'Title', trim($topic->title) === '' ? 'Untitled' : $topic->title);
                self::text($xml, 'Index', (string) $topic->index);
                $labels = static function () use ($xml, $topic, $isNew): void {
                    foreach ($topic->labels as $label) {
                        self::text($xml, $isNew ? 'Label' : 'Labels', $label);
                    }
                };
                if ($topic->labels !== []) {
                    $isNew ? self::element($xml, 'Labels', [], $labels) : $labels();
                }
                self::text($xml, 'CreationDate', $topic->created);
                self::text($xml, 'CreationAuthor', $topic->author);
                if (trim($topic->description) !== '') {
                    self::text($xml, 'Description', $topic->description);
                }
                if ($isNew && $topic->viewpoints !== []) {
                    self::element($xml, 'Viewpoints', [], fn () => $this->viewpoints($xml, $topic, 'ViewPoint'));
                }
            });
            if (! $isNew) {
                $this->viewpoints($xml, $topic, 'Viewpoints');
            }
        });
    }

    private function viewpoints(\XMLWriter $xml, Topic $topic, string $element): void
    {
        foreach ($topic->viewpoints as $at => $viewpoint) {
            self::element($xml, $element, ['Guid' => $viewpoint->guid], static function () use ($xml, $viewpoint, $at): void {
                self::text($xml, 'Viewpoint', self::name($at).'.bcfv');
                if ($viewpoint->snapshot !== '') {
                    self::text($xml, 'Snapshot', self::snapshot($at));
                }
                self::text($xml, 'Index', (string) $at);
            });
        }
    }

    private function viewpoint(Viewpoint $viewpoint): string
    {
        return $this->document('VisualizationInfo', ['Guid' => $viewpoint->guid], function (\XMLWriter $xml) use ($viewpoint): void {
            self::element($xml, 'Components', [], function () use ($xml, $viewpoint): void {
                if ($viewpoint->selected !== []) {
                    self::element($xml, 'Selection', [], static fn () => self::components($xml, $viewpoint->selected));
                }
                $this->visibility($xml, $viewpoint);
                if ($viewpoint->colours !== []) {
                    self::element($xml, 'Coloring', [], fn () => $this->colours($xml, $viewpoint));
                }
            });
            if ($viewpoint->camera !== null) {
                $this->camera($xml, $viewpoint->camera);
            }
            if ($viewpoint->cuts !== []) {
                self::element($xml, 'ClippingPlanes', [], static function () use ($xml, $viewpoint): void {
                    foreach ($viewpoint->cuts as [$through, $points]) {
                        self::element($xml, 'ClippingPlane', [], static function () use ($xml, $through, $points): void {
                            self::point($xml, 'Location', $through);
                            self::point($xml, 'Direction', $points);
                        });
                    }
                });
            }
        });
    }

    private function visibility(\XMLWriter $xml, Viewpoint $viewpoint): void
    {
        $shows = ['DefaultVisibility' => $viewpoint->shows ? 'true' : 'false'];
        self::element($xml, 'Visibility', $shows, static function () use ($xml, $viewpoint): void {
            if ($viewpoint->excepted !== []) {
                self::element($xml, 'Exceptions', [], static fn () => self::components($xml, $viewpoint->excepted));
            }
        });
    }

    private function colours(\XMLWriter $xml, Viewpoint $viewpoint): void
    {
        foreach ($viewpoint->colours as [$colour, $those]) {
            if ($those === []) {
                continue;
            }
            self::element($xml, 'Color', ['Color' => $colour], function () use ($xml, $those): void {
                $components = static fn () => self::components($xml, $those);
                $this->version === Version::V30 ? self::element($xml, 'Components', [], $components) : $components();
            });
        }
    }

    /** @param Camera $camera */
    private function camera(\XMLWriter $xml, array $camera): void
    {
        $tall = $camera['tall'] ?? null;
        $kind = $tall === null ? 'PerspectiveCamera' : 'OrthogonalCamera';
        self::element($xml, $kind, [], function () use ($xml, $camera, $tall): void {
            self::point($xml, 'CameraViewPoint', $camera['eye']);
            self::point($xml, 'CameraDirection', $camera['way']);
            self::point($xml, 'CameraUpVector', $camera['up']);
            $tall === null
                ? self::text($xml, 'FieldOfView', self::number($this->version->field($camera['fov'] ?? 60.0)))
                : self::text($xml, 'ViewToWorldScale', self::number($tall));
            if ($this->version === Version::V30) {
                self::text($xml, 'AspectRatio', self::number(max(0.01, $camera['aspect'])));
            }
        });
    }

    /** @param list<Component> $those */
    private static function components(\XMLWriter $xml, array $those): void
    {
        foreach ($those as $component) {
            self::element($xml, 'Component', $component->ifc === '' ? [] : ['IfcGuid' => $component->ifc], static function () use (
                $xml,
                $component,
            ): void {
                if ($component->system !== '') {
                    self::text($xml, 'OriginatingSystem', $component->system);
                }
                if ($component->key !== '') {
                    self::text($xml, 'AuthoringToolId', $component->key);
                }
            });
        }
    }

    /** @param array{float, float, float} $point */
    private static function point(\XMLWriter $xml, string $name, array $point): void
    {
        self::element($xml, $name, [], static function () use ($xml, $point): void {
            foreach (['X', 'Y', 'Z'] as $axis => $letter) {
                self::text($xml, $letter, self::number($point[$axis]));
            }
        });
    }

    /** As xs:double wants it, whatever the locale. */
    private static function number(float $number): string
    {
        return rtrim(rtrim(sprintf('%.9F', is_finite($number) ? $number : 0.0), '0'), '.') ?: '0';
    }

    /** @param array<string, string> $attributes */
    private function document(string $root, array $attributes, \Closure $fill): string
    {
        $xml = new \XMLWriter;
        $xml->openMemory();
        $xml->setIndent(true);
        $xml->startDocument('1.0', 'UTF-8');
        self::element($xml, $root, $attributes, static fn () => $fill($xml));
        $xml->endDocument();

        return $xml->outputMemory();
    }

    /** @param array<string, string> $attributes */
    private static function element(\XMLWriter $xml, string $name, array $attributes, \Closure $fill): void
    {
        $xml->startElement($name);
        foreach ($attributes as $attribute => $value) {
            $xml->writeAttribute($attribute, self::clean($value));
        }
        $fill();
        $xml->endElement();
    }

    private static function text(\XMLWriter $xml, string $name, string $text): void
    {
        $xml->startElement($name);
        $xml->text(self::clean($text));
        $xml->endElement();
    }

    /** XML has no place for control characters, not even for those that are escaped. */
    private static function clean(string $text): string
    {
        $text = mb_scrub($text, 'UTF-8');

        return (string) preg_replace('~[^\x{9}\x{A}\x{D}\x{20}-\x{D7FF}\x{E000}-\x{FFFD}\x{10000}-\x{10FFFF}]~u', "\u{FFFD}", $text);
    }
}
