<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Pins;
use App\Bench\Refused;
use App\Changes\Edits\Edits;
use App\Changes\Edits\MembersEdit;
use App\Changes\Edits\RowEdit;
use App\Models\Project;
use App\SortingRules\StoredLine;
use Illuminate\Support\Facades\DB;
use VineShelf\Locks\Lock;
use VineShelf\Rules\TagReplaced;
use VineShelf\Scene\Bits;
use VineShelf\Tags\Tag;

/**
 * Tags become one: who has one of those that go gets the one that stays, which keeps its colour, rungs, lock, output and note; rules and
 * sorting rules that name the others name it. Locked objects are left alone: a tag that they have stays with them.
 */
final class MergeTags extends Command
{
    private readonly string $title;

    private readonly Edits $edits;

    /** @var list<int> numbers of the tags that go */
    private readonly array $going;

    /** @param list<int> $numbers of the tags that go @param int $into number of the one that stays */
    public function __construct(Bench $bench, array $numbers, private readonly int $into)
    {
        $kept = $bench->tags()->has($into) ? $bench->tags()->get($into) : throw new Refused('That tag is no longer there.', 'into');
        $tags = [];
        foreach (array_unique($numbers) as $number) {
            if ($number !== $into) {
                $tags[] = self::checked($bench, $number);
            }
        }
        if ($tags === []) {
            throw new Refused('Choose two tags or more to make one of.', 'keys');
        }
        $scene = $bench->scene();
        $locked = $bench->inEffect()->locked();
        $coming = $left = Bits::none($scene->count());
        $steps = $going = $staying = [];
        foreach ($tags as $tag) {
            $members = $scene->tagged($tag->number);
            $held = $members->and($locked);
            $coming = $coming->or($members->without($held));
            $left = $left->or($held);
            if ($held->isEmpty()) {
                $going[] = $tag;
                $steps[] = self::leaving($bench, $tag);
            } else {
                $staying[] = $tag->name;
                $steps[] = new MembersEdit('tags', $tag->number, Bits::none(0), $scene->numberBits($members->without($held)));
            }
        }
        $coming = $coming->without($scene->tagged($into));
        $joining = $coming->isEmpty() ? [] : [new MembersEdit('tags', $into, $scene->numberBits($coming), Bits::none(0))];
        $this->going = array_map(static fn (Tag $tag): int => $tag->number, $going);
        $this->leftAlone = $left->isEmpty() ? '' : self::lockedInWords($left->count()).' '.implode(', ', $staying).' stays with them.';
        $this->edits = new Edits([...$joining, ...self::rules($bench, $going, $kept), ...self::lines($bench, $going, $kept), ...$steps]);
        $this->title = 'Merge '.(count($tags) === 1 ? "tag {$tags[0]->name}" : count($tags).' tags')." into $kept->name";
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    public function atLast(Project $project): void
    {
        Pins::moved($project->id, array_map(static fn (int $gone): string => "T$gone", $this->going), "T$this->into");
    }

    /**
     * In what the tags that go differ from the one that stays, which is how it will be for all of them.
     *
     * @param list<Tag> $going
     *
     * @return list<string> sentences
     */
    public static function differences(Bench $bench, array $going, Tag $kept): array
    {
        $rung = static fn (Tag $tag): string => $bench->settings()->tag($tag->number)?->label() ?? 'nothing set';
        $sides = [
            'on your desk' => $rung,
            'in pictures' => static fn (Tag $tag): string => $tag->output?->label() ?? 'nothing set',
            'as its lock' => static fn (Tag $tag): string => $tag->lock->label(),
        ];
        $said = [];
        foreach ($going as $tag) {
            foreach ($sides as $where => $of) {
                if ($of($tag) !== $of($kept)) {
                    $said[] = "$tag->name has {$of($tag)} $where; its objects get what $kept->name has: {$of($kept)}.";
                }
            }
            if ($tag->note !== '' && $tag->note !== $kept->note) {
                $said[] = "The note on $tag->name goes with it.";
            }
        }

        return $said;
    }

    private static function checked(Bench $bench, int $number): Tag
    {
        $tag = $bench->tags()->has($number) ? $bench->tags()->get($number) : throw new Refused('That tag is no longer there.', 'keys');
        if ($bench->tags()->locks()["M$number"] === Lock::Locked->value) {
            throw new Refused("$tag->name is locked; open it first.", 'keys');
        }

        return $tag;
    }

    private static function leaving(Bench $bench, Tag $tag): RowEdit
    {
        $row = DB::table('tags')->where('project_id', $bench->project->id)->where('no', $tag->number)->first() ?? new \stdClass;

        return new RowEdit('tags', $tag->number, RowEdit::stored($row), null);
    }

    /**
     * Live sets whose rule names a tag that goes.
     *
     * @param list<Tag> $going
     *
     * @return list<RowEdit>
     */
    private static function rules(Bench $bench, array $going, Tag $kept): array
    {
        $steps = [];
        foreach ($bench->sets()->all() as $set) {
            $rule = self::replaced($bench, (string) $set->rule, $going, $kept);
            if ($set->rule !== null && $rule !== $set->rule) {
                $steps[] = new RowEdit('sets', $set->number, ['rule' => $set->rule], ['rule' => $rule]);
            }
        }

        return $steps;
    }

    /**
     * Sorting rules that name a tag that goes, or give it.
     *
     * @param list<Tag> $going
     *
     * @return list<RowEdit>
     */
    private static function lines(Bench $bench, array $going, Tag $kept): array
    {
        $steps = [];
        $gone = array_fill_keys(array_map(static fn (Tag $tag): int => $tag->number, $going), true);
        foreach (StoredLine::all($bench->project) as $line) {
            $gives = [];
            foreach ($line->tags as [$number, $path]) {
                // One that is not there yet has no number.
                $gives[isset($gone[$number]) ? $kept->number : ($number === 0 ? $path : $number)] ??= isset($gone[$number])
                    ? [$kept->number, $bench->tags()->tree->path($kept)]
                    : [$number, $path];
            }
            $before = ['rule' => $line->rule, 'gives' => self::json($line->tags)];
            $after = ['rule' => self::replaced($bench, $line->rule, $going, $kept), 'gives' => self::json(array_values($gives))];
            if ($before !== $after) {
                $steps[] = new RowEdit('sorting_lines', $line->number, $before, $after);
            }
        }

        return $steps;
    }

    /** @param list<Tag> $going */
    private static function replaced(Bench $bench, string $rule, array $going, Tag $kept): string
    {
        foreach ($going as $tag) {
            $others = array_filter($bench->tags()->all(), static fn (Tag $other): bool => ! in_array($other, $going, true));
            $rule = TagReplaced::in(
                $rule,
                $tag->name,
                $kept->name,
                array_values(array_map(static fn (Tag $other): string => $other->name, $others)),
            );
        }

        return $rule;
    }

    /** @param list<array{int, string}> $tags */
    private static function json(array $tags): string
    {
        return json_encode($tags, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE);
    }
}
