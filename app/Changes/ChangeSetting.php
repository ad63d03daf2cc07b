<?php

declare(strict_types=1);

namespace App\Changes;

use App\Bench\Bench;
use App\Changes\Edits\Edits;
use App\Changes\Edits\SettingEdit;

/** A setting of the project is turned on or off. */
final class ChangeSetting extends Command
{
    private readonly Edits $edits;

    public function __construct(Bench $bench, string $setting, bool $on, private readonly string $title)
    {
        $was = (bool) $bench->project->getAttribute($setting);
        $this->edits = new Edits($was === $on ? [] : [new SettingEdit($setting, $was, $on)]);
    }

    public function name(): string
    {
        return $this->title;
    }

    public function edits(): Edits
    {
        return $this->edits;
    }
}
