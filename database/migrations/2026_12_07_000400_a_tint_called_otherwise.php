<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

/** The tint by what has no tag is called so on desks and in views. */
return new class extends Migration {
    public function up(): void
    {
        $this->rename('untagged', 'without-tags');
    }

    public function down(): void
    {
        $this->rename('without-tags', 'untagged');
    }

    private function rename(string $from, string $to): void
    {
        foreach (['desks', 'views'] as $table) {
            DB::update("UPDATE $table SET tint = tint || jsonb_build_object('by', ?::text) WHERE tint->>'by' = ?", [$to, $from]);
        }
    }
};
