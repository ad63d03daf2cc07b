<?php

declare(strict_types=1);

namespace App\Scenes;

/** Which file holds which column of an index, and how long each file is. A manifest is written once and never changed. */
final readonly class Manifest
{
    /**
     * @param string                             $stamp   of the build that the columns go back to: another one once objects came or went
     * @param array<string, array{string, int}> $columns file and its length in bytes, by column
     */
    public function __construct(public string $stamp, public array $columns) {}

    /** @param array<string, array{string, int}> $columns */
    public function with(array $columns): self
    {
        return new self($this->stamp, $columns + $this->columns);
    }

    public function file(string $column): string
    {
        return $this->columns[$column][0] ?? '';
    }

    public function pack(): string
    {
        return json_encode(['stamp' => $this->stamp, 'columns' => $this->columns], JSON_THROW_ON_ERROR);
    }

    /** Null when it is not a whole manifest. */
    public static function unpack(string $packed): ?self
    {
        $read = json_decode($packed, true);
        if (! is_array($read) || ! is_string($read['stamp'] ?? null) || ! is_array($read['columns'] ?? null)) {
            return null;
        }
        $columns = [];
        foreach ($read['columns'] as $name => $entry) {
            if (! is_array($entry) || ! is_string($entry[0] ?? null) || ! is_int($entry[1] ?? null)) {
                return null;
            }
            $columns[(string) $name] = [$entry[0], $entry[1]];
        }

        return new self($read['stamp'], $columns);
    }
}
