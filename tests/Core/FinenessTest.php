<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\ShapedModel;
use VineShelf\Facts\Facts;
use VineShelf\Geometry\Shape;
use VineShelf\Lighten\Apart;
use VineShelf\Lighten\Drawing;
use VineShelf\Lighten\Fineness;
use VineShelf\Lighten\VersionedShapes;
use VineShelf\Picking\Camera;
use VineShelf\Scene\Levels;

/** How fine meshes are for what they show, against looking at every object; and how far pictures are apart. */
final class FinenessTest extends TestCase
{
    public function test_each_mesh_is_as_large_as_its_largest_object_and_as_near_as_its_nearest(): void
    {
        mt_srand(61);
        $several = 0;
        for ($round = 0; $round < 60; $round++) {
            $model = ShapedModel::grow(mt_rand(1, 40));
            $facts = $model->facts;
            $cameras = array_slice([[30, -40, 9], [-6, 3, 2], [0, 0, 80]], 0, $round % 4);
            $looks = static fn (): array => array_map(static fn (array $eye): Drawing => self::looking($facts, $eye), $cameras);
            $users = $most = $area = [];
            $full = Levels::constant($facts->scene->count(), 5, 5);
            $seen = array_map(static fn (Drawing $look) => $look->sized($full), $looks());
            for ($row = 1; $row <= $facts->scene->count(); $row++) {
                $mesh = $facts->mesh($row);
                if ($mesh === 0) {
                    continue;
                }
                $users[$mesh] = ($users[$mesh] ?? 0) + 1;
                $b = $facts->box($row);
                self::assertNotNull($b);
                [$x, $y, $z] = [$b[3] - $b[0], $b[4] - $b[1], $b[5] - $b[2]];
                $area[$mesh] = max($area[$mesh] ?? 0.0, 2 * $x * $y + 2 * $y * $z + 2 * $x * $z);
                foreach ($seen as $one) {
                    $most[$mesh] = max($most[$mesh] ?? 0.0, 9 * $one->covered[$row]);
                }
            }
            $found = array_column((new Fineness($facts))->meshes(0, $looks(), 3.0), null, 'mesh');
            self::assertEqualsCanonicalizing(array_keys($users), array_keys($found));
            foreach ($found as $mesh => $one) {
                self::assertSame($users[$mesh], $one['objects']);
                self::assertEqualsWithDelta($area[$mesh], $one['area'], 1e-6);
                if ($cameras === []) {
                    self::assertNull($one['pixels'], 'nobody looks');
                } else {
                    self::assertEqualsWithDelta($most[$mesh], (float) $one['pixels'], 1e-6);
                    $several += $one['pixels'] > 0 ? 1 : 0;
                }
            }
            $weights = array_column($found, 'triangles');
            $least = $weights === [] ? 1 : max($weights) + 1;
            self::assertSame([], (new Fineness($facts))->meshes($least, [], 1.0), 'fine whatever it shows');
        }
        self::assertGreaterThan(80, $several);
    }

    public function test_pictures_are_apart_where_an_eye_sees_it_and_only_that_is_marked(): void
    {
        $before = [0x000000, 0x102030, 0xffffff, 0x808080, 0x404040];
        $same = new Apart($before, $before);
        self::assertSame([0.0, $before], [$same->share, $same->marked]);
        $after = [0x000001, 0x102030, 0x00ffff, 0x80ff80, 0x424242];
        $apart = new Apart($before, $after);
        self::assertSame(0.4, $apart->share);
        foreach ([0, 1, 4] as $pixel) {
            self::assertSame($after[$pixel], $apart->marked[$pixel]);
        }
        self::assertSame($apart->marked[2], $apart->marked[3]);
        self::assertNotContains($apart->marked[2], $after);
        self::assertSame(0.0, (new Apart([], []))->share);
    }

    /** @param array{int, int, int} $eye */
    private static function looking(Facts $facts, array $eye): Drawing
    {
        $camera = Camera::perspective($eye, [0.0, 0.0, 0.0], $eye[2] > 50 ? [0.0, 1.0, 0.0] : [0.0, 0.0, 1.0], 45.0, 64, 40, 0.05);
        $none = new class implements VersionedShapes {
            public function within(int $mesh, float $error): ?Shape
            {
                return null;
            }

            public function coarse(int $mesh): ?Shape
            {
                return null;
            }
        };

        return new Drawing($facts, $camera, 64, 40, $none);
    }
}
