<?php

declare(strict_types=1);

use Illuminate\Database\Migrations\Migration;
use Illuminate\Database\Schema\Blueprint;
use Illuminate\Support\Facades\Schema;

return new class extends Migration {
    public function up(): void
    {
        // Why exports leave out what came in a file; empty where they do not.
        Schema::table('sources', static fn (Blueprint $table) => $table->text('held_back')->default(''));
    }

    public function down(): void
    {
        Schema::table('sources', static fn (Blueprint $table) => $table->dropColumn('held_back'));
    }
};
