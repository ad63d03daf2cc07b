<?php

declare(strict_types=1);

namespace Tests\Core;

use PHPUnit\Framework\TestCase;
use Tests\Core\Support\Gltf;
use Tests\Core\Support\Node;
use VineShelf\Facts\DerivedColumns;
use VineShelf\Scene\ColumnsInMemory;
use VineShelf\Scene\Drawn;
use VineShelf\Scene\Scene;

/** What the canvas reads out of an answer, by its own code, against the transforms that went in. */
final class DrawnTest extends TestCase
{
    private const HALVES = [
        1 => [0.4, 0.02, 0.9],
        2 => [0.0, 0.6, 0.6],
        3 => [1.1, 1.2, 1.0],
        4 => [40.0, 3.0, 0.1],
        6 => [-INF, -INF, -INF],
    ];

    /** @var list<array{int, int, list<float>}> object, mesh, transform */
    private array $placed = [];

    protected function setUp(): void
    {
        mt_srand(17);
        $this->placed = [];
    }

    public function test_parts_that_are_turned_and_scaled_stand_where_they_stood(): void
    {
        for ($object = 1; $object <= 3000; $object++) {
            $scales = [self::random(0.3, 1.6), self::random(0.3, 1.6), self::random(0.3, 1.6)];
            $scales[mt_rand(0, 2)] *= mt_rand(0, 1) ? -1 : 1;
            $this->add($object, mt_rand(1, 4), self::turned($scales, self::place(600)));
        }
        self::assertLessThan(0.4e-3, $this->worst());
        // A quarter is too long for a turn and brings a form of its own.
        self::assertLessThan(3000 * 33, strlen((string) gzencode($this->answer([[1, 3000]]), 2)));
    }

    public function test_quarter_turns_and_mirrors_stay_exact_and_are_sent_once(): void
    {
        $forms = [];
        foreach ([[0, 1, 2], [1, 2, 0], [2, 0, 1], [1, 0, 2], [0, 2, 1], [2, 1, 0]] as $order) {
            for ($signs = 0; $signs < 8; $signs++) {
                $m = array_fill(0, 12, 0.0);
                foreach ($order as $row => $column) {
                    $m[$row * 4 + $column] = $signs & (1 << $row) ? -1.0 : 1.0;
                }
                $forms[] = $m;
            }
        }
        foreach ($forms as $at => $form) {
            // Alone it is a turn; in company, a form.
            foreach ($at % 2 === 0 ? [1] : [1, 2, 3] as $_) {
                $this->add(count($this->placed) + 1, 3, self::at($form, [mt_rand(-9999, 9999) / 8, 0.5, mt_rand(-99, 99) / 4]));
            }
        }
        self::assertLessThan(0.1e-3, $this->worst());
        $objects = count($this->placed);
        self::assertSame([1, 24, $objects], array_values((array) unpack('V3', $this->answer([[1, $objects]]))));
    }

    public function test_what_a_turn_cannot_say_keeps_its_floats(): void
    {
        $shear = [1.0, 0.3, 0.0, 0.0, 0.0, 1.0, 0.2, 0.0, 0.0, 0.0, 1.0, 0.0];
        $odd = [
            self::at($shear, self::place(50)),
            // Scaled to nothing, to a pane, to a hair, to a hill.
            self::at([0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0, 0.0], self::place(50)),
            self::turned([1.0, 0.0, 1.0], self::place(50)),
            self::turned([1e-5, 1.0, 1.0], self::place(50)),
            self::turned([900.0, 2.0, 800.0], self::place(50)),
            // A house three countries away, and a stray beyond every map.
            self::turned([1.0, 1.0, 1.0], [400_000.25, -300_000.5, 12.0]),
            self::turned([1.0, 1.0, 1.0], [4e12, 0.0, -4e30]),
        ];
        foreach ($odd as $at => $m) {
            foreach ([1, 2, 3, 4] as $mesh) {
                $this->add($at * 4 + $mesh, $mesh, $m);
            }
            $this->add(100 + $at, 6, $m);
        }
        usort($this->placed, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        self::assertLessThan(0.4e-3, $this->worst());
        // The stray takes nothing from the others: an ordinary part between them is as exact as ever.
        $this->add(200, 1, self::turned([1.0, 1.0, 1.0], [10.0001, 20.0002, 3.0003]));
        self::assertLessThan(0.4e-3, $this->worst());
    }

    public function test_an_answer_holds_all_that_was_asked_for_and_little_else(): void
    {
        foreach (range(1, 900) as $object) {
            foreach (mt_rand(0, 9) === 0 ? range(1, mt_rand(2, 60)) : [1] as $_) {
                $this->add($object, mt_rand(1, 4), self::turned([1.0, mt_rand(1, 2), 1.0], self::place(20)));
            }
        }
        for ($round = 0; $round < 12; $round++) {
            $asked = $ranges = [];
            $step = [2, 5, 40, 300][$round % 4];
            for ($row = mt_rand(1, $step); $row <= 900; $row = $last + mt_rand(2, 2 * $step)) {
                $ranges[] = [$row, ($last = min(900, $row + mt_rand(0, 3)))];
                array_push($asked, ...range($row, $last));
            }
            $found = self::read($this->answer($ranges));
            $wanted = array_values(array_filter($this->placed, static fn (array $placed): bool => in_array($placed[0], $asked, true)));
            $kept = array_values(array_filter($found, static fn (array $placed): bool => in_array($placed[0], $asked, true)));
            self::assertSame(array_column($wanted, 0), array_column($kept, 0));
            self::assertSame(array_column($wanted, 1), array_column($kept, 1));
            self::assertLessThan(0.4e-3, self::between($wanted, $kept));
            // An object that comes along uninvited comes from a gap of sixteen at most.
            self::assertLessThanOrEqual(count($wanted) + 16 * count($ranges), count($found));
        }
        self::assertSame([], self::read($this->answer([])));
    }

    public function test_parts_of_an_answer_add_up_whatever_they_share(): void
    {
        foreach (range(1, 200) as $object) {
            $this->add($object, mt_rand(1, 4), self::turned([1.0, 1.0, 1.0], self::place(20), mt_rand(0, 3) * M_PI_2));
        }
        $found = self::read($this->answer([[30, 30], [170, 171]]), $this->answer([[1, 100]]), $this->answer([[101, 200]]));
        usort($found, static fn (array $a, array $b): int => $a[0] <=> $b[0]);
        self::assertSame(range(1, 200), array_column($found, 0));
        self::assertLessThan(0.4e-3, self::between($this->placed, $found));
    }

    /** @param list<float> $m */
    private function add(int $object, int $mesh, array $m): void
    {
        $this->placed[] = [$object, $mesh, $m];
    }

    /** @param list<array{int, int}> $ranges */
    private function answer(array $ranges): string
    {
        $records = $meshRows = '';
        $recordAt = [0];
        foreach ($this->placed as $at => [$object, $mesh, $m]) {
            $records .= pack('V2g12', $object, $mesh, ...$m);
            $recordAt = array_pad($recordAt, $object + 1, $at);
        }
        $recordAt[] = count($this->placed);
        foreach (range(0, 6) as $mesh) {
            [$x, $y, $z] = self::HALVES[$mesh] ?? [0.0, 0.0, 0.0];
            $meshRows .= isset(self::HALVES[$mesh])
                ? pack('V4g6', $mesh, $mesh * 2, 12, 0xff00ff00 + $mesh, -$x, -$y, -$z, $x, $y, $z)
                : str_repeat("\0", 40);
        }
        $columns = ['records' => $records, 'recordAt' => pack('V*', ...$recordAt), 'meshrows' => $meshRows];

        return Drawn::of(new Scene(new DerivedColumns(new ColumnsInMemory($columns))), $ranges);
    }

    /** @return float how far a corner of a box is from where it was at most, metres */
    private function worst(): float
    {
        $found = self::read($this->answer([[1, $this->placed[count($this->placed) - 1][0]]]));
        self::assertSame(array_column($this->placed, 0), array_column($found, 0));
        self::assertSame(array_column($this->placed, 1), array_column($found, 1));

        return self::between($this->placed, $found);
    }

    /** @return list<array{int, int, list<float>}> */
    private static function read(string ...$answers): array
    {
        $paths = array_map(static fn (string $answer): string => Gltf::keep(pack('V', 1).$answer), array_values($answers));
        $found = [];
        foreach (Node::run('placements.mjs', ...$paths) as $placement) {
            \assert(is_array($placement));
            [$pack, $triangles, $colour, $half] = $placement['facts'];
            self::assertSame([2 * $placement['mesh'], 12, 0xff00ff00 + $placement['mesh']], [$pack, $triangles, $colour]);
            if ($half !== null) {
                self::assertEqualsWithDelta(self::HALVES[$placement['mesh']][0], $half, 1e-5);
            }
            $found[] = [$placement['object'], $placement['mesh'], $placement['m']];
        }

        return $found;
    }

    /**
     * @param list<array{int, int, list<float>}> $before
     * @param list<array{int, int, list<float>}> $after
     */
    private static function between(array $before, array $after): float
    {
        $worst = 0.0;
        foreach ($before as $at => [, $mesh, $m]) {
            $n = $after[$at][2];
            $half = $mesh === 6 ? [1.0, 1.0, 1.0] : self::HALVES[$mesh];
            foreach (range(0, 7) as $corner) {
                foreach ([0, 4, 8] as $row) {
                    $was = (float) $m[$row + 3];
                    $is = (float) $n[$row + 3];
                    foreach ([0, 1, 2] as $axis) {
                        $side = $corner & (1 << $axis) ? $half[$axis] : -$half[$axis];
                        $was += $m[$row + $axis] * $side;
                        $is += $n[$row + $axis] * $side;
                    }
                    // What a 32-bit float cannot say in the first place does not count.
                    $worst = max($worst, abs($was - $is) - 4e-7 * (abs($was) + abs($m[$row + 3])));
                }
            }
        }

        return $worst;
    }

    /**
     * @param list<float> $m
     * @param list<float> $place
     *
     * @return list<float>
     */
    private static function at(array $m, array $place): array
    {
        [$m[3], $m[7], $m[11]] = $place;

        return $m;
    }

    /** @return list<float> */
    private static function place(float $within): array
    {
        return [self::random(-$within, $within), self::random(-$within, $within), self::random(-9.0, 30.0)];
    }

    /**
     * @param list<float> $scales
     * @param list<float> $place
     *
     * @return list<float>
     */
    private static function turned(array $scales, array $place, ?float $by = null): array
    {
        // About the vertical, as most things in a building, or about anything.
        $axis = $by !== null || mt_rand(0, 1) ? [0.0, 0.0, 1.0] : [self::random(-1, 1), self::random(-1, 1), self::random(-1, 1)];
        $length = sqrt(array_sum(array_map(static fn (float $part): float => $part ** 2, $axis))) ?: 1.0;
        [$x, $y, $z] = array_map(static fn (float $part): float => $part / $length, $axis);
        $angle = $by ?? self::random(-M_PI, M_PI);
        [$c, $s] = [cos($angle), sin($angle)];
        $d = 1 - $c;
        [$a, $b, $e] = $scales;

        return self::at(
            [
                $a * ($c + $x * $x * $d),
                $b * ($x * $y * $d - $z * $s),
                $e * ($x * $z * $d + $y * $s),
                0.0,
                $a * ($y * $x * $d + $z * $s),
                $b * ($c + $y * $y * $d),
                $e * ($y * $z * $d - $x * $s),
                0.0,
                $a * ($z * $x * $d - $y * $s),
                $b * ($z * $y * $d + $x * $s),
                $e * ($c + $z * $z * $d),
                0.0,
            ],
            $place,
        );
    }

    private static function random(float $low, float $high): float
    {
        return $low + (mt_rand() / mt_getrandmax()) * ($high - $low);
    }
}
