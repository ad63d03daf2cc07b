<?php

declare(strict_types=1);

namespace VineShelf\Why;

use VineShelf\Locks\Lock;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;
use VineShelf\Scene\Bits;

/** One setting below Full, or above Open, in the chain of an object. */
final readonly class Cause
{
    public function __construct(
        /**
         * "layer", "tag", "folder", "object", "ceiling" of the whole desk, "filed" for what is filed right under a layer, or "isolation":
         * other objects are isolated.
         */
        public string $what,
        public int $number,
        /** Whether the setting is the object's own, and not one of a group or a layer above. */
        public bool $own,
        public ?Rung $rung,
        public ?Lock $lock,
    ) {}

    /** The settings with what holds the object down at Full. */
    public function raised(Settings $settings): Settings
    {
        return match ($this->what) {
            'layer' => $settings->withLayers([$this->number], Rung::Full),
            'filed' => $settings->withLayersAlone([$this->number], null),
            'tag' => $settings->withTags([$this->number], Rung::Full),
            'folder' => $settings->withFolders([$this->number], Rung::Full),
            'ceiling' => $settings->withCeiling(Rung::Full),
            'object' => $settings->withObjects(Bits::ofRows($this->number, [$this->number]), Rung::Full),
            default => $settings,
        };
    }
}
