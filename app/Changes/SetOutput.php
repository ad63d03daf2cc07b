<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\Edits\Edits;
use App\Changes\Edits\MembersEdit;
use App\Changes\Edits\RowEdit;
use VineShelf\Folders\Folder;
use VineShelf\Layers\Layer;
use VineShelf\Output\Output;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\OneAtATime;
use VineShelf\Rungs\OutputSettings;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Rungs\Turn;
use VineShelf\Scene\Bits;
use VineShelf\Tags\Tag;

/** What pictures show of layers, tags, folders of tags and objects is set, or set to nothing. */
final class SetOutput extends Command
{
    private const LONGEST_NOTE = 300;

    private readonly Edits $edits;

    private readonly string $note;

    private readonly string $title;

    /** @var list<RowEdit> */
    private array $rows = [];

    /**
     * @param Output|Turn|null $output null to set nothing; or rows are hidden in pictures, or given back what they had before they were
     * @param string      $note   why it is never in pictures; kept with that only
     */
    public function __construct(Bench $bench, Targets $targets, Output|Turn|null $output, string $note = '')
    {
        $this->note = $output === Output::Never ? trim((string) preg_replace('~\s+~u', ' ', $note)) : '';
        if (mb_strlen($this->note) > self::LONGEST_NOTE) {
            throw new Refused('The note has at most '.self::LONGEST_NOTE.' characters; it has '.mb_strlen($this->note).'.', 'note');
        }
        $locked = $targets->rows->and($bench->inEffect()->locked());
        $this->leftAlone = self::lockedInWords($locked->count());
        $targets = $targets->without($locked);
        foreach (['layers', 'tags', 'folders'] as $table) {
            foreach ($targets->$table as $number) {
                $this->set($bench, $table, $number, $output);
            }
        }
        $this->hideSiblings($bench, $targets, $output);
        $this->edits = new Edits([...$this->rows, ...$this->ofObjects($bench, $targets->rows, $output)]);
        $this->title =
            match ($output) {
                null => 'Nothing set for pictures: ',
                Turn::Hide => 'In pictures hidden: ',
                Turn::Back => 'Shown again in pictures: ',
                Output::Never => 'Never in pictures: ',
                default => 'In pictures '.lcfirst($output->label()).': ',
            }.$targets->inWords($bench);
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }

    private function set(Bench $bench, string $table, int $number, Output|Turn|null $to): void
    {
        $row = self::row($bench, $table, $number);
        [$output, $note] = $this->becomes($row->output, $row->outputNote, $to);
        if ($row->output !== $output || $row->outputNote !== $note) {
            $this->rows[] = new RowEdit(
                $table,
                $number,
                ['output' => $row->output?->value, 'output_note' => $row->outputNote],
                ['output' => $output?->value, 'output_note' => $note],
            );
        }
    }

    /**
     * What is set for a row, and the note with it, from what was: a row that is hidden remembers what it had. A click leaves what is never
     * in pictures as it is.
     *
     * @return array{Output|null, string}
     */
    private function becomes(?Output $now, string $note, Output|Turn|null $to): array
    {
        if ($to === Turn::Back) {
            return $now === Output::Hidden ? [OutputSettings::before($note), ''] : [$now, $note];
        }
        if ($now === Output::Hidden && ($to === Turn::Hide || $to === Output::Hidden) || ($now === Output::Never && $to === Turn::Hide)) {
            return [$now, $note];
        }
        if ($to === Turn::Hide || $to === Output::Hidden) {
            return [Output::Hidden, OutputSettings::remembering($now)];
        }

        return [$to, $this->note];
    }

    /**
     * The same for objects: those that have the same setting go together.
     *
     * @return list<MembersEdit|RowEdit>
     */
    private function ofObjects(Bench $bench, Bits $rows, Output|Turn|null $to): array
    {
        $steps = [];
        $left = $rows;
        foreach ($bench->organizers()->own->values(OwnValue::OUTPUT) as $value) {
            $have = $rows->and($bench->scene()->valued($value->number));
            $left = $left->without($have);
            $becomes = $this->becomes(OutputSettings::read($value->value), OutputSettings::note($value->value), $to);
            array_push($steps, ...$this->valuing($bench, $have, $becomes));
        }

        return [...$steps, ...$this->valuing($bench, $left, $this->becomes(null, '', $to))];
    }

    /**
     * @param array{Output|null, string} $becomes
     *
     * @return list<MembersEdit|RowEdit>
     */
    private function valuing(Bench $bench, Bits $rows, array $becomes): array
    {
        [$output, $note] = $becomes;

        return $rows->isEmpty()
            ? []
            : (new Valuing($bench, $rows, OwnValue::OUTPUT, $output === null ? null : rtrim($output->word().' '.$note)))->steps;
    }

    /** Of what is shown one at a time, the others are hidden when one is shown. */
    private function hideSiblings(Bench $bench, Targets $targets, Output|Turn|null $output): void
    {
        if ($output === null || $output === Turn::Hide || ($output instanceof Output && $output->rung() === Rung::Hidden->value)) {
            return;
        }
        $rung = Rung::from($output instanceof Output ? $output->rung() ?? Rung::Full->value : Rung::Full->value);
        $rungs = static fn (array $values): array => array_map(
            static fn (int $value): int => Output::from($value)->rung() ?? Rung::Full->value,
            $values,
        );
        $settings = $bench->outputs()->settings();
        $shown = $output === Turn::Back ? self::hidden($settings, $targets) : [$targets->layers, $targets->tags, $targets->folders];
        $before = (new Settings($rungs($settings->layers), [], $rungs($settings->tags), $rungs($settings->folders)))
            ->withLayers($targets->layers, $rung)
            ->withTags($targets->tags, $rung)
            ->withFolders($targets->folders, $rung);
        $after = OneAtATime::shown($before, $bench->organizers(), ...$shown);
        foreach (['layers', 'tags', 'folders'] as $table) {
            foreach (array_diff_assoc($after->$table, $before->$table) as $number => $hidden) {
                $this->set($bench, $table, $number, Output::from($hidden));
            }
        }
    }

    /** @return array{list<int>, list<int>, list<int>} those layers, tags and folders of tags that are hidden in pictures */
    private static function hidden(OutputSettings $settings, Targets $targets): array
    {
        $hidden = static fn (array $numbers, string $what): array => array_values(
            array_filter($numbers, static fn (int $number): bool => $settings->value($what, $number) === Output::Hidden),
        );

        return [$hidden($targets->layers, 'layer'), $hidden($targets->tags, 'tag'), $hidden($targets->folders, 'folder')];
    }

    private static function row(Bench $bench, string $table, int $number): Layer|Tag|Folder
    {
        return match ($table) {
            'layers' => $bench->layers()->get($number),
            'tags' => $bench->tags()->get($number),
            default => $bench->tags()->folder($number),
        };
    }
}
