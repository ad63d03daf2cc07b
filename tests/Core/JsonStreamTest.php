<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\CountedBytes;
use VineShelf\Formats\BytesInMemory;
use VineShelf\Formats\Gltf\JsonStream;
use VineShelf\Formats\Gltf\Lifted;
use VineShelf\Formats\Limits;
use VineShelf\Formats\UnreadableFile;

/** Documents that are written at random, in every way that JSON can be written in, against the language's own reader. */
final class JsonStreamTest extends TestCase
{
    private const STREAMED = ['nodes', 'meshes'];

    /** @return iterable<string, array{int}> */
    public static function seeds(): iterable
    {
        foreach (range(1, 12) as $seed) {
            yield "seed $seed" => [$seed];
        }
    }

    #[DataProvider('seeds')]
    public function test_a_document_is_what_the_languages_own_reader_says(int $seed): void
    {
        mt_srand($seed);
        $document = $this->document();
        $whole = json_decode($document, true, 512, JSON_THROW_ON_ERROR);
        self::assertIsArray($whole);

        $bytes = new CountedBytes($document);
        self::assertEquals($whole, self::gather(new JsonStream($bytes, new Limits)));
        // Windows follow on each other; only marks on their edges are read twice.
        self::assertLessThan(strlen($document) * 1.01, $bytes->read);
    }

    #[DataProvider('seeds')]
    public function test_long_data_is_lifted_out_and_everything_else_stays(int $seed): void
    {
        mt_srand($seed);
        $data = [];
        $buffers = [];
        foreach (range(1, mt_rand(1, 5)) as $which) {
            // Some below the length from which data is lifted, some across several windows.
            $data[$which] = random_bytes([100, 48_000, 50_000, 900_000, 3_000_000][mt_rand(0, 4)]);
            $uri = 'data:application/octet-stream;base64,'.base64_encode($data[$which]);
            $buffers[] =
                '{"byteLength":'.strlen($data[$which]).', "uri" : "'.(mt_rand(0, 1) ? str_replace('/', '\/', $uri) : $uri).'"}';
        }
        $document = $this->document(',"buffers": ['.implode(',', $buffers).']');
        $bytes = new BytesInMemory($document);
        $lifted = new Lifted($bytes);
        $found = self::gather(new JsonStream($bytes, new Limits, $lifted));
        $whole = json_decode($document, true, 512, JSON_THROW_ON_ERROR);
        self::assertIsArray($whole);
        self::assertIsArray($found['buffers']);
        foreach (array_values($data) as $at => $expected) {
            $uri = $found['buffers'][$at]['uri'];
            self::assertSame(strlen(base64_encode($expected)) > Lifted::LONG, $lifted->has($uri));
            $there = $lifted->has($uri)
                ? $lifted->bytes($uri)->read(0, $lifted->bytes($uri)->size())
                : base64_decode(substr($uri, (int) strpos($uri, ',') + 1), true);
            self::assertSame(md5($expected), md5((string) $there));
        }
        unset($found['buffers'], $whole['buffers']);
        self::assertEquals($whole, $found);
    }

    #[DataProvider('seeds')]
    public function test_a_document_that_is_cut_anywhere_ends_in_a_sentence(int $seed): void
    {
        mt_srand($seed);
        $document = rtrim($this->document());
        foreach (range(1, 6) as $_) {
            try {
                self::gather(new JsonStream(new BytesInMemory(substr($document, 0, mt_rand(0, strlen($document) - 1))), new Limits));
                self::fail('half a document was read');
            } catch (UnreadableFile $error) {
                self::assertStringContainsString('JSON', $error->getMessage());
            }
        }
    }

    /** @return array<mixed> */
    private static function gather(JsonStream $stream): array
    {
        $found = [];
        foreach ($stream->members(self::STREAMED) as [$name, $value]) {
            if (in_array($name, self::STREAMED, true)) {
                $found[$name][] = $value;
            } else {
                $found[$name] = $value;
            }
        }

        return $found;
    }

    /** More than one window of it, so that windows end within whatever stands there. */
    private function document(string $more = ''): string
    {
        $text = $this->space().'{';
        foreach (['asset', 'nodes', 'extras', 'meshes', 'scene'] as $at => $name) {
            $value = in_array($name, self::STREAMED, true) ? $this->objects(mt_rand(1, 4) * 160_000) : $this->value(4);
            $text .= ($at === 0 ? '' : ',').$this->space().'"'.$name.'"'.$this->space().':'.$this->space().$value;
        }

        return $text.$this->space().$more.'}'.$this->space();
    }

    private function objects(int $bytes): string
    {
        $text = '['.$this->object(2);
        while (strlen($text) < $bytes) {
            $text .= $this->space().','.$this->space().$this->object(mt_rand(0, 9) === 0 ? 5 : 2);
        }

        return $text.$this->space().']';
    }

    private function object(int $depth): string
    {
        $members = [];
        for ($left = mt_rand(0, 5); $left > 0; $left--) {
            $members[] = $this->text().$this->space().':'.$this->space().$this->value($depth - 1);
        }

        return '{'.implode($this->space().','.$this->space(), $members).'}';
    }

    private function value(int $depth): string
    {
        return match (mt_rand($depth <= 0 ? 2 : 0, 6)) {
            0 => $this->object($depth),
            1 => '['.
                implode(',', array_map(fn (): string => $this->space().$this->value($depth - 1), array_fill(0, mt_rand(0, 4), 0))).
                $this->space().
                ']',
            2 => $this->number(),
            3 => ['true', 'false', 'null'][mt_rand(0, 2)],
            default => $this->text(),
        };
    }

    private function number(): string
    {
        return [mt_rand(-9, 9), mt_rand(), '-0.5', '1e3', '2.5E-7', '1.0', '0', '-0', '12345678901234567890', mt_rand() / 7][
            mt_rand(0, 9)
        ].'';
    }

    private function text(): string
    {
        $pieces = [
            'a',
            'Tür',
            '{',
            '}',
            '[',
            ']',
            ',',
            ':',
            '\"',
            '\\\\',
            '\/',
            '\n',
            '\u00e9',
            '\ud83d\ude00',
            '漢',
            'data:',
            ' ',
            '\\\\u0041',
        ];
        $text = '';
        for ($left = mt_rand(0, 1) * mt_rand(0, 9); $left > 0; $left--) {
            $text .= $pieces[mt_rand(0, count($pieces) - 1)];
        }

        return '"'.$text.'"';
    }

    private function space(): string
    {
        return ['', '', '', ' ', "\n", "\r\n\t", str_repeat(' ', mt_rand(0, 90))][mt_rand(0, 6)];
    }
}
