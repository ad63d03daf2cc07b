<?php

declare(strict_types=1);

namespace Tests\Feature;

use App\Bench\Bench;
use App\Bench\Keys;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\ChangeLines;
use App\Changes\ChangeMemberships;
use App\Changes\Command;
use App\Changes\CopyObjects;
use App\Changes\CreateSet;
use App\Changes\CreateTag;
use App\Changes\DeleteObjects;
use App\Changes\FileObjects;
use App\Changes\GroupObjects;
use App\Changes\NestObjects;
use App\Changes\SetLocks;
use App\Changes\SetOutput;
use App\Changes\SetOwn;
use App\Changes\SortByLines;
use App\Changes\TagObjects;
use App\Changes\UngroupObjects;
use App\SortingRules\DryRun;
use App\SortingRules\StoredLine;
use Tests\Feature\Support\PlainSorting;
use VineShelf\Exchange\SortingLine;
use VineShelf\Geometry\Copies;
use VineShelf\Locks\Lock;
use VineShelf\Output\Output;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Kind;

/**
 * Random changes, one after the other and back again, by two people: the database, the index and what each change said of itself agree, no
 * object is without exactly one layer, and what is locked is never changed.
 */
final class SequencesTest extends SequenceTestCase
{
    /** Sorting rules: beginning of the name, layer, tag, whether that alone is meant, whether rules below take it as well. */
    private const LINES = [['Seat', 3, 1, true, false], ['Pump', 0, 2, false, true], ['Pane', 3, 3, false, false]];

    public function test_random_changes_and_undos_leave_database_and_index_in_agreement(): void
    {
        mt_srand(77);
        $states = [];
        $made = $refused = $turned = 0;
        for ($step = 0; $step < 300; $step++) {
            $bench = Bench::of($this->project->refresh(), mt_rand(0, 1) === 0 ? $this->ida : $this->bea);
            $before = $this->state();
            $lockedBefore = $this->locked($bench);
            $way = mt_rand(0, 9);
            if ($way < 2) {
                $this->assertUndoBringsBack($bench, $states, $before);
                $turned++;

                continue;
            }
            if ($step % 25 === 13) {
                $states[$this->addFile($bench->person)] = [$before, $this->state()];
                $this->assertIndexTrue($this->project);

                continue;
            }
            try {
                $command = $this->history->carryOut($bench, $this->some(...));
            } catch (Refused) {
                self::assertSame($before, $this->state(), 'what is refused changes nothing');
                $refused++;

                continue;
            }
            if ($command->change !== null) {
                $states[$command->change] = [$before, $this->state()];
                $made++;
                self::assertNotSame('', $command->name());
            }
            $this->assertWhole($command, $lockedBefore);
            if ($step % 20 === 0) {
                $this->assertIndexTrue($this->project);
            }
        }
        $this->assertIndexTrue($this->project);
        self::assertGreaterThan(110, $made);
        self::assertGreaterThan(40, $turned);
        self::assertGreaterThan(8, $refused);
    }

    public function test_the_index_says_what_plain_arrays_say_after_every_change_undo_and_redo(): void
    {
        mt_srand(8);
        $model = new PlainSorting;
        foreach (
            $this->project
                ->objects()
                ->orderBy('no')
                ->get(['no', 'parent_no', 'layer_no', 'project_id', 'kind', 'name']) as $object
        ) {
            $model->parents[$object->no] = $object->parent_no;
            $model->layerOf[$object->no] = $object->layer_no;
            $model->isGroup[$object->no] = $object->kind === Kind::Group;
            $model->names[$object->no] = $object->name;
        }
        foreach (range(1, 3) as $number) {
            $this->history->carryOut($this->bench(), static fn (Bench $held): CreateTag => new CreateTag($held, "Tag $number", 0, null));
            $this->history->carryOut(
                $this->bench(),
                static fn (Bench $held): CreateSet => CreateSet::fixed($held, "Set $number", 0, Bits::none($held->scene()->count())),
            );
            $model->tags[$number] = $model->sets[$number] = [];
        }
        foreach (self::LINES as [$begins, $layer, $tag, $only, $goesOn]) {
            $line = new SortingLine("$begins*", ["Layer $layer"], [["Tag $tag"]], only: $only, goesOn: $goesOn);
            $this->history->carryOut($this->bench(), static fn (Bench $held): ChangeLines => ChangeLines::add($held, $line));
        }
        $people = [$this->ida, $this->bea, $this->person('Cleo Marsh')];
        $this->project->people()->attach($people[2], ['role' => 'editor']);
        /** @var array<int, array{int, array<string, array{mixed, mixed}>, bool}> $changes whose, what differs, whether it is taken back */
        $changes = [];
        $seen = ['made' => 0, 'undone' => 0, 'redone' => 0, 'refused' => 0, 'between' => 0, 'overcautious' => 0, 'not done' => 0];
        for ($step = 0; $step < 480; $step++) {
            $bench = Bench::of($this->project->refresh(), $people[mt_rand(0, 2)]);
            $way = mt_rand(0, 9);
            if ($way < 4 && $changes !== []) {
                // What is meant is named, or it is the last of one's own.
                $meant = $way < 2 ? null : (int) array_rand($changes);
                $undo = mt_rand(0, 2) > 0;
                $turned = $undo ? $this->history->undo($bench, $meant) : $this->history->redo($bench, $meant);
                $number = $turned->change?->no;
                if ($number === null) {
                    $seen['refused']++;
                    $isOwn =
                        $meant !== null &&
                        isset($changes[$meant]) &&
                        ($changes[$meant][0] === $bench->person->id || $bench->person->id === $this->ida->id);
                    $couldBe = $isOwn && $changes[$meant][2] !== $undo && (clone $model)->turn($changes[$meant][1], $undo);
                    $seen['overcautious'] += (int) $couldBe;
                } elseif (isset($changes[$number])) {
                    self::assertTrue($model->turn($changes[$number][1], $undo), "step $step: $turned->sentence");
                    $changes[$number][2] = $undo;
                    $seen[$undo ? 'undone' : 'redone']++;
                    $seen['between'] +=
                        (int) ($undo &&
                            $number < max(array_keys(array_filter($changes, static fn (array $change): bool => ! $change[2])) ?: [0]));
                    self::assertContains(
                        $changes[$number][0],
                        $undo && $bench->person->id !== $this->ida->id ? [$bench->person->id] : array_column($people, 'id'),
                    );
                } else {
                    // Further back than this test began: that is done again.
                    self::assertNotNull($this->history->redo($bench, $number)->change);
                }
            } else {
                $next = clone $model;
                try {
                    $command = $this->history->carryOut($bench, fn (Bench $held): Command => $this->mirrored($held, $next));
                } catch (Refused $refused) {
                    self::assertEquals($model, $next, "step $step: {$refused->getMessage()}");
                    $seen['not done']++;

                    continue;
                }
                if ($command->change !== null) {
                    $changes[$command->change] = [$bench->person->id, PlainSorting::difference($model, $next), false];
                    $seen['made']++;
                }
                $model = $next;
            }
            self::assertEquals($model->state(), $this->indexed($model), "step $step");
        }
        self::assertGreaterThan(160, $seen['made'], json_encode($seen) ?: '');
        self::assertGreaterThan(30, min($seen['undone'], $seen['between'], $seen['refused']), json_encode($seen) ?: '');
        self::assertLessThan(0.25 * $seen['refused'], $seen['overcautious'], json_encode($seen) ?: '');
        $this->assertIndexTrue($this->project->refresh());
    }

    /** A change, and what plain arrays make of it. */
    private function mirrored(Bench $bench, PlainSorting $model): Command
    {
        $numbers = array_values(array_filter(array_keys($model->parents), static fn (): bool => mt_rand(0, 9) === 0)) ?: [
            (int) array_key_first($model->parents),
        ];
        $rows = Bits::ofRows($bench->scene()->count(), $bench->scene()->rowsOf($numbers));
        $tag = (int) array_rand($model->tags);
        $set = mt_rand(1, 3);
        $layer = $bench->layers()->walk()[mt_rand(0, $bench->layers()->count() - 1)][0];
        $on = [true, false, null][mt_rand(0, 2)];
        $withHeld = mt_rand(0, 1) === 1;
        $lock = [0, 0, 1, 2][mt_rand(0, 3)];
        $value = [null, 'F30', 'F90'][mt_rand(0, 2)];
        $targets = static fn (string $key): Targets => Targets::named(Keys::of([$key]), $bench);
        switch (mt_rand(0, 15)) {
            case 0:
            case 1:
                $model->file($numbers, $layer->number);

                return new FileObjects($bench, $rows, $layer);
            case 2:
            case 3:
                $model->tag($numbers, $tag, $on, $withHeld);

                return new TagObjects($bench, $rows, $bench->tags()->get($tag), $on, $withHeld);
            case 4:
                $model->member($numbers, $tag, $set, $on !== false);

                return new ChangeMemberships($bench, $rows, ["T$tag", "E$set"], $on !== false);
            case 5:
                $model->fire($numbers, $value);

                return new SetOwn($bench, $rows, 'fire', $value);
            case 6:
                $model->locks[$numbers[0]] = $lock;

                return new SetLocks($bench, $targets("O$numbers[0]"), Lock::from($lock));
            case 7:
                $model->tagLocks[$tag] = $lock;

                return new SetLocks($bench, $targets("T$tag"), Lock::from($lock));
            case 8:
                $model->layerLocks[$layer->number] = $lock;

                return new SetLocks($bench, $targets("L$layer->number"), Lock::from($lock));
            case 9:
                $output = [null, ...Output::cases()][mt_rand(0, 8)];
                $keys = ["L$layer->number", "T$tag"];
                $model->output($numbers, $keys, $output?->value);

                return new SetOutput(
                    $bench,
                    Targets::named(Keys::of([...$keys, ...array_map(static fn (int $number): string => "O$number", $numbers)]), $bench),
                    $output,
                );
            case 10:
            case 11:
            case 12:
            case 13:
                return $this->nested($bench, $model, $numbers);
            case 14:
                $lines = array_map(
                    fn (array $line): array => [$line[0], $this->layer($this->project, "Layer $line[1]"), ...array_slice($line, 2)],
                    self::LINES,
                );
                $model->sort($lines);

                return new SortByLines($bench, new DryRun($bench, StoredLine::all($bench->project)));
            default:
                $new = $bench->project->next_tag;
                $model->tags[$new] = $model->open($model->withHeld($numbers));

                return new CreateTag($bench, "Tag $new", 0, $rows);
        }
    }

    /**
     * A change of what stands in what. What plain arrays say cannot be done is refused, and nothing else is.
     *
     * @param list<int> $numbers
     */
    private function nested(Bench $bench, PlainSorting $model, array $numbers): Command
    {
        $rows = static fn (array $numbers): Bits => Bits::ofRows($bench->scene()->count(), $bench->scene()->rowsOf($numbers));
        $few = array_slice($numbers, 0, 3);
        $into = [0, ...array_keys($model->parents)][mt_rand(0, count($model->parents))];
        $new = $bench->project->next_object;
        $way = mt_rand(0, 6);
        $next = clone $model;
        $order = array_map($bench->scene()->number(...), range(1, $bench->scene()->count()));
        // A large group would make everything twice.
        $small = array_values(array_filter($few, static fn (int $number): bool => count($model->withHeld([$number])) < 4)) ?: [
            $order[count($order) - 1],
        ];
        $times = mt_rand(1, 2);
        $can = match ($way) {
            0 => $next->group($few, $new, 0),
            1 => $next->ungroup($numbers),
            2 => $next->delete(array_slice($numbers, 0, 1)),
            3 => $next->copy($small, $times, $order, $new),
            default => $next->nest($few, $into),
        };
        try {
            $command = match ($way) {
                0 => new GroupObjects($bench, $rows($few), 'Group'),
                1 => new UngroupObjects($bench, $rows($numbers)),
                2 => new DeleteObjects($bench, $rows(array_slice($numbers, 0, 1))),
                3 => new CopyObjects($bench, $rows($small), new Copies($times, [1.0, 0.0, 0.0])),
                default => NestObjects::into($bench, $rows($few), $into),
            };
        } catch (Refused $refused) {
            self::assertNull($can, $refused->getMessage());
            throw $refused;
        }
        self::assertNotNull($can, $command->name());
        match ($way) {
            0 => $model->group($few, $new, (int) $this->project->objects()->where('no', $new)->value('layer_no')),
            1 => $model->ungroup($numbers),
            2 => $model->delete(array_slice($numbers, 0, 1)),
            3 => $model->copy($small, $times, $order, $new),
            default => $model->nest($few, $into),
        };

        return $command;
    }

    /** @return array<string, mixed> the same from the index */
    private function indexed(PlainSorting $model): array
    {
        $bench = $this->bench();
        $scene = $bench->scene();
        $numbers = static function (Bits $rows) use ($scene): array {
            $numbers = array_map($scene->number(...), $rows->rows());
            sort($numbers);

            return $numbers;
        };
        $parents = $layers = $fire = $tags = $sets = [];
        foreach (range(1, $scene->count()) as $row) {
            $parents[$scene->number($row)] = $scene->parent($row) === 0 ? 0 : $scene->number($scene->parent($row));
        }
        foreach (array_keys($parents) as $number) {
            $layers[$number] = $scene->layers()->at($scene->row($number));
            $value = $bench->organizers()->own->at($scene, $scene->row($number), 'fire');
            $fire += $value === null ? [] : [$number => $value];
        }
        foreach ($bench->tags()->all() as $tag) {
            $tags[$tag->number] = $numbers($scene->tagged($tag->number));
        }
        foreach ($bench->sets()->all() as $set) {
            $sets[$set->number] = $numbers($bench->set($set)->rows);
        }
        $settings = $bench->outputs()->settings();
        $outputs = [];
        foreach (['L' => $settings->layers, 'T' => $settings->tags] as $letter => $values) {
            foreach ($values as $number => $value) {
                $outputs[$letter.$number] = $value;
            }
        }
        foreach ($settings->objects as $value => $those) {
            foreach ($those->rows() as $number) {
                $outputs["O$number"] = $value;
            }
        }
        ksort($outputs);
        ksort($parents);
        ksort($layers);
        ksort($fire);
        ksort($tags);
        ksort($sets);

        return [
            'parents' => $parents,
            'layers' => $layers,
            'tags' => $tags,
            'sets' => $sets,
            'fire' => $fire,
            'locked' => $numbers($bench->inEffect()->locked()),
            'outputs' => $outputs,
        ];
    }

    /** @return array<int, array{int, list<int>}> layer and tags of the locked objects, by number */
    private function locked(Bench $bench): array
    {
        $scene = $bench->scene();
        $locked = [];
        foreach ($bench->inEffect()->locked()->rows() as $row) {
            $tags = [];
            foreach ($bench->tags()->all() as $tag) {
                if ($scene->tagged($tag->number)->has($row)) {
                    $tags[] = $tag->number;
                }
            }
            $locked[$scene->number($row)] = [$scene->layers()->at($row), $tags];
        }

        return $locked;
    }

    /** @param array<int, array{int, list<int>}> $lockedBefore */
    private function assertWhole(Command $command, array $lockedBefore): void
    {
        $this->assertHomes();
        $bench = $this->bench();
        foreach ($lockedBefore as $number => [$layer, $tags]) {
            $row = $bench->scene()->row($number);
            self::assertGreaterThan(0, $row, "locked object $number is still there after {$command->name()}");
            self::assertSame($layer, $bench->scene()->layers()->at($row), "layer of locked object $number after {$command->name()}");
            foreach ($bench->tags()->all() as $tag) {
                self::assertSame(
                    in_array($tag->number, $tags, true),
                    $bench->scene()->tagged($tag->number)->has($row),
                    "tag $tag->name of locked object $number after {$command->name()}",
                );
            }
        }
    }
}
