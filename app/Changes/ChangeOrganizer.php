<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\OrganizerKind;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Colours\Line;
use VineShelf\Locks\Lock;
use VineShelf\Rules\Parser;
use VineShelf\Rules\RuleError;
use VineShelf\Rules\SetLinks;
use VineShelf\Sets\SelectionSet;
use VineShelf\Sets\SetTree;

/** A layer, tag, folder or set gets another name, colour, line, note or rule, or shows its members one at a time. */
final class ChangeOrganizer extends Command
{
    public const NOTE = 2000;

    private const REASON = 400;

    private function __construct(private readonly string $title, private readonly Edits $edits) {}

    public static function rename(Bench $bench, string $key, string $name): self
    {
        $row = self::open($bench, $key);
        if ($row->isUnsorted()) {
            throw new Refused('Unsorted keeps its name.', 'name');
        }
        $what = $row->kind->word();
        $name = RowNames::check($name, $what);
        RowNames::checkFree($name, $what, Organizer::inside($bench, $row->family, $row->parent), $key);
        if ($row->kind === OrganizerKind::Set) {
            $set = $bench->sets()->get($row->number);
            self::checkNoCycle($bench, new SelectionSet($set->number, $set->folder, $set->position, $name, $set->rule));
        }

        return self::columns("Rename $what $row->name to $name", $row, ['name' => $row->name], ['name' => $name]);
    }

    public static function colour(Bench $bench, string $key, string $colour): self
    {
        $row = self::open($bench, $key, OrganizerKind::Layer, OrganizerKind::Tag);
        if (preg_match('~^#[0-9a-f]{6}$~', $colour) !== 1) {
            throw new Refused('A colour is written as # and six digits, for example #3f7a63.', 'colour');
        }
        $before =
            $row->kind === OrganizerKind::Tag ? $bench->tags()->get($row->number)->colour : $bench->layers()->get($row->number)->colour;

        return self::columns("Colour {$row->inWords()}", $row, ['colour' => $before], ['colour' => $colour]);
    }

    public static function line(Bench $bench, string $key, Line $line): self
    {
        $row = self::open($bench, $key, OrganizerKind::Layer, OrganizerKind::Tag);
        $before = $row->kind === OrganizerKind::Tag ? $bench->tags()->get($row->number)->line : $bench->layers()->get($row->number)->line;

        return self::columns("Edges of {$row->inWords()}: {$line->label()}", $row, ['line' => $before->value], ['line' => $line->value]);
    }

    public static function note(Bench $bench, string $key, string $note): self
    {
        $row = self::open($bench, $key, OrganizerKind::Layer, OrganizerKind::Tag, OrganizerKind::Set);
        $note = trim($note);
        if (mb_strlen($note) > self::NOTE) {
            throw new Refused(
                'A note has at most '.number_format(self::NOTE).' characters; this one has '.number_format(mb_strlen($note)).'.',
                'note',
            );
        }
        $before = match ($row->kind) {
            OrganizerKind::Layer => $bench->layers()->get($row->number)->note,
            OrganizerKind::Tag => $bench->tags()->get($row->number)->note,
            default => $bench->sets()->get($row->number)->note,
        };

        return self::columns("Note on {$row->inWords()}", $row, ['note' => $before], ['note' => $note]);
    }

    /** What is in a layer is not for export, for a reason, or is for export again. @param string $reason empty for none */
    public static function holdBack(Bench $bench, string $key, string $reason): self
    {
        $row = self::open($bench, $key, OrganizerKind::Layer);
        $reason = trim((string) preg_replace('~\s+~u', ' ', $reason));
        if (mb_strlen($reason) > self::REASON) {
            throw new Refused('A reason has at most '.self::REASON.' characters.', 'held_back');
        }
        $title = $reason === '' ? "Let exports have layer $row->name again" : "Keep layer $row->name out of exports";

        return self::columns($title, $row, ['held_back' => $bench->layers()->get($row->number)->heldBack], ['held_back' => $reason]);
    }

    /** Whether showing one of what lies in a layer or a folder of tags hides the others. */
    public static function oneAtATime(Bench $bench, string $key, bool $one): self
    {
        $row = self::open($bench, $key, OrganizerKind::Layer, OrganizerKind::Folder);
        if ($row->isUnsorted() || ! in_array($row->family, ['layers', 'tags'], true)) {
            throw new Refused('One at a time is for folders of tags and for layers with others in them.', 'one_at_a_time');
        }
        $before =
            $row->kind === OrganizerKind::Layer
                ? $bench->layers()->get($row->number)->oneAtATime
                : $bench->tags()->folder($row->number)->oneAtATime;

        return self::columns(
            "Show what is in {$row->inWords()} ".($one ? 'one at a time' : 'together'),
            $row,
            ['one_at_a_time' => $before],
            ['one_at_a_time' => $one],
        );
    }

    public static function rule(Bench $bench, string $key, string $rule): self
    {
        $row = self::open($bench, $key, OrganizerKind::Set);
        $set = $bench->sets()->get($row->number);
        if (! $set->isLive()) {
            throw new Refused("$set->name is a fixed set; it has members, not a rule.", 'rule');
        }
        $rule = self::checkRule($bench, new SelectionSet($set->number, $set->folder, $set->position, $set->name, $rule));

        return self::columns("New rule for set $set->name", $row, ['rule' => $set->rule], ['rule' => $rule]);
    }

    /**
     * @return string the rule of a live set that is to be there
     *
     * @throws Refused when it cannot be understood, or leads back to the set
     */
    public static function checkRule(Bench $bench, SelectionSet $set): string
    {
        $rule = trim((string) $set->rule);
        try {
            Parser::parse($rule);
        } catch (RuleError $error) {
            throw new Refused($error->getMessage(), 'rule');
        }
        self::checkNoCycle($bench, $set);

        return $rule;
    }

    /** @throws Refused with the way that leads back */
    public static function checkNoCycle(Bench $bench, SelectionSet $set): void
    {
        $sets = $bench->sets()->tree;
        $cycle = (new SetLinks(new SetTree($sets->folders, [...array_values($sets->members), $set])))->cycle();
        if ($cycle !== null) {
            throw new Refused('The set would lead back to itself: '.implode(' → ', $cycle).'.', 'rule');
        }
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    /** @throws Refused when it is locked, gone, or not of a kind that has this */
    private static function open(Bench $bench, string $key, OrganizerKind ...$of): Organizer
    {
        $row = Organizer::named($bench, $key);
        if ($of !== [] && ! in_array($row->kind, $of, true)) {
            throw new Refused(ucfirst($row->kind->table()).' do not have that.', 'keys');
        }
        if ($row->lock === Lock::Locked) {
            throw new Refused("$row->name is locked; open it first.");
        }

        return $row;
    }

    /**
     * @param array<string, mixed> $before
     * @param array<string, mixed> $after
     */
    private static function columns(string $title, Organizer $row, array $before, array $after): self
    {
        $edit = new RowEdit($row->kind->table(), $row->number, $before, $after);

        return new self($title, new Edits($before === $after ? [] : [$edit]));
    }
}
