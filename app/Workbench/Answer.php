<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Changes\Command;
use App\Changes\History;
use App\Changes\Turned;
use App\Database\ReadSnapshot;
use App\Ledger\Ledger;
use App\Models\Change;
use Illuminate\Http\Request;
use Illuminate\Http\Response;
use VineShelf\Rungs\Rung;
use VineShelf\Scene\Bits;

/** The parts of the workbench as they are after an action, for htmx to put in place. */
final class Answer
{
    private string $message = '';

    /** "project", "desk" or "both": which undo takes the answered change back; empty for none. */
    private string $undo = '';

    private bool $warns = false;

    private ?Change $instead = null;

    private bool $insteadUndoes = true;

    private ?int $change = null;

    private int $viewsDiffer = 0;

    private ?HeldDown $held = null;

    private string $heldKeys = '';

    /** @var array<string, mixed> */
    private array $more = [];

    public function __construct(private readonly Bench $bench, private readonly Request $request) {}

    public static function to(Bench $bench, Request $request): self
    {
        return new self($bench, $request);
    }

    public function saying(string $message, string $undo = '', bool $warns = false): self
    {
        $this->message = $message;
        $this->undo = $undo;
        $this->warns = $warns;

        return $this;
    }

    public function after(Command $command, string $nothing): self
    {
        $done = $command->change === null ? $nothing : $command->name().'.';
        $this->change = $command->change;

        $this->viewsDiffer = $command->viewsCanStay ? $command->viewsDiffer : 0;

        return $this->saying(
            trim("$done $command->leftAlone").($command->viewsDiffer > 0 ? ' '.$command->viewsInWords() : ''),
            $command->change === null ? '' : 'project',
            $command->leftAlone !== '',
        );
    }

    /** One sentence more. @param string $undo what takes back all of it, as {@see saying()} has it */
    public function also(string $sentence, string $undo): self
    {
        $this->message = trim("$this->message $sentence");
        $this->undo = $undo;

        return $this;
    }

    /**
     * Says what still holds what was to be raised, and offers to mend it.
     *
     * @param string $keys of the rows that were; those of the request otherwise
     */
    public function held(?HeldDown $held, string $keys = ''): self
    {
        $this->held = $held;
        $this->heldKeys = $keys;
        $this->message = trim("$this->message {$held?->inWords()}");
        $this->warns = $this->warns || $held !== null;

        return $this;
    }

    /** What came of taking a change back or doing it again; offers what can be done instead. */
    public function turning(Turned $turned): self
    {
        $this->instead = $turned->instead;
        $this->insteadUndoes = $turned->undo;

        return $this->saying($turned->sentence, '', $turned->change === null && $turned->instead !== null);
    }

    /** @param array<string, mixed> $more for the script: "frame" to fit the pick, "camera" to fly to, "focus" for a ledger row */
    public function with(array $more): self
    {
        $this->more = $more + $this->more;

        return $this;
    }

    public function send(): Response
    {
        $this->bench->catchUp();

        return response()->view(
            'workbench.answer',
            self::parts($this->bench, $this->request) + [
                'message' => trim(
                    $this->message.
                        (in_array($this->undo, ['desk', 'both'], true) && $this->bench->desk->shows_output
                            ? ' You are looking at the output.'
                            : ''),
                ),
                'undo' => $this->undo,
                'change' => $this->change,
                'viewsDiffer' => $this->viewsDiffer,
                'instead' => $this->instead,
                'insteadUndoes' => $this->insteadUndoes,
                'warns' => $this->warns,
                'held' => $this->held,
                'heldKeys' => $this->heldKeys === '' ? $this->request->string('keys')->value() : $this->heldKeys,
                'heldOn' => $this->request->string('on')->value(),
                'more' => $this->more,
            ],
        );
    }

    /** @return array{triangles: int, drawn: int} at Full, and at the rungs in effect */
    private static function weight(Bench $bench): array
    {
        $count = $bench->scene()->count();

        return [
            'triangles' => $count === 0 ? 0 : $bench->scene()->triangles(1, $count),
            'drawn' => self::drawn($bench),
        ];
    }

    /** Triangles at the rungs in effect; remembered, because people go back and forth between views. */
    private static function drawn(Bench $bench): int
    {
        $rungs = $bench->seen()->rungs();
        $drawn = static fn (): int => $bench->weights()->drawn(Bits::all($bench->scene()->count()), $rungs);
        if (! apcu_enabled() || ! ReadSnapshot::isOn()) {
            return $drawn();
        }
        $project = $bench->project;
        $entry = "drawn.$project->key.$project->revision.$project->next_pack.$project->meshed.".md5($rungs->bytes());
        $known = apcu_fetch($entry);
        if (! is_int($known)) {
            $known = $drawn();
            apcu_store($entry, $known, 600);
        }

        return $known;
    }

    /** @return array<string, mixed> what the workbench's parts are drawn from */
    public static function parts(Bench $bench, Request $request): array
    {
        [$undoable, $redoable] = app(History::class)->next($bench->project, $bench->person);
        [$deskUndoable, $deskRedoable] = DeskSteps::next($bench->desk);
        $current = $bench->view();
        $stamp = OnShelf::stamp($bench->project);

        return [
            'bench' => $bench,
            'ledger' => Ledger::asked($bench, $request),
            'card' => PickCard::of($bench),
            'weight' => self::weight($bench),
            'hidden' => $bench->shown()->inEffect->rungs()->histogram()[Rung::Hidden->value] ?? 0,
            'shelfStamp' => $stamp,
            'shelfIsKnown' => $request->string('shelf')->value() === $stamp,
            'differs' => $current === null ? [] : (new FromView($bench, $current))->inWords(),
            'differ' => $bench->outputs()->difference()->count(),
            'undoable' => $undoable,
            'redoable' => $redoable,
            'deskUndoable' => $deskUndoable,
            'deskRedoable' => $deskRedoable,
            'state' => CanvasState::of($bench),
        ];
    }
}
