<?php

declare(strict_types=1);

namespace VineShelf\Picking;

use VineShelf\Facts\Facts;
use VineShelf\Facts\Measure;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;
use VineShelf\Scene\Packed;
use VineShelf\Scene\Relatives;
use VineShelf\Search\NameIndex;

/** Ways from a pick to its relatives. */
enum Reach: string
{
    case Up = 'up';
    case Top = 'top';
    case Down = 'down';
    case Below = 'below';
    case Beside = 'beside';
    case Depth = 'depth';
    case Kind = 'kind';
    case ObjectClass = 'class';
    case Material = 'material';
    case Mesh = 'mesh';
    case Size = 'size';
    case Name = 'name';
    case Layer = 'layer';
    case Properties = 'properties';

    /** How two sizes may differ to count as the same, as a share of the larger one. */
    public const TOLERANCE = 0.02;

    public function label(): string
    {
        return match ($this) {
            self::Up => 'One up',
            self::Top => 'Up to the top',
            self::Down => 'One down',
            self::Below => 'All below',
            self::Beside => 'Beside',
            self::Depth => 'Same depth',
            self::Kind => 'Same kind',
            self::ObjectClass => 'Same class',
            self::Material => 'Same material',
            self::Mesh => 'Same mesh',
            self::Size => 'Same size',
            self::Name => 'Same name',
            self::Layer => 'Same layer',
            self::Properties => 'Same properties',
        };
    }

    public function meaning(): string
    {
        return match ($this) {
            self::Up => 'what directly holds the pick',
            self::Top => 'the topmost groups that hold the pick',
            self::Down => 'what stands directly below the pick',
            self::Below => 'the pick and everything below it',
            self::Beside => 'the pick and what stands under the same parents',
            self::Depth => 'what is nested as deep, under the same topmost groups',
            self::Kind => 'everything of the same kind',
            self::ObjectClass => 'everything of the same class',
            self::Material => 'everything drawn with one of its materials',
            self::Mesh => 'every instance of its meshes',
            self::Size => 'everything whose width, length and height are the same, turned or not',
            self::Name => 'everything with the same name, up to its number',
            self::Layer => 'everything in the same layers',
            self::Properties => 'everything that has the values which all of the pick share',
        };
    }

    /**
     * The objects that the pick leads to.
     *
     * @param Bits        $pick      rows
     * @param float       $tolerance for sizes, as a share of the larger one
     * @param string|null $property  for properties: only this one; all that the pick shares when null
     */
    public function of(Bits $pick, Facts $facts, float $tolerance = self::TOLERANCE, ?string $property = null): Bits
    {
        $scene = $facts->scene;
        $count = $scene->count();

        return match ($this) {
            self::Up => self::up($pick, $facts),
            self::Top => self::top($pick, $facts),
            self::Down => self::down($pick, $facts),
            self::Below => Relatives::within($scene, $pick),
            self::Beside => $pick->or(Relatives::beside($scene, $pick)),
            self::Depth => self::asDeep($pick, $facts),
            self::Kind => $facts->ranked('kind')->in(self::codes($pick, static fn (int $row): int => $scene->kind($row)->value)),
            self::ObjectClass => $facts->ranked('class')->in(self::codes($pick, static fn (int $row): int => Packed::uint32At($scene->column('class'), $row)))->or($pick),
            self::Material => self::drawnAlike($pick, $facts)->or($pick),
            self::Mesh => $facts->ranked('mesh')->in(array_values(array_filter(self::codes($pick, $facts->mesh(...)))))->or($pick),
            self::Size => self::sized($pick, $facts, $tolerance),
            self::Name => self::named($pick, $facts),
            self::Layer => $scene->layers()->rowsOf($scene->layers()->histogram($pick)),
            self::Properties => self::alike($pick, $facts, $property)->or($pick),
        };
    }

    /**
     * @param callable(int): int $code of a row
     *
     * @return list<int> different codes
     */
    private static function codes(Bits $pick, callable $code): array
    {
        $codes = [];
        foreach ($pick->rows() as $row) {
            $codes[$code($row)] = true;
        }

        return array_keys($codes);
    }

    private static function up(Bits $pick, Facts $facts): Bits
    {
        $rows = [];
        foreach ($pick->rows() as $row) {
            // What has nothing above it stays.
            $above = $facts->scene->parent($row) ?: $row;
            $rows[$above] = $above;
        }
        sort($rows);

        return Bits::ofRows($pick->length, $rows);
    }

    private static function top(Bits $pick, Facts $facts): Bits
    {
        $rows = [];
        $last = 0;
        foreach ($pick->rows() as $row) {
            if ($row > $last) {
                $top = $row;
                while (($above = $facts->scene->parent($top)) !== 0) {
                    $top = $above;
                }
                $rows[] = $top;
                $last = $facts->scene->end($top);
            }
        }

        return Bits::ofRows($pick->length, $rows);
    }

    private static function down(Bits $pick, Facts $facts): Bits
    {
        $rows = [];
        foreach ($pick->rows() as $row) {
            // What holds nothing stays.
            array_push($rows, ...($facts->scene->end($row) > $row ? $facts->scene->children($row) : [$row]));
        }
        sort($rows);

        return Bits::ofRows($pick->length, $rows);
    }

    private static function asDeep(Bits $pick, Facts $facts): Bits
    {
        $depths = [];
        $tops = [];
        foreach ($pick->rows() as $row) {
            $depth = Packed::uint32At($facts->scene->column('depths'), $row);
            $top = $row;
            while (($above = $facts->scene->parent($top)) !== 0) {
                $top = $above;
            }
            $depths[$depth][$top] = $top;
        }
        $found = $pick;
        foreach ($depths as $depth => $tops) {
            $found = $found->or($facts->ranked('depth')->in([$depth])->and(Bits::ofRanges($pick->length, $facts->scene->subtrees(array_values($tops)))));
        }

        return $found;
    }

    private static function drawnAlike(Bits $pick, Facts $facts): Bits
    {
        $materials = [];
        foreach (self::codes($pick, static fn (int $row): int => Packed::uint32At($facts->scene->column('surfaces'), $row)) as $code) {
            $materials += array_flip($facts->surfaceLists()[$code]);
        }

        return $facts->ranked('surfaces')->in(array_keys(array_filter($facts->surfaceLists(), static fn (array $list): bool => array_intersect_key(array_flip($list), $materials) !== [])));
    }

    private static function sized(Bits $pick, Facts $facts, float $tolerance): Bits
    {
        $found = $pick;
        $sizes = [];
        foreach ($pick->rows() as $row) {
            $sides = self::sides($facts, $row);
            if ($sides !== null) {
                $sizes[implode(' ', array_map(static fn (float $side): string => sprintf('%.4f', $side), $sides))] = $sides;
            }
        }
        foreach (array_slice($sizes, 0, 200) as [$small, $middle, $large]) {
            $near = $large * $tolerance + 1e-4;
            $rows = [];
            foreach ($facts->ranked(Measure::Size->value)->between($large - $near, $large + $near)->rows() as $row) {
                $sides = self::sides($facts, $row);
                if ($sides !== null && abs($sides[0] - $small) <= $near && abs($sides[1] - $middle) <= $near) {
                    $rows[] = $row;
                }
            }
            $found = $found->or(Bits::ofRows($pick->length, $rows));
        }
        // Groups are not the size of a part that fills them.
        $kinds = self::codes($pick, static fn (int $row): int => $facts->scene->kind($row)->value);

        return $found->and($facts->ranked('kind')->in($kinds));
    }

    /** @return array{float, float, float}|null ascending, metres */
    private static function sides(Facts $facts, int $row): ?array
    {
        $box = $facts->box($row);
        if ($box === null) {
            return null;
        }
        $sides = [$box[3] - $box[0], $box[4] - $box[1], $box[5] - $box[2]];
        sort($sides);

        return [$sides[0], $sides[1], $sides[2]];
    }

    private static function named(Bits $pick, Facts $facts): Bits
    {
        $stems = [];
        $names = $facts->scene->column('names');
        foreach ($pick->rows() as $row) {
            [$from, $to] = Packed::uint32($facts->scene->column('nameAt'), $row * 4, 2);
            $stems[self::stem(substr($names, $from, $to - $from - 1))] = true;
        }
        $found = Bits::none($pick->length);
        foreach (array_slice(array_keys($stems), 0, 200) as $stem) {
            $stem = (string) $stem;
            $found = $found->or($stem === '' ? $facts->bits('unnamed') : NameIndex::like($facts->scene, '~^'.preg_quote($stem, '~').'[\s._#(\[-]*\d*[)\]]?$~mD'));
        }

        return $found->or($pick);
    }

    /** A name without the number at its end: "seat_shell_017" and "seat_shell_1" are both "seat_shell". */
    public static function stem(string $name): string
    {
        $stem = (string) preg_replace('~[\s._#(\[-]*\d+[)\]]?$~D', '', $name);

        return $stem === '' ? $name : $stem;
    }

    private static function alike(Bits $pick, Facts $facts, ?string $property): Bits
    {
        $shared = null;
        foreach ($facts->properties() as $name => [$index]) {
            if ($property !== null && $name !== $property) {
                continue;
            }
            $codes = self::codes($pick, $facts->codes($index)->at(...));
            // One property: all values that the pick has. All of them: only what the whole pick has in common.
            if ($property !== null ? array_filter($codes) !== [] : count($codes) === 1 && $codes[0] !== 0) {
                $rows = $facts->ranked("property.$index")->in(array_values(array_filter($codes)));
                $shared = $shared?->and($rows) ?? $rows;
            }
        }

        return $shared ?? Bits::none($pick->length);
    }
}
