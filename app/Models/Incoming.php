<?php

declare(strict_types=1);

namespace App\Models;

use Illuminate\Support\Facades\DB;

/** Rows on their way into a table by COPY, which takes them ten times as fast as INSERT. */
final class Incoming
{
    private const AT_ONCE = 10_000;

    /** @var list<string> */
    private array $lines = [];

    private int $in = 0;

    /**
     * @param string              $columns with commas between
     * @param \Closure(int): void $copied  is told how many rows are in
     */
    public function __construct(
        private readonly string $table,
        private readonly string $columns,
        private readonly ?\Closure $copied = null,
    ) {}

    /**
     * A few rows of any columns.
     *
     * @param list<array<string, mixed>> $rows
     */
    public static function insert(string $table, array $rows): void
    {
        foreach (array_chunk($rows, 1000) as $some) {
            DB::table($table)->insert($some);
        }
    }

    /** @param string $line fields as COPY has them, with tabs between */
    public function add(string $line): void
    {
        $this->lines[] = $line;
        if (count($this->lines) === self::AT_ONCE) {
            $this->finish();
        }
    }

    public function finish(): void
    {
        if ($this->lines === []) {
            return;
        }
        if (! DB::connection()->getPdo()->pgsqlCopyFromArray($this->table, $this->lines, "\t", '\\\\N', $this->columns)) {
            throw new \RuntimeException("The rows of $this->table could not be stored.");
        }
        $this->in += count($this->lines);
        $this->lines = [];
        if ($this->copied !== null) {
            ($this->copied)($this->in);
        }
    }

    /** A text as a COPY line has it. Byte 0, which the database cannot hold, is taken out, and so is what is no text. */
    public static function text(string $text): string
    {
        if (! mb_check_encoding($text, 'UTF-8')) {
            $text = mb_scrub($text);
        }
        // Most texts have nothing in them that COPY reads otherwise.
        if (strcspn($text, "\\\t\n\r\0") === strlen($text)) {
            return $text;
        }

        return addcslashes(str_replace("\0", '', $text), "\\\t\n\r");
    }

    public static function bytes(string $bytes): string
    {
        return '\\\\x'.bin2hex($bytes);
    }
}
