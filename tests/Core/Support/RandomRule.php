<?php

declare(strict_types=1);

namespace Tests\Core\Support;

use VineShelf\Facts\Measure;
use VineShelf\Rules\AllOf;
use VineShelf\Rules\AnyOf;
use VineShelf\Rules\Field;
use VineShelf\Rules\HasProperty;
use VineShelf\Rules\IsInView;
use VineShelf\Rules\NewerThan;
use VineShelf\Rules\Node;
use VineShelf\Rules\NoneOf;
use VineShelf\Rules\NumberIs;
use VineShelf\Rules\NumberTest;
use VineShelf\Rules\Quantity;
use VineShelf\Rules\Related;
use VineShelf\Rules\Relation;
use VineShelf\Rules\State;
use VineShelf\Rules\StateIs;
use VineShelf\Rules\TextIs;
use VineShelf\Rules\TextTest;

/** Random trees that use everything that the language has. */
final class RandomRule
{
    /** What an object can be in a view. */
    private const IN_VIEWS = [State::Shown, State::Hidden, State::Box, State::Ghost, State::Coarse, State::Plain, State::Full];

    public static function grow(int $depth): Node
    {
        $parts = static fn (): array => array_map(static fn (): Node => self::grow($depth - 1), range(1, mt_rand(2, 3)));

        return match ($depth > 0 ? mt_rand(0, 10) : 10) {
            0, 1 => new AllOf($parts()),
            2, 3 => new AnyOf($parts()),
            4 => new NoneOf(self::grow($depth - 1)),
            5 => new Related(self::one(Relation::cases()), self::grow($depth - 1)),
            default => self::condition(),
        };
    }

    private static function condition(): Node
    {
        return match (mt_rand(0, 9)) {
            0, 1, 2 => self::text(),
            3, 4 => self::number(),
            5, 6 => new StateIs(self::one(State::cases())),
            7 => new HasProperty(self::one(['fire rating', 'level', 'Diameter', 'no', 'unheard of', 'and', 'CLIENT'])),
            8 => mt_rand(0, 1) === 0 ? new NewerThan('View "1"') : new IsInView('View "1"', self::one(self::IN_VIEWS)),
            default => new NoneOf(new StateIs(self::one(State::cases()))),
        };
    }

    private static function text(): TextIs
    {
        $quoted = mt_rand(0, 1) === 1;
        $test = self::one(TextTest::cases());
        $plain = [
            'seat',
            'p*',
            '*1*',
            'wall.00?',
            'Oak',
            'öl*',
            '?lfilter',
            'and',
            'is',
            'EI30',
            '50',
            '7',
            '8.5',
            'y*',
            'e',
            'Layer',
            'Gallery',
            '*',
            'tag',
            'Folder',
            'set*',
        ];
        $words = $quoted
            ? self::one([...$plain, ...PlainModel::WORDS, 'Layer 2', 'Tag 1', 'Set 2', 'Folder 1', 'a) or (b', 'or', "two\nlines"])
            : self::one($plain);
        if (mt_rand(0, 2) === 0) {
            return new TextIs(
                self::one(['fire rating', 'LEVEL', 'diameter', 'mixed', 'name', 'unheard:of', 'not', 'client', 'Client']),
                $test,
                $words,
                $quoted,
                true,
            );
        }
        $field = self::one(Field::cases());
        if ($field === Field::Kind) {
            return new TextIs('kind', $test, self::one(['part', 'GROUP', 'l*', '?amera', 'curve', 'points']), false);
        }

        return new TextIs($field->value, $test, $words, $quoted);
    }

    private static function number(): NumberIs
    {
        $isProperty = mt_rand(0, 3) === 0;
        $measure = self::one(Measure::cases());
        $field = $isProperty ? self::one(['diameter', 'mixed', 'width', 'or', 'un"heard', 'client']) : $measure->value;
        $dimension = $isProperty ? 0 : $measure->dimension();
        $some = static fn (): Quantity => match ($dimension) {
            0 => new Quantity(self::one(['0', '1', '2', '3', '100', '-1', '200', '8.5', '0.4']), self::one(['', '', 'k', 'M'])),
            1 => new Quantity(self::one(['0', '1.5', '100', '-2', '2.05', '30']), self::one(['', 'm', 'cm', 'mm', 'ft', 'in'])),
            default => new Quantity(self::one(['0', '1', '2.5', '0.1']), self::one(['', 'm3', 'l'])),
        };
        $test = self::one(NumberTest::cases());
        if ($test !== NumberTest::Within && $test !== NumberTest::NotWithin) {
            $number = $some();

            // Without a unit, "=" on a property is a comparison of texts until the data says otherwise.
            return new NumberIs(
                $field,
                $isProperty && in_array($test, [NumberTest::Is, NumberTest::IsNot], true) ? NumberTest::AtLeast : $test,
                $number,
                null,
                $isProperty,
            );
        }
        $ends = [$some(), $some()];
        usort($ends, static fn (Quantity $a, Quantity $b): int => $a->value() <=> $b->value());
        $open = mt_rand(0, 5);

        return new NumberIs($field, $test, $open === 0 ? null : $ends[0], $open === 1 ? null : $ends[1], $isProperty);
    }

    /**
     * @template T
     *
     * @param non-empty-array<T> $of
     *
     * @return T
     */
    private static function one(array $of): mixed
    {
        return $of[array_rand($of)];
    }
}
