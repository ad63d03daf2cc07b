<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\TestWith;
use PHPUnit\Framework\TestCase;
use VineShelf\Bcf\BcfReader;
use VineShelf\Bcf\BcfWriter;
use VineShelf\Bcf\Component;
use VineShelf\Bcf\Topic;
use VineShelf\Bcf\UnableToWriteBcf;
use VineShelf\Bcf\UnreadableBcf;
use VineShelf\Bcf\Version;
use VineShelf\Bcf\Viewpoint;
use VineShelf\Formats\BoundedXml;
use VineShelf\Formats\UnreadableFile;

/** What is written as BCF is what the standard prescribes and reads back the same; broken files end in a sentence. */
final class BcfTest extends TestCase
{
    private const GUID = '0f8fad5b-d9cb-469f-a165-70867728950e';

    private string $file;

    protected function setUp(): void
    {
        $this->file = (string) tempnam(sys_get_temp_dir(), 'bcf');
    }

    protected function tearDown(): void
    {
        unlink($this->file);
    }

    public function test_what_bcf_2_0_says_of_each_component_is_read_and_the_rest_is_said(): void
    {
        $one = static fn (string $attributes, int $key): string => "<Component $attributes>".
            "<AuthoringToolId>$key</AuthoringToolId></Component>";
        $this->zip([
            'bcf.version' => '<Version VersionId="2.0"/>',
            'A/markup.bcf' =>
                '<Markup><Topic Guid="0f8fad5b-d9cb-469f-a165-70867728950e"><Title>Old</Title>'.
                '<DocumentReferences><Description>x</Description></DocumentReferences></Topic><Comment Guid="a"/><Comment Guid="b"/>'.
                '<Viewpoints Guid="0f8fad5b-d9cb-469f-a165-70867728950f"><Viewpoint>v.bcfv</Viewpoint></Viewpoints></Markup>',
            'A/v.bcfv' =>
                '<VisualizationInfo><Components>'.$one('Selected="true" Color="00ff00"', 1).$one('Visible="false"', 2).
                $one('Visible="0" Selected="1" Color="FF00FF00"', 3).$one('', 4).$one('Color="x"', 5).'</Components>'.
                '<Lines><Line/><Line/></Lines><Bitmaps><Bitmap>PNG</Bitmap></Bitmaps></VisualizationInfo>',
        ]);
        [[$topic], $remarks] = BcfReader::read($this->file);
        $viewpoint = $topic->viewpoints[0];
        $keys = static fn (array $those): array => array_map(static fn (Component $one): string => $one->key, $those);
        self::assertTrue($viewpoint->shows);
        self::assertSame([['2', '3'], ['1', '3']], [$keys($viewpoint->excepted), $keys($viewpoint->selected)]);
        self::assertSame(['00FF00'], array_column($viewpoint->colours, 0));
        self::assertSame(['1', '3'], $keys($viewpoint->colours[0][1]));
        self::assertSame(
            [
                '2 comments were left out.',
                '1 reference to a document was left out.',
                '2 lines were left out.',
                '1 picture in the model was left out.',
            ],
            $remarks,
        );
    }

    public function test_small_files_stay_small(): void
    {
        $markup = '<Markup><Topic Guid="0f8fad5b-d9cb-469f-a165-70867728950e"><Title>x</Title></Topic>'.
            '<Viewpoints Guid="0f8fad5b-d9cb-469f-a165-70867728950f"><Viewpoint>v.bcfv</Viewpoint></Viewpoints></Markup>';
        $many = '<VisualizationInfo><Components><Visibility><Exceptions>'.str_repeat('<Component/>', 450_000).
            '</Exceptions></Visibility></Components></VisualizationInfo>';
        $deep = str_repeat('<a>', 5000).str_repeat('</a>', 5000);
        $bomb = '<!DOCTYPE a [<!ENTITY b "x">]><Markup><Topic><Title>&b;</Title></Topic></Markup>';
        foreach (
            [
                'more than 400,000 elements' => ['A/markup.bcf' => $markup, 'A/v.bcfv' => $many],
                'lie more than 60 deep' => ['A/markup.bcf' => "<Markup>$deep</Markup>"],
                'has a document type' => ['A/markup.bcf' => $bomb],
                'it has a document type' => [
                    'A/markup.bcf' => "\xFF\xFE".mb_convert_encoding('<?xml version="1.0" encoding="UTF-16"?>'.$bomb, 'UTF-16LE', 'UTF-8'),
                ],
            ] as $says => $parts
        ) {
            $this->zip(['bcf.version' => '<Version VersionId="2.1"/>'] + $parts);
            try {
                self::assertStringContainsString($says, implode(' ', BcfReader::read($this->file)[1]));
            } catch (UnreadableBcf $reason) {
                self::assertStringContainsString('unpacks to too much', $reason->getMessage());
            }
        }
        // What each part may have counts in sum.
        $xml = new BoundedXml(100, 150, 5000);
        $xml->root('<a>'.str_repeat('<b/>', 90).'</a>');
        $large = ['more than 150 elements' => str_repeat('<b/>', 90), 'more than 0 MB' => str_repeat('x', 5000)];
        foreach ($large as $says => $part) {
            try {
                $xml->root("<a>$part</a>");
                self::fail('It was read.');
            } catch (UnreadableFile $reason) {
                self::assertStringContainsString($says, $reason->getMessage());
            }
        }
    }

    public function test_only_what_a_file_gives_as_identity_is_a_guid(): void
    {
        self::assertSame('2O2Fr$t4X7Zf8NOew3FLOH', Component::ifcOf('=2O2Fr$t4X7Zf8NOew3FLOH'));
        self::assertSame('', Component::ifcOf('2nd_floor_slab_north_1'), 'a name of 22 letters');
        self::assertSame('2nd_floor_slab_north_1', Component::of('2nd_floor_slab_north_1', 'hall.glb')->key);
    }

    public function test_what_cannot_be_written_leaves_what_stood_there_and_nothing_beside_it(): void
    {
        file_put_contents($this->file, 'as it was');
        $topics = (function (): \Generator {
            yield $this->topic(Version::V30, 0);
            throw new \DomainException('no picture');
        })();
        try {
            BcfWriter::write($topics, Version::V30, 'Hall', self::GUID, $this->file);
            self::fail('It was written.');
        } catch (\DomainException) {
            self::assertSame('as it was', file_get_contents($this->file));
        }
        self::assertSame([$this->file], glob("$this->file*"));
        $this->expectException(UnableToWriteBcf::class);
        BcfWriter::write([], Version::V30, 'Hall', self::GUID, '/proc/no such folder/hall.bcf');
    }

    #[TestWith([Version::V21])]
    #[TestWith([Version::V30])]
    public function test_random_topics_follow_the_schemas_and_are_read_back_the_same(Version $version): void
    {
        mt_srand(3);
        for ($round = 0; $round < 25; $round++) {
            $topics = array_map(fn (int $index): Topic => $this->topic($version, $index), range(0, mt_rand(0, 4)));
            BcfWriter::write($topics, $version, 'Marlpit & <Baths>', self::GUID, $this->file);
            $this->assertFollowsSchemas($version);
            [$read, $remarks] = BcfReader::read($this->file);
            self::assertSame([], $remarks);
            self::assertEquals($topics, $read);
        }
    }

    public function test_a_file_as_others_write_it_is_read(): void
    {
        $this->zip([
            'bcf.version' => '<Version VersionId="2.0"/>',
            'A/markup.bcf' =>
                '<?xml version="1.0"?><Markup xmlns:x="urn:x"><Header/><Topic Guid="{0F8FAD5B-D9CB-469F-A165-70867728950E}">'.
                '<Title> Door &amp; frame </Title><Labels>Doors</Labels><Labels>Late</Labels><Unknown/></Topic><Comment Guid="x"/>'.
                '<Viewpoints Guid="0f8fad5b-d9cb-469f-a165-70867728950f"><Viewpoint>VIEW.bcfv</Viewpoint></Viewpoints>'.
                '<Viewpoints Guid="0f8fad5b-d9cb-469f-a165-708677289510"><Viewpoint>gone.bcfv</Viewpoint></Viewpoints></Markup>',
            'A/view.bcfv' =>
                '<VisualizationInfo Guid="x"><Components><Visibility DefaultVisibility="false"><Exceptions>'.
                '<Component IfcGuid="2O2Fr$t4X7Zf8NOew3FLOH"/><Component IfcGuid="short"><AuthoringToolId>77</AuthoringToolId></Component>'.
                '</Exceptions></Visibility><Coloring><Color Color="80FF0000"><Component IfcGuid="2O2Fr$t4X7Zf8NOew3FLOH"/></Color>'.
                '<Color Color="red"><Component IfcGuid="2O2Fr$t4X7Zf8NOew3FLOH"/></Color></Coloring></Components>'.
                '<OrthogonalCamera><CameraViewPoint><X>1</X><Y>2e1</Y><Z>-3</Z></CameraViewPoint><CameraDirection><X>0</X><Y>1</Y><Z>0</Z>'.
                '</CameraDirection><ViewToWorldScale>8.5</ViewToWorldScale></OrthogonalCamera><ClippingPlanes><ClippingPlane>'.
                '<Location><X>0</X><Y>0</Y><Z>2</Z></Location><Direction><X>0</X><Y>0</Y><Z>0</Z></Direction></ClippingPlane>'.
                '</ClippingPlanes>'.
                '</VisualizationInfo>',
            'B/markup.bcf' => '<Markup><Topic',
        ]);
        [$topics, $remarks] = BcfReader::read($this->file);
        self::assertCount(1, $topics);
        self::assertSame(['Door & frame', self::GUID, ['Doors', 'Late']], [$topics[0]->title, $topics[0]->guid, $topics[0]->labels]);
        $view = $topics[0]->viewpoints[0];
        self::assertSame([false, 2, 1, 'FF0000'], [$view->shows, count($view->excepted), count($view->colours), $view->colours[0][0]]);
        self::assertSame(['', '77'], [$view->excepted[1]->ifc, $view->excepted[1]->key]);
        self::assertEquals(['eye' => [1, 20, -3], 'way' => [0, 1, 0], 'up' => [0, 0, 1], 'aspect' => 1.5, 'tall' => 8.5], $view->camera);
        self::assertCount(4, $remarks, implode(' ', $remarks));
    }

    /** @param array<string, string> $parts */
    #[TestWith([['readme.txt' => 'x'], 'a zip that holds bcf.version'])]
    #[TestWith([['bcf.version' => '<Version VersionId="9"/>'], 'BCF 9'])]
    #[TestWith([['bcf.version' => '<Version VersionId='], 'XML is broken'])]
    #[TestWith([['bcf.version' => '<!DOCTYPE v [<!ENTITY a "x">]><Version VersionId="&a;"/>'], 'document type'])]
    #[TestWith([['../bcf.version' => '<Version VersionId="2.1"/>'], 'climbs out of its folder'])]
    public function test_what_is_no_bcf_says_so(array $parts, string $says): void
    {
        $this->zip($parts);
        $this->expectException(UnreadableBcf::class);
        $this->expectExceptionMessage($says);
        BcfReader::read($this->file);
    }

    public function test_any_bytes_end_in_topics_or_in_one_sentence(): void
    {
        mt_srand(9);
        BcfWriter::write([$this->topic(Version::V30), $this->topic(Version::V30)], Version::V30, 'Hall', self::GUID, $this->file);
        $whole = (string) file_get_contents($this->file);
        $unreadable = 0;
        for ($round = 0; $round < 300; $round++) {
            $bytes = mt_rand(0, 2) === 0 ? substr($whole, 0, mt_rand(0, strlen($whole))) : $whole;
            for ($flip = mt_rand(0, 6); $flip > 0 && $bytes !== ''; $flip--) {
                $bytes[mt_rand(0, strlen($bytes) - 1)] = chr(mt_rand(0, 255));
            }
            file_put_contents($this->file, $bytes);
            try {
                self::assertLessThanOrEqual(2, count(BcfReader::read($this->file)[0]));
            } catch (UnreadableBcf $sentence) {
                self::assertStringEndsWith('.', $sentence->getMessage());
                $unreadable++;
            }
        }
        self::assertGreaterThan(60, $unreadable);
    }

    private function assertFollowsSchemas(Version $version): void
    {
        $zip = new \ZipArchive;
        self::assertTrue($zip->open($this->file) === true);
        for ($at = 0; $at < $zip->numFiles; $at++) {
            $name = (string) $zip->getNameIndex($at);
            $schema = match (true) {
                str_ends_with($name, 'bcf.version') => 'version',
                str_ends_with($name, '.bcfp') => 'project',
                str_ends_with($name, '.bcf') => 'markup',
                str_ends_with($name, '.bcfv') => 'visinfo',
                str_ends_with($name, 'extensions.xml') => 'extensions',
                default => null,
            };
            if ($schema === null) {
                continue;
            }
            $document = new \DOMDocument;
            self::assertTrue($document->loadXML((string) $zip->getFromIndex($at)), $name);
            self::assertTrue($document->schemaValidate(__DIR__."/schemas/bcf-$version->value/$schema.xsd"), $name);
        }
    }

    /** @param array<string, string> $parts */
    private function zip(array $parts): void
    {
        $zip = new \ZipArchive;
        $zip->open($this->file, \ZipArchive::CREATE | \ZipArchive::OVERWRITE);
        foreach ($parts as $name => $bytes) {
            $zip->addFromString($name, $bytes);
        }
        $zip->close();
    }

    private function topic(Version $version, int $index = 0): Topic
    {
        $words = ['Hall', 'Stände & “Sitze”', "two\nlines", '<b>bold</b>', 'x'];
        $viewpoints = array_map(fn (): Viewpoint => $this->viewpoint($version), range(1, mt_rand(1, 3)));

        return new Topic(
            self::guid(),
            $words[array_rand($words)],
            [...$words, ''][mt_rand(0, 5)],
            'ida@marlpit.example',
            '2026-11-27T08:00:00+00:00',
            mt_rand(0, 1) === 0 ? [] : ['Client', 'Öffentlich'],
            $viewpoints,
            $index,
        );
    }

    private function viewpoint(Version $version): Viewpoint
    {
        $vector = static fn (): array => [mt_rand(-5000, 5000) / 8, mt_rand(-5000, 5000) / 8, mt_rand(1, 5000) / 8];
        $components = static fn (int $least): array => array_map(
            static fn (): Component => mt_rand(0, 1) === 0
                ? Component::of('=2O2Fr$t4X7Zf8NOew3FL'.mt_rand(10, 99), 'hall.ifc')
                : Component::of('Hall/Roof/Beam '.mt_rand(1, 99), 'hall.glb'),
            $least === 0 && mt_rand(0, 1) === 0 ? [] : range(1, mt_rand(1, 5)),
        );
        $lens = mt_rand(0, 1) === 0 ? ['tall' => mt_rand(1, 99) / 4] : ['fov' => mt_rand(180, 240) / 4];
        $aspect = $version === Version::V30 ? mt_rand(1, 9) / 4 : 1.5;
        $hasCamera = $version === Version::V30 || mt_rand(0, 2) > 0;

        return new Viewpoint(
            self::guid(),
            $hasCamera ? ['eye' => $vector(), 'way' => $vector(), 'up' => $vector(), 'aspect' => $aspect] + $lens : null,
            mt_rand(0, 1) === 0,
            $components(0),
            $components(0),
            mt_rand(0, 1) === 0 ? [] : [['3F6F9A', $components(1)], ['B8742A', $components(1)]],
            mt_rand(0, 1) === 0 ? [] : [[$vector(), $vector()], [$vector(), $vector()]],
            mt_rand(0, 1) === 0 ? '' : "\x89PNG\r\n\x1a\nrest",
        );
    }

    private static function guid(): string
    {
        $hex = bin2hex(pack('N4', mt_rand(), mt_rand(), mt_rand(), mt_rand()));

        return implode('-', [substr($hex, 0, 8), substr($hex, 8, 4), substr($hex, 12, 4), substr($hex, 16, 4), substr($hex, 20)]);
    }
}
