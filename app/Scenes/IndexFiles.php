<?php

declare(strict_types=1);

namespace App\Scenes;

use App\Files\Kept;
use App\Files\UnableToKeep;
use App\Models\Project;
use Illuminate\Support\Facades\Log;

/**
 * The files of a project's scene index, and the memory that the processes of this machine share of them. None changes once it is written,
 * so they can be remembered anywhere.
 */
final readonly class IndexFiles
{
    /** Raised when a column is laid out differently: indexes of another layout are not read and built again. */
    public const LAYOUT = 13;

    /** Before a derived column: a mark and its length. */
    private const HEAD = 'VSHC';

    /** Seconds that a file is remembered. */
    private const REMEMBERED = 3600;

    public string $folder;

    public function __construct(private Project $project)
    {
        $this->folder = $project->folder().'/index-'.self::LAYOUT;
    }

    /** Where the manifest of a revision's base columns is. */
    public function base(int $revision): string
    {
        return "$this->folder/$revision.json";
    }

    /** Where the manifest of what the files say of objects is. */
    public function facts(string $stamp): string
    {
        return "$this->folder/facts-$stamp.json";
    }

    /**
     * What a derived column is called: by its name and what it follows from.
     *
     * @param list<string> $from files or names of the columns that it needs
     */
    public function derived(string $name, array $from): string
    {
        return "$this->folder/~$name.".hash('xxh128', $name."\0".implode("\0", $from));
    }

    public function manifest(string $file): ?Manifest
    {
        $packed = self::remembered($file, static fn (): ?string => Kept::get($file));

        return $packed === null ? null : Manifest::unpack($packed);
    }

    /** @throws UnableToKeep */
    public function keepManifest(string $file, Manifest $manifest): Manifest
    {
        Kept::put($file, $manifest->pack());
        self::remember($file, $manifest->pack());

        return $manifest;
    }

    /** The bytes of a column's file; null when it is not there as long as it should be. */
    public function column(string $file, int $length): ?string
    {
        return self::remembered($file, static fn (): ?string => Kept::get($file, $length));
    }

    /**
     * @param array<string, string> $columns packed column by name
     *
     * @return array<string, array{string, int}> file and length by name, for a manifest
     *
     * @throws UnableToKeep
     */
    public function keepColumns(array $columns): array
    {
        $files = [];
        foreach ($columns as $name => $bytes) {
            $files[$name] = ["$this->folder/$name.".bin2hex(random_bytes(8)), strlen($bytes)];
            Kept::put($files[$name][0], $bytes);
        }

        return $files;
    }

    /**
     * A derived column; null when it has to be made.
     *
     * @param list<string> $from what it follows from, see {@see derived()}
     */
    public function derivedColumn(string $name, array $from): ?string
    {
        $file = $this->derived($name, $from);

        return self::remembered($file, static function () use ($file): ?string {
            $bytes = Kept::get($file);
            $head = strlen(self::HEAD) + 8;
            if ($bytes === null || strlen($bytes) < $head || ! str_starts_with($bytes, self::HEAD.pack('P', strlen($bytes) - $head))) {
                return null;
            }

            return substr($bytes, $head);
        });
    }

    /**
     * Keeps a derived column; without room for it, it is made again next time.
     *
     * @param list<string> $from
     */
    public function keepDerivedColumn(string $name, array $from, string $bytes): void
    {
        $file = $this->derived($name, $from);
        try {
            Kept::put($file, self::HEAD.pack('P', strlen($bytes)).$bytes);
        } catch (UnableToKeep $full) {
            Log::warning($full->getMessage(), ['project' => $this->project->key, 'column' => $name]);

            return;
        }
        self::remember($file, $bytes);
    }

    public function forgetManifest(int $revision): void
    {
        $file = $this->base($revision);
        apcu_enabled() && apcu_delete($file);
        Kept::disk()->exists($file) && Kept::disk()->delete($file);
    }

    public function forget(): void
    {
        Kept::disk()->deleteDirectory($this->folder);
        apcu_enabled() && apcu_delete($this->base($this->project->revision));
    }

    /** @param \Closure(): (string|null) $read */
    private static function remembered(string $file, \Closure $read): ?string
    {
        $known = apcu_enabled() ? apcu_fetch($file) : false;
        if (is_string($known)) {
            return $known;
        }
        $bytes = $read();
        if ($bytes !== null) {
            self::remember($file, $bytes);
        }

        return $bytes;
    }

    private static function remember(string $file, string $bytes): void
    {
        apcu_enabled() && apcu_store($file, $bytes, self::REMEMBERED);
    }
}
