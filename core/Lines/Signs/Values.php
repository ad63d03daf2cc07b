<?php

declare(strict_types=1);

namespace VineShelf\Lines\Signs;

use VineShelf\Facts\Facts;
use VineShelf\Rules\Printer;

/** The value of one property of the files. */
final readonly class Values implements Sign
{
    /** A property with more values than this says who an object is, not what. */
    private const MOST = 400;

    /** A property repeats the layers if it says what the layer is called of so many of the objects that have it. */
    private const REPEATS = 0.8;

    private function __construct(private Facts $facts, public string $name, private int $index) {}

    /** @return list<self> for every property that sorts objects into a few heaps */
    public static function all(Facts $facts): array
    {
        $all = [];
        foreach ($facts->properties() as $name => [$index]) {
            if (count($facts->words("property.$index.words")) <= self::MOST) {
                $all[] = new self($facts, (string) $name, $index);
            }
        }

        return $all;
    }

    /**
     * Whether the property says hardly more than what the layers are called: the file was sorted by it.
     *
     * @param array<int, string> $layers names by number
     */
    public function repeats(array $layers): bool
    {
        $words = array_map(self::plain(...), $this->facts->words("property.$this->index.words"));
        $layers = array_map(self::plain(...), $layers);
        $has = $same = 0;
        foreach ($this->codes() as $row => $code) {
            if ($row > 0 && $code !== 0) {
                $has++;
                $same += (int) (($layers[$this->facts->scene->layers()->at($row)] ?? null) === ($words[$code] ?? ''));
            }
        }

        return $has > 0 && $same >= self::REPEATS * $has;
    }

    public function codes(): array
    {
        return $this->facts->codes($this->index)->all();
    }

    public function rule(int $code): string
    {
        return Printer::property($this->name).'='.Printer::word((string) $this->facts->words("property.$this->index.words")[$code]);
    }

    public function isOwn(): bool
    {
        return true;
    }

    private static function plain(float|int|string $name): string
    {
        return mb_strtolower(trim((string) $name));
    }
}
