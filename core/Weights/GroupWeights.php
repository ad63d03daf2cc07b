<?php

declare(strict_types=1);

namespace VineShelf\Weights;

use VineShelf\Facts\Facts;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Coded;
use VineShelf\Scene\Levels;
use VineShelf\Scene\MeshVersions;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Planes;

/**
 * What all groups of which every row is in one, such as layers, weigh with what is nested in them. The groups' codes are put in the order
 * of meshes; then the rows of a mesh that many draw are counted for all groups in one go, and so it costs about the same however many
 * groups there are. {@see Weights} asks the same of one set.
 */
final class GroupWeights
{
    /** Groups that have a code of one byte, with a bit to spare for what is drawn by its coarser version. */
    private const CODES = 127;

    private const COARSE = 128;

    /** Triangles, vertices, calls, bytes. */
    private const NONE = [0, 0, 0, 0];

    /** @var array<int, array{int, int, int, int}> of what is drawn, and bytes of what is drawn by one row alone; by group */
    private array $sums = [];

    /** @var array<int, array<int, int>> bytes of meshes that several rows draw, by group and mesh; a coarser version is mesh -number - 1 */
    private array $shared = [];

    /** The column "meshrows". */
    private string $rows = '';

    /** @var array<int, int> the column "meshweights" as three numbers a mesh, from 1 on */
    private array $weights = [];

    /** The column of coarser versions. */
    private string $versions = '';

    /** @var array<int, int> where in it the one that does for Coarse stands, by mesh; none where nothing is drawn so */
    private array $coarse = [];

    public function __construct(private readonly Facts $facts) {}

    /**
     * @param Coded           $groups  the group of each row
     * @param array<int, int> $parents the group that each is nested in, 0 for none
     * @param Levels          $rungs   at which things are drawn
     *
     * @return array<int, Weight> by group, with what is nested in it
     */
    public function all(Coded $groups, array $parents, Levels $rungs): array
    {
        if (count($groups->values()) > self::CODES) {
            return $this->oneByOne($groups, $parents, $rungs);
        }
        $this->sums = $this->shared = [];
        $fine = $rungs->atLeast(Rung::Plain->value);
        $coarse = $rungs->atLeast(Rung::Ghost->value)->without($fine);
        $boxes = $rungs->being(Rung::Box->value);
        $scene = $this->facts->scene;
        $this->rows = $scene->column('meshrows');
        /** @var array<int, int> $numbers */
        $numbers = unpack('V*', $scene->column('meshweights')) ?: [];
        $this->weights = $numbers;
        $this->versions = $scene->column('versions');
        $this->coarse = $coarse->isEmpty() ? [] : MeshVersions::whereCoarse($scene);
        $this->count($groups, $fine, $coarse);
        foreach ($boxes->isEmpty() ? [] : $this->placements() as $plane => $rows) {
            foreach ($groups->histogram($rows->and($boxes)) as $group => $count) {
                $this->add($group, [Cost::Triangles->ofBox(), Cost::Vertices->ofBox(), 0, 0], $count << $plane);
            }
        }
        $textures = $this->textures($groups, $parents, $rungs->being(Rung::Full->value));
        // From the innermost outwards: what is nested is added to what holds it.
        foreach (self::inwards($parents) as $group) {
            $above = $parents[$group];
            $this->add($above, $this->sums[$group] ?? self::NONE, 1);
            $this->shared[$above] = ($this->shared[$above] ?? []) + ($this->shared[$group] ?? []);
        }
        $found = [];
        foreach ($parents as $group => $_) {
            [$triangles, $vertices, $calls, $bytes] = $this->sums[$group] ?? self::NONE;
            $found[$group] = new Weight(
                $triangles,
                $vertices,
                $calls,
                $bytes + (int) array_sum($this->shared[$group] ?? []),
                $textures[$group],
            );
        }

        return $found;
    }

    /**
     * @param array<int, int> $parents
     *
     * @return array<int, Weight>
     */
    private function oneByOne(Coded $groups, array $parents, Levels $rungs): array
    {
        $weights = new Weights($this->facts);
        $within = array_map(static fn (int $group): array => [$group => true], array_combine(array_keys($parents), array_keys($parents)));
        foreach (self::inwards($parents) as $group) {
            isset($within[$parents[$group]]) && ($within[$parents[$group]] += $within[$group]);
        }

        return array_map(static fn (array $all): Weight => $weights->inEffect($groups->rowsOf($all), $rungs), $within);
    }

    /** @param array{int, int, int, int} $each */
    private function add(int $group, array $each, int $times): void
    {
        $sum = $this->sums[$group] ?? self::NONE;
        $this->sums[$group] = [
            $sum[0] + $each[0] * $times,
            $sum[1] + $each[1] * $times,
            $sum[2] + $each[2] * $times,
            $sum[3] + $each[3] * $times,
        ];
    }

    /** Counts what rows draw at Full or Plain, and at Coarse or Ghost. */
    private function count(Coded $groups, Bits $fine, Bits $coarse): void
    {
        $values = $groups->values();
        $ranked = $this->facts->ranked('mesh');
        $sorted = $ranked->sorted($groups->codes($fine->or($coarse)) | ($coarse->mask() & str_repeat("\x80", $coarse->length + 1)));
        $starts = $ranked->starts();
        /** @var array<int, float> $meshes */
        $meshes = unpack('e*', $ranked->numbers()) ?: [];
        $triangles = $vertices = $calls = $bytes = array_fill(0, 256, 0);
        [$rowsOf, $weights] = [$this->rows, $this->weights];
        foreach ($meshes as $at => $number) {
            $mesh = (int) $number;
            $from = $starts[$at - 1];
            $length = $starts[$at] - $from;
            $code = ord($sorted[$from]);
            if ($length === 1 && $code < self::COARSE) {
                $triangles[$code] += Packed::uint32At($rowsOf, 10 * $mesh + 2);
                $vertices[$code] += $weights[3 * $mesh + 1];
                $calls[$code] += $weights[3 * $mesh + 2];
                $bytes[$code] += $weights[3 * $mesh + 3];

                continue;
            }
            /** @var array<int, int> $shown */
            $shown = $length === 1 ? [$code => 1] : count_chars(substr($sorted, $from, $length), 1);
            unset($shown[0]);
            foreach ($shown as $code => $count) {
                $isCoarse = $code >= self::COARSE;
                [$each, $corners, $pieces, $size] = $this->each($mesh, $isCoarse);
                $triangles[$code] += $each * $count;
                $vertices[$code] += $corners * $count;
                $calls[$code] += $pieces * $count;
                if ($length === 1) {
                    $bytes[$code] += $size;
                } else {
                    $group = $values[max(0, ($code & (self::COARSE - 1)) - 1)];
                    $this->shared[$group][$isCoarse && isset($this->coarse[$mesh]) ? -$mesh - 1 : $mesh] = $size;
                }
            }
        }
        foreach ($values as $at => $group) {
            foreach ([$at + 1, $at + 1 + self::COARSE] as $code) {
                $this->add($group, [$triangles[$code], $vertices[$code], $calls[$code], $bytes[$code]], 1);
            }
        }
        // What is drawn several times in one object.
        foreach ([$fine, $coarse] as $isCoarse => $rows) {
            foreach ($this->often($rows) as $row => $more) {
                [$each, $corners, $pieces] = $this->each($this->facts->mesh($row), $isCoarse === 1);
                $this->add($groups->at($row), [$each, $corners, $pieces, 0], $more);
            }
        }
    }

    /** @return array{int, int, int, int} triangles, vertices, pieces and bytes of a mesh, or of its coarser version where it has one */
    private function each(int $mesh, bool $isCoarse): array
    {
        $pieces = $this->weights[3 * $mesh + 2];
        if ($isCoarse && isset($this->coarse[$mesh])) {
            [$triangles, $vertices, $bytes] = MeshVersions::weight($this->versions, $this->coarse[$mesh]);

            return [$triangles, $vertices, $pieces, $bytes];
        }

        return [Packed::uint32At($this->rows, 10 * $mesh + 2), $this->weights[3 * $mesh + 1], $pieces, $this->weights[3 * $mesh + 3]];
    }

    /** @return array<int, int> by row: how often more than once it is drawn */
    private function often(Bits $rows): array
    {
        $scene = $this->facts->scene;
        $several = Bits::none($rows->length);
        foreach ($this->placements() as $plane => $those) {
            $several = $plane === 0 ? $several : $several->or($those);
        }
        $often = [];
        foreach ($several->and($rows)->rows() as $row) {
            [$first, $end] = Packed::uint32($scene->column('recordAt'), 4 * $row, 2);
            $often[$row] = $end - $first - 1;
        }

        return $often;
    }

    /** @return list<Bits> */
    private function placements(): array
    {
        return Planes::unpack($this->facts->scene->column('planes.placements'))->all();
    }

    /**
     * @param array<int, int> $parents
     *
     * @return array<int, int> bytes of pictures by group, each once
     */
    private function textures(Coded $groups, array $parents, Bits $full): array
    {
        $sizes = array_fill_keys(array_keys($parents), []);
        foreach ($this->facts->surfacesByPicture() as $picture => $surfaces) {
            $rows = $this->facts->ranked('surfaces')->in($surfaces)->and($full);
            foreach ($rows->isEmpty() ? [] : array_keys($groups->histogram($rows)) as $group) {
                for (; $group > 0 && isset($parents[$group]); $group = $parents[$group]) {
                    $sizes[$group][$picture] = $this->facts->pictures()[$picture]['bytes'] ?? 0;
                }
            }
        }

        return array_map(static fn (array $each): int => (int) array_sum($each), $sizes);
    }

    /**
     * @param array<int, int> $parents
     *
     * @return list<int> groups, every one before what it is in
     */
    private static function inwards(array $parents): array
    {
        $nested = [];
        foreach ($parents as $group => $above) {
            $nested[$above][] = $group;
        }
        $order = $nested[0] ?? [];
        for ($at = 0; $at < count($order); $at++) {
            array_push($order, ...$nested[$order[$at]] ?? []);
        }

        return array_reverse($order);
    }
}
