<?php

declare(strict_types=1);

namespace App\Intake;

use App\Files\Kept;
use App\Models\Import;

/**
 * Where an import's files lie: beside everything until it is in, then in the folder of its source. The file that was given is let go last.
 */
final readonly class Staging
{
    public function __construct(private Import $import) {}

    public function folder(): string
    {
        return 'staging/'.$this->import->key;
    }

    /** Where what is under the folder will lie in the end. */
    public function final(): string
    {
        return 'sources/'.$this->import->key;
    }

    /** Lets go of what an earlier try has left. */
    public function clear(): void
    {
        Kept::disk()->deleteDirectory($this->folder());
    }

    /** Puts the files in their place. @throws \App\Files\UnableToKeep */
    public function settle(): void
    {
        Kept::move($this->folder(), $this->final());
    }

    /** Leaves nothing behind of an import that did not get in. */
    public function abandon(): void
    {
        $this->clear();
        Kept::disk()->deleteDirectory($this->final());
        Original::letGo($this->import->original, $this->import->id);
        $this->letGo();
    }

    /** Lets go of the file that was given. */
    public function letGo(): void
    {
        Kept::disk()->delete($this->import->path);
    }
}
