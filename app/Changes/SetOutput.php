<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Bench\Targets;
use App\Changes\Edits\Edits;
use App\Changes\Edits\RowEdit;
use VineShelf\Folders\Folder;
use VineShelf\Layers\Layer;
use VineShelf\Output\Output;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\OneAtATime;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Tags\Tag;

/** What pictures show of layers, tags, folders of tags and objects is set, or set to nothing. */
final class SetOutput extends Command
{
    private const LONGEST_NOTE = 300;

    private readonly Edits $edits;

    private readonly string $title;

    /** @var list<RowEdit> */
    private array $rows = [];

    /**
     * @param Output|null $output null to set nothing
     * @param string      $note   why it is never in pictures; kept with that only
     */
    public function __construct(Bench $bench, Targets $targets, ?Output $output, string $note = '')
    {
        $note = $output === Output::Never ? trim((string) preg_replace('~\s+~u', ' ', $note)) : '';
        if (mb_strlen($note) > self::LONGEST_NOTE) {
            throw new Refused('The note has at most '.self::LONGEST_NOTE.' characters; it has '.mb_strlen($note).'.', 'note');
        }
        $locked = $targets->rows->and($bench->inEffect()->locked());
        $this->leftAlone = self::lockedInWords($locked->count());
        $targets = $targets->without($locked);
        foreach (['layers', 'tags', 'folders'] as $table) {
            foreach ($targets->$table as $number) {
                $this->set($bench, $table, $number, $output, $note);
            }
        }
        $this->hideSiblings($bench, $targets, $output);
        $value = $output === null ? null : rtrim($output->word().' '.$note);
        $this->edits = new Edits([...$this->rows, ...(new Valuing($bench, $targets->rows, OwnValue::OUTPUT, $value))->steps]);
        $this->title =
            match ($output) {
                null => 'Nothing set for pictures: ',
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

    private function set(Bench $bench, string $table, int $number, ?Output $output, string $note): void
    {
        $row = self::row($bench, $table, $number);
        if ($row->output !== $output || $row->outputNote !== $note) {
            $this->rows[] = new RowEdit(
                $table,
                $number,
                ['output' => $row->output?->value, 'output_note' => $row->outputNote],
                ['output' => $output?->value, 'output_note' => $note],
            );
        }
    }

    /** Of what is shown one at a time, the others are hidden when one is shown. */
    private function hideSiblings(Bench $bench, Targets $targets, ?Output $output): void
    {
        if ($output === null || $output->rung() === Rung::Hidden->value) {
            return;
        }
        $rung = Rung::from($output->rung() ?? Rung::Full->value);
        $rungs = static fn (array $values): array => array_map(
            static fn (int $value): int => Output::from($value)->rung() ?? Rung::Full->value,
            $values,
        );
        $settings = $bench->outputs()->settings();
        $before = (new Settings($rungs($settings->layers), [], $rungs($settings->tags), $rungs($settings->folders)))
            ->withLayers($targets->layers, $rung)
            ->withTags($targets->tags, $rung)
            ->withFolders($targets->folders, $rung);
        $after = OneAtATime::shown($before, $bench->organizers(), $targets->layers, $targets->tags, $targets->folders);
        foreach (['layers', 'tags', 'folders'] as $table) {
            foreach (array_diff_assoc($after->$table, $before->$table) as $number => $hidden) {
                $this->set($bench, $table, $number, Output::from($hidden), '');
            }
        }
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
