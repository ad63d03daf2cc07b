<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Bench\Bench;
use App\Bench\DeskChange;
use App\Bench\Refused;
use App\Changes\ChangeLines;
use App\Changes\ChangeSetting;
use App\Changes\History;
use App\Changes\LinesAlong;
use App\Changes\SortByLines;
use App\Models\Desk;
use App\SortingRules\DryRun;
use App\SortingRules\ReadOff;
use App\SortingRules\StoredLine;
use App\Workbench\Answer;
use App\Workbench\PickMode;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use Illuminate\View\View;
use VineShelf\Exchange\SortingLine;
use VineShelf\Exchange\SortingRules;
use VineShelf\Exchange\UnreadableSorting;
use VineShelf\Scene\Bits;
use VineShelf\Scene\Pick;

/** The list of rules by which a project is sorted: shows what it would do, changes it, runs it, takes it from project to project. */
final class SortingRulesController
{
    private const LONGEST = 2_000_000;

    /** What a number on the screen stands for, and can be picked by it. */
    private const PICKS = ['found', 'taken', 'filed', 'named', 'tagged', 'locked', 'fight', 'untaken', 'left', 'changed'];

    public function __construct(private readonly History $history) {}

    public function show(Request $request, Bench $bench): View
    {
        return view('workbench.sorting-rules', [
            'bench' => $bench,
            'dry' => new DryRun($bench, StoredLine::all($bench->project)),
            'picked' => $bench->pick()->count() === 0 ? null : $bench->pickedWithHeld(),
            'open' => $request->integer('open'),
        ]);
    }

    /** Picks what a number on the screen counts. */
    public function pick(Request $request, Bench $bench): Response
    {
        $mode = PickMode::in($request);
        $given = $request->validate([
            'what' => ['required', 'in:'.implode(',', self::PICKS)],
            'line' => ['nullable', 'integer', 'min:0', 'max:999999999'],
            'other' => ['nullable', 'integer', 'min:0', 'max:999999999'],
            'layer' => ['nullable', 'integer', 'min:0', 'max:999999999'],
        ]);
        $rows = $this->counted(
            $bench,
            (string) $given['what'],
            $request->integer('line'),
            $request->integer('other'),
            $request->integer('layer'),
        );
        $numbers = $bench->scene()->numberBits($rows);
        DeskChange::on($bench, static fn (Desk $desk) => $desk->putPick($mode->of($desk->pick(), Pick::of(), $numbers)));

        return Answer::to($bench, $request)->send();
    }

    /** Asks what a line is to say; a new one when none is named. */
    public function ask(Request $request, Bench $bench): View
    {
        $number = $request->integer('line');
        $lines = StoredLine::all($bench->project);
        $line = array_values(array_filter($lines, static fn (StoredLine $line): bool => $line->number === $number))[0] ?? null;

        return view('workbench.sorting-line', [
            'bench' => $bench,
            'line' => $line,
            'written' => $line?->toFile($bench) ?? new SortingLine(mb_substr($request->string('rule')->value(), 0, 4000)),
        ]);
    }

    public function store(Request $request, Bench $bench): Response
    {
        $line = self::written($request);
        $command = $this->history->carryOut($bench, static fn (Bench $held): ChangeLines => ChangeLines::add($held, $line));

        return Answer::to($bench, $request)->after($command, '')->send();
    }

    public function update(Request $request, Bench $bench, int $line): Response
    {
        $written = self::written($request);
        $command = $this->history->carryOut($bench, static fn (Bench $held): ChangeLines => ChangeLines::write($held, $line, $written));

        return Answer::to($bench, $request)->after($command, 'It says that already.')->send();
    }

    public function act(Request $request, Bench $bench, int $line, string $act): Response
    {
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ChangeLines => match ($act) {
                'on', 'off' => ChangeLines::turn($held, $line, $act === 'off'),
                'up', 'down' => ChangeLines::move($held, $line, $act === 'up' ? -1 : 1),
                'delete' => ChangeLines::delete($held, $line),
                default => ChangeLines::duplicate($held, $line),
            },
        );

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    /** Moves a line to a place. */
    public function move(Request $request, Bench $bench, int $line): Response
    {
        $given = $request->validate(['by' => ['required', 'integer', 'between:-1000,1000']]);
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ChangeLines => ChangeLines::move($held, $line, (int) $given['by']),
        );

        return Answer::to($bench, $request)->after($command, 'It is there already.')->send();
    }

    /** Sorts by the whole list, or by one of its lines. */
    public function run(Request $request, Bench $bench): Response
    {
        $only = $request->integer('line');
        $command = $this->history->carryOut($bench, static function (Bench $held) use ($only): SortByLines {
            $lines = StoredLine::all($held->project);
            $those = array_filter($lines, static fn (StoredLine $line): bool => $only === 0 || $line->number === $only);
            if ($those === []) {
                throw new Refused($lines === [] ? 'There are no sorting rules yet.' : 'That sorting rule is no longer there.', 'rule');
            }
            $dry = new DryRun($held, array_values($those));
            if ($dry->running() === 0) {
                throw new Refused(array_values($dry->troubles)[0] ?? 'All sorting rules are off.', 'rule');
            }

            return new SortByLines($held, $dry);
        });

        return Answer::to($bench, $request)->after($command, 'All of it is sorted so already.')->send();
    }

    /** Whether what comes in is sorted at once. */
    public function coming(Request $request, Bench $bench): Response
    {
        $on = $request->boolean('on');
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ChangeSetting => new ChangeSetting(
                $held,
                'sorts_what_comes',
                $on,
                $on ? 'Sort what comes in by rules' : 'Leave what comes in as it is filed',
            ),
        );

        return Answer::to($bench, $request)->after($command, 'It is so already.')->send();
    }

    public function file(Bench $bench): Response
    {
        $lines = array_map(static fn (StoredLine $line): SortingLine => $line->toFile($bench), StoredLine::all($bench->project));
        $name = preg_replace('~[^\p{L}\p{N} _-]+~u', ' ', $bench->project->name).' sorting rules.json';

        return response((new SortingRules($lines))->write(), 200, [
            'Content-Type' => 'application/json; charset=UTF-8',
            'Content-Disposition' => "attachment; filename*=UTF-8''".rawurlencode($name),
        ]);
    }

    /** Says what a list from elsewhere brings, and asks what becomes of the layers and tags that are not here. */
    public function askRead(Request $request, Bench $bench): View
    {
        $list = self::list($request);
        [$layers, $tags] = LinesAlong::unknown($bench, $list);

        return view('workbench.sorting-read', [
            'bench' => $bench,
            'list' => $list,
            'layers' => $layers,
            'tags' => $tags,
            'has' => count(StoredLine::all($bench->project)),
        ]);
    }

    /** Lines that explain how the project is filed. */
    public function propose(Request $request, Bench $bench): View
    {
        return view('workbench.sorting-proposed', ['bench' => $bench] + ReadOff::of($bench, $request->boolean('repeating'))->shown());
    }

    public function read(Request $request, Bench $bench): Response
    {
        $list = self::list($request);
        // Lines of a proposal that somebody has not ticked stay out.
        if ($request->boolean('chosen')) {
            $kept = array_filter(array_keys($list->lines), static fn (int $at): bool => $request->boolean("line-$at"));
            $list = new SortingRules(array_map(static fn (int $at): SortingLine => $list->lines[$at], array_values($kept)));
        }
        if ($list->lines === []) {
            throw new Refused('There is no line in it.', 'list');
        }
        [$layers, $tags] = LinesAlong::unknown($bench, $list);
        $named = static fn (string $what, array $paths): array => array_combine(
            $paths,
            array_map(
                static fn (int $at): string => $request->has("$what-$at") ? $request->string("$what-$at")->value() : $paths[$at],
                array_keys($paths),
            ),
        );
        $command = $this->history->carryOut(
            $bench,
            static fn (Bench $held): ChangeLines => ChangeLines::read(
                $held,
                $list,
                $request->string('way')->value() === 'replace',
                $named('layer', $layers),
                $named('tag', $tags),
            ),
        );

        return Answer::to($bench, $request)->after($command, '')->send();
    }

    /** @throws Refused */
    private function counted(Bench $bench, string $what, int $line, int $other, int $layer): Bits
    {
        $dry = new DryRun($bench, StoredLine::all($bench->project));
        if (in_array($what, ['untaken', 'left', 'changed'], true)) {
            return match ($what) {
                'untaken' => $dry->run->untaken,
                'left' => $dry->run->left(),
                default => $dry->run->changed(),
            };
        }
        $place = array_search($line, array_map(static fn (StoredLine $each): int => $each->number, $dry->lines), true);
        if ($place === false) {
            throw new Refused('That sorting rule is no longer there.', 'line');
        }
        $took = $dry->run->took[$place];
        $none = Bits::none($bench->scene()->count());
        if ($what === 'fight') {
            foreach ($dry->run->fights as $fight) {
                if ($fight->winner === $place && $dry->lines[$fight->other]->number === $other) {
                    return $fight->rows;
                }
            }

            return $none;
        }

        return match ($what) {
            'found' => $dry->matched[$place] ?? $none,
            'filed' => $layer === 0
                ? $took->filed
                : $took->filed->and(
                    $bench
                        ->scene()
                        ->layers()
                        ->rowsOf([$layer => true]),
                ),
            'named' => $took->named,
            'tagged' => array_reduce($took->tagged, static fn (Bits $all, Bits $rows): Bits => $all->or($rows), $none),
            'locked' => $took->left,
            default => $took->rows,
        };
    }

    /** @throws Refused */
    private static function list(Request $request): SortingRules
    {
        $text = $request->string('list')->value();
        if (strlen($text) > self::LONGEST) {
            throw new Refused('A list of sorting rules has at most '.intdiv(self::LONGEST, 1_000_000).' MB.', 'list');
        }
        try {
            return SortingRules::read($text);
        } catch (UnreadableSorting $unreadable) {
            throw new Refused($unreadable->getMessage(), 'list');
        }
    }

    /** What somebody has filled in. @throws Refused */
    private static function written(Request $request): SortingLine
    {
        $text = static fn (string $field): string => trim($request->string($field)->value());
        $tags = array_values(array_filter(array_map(trim(...), explode(';', $text('tags')))));
        try {
            // What a file may hold is what may be filled in.
            $read = SortingRules::read(
                (string) json_encode([
                    'format' => SortingRules::FORMAT,
                    'version' => 1,
                    'lines' => [
                        [
                            'rule' => $text('rule'),
                            'layer' => $text('layer') === '' ? [] : $text('layer'),
                            'tags' => $tags,
                            'name' => $text('name'),
                            'only' => $request->boolean('only'),
                            'goesOn' => $request->boolean('goes_on'),
                            'note' => $text('note'),
                        ],
                    ],
                ]),
            );
        } catch (UnreadableSorting $unreadable) {
            $field = preg_match('~lines\[0\]\.(\w+)~', $unreadable->getMessage(), $found) === 1 ? $found[1] : 'rule';
            throw new Refused(
                $text('rule') === ''
                    ? 'A sorting rule needs a rule.'
                    : str_replace(['The sorting cannot be read: ', 'lines[0].'], ['', 'The '], $unreadable->getMessage()),
                $field,
            );
        }

        return $read->lines[0];
    }
}
