<?php

declare(strict_types=1);

namespace App\Ledger;

use App\Bench\Bench;
use App\Bench\Refused;
use App\Models\View;
use Illuminate\Support\Facades\DB;
use VineShelf\Folders\Folder;
use VineShelf\Rungs\Rung;
use VineShelf\Rungs\Settings;

/** Cells of the grid as text: to be copied and pasted, and as a file of comma-separated values. */
final class GridSheet
{
    private const MOST_CELLS = 2_000_000;

    /** @var list<Settings|null> null for a view that keeps no rungs */
    private readonly array $settings;

    /** @param list<View> $views */
    public function __construct(private readonly Bench $bench, private readonly array $views)
    {
        $this->settings = array_map(static fn (View $view): ?Settings => $view->keepsRungs() ? $view->settings() : null, $views);
    }

    /**
     * @param list<string> $keys of rows
     *
     * @return string a line a row, a tab between views: a rung from 0 to 5, or "." for nothing
     */
    public function cells(array $keys): string
    {
        $this->check(count($keys));

        return implode(
            "\n",
            array_map(
                fn (string $key): string => implode(
                    "\t",
                    array_map(static fn (?Rung $rung): string => (string) ($rung->value ?? '.'), $this->rungs($key)),
                ),
                $keys,
            ),
        );
    }

    /**
     * What was copied: lines of cells; a rung may also be written by its name.
     *
     * @return list<list<Rung|null>>
     *
     * @throws Refused with the place of a cell that is none
     */
    public static function pattern(string $text): array
    {
        $pattern = [];
        foreach (explode("\n", rtrim(str_replace("\r", '', $text), "\n")) as $at => $line) {
            foreach (explode("\t", $line) as $place => $cell) {
                $pattern[$at][$place] = self::rung($cell, 'line '.($at + 1).', column '.($place + 1));
            }
        }

        return array_values(array_map(array_values(...), $pattern));
    }

    /** @throws Refused */
    private static function rung(string $cell, string $where, string $field = 'pattern'): ?Rung
    {
        $cell = mb_strtolower(trim($cell));
        if (in_array($cell, ['', '.', '=', 'nothing', 'nothing set'], true)) {
            return null;
        }
        foreach (Rung::cases() as $rung) {
            if ($cell === (string) $rung->value || $cell === mb_strtolower($rung->label())) {
                return $rung;
            }
        }
        throw new Refused("“{$cell}” in $where is no rung: Full, Plain, Coarse, Ghost, Box or Hidden, or empty.", $field);
    }

    /**
     * @param list<string> $keys of rows
     *
     * @return string with a head: what a row is, its number, its name; then the views
     */
    public function file(array $keys): string
    {
        $this->check(count($keys));
        $names = $this->names($keys);
        $file = fopen('php://temp', 'r+');
        if ($file === false) {
            throw new \RuntimeException('There is no memory for a file.');
        }
        $heads = array_map(static fn (View $view): string => self::plain("$view->name #$view->no"), $this->views);
        fputcsv($file, ['Row', 'Number', 'Name', ...$heads], escape: '');
        foreach ($keys as $key) {
            $cells = array_map(static fn (?Rung $rung): string => $rung?->label() ?? '', $this->rungs($key));
            $what = ['L' => 'layer', 'T' => 'tag', 'F' => 'folder', 'O' => 'object'][$key[0]] ?? '';
            fputcsv($file, [$what, substr($key, 1), self::plain($names[$key] ?? ''), ...$cells], escape: '');
        }
        rewind($file);

        return "\u{FEFF}".stream_get_contents($file);
    }

    /**
     * What a file of comma-separated values, as {@see file()} writes it, says otherwise than the views do now.
     *
     * @throws Refused when it is no such file, with the line and the column
     */
    public static function read(Bench $bench, string $text): ReadSheet
    {
        $lines = self::lines($text);
        $head = array_shift($lines) ?? [];
        if (
            mb_strtolower(trim((string) ($head[0] ?? ''), " \t\u{FEFF}")) !== 'row' ||
            mb_strtolower(trim((string) ($head[1] ?? ''))) !== 'number'
        ) {
            throw new Refused('The first line has to begin with Row, Number, Name; then come the views.', 'sheet');
        }
        $columns = $views = $unknown = [];
        foreach (array_slice($head, 3, null, true) as $place => $name) {
            $view = self::view($bench, trim((string) $name));
            if ($view === null) {
                $unknown[] = trim((string) $name);
            } elseif (! in_array($view, $views, true)) {
                $columns[$place] = count($views);
                $views[] = $view;
            }
        }
        $sheet = new self($bench, $views);
        $cells = [];
        $missing = $changing = 0;
        foreach ($lines as $at => $line) {
            $key = self::key($bench, trim((string) ($line[0] ?? '')), trim((string) ($line[1] ?? '')));
            if ($key === null) {
                $missing++;
                continue;
            }
            $now = $sheet->rungs($key);
            foreach ($columns as $place => $column) {
                $rung = self::rung((string) ($line[$place] ?? ''), 'line '.($at + 2).', column '.($place + 1), 'sheet');
                if ($rung !== $now[$column] && $sheet->settings[$column] !== null) {
                    $cells[$column][$rung->value ?? -1][] = $key;
                    $changing++;
                }
            }
        }

        return new ReadSheet($views, $cells, $changing, $missing, $unknown);
    }

    /**
     * @return list<list<string|null>>
     *
     * @throws Refused
     */
    private static function lines(string $text): array
    {
        if (! mb_check_encoding($text, 'UTF-8')) {
            throw new Refused('The file is not written in UTF-8.', 'sheet');
        }
        $file = fopen('php://temp', 'r+');
        if ($file === false) {
            throw new \RuntimeException('There is no memory for a file.');
        }
        fwrite($file, (string) preg_replace('~^\x{FEFF}~u', '', $text));
        rewind($file);
        // Table programs of some countries write semicolons.
        $first = (string) fgets($file);
        $between = substr_count($first, ';') > substr_count($first, ',') ? ';' : ',';
        rewind($file);
        $lines = [];
        while (($line = fgetcsv($file, separator: $between, escape: '')) !== false) {
            if ($line !== [null]) {
                $lines[] = $line;
            }
        }

        return $lines;
    }

    private static function view(Bench $bench, string $head): ?View
    {
        $number = preg_match('~#(\d{1,9})$~D', $head, $found) === 1 ? (int) $found[1] : 0;
        $named = array_values(array_filter($bench->shelf()->members, static fn (View $view): bool => $view->name === $head));

        return $bench->shelf()->members[$number] ?? (count($named) === 1 ? $named[0] : null);
    }

    /** The key of a row that is there. */
    private static function key(Bench $bench, string $what, string $number): ?string
    {
        $no = preg_match('~^\d{1,9}$~D', $number) === 1 ? (int) $number : 0;

        return match (mb_strtolower($what)) {
            'layer' => $bench->layers()->has($no) ? "L$no" : null,
            'tag' => $bench->tags()->has($no) ? "T$no" : null,
            'folder' => $bench->tags()->hasFolder($no) ? "F$no" : null,
            'object' => $bench->scene()->row($no) > 0 ? "O$no" : null,
            default => null,
        };
    }

    /** What a table program would take for a formula is text. */
    private static function plain(string $name): string
    {
        return preg_match('~^[=+\-@\t\r]~', $name) === 1 ? "'$name" : $name;
    }

    /** @throws Refused */
    private function check(int $rows): void
    {
        if ($rows * max(1, count($this->views)) > self::MOST_CELLS) {
            throw new Refused('At most '.number_format(self::MOST_CELLS).' cells go at once; narrow the rows or the views.', 'span');
        }
    }

    /** @return list<Rung|null> what each view says of a row */
    private function rungs(string $key): array
    {
        $number = (int) substr($key, 1);

        return array_map(
            static fn (?Settings $settings): ?Rung => match ($key[0]) {
                'L' => $settings?->layer($number),
                'T' => $settings?->tag($number),
                'F' => $settings?->folder($number),
                default => $settings?->object($number),
            },
            $this->settings,
        );
    }

    /**
     * @param list<string> $keys
     *
     * @return array<string, string>
     */
    private function names(array $keys): array
    {
        $names = [];
        foreach ($this->bench->layers()->walk() as [$layer]) {
            $names["L$layer->number"] = $this->bench->layers()->path($layer->number);
        }
        $tags = $this->bench->tags()->tree;
        foreach ([...$tags->folders, ...$tags->members] as $what) {
            $names[($what instanceof Folder ? 'F' : 'T').$what->number] = $tags->path($what);
        }
        $numbers = array_map(
            static fn (string $key): int => (int) substr($key, 1),
            array_filter($keys, static fn (string $key): bool => $key[0] === 'O'),
        );
        foreach (array_chunk($numbers, 10_000) as $some) {
            $found = DB::table('objects')->where('project_id', $this->bench->project->id)->whereIn('no', $some)->pluck('name', 'no');
            foreach ($found as $number => $name) {
                $names["O$number"] = is_string($name) ? $name : '';
            }
        }

        return $names;
    }
}
