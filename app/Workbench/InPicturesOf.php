<?php

declare(strict_types=1);

namespace App\Workbench;

use App\Bench\Bench;
use App\Bench\Targets;
use VineShelf\Output\Output;
use VineShelf\Own\OwnValue;
use VineShelf\Rungs\OutputSettings;

/** What is set for pictures on some rows now. */
final readonly class InPicturesOf
{
    public string $what;

    /** "none", the word of a setting, or "" where they differ. */
    public string $now;

    public string $note;

    public function __construct(Bench $bench, Targets $targets)
    {
        $this->what = $targets->inWords($bench);
        $found = [];
        foreach (['layers' => $bench->layers(), 'tags' => $bench->tags()] as $table => $tree) {
            foreach ($targets->$table as $number) {
                $row = $tree->get($number);
                $found[self::key($row->output, $row->outputNote)] = true;
            }
        }
        foreach ($targets->folders as $number) {
            $folder = $bench->tags()->folder($number);
            $found[self::key($folder->output, $folder->outputNote)] = true;
        }
        $left = $targets->rows;
        foreach ($bench->organizers()->own->values(OwnValue::OUTPUT) as $value) {
            $have = $left->and($bench->scene()->valued($value->number));
            if (! $have->isEmpty()) {
                $found[self::key(OutputSettings::read($value->value), OutputSettings::note($value->value))] = true;
                $left = $left->without($have);
            }
        }
        if (! $left->isEmpty()) {
            $found['none '] = true;
        }
        [$this->now, $note] = count($found) === 1 ? explode(' ', (string) array_key_first($found), 2) : ['', ''];
        // A hidden row's note says what it had before.
        $this->note = $this->now === Output::Never->word() ? $note : '';
    }

    private static function key(?Output $output, string $note): string
    {
        return ($output?->word() ?? 'none').' '.$note;
    }
}
