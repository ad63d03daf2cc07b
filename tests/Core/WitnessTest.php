<?php

declare(strict_types=1);

namespace Tests\Core;

use MarlpitBaths\MarlpitBaths;
use PHPUnit\Framework\TestCase;
use Tests\Core\Support\CountedBytes;
use Tests\Core\Support\Gltf;
use Tests\Core\Support\Node;
use VineShelf\Formats\Files;
use VineShelf\Formats\Gltf\Accessor;
use VineShelf\Formats\Gltf\Buffers;
use VineShelf\Formats\Gltf\BufferView;
use VineShelf\Formats\Gltf\Meshopt;
use VineShelf\Geometry\PackWriter;

/** What other programs say about the same bytes. */
final class WitnessTest extends TestCase
{
    public function test_compressed_views_unpack_as_the_public_decoder_unpacks_them(): void
    {
        $cases = Node::run('meshopt.mjs');
        self::assertGreaterThan(24, count($cases));
        foreach ($cases as $index => $case) {
            \assert(is_array($case));
            $plain = (string) base64_decode($case['plain'], true);
            $unpacked = Meshopt::decode(
                (string) base64_decode($case['packed'], true),
                $case['count'],
                $case['stride'],
                $case['mode'],
                $case['filter'],
            );
            $which = "case $index: {$case['mode']}, {$case['filter']}, {$case['count']} of {$case['stride']} bytes";
            self::assertSame(strlen($plain), strlen($unpacked), $which);
            if ($case['filter'] === 'OCTAHEDRAL' || $case['filter'] === 'QUATERNION') {
                // The filters end in a rounding; one step either way is the same direction.
                $format = $case['stride'] === 4 ? 'c*' : 's*';
                $actual = array_values((array) unpack($format, $unpacked));
                foreach (array_values((array) unpack($format, $plain)) as $at => $expected) {
                    self::assertEqualsWithDelta($expected, $actual[$at], 1, $which);
                }
            } else {
                self::assertSame(md5($plain), md5($unpacked), $which);
            }
        }
    }

    public function test_views_that_many_read_from_are_unpacked_once_whatever_the_order(): void
    {
        mt_srand(11);
        $packed = '';
        $views = $plain = [];
        foreach (Node::run('meshopt.mjs') as $case) {
            \assert(is_array($case));
            $bytes = (string) base64_decode($case['packed'], true);
            $views[] = new BufferView(0, strlen($packed), strlen($bytes), $case['stride'], $case['mode'], $case['count'], $case['filter']);
            $plain[] = Meshopt::decode($bytes, $case['count'], $case['stride'], $case['mode'], $case['filter']);
            $packed .= $bytes;
        }
        $file = new CountedBytes($packed);
        $accessors = array_map(
            static fn (BufferView $view, int $index): Accessor => new Accessor($index, 0, 5121, $view->stride, $view->count, false, null),
            $views,
            array_keys($views),
        );
        $buffers = new Buffers([$file], [strlen($packed)], $views, $accessors);
        for ($read = 0; $read < 200; $read++) {
            $index = $read < count($views) ? $read : mt_rand(0, count($views) - 1);
            ['count' => $count, 'stride' => $stride] = (array) $views[$index];
            $first = mt_rand(0, $count - 1);
            $elements = mt_rand(0, $count - $first);
            self::assertSame(
                md5(substr($plain[$index], $first * $stride, $elements * $stride)),
                md5($buffers->raw($accessors[$index], $first, $elements)),
            );
        }
        self::assertSame(md5($plain[0]), md5($buffers->view(0)));
        self::assertSame(strlen($packed), $file->read);
    }

    public function test_damaged_compressed_views_end_in_a_sentence_or_in_bytes(): void
    {
        mt_srand(5);
        foreach (Node::run('meshopt.mjs') as $case) {
            \assert(is_array($case));
            $packed = (string) base64_decode($case['packed'], true);
            for ($round = 0; $round < 4; $round++) {
                $broken = $round === 0 ? substr($packed, 0, mt_rand(0, strlen($packed))) : $packed;
                if ($round > 0) {
                    $broken[mt_rand(0, strlen($packed) - 1)] = chr(mt_rand(0, 255));
                }
                try {
                    self::assertSame(
                        $case['count'] * $case['stride'],
                        strlen(Meshopt::decode($broken, $case['count'], $case['stride'], $case['mode'], $case['filter'])),
                    );
                } catch (\VineShelf\Formats\UnreadableFile $error) {
                    self::assertNotSame('', $error->getMessage());
                }
            }
        }
    }

    public function test_the_demo_is_valid_and_counted_as_an_independent_reader_counts_it(): void
    {
        $path = Gltf::keep('');
        $written = MarlpitBaths::write($path, 'demo');
        $ours = Gltf::inspect($path);
        $theirs = Node::run('count.mjs', $path);

        self::assertSame([0, 0], [$theirs['errors'], $theirs['warnings']], (string) json_encode($theirs['messages']));
        foreach (['objects', 'groups', 'parts', 'meshes', 'triangles', 'vertices', 'materials', 'textures'] as $count) {
            self::assertSame($theirs[$count], $ours[$count], $count);
        }
        self::assertEqualsWithDelta(['min' => $theirs['min'], 'max' => $theirs['max']], $ours['bounds'], 1e-4);
        self::assertSame([$written['objects'], $written['triangles']], [$ours['objects'], $ours['triangles']]);
        self::assertEqualsWithDelta(3000, $ours['objects'], 400);
        self::assertEqualsWithDelta(250_000, $ours['triangles'], 25_000);
        // Often enough for PHP's compiler to have replaced the loops: what it makes of them must give the same numbers.
        for ($time = 0; $time < 10; $time++) {
            MarlpitBaths::write($again = Gltf::keep(''), 'demo');
            self::assertSame(md5_file($path), md5_file($again), 'the demo is the same every time');
        }
    }

    public function test_packs_are_valid_gltf_and_hold_the_meshes_to_within_their_grid(): void
    {
        $path = Gltf::keep('');
        MarlpitBaths::write($path, 'demo');
        $intake = Files::open($path);
        $writer = new PackWriter;
        $chosen = array_slice(array_keys($intake->meshes()), 0, 60);
        $facts = [];
        foreach ($chosen as $index => $mesh) {
            $facts[$mesh] = $writer->add($index + 1, $intake->primitives($mesh), range(1, 100));
        }
        $pack = Gltf::keep($writer->finish());
        $theirs = Node::run('count.mjs', $pack, 'validate');
        self::assertSame(0, $theirs['errors'], (string) json_encode($theirs['messages']));

        $again = Files::open($pack);
        foreach ($chosen as $index => $mesh) {
            $plain = array_values((array) unpack('g*', $intake->primitives($mesh)[0]->positions));
            $packed = array_values((array) unpack('g*', $again->primitives($index)[0]->positions));
            $m = $again->objects()->transform($index + 1);
            $box = $facts[$mesh]->box;
            $grid = max($box->maxX - $box->minX, $box->maxY - $box->minY, $box->maxZ - $box->minZ) / 2 / 32767;
            for ($at = 0; $at < count($plain); $at += 3) {
                $x = $m[0] * $packed[$at] + $m[3];
                self::assertEqualsWithDelta($plain[$at], $x, $grid + 1e-6, "mesh $mesh");
            }
        }
    }
}
