<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\Keys;
use App\Bench\Organizer;
use App\Bench\OrganizerKind;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\ChangeOrganizer;
use App\Changes\ChangeRows;
use App\Changes\ChangeViews;
use App\Changes\CreateFolder;
use App\Changes\DeleteRows;
use App\Changes\History;
use App\Changes\MoveRows;
use App\Workbench\Answer;
use App\Workbench\DeskSteps;
use App\Workbench\HeldDown;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Colours\Line;
use VineShelf\Folders\Holds;
use VineShelf\Rungs\OneAtATime;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;

/** What is done alike to layers, tags, folders, sets and views: naming, moving, deleting, and what they say of themselves. */
final class OrganizerController
{
    private const MOST = 1000;

    public function __construct(private readonly History $history) {}

    public function update(Request $request, Bench $bench, string $row): Response
    {
        $text = static fn (string $field): string => $request->string($field)->value();
        $make = static fn (Bench $held): ChangeOrganizer|ChangeViews => match (true) {
            $request->has('note') && preg_match('~^V(\d{1,9})$~D', $row, $view) === 1 => ChangeViews::note(
                $held,
                (int) $view[1],
                $text('note'),
            ),
            $request->has('name') => ChangeOrganizer::rename($held, $row, $text('name')),
            $request->has('colour') => ChangeOrganizer::colour($held, $row, mb_strtolower($text('colour'))),
            $request->has('line') => ChangeOrganizer::line(
                $held,
                $row,
                Line::tryFrom($request->integer('line', -1)) ??
                    throw new Refused('Edges are none, solid, dashed, dotted or dash-dot.', 'line'),
            ),
            $request->has('note') => ChangeOrganizer::note($held, $row, $text('note')),
            $request->has('held_back') => ChangeOrganizer::holdBack($held, $row, $text('held_back')),
            $request->has('one_at_a_time') => ChangeOrganizer::oneAtATime($held, $row, $request->boolean('one_at_a_time')),
            $request->has('rule') => ChangeOrganizer::rule($held, $row, $text('rule')),
            default => throw new Refused('Say what is to change: name, colour, line, note, held_back, one_at_a_time or rule.', 'name'),
        };
        $command = $this->history->carryOut($bench, $make);
        $answer = Answer::to($bench, $request)->after($command, '')->with(self::shown($bench, $row));
        if ($command->change !== null && $request->boolean('one_at_a_time')) {
            $this->showFirst($bench, Organizer::named($bench, $row), $answer);
        }

        return $answer->send();
    }

    /** Of what is shown one at a time from now on, and of which the desk shows several, the first stays. */
    private function showFirst(Bench $bench, Organizer $holder, Answer $answer): void
    {
        $organizers = $bench->organizers();
        [, $stays, $others] = OneAtATime::first($bench->settings(), $organizers, $holder->key());
        if ($stays === null) {
            return;
        }
        $name = Organizer::named($bench, strtr($stays, 'M', 'T'))->name;
        DeskSteps::take(
            $bench,
            "$holder->name: $name",
            static fn (Settings $desk): Settings => OneAtATime::first($desk, $organizers, $holder->key())[0],
        );
        $answer->also("$name stays shown on your desk, the ".($others === 1 ? 'other is' : "$others others are").' hidden.', 'both');
    }

    /** Several rows, with what is nested in them where that is asked for, get a colour, colours anew, edges or a note. */
    public function updateSeveral(Request $request, Bench $bench): Response
    {
        $keys = self::keys($request);
        $nested = $request->boolean('nested');
        $command = $this->history->carryOut($bench, static fn (Bench $held): ChangeRows => match (true) {
            $request->has('colour') => ChangeRows::colour($held, $keys, $nested, mb_strtolower($request->string('colour')->value())),
            $request->boolean('anew') => ChangeRows::coloursAnew($held, $keys, $nested),
            $request->has('line') => ChangeRows::line(
                $held,
                $keys,
                $nested,
                Line::tryFrom($request->integer('line', -1)) ??
                    throw new Refused('Edges are none, solid, dashed, dotted or dash-dot.', 'line'),
            ),
            $request->has('note') => ChangeRows::note($held, $keys, $nested, $request->string('note')->value()),
            $request->has('held_back') => ChangeRows::holdBack($held, $keys, $nested, $request->string('held_back')->value()),
            default => throw new Refused('Say what is to change: colour, anew, line, note or held_back.', 'colour'),
        });

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    /** Asks for a note. */
    public function note(Request $request, Bench $bench, string $row): View
    {
        $found = Organizer::named($bench, $row);
        $note = match ($found->kind) {
            OrganizerKind::Layer => $bench->layers()->get($found->number)->note,
            OrganizerKind::Tag => $bench->tags()->get($found->number)->note,
            OrganizerKind::Set => $bench->sets()->get($found->number)->note,
            OrganizerKind::View => $bench->shelf()->members[$found->number]->note,
            default => throw new Refused(ucfirst($found->kind->table()).' do not have notes.', 'keys'),
        };

        return view('workbench.note', [
            'bench' => $bench,
            'row' => $found,
            'note' => $note,
            'keys' => $request->string('keys')->value(),
            'nested' => $request->boolean('nested'),
        ]);
    }

    /** Asks why exports are to leave out what is in a layer. */
    public function askHoldBack(Request $request, Bench $bench, string $row): View
    {
        $found = Organizer::named($bench, $row);
        if ($found->kind !== OrganizerKind::Layer) {
            throw new Refused('Layers, objects and files can be kept out of exports.', 'keys');
        }

        $keys = $request->string('keys')->value();
        $count = count(explode(',', $keys));

        return view('workbench.hold-back', [
            'address' => $keys === '' ? route('rows.update', [$bench->project, $row]) : route('rows.updateSeveral', $bench->project),
            'method' => 'patch',
            'field' => 'held_back',
            'with' => $keys === '' ? [] : ['keys' => $keys, 'nested' => $request->boolean('nested') ? 1 : 0],
            'what' => 'what is in '.($count > 1 ? "$count layers" : $found->name),
            'reason' => $bench->layers()->get($found->number)->heldBack,
        ]);
    }

    /** Offers where rows can move. */
    public function askMove(Request $request, Bench $bench): View
    {
        $rows = array_map(static fn (string $key): Organizer => Organizer::named($bench, $key), self::keys($request));
        $barred = [];
        foreach ($rows as $row) {
            foreach ($row->withNested($bench) as $nested) {
                $barred[$nested->key()] = true;
            }
        }
        $places = $stack = [];
        foreach (array_reverse(Organizer::inside($bench, $rows[0]->family, 0)) as $top) {
            $stack[] = [$top, 0];
        }
        while (($next = array_pop($stack)) !== null) {
            [$row, $depth] = $next;
            if (! $row->holdsOthers() || $row->isUnsorted() || isset($barred[$row->key()])) {
                continue;
            }
            $places[] = $next;
            foreach (array_reverse(Organizer::inside($bench, $row->family, $row->number)) as $inner) {
                $stack[] = [$inner, $depth + 1];
            }
        }

        return view('workbench.move-to', ['bench' => $bench, 'rows' => $rows, 'places' => $places]);
    }

    public function move(Request $request, Bench $bench): Response
    {
        $keys = self::keys($request);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): MoveRows => new MoveRows(
                $held,
                $keys,
                $request->string('where', 'into')->value(),
                $request->string('mark')->value(),
            ),
        );

        return Answer::to($bench, $request)
            ->after($command, 'It stands there already.')
            ->with(self::shown($bench, $keys[0]) + ['selected' => $keys])
            ->send();
    }

    public function folder(Request $request, Bench $bench): Response
    {
        $given = $request->validate(['holds' => ['required', 'in:tags,sets,views'], 'parent' => ['nullable', 'integer']]);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): CreateFolder => new CreateFolder(
                $held,
                Holds::from($given['holds']),
                $request->string('name')->value(),
                (int) ($given['parent'] ?? 0),
                $request->string('around')->value() === '' ? [] : self::listed($request->string('around')->value()),
            ),
        );

        return Answer::to($bench, $request)->after($command, '')->with(self::shown($bench, "F$command->number"))->send();
    }

    /** Asks whether what is in folders goes with them. */
    public function askDelete(Request $request, Bench $bench): View
    {
        $rows = array_map(static fn (string $key): Organizer => Organizer::named($bench, $key), self::keys($request));
        $inside = [];
        foreach ($rows as $row) {
            foreach (array_slice($row->withNested($bench), 1) as $nested) {
                $inside[$nested->key()] = $nested;
            }
        }

        return view('workbench.delete-rows', [
            'bench' => $bench,
            'rows' => $rows,
            'inside' => array_diff_key($inside, array_fill_keys(array_map(static fn (Organizer $row): string => $row->key(), $rows), true)),
        ]);
    }

    public function destroy(Request $request, Bench $bench): Response
    {
        $keys = self::keys($request);
        $withContent = $request->boolean('with_content');
        $command = $this->history->carryOut($bench, static fn (Bench $held): DeleteRows => new DeleteRows($held, $keys, $withContent));

        return Answer::to($bench, $request)->after($command, '')->send();
    }

    /** Shows the next of what a folder or layer shows one at a time, or one of them by its own key. */
    public function turn(Request $request, Bench $bench): Response
    {
        $row = Organizer::named($bench, $request->string('row')->value());
        $way = $request->integer('way', 1) < 0 ? -1 : 1;
        $holder = self::holder($bench, $row);
        $organizers = $bench->organizers();
        [, $shown] = OneAtATime::next($bench->settings(), $organizers, $holder->key(), $way);
        if ($shown === null) {
            throw new Refused("Nothing lies in $holder->name to be shown.", 'row');
        }
        $next = Organizer::named($bench, strtr($shown, 'M', 'T'));
        $changed = DeskSteps::take(
            $bench,
            "$holder->name: $next->name",
            static fn (Settings $desk): Settings => OneAtATime::next($desk, $organizers, $holder->key(), $way)[0],
        );

        $reached = Targets::named(Keys::of([$next->key()]), $bench)->reached($bench);

        return Answer::to($bench, $request)
            ->saying("$holder->name: $next->name.", $changed ? 'desk' : '')
            ->with(['focus' => $next->key()])
            ->held(HeldDown::below($bench, $bench->side(false), $reached, Rung::Full), $next->key())
            ->send();
    }

    /** @return array<string, string> what brings a row into sight, in the ledger or on the shelf */
    private static function shown(Bench $bench, string $key): array
    {
        return [Organizer::find($bench, $key)?->family === 'views' ? 'shelf' : 'focus' => $key];
    }

    /** @throws Refused when neither the row nor what it lies in shows its members one at a time */
    private static function holder(Bench $bench, Organizer $row): Organizer
    {
        $isOne = static fn (Organizer $of): bool => match ($of->kind) {
            OrganizerKind::Layer => $bench->layers()->get($of->number)->oneAtATime,
            OrganizerKind::Folder => $bench->tags()->hasFolder($of->number) && $bench->tags()->folder($of->number)->oneAtATime,
            default => false,
        };
        $above = $row->parent === 0 ? null : Organizer::find($bench, ($row->family === 'layers' ? 'L' : 'F').$row->parent);

        return match (true) {
            $isOne($row) => $row,
            $above !== null && $isOne($above) => $above,
            default => throw new Refused("Neither $row->name nor what it lies in is shown one at a time.", 'row'),
        };
    }

    /** @return non-empty-list<string> @throws Refused */
    private static function keys(Request $request): array
    {
        return self::listed($request->string('keys')->value());
    }

    /** @return non-empty-list<string> @throws Refused */
    private static function listed(string $keys): array
    {
        $keys = array_values(array_filter(explode(',', $keys), static fn (string $key): bool => $key !== ''));
        if ($keys === [] || count($keys) > self::MOST) {
            throw new Refused(
                $keys === [] ? 'Say which rows are meant.' : 'At most '.number_format(self::MOST).' rows go at once.',
                'keys',
            );
        }

        return $keys;
    }
}
