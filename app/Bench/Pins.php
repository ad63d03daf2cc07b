<?php

declare(strict_types=1);

namespace App\Bench;

use App\Models\Desk;
use App\Models\Revision;
use Illuminate\Support\Facades\DB;
use VineShelf\Rules\Parser;
use VineShelf\Rules\RuleError;

/** What a person has pinned beside the numbered slots, to pick with a click: tags, sets and rules. */
final class Pins
{
    public const MOST = 12;

    private const RULE = 'rule:';

    /**
     * The pins that still stand for something.
     *
     * @return list<array{what: string, name: string, icon: string, colour: string, title: string, rule: string}> rule: "" unless it is one
     */
    public static function of(Bench $bench): array
    {
        $pins = [];
        foreach ($bench->desk->pins as $what) {
            $row = str_starts_with($what, self::RULE) ? null : Organizer::find($bench, $what);
            if ($row?->kind === OrganizerKind::Tag) {
                $tag = $bench->tags()->get($row->number);
                $pins[] = self::pin($what, $tag->name, '', $tag->colour, 'Tag '.$bench->tags()->tree->path($tag));
            } elseif ($row?->kind === OrganizerKind::Set) {
                $set = $bench->sets()->get($row->number);
                $pins[] = self::pin(
                    $what,
                    $set->name,
                    $set->isLive() ? 'zap' : 'list-checks',
                    '',
                    'Set '.$bench->sets()->tree->path($set),
                );
            } elseif (str_starts_with($what, self::RULE)) {
                $rule = substr($what, strlen(self::RULE));
                $pins[] = self::pin($what, $rule, 'search', '', "Rule $rule", $rule);
            }
        }

        return $pins;
    }

    /**
     * @param list<string> $pins
     *
     * @return list<string>
     *
     * @throws Refused when it is nothing that can be pinned, or there are enough
     */
    public static function with(Bench $bench, array $pins, string $what): array
    {
        if (str_starts_with($what, self::RULE)) {
            $what = self::RULE.trim(substr($what, strlen(self::RULE)));
            self::check(substr($what, strlen(self::RULE)));
        } elseif (! in_array(Organizer::named($bench, $what)->kind, [OrganizerKind::Tag, OrganizerKind::Set], true)) {
            throw new Refused('Tags, sets and rules can be pinned.', 'what');
        }
        if (in_array($what, $pins, true)) {
            return $pins;
        }
        // Pins of what is gone make room.
        $there = array_column(self::of($bench), 'what');
        $pins = count($pins) >= self::MOST ? array_values(array_intersect($pins, $there)) : $pins;

        return count($pins) < self::MOST
            ? [...$pins, $what]
            : throw new Refused('There is room for '.self::MOST.' pins; take one off first.', 'what');
    }

    /**
     * What was pinned is something else now, on every desk of a project.
     *
     * @param list<string> $from keys of rows that are gone
     */
    public static function moved(int $project, array $from, string $to): void
    {
        DB::transaction(static function () use ($project, $from, $to): void {
            $desks = Desk::query()->where('project_id', $project)->where('pins', '!=', '[]')->orderBy('user_id');
            foreach ($desks->lock(DeskChange::HELD)->get() as $desk) {
                $pins = array_values(
                    array_unique(array_map(static fn (string $pin): string => in_array($pin, $from, true) ? $to : $pin, $desk->pins)),
                );
                if ($pins !== $desk->pins) {
                    $desk->pins = $pins;
                    $desk->revision = Revision::after($desk->revision);
                    $desk->save();
                }
            }
        });
    }

    /** @throws Refused */
    private static function check(string $rule): void
    {
        if ($rule === '' || mb_strlen($rule) > 500) {
            throw new Refused(
                $rule === '' ? 'The line is empty; write a rule first.' : 'A pinned rule has at most 500 characters.',
                'what',
            );
        }
        try {
            Parser::parse($rule);
        } catch (RuleError $error) {
            throw new Refused($error->getMessage(), 'what');
        }
    }

    /** @return array{what: string, name: string, icon: string, colour: string, title: string, rule: string} */
    private static function pin(string $what, string $name, string $icon, string $colour, string $title, string $rule = ''): array
    {
        return ['what' => $what, 'name' => $name, 'icon' => $icon, 'colour' => $colour, 'title' => $title, 'rule' => $rule];
    }
}
