<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Organizer;
use App\Bench\OrganizerKind;
use App\Bench\Refused;
use VineShelf\Rules\Joined;
use VineShelf\Rules\Node;
use VineShelf\Rules\Parser;
use VineShelf\Rules\Printer;
use VineShelf\Rules\RuleError;
use VineShelf\Scene\Bits;
use VineShelf\Sets\SelectionSet;

/**
 * Sets, and folders of them as any of what lies there, joined to another set: listed in a fixed one, a part of the rule of a live one, or
 * with it in a new live set.
 */
final readonly class JoinSets
{
    /** What becomes of it, for a fixed set and for a live one. */
    private const FIXED = ['listed', 'new'];

    private const LIVE = ['or', 'and', 'without', 'new'];

    public SelectionSet $onto;

    /** @var non-empty-list<string> names of what is joined to it */
    public array $names;

    private Node $condition;

    /** @param list<string> $keys of sets and of folders of them @throws Refused */
    public function __construct(private Bench $bench, array $keys, int $onto)
    {
        $this->onto = $bench->sets()->has($onto) ? $bench->sets()->get($onto) : throw new Refused('That set is no longer there.', 'keys');
        $names = [];
        foreach (array_unique($keys) as $key) {
            $row = Organizer::named($bench, $key);
            if ($row->family !== 'sets') {
                throw new Refused('Sets are joined to sets.', 'keys');
            }
            if ($row->kind !== OrganizerKind::Set || $row->number !== $onto) {
                $names[] = $row->name;
            }
        }
        if ($names === []) {
            throw new Refused('Say which other sets are to be joined to it.', 'keys');
        }
        $this->names = $names;
        $this->condition = Parser::parse(self::any($names))->tree;
    }

    /** @return list<string> what can become of it: "listed", "or", "and", "without", "new" */
    public function ways(): array
    {
        return $this->onto->isLive() ? self::LIVE : self::FIXED;
    }

    /** The objects of what is joined, as they are now. */
    public function rows(): Bits
    {
        return $this->bench->find(self::any($this->names))->rows ?? Bits::none($this->bench->scene()->count());
    }

    /** The rule that there is then. @throws Refused when that of the set cannot be read */
    public function rule(string $way): string
    {
        if ($way === 'new') {
            return self::any([$this->onto->name, ...$this->names]);
        }
        try {
            $tree = Parser::parse((string) $this->onto->rule)->tree;
        } catch (RuleError $error) {
            throw new Refused("The rule of {$this->onto->name} cannot be read: ".$error->getMessage(), 'way');
        }

        return Printer::print(Joined::by($tree, $this->condition, $way));
    }

    /** @param string $name of a new set @throws Refused */
    public function command(string $way, string $name): Command
    {
        if (! in_array($way, $this->ways(), true)) {
            throw new Refused(
                $this->onto->isLive() ? 'A live set lists nothing: its rule says what is in it.' : 'A fixed set has no rule.',
                'way',
            );
        }

        return match ($way) {
            'listed' => ChangeMembers::of($this->bench, $this->onto->number, $this->rows(), 'add'),
            'new' => CreateSet::live($this->bench, $name, $this->onto->folder, $this->rule('new')),
            default => ChangeOrganizer::rule($this->bench, "E{$this->onto->number}", $this->rule($way)),
        };
    }

    /** @param list<string> $names */
    private static function any(array $names): string
    {
        return implode(' or ', array_map(static fn (string $name): string => 'set='.Printer::quoted($name), $names));
    }
}
